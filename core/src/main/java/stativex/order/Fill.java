package stativex.order;

/**
 * One fill.
 *
 * @param print the print it was made on; for an assumed fill the last one before
 * @param price ticks
 * @param fee money, at least 0
 * @param slippage ticks against us by the contract's setting
 * @param gap further ticks against us (in favour when negative), by quote and print, from the stop's price or the last
 *        print when a market order was sent
 */
public record Fill(long time, int print, int owner, int order, Order.Role role, boolean buy, int quantity, long price,
        long fee, String reason, long slippage, long gap) {}
