package stativex.study;

/** True range, from the second bar on: max(H, C₋₁) − min(L, C₋₁), in ticks. Source: SEMANTICS, "Studies". */
final class TrueRange extends Study {
    private final OutputColumn high;
    private final OutputColumn low;
    private final OutputColumn close;
    private final OutputColumn range = output("", Unit.DISTANCE, Mirror.SAME);

    TrueRange(Frame frame) {
        this.high = frame.field(BarField.HIGH);
        this.low = frame.field(BarField.LOW);
        this.close = frame.field(BarField.CLOSE);
    }

    static double of(double high, double low, double closeBefore) {
        return Math.max(high, closeBefore) - Math.min(low, closeBefore);
    }

    @Override
    void compute(int from, int to) {
        double[] h = high.values();
        double[] l = low.values();
        double[] c = close.values();
        double[] y = range.values();
        if (from == 0 && to > 0) {
            y[0] = Double.NaN;
        }
        for (int bar = Math.max(1, from); bar < to; bar++) {
            y[bar] = of(h[bar], l[bar], c[bar - 1]);
        }
    }
}
