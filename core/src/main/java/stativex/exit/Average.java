package stativex.exit;

import java.math.BigInteger;
import stativex.market.Side;

/**
 * An exact average price: {@code sum / quantity} ticks. Cost of what is open ÷ quantity open; a partial exit does not
 * change it.
 *
 * @param sum ticks times contracts
 * @param quantity at least 1
 */
public record Average(long sum, long quantity) {
    public Average {
        if (quantity < 1) {
            throw new IllegalArgumentException("an average needs a quantity, found " + quantity);
        }
        long divisor = BigInteger.valueOf(sum).gcd(BigInteger.valueOf(quantity)).longValueExact();
        sum /= divisor;
        quantity /= divisor;
    }

    /** The average after {@code added} contracts at {@code price} join {@code open} contracts at this one. */
    public Average with(long open, long added, long price) {
        long cost = Math.addExact(Math.multiplyExact(sum, open),
                Math.multiplyExact(Math.multiplyExact(price, added), quantity));
        return new Average(cost, Math.multiplyExact(quantity, Math.addExact(open, added)));
    }

    /** Whole ticks at or below {@code this + ticks}. */
    public long floor(long ticks) {
        return Math.addExact(Math.floorDiv(sum, quantity), ticks);
    }

    /** Whole ticks at or above {@code this + ticks}. */
    public long ceil(long ticks) {
        return Math.addExact(-Math.floorDiv(-sum, quantity), ticks);
    }

    /** Grid price of a distance in favour of the average (below 0 against), rounded away from the market for a stop. */
    public long away(Side side, long ticks) {
        return side == Side.LONG ? floor(ticks) : ceil(-ticks);
    }

    /**
     * Grid price against the average that loses at most {@code money} for one contract.
     *
     * @param tickValue money that a tick is worth
     */
    public long within(Side side, long money, long tickValue) {
        long scale = Math.multiplyExact(quantity, tickValue);
        long cost = Math.multiplyExact(sum, tickValue);
        long room = Math.multiplyExact(money, quantity);
        return side == Side.LONG
                ? -Math.floorDiv(Math.subtractExact(room, cost), scale)
                : Math.floorDiv(Math.addExact(cost, room), scale);
    }

    public double asDouble() {
        return (double) sum / quantity;
    }
}
