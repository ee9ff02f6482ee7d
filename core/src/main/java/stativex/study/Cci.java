package stativex.study;

import java.util.List;
import java.util.Optional;

/** Commodity channel index: (x − mean) ÷ (0.015 × mean absolute deviation) of N; absent when that is zero. TA-Lib's CCI. */
final class Cci extends Study {
    static final StudyKind KIND = new StudyKind("cci", "CCI", "how far the price is from its mean, in usual deviations",
            Optional.of(BarField.TYPICAL), List.of(StudyField.length(20)), false,
            "(x − mean of N) ÷ (0.015 · mean absolute deviation of N); N inputs; as TA-Lib",
            in -> new Cci(in.of(), in.whole("length")));

    private final OutputColumn means = memory();
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
        double[] m = means.values();
        double[] y = index.values();
        Windows.means(x, from, to, length, m);
        Windows.distances(x, m, from, to, length, y);
        for (int bar = from; bar < to; bar++) {
            y[bar] = Windows.ratio(x[bar] - m[bar], 0.015 * y[bar]);
        }
    }
}
