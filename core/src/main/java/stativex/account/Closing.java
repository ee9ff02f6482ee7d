package stativex.account;

/**
 * What closing everything that is open would cost.
 *
 * @param money slippage and fees; 0 with nothing open
 * @param perTick money that a tick against all of it costs
 */
public record Closing(long money, long perTick) {
    /** Nothing is open. */
    public static final Closing NOTHING = new Closing(0, 0);

    boolean nothing() {
        return perTick == 0;
    }
}
