package stativex.evidence;

import java.util.SplittableRandom;

/**
 * The stationary bootstrap (Politis, Romano 1994) over days: the first is drawn, every later one is the next day, the first following
 * the last, or now and then drawn anew. Numbers come from SplitMix64, as the JDK's {@link SplittableRandom} makes them. Source:
 * SEMANTICS, "Searches and evidence".
 */
public final class DayDraws {
    private final SplittableRandom random;
    private final int days;
    private final double anew;
    private int day = -1;

    /**
     * @param days to draw from, at least 1
     * @param meanBlock days that follow one another on average, at least 1
     */
    public DayDraws(SplittableRandom random, int days, double meanBlock) {
        this.random = random;
        this.days = days;
        this.anew = 1 / meanBlock;
    }

    /** The master of a seed: its r-th output seeds resample r. */
    public static SplittableRandom master(long seed) {
        return new SplittableRandom(seed);
    }

    /** From 0 up to, but not including, 1. */
    static double unit(SplittableRandom random) {
        return (random.nextLong() >>> 11) * 0x1.0p-53;
    }

    /** The next day, from 0. */
    public int next() {
        day = day < 0 || unit(random) < anew ? (int) (unit(random) * days) : day + 1 == days ? 0 : day + 1;
        return day;
    }
}
