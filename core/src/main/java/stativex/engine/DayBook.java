package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.Extremes;
import stativex.market.LongColumn;
import stativex.market.Swing;
import stativex.market.Tape;

/** Equity over time: its curve by bars, its drawdowns at every print, and the result of every trading day. */
public final class DayBook {
    /** @param result equity at the end − equity at the day's first instant, money */
    public record Day(LocalDate date, long result) {}

    private final LongColumn curveTimes = new LongColumn();
    private final LongColumn curve = new LongColumn();
    private final List<Day> days = new ArrayList<>();
    private final Optional<LocalDate> first;
    private Optional<LocalDate> date = Optional.empty();
    private long dayStart;
    private int dayCurve;
    private long peak;
    private long peakTime;
    private boolean below;
    private long deepest;
    private long longest;
    private long longestFrom;
    private boolean unfinished;
    private long last;
    /** Time of {@link #last}. */
    private long noted = Long.MIN_VALUE;
    private final Swing swing = new Swing();

    /** @param first day of the range; days before it only feed studies and are none of it; empty: every day */
    DayBook(long start, Optional<LocalDate> first) {
        this.first = first;
        peak = start;
        last = start;
        dayStart = start;
    }

    void begin(long time, Optional<LocalDate> day, long equity) {
        closeDay(equity);
        if (peakTime == 0) {
            peakTime = time;
        }
        date = day;
        dayStart = equity;
        dayCurve = curve.count();
        curveTimes.add(time);
        curve.add(equity);
    }

    /** A signal bar of strategy {@code index} closed; the first one draws the curve. */
    void bar(long time, long equity, int index) {
        if (index == 0) {
            curveTimes.add(time);
            curve.add(equity);
        }
    }

    /** The same equity as noted last, until a print since then. */
    void stillAt(long time, long equity) {
        if (time >= noted) {
            equity(time, equity);
        }
    }

    /** Equity after a print's fills. */
    void equity(long time, long equity) {
        noted = time;
        last = equity;
        if (equity >= peak) {
            if (below) {
                lasted(peakTime, time - peakTime);
            }
            below = false;
            peak = equity;
            peakTime = time;
        } else {
            below = true;
            deepest = Math.max(deepest, peak - equity);
        }
    }

    /**
     * Equity after each of many prints at which nothing was filled: it moves by {@code perTick} with the price.
     *
     * @param extremes of their prices
     * @param perTick money, negative when net short
     * @param atZero equity were the price 0
     */
    void equities(Tape tape, int from, int to, Extremes extremes, long perTick, long atZero) {
        if (perTick == 0) {
            equity(tape.time(from), atZero);
            equity(tape.time(to - 1), atZero);
            return;
        }
        long each = Math.abs(perTick);
        boolean rises = perTick > 0;
        // prices are turned so that higher is better; from this one on equity is at its peak or above
        long top = -Math.floorDiv(-Math.subtractExact(peak, atZero), each);
        long best = rises ? extremes.highest() : -extremes.lowest();
        if (best < top) {
            below = true;
            fellTo(Math.addExact(atZero, Math.multiplyExact(each, rises ? extremes.lowest() : -extremes.highest())));
        } else {
            swing.begin(top, rises, below, peakTime);
            tape.swing(from, to, swing);
            if (swing.lowestBefore() != Long.MAX_VALUE) {
                fellTo(Math.addExact(atZero, Math.multiplyExact(each, swing.lowestBefore())));
            }
            peak = Math.addExact(atZero, Math.multiplyExact(each, swing.top()));
            peakTime = swing.peakTime();
            below = swing.below();
            deepest = Math.max(deepest, Math.multiplyExact(each, swing.deepest()));
            lasted(swing.longestFrom(), swing.longest());
        }
        noted = tape.time(to - 1);
        last = Math.addExact(atZero, Math.multiplyExact(perTick, tape.price(to - 1)));
    }

    private void lasted(long from, long time) {
        if (time > longest) {
            longest = time;
            longestFrom = from;
        }
    }

    private void fellTo(long equity) {
        deepest = Math.max(deepest, peak - equity);
    }

    void end(long time, long equity) {
        equity(time, equity);
        unfinished = below && time - peakTime > longest;
        if (below) {
            lasted(peakTime, time - peakTime);
        }
        closeDay(equity);
        date = Optional.empty();
    }

    private void closeDay(long equity) {
        // what the person did before the range still counts
        date.filter(d -> first.isEmpty() || !d.isBefore(first.get()) || equity != dayStart)
                .ifPresent(d -> days.add(new Day(d, equity - dayStart)));
    }

    /** Finished trading days. */
    public List<Day> days() {
        return days;
    }

    /** Deepest fall of equity from its peak, money. */
    public long deepestDrawdown() {
        return deepest;
    }

    /** Longest time below a peak, nanoseconds. */
    public long longestDrawdown() {
        return longest;
    }

    /** When that peak was, the first of equally long times; nanoseconds. */
    public long longestFrom() {
        return longestFrom;
    }

    /** Whether the longest time below a peak had not ended when the range did. */
    public boolean isLongestUnfinished() {
        return unfinished;
    }

    /** Last equity taken. */
    public long last() {
        return last;
    }

    /** Equity by signal bar, money. */
    public LongColumn.Prefix curve() {
        return curve.prefix();
    }

    /** Times of {@link #curve()}. */
    public LongColumn.Prefix curveTimes() {
        return curveTimes.prefix();
    }

    /** Where the current trading day begins in {@link #curve()}. */
    public int dayCurve() {
        return dayCurve;
    }
}
