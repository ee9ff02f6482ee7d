package stativex.engine;

import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.Side;
import stativex.market.TapeTime;
import stativex.rule.Program;
import stativex.rule.Truth;

/**
 * What a strategy sees of its market as far as its run has come: bars, studies and rules. Either bars are made and rules judged as
 * prints come ({@link LiveSignals}), or both are known for the whole tape and only read so far ({@link KnownSignals}); values are
 * equal bit for bit.
 */
abstract sealed class Signals permits LiveSignals, KnownSignals {
    final Program program;
    final Map<Side, SideRules> sides = new EnumMap<>(Side.class);
    final Map<Side, PlanRules> plans = new EnumMap<>(Side.class);

    Signals(Program program, Strategy strategy) {
        this.program = program;
        for (Side side : Side.values()) {
            strategy.side(side).ifPresent(rule -> sides.put(side,
                    new SideRules(program, side, rule, strategy.signals(), strategy.entry(side).priced())));
            plans.put(side, new PlanRules(program, side, strategy.plan().terms(side)));
        }
    }

    /** The bars; of those the first {@link #closed()} have closed. */
    abstract BarSeries series();

    abstract int closed();

    /** The first print of a bar, as the run has them; likewise {@link #last}. */
    int first(int bar) {
        return series().first(bar);
    }

    int last(int bar) {
        return series().last(bar);
    }

    /** Bars that were judged already. */
    abstract int judged();

    /**
     * Stands where others of the same strategy stand, who saw earlier months at other prices: everything up to a print and a moment is
     * taken and judged, and nothing of it leads to anything.
     */
    abstract void standAs(Signals before, int print, long time);

    /** Judges what has closed and was judged by others; facts of the position are as they were told. */
    final void judgeAs(Signals before) {
        while (judged() < before.judged()) {
            program.tellAs(before.program, judged());
            judgeNext();
        }
    }

    /** The next closed bar is judged: its row can be read from now on. */
    abstract void judgeNext();

    /** A print of the session arrives: what it closes is closed. */
    abstract void print(int print);

    /** Tape time has reached {@code time} without a print: what ends at or before it is closed. */
    abstract void heartbeat(long time);

    /**
     * When a bar that matters next closes by the clock inside the session; {@link TapeTime#NEVER} if none does.
     *
     * @param expiry the bar with whose close an entry ends; {@link Integer#MAX_VALUE} without one
     */
    abstract long nextClock(int expiry);

    /** The first print at or after the moment that {@link #nextClock} names; there is one such moment. */
    abstract int printAtNextClock(int expiry);

    /** Takes the bars that the clock has closed up to {@code time} before one that matters; tells of them. */
    abstract void catchUp(long time, int expiry, ClosedBars told);

    /**
     * The bar that holds the print just taken, bar 0 of a trade that it opens: of several bars the last; a renko print
     * lies in the bricks it closes, only if it closes none in the forming one.
     */
    abstract int barHolding(int print);

    /** Whether the bar that formed when the session closed is given up: the series begins anew. */
    abstract boolean givesUpForming();

    /**
     * The bar that is forming, for the screen.
     *
     * @param lastPrint the last one that has arrived; {@code now} is tape time
     */
    abstract Optional<BarSeries.Forming> forming(int lastPrint, long now);

    /** Lets rules see the bar that forms, behind the judged ones. Returns whether there is one. */
    abstract boolean judgeForming(long time);

    /**
     * The print with which a bar next closes that may lead to anything: a signal, or an expiry.
     *
     * @param expiry the bar with whose close an entry ends; {@link Integer#MAX_VALUE} without one
     */
    abstract int nextPrintThatMatters(int expiry);

    /**
     * Takes prints up to {@code last}, that one included, during which no bar closes that matters; tells of those that close.
     *
     * @param time of the last print
     */
    abstract void quiet(int last, long time, ClosedBars told);

    /** Told of every bar that closes. */
    interface ClosedBars {
        /**
         * @param time its closing moment, nanoseconds
         * @param price the last one then, ticks
         */
        void closed(long time, long price);
    }

    boolean fires(Side side, int row) {
        return sides.get(side).whole().at(row) == Truth.TRUE;
    }
}
