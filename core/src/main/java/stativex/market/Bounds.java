package stativex.market;

/**
 * How far a tape is quiet for whoever was asked: the prints before {@link #print()} whose prices lie strictly between
 * {@link #down()} and {@link #up()}. Each who is asked draws them nearer; the tightest win.
 */
public final class Bounds {
    private int print;
    private long down;
    private long up;

    /** No bound at all. */
    public Bounds() {
        clear(Integer.MAX_VALUE);
    }

    /** Begins anew: quiet up to a print, at every price. */
    public void clear(int beforePrint) {
        print = beforePrint;
        down = Long.MIN_VALUE;
        up = Long.MAX_VALUE;
    }

    /** A print that must be worked, and all after it. */
    public void print(int index) {
        print = Math.min(print, index);
    }

    /** A price at or above which a print must be worked, ticks. */
    public void up(long price) {
        up = Math.min(up, price);
    }

    /** A price at or below which a print must be worked, ticks. */
    public void down(long price) {
        down = Math.max(down, price);
    }

    /** Whether there is no price strictly between the two. */
    public boolean noPrice() {
        return up <= down || up == down + 1;
    }

    public int print() {
        return print;
    }

    public long down() {
        return down;
    }

    public long up() {
        return up;
    }
}
