package stativex.study;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import stativex.market.Aggressor;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.trial.Given;

/** Studies computed on bars of a random tape: the whole history at once, bar by bar, and bar by bar with looks between. */
public final class Computed {
    private Computed() {}

    /** Five prints a bar, a session of 720 prints, two sessions a day, over weekdays. */
    public static Tape walk(long seed, int prints) {
        SplittableRandom dice = new SplittableRandom(seed);
        TapeBuilder tape = new TapeBuilder(prints);
        long price = 5000;
        int days = 0;
        int inSession = 0;
        String open = "01:00";
        for (int i = 0; i < prints; i++) {
            price += dice.nextInt(-4, 5);
            tape.add(Given.at(days, open) + inSession * 5L * Given.SECOND, price, dice.nextInt(1, 20), Tape.NONE,
                    Tape.NONE, Optional.of(Aggressor.values()[dice.nextInt(3)]));
            if (++inSession == 720) {
                inSession = 0;
                days += open.equals("01:00") ? 0 : days % 7 == 4 ? 3 : 1;
                open = open.equals("01:00") ? "03:00" : "01:00";
            }
        }
        return tape.build();
    }

    public static BarSeries bars(Tape tape, BarType type) {
        return SeriesBuilder.all(tape, Given.calendar(), BarSettings.of(type));
    }

    /** The outputs of a study over a whole history, by name. */
    static Map<String, double[]> all(StudyDefinition definition, BarSeries bars, Optional<String> of) {
        Frame frame = new Frame(bars, bars.calendar());
        Study study = study(definition, frame, of);
        int count = bars.count();
        frame.take(0, count);
        study.take(0, count);
        return outputs(study, count);
    }

    static Map<String, double[]> all(StudyDefinition definition, BarSeries bars) {
        return all(definition, bars, Optional.empty());
    }

    private static Study study(StudyDefinition definition, Frame frame, Optional<String> of) {
        return Studies.make(definition, frame,
                of.map(word -> frame.field(BarField.valueOf(word.toUpperCase(java.util.Locale.ROOT)))));
    }

    private static Map<String, double[]> outputs(Study study, int count) {
        Map<String, double[]> outputs = new java.util.LinkedHashMap<>();
        for (OutputColumn column : study.outputs()) {
            outputs.put(column.name(), Arrays.copyOf(column.values(), count));
        }
        return outputs;
    }

    /** The same live: print by print, each closed bar by itself, and the forming bar looked at now and then. */
    static Map<String, double[]> live(StudyDefinition definition, Tape tape, BarType type, SplittableRandom dice) {
        SeriesBuilder builder = new SeriesBuilder(tape, Given.calendar(), BarSettings.of(type));
        Frame frame = new Frame(builder.series(), Given.calendar());
        Study study = study(definition, frame, Optional.empty());
        int rows = 0;
        for (int print = 0; print < tape.count(); print++) {
            builder.print(print);
            for (; rows < builder.series().count(); rows++) {
                frame.take(rows, rows + 1);
                study.take(rows, rows + 1);
            }
            if (dice.nextInt(3) == 0 && builder.forming().isPresent()) {
                frame.takeForming(builder.forming().get(), tape.time(print));
                study.take(rows, rows + 1);
            }
        }
        return outputs(study, rows);
    }

    /** A definition of each kind, short enough to be warm on a few hundred bars. */
    static List<StudyDefinition> everyKind() {
        return Studies.kinds().stream().map(kind -> switch (kind.word()) {
            case "ichimoku" ->
                StudyDefinition.of("x", "ichimoku", "conversion", "5", "base", "9", "long", "18", "shift",
                        "9", "parts", "price+lines+cloud+lag");
            case "approach" -> StudyDefinition.of("x", "approach", "away", "8", "near", "2");
            case "range" -> StudyDefinition.of("x", "range", "minutes", "10");
            default -> StudyDefinition.of("x", kind.word());
        }).toList();
    }
}
