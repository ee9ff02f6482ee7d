package stativex.order;

/**
 * What is sent to a broker. Each message has a name of its own, made before it is sent and never used again: whoever sends it writes it
 * down first. Orders go by the name of the message that placed them. Times are those of the events that led to it, nanoseconds.
 */
public sealed interface ToBroker {
    String name();

    long time();

    /** Name of the order that it is about: of the message that placed it. */
    String order();

    /**
     * A new order.
     *
     * @param group name of the first order of its bracket, its own for the first one: entries, one stop, targets and leaves of one trade
     * @param pair group of the other half of a two-sided entry: when one fills, the other's entries end; empty: none
     */
    record Place(String name, Ticket ticket, String group, String pair, long time) implements ToBroker {
        @Override
        public String order() {
            return name;
        }
    }

    /**
     * What is placed.
     *
     * @param price limit or stop, ticks; {@link stativex.market.Tape#NONE} at the market
     * @param beyond of a stop-limit: ticks from its stop to its limit
     * @param everything a leave of all that is open when it fills
     */
    record Ticket(boolean buy, Order.Type type, int quantity, long price, int beyond, Order.GoodFor goodFor,
            Order.Role role, boolean everything) {}

    /** Another price, ticks. */
    record Reprice(String name, String order, long price, long time) implements ToBroker {}

    /** Another quantity, filled contracts included. */
    record Resize(String name, String order, int quantity, long time) implements ToBroker {}

    /** A resting order turns into one at the market. */
    record AtMarket(String name, String order, long time) implements ToBroker {}

    /** @param atOnce as the venue's own doing, which waits for nothing, where the venue knows that */
    record Cancel(String name, String order, boolean atOnce, long time) implements ToBroker {}
}
