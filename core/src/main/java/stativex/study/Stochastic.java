package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Stochastic: where the close lies between the lowest low and the highest high of N bars, 0 to 100, smoothed by a mean of
 * {@code smooth} bars; the signal is a mean of that. A range of zero is absent. TA-Lib's STOCH with simple means (which
 * says 0 for it).
 */
final class Stochastic extends Study {
    static final StudyKind KIND = new StudyKind("stochastic", "Stochastic",
            "where the close lies in the range of the last bars, 0 to 100", Optional.empty(),
            List.of(StudyField.length(14), StudyField.bars("smooth", 3, "mean of so many raw values"),
                    StudyField.bars("signal", 3, "mean of so many smoothed values")),
            false,
            "100 (C − lowest low) ÷ (highest high − lowest low) of N bars, mean of `smooth`; `.signal` mean of `signal` of those; N + smooth − 1 bars; as TA-Lib",
            Stochastic::new);

    private final OutputColumn index = output("", Unit.NUMBER, new Mirror.Rest(100));
    private final OutputColumn signal = output("signal", Unit.NUMBER, new Mirror.Rest(100));
    private final OutputColumn raw = memory();
    private final OutputColumn tops = memory();
    private final OutputColumn bottoms = memory();
    private final OutputColumn high;
    private final OutputColumn low;
    private final OutputColumn close;
    private final int length;
    private final int smooth;
    private final int signalLength;

    Stochastic(StudyInputs in) {
        this.high = in.field(BarField.HIGH);
        this.low = in.field(BarField.LOW);
        this.close = in.field(BarField.CLOSE);
        this.length = in.whole("length");
        this.smooth = in.whole("smooth");
        this.signalLength = in.whole("signal");
    }

    @Override
    void compute(int from, int to) {
        double[] r = raw.values();
        double[] top = tops.values();
        double[] bottom = bottoms.values();
        double[] c = close.values();
        Windows.highest(high.values(), from, to, length, top);
        Windows.lowest(low.values(), from, to, length, bottom);
        for (int bar = from; bar < to; bar++) {
            r[bar] = 100 * Windows.ratio(c[bar] - bottom[bar], top[bar] - bottom[bar]);
        }
        Windows.means(r, from, to, smooth, index.values());
        Windows.means(index.values(), from, to, signalLength, signal.values());
    }
}
