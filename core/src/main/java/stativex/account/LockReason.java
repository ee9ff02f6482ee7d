package stativex.account;

/** Why an account takes no entries until the next trading day, or, for a floor, until the person starts a new state of it. */
public enum LockReason {
    DAY_LOSS, DAY_PROFIT, DRAWDOWN_FLOOR,
    /** The person locked the day. */
    BY_HAND
}
