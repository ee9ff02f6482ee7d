package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Standard score: (x − mean) ÷ standard deviation of the last N, both of SEMANTICS; absent when the deviation is zero. Of
 * delta it says by how many deviations a bar was bought or sold. Checked against Hipparchus.
 */
final class Score extends Study {
    static final StudyKind KIND = new StudyKind("score", "Score", "how many standard deviations from its mean",
            Optional.of(BarField.DELTA), List.of(StudyField.length(20)), false,
            "(x − mean of N) ÷ standard deviation of N; N inputs", in -> new Score(in.of(), in.whole("length")));

    private final OutputColumn means = memory();
    private final OutputColumn input;
    private final int length;
    private final OutputColumn score;

    Score(OutputColumn input, int length) {
        this.input = input;
        this.length = length;
        this.score = output("", Unit.NUMBER,
                mirror(input) instanceof Mirror.Negative ? Mirror.NEGATIVE : Mirror.UNKNOWN);
    }

    @Override
    void compute(int from, int to) {
        double[] x = input.values();
        double[] m = means.values();
        double[] y = score.values();
        Windows.means(x, from, to, length, m);
        Windows.deviations(x, m, from, to, length, y);
        for (int bar = from; bar < to; bar++) {
            y[bar] = Windows.ratio(x[bar] - m[bar], y[bar]);
        }
    }
}
