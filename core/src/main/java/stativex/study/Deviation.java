package stativex.study;

import java.util.List;
import java.util.Optional;

/** Standard deviation of the last N about their mean, divided by N. Source: SEMANTICS, "Studies"; TA-Lib's STDDEV. */
final class Deviation extends Study {
    static final StudyKind KIND = new StudyKind("deviation", "Deviation", "standard deviation of the last bars",
            Optional.of(BarField.CLOSE), List.of(StudyField.length(20)), false,
            "√(Σ (x − mean)² ÷ N) of the last N; N inputs; as TA-Lib (STDDEV)",
            in -> new Deviation(in.of(), in.whole("length")));

    private final OutputColumn means = memory();
    private final OutputColumn input;
    private final int length;
    private final OutputColumn deviation;

    Deviation(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
        this.deviation = output(width(input, ""));
    }

    @Override
    void compute(int from, int to) {
        Windows.means(input.values(), from, to, length, means.values());
        Windows.deviations(input.values(), means.values(), from, to, length, deviation.values());
    }
}
