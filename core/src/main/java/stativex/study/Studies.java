package stativex.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.Words;

/** Every kind of study there is. A further one is one file and one line here. */
public final class Studies {
    private static final List<StudyKind> KINDS = List.of(Sma.KIND, Ema.KIND, Wma.KIND, Hull.KIND, Bollinger.KIND,
            Keltner.KIND, Donchian.KIND, Regression.KIND, Vwap.KIND, Sar.KIND, SuperTrend.KIND, Ichimoku.KIND,
            Pivots.KIND, Previous.KIND, OpeningRange.KIND, Swings.KIND, Profile.KIND, Averaged.KIND, Rsi.KIND,
            Stochastic.KIND, Cci.KIND, Macd.KIND, Roc.KIND, Atr.KIND, Dmi.KIND, Deviation.KIND, Score.KIND,
            CumulativeDelta.KIND, Prints.KIND, Imbalance.KIND, Divergence.KIND, Approach.KIND, Clock.KIND);

    private Studies() {}

    /** All kinds, those on the price chart first. */
    public static List<StudyKind> kinds() {
        return KINDS;
    }

    public static Optional<StudyKind> kind(String word) {
        return KINDS.stream().filter(kind -> kind.word().equals(word)).findFirst();
    }

    /**
     * Checks what is written in a definition, without what it takes.
     *
     * @return text of every field of its kind
     * @throws StudyProblem naming the field
     */
    public static Map<String, String> settings(StudyDefinition definition) {
        StudyKind kind = kind(definition.kind()).orElseThrow(() -> new StudyProblem(definition.name(), "study",
                "expected a kind of study, found \"" + definition.kind() + "\""
                        + Words.didYouMean(definition.kind(), KINDS.stream().map(StudyKind::word).toList())));
        definition.checkInk();
        for (String written : definition.settings().keySet()) {
            if (kind.field(written).isEmpty() && !written.equals(StudyDefinition.SHOW)
                    && !written.equals(StudyDefinition.INK)) {
                List<String> known = kind.fields().stream().map(StudyField::name).toList();
                throw new StudyProblem(definition.name(), written, "unknown field for the study " + kind.word()
                        + (known.isEmpty() ? ": it has none" : ": it has " + String.join(", ", known)));
            }
        }
        if (definition.of().isPresent() && kind.of().isEmpty()) {
            throw new StudyProblem(definition.name(), "of", "the study " + kind.word()
                    + " takes the bars themselves, not a value");
        }
        Map<String, String> texts = new LinkedHashMap<>();
        for (StudyField field : kind.fields()) {
            String text = definition.settings().getOrDefault(field.name(), field.fallback());
            try {
                field.type().check(text);
            } catch (IllegalArgumentException e) {
                throw new StudyProblem(definition.name(), field.name(), e.getMessage(), e);
            }
            texts.put(field.name(), text);
        }
        return texts;
    }

    /**
     * Checks what is written in a study of any kind or in a formula, without what it takes.
     *
     * @throws StudyProblem naming the field
     */
    public static void check(StudyDefinition definition) {
        if (definition.kind().equals(StudyDefinition.FORMULA)) {
            formulaSettings(definition);
        } else {
            settings(definition);
        }
    }

    private static void formulaSettings(StudyDefinition definition) {
        definition.checkInk();
        if (!StudyDefinition.MARKS.contains(definition.mark())) {
            throw new StudyProblem(definition.name(), StudyDefinition.MARK, "expected one of "
                    + String.join(", ", StudyDefinition.MARKS) + ", found " + definition.mark());
        }
        definition.settings().keySet().stream()
                .filter(written -> !written.equals(StudyDefinition.INK) && !written.equals(StudyDefinition.MARK))
                .findFirst()
                .ifPresent(written -> {
                    throw new StudyProblem(definition.name(), written, "unknown field for a formula");
                });
    }

    /**
     * Makes a study; it has taken no bar yet.
     *
     * @param of what it takes; the kind's own input if empty
     * @throws StudyProblem naming the field
     */
    public static Study make(StudyDefinition definition, Frame frame, Optional<OutputColumn> of) {
        Map<String, String> texts = settings(definition);
        StudyKind kind = kind(definition.kind()).orElseThrow();
        Optional<OutputColumn> input = of.or(() -> kind.of().map(frame::field));
        input.filter(column -> column.unit() == Unit.FLAG).ifPresent(column -> {
            throw new StudyProblem(definition.name(), "of", "expected a value, found a yes or no");
        });
        try {
            return kind.maker().make(new StudyInputs(frame, input, texts));
        } catch (IllegalArgumentException e) {
            throw new StudyProblem(definition.name(), "", e.getMessage(), e);
        }
    }

    /**
     * Reads {@code NAME = KIND [first field] {field value} [of VALUE] [on SERIES]}, or {@code NAME = VALUE}: a formula.
     *
     * @throws IllegalArgumentException saying what was expected
     */
    public static StudyDefinition read(String text) {
        int equals = text.indexOf('=');
        String name = equals < 0 ? "" : text.substring(0, equals).strip();
        if (!name.matches("[a-zA-Z_][a-zA-Z_0-9]*")) {
            throw new IllegalArgumentException("expected NAME = EXPRESSION such as drift = ema 21 of close, found "
                    + text);
        }
        String rest = text.substring(equals + 1).strip();
        List<String> words = new ArrayList<>(List.of(rest.split("\\s+")));
        Optional<StudyKind> kind = kind(words.getFirst());
        if (kind.isEmpty() && looksLikeCall(words)) {
            throw new IllegalArgumentException("expected a study, found " + words.getFirst()
                    + Words.didYouMean(words.getFirst(), kinds().stream().map(StudyKind::word).toList()));
        }
        boolean call = kind.isPresent()
                && (words.size() == 1 || words.get(1).matches("[a-zA-Z0-9].*|of|on"));
        return call
                ? call(name, kind.get(), words)
                : new StudyDefinition(name, StudyDefinition.FORMULA, Optional.of(rest), Optional.empty(), Map.of());
    }

    /** A word and a number that is no count of bars, or a word and {@code of}: a study by a name that is none. */
    private static boolean looksLikeCall(List<String> words) {
        return words.size() > 1 && words.getFirst().matches("[a-zA-Z_]+") && (words.get(1).equals("of")
                || words.get(1).matches("[0-9.]+") && (words.size() == 2 || !words.get(2).matches("bars?")));
    }

    private static StudyDefinition call(String name, StudyKind kind, List<String> words) {
        Map<String, String> settings = new LinkedHashMap<>();
        Optional<String> on = Optional.empty();
        int end = words.size();
        if (end > 2 && words.get(end - 2).equals("on")) {
            on = Optional.of(words.get(end - 1));
            end -= 2;
        }
        Optional<String> of = Optional.empty();
        int split = words.subList(0, end).indexOf("of");
        if (split > 0) {
            of = Optional.of(String.join(" ", words.subList(split + 1, end)));
            end = split;
        }
        int next = 1;
        if (next < end && kind.field(words.get(next)).isEmpty() && !kind.fields().isEmpty()) {
            settings.put(kind.fields().getFirst().name(), words.get(next++));
        }
        while (next < end) {
            if (next + 1 == end) {
                throw new StudyProblem(name, words.get(next), "expected a value, found none");
            }
            settings.put(words.get(next), words.get(next + 1));
            next += 2;
        }
        return new StudyDefinition(name, kind.word(), of, on, settings);
    }
}
