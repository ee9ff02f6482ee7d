package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Exponential moving average: α = 2 / (N + 1), seeded with the mean of its first N inputs and absent before, then
 * EMA₋₁ + α (x − EMA₋₁). Warm-up: N inputs. An absent input leaves it as it was and that bar absent. Source: SEMANTICS,
 * "Studies"; the same seed as TA-Lib's default.
 */
final class Ema extends Recursive {
    static final StudyKind KIND = new StudyKind("ema", "EMA", "exponential mean: recent bars count more",
            Optional.of(BarField.CLOSE), List.of(StudyField.length(21)), true,
            "α = 2 ÷ (N + 1), seeded with the mean of the first N inputs, then EMA + α (x − EMA); N inputs; as TA-Lib",
            in -> new Ema(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final double alpha;
    private final OutputColumn mean;

    /** @param length N, at least 1 */
    Ema(OutputColumn input, int length) {
        this(input, length, 2.0 / (length + 1));
    }

    private Ema(OutputColumn input, int length, double alpha) {
        super(0, 0);
        this.input = input;
        this.length = length;
        this.alpha = alpha;
        this.mean = output(like(input));
    }

    /** Figures: the mean (while seeding the sum), inputs taken up to N. */
    @Override
    void run(double[] figures, int from, int to) {
        double[] x = input.values();
        double[] y = mean.values();
        double value = figures[0];
        int count = (int) figures[1];
        int bar = from;
        for (; bar < to && count < length; bar++) {
            double a = x[bar];
            y[bar] = Double.NaN;
            if (!Double.isNaN(a)) {
                value += a;
                if (++count == length) {
                    value /= length;
                    y[bar] = value;
                }
            }
        }
        for (; bar < to; bar++) {
            double a = x[bar];
            if (Double.isNaN(a)) {
                y[bar] = Double.NaN;
            } else {
                value += alpha * (a - value);
                y[bar] = value;
            }
        }
        figures[0] = value;
        figures[1] = count;
    }
}
