package stativex.engine;

import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;

/**
 * The account's trading days, by its own calendar: whichever contract's event comes first after one has begun begins it. SEMANTICS,
 * "Several contracts".
 */
final class AccountDays {
    private final SessionCalendar calendar;
    private boolean started;
    private long next = TapeTime.NEVER;

    AccountDays(SessionCalendar calendar) {
        this.calendar = calendar;
    }

    /** When the next day begins, nanoseconds. */
    long next() {
        return next;
    }

    /** A contract's first event: the first of all, inside a trading day, begins that day; else the next first open does. */
    void start(long time, SessionClock.Moments moments) {
        if (!started) {
            started = true;
            next = calendar.current(time).map(s -> calendar.sessions(s.tradingDate()).getFirst().open())
                    .orElse(TapeTime.NEVER);
            if (next < time) {
                begin(next, moments);
            }
        }
    }

    /** The day that was next begins. */
    void begin(long at, SessionClock.Moments moments) {
        var date = calendar.current(at).map(Session::tradingDate);
        next = date.flatMap(calendar::dayAfter).map(Session::open).orElse(TapeTime.NEVER);
        moments.accountDayBegins(at, date);
    }
}
