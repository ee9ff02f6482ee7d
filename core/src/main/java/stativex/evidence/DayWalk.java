package stativex.evidence;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import stativex.account.Ledger;
import stativex.engine.DayBook;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Tape;
import stativex.order.Fill;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** Walks the equity of a finished run print by print, day by day, from its fills: no engine is asked. Money in ten-thousandths. */
public final class DayWalk {
    /** Told of every day, and of every point of it at which something is held or has just been filled. */
    public interface Points {
        void day(LocalDate date);

        /** Whether a day may begin with a position of the day before; else that is refused. */
        default boolean overnight() {
            return false;
        }

        /**
         * Told before each point, and where a day begins with a position.
         *
         * @param balance since the day's first instant
         * @param contracts that are open, of either side
         */
        default void holds(long balance, long contracts) {}

        /**
         * @param result since the day's first instant, after this print's fills
         * @param closing what closing everything would cost
         * @param perTick what a tick against everything that is open costs; 0: flat
         * @param filled something was filled on this print
         */
        void point(long time, long result, long closing, long perTick, boolean filled);
    }

    private final Inputs inputs;
    private final Points points;
    private final Ledger ledger;
    private final List<Track> tracks = new ArrayList<>();
    private long dayStart;
    private long dayBalance;

    /** What is known of one contract. */
    private static final class Track {
        final Contract contract;
        final Tape tape;
        final long fee;
        final Ledger.Holding holding;
        final List<Fill> fills = new ArrayList<>();
        int nextFill;
        int nextPrint;
        Session session;

        Track(Inputs.Traded traded, long fee, Ledger ledger) {
            contract = traded.contract();
            tape = traded.tape();
            this.fee = fee;
            holding = ledger.holding(contract.tickValue());
        }

        /** Only what is held, or about to be filled, has a next point. */
        long nextTime() {
            if (holding.open() == 0) {
                nextPrint = nextFill < fills.size() ? Math.max(nextPrint, fills.get(nextFill).print()) : tape.count();
            }
            return nextPrint < tape.count() ? tape.time(nextPrint) : Long.MAX_VALUE;
        }

        boolean inSession(long time) {
            if (session == null || time >= session.close()) {
                session = contract.calendar().current(time).orElse(null);
            }
            return session != null && session.contains(time);
        }
    }

    private DayWalk(Run run, Points points) {
        this.inputs = run.inputs();
        this.points = points;
        this.ledger = new Ledger(inputs.account().start());
        this.dayStart = inputs.account().start();
        for (Inputs.Traded traded : inputs.traded()) {
            tracks.add(new Track(traded, inputs.account().fee(traded.contract().symbol()), ledger));
        }
        for (Fill fill : run.engine().log().fills()) {
            Contract of = inputs.contract(fill.owner());
            tracks.stream().filter(t -> t.contract.symbol().equals(of.symbol())).findFirst().orElseThrow().fills
                    .add(fill);
        }
        List<String> listed = List.copyOf(inputs.account().fees().keySet());
        tracks.sort(Comparator.comparingInt(t -> listed.indexOf(t.contract.symbol())));
    }

    /**
     * Tells of every day of a run.
     *
     * @throws IllegalArgumentException when something is held overnight and {@code points} does not take that, or bars were walked
     */
    public static void walk(Run run, Points points) {
        if (run.assumed().isPresent()) {
            throw new IllegalArgumentException(
                    "expected a trial over ticks: bars do not show the equity of every print");
        }
        new DayWalk(run, points).walk(run.engine().days().days());
    }

    private void walk(List<DayBook.Day> days) {
        SessionCalendar calendar = calendar();
        for (DayBook.Day day : days) {
            long end = calendar.dayAfter(day.date()).map(Session::open).orElse(Long.MAX_VALUE);
            if (!ledger.flat() && !points.overnight()) {
                throw new IllegalArgumentException(day.date() + " begins with a position of the day before: odds and"
                        + " rulebooks over past days need days that begin flat");
            }
            dayStart = ledger.equity();
            dayBalance = ledger.balance();
            points.day(day.date());
            if (!ledger.flat()) {
                tell(calendar.sessions(day.date()).getFirst().open(), false);
            }
            toEnd(end);
            if (ledger.equity() - dayStart != day.result()) {
                throw new IllegalStateException(day.date() + ": " + Money.text(ledger.equity() - dayStart) + " here, "
                        + Money.text(day.result()) + " in the trial");
            }
        }
    }

    private SessionCalendar calendar() {
        return tracks.getFirst().contract.calendar();
    }

    private void toEnd(long end) {
        Track track = next(end);
        while (track != null) {
            step(track);
            track = next(end);
        }
    }

    private Track next(long end) {
        Track next = null;
        for (Track track : tracks) {
            if (track.nextTime() < (next == null ? end : next.nextTime())) {
                next = track;
            }
        }
        return next;
    }

    private void step(Track track) {
        int print = track.nextPrint++;
        long time = track.tape.time(print);
        if (!track.inSession(time)) {
            return;
        }
        boolean filled = book(track, print, false);
        track.holding.mark(track.tape.price(print));
        tell(time, filled);
        // what is assumed behind the last print, at the session's close or the tape's end
        if (book(track, print, true)) {
            tell(track.fills.get(track.nextFill - 1).time(), true);
        }
    }

    /** Books the fills of a print, those by it or those assumed after it. */
    private boolean book(Track track, int print, boolean assumed) {
        int before = track.nextFill;
        while (track.nextFill < track.fills.size() && track.fills.get(track.nextFill).print() == print
                && DayWalk.assumed(track, track.fills.get(track.nextFill)) == assumed) {
            Fill fill = track.fills.get(track.nextFill++);
            track.holding.fill(fill.owner(), fill.buy(), fill.quantity(), fill.price(), fill.fee());
        }
        return track.nextFill > before;
    }

    private static boolean assumed(Track track, Fill fill) {
        return fill.reason() instanceof stativex.order.FillReason.Left(stativex.order.LeaveReason why)
                && (why == stativex.order.LeaveReason.ASSUMED_AT_SESSION_END
                        || why == stativex.order.LeaveReason.OPEN_AT_END);
    }

    private void tell(long time, boolean filled) {
        long closing = 0;
        long contracts = 0;
        long perTick = 0;
        for (Track track : tracks) {
            long open = track.holding.open();
            contracts += open;
            closing += open * (track.contract.money(track.contract.slippage(), 1) + track.fee);
            perTick += open * track.contract.tickValue();
        }
        points.holds(ledger.balance() - dayBalance, contracts);
        points.point(time, ledger.equity() - dayStart, closing, perTick, filled);
    }
}
