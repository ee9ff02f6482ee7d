package stativex.link;

import java.util.OptionalLong;
import stativex.market.TapeTime;

/**
 * Compares what the broker says is held with what all owners hold together. A difference counts once two answers at least 2 s apart show
 * it with no fill between. Times are of a clock that only goes forward, nanoseconds. Source: SEMANTICS, "Live".
 */
final class PositionWatch {
    private static final long APART = 2 * TapeTime.SECOND;
    private static final long EVERY = 5 * TapeTime.SECOND;

    private OptionalLong next = OptionalLong.empty();
    private OptionalLong suspected = OptionalLong.empty();
    private long since;
    private OptionalLong difference = OptionalLong.empty();
    private OptionalLong held = OptionalLong.empty();

    /** The link is there: it is asked at once. */
    void begin(long now) {
        next = OptionalLong.of(now);
        suspected = OptionalLong.empty();
    }

    /** Whether it is to be asked now; it counts as asked. */
    boolean ask(long now) {
        if (next.isEmpty() || now - next.getAsLong() < 0) {
            return false;
        }
        next = OptionalLong.of(now + EVERY);
        return true;
    }

    /** Something was filled, or was booked: answers before say nothing of those that come. */
    void filled() {
        suspected = OptionalLong.empty();
    }

    /** @param broker contracts that it says are held, below 0 when short; {@code ours} likewise */
    void answer(long broker, long ours, long now) {
        held = OptionalLong.of(broker);
        long apart = broker - ours;
        if (apart == 0) {
            suspected = OptionalLong.empty();
            difference = OptionalLong.empty();
        } else if (suspected.isEmpty() || suspected.getAsLong() != apart) {
            suspected = OptionalLong.of(apart);
            since = now;
            next = OptionalLong.of(now + APART);
        } else if (now - since >= APART) {
            difference = suspected;
        } else {
            next = OptionalLong.of(since + APART);
        }
    }

    /** Contracts that the broker holds beyond what we count, below 0 when it lacks some; empty: they agree as far as anybody knows. */
    OptionalLong difference() {
        return difference;
    }

    /** What the broker said last. */
    OptionalLong held() {
        return held;
    }
}
