package stativex.account;

/**
 * Acts before a line: as soon as closing everything would end at the line, or within a margin above it, everything leaves and the day
 * is locked. Source: SEMANTICS, "Interlocks".
 *
 * @param money margin, money, 0 or more
 * @param ticks margin in ticks of every contract that is open, 0 or more; added to the other
 */
public record Guard(boolean on, long money, int ticks) {
    /** Nothing acts before the line. */
    public static final Guard OFF = new Guard(false, 0, 0);
    /** Without a margin. */
    public static final Guard ON = new Guard(true, 0, 0);

    public Guard {
        if (money < 0 || ticks < 0) {
            throw new IllegalArgumentException("expected a margin of 0 or more");
        }
    }

    /** Acts wherever one of the two does. */
    Guard tightenedBy(Guard next) {
        return on && next.on
                ? new Guard(true, Math.max(money, next.money), Math.max(ticks, next.ticks))
                : on ? this : next;
    }

    /**
     * Money between the line and where the guard counts it.
     *
     * @param perTick money that a tick against everything that is open costs
     */
    public long margin(long perTick) {
        return on ? Math.addExact(money, Math.multiplyExact(perTick, ticks)) : 0;
    }
}
