package stativex.order;

/** Why a position is left at the market. */
public enum LeaveReason {
    /** A computed stop was reached before it could be sent. */
    STOP_AT_MARKET,
    /** A stop that was held here was reached. */
    LOCAL_STOP,
    /** The plan: some bars are over, a bar closed in profit, a rule holds, the other side's rule fired, a time of day. */
    AFTER_BARS, FIRST_CLOSE_IN_PROFIT, RULE, OPPOSITE_SIGNAL, CLOCK_TIME,
    /** A session window ends. */
    WINDOW_END,
    /** The rulebook wants everything flat by a time; a quiet time around a release begins. */
    FLAT_BY, QUIET_TIME,
    /** Another contract month comes into force. */
    ROLL,
    /** The account's own day loss, likewise its day profit. */
    DAY_LOSS, DAY_PROFIT,
    /** Those of a contract, of a strategy, of a window of hours. */
    CONTRACT_DAY_LOSS, CONTRACT_DAY_PROFIT, STRATEGY_DAY_LOSS, STRATEGY_DAY_PROFIT, WINDOW_DAY_LOSS, WINDOW_DAY_PROFIT,
    /** The day's result fell too far from its best. */
    GIVE_BACK,
    /** The broker says that it is not there any more, or never was. */
    BROKERS_CORRECTION,
    /** The broker has no stop for it, and takes none. */
    STOP_MISSING,
    /** The account's drawdown floor. */
    DRAWDOWN_FLOOR,
    /** The person. */
    BY_HAND,
    /** The position went to another owner; nothing was traded. */
    HANDED_OVER,
    /** A flatten that no print followed before its session's end. */
    ASSUMED_AT_SESSION_END,
    /** The end of the range of days that is looked at. */
    RANGE_END,
    /** The tape's end. */
    OPEN_AT_END
}
