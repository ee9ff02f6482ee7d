package stativex.order;

/**
 * How the simulated exchange treats orders.
 *
 * @param latency nanoseconds from sending to acceptance, 0 or more; changes and cancellations take as long
 * @param assumedAhead contracts ahead of a limit that joins the queue where the tape does not say, 0 or more; only for
 *     {@link Realism#QUEUE}
 * @param mode what is walked
 */
public record Terms(Realism realism, long latency, long assumedAhead, TrialMode mode) {
    /** Through, without latency, print by print: the default of a trial. */
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

    /** Terms of tick mode. */
    public Terms(Realism realism, long latency, long assumedAhead) {
        this(realism, latency, assumedAhead, TrialMode.TICK);
    }

    /** The same in another mode. */
    public Terms in(TrialMode other) {
        return new Terms(realism, latency, assumedAhead, other);
    }

    /** Whether resting limits fill as that realism says: bars say nothing of a queue, and it counts as through. */
    boolean fillsAs(Realism asked) {
        boolean taken = mode == TrialMode.BAR && realism == Realism.QUEUE;
        return (taken ? Realism.THROUGH : realism) == asked;
    }

    /** Terms without a queue, or with none ahead in it. */
    public Terms(Realism realism, long latency) {
        this(realism, latency, 0);
    }
}
