package stativex.order;

/** Why an exchange refuses an order. */
public enum RejectReason {
    /** It was to be good for the day, and accepted after the day's last session had closed. */
    AFTER_THE_DAYS_CLOSE
}
