package stativex.market;

import java.math.BigInteger;

/**
 * Sums over contracts of their number, of their prices' distances from an anchor and of the squares of those, in whole numbers:
 * exact however many there are. The squares are kept in two halves. Caveats: numbers of contracts and distances beyond a
 * {@code long} throw.
 */
public final class WeightedSums {
    private long anchor;
    private long contracts;
    private long distances;
    private long high;
    private long low;

    /** Nothing yet, counted from 0. */
    public WeightedSums() {}

    /** Begins anew with distances counted from {@code price}, ticks. */
    public void begin(long price) {
        set(price, 0, 0, 0, 0);
    }

    /** Goes on from sums as they stood; squares in two halves. */
    public void set(long fromAnchor, long ofContracts, long ofDistances, long highHalf, long lowHalf) {
        anchor = fromAnchor;
        contracts = ofContracts;
        distances = ofDistances;
        high = highHalf;
        low = lowHalf;
    }

    /** Adds contracts at a price in ticks. */
    public void add(long price, long many) {
        long away = Math.subtractExact(price, anchor);
        long weighted = Math.multiplyExact(away, many);
        contracts = Math.addExact(contracts, many);
        distances = Math.addExact(distances, weighted);
        addSquares(Math.multiplyHigh(away, weighted), away * weighted);
    }

    /** Adds sums that were worked apart; squares at least 0. */
    void add(long many, long ofDistances, long squares) {
        contracts = Math.addExact(contracts, many);
        distances = Math.addExact(distances, ofDistances);
        addSquares(0, squares);
    }

    private void addSquares(long highHalf, long lowHalf) {
        low += lowHalf;
        high += highHalf + (Long.compareUnsigned(low, lowHalf) < 0 ? 1 : 0);
    }

    /** The price that distances are counted from, ticks. */
    public long anchor() {
        return anchor;
    }

    public long contracts() {
        return contracts;
    }

    /** Σ contracts · distance. */
    public long distances() {
        return distances;
    }

    /** The higher 64 bits of Σ contracts · distance². */
    public long squaresHigh() {
        return high;
    }

    /** The lower 64 bits of it. */
    public long squaresLow() {
        return low;
    }

    /** Σ price · contracts ÷ Σ contracts, ticks; NaN without contracts. */
    public double mean() {
        long shifted = anchor;
        long over = Math.multiplyHigh(shifted, contracts);
        long under = shifted * contracts;
        if (over == under >> 63 && ((under ^ under + distances) & (distances ^ under + distances)) >= 0) {
            return ratio(under + distances);
        }
        BigInteger sum = BigInteger.valueOf(anchor).multiply(BigInteger.valueOf(contracts))
                .add(BigInteger.valueOf(distances));
        return contracts == 0 ? Double.NaN : sum.doubleValue() / contracts;
    }

    /** √max(0, Σ size·d² ÷ Σ size − (Σ size·d ÷ Σ size)²), ticks; NaN without contracts. */
    public double deviation() {
        double squares = high == 0 && low >= 0
                ? low
                : BigInteger.valueOf(high).shiftLeft(64).add(new BigInteger(Long.toUnsignedString(low))).doubleValue();
        double away = ratio(distances);
        return contracts == 0 ? Double.NaN : Math.sqrt(Math.max(0, squares / contracts - away * away));
    }

    private double ratio(long sum) {
        return contracts == 0 ? Double.NaN : (double) sum / contracts;
    }

    /** Takes away what had been summed from the same anchor before, and counts from another price. */
    public void sinceFrom(long contractsBefore, long distancesBefore, long highBefore, long lowBefore, long price) {
        contracts -= contractsBefore;
        distances -= distancesBefore;
        high -= highBefore + (Long.compareUnsigned(low, lowBefore) < 0 ? 1 : 0);
        low -= lowBefore;
        long moved = Math.subtractExact(price, anchor);
        // Σ size (d − m)² = Σ size d² + m (m Σ size − 2 Σ size d)
        long factor = Math.subtractExact(Math.multiplyExact(moved, contracts), Math.multiplyExact(2, distances));
        addSquares(Math.multiplyHigh(moved, factor), moved * factor);
        distances = Math.subtractExact(distances, Math.multiplyExact(moved, contracts));
        anchor = price;
    }
}
