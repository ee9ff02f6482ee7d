package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Linear-regression channel: the least-squares line through the last N values, at the newest bar, its slope per bar, and
 * bands k standard deviations of the residuals (divided by N) away. TA-Lib's LINEARREG and LINEARREG_SLOPE; bands checked
 * against Hipparchus.
 */
final class Regression extends Study {
    static final StudyKind KIND = new StudyKind("regression", "Regression", "straight line through the last bars",
            Optional.of(BarField.CLOSE),
            List.of(new StudyField("length", new StudyField.Whole(2, 100_000), "50", "bars",
                    "how many bars it looks back over"),
                    StudyField.factor("deviations", "2", "how far the bands lie away")),
            true,
            "least-squares line of N at the newest bar, `.slope` per bar, `.upper` and `.lower` k · √(Σ residual² ÷ N) away; N inputs; as TA-Lib (LINEARREG)",
            Regression::new);

    private final OutputColumn means = memory();
    private final OutputColumn input;
    private final int length;
    private final double bands;
    private final OutputColumn line;
    private final OutputColumn upper;
    private final OutputColumn lower;
    private final OutputColumn slope;

    Regression(StudyInputs in) {
        this.input = in.of();
        this.length = in.whole("length");
        this.bands = in.number("deviations");
        this.line = output(like(input));
        this.upper = output(like(input, "upper", "lower"));
        this.lower = output(like(input, "lower", "upper"));
        this.slope = output(signed(input, "slope"));
    }

    @Override
    void compute(int from, int to) {
        double[] x = input.values();
        double middle = (length - 1) / 2.0;
        double spread = length * ((double) length * length - 1) / 12;
        Windows.means(x, from, to, length, means.values());
        for (int bar = from; bar < to; bar++) {
            double mean = means.values()[bar];
            double rise = 0;
            for (int i = 0; i < length && bar + 1 >= length; i++) {
                rise += (i - middle) * (x[bar - length + 1 + i] - mean);
            }
            double steep = Double.isNaN(mean) ? Double.NaN : rise / spread;
            double squares = 0;
            for (int i = 0; i < length && bar + 1 >= length; i++) {
                double away = x[bar - length + 1 + i] - mean - steep * (i - middle);
                squares += away * away;
            }
            double end = mean + steep * middle;
            double band = bands * Math.sqrt(squares / length);
            line.values()[bar] = end;
            slope.values()[bar] = steep;
            upper.values()[bar] = end + band;
            lower.values()[bar] = end - band;
        }
    }
}
