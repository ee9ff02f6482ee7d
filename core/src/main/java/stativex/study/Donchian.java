package stativex.study;

import java.util.List;
import java.util.Optional;

/** Highest high and lowest low of the last N bars, this one included, and their middle. TA-Lib's MAX and MIN. */
final class Donchian extends Study {
    static final StudyKind KIND = new StudyKind("donchian", "Donchian", "highest and lowest price of the last bars",
            Optional.empty(), List.of(StudyField.length(20)), true,
            "`.upper` highest high, `.lower` lowest low of N bars, this one included, and their middle; N bars; as TA-Lib (MAX, MIN). A breakout compares with `upper 1 bar before`",
            Donchian::new);

    private final OutputColumn middle = output("", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn upper = level("upper", "lower");
    private final OutputColumn lower = level("lower", "upper");
    private final OutputColumn high;
    private final OutputColumn low;
    private final int length;

    Donchian(StudyInputs in) {
        this.high = in.field(BarField.HIGH);
        this.low = in.field(BarField.LOW);
        this.length = in.whole("length");
    }

    @Override
    void compute(int from, int to) {
        double[] top = upper.values();
        double[] bottom = lower.values();
        double[] y = middle.values();
        Windows.highest(high.values(), from, to, length, top);
        Windows.lowest(low.values(), from, to, length, bottom);
        for (int bar = from; bar < to; bar++) {
            y[bar] = (top[bar] + bottom[bar]) / 2;
        }
    }
}
