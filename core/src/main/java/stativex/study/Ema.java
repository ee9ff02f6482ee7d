package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Exponential moving average: α = 2 / (N + 1), seeded with the mean of its first N inputs and absent before, then
 * EMA₋₁ + α (x − EMA₋₁). Warm-up: N inputs. An absent input leaves it as it was and that bar absent. Source: SEMANTICS,
 * "Studies"; the same seed as TA-Lib's default.
 */
final class Ema extends Study {
    static final StudyKind KIND = new StudyKind("ema", "EMA", "exponential mean: recent bars count more",
            Optional.of(BarField.CLOSE), List.of(StudyField.length(21)), true,
            "α = 2 ÷ (N + 1), seeded with the mean of the first N inputs, then EMA + α (x − EMA); N inputs; as TA-Lib",
            in -> new Ema(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final double alpha;
    private final OutputColumn mean;
    private final OutputColumn held = memory();
    private final OutputColumn taken = memory();

    /** @param length N, at least 1 */
    Ema(OutputColumn input, int length) {
        this(input, length, 2.0 / (length + 1));
    }

    private Ema(OutputColumn input, int length, double alpha) {
        this.input = input;
        this.length = length;
        this.alpha = alpha;
        this.mean = output(like(input));
    }

    @Override
    void compute(int from, int to) {
        double[] x = input.values();
        double[] y = mean.values();
        double[] kept = held.values();
        double[] counts = taken.values();
        double value = from == 0 ? 0 : kept[from - 1];
        int count = from == 0 ? 0 : (int) counts[from - 1];
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
            kept[bar] = value;
            counts[bar] = count;
        }
        for (; bar < to; bar++) {
            double a = x[bar];
            if (Double.isNaN(a)) {
                y[bar] = Double.NaN;
            } else {
                value += alpha * (a - value);
                y[bar] = value;
            }
            kept[bar] = value;
            counts[bar] = count;
        }
    }
}
