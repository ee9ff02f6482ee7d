package stativex.engine;

import java.util.List;
import java.util.Optional;
import stativex.market.Side;

/**
 * One trade of one strategy, flat to flat; while it is open the exit figures are those so far.
 *
 * @param number of the trade within its strategy and trading day, from 1
 * @param quantity contracts entered
 * @param entrySum entry prices times contracts, ticks
 * @param exitSum exit prices times contracts left so far, ticks
 * @param left contracts left so far
 * @param mae ticks against the average, rounded up
 * @param mfe ticks in favour, rounded down
 * @param bars bars since entry
 * @param initialStop ticks; empty without a stop
 * @param slippage money lost to the slippage setting
 * @param gaps money lost to quotes and gaps
 * @param stops where the stop stood
 */
public record Trade(int number, int strategy, Side side, long entryTime, long exitTime, int entryPrint, int exitPrint,
        int quantity, long entrySum, long exitSum, int left, long gross, long fees, long mae, long mfe, int bars,
        String exitReason, Optional<Long> initialStop, long slippage, long gaps, List<StopPoint> stops) {

    /** The stop stands at {@code level} ticks from print {@code print} on, set by {@code origin}. */
    public record StopPoint(int print, long level, String origin) {}

    public long net() {
        return gross - fees;
    }
}
