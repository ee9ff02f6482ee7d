package stativex.order;

import stativex.market.Tape;

/** Where orders go: the simulated exchange, or a broker's link. What becomes of them it tells in {@link Report}s. */
public interface Venue {
    void take(Request request);

    /**
     * Whether what an exchange ends as its own doing has ended as soon as the fill that led to it is told, as the simulated one's has.
     * Else the venue says so itself, and until then it may be filled.
     */
    boolean endsAtOnce();

    /** Nothing of a bracket is alive at the venue any more: what is sent next of it begins there anew, and guards what it is for. */
    default void afresh(Bracket bracket) {
        // one that shares its orders with us has nothing to forget
    }

    /** Price of the last print that orders have met, ticks; {@link Tape#NONE} before the first. */
    long lastPrice();
}
