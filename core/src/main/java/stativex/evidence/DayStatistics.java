package stativex.evidence;

import java.math.BigInteger;
import java.util.OptionalDouble;

/**
 * Statistics of day results. Sums are exact whole numbers, rounded once at the end. Sources: SEMANTICS, "Searches and evidence";
 * Bailey, López de Prado, "The deflated Sharpe ratio", 2014 (central moments ÷ T).
 */
public final class DayStatistics {
    /** Trading days of a year, where a yearly figure is shown. */
    public static final int YEAR = 252;

    private final int days;
    /** Days² × second, days³ × third, days⁴ × fourth central moment. */
    private final BigInteger second;
    private final BigInteger third;
    private final BigInteger fourth;
    private final BigInteger sum;

    private DayStatistics(long[] results) {
        days = results.length;
        BigInteger s = BigInteger.ZERO;
        BigInteger q = BigInteger.ZERO;
        BigInteger c = BigInteger.ZERO;
        BigInteger f = BigInteger.ZERO;
        for (long result : results) {
            BigInteger x = BigInteger.valueOf(result);
            BigInteger squared = x.multiply(x);
            s = s.add(x);
            q = q.add(squared);
            c = c.add(squared.multiply(x));
            f = f.add(squared.multiply(squared));
        }
        BigInteger n = BigInteger.valueOf(days);
        sum = s;
        second = n.multiply(q).subtract(s.pow(2));
        third = n.pow(2).multiply(c).subtract(n.multiply(s).multiply(q).multiply(BigInteger.valueOf(3)))
                .add(s.pow(3).shiftLeft(1));
        fourth = n.pow(3).multiply(f).subtract(n.pow(2).multiply(s).multiply(c).shiftLeft(2))
                .add(n.multiply(s.pow(2)).multiply(q).multiply(BigInteger.valueOf(6)))
                .subtract(s.pow(4).multiply(BigInteger.valueOf(3)));
    }

    /** @param results by day, money, zeros included */
    public static DayStatistics of(long... results) {
        return new DayStatistics(results);
    }

    public int days() {
        return days;
    }

    /** Money; empty without a day. */
    public OptionalDouble mean() {
        return days == 0 ? OptionalDouble.empty() : OptionalDouble.of(sum.doubleValue() / days);
    }

    /** ÷ days − 1, money; empty with fewer than two days. */
    public OptionalDouble deviation() {
        return days < 2
                ? OptionalDouble.empty()
                : OptionalDouble.of(Math.sqrt(second.doubleValue() / ((double) days * (days - 1))));
    }

    /** Mean ÷ deviation, of a day; empty with fewer than two days or without deviation. */
    public OptionalDouble sharpe() {
        return days < 2 || second.signum() == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(sum.doubleValue() / Math.sqrt(second.doubleValue())
                        * Math.sqrt((days - 1.0) / days));
    }

    /** γ₃ = m₃ ÷ m₂^1.5; empty without deviation. */
    public OptionalDouble skewness() {
        return second.signum() == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(third.doubleValue() / Math.pow(second.doubleValue(), 1.5));
    }

    /** γ₄ = m₄ ÷ m₂², 3 for the normal distribution; empty without deviation. */
    public OptionalDouble kurtosis() {
        return second.signum() == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(fourth.doubleValue() / second.doubleValue() / second.doubleValue());
    }
}
