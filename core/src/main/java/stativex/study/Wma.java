package stativex.study;

import java.util.List;
import java.util.Optional;

/** Weighted moving average: weights N, N − 1, … 1 from the newest back. Warm-up: N inputs. TA-Lib's WMA. */
final class Wma extends Study {
    static final StudyKind KIND = new StudyKind("wma", "WMA", "mean with weights falling from the newest bar back",
            Optional.of(BarField.CLOSE), List.of(StudyField.length(20)), true,
            "weights N, N − 1, … 1 from the newest back, divided by their sum; N inputs; as TA-Lib",
            in -> new Wma(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final OutputColumn mean;

    Wma(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
        this.mean = output(like(input));
    }

    @Override
    void compute(int from, int to) {
        double[] y = mean.values();
        double weights = length * (length + 1.0) / 2;
        Windows.weightedSums(input.values(), from, to, length, y);
        for (int bar = from; bar < to; bar++) {
            y[bar] /= weights;
        }
    }
}
