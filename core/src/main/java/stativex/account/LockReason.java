package stativex.account;

import stativex.order.LeaveReason;

/** Why an account takes no entries until the next trading day, or, once it is broken, until the person starts a new state of it. */
public enum LockReason {
    DAY_LOSS(LeaveReason.DAY_LOSS), DAY_PROFIT(LeaveReason.DAY_PROFIT), GIVE_BACK(
            LeaveReason.GIVE_BACK), DRAWDOWN_FLOOR(LeaveReason.DRAWDOWN_FLOOR),
    /** Only a contract, a strategy, or a strategy inside a window of hours. */
    CONTRACT_DAY_LOSS(LeaveReason.CONTRACT_DAY_LOSS), CONTRACT_DAY_PROFIT(
            LeaveReason.CONTRACT_DAY_PROFIT), STRATEGY_DAY_LOSS(LeaveReason.STRATEGY_DAY_LOSS), STRATEGY_DAY_PROFIT(
                    LeaveReason.STRATEGY_DAY_PROFIT), WINDOW_DAY_LOSS(
                            LeaveReason.WINDOW_DAY_LOSS), WINDOW_DAY_PROFIT(LeaveReason.WINDOW_DAY_PROFIT),
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
