package stativex.order;

import java.util.Optional;

/** What became of an order, as an exchange tells it. {@link Orders} alone changes orders, by these. */
public sealed interface Report {
    Order order();

    /** It works from now on. */
    record Accepted(Order order) implements Report {}

    /** A change was accepted. */
    record Changed(Order order, long price, FillReason reason) implements Report {}

    /** A resting order is one at the market now. */
    record Turned(Order order) implements Report {}

    /** A stop was reached; what it cannot leave at once leaves with the next prints. A stop-limit is a limit from then on. */
    record Triggered(Order order) implements Report {}

    /**
     * Contracts were filled.
     *
     * @param reason of the fill; the order's own, but for fills that are assumed
     */
    record Filled(Order order, Execution execution, FillReason reason) implements Report {}

    /**
     * The broker takes a fill of it back.
     *
     * @param instead what was filled in truth; empty: nothing
     */
    record Undone(Order order, Execution undone, Optional<Execution> instead) implements Report {}

    /** It ended without (all of) it being filled. */
    record Ended(Order order) implements Report {}

    record Rejected(Order order, RejectReason why) implements Report {}

    /**
     * Where and at what price contracts were filled.
     *
     * @param print the print it was made on; for an assumed fill the last one before
     * @param price ticks
     * @param slippage ticks against us by the contract's setting
     * @param fromStatus nobody has told of it itself: the order's status shows that it must have been
     */
    record Execution(long time, int print, int quantity, long price, long slippage, boolean fromStatus) {
        public Execution(long time, int print, int quantity, long price, long slippage) {
            this(time, print, quantity, price, slippage, false);
        }
    }
}
