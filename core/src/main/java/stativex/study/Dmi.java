package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Directional movement (Wilder). Up move and down move of each bar, the larger one counting if it is above 0; both and the
 * true range summed over the first N − 1 changes, from then on sum − sum ÷ N + new. {@code up} and {@code down} are 100
 * times their part of the range; ADX is the mean of the first N values of 100 |up − down| ÷ (up + down), then
 * (ADX₋₁ (N − 1) + new) ÷ N. Warm-up: N + 1 bars, of ADX 2 N. TA-Lib's PLUS_DI, MINUS_DI and ADX.
 */
final class Dmi extends Study {
    static final StudyKind KIND = new StudyKind("adx", "ADX", "how strong a trend is, 0 to 100, and which way",
            Optional.empty(), List.of(new StudyField("length", new StudyField.Whole(2, 100_000), "14", "bars",
                    "how many bars it looks back over")),
            false,
            "Wilder's ADX; `.up` and `.down` are the directional indicators; N + 1 bars, ADX 2 N; as TA-Lib (ADX, PLUS_DI, MINUS_DI)",
            Dmi::new);

    private final OutputColumn index = output("", Unit.NUMBER, Mirror.SAME);
    private final OutputColumn up = output(
            new OutputColumn.Shape("up", Unit.NUMBER, false, Mirror.SAME, "down"));
    private final OutputColumn down = output(
            new OutputColumn.Shape("down", Unit.NUMBER, false, Mirror.SAME, "up"));
    private final OutputColumn ups = memory();
    private final OutputColumn downs = memory();
    private final OutputColumn ranges = memory();
    private final OutputColumn smooth = memory();
    private final OutputColumn high;
    private final OutputColumn low;
    private final OutputColumn range;
    private final int length;

    Dmi(StudyInputs in) {
        this.high = in.field(BarField.HIGH);
        this.low = in.field(BarField.LOW);
        this.range = part(new TrueRange(in.frame())).main();
        this.length = in.whole("length");
    }

    @Override
    void compute(int from, int to) {
        for (int bar = from; bar < to; bar++) {
            row(bar);
        }
    }

    private void row(int bar) {
        double[] sumUp = ups.values();
        double[] sumDown = downs.values();
        double[] sumRange = ranges.values();
        double[] adx = smooth.values();
        index.values()[bar] = Double.NaN;
        up.values()[bar] = Double.NaN;
        down.values()[bar] = Double.NaN;
        if (bar == 0) {
            sumUp[0] = 0;
            sumDown[0] = 0;
            sumRange[0] = 0;
            adx[0] = 0;
            return;
        }
        double rise = high.values()[bar] - high.values()[bar - 1];
        double fall = low.values()[bar - 1] - low.values()[bar];
        double moveUp = rise > 0 && rise > fall ? rise : 0;
        double moveDown = fall > 0 && fall > rise ? fall : 0;
        boolean seeding = bar < length;
        sumUp[bar] = sumUp[bar - 1] - (seeding ? 0 : sumUp[bar - 1] / length) + moveUp;
        sumDown[bar] = sumDown[bar - 1] - (seeding ? 0 : sumDown[bar - 1] / length) + moveDown;
        sumRange[bar] = sumRange[bar - 1] - (seeding ? 0 : sumRange[bar - 1] / length) + range.values()[bar];
        adx[bar] = adx[bar - 1];
        if (seeding) {
            return;
        }
        double plus = 100 * Windows.ratio(sumUp[bar], sumRange[bar]);
        double minus = 100 * Windows.ratio(sumDown[bar], sumRange[bar]);
        up.values()[bar] = plus;
        down.values()[bar] = minus;
        double both = plus + minus;
        int taken = bar - length + 1;
        if (taken <= length) {
            adx[bar] += both > 0 ? 100 * Math.abs(plus - minus) / both : 0;
            if (taken == length) {
                adx[bar] /= length;
                index.values()[bar] = adx[bar];
            }
        } else {
            if (both > 0) {
                adx[bar] = (adx[bar - 1] * (length - 1) + 100 * Math.abs(plus - minus) / both) / length;
            }
            index.values()[bar] = adx[bar];
        }
    }
}
