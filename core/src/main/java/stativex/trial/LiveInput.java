package stativex.trial;

import java.util.List;
import java.util.Optional;
import stativex.engine.Command;
import stativex.interlock.OutOfStep;
import stativex.market.Aggressor;
import stativex.order.FromBroker;

/** Everything that a live day takes in: with the same inputs it comes to the same state, the same orders and the same names of them. */
public sealed interface LiveInput {
    /**
     * A trade at the venue. A time before what was worked already is taken as the time of that: it never goes back.
     *
     * @param time nanoseconds; {@code price} ticks; {@code size} contracts
     * @param bid best bid just before it in ticks, or {@link stativex.market.Tape#NONE}; likewise the others
     * @param aggressor where the venue states it
     * @param told what the broker told of this very print: only where the venue keeps step with us
     */
    record Print(long time, long price, long size, long bid, long ask, long bidSize, long askSize,
            Optional<Aggressor> aggressor, List<FromBroker> told) implements LiveInput {
        public Print {
            told = List.copyOf(told);
        }
    }

    /** The clock has come to a time without a print. @param told what the broker told of this very moment, likewise */
    record Heartbeat(long time, List<FromBroker> told) implements LiveInput {
        public Heartbeat {
            told = List.copyOf(told);
        }
    }

    /** What the broker told, at the moment at which it was received. */
    record Told(long time, List<FromBroker> told) implements LiveInput {
        public Told {
            told = List.copyOf(told);
        }
    }

    /**
     * The link is there again, and the broker has said which orders it has: what it was asked for and has not answered is asked anew, as it
     * is wanted now.
     */
    record Again(long time) implements LiveInput {}

    /**
     * Feed and broker have come into step, or fallen out of it.
     *
     * @param why they are not; empty: they are
     * @param cancels entries that rest, because it lasted 5 s or longer
     */
    record Linked(Optional<OutOfStep> why, boolean cancels) implements LiveInput {}

    /** What the broker holds, once that is sure and differs from what is counted, or does no more. @param contracts below 0 when short */
    record Holds(long contracts) implements LiveInput {}

    /** Prints were missed between the last one and this time: sessions that it touches lack some. */
    record Gap(long time) implements LiveInput {}

    /** What the person asked. */
    record Asked(Command command) implements LiveInput {}
}
