package stativex.study;

/**
 * Wilder's smoothing: seeded with the mean of the first N inputs, then (value₋₁ (N − 1) + x) / N. An absent input leaves
 * it as it was and that bar absent. Source: SEMANTICS, "Studies" (ATR).
 */
final class Wilder extends Study {
    private final OutputColumn input;
    private final int length;
    private final OutputColumn mean;
    private final OutputColumn held = memory();
    private final OutputColumn taken = memory();

    Wilder(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
        this.mean = output(like(input));
    }

    @Override
    void compute(int from, int to) {
        double[] x = input.values();
        double[] y = mean.values();
        double[] kept = held.values();
        double[] counts = taken.values();
        double value = from == 0 ? 0 : kept[from - 1];
        int count = from == 0 ? 0 : (int) counts[from - 1];
        for (int bar = from; bar < to; bar++) {
            double a = x[bar];
            double shown = Double.NaN;
            if (!Double.isNaN(a)) {
                if (count < length) {
                    value += a;
                    if (++count == length) {
                        value /= length;
                        shown = value;
                    }
                } else {
                    value = (value * (length - 1) + a) / length;
                    shown = value;
                }
            }
            y[bar] = shown;
            kept[bar] = value;
            counts[bar] = count;
        }
    }
}
