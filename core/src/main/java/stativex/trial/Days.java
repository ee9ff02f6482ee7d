package stativex.trial;

import java.time.LocalDate;
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

    /** The first moment: the first day's first open; empty without a first day, or when that has no session. */
    public Optional<Long> begin(SessionCalendar calendar) {
        return first.map(calendar::sessions).filter(sessions -> !sessions.isEmpty())
                .map(sessions -> sessions.getFirst().open());
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
