package stativex.order;

/** When a resting limit order fills in a simulation. */
public enum Realism {
    /** Only when a print goes beyond the limit; all our limits together take at most the print's size. */
    THROUGH,
    /** Also at the limit, once the contracts ahead of it have traded; together at most the print's size. */
    QUEUE,
    /** At the first print at the limit: the optimistic end. */
    TOUCH;

    public String word() {
        return name().toLowerCase(java.util.Locale.ROOT);
    }
}
