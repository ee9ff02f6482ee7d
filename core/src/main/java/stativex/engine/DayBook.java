package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.LongColumn;

/** Equity over time: its curve by bars, its drawdowns at every print, and the result of every trading day. */
public final class DayBook {
    /** @param result equity at the end − equity at the day's first instant, money */
    public record Day(LocalDate date, long result) {}

    private final LongColumn curveTimes = new LongColumn();
    private final LongColumn curve = new LongColumn();
    private final List<Day> days = new ArrayList<>();
    private Optional<LocalDate> date = Optional.empty();
    private long dayStart;
    private int dayCurve;
    private long peak;
    private long peakTime;
    private boolean below;
    private long deepest;
    private long longest;
    private long last;

    DayBook(long start) {
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

    /** Equity after a print's fills. */
    void equity(long time, long equity) {
        last = equity;
        if (equity >= peak) {
            if (below) {
                longest = Math.max(longest, time - peakTime);
            }
            below = false;
            peak = equity;
            peakTime = time;
        } else {
            below = true;
            deepest = Math.max(deepest, peak - equity);
        }
    }

    void end(long time, long equity) {
        equity(time, equity);
        if (below) {
            longest = Math.max(longest, time - peakTime);
        }
        closeDay(equity);
        date = Optional.empty();
    }

    private void closeDay(long equity) {
        date.ifPresent(d -> days.add(new Day(d, equity - dayStart)));
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
