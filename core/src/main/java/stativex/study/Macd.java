package stativex.study;

import java.util.List;
import java.util.Optional;

/** Difference of a fast and a slow EMA, an EMA of it as signal, and the rest between both. Each EMA has its own seed. */
final class Macd extends Study {
    static final StudyKind KIND = new StudyKind("macd", "MACD", "difference of a fast and a slow mean",
            Optional.of(BarField.CLOSE),
            List.of(StudyField.bars("fast", 12, "length of the fast EMA"),
                    StudyField.bars("slow", 26, "length of the slow EMA"),
                    StudyField.bars("signal", 9, "length of the EMA of the difference")),
            false,
            "EMA fast − EMA slow; `.signal` its EMA; `.rest` the difference of both; each EMA as `ema`; slow, then signal − 1 more inputs",
            Macd::new);

    private final Ema fast;
    private final Ema slow;
    private final OutputColumn difference;
    private final Ema smooth;
    private final OutputColumn signal;
    private final OutputColumn rest;

    Macd(StudyInputs in) {
        this.fast = part(new Ema(in.of(), in.whole("fast")));
        this.slow = part(new Ema(in.of(), in.whole("slow")));
        this.difference = output(signed(in.of(), ""));
        this.signal = output(signed(in.of(), "signal"));
        this.rest = output(signed(in.of(), "rest"));
        this.smooth = new Ema(difference, in.whole("signal"));
    }

    @Override
    void compute(int from, int to) {
        double[] a = fast.main().values();
        double[] b = slow.main().values();
        double[] y = difference.values();
        for (int bar = from; bar < to; bar++) {
            y[bar] = a[bar] - b[bar];
        }
        smooth.take(from, to);
        double[] s = smooth.main().values();
        for (int bar = from; bar < to; bar++) {
            signal.values()[bar] = s[bar];
            rest.values()[bar] = y[bar] - s[bar];
        }
    }
}
