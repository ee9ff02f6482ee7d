package stativex.account;

import java.util.OptionalInt;

/**
 * So many trades of the account in a row that lost: no entry for a while.
 *
 * @param trades at least 1
 * @param minutes from the last exit; empty: until the next trading day
 */
public record LosingRun(int trades, OptionalInt minutes) {
    public LosingRun {
        if (trades < 1 || minutes.isPresent() && minutes.getAsInt() < 1) {
            throw new IllegalArgumentException("expected 1 losing trade or more, and a pause of 1 minute or more");
        }
    }

    LosingRun tightenedBy(LosingRun next) {
        return new LosingRun(Math.min(trades, next.trades), minutes.isEmpty() || next.minutes.isEmpty()
                ? OptionalInt.empty()
                : OptionalInt.of(Math.max(minutes.getAsInt(), next.minutes.getAsInt())));
    }
}
