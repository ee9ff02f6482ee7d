package stativex.link;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.interlock.OutOfStep;

/**
 * How a live day stands with its venue.
 *
 * @param data whether the side of the market data is logged on, {@code orders} that of the orders
 * @param apart why they are not in step with us; empty: they are
 * @param alarms that stand, the most urgent first
 * @param clockAhead nanoseconds that our clock is ahead of the venue's stamps, or that its last message took
 * @param silence nanoseconds at the venue since the last print
 * @param time at the venue by now, nanoseconds; empty before the first print
 * @param held contracts that the broker said last are held, below 0 when short
 * @param difference contracts that it holds beyond what we count, once that is sure
 * @param inDoubt names of orders of which nobody knows whether the broker has them
 * @param confirmed whether nobody has to compare balance and floor with what the firm shows, or somebody has today
 * @param foreign orders that the broker has and nobody here sent, in its words
 * @param late prints so far that were stamped before what had been worked, {@code repeated} that came twice and were dropped
 */
public record LiveStanding(boolean data, boolean orders, Optional<OutOfStep> apart, List<Alarm> alarms,
        long clockAhead, long silence, OptionalLong time, OptionalLong held, OptionalLong difference,
        List<String> inDoubt, boolean confirmed, List<String> foreign, int late, int repeated) {
    public LiveStanding {
        alarms = List.copyOf(alarms);
        inDoubt = List.copyOf(inDoubt);
        foreign = List.copyOf(foreign);
    }

    /** Both sides are logged on. */
    public boolean linked() {
        return data && orders;
    }
}
