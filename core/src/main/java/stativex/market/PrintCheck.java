package stativex.market;

import java.util.Optional;

/** What a print must be to follow the one before it, and who took the initiative. Not safe for several threads. */
final class PrintCheck {
    private long lastTime = Long.MIN_VALUE;
    private long lastPrice = Tape.NONE;
    private long lastDifferent = Tape.NONE;

    /** Time of the last print; {@link Long#MIN_VALUE} before the first. */
    long lastTime() {
        return lastTime;
    }

    /**
     * Takes the next print, if it may follow.
     *
     * @param base the price that others of its block are counted from
     * @param given the aggressor the source states; empty works it out
     * @return its size with the aggressor above it, as a block keeps it
     * @throws IllegalArgumentException when time goes back, the size is below 1, or a value is out of range; nothing is taken then
     */
    int take(long nanos, long ticks, long contracts, long bid, long ask, long base, Optional<Aggressor> given) {
        if (nanos < lastTime) {
            throw new IllegalArgumentException("expected a time not before the print above it ("
                    + TapeTime.instant(lastTime) + "), found " + TapeTime.instant(nanos));
        }
        if (!TapeTime.inRange(nanos)) {
            throw new IllegalArgumentException("expected a time of the years " + TapeTime.FIRST_YEAR + " to "
                    + TapeTime.LAST_YEAR + ", found " + TapeTime.instant(nanos));
        }
        if (contracts < 1 || contracts > TapeBlock.SIZE_MASK) {
            throw new IllegalArgumentException("expected a size of 1 to " + TapeBlock.SIZE_MASK
                    + " contracts, found " + contracts);
        }
        near(ticks, base, "a price");
        near(bid, ticks, "a bid");
        near(ask, ticks, "an ask");
        if (lastPrice != Tape.NONE && ticks != lastPrice) {
            lastDifferent = lastPrice;
        }
        Aggressor who = given.isPresent() ? given.get() : Aggressor.workOut(ticks, bid, ask, lastDifferent);
        lastTime = nanos;
        lastPrice = ticks;
        return (int) contracts | who.ordinal() << TapeBlock.SIZE_BITS;
    }

    private static void near(long value, long other, String what) {
        if (value != Tape.NONE) {
            long distance = value - other;
            boolean left = ((value ^ other) & (value ^ distance)) < 0;
            if (left || distance <= Integer.MIN_VALUE || distance > Integer.MAX_VALUE) {
                throw new IllegalArgumentException("expected " + what
                        + " within two thousand million ticks of the prints beside it, found " + value + " ticks");
            }
        }
    }
}
