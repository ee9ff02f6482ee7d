package stativex.market;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Tick bars: a bar closes with its N-th trade; an unfinished one is closed, marked cut, at its session's close. Counts
 * prints only; a bar's figures are read from the tape when it closes, so a print costs next to nothing.
 */
public final class TickBars {
    private final BarSeries series;
    private final int size;
    private int first = -1;
    private int taken;
    private LocalDate date = LocalDate.EPOCH;

    /** @param size trades per bar, at least 1 */
    public TickBars(Tape tape, int size) {
        if (size < 1) {
            throw new IllegalArgumentException("expected a bar size of 1 or more trades, found " + size);
        }
        this.series = new BarSeries(tape);
        this.size = size;
    }

    public BarSeries series() {
        return series;
    }

    public int size() {
        return size;
    }

    /** The next prints belong to this trading date. */
    public void sessionOpens(LocalDate tradingDate) {
        date = tradingDate;
    }

    /** Takes a print that lies in a session. Returns whether it closed a bar. */
    public boolean add(int print) {
        if (taken == 0) {
            first = print;
        }
        if (++taken < size) {
            return false;
        }
        series.append(first, print, date, false);
        taken = 0;
        return true;
    }

    /** Closes the unfinished bar at its session's close. Returns whether there was one. */
    public boolean cut() {
        if (taken == 0) {
            return false;
        }
        series.append(first, first + taken - 1, date, true);
        taken = 0;
        return true;
    }

    /** The bar that is forming; empty between bars. */
    public Optional<BarSeries.Forming> forming() {
        return taken == 0
                ? Optional.empty()
                : Optional.of(BarSeries.Forming.of(series.tape(), first, first + taken - 1));
    }
}
