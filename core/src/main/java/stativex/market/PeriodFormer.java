package stativex.market;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Day, week and month: whole trading dates, from the calendar's first open to its last close, an anchor inside or not. Never
 * cut.
 */
final class PeriodFormer extends BarFormer {
    private final BarType.Period period;
    private final SessionCalendar calendar;
    private final BarSettings settings;
    private Bar bar;
    private LocalDate from;
    private long start;
    private long end;
    private boolean incomplete;

    PeriodFormer(Tape tape, BarType.Period period, SessionCalendar calendar, BarSettings settings) {
        super(tape);
        this.period = period;
        this.calendar = calendar;
        this.settings = settings;
    }

    @Override
    void sessionOpens(Session session) {
        LocalDate begins = first(session.tradingDate());
        if (!begins.equals(from)) {
            from = begins;
            List<Session> sessions = new ArrayList<>();
            for (LocalDate date = begins; first(date).equals(begins); date = date.plusDays(1)) {
                sessions.addAll(calendar.sessions(date).stream().filter(settings::names).toList());
            }
            start = sessions.getFirst().open();
            end = sessions.getLast().close();
            incomplete = !settings.uses(sessions.getFirst());
        }
    }

    private LocalDate first(LocalDate date) {
        return switch (period) {
            case DAY -> date;
            case WEEK -> date.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
            case MONTH -> date.withDayOfMonth(1);
        };
    }

    /** The session opened last is incomplete. */
    void incomplete() {
        incomplete = true;
    }

    @Override
    void take(int print, Session session) {
        if (bar == null) {
            bar = new Bar(session.tradingDate());
        }
        bar.take(tape, print, tape.size(print));
        bar.start = start;
    }

    @Override
    void takeRun(int from, int to, Session session) {
        if (bar == null) {
            bar = new Bar(session.tradingDate());
        }
        bar.takeAll(tape, from, to);
        bar.start = start;
    }

    @Override
    void closes(Session session, boolean restarts) {
        if (session.close() == end && bar != null) {
            bar.end = end;
            bar.closedAt = end;
            // what lies before the anchor makes no bar, so the period that holds it lacks prints
            boolean late = calendar.late(start, tape.time(series.begin()));
            bar.marks |= incomplete || late ? Bar.INCOMPLETE : 0;
            close(bar);
            bar = null;
        }
    }

    @Override
    Optional<Bar> forming() {
        return Optional.ofNullable(bar);
    }
}
