package stativex.interlock;

/** Why an entry is declined, in the order in which interlocks are asked. */
public enum Reason {
    OFF("off"), SIDE_OFF("side off"), SESSION_INCOMPLETE("session incomplete"), SESSION_CLOSED(
            "session closed"), LOCKED(
                    "locked"), BROKEN("broken"), OUTSIDE_WINDOW("outside window"), LAST_TRADING_DAY(
                            "last trading day"), TRADES_A_DAY("trades a day"), SIGNALS_PER_PERIOD(
                                    "signals per period"), OPPOSITE_POSITION(
                                            "opposite position"), LEAVING(
                                                    "leaving"), ADDS_NOT_ALLOWED("adds not allowed"), POSITION_LIMIT(
                                                            "position limit"), WARMING_UP(
                                                                    "warming up"), LINE_CHECK("line check");

    private final String word;

    Reason(String word) {
        this.word = word;
    }

    /** The word in decision files. */
    public String word() {
        return word;
    }
}
