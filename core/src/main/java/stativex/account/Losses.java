package stativex.account;

import java.util.OptionalLong;

/**
 * Trades of an account that lost in a row, and the pause that follows them. Counted anew each trading day and after each pause.
 *
 * @param inARow so far
 * @param until no entry before this time, nanoseconds; {@link #NEXT_DAY}: not today any more; {@link Long#MIN_VALUE}: no pause
 */
public record Losses(int inARow, long until) {
    public static final Losses NONE = new Losses(0, Long.MIN_VALUE);
    /** Until the next trading day begins. */
    public static final long NEXT_DAY = Long.MAX_VALUE;

    Losses ended(LosingRun rule, long net, long time) {
        int now = net < 0 ? inARow + 1 : 0;
        if (now < rule.trades()) {
            return new Losses(now, until);
        }
        long pause = rule.minutes().isPresent()
                ? Math.addExact(time, rule.minutes().getAsInt() * 60_000_000_000L)
                : NEXT_DAY;
        return new Losses(0, Math.max(until, pause));
    }

    Losses dayBegins() {
        return new Losses(0, until == NEXT_DAY ? Long.MIN_VALUE : until);
    }

    OptionalLong pausedAt(long time) {
        return time < until ? OptionalLong.of(until) : OptionalLong.empty();
    }
}
