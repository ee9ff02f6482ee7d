package stativex.market;

/**
 * How far prices fell back from their highest so far, and how long until they were there again: drawdown in ticks, of a position that
 * gains when prices rise, or turned round. It begins with a level that prices may have to reach first. {@link Tape#swing} fills it.
 */
public final class Swing {
    boolean rises;
    long top;
    boolean reached;
    boolean below;
    long peakTime;
    long lowestBefore;
    long deepest;
    long longest;
    long longestFrom;

    /** Nothing yet. */
    public Swing() {}

    /**
     * Begins anew.
     *
     * @param level the first price, turned so that higher is better, that counts as a new peak
     * @param gainsWithPrice else prices are turned round
     * @param below whether the last price lay below its peak
     * @param peakTime when prices last were at their peak, nanoseconds
     */
    public void begin(long level, boolean gainsWithPrice, boolean isBelow, long timeOfPeak) {
        rises = gainsWithPrice;
        top = level;
        reached = false;
        below = isBelow;
        peakTime = timeOfPeak;
        lowestBefore = Long.MAX_VALUE;
        deepest = 0;
        longest = 0;
        longestFrom = 0;
    }

    /** Whether the level was reached; then {@link #top} is the highest price. */
    public boolean reached() {
        return reached;
    }

    /** The highest price so far, turned. */
    public long top() {
        return top;
    }

    /** The lowest price before the level was reached, turned; {@link Long#MAX_VALUE} when there was none. */
    public long lowestBefore() {
        return lowestBefore;
    }

    /** Whether the last price lay below the peak. */
    public boolean below() {
        return below;
    }

    /** When prices last were at their peak, nanoseconds. */
    public long peakTime() {
        return peakTime;
    }

    /** Deepest fall from a peak since the level was reached, ticks. */
    public long deepest() {
        return deepest;
    }

    /** Longest time from a peak until prices were there again, nanoseconds. */
    public long longest() {
        return longest;
    }

    /** When that peak was, the first of equally long times; nanoseconds, 0 without one. */
    public long longestFrom() {
        return longestFrom;
    }
}
