package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * A band k × ATR N from the middle of the bar, below while the trend is up and above while it is down. The lower band only
 * rises and the upper one only falls, until the close before was beyond it; a close beyond the band turns the trend. The
 * first trend is the side of its bar's middle on which the first close off it lies; absent before. Common practice, no
 * source; checked against a plain twin.
 */
final class SuperTrend extends Study {
    static final StudyKind KIND = new StudyKind("supertrend", "SuperTrend",
            "a band of average ranges that follows the trend and turns with it", Optional.empty(),
            List.of(StudyField.length(10), StudyField.factor("ranges", "3", "how far it lies away")), true,
            "(high + low) ÷ 2 ∓ k · ATR N, never loosening until a close is beyond it; `.rising`, `.falling` the trend; N + 1 bars; common practice",
            SuperTrend::new);

    private final OutputColumn band = output("", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn rising = flag("rising", "falling");
    private final OutputColumn falling = flag("falling", "rising");
    private final OutputColumn uppers = memory();
    private final OutputColumn lowers = memory();
    private final OutputColumn middle;
    private final OutputColumn close;
    private final Atr range;
    private final double ranges;

    SuperTrend(StudyInputs in) {
        this.middle = in.field(BarField.MIDDLE);
        this.close = in.field(BarField.CLOSE);
        this.range = part(new Atr(in.frame(), in.whole("length")));
        this.ranges = in.number("ranges");
    }

    @Override
    void compute(int from, int to) {
        double[] r = range.main().values();
        double[] c = close.values();
        double[] up = rising.values();
        double[] top = uppers.values();
        double[] bottom = lowers.values();
        for (int bar = from; bar < to; bar++) {
            double upper = middle.values()[bar] + ranges * r[bar];
            double lower = middle.values()[bar] - ranges * r[bar];
            boolean begins = bar == 0 || Double.isNaN(up[bar - 1]);
            if (!begins) {
                upper = upper < top[bar - 1] || c[bar - 1] > top[bar - 1] ? upper : top[bar - 1];
                lower = lower > bottom[bar - 1] || c[bar - 1] < bottom[bar - 1] ? lower : bottom[bar - 1];
            }
            boolean rises = begins
                    ? c[bar] > middle.values()[bar]
                    : up[bar - 1] == 1 ? c[bar] >= lower : c[bar] > upper;
            boolean absent = Double.isNaN(r[bar]) || begins && c[bar] == middle.values()[bar];
            top[bar] = upper;
            bottom[bar] = lower;
            up[bar] = absent ? Double.NaN : rises ? 1 : 0;
            falling.values()[bar] = absent ? Double.NaN : rises ? 0 : 1;
            band.values()[bar] = absent ? Double.NaN : rises ? lower : upper;
        }
    }
}
