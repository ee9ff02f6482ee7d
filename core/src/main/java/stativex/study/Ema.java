package stativex.study;

import java.util.Map;

/**
 * Exponential moving average: α = 2 / (N + 1), seeded with the mean of its first N inputs and absent before, then
 * EMA₋₁ + α (x − EMA₋₁). Warm-up: N inputs. An absent input leaves it as it was and that bar absent. Source: SEMANTICS,
 * "Studies"; the same seed as TA-Lib's default.
 */
public final class Ema implements Study {
    private final Output input;
    private final int length;
    private final double alpha;
    private final OutputColumn output;
    private int taken;
    private double sum;
    private double value = Double.NaN;

    /** @param length N, at least 1 */
    public Ema(Output input, int length) {
        if (length < 1) {
            throw new IllegalArgumentException("expected a length of 1 or more bars, found " + length);
        }
        this.input = input;
        this.length = length;
        this.alpha = 2.0 / (length + 1);
        this.output = new OutputColumn(input.unit());
    }

    @Override
    public void take(int bar) {
        double x = input.at(bar);
        if (Double.isNaN(x)) {
            output.add(Double.NaN);
            return;
        }
        if (taken < length) {
            sum += x;
            taken++;
            value = taken == length ? sum / length : Double.NaN;
        } else {
            value += alpha * (x - value);
        }
        output.add(value);
    }

    @Override
    public Map<String, OutputColumn> outputs() {
        return Map.of("", output);
    }
}
