package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Average true range (Wilder): the true range exists from the second bar; seeded with the mean of the first N, then
 * (ATR₋₁ (N − 1) + TR) / N. Warm-up: N + 1 bars. In ticks. Source: SEMANTICS, "Studies"; TA-Lib's ATR.
 */
final class Atr extends Recursive {
    static final StudyKind KIND = new StudyKind("atr", "ATR", "how far bars reach on average, in ticks",
            Optional.empty(), List.of(StudyField.length(14)), false,
            "true range max(H, C₋₁) − min(L, C₋₁), seeded with the mean of N of them, then (ATR (N − 1) + TR) ÷ N; N + 1 bars; as TA-Lib",
            in -> new Atr(in.frame(), in.whole("length")));

    private final OutputColumn mean = output("", Unit.DISTANCE, Mirror.SAME);
    private final OutputColumn high;
    private final OutputColumn low;
    private final OutputColumn close;
    private final int length;

    Atr(Frame frame, int length) {
        super(0);
        this.high = frame.field(BarField.HIGH);
        this.low = frame.field(BarField.LOW);
        this.close = frame.field(BarField.CLOSE);
        this.length = length;
    }

    /** The one figure: the mean, while seeding the sum; bars are never absent, so the row tells how many were taken. */
    @Override
    void run(double[] figures, int from, int to) {
        double[] h = high.values();
        double[] l = low.values();
        double[] c = close.values();
        double[] y = mean.values();
        double value = figures[0];
        int bar = from;
        for (; bar < to && bar <= length; bar++) {
            value += bar == 0 ? 0 : TrueRange.of(h[bar], l[bar], c[bar - 1]);
            if (bar == length) {
                value /= length;
            }
            y[bar] = bar == length ? value : Double.NaN;
        }
        for (; bar < to; bar++) {
            value = (value * (length - 1) + TrueRange.of(h[bar], l[bar], c[bar - 1])) / length;
            y[bar] = value;
        }
        figures[0] = value;
    }
}
