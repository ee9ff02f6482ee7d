package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Relative strength index (Wilder): mean gain and loss seeded over the first N changes and smoothed like ATR;
 * 100 − 100 ÷ (1 + gain ÷ loss); 100 when there is no loss, 50 when there is neither. Warm-up: N + 1 inputs. Source:
 * SEMANTICS, "Studies"; TA-Lib's RSI (which says 0 for neither).
 */
final class Rsi extends Recursive {
    static final StudyKind KIND = new StudyKind("rsi", "RSI", "how one-sided the last bars were, 0 to 100",
            Optional.of(BarField.CLOSE), List.of(StudyField.length(14)), false,
            "mean gain and loss over the first N changes, smoothed like ATR; 100 − 100 ÷ (1 + gain ÷ loss); 100 without a loss, 50 without either; N + 1 inputs; as TA-Lib",
            in -> new Rsi(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final OutputColumn index;

    Rsi(OutputColumn input, int length) {
        super(Double.NaN, 0, 0, 0);
        this.input = input;
        this.length = length;
        this.index = output("", Unit.NUMBER,
                mirror(input) instanceof Mirror.Negative ? new Mirror.Rest(100) : Mirror.UNKNOWN);
    }

    /** Figures: the input before, mean gain and loss (while seeding their sums), changes taken up to N. */
    @Override
    void run(double[] figures, int from, int to) {
        double[] x = input.values();
        double[] y = index.values();
        double before = figures[0];
        double gain = figures[1];
        double loss = figures[2];
        int count = (int) figures[3];
        for (int bar = from; bar < to; bar++) {
            double a = x[bar];
            double shown = Double.NaN;
            if (!Double.isNaN(a)) {
                if (!Double.isNaN(before)) {
                    double change = a - before;
                    double up = Math.max(change, 0);
                    double down = Math.max(-change, 0);
                    if (count < length) {
                        gain += up;
                        loss += down;
                        if (++count == length) {
                            gain /= length;
                            loss /= length;
                        }
                    } else {
                        gain = (gain * (length - 1) + up) / length;
                        loss = (loss * (length - 1) + down) / length;
                    }
                    if (count == length) {
                        shown = loss == 0 ? gain == 0 ? 50 : 100 : 100 - 100 / (1 + gain / loss);
                    }
                }
                before = a;
            }
            y[bar] = shown;
        }
        figures[0] = before;
        figures[1] = gain;
        figures[2] = loss;
        figures[3] = count;
    }
}
