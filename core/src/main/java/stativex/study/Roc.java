package stativex.study;

import java.util.List;
import java.util.Optional;

/** Rate of change: 100 (x − x₋ₙ) ÷ x₋ₙ; absent when x₋ₙ is zero. Warm-up: N + 1 inputs. TA-Lib's ROC. */
final class Roc extends Study {
    static final StudyKind KIND = new StudyKind("roc", "ROC", "change over the last bars, in percent",
            Optional.of(BarField.CLOSE), List.of(StudyField.length(10)), false,
            "100 (x − x N bars before) ÷ x N bars before; N + 1 inputs; as TA-Lib",
            in -> new Roc(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final OutputColumn change = output("", Unit.NUMBER, Mirror.NEGATIVE);

    Roc(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
    }

    @Override
    void compute(int from, int to) {
        double[] x = input.values();
        double[] y = change.values();
        for (int bar = from; bar < to; bar++) {
            y[bar] = bar < length
                    ? Double.NaN
                    : 100 * Windows.ratio(x[bar] - x[bar - length], x[bar - length]);
        }
    }
}
