package stativex.study;

import java.util.List;
import java.util.Optional;

/** Keltner bands: EMA N ± k × ATR N, each as the study of that name. */
final class Keltner extends Study {
    static final StudyKind KIND = new StudyKind("keltner", "Keltner", "mean with bands of average ranges",
            Optional.of(BarField.CLOSE),
            List.of(StudyField.length(20), StudyField.factor("ranges", "2", "how far the bands lie away")), true,
            "EMA N, `.upper` and `.lower` k · ATR N away; N + 1 bars; from `ema` and `atr`", Keltner::new);

    private final Ema middle;
    private final Atr range;
    private final double bands;
    private final OutputColumn mean;
    private final OutputColumn upper;
    private final OutputColumn lower;

    Keltner(StudyInputs in) {
        OutputColumn input = in.of();
        if (input.unit() != Unit.LEVEL) {
            throw new IllegalArgumentException("expected a price to put bands of ranges around, found "
                    + input.unit().words());
        }
        this.middle = part(new Ema(input, in.whole("length")));
        this.range = part(new Atr(in.frame(), in.whole("length")));
        this.bands = in.number("ranges");
        this.mean = output(like(input));
        this.upper = output(like(input, "upper", "lower"));
        this.lower = output(like(input, "lower", "upper"));
    }

    @Override
    void compute(int from, int to) {
        double[] m = middle.main().values();
        double[] r = range.main().values();
        for (int bar = from; bar < to; bar++) {
            mean.values()[bar] = m[bar];
            upper.values()[bar] = m[bar] + bands * r[bar];
            lower.values()[bar] = m[bar] - bands * r[bar];
        }
    }
}
