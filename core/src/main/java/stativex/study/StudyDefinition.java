package stativex.study;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A study as its strategy defines it, once, under a name that rules and chart share. What is wrong with it is said when it
 * is checked.
 *
 * @param kind word of its {@link StudyKind}, or {@code formula}: a value worked out from others
 * @param of what it takes, in the rule language; empty: what its kind takes when nothing is written
 * @param on name of the series it sits on; empty: the signal series
 * @param settings text of each field that is written
 */
public record StudyDefinition(String name, String kind, Optional<String> of, Optional<String> on,
        Map<String, String> settings) {
    /** The kind that is a value worked out from others. */
    public static final String FORMULA = "formula";

    /** Field of every study with several outputs: those that the chart shows, with + between them; all if left out. */
    public static final String SHOW = "show";

    /** Field of every study: what its lines are drawn with. */
    public static final String INK = "ink";
    /** Ink, the default, or a muted tone that is none of the four colours that mean something. */
    public static final List<String> INKS = List.of("ink", "teal", "moss", "olive", "mauve");

    /** Field of a formula that is a yes or no: the mark it draws on every bar on which it holds. */
    public static final String MARK = "mark";
    /** None, the default; at the close; below the low, pointing up; above the high, pointing down. */
    public static final List<String> MARKS = List.of("none", "plain", "up", "down");

    /** What {@link #SHOW} calls the main output, which has no name of its own. */
    public static final String MAIN = "main";

    public StudyDefinition {
        settings = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(settings));
    }

    /** A study on the signal series: fields and their texts by turns. */
    public static StudyDefinition of(String name, String kind, String... settings) {
        Map<String, String> written = new LinkedHashMap<>();
        for (int i = 0; i < settings.length; i += 2) {
            written.put(settings[i], settings[i + 1]);
        }
        return new StudyDefinition(name, kind, Optional.empty(), Optional.empty(), written);
    }

    /** Whether the chart shows an output; rules may use every one. */
    public boolean shows(String output) {
        String shown = settings.get(SHOW);
        return shown == null || List.of(shown.split("\\+")).contains(output.isEmpty() ? MAIN : output);
    }

    /** What its lines are drawn with, one of {@link #INKS}. */
    public String ink() {
        return settings.getOrDefault(INK, INKS.getFirst());
    }

    /** The mark that a formula draws where it holds, one of {@link #MARKS}. */
    public String mark() {
        return settings.getOrDefault(MARK, MARKS.getFirst());
    }

    /** Whether the chart shows its marks. */
    public boolean showsMarks() {
        return !settings.getOrDefault(SHOW, "").equals("none");
    }

    /** @throws StudyProblem when it is drawn with something that is no ink */
    void checkInk() {
        if (!INKS.contains(ink())) {
            throw new StudyProblem(name, INK, "expected one of " + String.join(", ", INKS) + ", found " + ink());
        }
    }

    /** The same taking something else. */
    public StudyDefinition taking(String input) {
        return new StudyDefinition(name, kind, Optional.of(input), on, settings);
    }

    /** The same on another series. */
    public StudyDefinition sittingOn(String series) {
        return new StudyDefinition(name, kind, of, Optional.of(series), settings);
    }

    public StudyDefinition named(String other) {
        return new StudyDefinition(other, kind, of, on, settings);
    }

    /** As said on screen: {@code EMA 21 of close}. */
    public String words() {
        Optional<StudyKind> known = Studies.kind(kind);
        StringBuilder words = new StringBuilder(known.map(StudyKind::title).orElse(""));
        known.ifPresent(k -> {
            for (int i = 0; i < k.fields().size(); i++) {
                StudyField field = k.fields().get(i);
                String text = settings.get(field.name());
                if (i == 0) {
                    words.append(' ').append(text == null ? field.fallback() : text);
                } else if (text != null) {
                    words.append(", ").append(field.name()).append(' ').append(text);
                }
            }
        });
        String input = of.or(() -> known.flatMap(StudyKind::of).map(BarField::word)).orElse("");
        if (kind.equals(FORMULA)) {
            words.append(input);
        } else if (!input.isEmpty()) {
            words.append(" of ").append(input);
        }
        on.ifPresent(series -> words.append(" on ").append(series));
        return words.toString();
    }
}
