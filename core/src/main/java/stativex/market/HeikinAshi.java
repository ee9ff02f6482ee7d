package stativex.market;

/**
 * Heikin-Ashi as a view over any bars, in ticks as doubles: close (O + H + L + C) / 4, open the mean of open and close of
 * the bar before (of the bar's own open and close where the series begins anew), high and low include both. Orders and
 * results never use it.
 */
public final class HeikinAshi {
    private final BarSeries bars;
    private final double[] open;
    private final double[] close;

    /** A view of the bars closed so far. */
    public HeikinAshi(BarSeries bars) {
        this.bars = bars;
        int count = bars.count();
        this.open = new double[count];
        this.close = new double[count];
        for (int bar = 0; bar < count; bar++) {
            close[bar] = ((double) bars.open(bar) + bars.high(bar) + bars.low(bar) + bars.close(bar)) / 4;
            open[bar] = bar == 0 || bars.fresh(bar)
                    ? ((double) bars.open(bar) + bars.close(bar)) / 2
                    : (open[bar - 1] + close[bar - 1]) / 2;
        }
    }

    public double open(int bar) {
        return open[bar];
    }

    public double high(int bar) {
        return Math.max(bars.high(bar), Math.max(open[bar], close[bar]));
    }

    public double low(int bar) {
        return Math.min(bars.low(bar), Math.min(open[bar], close[bar]));
    }

    public double close(int bar) {
        return close[bar];
    }
}
