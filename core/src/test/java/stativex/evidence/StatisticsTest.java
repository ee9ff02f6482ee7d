package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.OptionalDouble;
import java.util.SplittableRandom;
import java.util.regex.Pattern;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.stat.correlation.PearsonsCorrelation;
import org.hipparchus.stat.descriptive.moment.Kurtosis;
import org.hipparchus.stat.descriptive.moment.Skewness;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Statistics against published figures: NIST's Statistical Reference Datasets (univariate, as Hipparchus's tests carry them), Hipparchus's
 * own distribution and moments, and the worked example of Bailey and López de Prado.
 */
public class StatisticsTest {
    private static final Pattern NUMBER = Pattern.compile("\\s*-?[0-9.]+\\s*");

    @DataProvider
    public Object[][] nist() {
        return new Object[][]{{"Lew"}, {"Lottery"}, {"Mavro"}, {"Michelso"}, {"NumAcc1"}, {"NumAcc2"}, {"NumAcc3"},
                {"NumAcc4"}, {"PiDigits"}};
    }

    @Test(dataProvider = "nist")
    public void meanAndDeviationAreNistsCertifiedValues(String name) throws IOException {
        List<String> lines;
        try (InputStream in = Skewness.class.getClassLoader()
                .getResourceAsStream("org/hipparchus/stat/data/" + name + ".txt")) {
            lines = new String(in.readAllBytes(), StandardCharsets.UTF_8).lines().toList();
        }
        double mean = certified(lines, "ybar:", "mean ");
        double deviation = certified(lines, " s:", "standardDeviation ");
        // what follows the certified values; whole numbers of 0.00001, as results are whole numbers of 0.0001
        long[] values = lines.subList(lines.size() - (int) lines.reversed().stream()
                .takeWhile(line -> line.isBlank() || NUMBER.matcher(line).matches()).count(), lines.size()).stream()
                .filter(line -> !line.isBlank())
                .mapToLong(line -> new BigDecimal(line.strip()).movePointRight(5).longValueExact()).toArray();
        assertTrue(values.length > 2, values.length + " values");
        DayStatistics found = DayStatistics.of(values);
        assertEquals(found.mean().orElseThrow() / 1e5, mean, Math.abs(mean) * 1e-14);
        assertEquals(found.deviation().orElseThrow() / 1e5, deviation, deviation * 1e-14);
        assertEquals(found.sharpe().orElseThrow(), mean / deviation, Math.abs(mean / deviation) * 2e-14);
        Sums sums = new Sums();
        for (long value : values) {
            sums.add(value);
        }
        assertEquals(sums.sharpe(), found.sharpe().getAsDouble(), "two ways to the same");
    }

    private static double certified(List<String> lines, String one, String other) {
        String line = lines.stream().filter(l -> l.contains(one) || l.startsWith(other)).findFirst().orElseThrow();
        return Double.parseDouble(line.substring(Math.max(line.indexOf(':'), line.indexOf('=')) + 1).strip()
                .split("\\s+")[0]);
    }

    @Test
    public void skewnessAndKurtosisAreHipparchussWithoutTheirBiasCorrection() {
        SplittableRandom dice = new SplittableRandom(7);
        for (int round = 0; round < 200; round++) {
            int n = dice.nextInt(5, 300);
            long[] whole = new long[n];
            double[] plain = new double[n];
            for (int i = 0; i < n; i++) {
                whole[i] = (long) (Math.pow(dice.nextDouble(), 3) * 5_000_000) - 600_000;
                plain[i] = whole[i];
            }
            DayStatistics found = DayStatistics.of(whole);
            double skewness = new Skewness().evaluate(plain) * (n - 2) / Math.sqrt((double) n * (n - 1));
            double excess = (new Kurtosis().evaluate(plain) * (n - 2) * (n - 3) / (n - 1) - 6) / (n + 1);
            assertEquals(found.skewness().orElseThrow(), skewness, 1e-9);
            assertEquals(found.kurtosis().orElseThrow(), excess + 3, 1e-9);
        }
    }

    @Test
    public void whereNothingDeviatesThereIsNoRatio() {
        assertEquals(DayStatistics.of(5).sharpe(), OptionalDouble.empty());
        assertEquals(DayStatistics.of(5, 5, 5).sharpe(), OptionalDouble.empty());
        assertEquals(DayStatistics.of(5, 5).deviation(), OptionalDouble.of(0));
        assertEquals(DayStatistics.of().mean(), OptionalDouble.empty());
        long large = Long.MAX_VALUE / 3;
        assertEquals(DayStatistics.of(large, large - 1, large + 1).deviation().orElseThrow(), 1.0, 1e-12,
                "whole numbers of any length");
    }

    @Test
    public void theCorrelationOfDaysIsHipparchuss() {
        java.util.Random random = new java.util.Random(3);
        for (int i = 0; i < 50; i++) {
            int n = 2 + random.nextInt(300);
            double[] a = new double[n];
            double[] b = new double[n];
            for (int d = 0; d < n; d++) {
                a[d] = random.nextInt(2_000_000) - 1_000_000;
                b[d] = random.nextInt(2_000_000) - 1_000_000 + a[d] * (i % 5 - 2);
            }
            assertEquals(Basket.correlation(longs(a), longs(b)).getAsDouble(),
                    new PearsonsCorrelation().correlation(a, b), 1e-12);
        }
        assertTrue(Basket.correlation(java.util.List.of(5L, 5L), java.util.List.of(1L, 2L)).isEmpty());
        assertTrue(Basket.correlation(java.util.List.of(5L), java.util.List.of(1L)).isEmpty());
    }

    private static java.util.List<Long> longs(double[] values) {
        return java.util.Arrays.stream(values).mapToObj(value -> (long) value).toList();
    }

    @Test
    public void theNormalDistributionIsHipparchuss() {
        NormalDistribution outside = new NormalDistribution();
        for (double x = -9; x <= 9; x += 0.0137) {
            double expected = outside.cumulativeProbability(x);
            assertEquals(Normal.distribution(x), expected, Math.max(1e-15, expected * 1e-11), "at " + x);
        }
        for (double p = 1e-7; p < 1; p += 0.00091) {
            double expected = outside.inverseCumulativeProbability(p);
            assertEquals(Normal.inverse(p), expected, Math.max(1e-12, Math.abs(expected) * 1e-8), "at " + p);
            assertEquals(Normal.distribution(Normal.inverse(p)), p, 2e-15 + p * 1e-11);
        }
        assertEquals(Normal.distribution(1.959963984540054), 0.975, 1e-15, "the usual table");
    }

    /** Annual ratio 2.5 of 250 days, 1250 days, skewness −3, kurtosis 10, variance ½ among the trials' annual ratios. */
    @Test
    public void theDeflatedRatioIsThatOfThePublishedExample() {
        double ratio = 2.5 / Math.sqrt(250);
        double threshold = BestOfMany.expected(0.5 / 250, 100);
        assertEquals(threshold, 0.1132, 5e-5);
        assertEquals(BestOfMany.deflated(ratio, 1250, -3, 10, threshold).orElseThrow(), 0.900, 5e-4);
        assertEquals(BestOfMany.deflated(ratio, 1250, -3, 10, BestOfMany.expected(0.5 / 250, 46)).orElseThrow(), 0.951,
                5e-4);
    }

    @Test
    public void theBestOfOneIsNothingSpecial() {
        assertEquals(BestOfMany.atRandom(new double[0], 1), OptionalDouble.of(0));
        assertEquals(BestOfMany.atRandom(new double[]{0.1}, 4), OptionalDouble.empty());
        assertTrue(BestOfMany.atRandom(new double[]{0.1, -0.1}, 4).orElseThrow() > 0);
        assertEquals(BestOfMany.deflated(3, 100, 1, 1, 0), OptionalDouble.empty(), "the root is not positive");
    }

    /** The expected highest of n normal draws, drawn. */
    @Test
    public void theBestAtRandomIsAboutWhatIsDrawn() {
        SplittableRandom dice = new SplittableRandom(3);
        int n = 200;
        double sum = 0;
        for (int round = 0; round < 4000; round++) {
            double best = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < n; i++) {
                best = Math.max(best, dice.nextGaussian());
            }
            sum += best / 4000;
        }
        // the approximation of the paper is a little high: 2.766 for 200, where the mean is 2.746
        assertEquals(BestOfMany.expected(1, n), sum, 0.035);
    }

    /** The density integrates to one, has about the expected mean, and scales with it. */
    @Test
    public void theDensityOfTheBestIsOne() {
        for (int n : new int[]{2, 10, 1200}) {
            double atRandom = 0.04;
            double whole = 0;
            double mean = 0;
            double step = atRandom / 500;
            for (double x = -20 * atRandom; x < 20 * atRandom; x += step) {
                whole += BestOfMany.density(atRandom, n, x) * step;
                mean += x * BestOfMany.density(atRandom, n, x) * step;
            }
            assertEquals(whole, 1, 1e-6, n + " attempts");
            assertEquals(mean / atRandom, 1, n == 2 ? 0.1 : 0.03, n + " attempts");
            assertEquals(BestOfMany.density(2 * atRandom, n, 0.06) * 2, BestOfMany.density(atRandom, n, 0.03), 1e-9);
        }
    }
}
