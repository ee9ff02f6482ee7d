package stativex.order;

/**
 * How the simulated exchange treats orders.
 *
 * @param latency nanoseconds from sending to acceptance, 0 or more; changes and cancellations take as long
 */
public record Terms(Realism realism, long latency) {
    /** Through, without latency: the default of a trial. */
    public static final Terms DEFAULT = new Terms(Realism.THROUGH, 0);

    public Terms {
        if (latency < 0) {
            throw new IllegalArgumentException("expected a latency of 0 or more, found " + latency);
        }
    }
}
