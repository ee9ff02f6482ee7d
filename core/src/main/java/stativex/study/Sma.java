package stativex.study;

import java.util.List;
import java.util.Optional;

/** Simple moving average: mean of the last N. Warm-up: N inputs. Source: SEMANTICS, "Studies"; TA-Lib's SMA. */
final class Sma extends Study {
    static final StudyKind KIND = new StudyKind("sma", "SMA", "mean of the last bars", Optional.of(BarField.CLOSE),
            List.of(StudyField.length(20)), true, "mean of the last N; N inputs; as TA-Lib",
            in -> new Sma(in.of(), in.whole("length")));

    private final OutputColumn input;
    private final int length;
    private final OutputColumn mean;

    /** @param length N, at least 1 */
    Sma(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
        this.mean = output(like(input));
    }

    @Override
    void compute(int from, int to) {
        Windows.means(input.values(), from, to, length, mean.values());
    }
}
