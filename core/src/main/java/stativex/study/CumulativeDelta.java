package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.ContractSink;
import stativex.market.Period;

/** Bought less sold contracts of the series' closed bars since the open of a period; unknown ones count in neither. */
final class CumulativeDelta extends Study implements ContractSink {
    static final StudyKind KIND = new StudyKind("cumulative", "Cumulative delta",
            "bought less sold contracts since the open", Optional.empty(),
            List.of(StudyField.period("where it begins anew", Period.SESSION, Period.DAY, Period.WEEK, Period.MONTH)),
            false, "Σ delta of the closed bars since the open of the period; 1 bar", CumulativeDelta::new);

    private final OutputColumn total = output(
            new OutputColumn.Shape("", Unit.NUMBER, true, Mirror.NEGATIVE, ""));
    private final OutputColumn starts = memory();
    private final OutputColumn delta;
    private final Frame frame;
    private final Period period;
    private double sum;

    CumulativeDelta(StudyInputs in) {
        this.frame = in.frame();
        this.delta = in.field(BarField.DELTA);
        this.period = in.period();
    }

    @Override
    public void take(int print, long contracts) {
        int who = frame.tape().aggressorCode(print);
        sum += who == 1 ? contracts : who == 2 ? -contracts : 0;
    }

    @Override
    void compute(int from, int to) {
        double[] begins = starts.values();
        for (int row = from; row < to; row++) {
            begins[row] = frame.periodStart(period, row, begins);
            if (row == 0 || begins[row] != begins[row - 1]) {
                sum = 0;
                frame.contractsSince(row, (long) begins[row], this);
                total.values()[row] = sum;
            } else {
                total.values()[row] = total.values()[row - 1] + delta.values()[row];
            }
        }
    }
}
