package stativex.order;

import java.util.List;
import java.util.Optional;
import stativex.market.Bounds;

/**
 * Whoever carries orders out, as the engine meets it: the simulated exchange, or a broker. A print is begun by {@link #print}, and then
 * {@link #next} is asked for reports until there is none; each is to be applied before the next one is asked for.
 */
public interface Counterpart extends Venue {
    /** Begins to work a print that lies in a session. */
    void print(int index);

    /** The next report; empty when there is none. */
    Optional<Report> next();

    /** A trading day's last session has closed: what is good for the day ends. */
    void closeDay(long close);

    /** A new month comes into force. @param before price of its own last print before, ticks */
    void rollsTo(long before);

    /** An order is to end: its bars are over. */
    void expire(Order order);

    /** No print followed a flatten before its session's end at {@code close}. */
    void assume(Bracket bracket, long close);

    /** The inputs end: what is open counts as closed at the last price. */
    void closeAtEnd(Order leave, long now);

    /** An order was carried out elsewhere, all of it. @param price ticks; {@code now} nanoseconds */
    void book(Order order, long price, long now);

    /** Every order that is alive, in order of acceptance. */
    List<Order> working();

    /** Draws bounds to the prints before which, and the prices between which, no order has anything to do. */
    void bound(Bounds bounds);

    /** Takes prints that no order had anything to do with; the last of them is {@code index}. */
    void quiet(int index);

    /** What is assumed inside bars; empty where none is walked. */
    Optional<InsideBars> insideBars();

    /** Market and triggered stop orders that were larger than the print they met, where that is known. */
    int largerThanPrint();
}
