package stativex.study;

import java.util.Map;
import stativex.market.BarSeries;

/**
 * Average true range (Wilder): the true range max(H, C₋₁) − min(L, C₋₁) exists from the second bar; seeded with the mean
 * of the first N, then (ATR₋₁ (N − 1) + TR) / N. Warm-up: N + 1 bars. In ticks. Source: SEMANTICS, "Studies"; TA-Lib's
 * ATR follows the same definition.
 */
public final class Atr implements Study {
    private final BarSeries bars;
    private final int length;
    private final OutputColumn output = new OutputColumn(Unit.DISTANCE);
    private int taken;
    private double sum;
    private double value = Double.NaN;

    /** @param length N, at least 1 */
    public Atr(BarSeries bars, int length) {
        if (length < 1) {
            throw new IllegalArgumentException("expected a length of 1 or more bars, found " + length);
        }
        this.bars = bars;
        this.length = length;
    }

    @Override
    public void take(int bar) {
        if (bar > 0) {
            long before = bars.close(bar - 1);
            double range = Math.max(bars.high(bar), before) - Math.min(bars.low(bar), before);
            if (taken < length) {
                sum += range;
                taken++;
                value = taken == length ? sum / length : Double.NaN;
            } else {
                value = (value * (length - 1) + range) / length;
            }
        }
        output.add(value);
    }

    @Override
    public Map<String, OutputColumn> outputs() {
        return Map.of("", output);
    }
}
