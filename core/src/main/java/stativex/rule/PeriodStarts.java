package stativex.rule;

import stativex.market.Period;
import stativex.study.Frame;
import stativex.study.Mirror;
import stativex.study.OutputColumn;
import stativex.study.Step;
import stativex.study.Unit;

/** When the period that each row belongs to begins, in nanoseconds. */
final class PeriodStarts implements Step {
    private final Frame frame;
    private final Period period;
    private final OutputColumn column = new OutputColumn(
            new OutputColumn.Shape("start", Unit.NUMBER, Mirror.UNKNOWN));

    PeriodStarts(Frame frame, Period period) {
        this.frame = frame;
        this.period = period;
    }

    OutputColumn column() {
        return column;
    }

    @Override
    public void take(int from, int to) {
        double[] y = column.room(to);
        for (int row = from; row < to; row++) {
            y[row] = frame.periodStart(period, row, y);
        }
    }
}
