package stativex.order;

/** Why a position is left at the market. */
public enum LeaveReason {
    /** A computed stop was reached before it could be sent. */
    STOP_AT_MARKET,
    /** A session window ends. */
    WINDOW_END,
    /** The account's own day loss, likewise its day profit. */
    DAY_LOSS, DAY_PROFIT,
    /** The account's drawdown floor. */
    DRAWDOWN_FLOOR,
    /** The person. */
    BY_HAND,
    /** A flatten that no print followed before its session's end. */
    ASSUMED_AT_SESSION_END,
    /** The end of the range of days that is looked at. */
    RANGE_END,
    /** The tape's end. */
    OPEN_AT_END
}
