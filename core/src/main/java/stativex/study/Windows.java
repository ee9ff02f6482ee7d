package stativex.study;

/**
 * Figures of the last N values up to a row, NaN when there are fewer or one of them is absent. Computed anew for each row:
 * no rounding error is carried on, and any row can be computed by itself.
 */
final class Windows {
    private Windows() {}

    static double sum(double[] x, int row, int length) {
        if (row + 1 < length) {
            return Double.NaN;
        }
        double sum = 0;
        for (int i = row - length + 1; i <= row; i++) {
            sum += x[i];
        }
        return sum;
    }

    static double mean(double[] x, int row, int length) {
        return sum(x, row, length) / length;
    }

    /** Standard deviation about {@code mean}, divided by N. */
    static double deviation(double[] x, int row, int length, double mean) {
        if (row + 1 < length) {
            return Double.NaN;
        }
        double squares = 0;
        for (int i = row - length + 1; i <= row; i++) {
            double away = x[i] - mean;
            squares += away * away;
        }
        return Math.sqrt(squares / length);
    }

    static double highest(double[] x, int row, int length) {
        if (row + 1 < length) {
            return Double.NaN;
        }
        double most = x[row];
        for (int i = row - length + 1; i < row; i++) {
            most = Math.max(most, x[i]);
        }
        return most;
    }

    static double lowest(double[] x, int row, int length) {
        if (row + 1 < length) {
            return Double.NaN;
        }
        double least = x[row];
        for (int i = row - length + 1; i < row; i++) {
            least = Math.min(least, x[i]);
        }
        return least;
    }

    /** A division by zero is absent. */
    static double ratio(double a, double b) {
        return b == 0 ? Double.NaN : a / b;
    }
}
