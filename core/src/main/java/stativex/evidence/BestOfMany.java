package stativex.evidence;

import java.util.OptionalDouble;

/**
 * What the best of many tries is worth. Source: SEMANTICS, "Searches and evidence"; Bailey, López de Prado, "The deflated Sharpe ratio",
 * Journal of Portfolio Management 40 (2014).
 */
public final class BestOfMany {
    /** Euler's constant. */
    private static final double GAMMA = 0.57721566490153286061;

    private BestOfMany() {}

    /**
     * The Sharpe ratio of a day that the best of n worthless attempts is expected to have; 0 for one attempt.
     *
     * @param ratios of the attempts that have one over the whole fit range with enough trades
     * @param attempts distinct variants ever evaluated, 1 or more
     * @return empty with several attempts of which fewer than two have a ratio
     */
    public static OptionalDouble atRandom(double[] ratios, long attempts) {
        if (attempts == 1) {
            return OptionalDouble.of(0);
        }
        return ratios.length < 2 ? OptionalDouble.empty() : OptionalDouble.of(expected(variance(ratios), attempts));
    }

    /** The same of a variance. */
    static double expected(double variance, long attempts) {
        return Math.sqrt(variance) * ((1 - GAMMA) * Normal.inverse(1 - 1.0 / attempts)
                + GAMMA * Normal.inverse(1 - 1 / (attempts * Math.E)));
    }

    /**
     * The density of what the best of n worthless attempts shows, drawn as the largest of n normal numbers whose deviation makes
     * {@code atRandom} expected: n φ(x) Φ(x)ⁿ⁻¹ with x = ratio ÷ deviation.
     *
     * @param atRandom see {@link #atRandom}, above 0
     * @param attempts 2 or more
     */
    public static double density(double atRandom, long attempts, double ratio) {
        double deviation = atRandom / expected(1, attempts);
        double x = ratio / deviation;
        return attempts * Normal.density(x) * Math.pow(Normal.distribution(x), attempts - 1) / deviation;
    }

    private static double variance(double[] ratios) {
        double sum = 0;
        for (double ratio : ratios) {
            sum += ratio;
        }
        double mean = sum / ratios.length;
        double squares = 0;
        for (double ratio : ratios) {
            squares += (ratio - mean) * (ratio - mean);
        }
        return squares / (ratios.length - 1);
    }

    /**
     * The deflated Sharpe ratio: how likely it is that a ratio is above what the best of so many attempts would show by luck alone.
     *
     * @param atRandom see {@link #atRandom}
     * @return from 0 to 1; empty without a Sharpe ratio, or where the root is not positive
     */
    public static OptionalDouble deflated(DayStatistics days, double atRandom) {
        return days.sharpe().isEmpty()
                ? OptionalDouble.empty()
                : deflated(days.sharpe().getAsDouble(), days.days(), days.skewness().orElseThrow(),
                        days.kurtosis().orElseThrow(), atRandom);
    }

    static OptionalDouble deflated(double ratio, int days, double skewness, double kurtosis, double atRandom) {
        double root = 1 - skewness * ratio + (kurtosis - 1) / 4 * ratio * ratio;
        return root > 0
                ? OptionalDouble
                        .of(Normal.distribution((ratio - atRandom) * Math.sqrt(days - 1.0) / Math.sqrt(root)))
                : OptionalDouble.empty();
    }
}
