package stativex.interlock;

/** Periods in which signals are counted. */
public enum SignalPeriod {
    SESSION("session"), DAY("trading day"),
    /** Monday's to Sunday's trading dates. */
    WEEK("trading week"),
    /** Anew at each window's own beginning. */
    WINDOW("window");

    private final String word;

    SignalPeriod(String word) {
        this.word = word;
    }

    /** The word in documents. */
    public String word() {
        return word;
    }
}
