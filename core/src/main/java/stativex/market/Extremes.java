package stativex.market;

/** The highest and lowest of some prices, ticks. */
public final class Extremes {
    private long highest = Long.MIN_VALUE;
    private long lowest = Long.MAX_VALUE;

    /** Of no price yet. */
    public Extremes() {}

    public void clear() {
        highest = Long.MIN_VALUE;
        lowest = Long.MAX_VALUE;
    }

    void take(long high, long low) {
        highest = Math.max(highest, high);
        lowest = Math.min(lowest, low);
    }

    public long highest() {
        return highest;
    }

    public long lowest() {
        return lowest;
    }
}
