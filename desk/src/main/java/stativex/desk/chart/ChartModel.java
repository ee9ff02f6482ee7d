package stativex.desk.chart;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.LongColumn;
import stativex.market.Tape;
import stativex.trial.Inputs;

/** What a chart of one strategy shows: its bars with the forming one last, its studies, decisions and trades. */
public record ChartModel(Contract contract, Tape tape, Snapshot.StrategyView strategy, List<Trade> trades,
        List<Decision> decisions, Optional<Long> lastPrice) {

    /** The chart of strategy {@code index} as it stands in a snapshot. */
    public static ChartModel of(Inputs inputs, Snapshot snapshot, int index) {
        return new ChartModel(inputs.contract(), inputs.tape(), snapshot.strategies().get(index),
                snapshot.trades().stream().filter(t -> t.strategy() == index).toList(),
                snapshot.decisions().stream().filter(d -> d.strategy() == index).toList(), snapshot.lastPrice());
    }

    public ZoneId zone() {
        return contract.calendar().zone();
    }

    /** Closed bars and the forming one. */
    public int bars() {
        return closed() + (strategy.forming().isPresent() ? 1 : 0);
    }

    public int closed() {
        return strategy.bars().count();
    }

    private BarSeries.Forming forming() {
        return strategy.forming().orElseThrow();
    }

    public long open(int bar) {
        return bar < closed() ? strategy.bars().open().get(bar) : forming().open();
    }

    public long high(int bar) {
        return bar < closed() ? strategy.bars().high().get(bar) : forming().high();
    }

    public long low(int bar) {
        return bar < closed() ? strategy.bars().low().get(bar) : forming().low();
    }

    public long close(int bar) {
        return bar < closed() ? strategy.bars().close().get(bar) : forming().close();
    }

    public long volume(int bar) {
        return bar < closed() ? strategy.bars().volume().get(bar) : forming().volume();
    }

    public long delta(int bar) {
        return bar < closed()
                ? strategy.bars().buyVolume().get(bar) - strategy.bars().sellVolume().get(bar)
                : forming().buyVolume() - forming().sellVolume();
    }

    /** Time of a bar's first print. */
    public long start(int bar) {
        return tape.time(bar < closed() ? (int) strategy.bars().first().get(bar) : forming().first());
    }

    /** Time of a bar's last print. */
    public long end(int bar) {
        return tape.time(bar < closed() ? (int) strategy.bars().last().get(bar) : forming().last());
    }

    /** Whether a new session or trading day begins with this bar. */
    public boolean begins(int bar) {
        if (bar == 0) {
            return true;
        }
        boolean cut = strategy.bars().cut().get(bar - 1) != 0;
        return cut || start(bar) - end(bar - 1) > 600_000_000_000L;
    }

    /** The bar that holds a print; the newest one for a print that lies in no bar yet. */
    public int barOf(int print) {
        LongColumn.Prefix last = strategy.bars().last();
        int low = 0;
        int high = last.count();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (last.get(middle) < print) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return Math.min(low, Math.max(0, bars() - 1));
    }
}
