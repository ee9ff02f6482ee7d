package stativex.interlock;

/** The interlocks, in the order in which they are asked. */
public enum InterlockKind {
    STRATEGY, FEED, SESSION, DAY_LOCK, ACCOUNT, WINDOW, LAST_TRADING_DAY, COOL_DOWN, SPREAD, TRADES, SIGNALS, POSITION, WARM_UP, RISK_CAP, LINE_CHECK
}
