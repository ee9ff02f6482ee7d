package stativex.link;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.market.Aggressor;
import stativex.order.FromBroker;

/**
 * What comes from a venue, checked and in its own types, in the order in which it came. Where the venue keeps step with us, a print or a
 * moment says how many reports belong before it.
 */
public sealed interface VenueEvent {
    /**
     * A trade.
     *
     * @param time nanoseconds; {@code price} ticks; {@code size} contracts
     * @param bid best bid just before it in ticks, or {@link stativex.market.Tape#NONE}; likewise the others
     */
    record Print(long time, long price, long size, long bid, long ask, long bidSize, long askSize,
            Optional<Aggressor> aggressor) {}

    /**
     * When a message was sent.
     *
     * @param wall by the clock of the venue's computer, nanoseconds since 1970 UTC
     * @param venue the time at the venue, which is another where it plays a tape, likewise
     * @param speed seconds at the venue that pass in one second
     */
    record Sent(long wall, long venue, double speed) {}

    /**
     * Trades of one message.
     *
     * @param reportsBefore in step: reports that were sent before it; empty: nobody keeps step
     * @param number of the first of them in the day, from 1, where the venue counts them
     */
    record Prints(List<Print> prints, OptionalInt reportsBefore, Sent sent, OptionalInt number) implements VenueEvent {
        public Prints {
            prints = List.copyOf(prints);
        }
    }

    /** A session of the venue opens or closes. @param reportsBefore likewise */
    record Moment(long time, OptionalInt reportsBefore) implements VenueEvent {}

    /** The venue has nothing more to tell. @param reportsBefore likewise */
    record Over(OptionalInt reportsBefore) implements VenueEvent {}

    /**
     * What became of orders.
     *
     * @param time as the venue states it, nanoseconds
     * @param number of the report in the day, from 1, where the venue counts them: each is taken once
     */
    record Reported(FromBroker report, long time, OptionalInt number) implements VenueEvent {}

    /** Whether the broker knows an order, as it was asked. @param status how it stands, where it says so */
    record Asked(String order, boolean known, Optional<FromBroker.Status> status) implements VenueEvent {}

    /**
     * One of all orders that the broker has, as it was asked.
     *
     * @param told how one of ours stands, or that somebody else's is there; empty where there is none at all
     * @param last no other follows
     */
    record Listed(Optional<FromBroker> told, boolean last) implements VenueEvent {}

    /** A sign of life that says nothing else. @param wall when it was sent, as in {@link Sent} */
    record Alive(long wall) implements VenueEvent {}

    /** How many contracts the broker says are held, below 0 when short. */
    record Held(long net) implements VenueEvent {}

    /** Which sides are logged on. */
    record Connected(boolean data, boolean orders) implements VenueEvent {}

    /** Something that makes no sense, in one sentence; it was left out. */
    record Refused(String problem) implements VenueEvent {}
}
