package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import stativex.market.Money;

/**
 * What the person holds every trial against: {@code trials.json} of the data folder.
 *
 * @param worstDay the loss of a day that is too much, money above 0; empty: the account's own day loss
 */
public record TrialSettings(Optional<Long> worstDay) {
    private static Path file() {
        return DataFolder.path().resolve("trials.json");
    }

    /** What was kept; nothing when there is no file, or none that reads. */
    public static TrialSettings read() {
        if (!Files.exists(file())) {
            return new TrialSettings(Optional.empty());
        }
        try {
            return new TrialSettings(Field.root("trials.json", Json.read(file())).maybe("worstDay").map(Field::money)
                    .filter(money -> money > 0));
        } catch (BadInput | IllegalArgumentException e) {
            return new TrialSettings(Optional.empty());
        }
    }

    /** Keeps it. @throws BadInput when it cannot be written */
    public void keep() {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("document", "trials");
        json.put("version", 1);
        worstDay.ifPresent(money -> json.put("worstDay", Money.text(money)));
        WholeFile.writeOwn(file(), out -> out.write(Json.pretty(json)));
    }
}
