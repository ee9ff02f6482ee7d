package stativex.engine;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import stativex.exit.StopOrigin;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.FillReason;
import stativex.order.Owner;

/**
 * One trade of one owner, flat to flat; while it is open the exit figures are those so far.
 *
 * @param number of the trade within its owner and trading day, from 1
 * @param mae ticks against the average, rounded up
 * @param mfe ticks in favour, rounded down
 * @param exitReason of the last exit fill; empty before the first
 * @param stops where the stop stood
 */
public record Trade(int number, Owner owner, Side side, Span span, Amounts amounts, long mae, long mfe,
        Optional<FillReason> exitReason, Entry entry, List<StopPoint> stops) {

    /**
     * What its first entry brought with it.
     *
     * @param initialStop ticks; empty without a stop
     * @param grade of the signal that sent the order; empty where its rule has none, and for the person's
     */
    public record Entry(Optional<Long> initialStop, Optional<String> grade) {}

    /**
     * When it was open. Times in nanoseconds, prints by index.
     *
     * @param bars since entry
     */
    public record Span(long entryTime, long exitTime, int entryPrint, int exitPrint, int bars) {}

    /**
     * What was traded and what came of it.
     *
     * @param quantity contracts entered
     * @param entrySum entry prices times contracts, ticks
     * @param exitSum exit prices times contracts left so far, ticks
     * @param left contracts left so far
     * @param slippage money lost to the slippage setting
     * @param gaps money lost to quotes and gaps
     */
    public record Amounts(int quantity, long entrySum, long exitSum, int left, long gross, long fees, long slippage,
            long gaps) {}

    /** The stop stands at {@code level} ticks from print {@code print} on, set by {@code origin}. */
    public record StopPoint(int print, long level, StopOrigin origin) {}

    /**
     * Net ÷ R: what its contracts would have lost at the initial stop, with the fees of both ways. Empty without a stop.
     *
     * @param fee money for a contract and way
     */
    public OptionalDouble inR(Contract contract, long fee) {
        if (initialStop().isEmpty()) {
            return OptionalDouble.empty();
        }
        long risk = quantity() * (contract.money(initialStop().get(), 1) + 2 * fee);
        return OptionalDouble.of((double) net() / risk);
    }

    /** Ticks from the entry to the stop that it began with; empty without a stop. */
    public Optional<Long> initialStop() {
        return entry.initialStop();
    }

    /** Of the signal that began it, if its rule has grades. */
    public Optional<String> grade() {
        return entry.grade();
    }

    public long entryTime() {
        return span.entryTime();
    }

    public long exitTime() {
        return span.exitTime();
    }

    public int entryPrint() {
        return span.entryPrint();
    }

    public int exitPrint() {
        return span.exitPrint();
    }

    /** Bars since entry. */
    public int bars() {
        return span.bars();
    }

    /** Contracts entered. */
    public int quantity() {
        return amounts.quantity();
    }

    public long entrySum() {
        return amounts.entrySum();
    }

    public long exitSum() {
        return amounts.exitSum();
    }

    /** Contracts left so far. */
    public int left() {
        return amounts.left();
    }

    public long gross() {
        return amounts.gross();
    }

    public long fees() {
        return amounts.fees();
    }

    public long slippage() {
        return amounts.slippage();
    }

    public long gaps() {
        return amounts.gaps();
    }

    public long net() {
        return gross() - fees();
    }
}
