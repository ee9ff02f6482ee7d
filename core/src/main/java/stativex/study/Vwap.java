package stativex.study;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import stativex.market.ContractSink;
import stativex.market.Period;
import stativex.market.Tape;
import stativex.market.WeightedSums;

/**
 * Volume-weighted average price over the contracts of the series' closed bars, each at its print's price, since the open
 * of the session, day, week or month, or of the last N bars; deviation √(Σ size·(price − VWAP)² ÷ Σ size) and bands k
 * deviations away. Warm-up: one bar, or N. Sums are exact whole numbers of the distances from the period's first price. Source:
 * SEMANTICS, "Studies".
 */
final class Vwap extends Study implements ContractSink {
    private static final String ROLLING = "rolling";

    static final StudyKind KIND = new StudyKind("vwap", "VWAP", "mean price of all contracts, with bands",
            Optional.empty(),
            List.of(StudyField.choice("from", "where it begins anew, or the last bars only",
                    Period.SESSION.word(), Period.DAY.word(), Period.WEEK.word(), Period.MONTH.word(), ROLLING),
                    StudyField.factor("deviations", "2", "how far the bands lie away"),
                    StudyField.bars("length", 50, "with rolling: of so many bars")),
            true,
            "Σ price·size ÷ Σ size since the open of the period, or of N bars, over the prints of the closed bars; `.deviation` √(Σ size·(price − VWAP)² ÷ Σ size), `.upper` and `.lower` k of it away; 1 bar, or N",
            Vwap::new);

    private final OutputColumn mean;
    private final OutputColumn upper;
    private final OutputColumn lower;
    private final OutputColumn deviation;
    private final OutputColumn starts = memory();
    private final Frame frame;
    private final Tape tape;
    private final Optional<Period> period;
    private final int length;
    private final double bands;
    /** What the sums were after each row, {@value #KEPT} figures a row: of its period, or with rolling since the first bar. */
    private long[] kept = new long[64 * KEPT];
    private final WeightedSums sums = new WeightedSums();
    /** No contract of the period has been taken yet. */
    private boolean untouched;

    private static final int KEPT = 5;

    Vwap(StudyInputs in) {
        this.frame = in.frame();
        this.tape = frame.tape();
        this.period = in.word("from").equals(ROLLING) ? Optional.empty() : Optional.of(in.period());
        this.length = in.whole("length");
        this.bands = in.number("deviations");
        boolean anchored = period.isPresent();
        this.mean = output(new OutputColumn.Shape("", Unit.LEVEL, anchored, Mirror.NEGATIVE, ""));
        this.upper = output(new OutputColumn.Shape("upper", Unit.LEVEL, anchored, Mirror.NEGATIVE, "lower"));
        this.lower = output(new OutputColumn.Shape("lower", Unit.LEVEL, anchored, Mirror.NEGATIVE, "upper"));
        this.deviation = output(new OutputColumn.Shape("deviation", Unit.DISTANCE, anchored, Mirror.SAME, "deviation"));
    }

    @Override
    public void take(int print, long contracts) {
        begin(print);
        sums.add(tape.price(print), contracts);
    }

    @Override
    public void takeWhole(Tape of, int from, int to) {
        begin(from);
        of.weigh(from, to, sums);
    }

    private void begin(int print) {
        if (untouched) {
            sums.begin(tape.price(print));
            untouched = false;
        }
    }

    @Override
    void compute(int from, int to) {
        if (to * KEPT > kept.length) {
            kept = Arrays.copyOf(kept, Math.max(to * KEPT, kept.length * 2));
        }
        for (int row = from; row < to; row++) {
            if (period.isPresent()) {
                since(row, period.get());
            } else {
                rolling(row);
            }
        }
    }

    private void since(int row, Period by) {
        double[] begins = starts.values();
        begins[row] = frame.periodStart(by, row, begins);
        boolean anew = row == 0 || begins[row] != begins[row - 1];
        untouched = anew;
        if (anew) {
            sums.begin(0);
            frame.contractsSince(row, (long) begins[row], this);
        } else {
            restore(row - 1);
            frame.contracts(row, this);
        }
        keep(row);
        show(row, true);
    }

    private void rolling(int row) {
        untouched = row == 0;
        if (row > 0) {
            restore(row - 1);
        }
        frame.contracts(row, this);
        keep(row);
        int before = (row - length) * KEPT;
        if (before >= 0) {
            sums.sinceFrom(kept[before + 1], kept[before + 2], kept[before + 3], kept[before + 4],
                    tape.price(frame.first(row - length + 1)));
        } else if (before == -KEPT) {
            sums.sinceFrom(0, 0, 0, 0, tape.price(frame.first(0)));
        }
        show(row, before >= -KEPT);
    }

    private void restore(int row) {
        int at = row * KEPT;
        sums.set(kept[at], kept[at + 1], kept[at + 2], kept[at + 3], kept[at + 4]);
    }

    private void keep(int row) {
        int at = row * KEPT;
        kept[at] = sums.anchor();
        kept[at + 1] = sums.contracts();
        kept[at + 2] = sums.distances();
        kept[at + 3] = sums.squaresHigh();
        kept[at + 4] = sums.squaresLow();
    }

    private void show(int row, boolean known) {
        double value = known ? sums.mean() : Double.NaN;
        double sigma = known ? sums.deviation() : Double.NaN;
        mean.values()[row] = value;
        deviation.values()[row] = sigma;
        upper.values()[row] = value + bands * sigma;
        lower.values()[row] = value - bands * sigma;
    }
}
