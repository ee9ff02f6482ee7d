package stativex.exit;

import java.math.BigDecimal;
import java.math.BigInteger;

/**
 * An exact number of ticks as a fraction, for what is worked out once in a trade. Not reduced; slow beside a {@code long}.
 *
 * @param below above 0
 */
record Ratio(BigInteger above, BigInteger below) {
    static final Ratio ONE = of(1);

    static Ratio of(long whole) {
        return new Ratio(BigInteger.valueOf(whole), BigInteger.ONE);
    }

    static Ratio of(long above, long below) {
        return new Ratio(BigInteger.valueOf(above), BigInteger.valueOf(below));
    }

    static Ratio of(BigDecimal number) {
        return number.scale() > 0
                ? new Ratio(number.unscaledValue(), BigInteger.TEN.pow(number.scale()))
                : new Ratio(number.toBigIntegerExact(), BigInteger.ONE);
    }

    /** Whether it is written with nothing below: most figures are whole ticks, and need no division. */
    private boolean isWhole() {
        return below.equals(BigInteger.ONE);
    }

    Ratio plus(Ratio other) {
        if (isWhole() && other.isWhole()) {
            return new Ratio(above.add(other.above), BigInteger.ONE);
        }
        return new Ratio(above.multiply(other.below).add(other.above.multiply(below)), below.multiply(other.below));
    }

    Ratio times(Ratio other) {
        return new Ratio(above.multiply(other.above), below.multiply(other.below));
    }

    Ratio over(Ratio other) {
        Ratio turned = new Ratio(above.multiply(other.below), below.multiply(other.above));
        return turned.below.signum() < 0 ? new Ratio(turned.above.negate(), turned.below.negate()) : turned;
    }

    Ratio negated() {
        return new Ratio(above.negate(), below);
    }

    Ratio magnitude() {
        return above.signum() < 0 ? negated() : this;
    }

    boolean isBelow(Ratio other) {
        return above.multiply(other.below).compareTo(other.above.multiply(below)) < 0;
    }

    /** Whole ticks at or below it. @throws ArithmeticException when they are too many to count */
    long floor() {
        if (isWhole()) {
            return above.longValueExact();
        }
        BigInteger[] parts = above.divideAndRemainder(below);
        return (parts[1].signum() < 0 ? parts[0].subtract(BigInteger.ONE) : parts[0]).longValueExact();
    }

    /** Whole ticks at or above it. */
    long ceil() {
        if (isWhole()) {
            return above.longValueExact();
        }
        return Math.negateExact(negated().floor());
    }
}
