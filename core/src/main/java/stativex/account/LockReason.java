package stativex.account;

import stativex.order.LeaveReason;

/** Why an account takes no entries until the next trading day, or, once it is broken, until the person starts a new state of it. */
public enum LockReason {
    DAY_LOSS(LeaveReason.DAY_LOSS), DAY_PROFIT(LeaveReason.DAY_PROFIT), GIVE_BACK(
            LeaveReason.GIVE_BACK), DRAWDOWN_FLOOR(LeaveReason.DRAWDOWN_FLOOR),
    /** The person locked the day. */
    BY_HAND(LeaveReason.BY_HAND);

    private final LeaveReason leave;

    LockReason(LeaveReason leave) {
        this.leave = leave;
    }

    /** Why positions leave for it. */
    public LeaveReason leave() {
        return leave;
    }
}
