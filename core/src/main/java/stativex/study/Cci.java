package stativex.study;

import java.util.List;
import java.util.Optional;

/** Commodity channel index: (x − mean) ÷ (0.015 × mean absolute deviation) of N; absent when that is zero. TA-Lib's CCI. */
final class Cci extends Study {
    static final StudyKind KIND = new StudyKind("cci", "CCI", "how far the price is from its mean, in usual deviations",
            Optional.of(BarField.TYPICAL), List.of(StudyField.length(20)), false,
            "(x − mean of N) ÷ (0.015 · mean absolute deviation of N); N inputs; as TA-Lib",
            in -> new Cci(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final OutputColumn index;

    Cci(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
        this.index = output("", Unit.NUMBER,
                mirror(input) instanceof Mirror.Negative ? Mirror.NEGATIVE : Mirror.UNKNOWN);
    }

    @Override
    void compute(int from, int to) {
        double[] x = input.values();
        double[] y = index.values();
        for (int bar = from; bar < to; bar++) {
            double mean = Windows.mean(x, bar, length);
            double away = 0;
            for (int i = Math.max(0, bar - length + 1); i <= bar; i++) {
                away += Math.abs(x[i] - mean);
            }
            y[bar] = Windows.ratio(x[bar] - mean, 0.015 * (away / length));
        }
    }
}
