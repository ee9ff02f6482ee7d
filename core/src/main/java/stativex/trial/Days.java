package stativex.trial;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Tape;

/**
 * Which trading days a run evaluates. SEMANTICS, "Searches and evidence": a range is a run of its own, and no position crosses its
 * end.
 *
 * @param first first evaluated trading day; empty: as early as each strategy's history allows
 * @param last last one; empty: to the tape's end
 */
public record Days(Optional<LocalDate> first, Optional<LocalDate> last) {
    /** Everything that the tape and the history allow. */
    public static final Days ALL = new Days(Optional.empty(), Optional.empty());

    public Days {
        if (first.isPresent() && last.isPresent() && last.get().isBefore(first.get())) {
            throw new IllegalArgumentException("expected the last day not before the first, " + first.get() + "; found "
                    + last.get());
        }
    }

    /** Trading dates on which a tape has prints, in order. */
    public static List<LocalDate> dates(Tape tape, SessionCalendar calendar) {
        List<LocalDate> dates = new ArrayList<>();
        int print = 0;
        while (print < tape.count()) {
            Optional<LocalDate> date = calendar.tradingDate(tape.time(print));
            Optional<Session> next = date.flatMap(calendar::dayAfter);
            if (date.isEmpty() || next.isEmpty()) {
                date.ifPresent(dates::add);
                break;
            }
            int end = tape.firstAt(next.get().open());
            boolean inside = calendar.sessions(date.get()).stream()
                    .anyMatch(session -> tape.firstAt(session.open()) < tape.firstAt(session.close()));
            if (inside) {
                dates.add(date.get());
            }
            print = Math.max(end, print + 1);
        }
        return dates;
    }

    /** The first moment: the first day's first open; empty without a first day, or when that has no session. */
    public Optional<Long> begin(SessionCalendar calendar) {
        return first.map(calendar::sessions).filter(sessions -> !sessions.isEmpty())
                .map(sessions -> sessions.getFirst().open());
    }

    /** A tape as far as the last day goes. */
    public Tape of(Tape tape, SessionCalendar calendar) {
        int prints = prints(tape, calendar);
        return prints == tape.count() ? tape : Tape.joined(List.of(new Tape.Part(tape, 0, prints, 0)));
    }

    /** How many prints of a tape lie before the end of the last day. */
    public int prints(Tape tape, SessionCalendar calendar) {
        return end(calendar).map(tape::firstAt).orElse(tape.count());
    }

    /**
     * The moment before which the last day ends: the next trading day's first open. Empty without a last day, or when no trading
     * day follows.
     */
    Optional<Long> end(SessionCalendar calendar) {
        return last.flatMap(calendar::dayAfter).map(Session::open);
    }
}
