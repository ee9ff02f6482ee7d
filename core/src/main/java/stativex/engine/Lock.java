package stativex.engine;

import java.util.Optional;
import stativex.account.LineKind;
import stativex.order.Owner;

/**
 * A line that was reached, and what became of the day: nothing may be entered where it locks, so the result stands once everything has
 * gone. Results are of the day; of a window since its beginning. Source: SEMANTICS, "Interlocks" ("the report shows, per lock …").
 *
 * @param time nanoseconds
 * @param owner of whom it is a line; empty: of the account or a contract
 * @param market which contract's print brought it
 * @param guarded only the guard acted, before the line
 * @param at the line, money
 * @param reached the result when it locked
 * @param ended the result in the end
 */
public record Lock(long time, Optional<Owner> owner, int market, LineKind line, boolean guarded, long at, long reached,
        long ended) {
    /** By how much the result ended beyond the line, money; below 0: it was kept, so much before the line. */
    public long beyond() {
        return line.below() ? at - ended : ended - at;
    }
}
