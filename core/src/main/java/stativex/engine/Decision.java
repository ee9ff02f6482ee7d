package stativex.engine;

import java.util.Optional;
import stativex.market.Side;

/**
 * What was decided about a signal, or a lock.
 *
 * @param print the last print that had arrived
 * @param bar the signal bar; −1 for a lock
 * @param strategy its index; −1 for a lock of the account
 * @param side empty when locked
 * @param reason empty when taken
 * @param detail a sentence for the person: which line, which window
 * @param price ticks: the order's as sent, else the last print's
 */
public record Decision(long time, int print, int bar, int strategy, Optional<Side> side, Kind kind, String reason,
        String detail, long price) {

    public enum Kind {
        TAKEN("taken"), DECLINED("declined"), WOULD_BE("would-be"), REJECTED("rejected"), LOCKED("locked");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }
}
