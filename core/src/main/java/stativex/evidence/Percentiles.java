package stativex.evidence;

import java.util.Arrays;

/** Percentiles of a list of figures: the ⌈p·n ÷ 100⌉-th smallest. Source: SEMANTICS, "Searches and evidence". */
public final class Percentiles {
    private Percentiles() {}

    /** @param percent above 0, at most 100; of at least one figure */
    public static double of(double[] figures, int percent) {
        double[] sorted = figures.clone();
        Arrays.sort(sorted);
        return sorted[rank(sorted.length, percent)];
    }

    /** The same of whole numbers. */
    public static long of(long[] figures, int percent) {
        long[] sorted = figures.clone();
        Arrays.sort(sorted);
        return sorted[rank(sorted.length, percent)];
    }

    /** The median: of an even count the lower middle one. */
    public static int median(int[] figures) {
        int[] sorted = figures.clone();
        Arrays.sort(sorted);
        return sorted[rank(sorted.length, 50)];
    }

    private static int rank(int count, int percent) {
        return Math.max(1, Math.ceilDiv(Math.multiplyExact(percent, count), 100)) - 1;
    }
}
