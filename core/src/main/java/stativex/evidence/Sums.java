package stativex.evidence;

import java.math.BigInteger;

/** Count, sum and sum of squares of whole numbers, exact at any size. */
final class Sums {
    private long count;
    private long sum;
    /** The sum of squares in two words. */
    private long high;
    private long low;

    /** Nothing added yet. */
    Sums() {}

    void clear() {
        count = 0;
        sum = 0;
        high = 0;
        low = 0;
    }

    void add(long value) {
        count++;
        sum = Math.addExact(sum, value);
        plus(Math.multiplyHigh(value, value), value * value);
    }

    private void plus(long upper, long lower) {
        long before = low;
        low += lower;
        high = Math.addExact(high, upper + (Long.compareUnsigned(low, before) < 0 ? 1 : 0));
    }

    long count() {
        return count;
    }

    long sum() {
        return sum;
    }

    BigInteger squares() {
        return BigInteger.valueOf(high).shiftLeft(64).add(new BigInteger(Long.toUnsignedString(low)));
    }

    /** count × sum of squares − sum²: 0 exactly where all numbers are alike. */
    BigInteger spread() {
        return squares().multiply(BigInteger.valueOf(count)).subtract(BigInteger.valueOf(sum).pow(2));
    }

    /** Mean ÷ deviation (÷ count − 1); NaN with fewer than two numbers or without deviation. */
    double sharpe() {
        BigInteger spread = count < 2 ? BigInteger.ZERO : spread();
        return spread.signum() == 0
                ? Double.NaN
                : sum / Math.sqrt(spread.doubleValue()) * Math.sqrt((count - 1.0) / count);
    }
}
