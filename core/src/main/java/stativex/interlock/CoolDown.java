package stativex.interlock;

import java.util.OptionalInt;

/**
 * No entry until the N-th close after the bar that holds the fill which ended the last trade, or for some minutes from that fill.
 *
 * @param onlyAfterLosses a trade that did not lose holds nothing back
 */
public record CoolDown(OptionalInt bars, OptionalInt minutes, boolean onlyAfterLosses) {
    public CoolDown {
        if (bars.isPresent() == minutes.isPresent()) {
            throw new IllegalArgumentException("expected a cool-down of bars or of minutes");
        }
        if (bars.orElse(1) < 1 || minutes.orElse(1) < 1) {
            throw new IllegalArgumentException("expected a cool-down of 1 or more");
        }
    }
}
