package stativex.study;

import java.util.LinkedHashMap;
import java.util.Map;
import stativex.market.BarSeries;
import stativex.market.Tape;

/**
 * Volume-weighted average price since the session's open, over the contracts of the series' closed bars, each at its
 * print's price, with deviation √(Σ size·(price − VWAP)² ÷ Σ size) and bands k deviations away. Warm-up: one bar. Sums
 * are exact whole numbers against the session's first price, so no digits are lost. Source: SEMANTICS, "Studies".
 */
public final class SessionVwap implements Study {
    private final BarSeries bars;
    private final double bands;
    private final OutputColumn mean = new OutputColumn(Unit.LEVEL, true);
    private final OutputColumn upper = new OutputColumn(Unit.LEVEL, true);
    private final OutputColumn lower = new OutputColumn(Unit.LEVEL, true);
    private final OutputColumn deviation = new OutputColumn(Unit.DISTANCE, true);
    private long anchor = Tape.NONE;
    private long size;
    private long sum;
    private long squares;

    /** @param bands k, above 0: how many deviations the bands are away */
    public SessionVwap(BarSeries bars, double bands) {
        if (!(bands > 0) || Double.isInfinite(bands)) {
            throw new IllegalArgumentException("expected a number of deviations above 0, found " + bands);
        }
        this.bars = bars;
        this.bands = bands;
    }

    @Override
    public void sessionOpens() {
        anchor = Tape.NONE;
        size = 0;
        sum = 0;
        squares = 0;
    }

    @Override
    public void take(int bar) {
        Tape tape = bars.tape();
        if (anchor == Tape.NONE) {
            anchor = tape.price(bars.first(bar));
        }
        for (int i = bars.first(bar); i <= bars.last(bar); i++) {
            long contracts = tape.size(i);
            long away = tape.price(i) - anchor;
            size = Math.addExact(size, contracts);
            sum = Math.addExact(sum, Math.multiplyExact(away, contracts));
            squares = Math.addExact(squares, Math.multiplyExact(away * away, contracts));
        }
        double away = (double) sum / size;
        double variance = Math.max(0, (double) squares / size - away * away);
        double sigma = Math.sqrt(variance);
        double value = anchor + away;
        mean.add(value);
        deviation.add(sigma);
        upper.add(value + bands * sigma);
        lower.add(value - bands * sigma);
    }

    @Override
    public Map<String, OutputColumn> outputs() {
        Map<String, OutputColumn> outputs = new LinkedHashMap<>();
        outputs.put("", mean);
        outputs.put("upper", upper);
        outputs.put("lower", lower);
        outputs.put("deviation", deviation);
        return outputs;
    }
}
