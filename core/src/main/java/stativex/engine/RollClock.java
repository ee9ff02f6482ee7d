package stativex.engine;

import java.time.LocalDate;
import java.util.Optional;
import stativex.market.Join;
import stativex.market.Rolls;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;

/** Which month of a joined series is in force, and when the next roll asks for something. */
final class RollClock {
    private final Rolls rolls;
    private final SessionCalendar calendar;
    private int month;
    /** No entry any more until the next month is in force, and nothing stays open. */
    private boolean rolling;
    /** When positions leave for the next roll, nanoseconds; {@link TapeTime#NEVER} without one. */
    private long lead;

    RollClock(Rolls rolls, SessionCalendar calendar) {
        this.rolls = rolls;
        this.calendar = calendar;
        this.lead = nextLead();
    }

    /** The roll that comes next. */
    Optional<Join.Leg> next() {
        return month + 1 < rolls.legs().size() ? Optional.of(rolls.legs().get(month + 1)) : Optional.empty();
    }

    private long nextLead() {
        Optional<Session> last = next().flatMap(leg -> calendar.before(leg.open()));
        return last.map(session -> Math.max(session.open(), session.close() - rolls.lead())).orElse(TapeTime.NEVER);
    }

    /** When it next asks for positions to leave. */
    long lead() {
        return rolling ? TapeTime.NEVER : lead;
    }

    void begins() {
        rolling = true;
    }

    boolean rolling() {
        return rolling;
    }

    /** The month that a trading date brings into force; empty when it brings none. */
    Optional<Join.Leg> due(LocalDate date) {
        Optional<Join.Leg> due = Optional.empty();
        while (next().flatMap(Join.Leg::date).filter(roll -> !date.isBefore(roll)).isPresent()) {
            due = next();
            month++;
        }
        if (due.isPresent()) {
            rolling = false;
            lead = nextLead();
        }
        return due;
    }

    /** The last trading day of the month in force, where the series has months. */
    Optional<LocalDate> lastTradingDay(Optional<LocalDate> ofOne) {
        return rolls.legs().isEmpty() ? ofOne : rolls.legs().get(month).lastTradingDay();
    }
}
