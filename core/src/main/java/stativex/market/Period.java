package stativex.market;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Stretches of the calendar in which levels hold and sums grow: a session, a trading day, a week, a month of them. */
public enum Period {
    SESSION, DAY, WEEK, MONTH;

    /** How many periods back an earlier one with sessions is looked for. */
    private static final int MOST_BACK = 60;

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** First trading date of the period that a date belongs to. */
    private LocalDate first(LocalDate date) {
        return switch (this) {
            case SESSION, DAY -> date;
            case WEEK -> date.with(TemporalAdjusters.previousOrSame(java.time.DayOfWeek.MONDAY));
            case MONTH -> date.withDayOfMonth(1);
        };
    }

    private LocalDate next(LocalDate first) {
        return switch (this) {
            case SESSION, DAY -> first.plusDays(1);
            case WEEK -> first.plusWeeks(1);
            case MONTH -> first.plusMonths(1);
        };
    }

    /** When the period that a session belongs to begins: its first open, nanoseconds. */
    public long start(SessionCalendar calendar, Session session) {
        return this == SESSION ? session.open() : sessions(calendar, first(session.tradingDate())).getFirst().open();
    }

    private List<Session> sessions(SessionCalendar calendar, LocalDate first) {
        List<Session> sessions = new ArrayList<>();
        for (LocalDate date = first; date.isBefore(next(first)); date = date.plusDays(1)) {
            sessions.addAll(calendar.sessions(date));
        }
        return sessions;
    }

    /** The sessions of the last period before the one that a session belongs to; empty when there is none for long. */
    public List<Session> before(SessionCalendar calendar, Session session) {
        LocalDate first = first(session.tradingDate());
        if (this == SESSION) {
            List<Session> today = calendar.sessions(first);
            int place = today.indexOf(session);
            if (place > 0) {
                return List.of(today.get(place - 1));
            }
        }
        for (int i = 1; i <= MOST_BACK; i++) {
            List<Session> sessions = sessions(calendar, first(first.minus(i, unit())));
            if (!sessions.isEmpty()) {
                return this == SESSION ? List.of(sessions.getLast()) : sessions;
            }
        }
        return List.of();
    }

    private ChronoUnit unit() {
        return switch (this) {
            case SESSION, DAY -> ChronoUnit.DAYS;
            case WEEK -> ChronoUnit.WEEKS;
            case MONTH -> ChronoUnit.MONTHS;
        };
    }
}
