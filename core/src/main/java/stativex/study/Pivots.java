package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.Period;

/**
 * Pivot levels of the day, week or month before: P = (H + L + C) ÷ 3, first levels 2 P − L and 2 P − H, second P ± (H − L),
 * third H + 2 (P − L) and L − 2 (H − P). Common practice, no source.
 */
final class Pivots extends Study {
    static final StudyKind KIND = new StudyKind("pivots", "Pivots", "levels from the day, week or month before",
            Optional.empty(), List.of(StudyField.period("of which period", Period.DAY, Period.WEEK, Period.MONTH)),
            true,
            "P = (H + L + C) ÷ 3 of the period before; `.r1` 2P − L, `.s1` 2P − H, `.r2` `.s2` P ± (H − L), `.r3` H + 2(P − L), `.s3` L − 2(H − P); common practice",
            Pivots::new);

    private final OutputColumn pivot = output("", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn r1 = level("r1", "s1");
    private final OutputColumn s1 = level("s1", "r1");
    private final OutputColumn r2 = level("r2", "s2");
    private final OutputColumn s2 = level("s2", "r2");
    private final OutputColumn r3 = level("r3", "s3");
    private final OutputColumn s3 = level("s3", "r3");
    private final OutputColumn starts = memory();
    private final Frame frame;
    private final Period period;
    private final EarlierPeriod before;

    Pivots(StudyInputs in) {
        this.frame = in.frame();
        this.period = in.period();
        this.before = new EarlierPeriod(frame, period);
    }

    @Override
    void compute(int from, int to) {
        double[] begins = starts.values();
        for (int row = from; row < to; row++) {
            begins[row] = frame.periodStart(period, row, begins);
            before.before((long) begins[row], row);
            double h = before.high();
            double l = before.low();
            double p = (h + l + before.close()) / 3;
            pivot.values()[row] = p;
            r1.values()[row] = 2 * p - l;
            s1.values()[row] = 2 * p - h;
            r2.values()[row] = p + (h - l);
            s2.values()[row] = p - (h - l);
            r3.values()[row] = h + 2 * (p - l);
            s3.values()[row] = l - 2 * (h - p);
        }
    }
}
