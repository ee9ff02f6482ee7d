package stativex.market;

/** The side of a position or of a signal. */
public enum Side {
    LONG(1), SHORT(-1);

    private final int sign;

    Side(int sign) {
        this.sign = sign;
    }

    /** +1 for long, −1 for short: multiplies a price move into a move in favour. */
    public int sign() {
        return sign;
    }

    public Side opposite() {
        return this == LONG ? SHORT : LONG;
    }

    /** The word used in files and on screen: {@code long} or {@code short}. */
    public String word() {
        return this == LONG ? "long" : "short";
    }

    /** The tighter of two stop levels (ticks) for a position of this side. */
    public long tighter(long a, long b) {
        return this == LONG ? Math.max(a, b) : Math.min(a, b);
    }

    /** Whether {@code price} has reached {@code stop} (both ticks) for a position of this side. */
    public boolean reached(long stop, long price) {
        return this == LONG ? price <= stop : price >= stop;
    }
}
