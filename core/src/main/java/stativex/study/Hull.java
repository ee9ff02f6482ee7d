package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Hull moving average: WMA over √N (rounded down) of 2 WMA(N ÷ 2 rounded down) − WMA(N). Warm-up: N + √N − 1 inputs.
 * ta4j's HMAIndicator follows the same definition.
 */
final class Hull extends Study {
    static final StudyKind KIND = new StudyKind("hull", "Hull", "smooth mean with little lag",
            Optional.of(BarField.CLOSE),
            List.of(new StudyField("length", new StudyField.Whole(2, 100_000), "20", "bars",
                    "how many bars it looks back over")),
            true, "WMA over √N of 2 · WMA(N ÷ 2) − WMA(N), both rounded down; N + √N − 1 inputs; as ta4j",
            in -> new Hull(in.of(), in.whole("length")));

    private final Wma half;
    private final Wma whole;
    private final OutputColumn raw = memory();
    private final Wma smooth;
    private final OutputColumn mean;

    Hull(OutputColumn input, int length) {
        this.half = part(new Wma(input, length / 2));
        this.whole = part(new Wma(input, length));
        this.smooth = new Wma(raw, (int) Math.sqrt(length));
        this.mean = output(like(input));
    }

    @Override
    void compute(int from, int to) {
        double[] a = half.main().values();
        double[] b = whole.main().values();
        double[] x = raw.values();
        for (int bar = from; bar < to; bar++) {
            x[bar] = 2 * a[bar] - b[bar];
        }
        smooth.take(from, to);
        System.arraycopy(smooth.main().values(), from, mean.values(), from, to - from);
    }
}
