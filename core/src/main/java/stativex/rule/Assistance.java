package stativex.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import stativex.study.BarField;
import stativex.study.StudyDefinition;

/** Help while a rule is written: what may be said at a place, and what a word there means. */
public final class Assistance {
    /**
     * @param text what is put in place of the word begun
     * @param help one line
     */
    public record Suggestion(String text, String help) {}

    private final Program program;

    public Assistance(Program program) {
        this.program = program;
    }

    /** Where the word that ends at the caret begins. */
    public static int wordStart(String text, int caret) {
        int from = caret;
        while (from > 0 && isPart(text.charAt(from - 1))) {
            from--;
        }
        return from;
    }

    private static boolean isPart(char letter) {
        return Character.isLetterOrDigit(letter) || letter == '_' || letter == '.';
    }

    /** Names and forms that begin with the word at the caret; names first. */
    public List<Suggestion> suggestions(String text, int caret) {
        String begun = text.substring(wordStart(text, caret), caret).toLowerCase(Locale.ROOT);
        List<Suggestion> found = new ArrayList<>();
        for (String name : program.names()) {
            if (name.toLowerCase(Locale.ROOT).startsWith(begun)) {
                found.add(new Suggestion(name, meaning(name).orElse("")));
            }
        }
        for (Program.MarkOutput mark : program.marks()) {
            if (!begun.isEmpty()
                    && (mark.name().toLowerCase(Locale.ROOT).startsWith(begun) || "mark".startsWith(begun))) {
                found.add(new Suggestion("mark " + mark.name() + " stands on this bar",
                        "a mark of " + mark.definition().words()));
            }
        }
        for (Map.Entry<String, String> form : Language.forms().entrySet()) {
            boolean some = java.util.Arrays.stream(form.getKey().split(" ")).anyMatch(word -> word.startsWith(begun));
            if (!begun.isEmpty() && some) {
                found.add(new Suggestion(form.getKey(), form.getValue()));
            }
        }
        return found;
    }

    /** What the word at a place means; empty if it means nothing by itself. */
    public Optional<String> help(String text, int place) {
        int from = wordStart(text, Math.min(place, text.length()));
        int to = Math.min(place, text.length());
        while (to < text.length() && isPart(text.charAt(to))) {
            to++;
        }
        String word = text.substring(from, to);
        if (word.isEmpty()) {
            return Optional.empty();
        }
        Optional<String> named = meaning(word);
        return named.isPresent()
                ? named
                : Language.forms().entrySet().stream()
                        .filter(form -> List.of(form.getKey().split("[ (]")).contains(word))
                        .map(form -> form.getKey() + ": " + form.getValue()).findFirst();
    }

    private Optional<String> meaning(String name) {
        for (BarField field : BarField.values()) {
            if (field.word().equals(name)) {
                return Optional.of(field.help());
            }
        }
        String first = name.split("\\.")[0];
        Optional<StudyDefinition> study = program.blueprint().studies().stream()
                .filter(d -> d.name().equals(first)).findFirst();
        if (study.isPresent()) {
            String output = name.contains(".") ? name.substring(first.length() + 1) + " of " : "";
            return Optional.of(output + study.get().words());
        }
        return program.blueprint().series().stream().filter(s -> s.name().equals(first)).findFirst()
                .map(s -> (name.contains(".") ? name.substring(first.length() + 1) + " of " : "")
                        + s.bars().type().words() + s.contract().map(c -> " of " + c).orElse(""));
    }
}
