package stativex.order;

/**
 * How the simulated exchange treats orders.
 *
 * @param latency nanoseconds from sending to acceptance, 0 or more; changes and cancellations take as long
 * @param assumedAhead contracts ahead of a limit that joins the queue where the tape does not say, 0 or more; only for
 *     {@link Realism#QUEUE}
 */
public record Terms(Realism realism, long latency, long assumedAhead) {
    /** Through, without latency: the default of a trial. */
    public static final Terms DEFAULT = new Terms(Realism.THROUGH, 0);

    public Terms {
        if (latency < 0) {
            throw new IllegalArgumentException("expected a latency of 0 or more, found " + latency);
        }
        if (assumedAhead < 0) {
            throw new IllegalArgumentException("expected 0 or more contracts ahead, found " + assumedAhead);
        }
        if (assumedAhead > 0 && realism != Realism.QUEUE) {
            throw new IllegalArgumentException("contracts ahead are assumed with queue realism only, found "
                    + realism.word());
        }
    }

    /** Terms without a queue, or with none ahead in it. */
    public Terms(Realism realism, long latency) {
        this(realism, latency, 0);
    }
}
