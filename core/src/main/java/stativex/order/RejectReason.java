package stativex.order;

/** Why an exchange refuses an order. */
public enum RejectReason {
    /** It was to be good for the day, and accepted after the day's last session had closed. */
    AFTER_THE_DAYS_CLOSE,
    /** The limit of a stop-limit would not let it fill where its stop is reached. */
    LIMIT_TIGHTER_THAN_ITS_STOP,
    /** The broker says so, for reasons of its own. */
    BY_THE_BROKER
}
