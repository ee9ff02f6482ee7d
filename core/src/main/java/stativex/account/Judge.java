package stativex.account;

/**
 * One rule that an account is held to: a line of equity. Each rule is one class; {@link AccountWatch} asks them in their order. All
 * figures are money.
 */
interface Judge {
    /** In place of a loss line that does not stand yet. */
    long NO_LOSS_LINE = Long.MIN_VALUE;

    /** What a line rises with, print by print. */
    enum Rises {
        NOT, WITH_THE_PEAK, WITH_THE_DAYS_BEST
    }

    LineKind kind();

    /** How far the line lies from what it hangs from. */
    long allowance();

    /** Equity at which it is reached: at or below for a loss line, at or above for a profit line. */
    long at(Heights s);

    default Guard guard() {
        return Guard.OFF;
    }

    /** Whether the account is broken when it is reached; else the day is locked. */
    default boolean breaks() {
        return false;
    }

    default Rises rises(Heights s) {
        return Rises.NOT;
    }

    /** The equity at which a line begins to stand that does not yet; {@link Long#MAX_VALUE}: it stands, or never will today. */
    default long beginsAt(Heights s) {
        return Long.MAX_VALUE;
    }

    /** Whether {@code equity} has reached it. */
    default boolean reached(long equity, Heights s) {
        long at = at(s);
        return kind().below() ? at != NO_LOSS_LINE && equity <= at : equity >= at;
    }
}
