package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.Period;

/** Open, high, low and close of the session, day, week or month before, of all its sessions' prints. */
final class Previous extends Study {
    static final StudyKind KIND = new StudyKind("previous", "Previous",
            "high, low, close and open of the day, session, week or month before", Optional.empty(),
            List.of(StudyField.period("of which period", Period.DAY, Period.SESSION, Period.WEEK, Period.MONTH)), true,
            "`.high`, `.low`, `.close`, `.open` of all prints of the period before; absent if the tape does not hold it whole; a checked twin",
            Previous::new);

    private final OutputColumn high = level("high", "low");
    private final OutputColumn low = level("low", "high");
    private final OutputColumn close = output("close", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn open = output("open", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn starts = memory();
    private final Frame frame;
    private final Period period;
    private final EarlierPeriod before;

    Previous(StudyInputs in) {
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
            high.values()[row] = before.high();
            low.values()[row] = before.low();
            close.values()[row] = before.close();
            open.values()[row] = before.open();
        }
    }
}
