package stativex.account;

/**
 * One rule that an account is held to: a line of equity. Each rule is one class; {@link AccountWatch} asks them in their order. All
 * figures are money.
 */
interface Judge {
    LineKind kind();

    /** How far the line lies from where the day or the peak stood. */
    long allowance();

    /**
     * Equity at which it is reached: at or below for a loss line, at or above for a profit line.
     *
     * @param peak highest equity so far
     * @param dayStart equity at the trading day's first instant
     * @param closing what closing everything would cost, slippage and fees; 0 for the line itself, without its guard
     */
    long reachedAt(long peak, long dayStart, long closing);

    /** Whether the line moves with the peak. */
    default boolean trails() {
        return false;
    }

    /** Whether {@code equity} has reached it. */
    default boolean reached(long equity, long peak, long dayStart, long closing) {
        long at = reachedAt(peak, dayStart, closing);
        return kind().below() ? equity <= at : equity >= at;
    }

    /** The line as it stands. */
    default Line line(long peak, long dayStart) {
        return new Line(kind(), reachedAt(peak, dayStart, 0), allowance());
    }
}
