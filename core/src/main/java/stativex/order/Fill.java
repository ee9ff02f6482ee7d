package stativex.order;

import stativex.market.Tape;

/**
 * One fill, as it is booked and kept.
 *
 * @param order its number
 * @param fee money, at least 0
 * @param gap further ticks against us (in favour when negative) beside slippage, by quote and print, from the stop's price or
 *        the last print when a market order was sent
 */
public record Fill(Owner owner, int order, Order.Role role, boolean buy, Report.Execution execution, long fee,
        FillReason reason, long gap) {
    /** @param feePerContract money per contract and side */
    public static Fill of(Report.Filled filled, long feePerContract) {
        Order order = filled.order();
        Report.Execution done = filled.execution();
        long reference = order.type() == Order.Type.STOP ? order.price() : order.reference();
        long gap = order.type() == Order.Type.LIMIT || reference == Tape.NONE
                ? 0
                : (order.buy() ? 1 : -1) * (done.price() - reference) - done.slippage();
        return new Fill(order.owner(), order.number(), order.role(), order.buy(), done,
                Math.multiplyExact(feePerContract, done.quantity()), filled.reason(), gap);
    }

    public long time() {
        return execution.time();
    }

    /** The print it was made on; for an assumed fill the last one before. */
    public int print() {
        return execution.print();
    }

    public int quantity() {
        return execution.quantity();
    }

    /** Ticks. */
    public long price() {
        return execution.price();
    }

    /** Ticks against us by the contract's setting. */
    public long slippage() {
        return execution.slippage();
    }
}
