package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;

/**
 * What happens when a check before engaging is not clear, as far as the person has set it.
 *
 * @param responses by the name of the check
 */
public record CheckSettings(Map<String, String> responses) {
    /** Nothing is set. */
    public static final CheckSettings NONE = new CheckSettings(Map.of());

    public CheckSettings {
        responses = Map.copyOf(responses);
    }

    private static Path file() {
        return DataFolder.path().resolve("checks.json");
    }

    /** The person's own; none when there are none, or none that read. */
    public static CheckSettings read() {
        if (!Files.exists(file())) {
            return NONE;
        }
        try {
            Map<String, String> responses = new LinkedHashMap<>();
            Field of = Field.root("checks.json", Json.read(file()));
            of.items("responses").forEach(one -> responses.put(one.at("check").text(), one.at("then").text()));
            return new CheckSettings(responses);
        } catch (BadInput e) {
            return NONE;
        }
    }

    /** The same with another response. */
    public CheckSettings with(String check, String then) {
        Map<String, String> next = new LinkedHashMap<>(responses);
        next.put(check, then);
        return new CheckSettings(next);
    }

    /** Keeps them. @throws BadInput when they cannot be written */
    public void keep() {
        Map<String, Object> of = new LinkedHashMap<>();
        of.put("document", "checks before engaging");
        of.put("version", 1);
        of.put("responses", new TreeMap<>(responses).entrySet().stream()
                .map(one -> Map.of("check", one.getKey(), "then", one.getValue())).toList());
        WholeFile.writeOwn(file(), out -> out.write(Json.pretty(of)));
    }
}
