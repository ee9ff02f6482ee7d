package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Average true range (Wilder): the true range exists from the second bar; seeded with the mean of the first N, then
 * (ATR₋₁ (N − 1) + TR) / N. Warm-up: N + 1 bars. In ticks. Source: SEMANTICS, "Studies"; TA-Lib's ATR.
 */
final class Atr extends Study {
    static final StudyKind KIND = new StudyKind("atr", "ATR", "how far bars reach on average, in ticks",
            Optional.empty(), List.of(StudyField.length(14)), false,
            "true range max(H, C₋₁) − min(L, C₋₁), seeded with the mean of N of them, then (ATR (N − 1) + TR) ÷ N; N + 1 bars; as TA-Lib",
            in -> new Atr(in.frame(), in.whole("length")));

    private final OutputColumn mean = output("", Unit.DISTANCE, Mirror.SAME);
    private final Wilder smooth;

    Atr(Frame frame, int length) {
        TrueRange range = part(new TrueRange(frame));
        this.smooth = part(new Wilder(range.main(), length));
    }

    @Override
    void compute(int from, int to) {
        System.arraycopy(smooth.main().values(), from, mean.values(), from, to - from);
    }
}
