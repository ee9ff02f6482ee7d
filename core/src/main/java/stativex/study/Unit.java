package stativex.study;

/** What a value means; values of unlike units cannot be compared. */
public enum Unit {
    /** A price level, in ticks. */
    LEVEL("a price"),
    /** A distance between two prices, in ticks. */
    DISTANCE("a distance in ticks"),
    /** A plain number: contracts, trades, a ratio. */
    NUMBER("a plain number"),
    /** Yes (1) or no (0): a condition by itself. */
    FLAG("a yes or no");

    private final String words;

    Unit(String words) {
        this.words = words;
    }

    /** As said in messages: {@code a price}. */
    public String words() {
        return words;
    }
}
