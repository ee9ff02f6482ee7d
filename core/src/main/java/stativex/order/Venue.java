package stativex.order;

import stativex.market.Tape;

/** Where orders go: the simulated exchange, or a broker's link. What becomes of them it tells in {@link Report}s. */
public interface Venue {
    void take(Request request);

    /** Price of the last print that orders have met, ticks; {@link Tape#NONE} before the first. */
    long lastPrice();
}
