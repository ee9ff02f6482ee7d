package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.ContractSink;
import stativex.market.Period;
import stativex.market.Tape;

/**
 * Volume-weighted average price over the contracts of the series' closed bars, each at its print's price, since the open
 * of the session, day, week or month, or of the last N bars; deviation √(Σ size·(price − VWAP)² ÷ Σ size) and bands k
 * deviations away. Warm-up: one bar, or N. Sums are whole numbers against a nearby price, so no digits are lost. Source:
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
    /** Price that sums are counted against, by row; likewise the sums of the row or since the period's start. */
    private final OutputColumn anchors = memory();
    private final OutputColumn starts = memory();
    private final OutputColumn sizes = memory();
    private final OutputColumn sums = memory();
    private final OutputColumn squares = memory();
    private final OutputColumn rolled = memory();
    private final Frame frame;
    private final Tape tape;
    private final Optional<Period> period;
    private final int length;
    private final double bands;
    private long anchor;
    private double size;
    private double sum;
    private double square;

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
        long away = tape.price(print) - anchor;
        size += contracts;
        sum += (double) away * contracts;
        square += (double) (away * away) * contracts;
    }

    @Override
    void compute(int from, int to) {
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
        anchor = anew ? tape.price(frame.last(row)) : (long) anchors.values()[row - 1];
        size = anew ? 0 : sizes.values()[row - 1];
        sum = anew ? 0 : sums.values()[row - 1];
        square = anew ? 0 : squares.values()[row - 1];
        if (anew) {
            frame.contractsSince(row, (long) begins[row], this);
        } else {
            frame.contracts(row, this);
        }
        keep(row);
        show(row);
    }

    private void rolling(int row) {
        anchor = row == 0 ? tape.price(frame.first(row)) : (long) anchors.values()[row - 1];
        size = 0;
        sum = 0;
        square = 0;
        frame.contracts(row, this);
        keep(row);
        double[] n = rolled.values();
        size = windowSum(sizes, row, n);
        sum = windowSum(sums, row, n);
        square = windowSum(squares, row, n);
        show(row);
    }

    private double windowSum(OutputColumn column, int row, double[] scratch) {
        Windows.sums(column.values(), row, row + 1, length, scratch);
        return scratch[row];
    }

    private void keep(int row) {
        anchors.values()[row] = anchor;
        sizes.values()[row] = size;
        sums.values()[row] = sum;
        squares.values()[row] = square;
    }

    private void show(int row) {
        double away = Windows.ratio(sum, size);
        double sigma = Math.sqrt(Math.max(0, Windows.ratio(square, size) - away * away));
        double value = anchor + away;
        mean.values()[row] = value;
        deviation.values()[row] = sigma;
        upper.values()[row] = value + bands * sigma;
        lower.values()[row] = value - bands * sigma;
    }
}
