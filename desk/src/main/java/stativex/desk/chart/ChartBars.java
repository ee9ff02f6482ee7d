package stativex.desk.chart;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.HeikinAshi;
import stativex.market.LongColumn;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.market.VolumeByPrice;

/** The bars of a chart: closed ones in columns, and the forming one last if there is one. */
public final class ChartBars {
    /** Longer without a print than this is a break, nanoseconds. */
    private static final long PAUSE = 5 * 60 * TapeTime.SECOND;
    private static final int KEPT = 2000;

    /** What lies between a bar and the one before it. */
    public enum Break {
        NONE, SESSION, GAP
    }

    private final Contract contract;
    private final Tape tape;
    private final BarSeries.View view;
    private final Optional<BarSeries.Forming> forming;
    private final Optional<BarSeries> series;
    private final Optional<HeikinAshi> heikinAshi;
    private final Map<Integer, VolumeByPrice> volumes = new LinkedHashMap<>(64, 0.75f, true);

    private ChartBars(Contract contract, Tape tape, BarSeries.View view, Optional<BarSeries.Forming> forming,
            Optional<BarSeries> series, Optional<HeikinAshi> heikinAshi) {
        this.contract = contract;
        this.tape = tape;
        this.view = view;
        this.forming = forming;
        this.series = series;
        this.heikinAshi = heikinAshi;
    }

    /** Bars of whole prints that are still growing. */
    public static ChartBars live(Contract contract, Tape tape, BarSeries.View view,
            Optional<BarSeries.Forming> forming) {
        return new ChartBars(contract, tape, view, forming, Optional.empty(), Optional.empty());
    }

    /** Bars of a whole history, which nobody changes any more. */
    public static ChartBars history(Contract contract, BarSeries series, boolean heikinAshi) {
        return new ChartBars(contract, series.tape(), series.view(), heikinAshi ? Optional.empty() : series.forming(),
                Optional.of(series),
                heikinAshi ? Optional.of(new HeikinAshi(series)) : Optional.empty());
    }

    public Contract contract() {
        return contract;
    }

    public Tape tape() {
        return tape;
    }

    public ZoneId zone() {
        return contract.calendar().zone();
    }

    /** Closed bars and the forming one. */
    public int count() {
        return closed() + (forming.isPresent() ? 1 : 0);
    }

    public int closed() {
        return view.count();
    }

    private BarSeries.Forming forming() {
        return forming.orElseThrow();
    }

    public long open(int bar) {
        return bar < closed() ? view.open().get(bar) : forming().open();
    }

    public long high(int bar) {
        return bar < closed() ? view.high().get(bar) : forming().high();
    }

    public long low(int bar) {
        return bar < closed() ? view.low().get(bar) : forming().low();
    }

    public long close(int bar) {
        return bar < closed() ? view.close().get(bar) : forming().close();
    }

    /** Prices as drawn: those of the Heikin-Ashi view if it is on. */
    double drawnOpen(int bar) {
        return heikinAshi.isPresent() ? heikinAshi.get().open(bar) : open(bar);
    }

    double drawnHigh(int bar) {
        return heikinAshi.isPresent() ? heikinAshi.get().high(bar) : high(bar);
    }

    double drawnLow(int bar) {
        return heikinAshi.isPresent() ? heikinAshi.get().low(bar) : low(bar);
    }

    double drawnClose(int bar) {
        return heikinAshi.isPresent() ? heikinAshi.get().close(bar) : close(bar);
    }

    public boolean isHeikinAshi() {
        return heikinAshi.isPresent();
    }

    public long volume(int bar) {
        return bar < closed() ? view.volume().get(bar) : forming().volume();
    }

    public long bought(int bar) {
        return bar < closed() ? view.buyVolume().get(bar) : forming().buyVolume();
    }

    public long sold(int bar) {
        return bar < closed() ? view.sellVolume().get(bar) : forming().sellVolume();
    }

    public long delta(int bar) {
        return bought(bar) - sold(bar);
    }

    /** Share of the volume whose aggressor is unknown. */
    public double unknown(int bar) {
        long volume = volume(bar);
        return volume == 0 ? 0 : (double) (volume - bought(bar) - sold(bar)) / volume;
    }

    public long start(int bar) {
        return bar < closed() ? view.start().get(bar) : tape.time(forming().first());
    }

    public long end(int bar) {
        return bar < closed() ? view.end().get(bar) : tape.time(forming().last());
    }

    /** Trading date of a bar's first print; the forming bar's is looked up. */
    public LocalDate tradingDate(int bar) {
        return bar < closed()
                ? LocalDate.ofEpochDay(view.day().get(bar))
                : contract.calendar().tradingDate(start(bar)).orElse(LocalDate.EPOCH);
    }

    /** The first bar of the last trading day; there is at least one bar. */
    int lastDay() {
        int bar = count() - 1;
        LocalDate day = tradingDate(bar);
        while (bar > 0 && tradingDate(bar - 1).equals(day)) {
            bar--;
        }
        return bar;
    }

    /** Where the next renko brick would close upward and downward; empty for other bars. */
    Optional<long[]> nextCloses() {
        return series.filter(s -> s.count() > 0 && (s.nextUp(s.count() - 1) != 0 || s.nextDown(s.count() - 1) != 0))
                .map(s -> new long[]{s.nextUp(s.count() - 1), s.nextDown(s.count() - 1)});
    }

    /** The highest price of the bars {@code from} to {@code to}, the last one not included. */
    long highest(int from, int to) {
        long highest = from < closed() ? view.highest(from, Math.min(to, closed())) : Long.MIN_VALUE;
        return to > closed() ? Math.max(highest, forming().high()) : highest;
    }

    long lowest(int from, int to) {
        long lowest = from < closed() ? view.lowest(from, Math.min(to, closed())) : Long.MAX_VALUE;
        return to > closed() ? Math.min(lowest, forming().low()) : lowest;
    }

    long mostVolume(int from, int to) {
        long most = from < closed() ? view.mostVolume(from, Math.min(to, closed())) : 0;
        return to > closed() ? Math.max(most, forming().volume()) : most;
    }

    /** Whether a session begins with this bar, or prints are missing before it. */
    public Break before(int bar) {
        if (bar == 0) {
            return Break.SESSION;
        }
        boolean cut = view.cut().get(bar - 1) != 0 || bar < closed() && view.fresh(bar);
        if (cut) {
            return Break.SESSION;
        }
        long from = end(bar - 1);
        if (start(bar) - from <= PAUSE) {
            return Break.NONE;
        }
        // a session that the bar before had ended with, or that has opened since it ended
        return contract.calendar().current(from)
                .filter(held -> held.close() > start(bar) && held.open() < from).isEmpty() ? Break.SESSION : Break.GAP;
    }

    /** The bar that holds a print; the newest one for a print that lies in no bar yet. */
    public int barOf(int print) {
        return Math.min(first(view.last(), print), Math.max(0, count() - 1));
    }

    /** The bar that was forming at a time, or the next one; the newest one for a time after all. */
    public int barAt(long time) {
        return Math.min(first(view.end(), time), Math.max(0, count() - 1));
    }

    /** The first place whose value is not below {@code least}; values rise. */
    private static int first(LongColumn.Prefix column, long least) {
        int low = 0;
        int high = column.count();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (column.get(middle) < least) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** Volume at each price of a bar. */
    VolumeByPrice volumeByPrice(int bar) {
        if (bar >= closed()) {
            return series.isPresent()
                    ? VolumeByPrice.ofForming(series.get())
                    : VolumeByPrice.ofPrints(tape, forming().first(), forming().last());
        }
        if (volumes.size() > KEPT) {
            volumes.remove(volumes.keySet().iterator().next());
        }
        return volumes.computeIfAbsent(bar, b -> series.isPresent()
                ? VolumeByPrice.of(series.get(), b, b)
                : VolumeByPrice.ofPrints(tape, (int) view.first().get(b), (int) view.last().get(b)));
    }
}
