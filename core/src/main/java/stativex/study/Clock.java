package stativex.study;

import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import stativex.market.Session;
import stativex.market.TapeTime;

/** Where a bar's closing moment stands in its session and day. */
final class Clock extends Study {
    static final StudyKind KIND = new StudyKind("clock", "Clock", "where a bar's close stands in session and day",
            Optional.empty(), List.of(StudyField.zone()), false,
            "`.bars` of the session so far, `.minutes` since its open, `.left` minutes to its close, `.weekday` of the trading date (Monday 1), `.time` minutes since midnight in the zone",
            Clock::new);

    private static final double MINUTE = 60.0 * TapeTime.SECOND;

    private final OutputColumn count = output(
            new OutputColumn.Shape("bars", Unit.NUMBER, true, Mirror.SAME, "bars"));
    private final OutputColumn minutes = output(
            new OutputColumn.Shape("minutes", Unit.NUMBER, true, Mirror.SAME, "minutes"));
    private final OutputColumn left = output(
            new OutputColumn.Shape("left", Unit.NUMBER, true, Mirror.SAME, "left"));
    private final OutputColumn weekday = output("weekday", Unit.NUMBER, Mirror.SAME);
    private final OutputColumn time = output("time", Unit.NUMBER, Mirror.SAME);
    private final Frame frame;
    private final ZoneId zone;

    Clock(StudyInputs in) {
        this.frame = in.frame();
        this.zone = in.zone();
    }

    @Override
    void compute(int from, int to) {
        for (int row = from; row < to; row++) {
            long now = frame.moment(row);
            long open = frame.sessionOpen(row);
            boolean same = row > 0 && frame.sessionOpen(row - 1) == open;
            Optional<Session> session = frame.sessionAt(open);
            count.values()[row] = same ? count.values()[row - 1] + 1 : 1;
            minutes.values()[row] = (now - open) / MINUTE;
            left.values()[row] = session.map(s -> (s.close() - now) / MINUTE).orElse(Double.NaN);
            weekday.values()[row] = session.map(s -> (double) s.tradingDate().getDayOfWeek().getValue())
                    .orElse(Double.NaN);
            ZonedDateTime local = TapeTime.in(zone, now);
            time.values()[row] = local.toLocalTime().toNanoOfDay() / MINUTE;
        }
    }
}
