package stativex.evidence;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;

/**
 * How far the headline figures of a trial might lie elsewhere, by the stationary bootstrap over its trading days. Source: SEMANTICS,
 * "Searches and evidence"; Politis, Romano, "The stationary bootstrap", Journal of the American Statistical Association 89 (1994).
 */
public final class Intervals {
    private Intervals() {}

    /** What is drawn anew. Money as whole ten-thousandths; the Sharpe ratio of a day. */
    public enum Figure {
        NET, AVERAGE_TRADE, PROFIT_FACTOR, SHARPE_RATIO, DEEPEST_DRAWDOWN
    }

    /**
     * The 5th and the 95th percentile of the resamples that have the figure.
     *
     * @param without resamples that have none
     */
    public record Interval(double low, double high, int without) {}

    /**
     * How it is drawn.
     *
     * @param resamples 1 or more
     * @param meanBlock days that follow one another on average, 1 or more
     */
    public record Settings(int resamples, double meanBlock, long seed) {
        /** As SEMANTICS has them. */
        public static final Settings DEFAULT = new Settings(2000, 5, 1);

        public Settings {
            if (resamples < 1 || !(meanBlock >= 1)) {
                throw new IllegalArgumentException("expected 1 resample and blocks of 1 day or more");
            }
        }
    }

    /**
     * Draws the days of a trial; figures that no resample has are left out.
     *
     * @return empty without a day, or when it was cancelled
     */
    public static Optional<Map<Figure, Interval>> of(List<TrialDay> trial, Settings settings, Odds.Progress progress) {
        if (trial.isEmpty()) {
            return Optional.empty();
        }
        TrialDay[] days = trial.toArray(TrialDay[]::new);
        double[][] figures = new double[Figure.values().length][settings.resamples()];
        SplittableRandom master = DayDraws.master(settings.seed());
        Resample resample = new Resample();
        for (int r = 0; r < settings.resamples(); r++) {
            // one seed for every figure: each would begin from the master anew, and draw the same days
            DayDraws draws = new DayDraws(new SplittableRandom(master.nextLong()), days.length, settings.meanBlock());
            resample.begins();
            for (int d = 0; d < days.length; d++) {
                resample.day(days[draws.next()]);
            }
            for (Figure figure : Figure.values()) {
                figures[figure.ordinal()][r] = resample.figure(figure);
            }
            if (r % 64 == 0) {
                progress.done().accept((double) r / settings.resamples());
                if (progress.cancelled().getAsBoolean()) {
                    return Optional.empty();
                }
            }
        }
        Map<Figure, Interval> intervals = new EnumMap<>(Figure.class);
        for (Figure figure : Figure.values()) {
            double[] drawn = Arrays.stream(figures[figure.ordinal()]).filter(f -> !Double.isNaN(f)).toArray();
            if (drawn.length > 0) {
                intervals.put(figure, new Interval(Percentiles.of(drawn, 5), Percentiles.of(drawn, 95),
                        settings.resamples() - drawn.length));
            }
        }
        return Optional.of(intervals);
    }

    /** Days put one behind the other. */
    private static final class Resample {
        private final Sums results = new Sums();
        private long net;
        private long trades;
        private long won;
        private long lost;
        private long equity;
        private long peak;
        private long deepest;

        void begins() {
            results.clear();
            net = 0;
            trades = 0;
            won = 0;
            lost = 0;
            equity = 0;
            peak = 0;
            deepest = 0;
        }

        void day(TrialDay day) {
            results.add(day.result());
            net = Math.addExact(net, day.net());
            trades += day.trades();
            won += day.won();
            lost += day.lost();
            // a fall from a peak before the day, or from one of its own
            deepest = Math.max(deepest, Math.max(peak - equity - day.low(), day.fall()));
            peak = Math.max(peak, equity + day.high());
            equity = Math.addExact(equity, day.result());
        }

        double figure(Figure figure) {
            return switch (figure) {
                case NET -> net;
                case AVERAGE_TRADE -> trades == 0 ? Double.NaN : (double) net / trades;
                case PROFIT_FACTOR -> lost == 0 ? Double.NaN : (double) won / lost;
                case SHARPE_RATIO -> results.sharpe();
                case DEEPEST_DRAWDOWN -> deepest;
            };
        }
    }
}
