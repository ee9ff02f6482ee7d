package stativex.order;

import java.util.function.ToLongFunction;
import stativex.market.BarSteps;
import stativex.market.Side;
import stativex.market.Tape;

/**
 * What the exchange assumes inside bars that are walked tick by tick, and how often it had to: nobody knows in which order a bar's
 * prices came, nor how many contracts traded at each. Source: SEMANTICS, "Bar mode".
 */
public final class InsideBars {
    private final BarSteps steps;
    private final ToLongFunction<Bracket> stops;
    private int bar = -1;
    private int stopBar = -1;
    private int stopsCounted;
    private int limitFills;

    /** @param stops where the stop of a trade stands, ticks, as it is held at the broker or here; {@link Tape#NONE} without one */
    public InsideBars(BarSteps steps, ToLongFunction<Bracket> stops) {
        this.steps = steps;
        this.stops = stops;
    }

    /** A step is worked. Whether it is the first one of its bar that is: limits may take the bar's volume once. */
    boolean begins(int step) {
        int now = steps.bar(step);
        boolean begins = now != bar;
        bar = now;
        return begins;
    }

    /** Whether a target may not fill on a step, since the rest of the bar comes to its trade's stop as it stands: counted. */
    boolean stopCounts(Bracket bracket, int step) {
        long stop = stops.applyAsLong(bracket);
        boolean counts = stop != Tape.NONE && steps.comesTo(step, stop, bracket.side() == Side.LONG);
        if (counts && stopBar != bar) {
            stopBar = bar;
            stopsCounted++;
        }
        return counts;
    }

    void limitFilled() {
        limitFills++;
    }

    /** Bars in which a stop counted although a target would have filled before it. */
    public int stopsCounted() {
        return stopsCounted;
    }

    /** Fills of limit orders. */
    public int limitFills() {
        return limitFills;
    }
}
