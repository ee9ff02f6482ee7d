package stativex.account;

import stativex.order.LeaveReason;

/** The lines an account is held to. */
public enum LineKind {
    /** The account's own day loss. */
    DAY_LOSS(LeaveReason.DAY_LOSS, LockReason.DAY_LOSS, true, true),
    /** The drawdown floor of its rulebook. */
    DRAWDOWN_FLOOR(LeaveReason.DRAWDOWN_FLOOR, LockReason.DRAWDOWN_FLOOR, true, false),
    /** The account's own day profit. */
    DAY_PROFIT(LeaveReason.DAY_PROFIT, LockReason.DAY_PROFIT, false, true);

    private final LeaveReason leave;
    private final LockReason lock;
    private final boolean below;
    private final boolean ofTheDay;

    LineKind(LeaveReason leave, LockReason lock, boolean below, boolean ofTheDay) {
        this.leave = leave;
        this.lock = lock;
        this.below = below;
        this.ofTheDay = ofTheDay;
    }

    /** Why positions leave when it is reached. */
    public LeaveReason leave() {
        return leave;
    }

    public LockReason lock() {
        return lock;
    }

    /** Whether it lies below equity (a loss line); else it is a profit line. */
    public boolean below() {
        return below;
    }

    /** Whether it counts from the trading day's beginning. */
    public boolean ofTheDay() {
        return ofTheDay;
    }
}
