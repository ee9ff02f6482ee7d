package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import stativex.trial.Days;

/**
 * What the window had when it was last open, so that it begins with it again.
 *
 * @param tape name of the stored tape that was replayed
 * @param account name of the account
 * @param days of the tape that were replayed
 * @param stage number of the stage
 */
public record DeskState(Optional<String> tape, Optional<String> account, Days days, int stage) {
    /** Of a window that has not been open yet. */
    public static final DeskState NOTHING = new DeskState(Optional.empty(), Optional.empty(), Days.ALL, 1);

    private static Path file() {
        return DataFolder.path().resolve("desk.json");
    }

    /** What was kept; nothing when there is no file, or none that reads. */
    public static DeskState read() {
        if (!Files.exists(file())) {
            return NOTHING;
        }
        try {
            Field state = Field.root("desk.json", Json.read(file()));
            return new DeskState(state.maybe("tape").map(Field::text), state.maybe("account").map(Field::text),
                    new Days(state.maybe("firstDay").map(Field::date), state.maybe("lastDay").map(Field::date)),
                    state.maybe("stage").map(Field::integer).filter(n -> n >= 1 && n <= 6)
                            .orElse(1));
        } catch (BadInput | IllegalArgumentException e) {
            return NOTHING;
        }
    }

    /** Keeps it. @throws BadInput when it cannot be written */
    public void keep() {
        Map<String, Object> state = new LinkedHashMap<>();
        state.put("document", "desk");
        state.put("version", 1);
        tape.ifPresent(name -> state.put("tape", name));
        account.ifPresent(name -> state.put("account", name));
        days.first().ifPresent(day -> state.put("firstDay", day.toString()));
        days.last().ifPresent(day -> state.put("lastDay", day.toString()));
        state.put("stage", stage);
        WholeFile.writeOwn(file(), out -> out.write(Json.pretty(state)));
    }
}
