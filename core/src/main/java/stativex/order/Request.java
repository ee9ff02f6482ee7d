package stativex.order;

/** What is asked of the exchange. Each request carries the event because of which it is made. */
public sealed interface Request {
    Order order();

    Cause cause();

    /** A new order; a part of a bracket is attached by the exchange and takes no latency. */
    record New(Order order, Cause cause) implements Request {}

    /** @param price ticks; until the change is accepted the old one works */
    record Change(Order order, long price, FillReason reason, Cause cause) implements Request {}

    /** A resting order turns into one at the market. */
    record ToMarket(Order order, Cause cause) implements Request {}

    /**
     * A target has more contracts: the exchange's own doing, which the simulated one sees by itself.
     *
     * @param quantity filled contracts included
     */
    record Resize(Order order, int quantity, Cause cause) implements Request {}

    /** @param atOnce the exchange's own doing: the order counts as ended already, or its bars are over */
    record Cancel(Order order, boolean atOnce, Cause cause) implements Request {}
}
