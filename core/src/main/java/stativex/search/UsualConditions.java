package stativex.search;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import stativex.rule.Program;
import stativex.study.OutputColumn;
import stativex.study.StudyDefinition;

/**
 * Conditions that rules from examples are put together of: what the strategy's studies say, a few usual studies beside them, and the bars
 * themselves. Numbers are taken from the values that a study had. Which ones are usual is common practice, no source.
 */
final class UsualConditions {
    private static final List<StudyDefinition> STUDIES = List.of(StudyDefinition.of("ema21", "ema", "length", "21"),
            StudyDefinition.of("ema50", "ema", "length", "50"), StudyDefinition.of("rsi14", "rsi", "length", "14"),
            StudyDefinition.of("atr14", "atr", "length", "14"),
            StudyDefinition.of("band20", "bollinger", "length", "20", "deviations", "2"),
            StudyDefinition.of("stoch14", "stochastic", "length", "14"),
            StudyDefinition.of("fair", "vwap", "deviations", "2"));

    private static final List<String> OF_BARS = List.of("close > open", "close < open", "delta > 0", "delta < 0",
            "close > high 1 bar before", "close < low 1 bar before", "high > high 1 bar before",
            "low < low 1 bar before", "high = highest 10 of high", "low = lowest 10 of low",
            "high = highest 20 of high", "low = lowest 20 of low", "close is rising over 3 bars",
            "close is falling over 3 bars", "volume > average 20 of volume", "volume < average 20 of volume",
            "close > session.open", "close < session.open");

    /** Places in the sorted values, percent, at which a study is cut. */
    private static final int[] CUTS = {10, 25, 50, 75, 90};

    private UsualConditions() {}

    /** Those whose names are free. */
    static List<StudyDefinition> studies(Set<String> taken) {
        return STUDIES.stream().filter(study -> !taken.contains(study.name())).toList();
    }

    /**
     * The conditions, each once.
     *
     * @param program that has taken every bar
     * @param from first bar whose values count
     */
    static List<String> of(Program program, int from) {
        Set<String> conditions = new LinkedHashSet<>(OF_BARS);
        for (Program.StudyOutput output : program.studies("")) {
            String name = output.name();
            switch (output.column().unit()) {
                case LEVEL -> conditions.addAll(List.of("close > " + name, "close < " + name, "low < " + name,
                        "high > " + name, "close rises through " + name, "close falls through " + name,
                        name + " is rising", name + " is falling"));
                case DISTANCE -> cut(conditions, output, from, program.rows(), " ticks");
                case NUMBER -> cut(conditions, output, from, program.rows(), "");
                case FLAG -> conditions.addAll(List.of(name, "not " + name));
            }
        }
        return new ArrayList<>(conditions);
    }

    private static void cut(Set<String> conditions, Program.StudyOutput output, int from, int bars, String unit) {
        String name = output.name();
        conditions.addAll(List.of(name + " is rising", name + " is falling"));
        OutputColumn column = output.column();
        double[] values = java.util.stream.IntStream.range(from, bars).mapToDouble(column::at)
                .filter(value -> !Double.isNaN(value)).toArray();
        Arrays.sort(values);
        if (values.length == 0) {
            return;
        }
        for (int percent : CUTS) {
            String number = new BigDecimal(values[(values.length - 1) * percent / 100]).round(new MathContext(3))
                    .stripTrailingZeros().toPlainString();
            conditions.add(name + " > " + number + unit);
            conditions.add(name + " < " + number + unit);
        }
    }
}
