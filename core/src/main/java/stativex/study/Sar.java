package stativex.study;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;

/**
 * Parabolic stop-and-reverse level (Wilder): follows the extreme of its side by a part that grows by {@code step} with
 * every new extreme, at most {@code most}, never inside the last two bars; a touch turns it to the other side, at the
 * extreme so far. Begins with the second bar, down if that bar moved down more than up. TA-Lib's SAR.
 */
final class Sar extends Study {
    static final StudyKind KIND = new StudyKind("sar", "SAR", "a level that follows the price and turns when touched",
            Optional.empty(), List.of(
                    new StudyField("step", new StudyField.Number(0, 1), "0.02", "",
                            "how much faster it follows with each new extreme"),
                    new StudyField("most", new StudyField.Number(0, 1), "0.2", "", "fastest it follows")),
            true, "Wilder's parabolic SAR; `.rising` whether it lies below the price; 2 bars; as TA-Lib", Sar::new);

    private final OutputColumn level = output("", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn rising = flag("rising", "falling");
    private final OutputColumn falling = flag("falling", "rising");
    private final OutputColumn next = memory();
    private final OutputColumn extremes = memory();
    private final OutputColumn parts = memory();
    private final OutputColumn high;
    private final OutputColumn low;
    private final double step;
    private final double most;

    Sar(StudyInputs in) {
        this.high = in.field(BarField.HIGH);
        this.low = in.field(BarField.LOW);
        this.step = in.number("step");
        this.most = in.number("most");
        if (step > most) {
            throw new IllegalArgumentException("expected a step of at most " + BigDecimal.valueOf(most).toPlainString()
                    + ", the fastest it follows, found " + BigDecimal.valueOf(step).toPlainString());
        }
    }

    @Override
    void compute(int from, int to) {
        for (int bar = from; bar < to; bar++) {
            row(bar, high.values(), low.values());
        }
    }

    private void row(int bar, double[] h, double[] l) {
        if (bar == 0) {
            level.values()[0] = Double.NaN;
            rising.values()[0] = Double.NaN;
            falling.values()[0] = Double.NaN;
            return;
        }
        boolean up;
        double extreme;
        double sar;
        double part;
        if (bar == 1) {
            double fall = l[0] - l[1];
            up = !(fall > 0 && fall > h[1] - h[0]);
            extreme = up ? h[1] : l[1];
            sar = up ? l[0] : h[0];
            part = step;
        } else {
            up = rising.values()[bar - 1] == 1;
            extreme = extremes.values()[bar - 1];
            sar = next.values()[bar - 1];
            part = parts.values()[bar - 1];
        }
        double highBefore = bar == 1 ? h[1] : h[bar - 1];
        double lowBefore = bar == 1 ? l[1] : l[bar - 1];
        boolean touched = up ? l[bar] <= sar : h[bar] >= sar;
        if (touched) {
            up = !up;
            sar = outside(up, extreme, highBefore, lowBefore, h[bar], l[bar]);
            extreme = up ? h[bar] : l[bar];
            part = step;
        }
        level.values()[bar] = sar;
        if (!touched && (up ? h[bar] > extreme : l[bar] < extreme)) {
            extreme = up ? h[bar] : l[bar];
            part = Math.min(most, part + step);
        }
        rising.values()[bar] = up ? 1 : 0;
        falling.values()[bar] = up ? 0 : 1;
        extremes.values()[bar] = extreme;
        parts.values()[bar] = part;
        next.values()[bar] = outside(up, sar + part * (extreme - sar), highBefore, lowBefore, h[bar], l[bar]);
    }

    /** Never inside this bar or the one before. */
    private static double outside(boolean up, double sar, double highBefore, double lowBefore, double high,
            double low) {
        return up ? Math.min(sar, Math.min(lowBefore, low)) : Math.max(sar, Math.max(highBefore, high));
    }
}
