package stativex.order;

/** What a broker tells of an order, which goes by the name of the message that placed it. */
public sealed interface FromBroker {
    String order();

    /** A message has come and is being looked at: it is not lost, and nothing of it has come about. @param request its name */
    record Received(String order, String request) implements FromBroker {}

    /** It rests there, or will meet the market. */
    record Working(String order) implements FromBroker {}

    /** It has another price, ticks. @param request that asked for it */
    record Repriced(String order, String request, long price) implements FromBroker {}

    /** It is one at the market now. @param request that asked for it */
    record Turned(String order, String request) implements FromBroker {}

    /** A stop was reached. */
    record Triggered(String order) implements FromBroker {}

    /**
     * Contracts were filled.
     *
     * @param execution its identifier, never used twice
     * @param price ticks
     * @param cumulative contracts of the order that are filled by now
     * @param done nothing of it is left to be filled
     * @param slippage ticks against us that a simulated venue adds; 0 where nobody says
     * @param time as the venue states it, nanoseconds
     */
    record Filled(String order, String execution, int quantity, long price, int cumulative, boolean done, long slippage,
            long time)
            implements
                FromBroker {}

    /** It ended without (all of) it being filled. */
    record Ended(String order) implements FromBroker {}

    /** It was never accepted. @param why in the broker's words */
    record Refused(String order, String why) implements FromBroker {}

    /**
     * What the broker says of an order that it was asked about.
     *
     * @param cumulative contracts of it that are filled
     * @param sum of their prices, ticks: the average times the contracts
     * @param over whether nothing of it may be filled any more
     */
    record Status(String order, int cumulative, long sum, boolean over) implements FromBroker {}

    /**
     * A fill is taken back, or was another one than was told.
     *
     * @param execution identifier of this correction; {@code of} that of the fill, or of the correction before
     * @param quantity contracts that were filled in truth; 0 when none were
     * @param price ticks, likewise
     * @param cumulative contracts of the order that are filled after it, {@code sum} of their prices, ticks
     * @param time as the venue states it, nanoseconds
     */
    record Corrected(String order, String execution, String of, int quantity, long price, int cumulative, long sum,
            long time)
            implements
                FromBroker {}

    /**
     * Contracts were filled on the account by an order that nobody here sent.
     *
     * @param done nothing of it is left to be filled
     */
    record Elsewhere(String order, String execution, boolean buy, int quantity, long price, boolean done, long time)
            implements
                FromBroker {}

    /**
     * The broker has an order that nobody here sent, or has it no more.
     *
     * @param words side, quantity, kind and price of it, as the broker says
     * @param listed it was told when all orders were asked for, not as a report of its own
     */
    record Foreign(String order, String words, boolean over, boolean listed) implements FromBroker {}

    /** The broker knows it. */
    record Known(String order) implements FromBroker {}

    /** The broker has said twice, some seconds apart, that it does not know it: it never had it, and never will under this name. */
    record NeverAccepted(String order) implements FromBroker {}

    /** A change or cancellation was refused; the order stands as it stood. */
    record NotChanged(String order, String request, String why) implements FromBroker {}
}
