package stativex.interlock;

/** The interlocks, in the order in which they are asked. */
public enum InterlockKind {
    STRATEGY, FEED, SESSION, DAY_LOCK, ACCOUNT, WINDOW, FLAT_BY, LAST_TRADING_DAY, QUIET_TIME, COOL_DOWN, SPREAD, TRADES, SIGNALS, POSITION, SIZE, WARM_UP, RISK_CAP, LINE_CHECK
}
