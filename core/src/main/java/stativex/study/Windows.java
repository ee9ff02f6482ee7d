package stativex.study;

import java.util.Arrays;

/**
 * Figures of the last N values up to a row, for a stretch of rows; NaN when there are fewer or one of them is absent. Each
 * row's window is worked anew, oldest value first, whether rows come one by one or all at once: no rounding error is
 * carried on, and any row can be computed by itself. Four rows are worked side by side, so that the processor need not
 * wait for one addition to begin the next; each row's own operations stay in their order.
 */
public final class Windows {
    private Windows() {}

    /** Marks the rows without a whole window absent; returns the first row with one. */
    private static int absent(double[] out, int from, int to, int length) {
        int first = Math.min(to, Math.max(from, length - 1));
        Arrays.fill(out, from, first, Double.NaN);
        return first;
    }

    /** Σ x of N rows. */
    public static void sums(double[] x, int from, int to, int length, double[] out) {
        int row = absent(out, from, to, length);
        for (; row + 3 < to; row += 4) {
            double a = 0;
            double b = 0;
            double c = 0;
            double d = 0;
            for (int i = row - length + 1; i <= row; i++) {
                a += x[i];
                b += x[i + 1];
                c += x[i + 2];
                d += x[i + 3];
            }
            out[row] = a;
            out[row + 1] = b;
            out[row + 2] = c;
            out[row + 3] = d;
        }
        for (; row < to; row++) {
            double a = 0;
            for (int i = row - length + 1; i <= row; i++) {
                a += x[i];
            }
            out[row] = a;
        }
    }

    /** Σ x ÷ N. */
    public static void means(double[] x, int from, int to, int length, double[] out) {
        sums(x, from, to, length, out);
        for (int row = from; row < to; row++) {
            out[row] /= length;
        }
    }

    /** Σ i·x, i from 1 for the oldest of N values to N for the newest. */
    static void weightedSums(double[] x, int from, int to, int length, double[] out) {
        int row = absent(out, from, to, length);
        for (; row + 3 < to; row += 4) {
            int before = row - length;
            double a = 0;
            double b = 0;
            double c = 0;
            double d = 0;
            for (int i = 1; i <= length; i++) {
                a += i * x[before + i];
                b += i * x[before + i + 1];
                c += i * x[before + i + 2];
                d += i * x[before + i + 3];
            }
            out[row] = a;
            out[row + 1] = b;
            out[row + 2] = c;
            out[row + 3] = d;
        }
        for (; row < to; row++) {
            double a = 0;
            for (int i = 1; i <= length; i++) {
                a += i * x[row - length + i];
            }
            out[row] = a;
        }
    }

    /** Standard deviation about each row's mean, divided by N. */
    static void deviations(double[] x, double[] means, int from, int to, int length, double[] out) {
        int row = absent(out, from, to, length);
        for (; row + 3 < to; row += 4) {
            double a = 0;
            double b = 0;
            double c = 0;
            double d = 0;
            double p = means[row];
            double q = means[row + 1];
            double r = means[row + 2];
            double s = means[row + 3];
            for (int i = row - length + 1; i <= row; i++) {
                a += squared(x[i] - p);
                b += squared(x[i + 1] - q);
                c += squared(x[i + 2] - r);
                d += squared(x[i + 3] - s);
            }
            out[row] = Math.sqrt(a / length);
            out[row + 1] = Math.sqrt(b / length);
            out[row + 2] = Math.sqrt(c / length);
            out[row + 3] = Math.sqrt(d / length);
        }
        for (; row < to; row++) {
            double a = 0;
            for (int i = row - length + 1; i <= row; i++) {
                a += squared(x[i] - means[row]);
            }
            out[row] = Math.sqrt(a / length);
        }
    }

    private static double squared(double x) {
        return x * x;
    }

    /** Σ |x − mean| ÷ N about each row's mean. */
    static void distances(double[] x, double[] means, int from, int to, int length, double[] out) {
        int row = absent(out, from, to, length);
        for (; row + 3 < to; row += 4) {
            double a = 0;
            double b = 0;
            double c = 0;
            double d = 0;
            double p = means[row];
            double q = means[row + 1];
            double r = means[row + 2];
            double s = means[row + 3];
            for (int i = row - length + 1; i <= row; i++) {
                a += Math.abs(x[i] - p);
                b += Math.abs(x[i + 1] - q);
                c += Math.abs(x[i + 2] - r);
                d += Math.abs(x[i + 3] - s);
            }
            out[row] = a / length;
            out[row + 1] = b / length;
            out[row + 2] = c / length;
            out[row + 3] = d / length;
        }
        for (; row < to; row++) {
            double a = 0;
            for (int i = row - length + 1; i <= row; i++) {
                a += Math.abs(x[i] - means[row]);
            }
            out[row] = a / length;
        }
    }

    public static void highest(double[] x, int from, int to, int length, double[] out) {
        extremes(x, from, to, length, out, 1);
    }

    public static void lowest(double[] x, int from, int to, int length, double[] out) {
        extremes(x, from, to, length, out, -1);
    }

    /** The extreme is looked for anew only when it has left the window; of equal ones the newest, as a new search finds. */
    private static void extremes(double[] x, int from, int to, int length, double[] out, int sign) {
        int row = absent(out, from, to, length);
        int best = -1;
        int absent = -1;
        for (; row < to; row++) {
            int first = row - length + 1;
            int next = row;
            if (best < first) {
                best = first;
                next = first;
            }
            for (; next <= row; next++) {
                if (Double.isNaN(x[next])) {
                    absent = next;
                } else if (sign * x[next] >= sign * x[best] || Double.isNaN(x[best])) {
                    best = next;
                }
            }
            out[row] = absent >= first ? Double.NaN : x[best];
        }
    }

    /** The middle one of N values, of an even number the mean of the two in the middle. */
    public static void medians(double[] x, int from, int to, int length, double[] out) {
        double[] window = new double[length];
        for (int row = absent(out, from, to, length); row < to; row++) {
            boolean whole = copy(x, row, window);
            Arrays.sort(window);
            out[row] = !whole
                    ? Double.NaN
                    : length % 2 == 1 ? window[length / 2] : (window[length / 2 - 1] + window[length / 2]) / 2;
        }
    }

    /** 1 for the highest of N values, and one more for each that is above the newest. */
    public static void ranks(double[] x, int from, int to, int length, double[] out) {
        for (int row = absent(out, from, to, length); row < to; row++) {
            out[row] = 1 + counted(x, row, length, 1);
        }
    }

    /** 100 × how many of N values are below the newest ÷ (N − 1). Source: OpenFormula 1.2, PERCENTRANK. */
    public static void percentRanks(double[] x, int from, int to, int length, double[] out) {
        for (int row = absent(out, from, to, length); row < to; row++) {
            out[row] = 100 * counted(x, row, length, -1) / (length - 1);
        }
    }

    /** How many of N values are above the newest one, with sign −1 below it. */
    private static double counted(double[] x, int row, int length, int sign) {
        double count = 0;
        for (int i = row - length + 1; i <= row; i++) {
            if (Double.isNaN(x[i])) {
                return Double.NaN;
            }
            count += sign * x[i] > sign * x[row] ? 1 : 0;
        }
        return count;
    }

    private static boolean copy(double[] x, int row, double[] window) {
        boolean whole = true;
        for (int i = 0; i < window.length; i++) {
            window[i] = x[row - window.length + 1 + i];
            whole &= !Double.isNaN(window[i]);
        }
        return whole;
    }

    /** A division by zero is absent. */
    static double ratio(double a, double b) {
        return b == 0 ? Double.NaN : a / b;
    }
}
