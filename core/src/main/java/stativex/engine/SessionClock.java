package stativex.engine;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import stativex.interlock.Lacking;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * What happens by the clock of the tape: sessions open and end, trading days begin, windows ask for something. Moments up
 * to a time are told in order; at equal instants in the order session end, the account's day, the contract's day, bars, windows, flat
 * by and quiet times, a roll, leaves by the clock, entries that turn to the market, session open.
 */
final class SessionClock {
    /** Told of every moment. */
    interface Moments {
        void sessionOpens(Session session);

        void sessionEnds(Session ended);

        /** The account's trading day begins. @param date empty when its calendar has ended */
        void accountDayBegins(long at, Optional<LocalDate> date);

        /** @param date empty when the calendar has ended */
        void dayBegins(long at, Optional<LocalDate> date);

        /** A bar of its signal series closes by the clock. */
        void barMoment(StrategyRun run, long at);

        void windowMoment(StrategyRun run, long at);

        /** A clock says to leave. */
        void leaveMoment(StrategyRun run, long at);

        /** The account's rules ask for something. */
        void ruleMoment(long at);

        /** A roll is near: no position crosses it. */
        void rollMoment(long at);

        /** A resting entry turns to the market. */
        void turnMoment(StrategyRun run, long at);
    }

    private final Tape tape;
    private final SessionCalendar calendar;
    private final List<StrategyRun> runs;
    private final AccountDays account;
    private final RollClock rolls;
    private final RuleClock rules;
    private final Moments moments;
    private boolean started;
    private Optional<Session> session = Optional.empty();
    private boolean inSession;
    /** Whether the first print of the tape came late into its session. */
    private boolean late;
    private boolean untouched = true;
    private long nextDay = TapeTime.NEVER;
    private long next = Long.MIN_VALUE;

    /** What days the account has, which every contract's clock moves, and when months of this one change. */
    record Days(AccountDays account, RollClock rolls, RuleClock rules) {}

    SessionClock(Tape tape, SessionCalendar calendar, List<StrategyRun> runs, Days days, Moments moments) {
        this.tape = tape;
        this.calendar = calendar;
        this.runs = runs;
        this.account = days.account();
        this.rolls = days.rolls();
        this.rules = days.rules();
        this.moments = moments;
    }

    /** Tells of every moment at or before {@code time} that has not been told. */
    void advance(long time) {
        if (time < next) {
            return;
        }
        if (!started) {
            start(time);
        }
        while (next <= time) {
            long at = next;
            if (inSession && session.orElseThrow().close() == at) {
                endSession();
            }
            if (account.next() == at) {
                account.begin(at, moments);
            }
            if (nextDay == at) {
                beginDay(at);
            }
            for (int i = 0; i < runs.size(); i++) {
                if (barClock(runs.get(i)) == at) {
                    moments.barMoment(runs.get(i), at);
                }
            }
            for (int i = 0; i < runs.size(); i++) {
                if (runs.get(i).windowClock == at) {
                    moments.windowMoment(runs.get(i), at);
                }
            }
            if (rules.next() == at) {
                moments.ruleMoment(at);
            }
            if (rolls.lead() <= at) {
                moments.rollMoment(at);
            }
            for (int i = 0; i < runs.size(); i++) {
                if (runs.get(i).leaveClock == at) {
                    moments.leaveMoment(runs.get(i), at);
                }
            }
            for (int i = 0; i < runs.size(); i++) {
                if (runs.get(i).turnClock == at) {
                    moments.turnMoment(runs.get(i), at);
                }
            }
            if (!inSession && session.isPresent() && session.get().open() == at) {
                openSession();
            }
            findNext();
        }
    }

    private void start(long time) {
        started = true;
        account.start(time, moments);
        rules.start(time);
        session = calendar.current(time);
        // a first event inside a trading day begins that day; else the day begins with the next first open
        nextDay = session.map(s -> calendar.sessions(s.tradingDate()).getFirst().open()).orElse(TapeTime.NEVER);
        for (StrategyRun run : runs) {
            run.windowsFrom(time);
            run.nextLeaveClock(time);
        }
        if (nextDay < time) {
            beginDay(nextDay);
        }
        if (session.isPresent() && session.get().open() < time) {
            openSession();
        }
        if (rolls.lead() < time) {
            rolls.begins();
        }
        findNext();
    }

    private void findNext() {
        next = Math.min(Math.min(account.next(), rules.next()), Math.min(nextDay, rolls.lead()));
        if (session.isPresent()) {
            next = Math.min(next, inSession ? session.get().close() : session.get().open());
        }
        for (int i = 0; i < runs.size(); i++) {
            next = Math.min(next, Math.min(Math.min(runs.get(i).leaveClock, runs.get(i).turnClock),
                    Math.min(runs.get(i).windowClock, barClock(runs.get(i)))));
        }
    }

    /** When a bar of a strategy's series next closes by the clock inside the session. */
    private long barClock(StrategyRun run) {
        return inSession ? run.signals.nextClock(run.expiry()) : TapeTime.NEVER;
    }

    /** A print has begun or gone on with a bar that the clock closes: its moment is looked out for. */
    void expectBar(StrategyRun run) {
        next = Math.min(next, barClock(run));
    }

    /** There is something to tell of at a time, which was not known before. */
    void expect(long time) {
        next = Math.min(next, time);
    }

    private void openSession() {
        inSession = true;
        moments.sessionOpens(session.orElseThrow());
    }

    private void endSession() {
        Session ended = session.orElseThrow();
        moments.sessionEnds(ended);
        inSession = false;
        if (!untouched) {
            late = false;
        }
        session = calendar.after(ended);
    }

    private void beginDay(long at) {
        nextDay = session.flatMap(s -> calendar.dayAfter(s.tradingDate())).map(Session::open).orElse(TapeTime.NEVER);
        rules.dayBegins(at, session.map(Session::tradingDate));
        moments.dayBegins(at, session.map(Session::tradingDate));
    }

    /** The first print of all that lies in a session tells whether that is complete. */
    void firstPrint(long time) {
        untouched = false;
        late = calendar.late(session.orElseThrow().open(), time);
    }

    /** There were prints in an earlier session: the next print is not the first one of all. */
    void goesOn() {
        untouched = false;
    }

    /** The current session, or the next one. */
    Optional<Session> session() {
        return session;
    }

    boolean inSession() {
        return inSession;
    }

    /** What the tape lacks of the current session; empty when the session is complete. */
    Optional<Lacking> lacking() {
        if (late) {
            return Optional.of(Lacking.JOINED_LATE);
        }
        return inSession && tape.incomplete(session.orElseThrow())
                ? Optional.of(Lacking.PRINTS)
                : Optional.empty();
    }

    /** Whether it waits for the first print of all, which tells something of its session. */
    boolean untouched() {
        return untouched;
    }

    /** The next moment that there is something to tell of, nanoseconds. */
    long next() {
        return next;
    }
}
