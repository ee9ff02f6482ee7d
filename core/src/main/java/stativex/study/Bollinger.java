package stativex.study;

import java.util.List;
import java.util.Optional;

/** Bollinger bands: SMA ± k standard deviations. Source: SEMANTICS, "Studies"; TA-Lib's BBANDS. */
final class Bollinger extends Study {
    static final StudyKind KIND = new StudyKind("bollinger", "Bollinger", "mean with bands of standard deviations",
            Optional.of(BarField.CLOSE),
            List.of(StudyField.length(20), StudyField.factor("deviations", "2", "how far the bands lie away")), true,
            "mean of N, `.upper` and `.lower` k standard deviations away, `.width` between them; N inputs; as TA-Lib (BBANDS)",
            Bollinger::new);

    private final OutputColumn input;
    private final int length;
    private final double bands;
    private final OutputColumn mean;
    private final OutputColumn upper;
    private final OutputColumn lower;
    private final OutputColumn width;

    Bollinger(StudyInputs in) {
        this.input = in.of();
        this.length = in.whole("length");
        this.bands = in.number("deviations");
        this.mean = output(like(input));
        this.upper = output(like(input, "upper", "lower"));
        this.lower = output(like(input, "lower", "upper"));
        this.width = output(width(input, "width"));
    }

    @Override
    void compute(int from, int to) {
        double[] m = mean.values();
        double[] u = upper.values();
        double[] l = lower.values();
        double[] w = width.values();
        Windows.means(input.values(), from, to, length, m);
        Windows.deviations(input.values(), m, from, to, length, w);
        for (int bar = from; bar < to; bar++) {
            double away = bands * w[bar];
            u[bar] = m[bar] + away;
            l[bar] = m[bar] - away;
            w[bar] = 2 * away;
        }
    }
}
