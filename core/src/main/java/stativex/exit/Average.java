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

    Ratio exact() {
        return Ratio.of(sum, quantity);
    }

    public double asDouble() {
        return (double) sum / quantity;
    }
}
