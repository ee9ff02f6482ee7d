package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigInteger;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

/** Drawn intervals against a plain twin that walks every point, and the drawing against the laws of its blocks. */
public class IntervalsTest {
    /** A day as a list of points, and its trades. */
    private record Walked(List<Long> points, List<Long> nets) {
        TrialDay day() {
            long high = 0;
            long low = 0;
            long fall = 0;
            for (long point : points) {
                high = Math.max(high, point);
                low = Math.min(low, point);
                fall = Math.max(fall, high - point);
            }
            return new TrialDay(LocalDate.EPOCH, points.getLast(), high, low, fall, nets.size(),
                    nets.stream().mapToLong(n -> n).sum(), nets.stream().mapToLong(n -> Math.max(0, n)).sum(),
                    nets.stream().mapToLong(n -> Math.max(0, -n)).sum());
        }
    }

    private static Walked walked(SplittableRandom dice) {
        List<Long> points = new ArrayList<>(List.of(0L));
        int count = dice.nextInt(0, 30);
        for (int i = 0; i < count; i++) {
            points.add(points.getLast() + dice.nextLong(-400, 410));
        }
        List<Long> nets = new ArrayList<>();
        for (int i = dice.nextInt(0, 4); i > 0; i--) {
            nets.add(dice.nextLong(-300, 320));
        }
        return new Walked(points, nets);
    }

    // ------------------------------------------------------------------ the twin, from SEMANTICS alone

    private static List<List<Walked>> resamples(List<Walked> days, int count, int block, long seed) {
        SplitMix master = new SplitMix(seed);
        List<List<Walked>> all = new ArrayList<>();
        for (int r = 0; r < count; r++) {
            SplitMix own = new SplitMix(master.next());
            List<Walked> drawn = new ArrayList<>();
            int day = (int) Math.floor(own.unit() * days.size());
            drawn.add(days.get(day));
            while (drawn.size() < days.size()) {
                day = own.unit() < 1.0 / block ? (int) Math.floor(own.unit() * days.size()) : (day + 1) % days.size();
                drawn.add(days.get(day));
            }
            all.add(drawn);
        }
        return all;
    }

    private static Optional<Double> figure(Intervals.Figure figure, List<Walked> days) {
        List<Long> nets = days.stream().flatMap(d -> d.nets().stream()).toList();
        long sum = nets.stream().mapToLong(n -> n).sum();
        switch (figure) {
            case NET -> {
                return Optional.of((double) sum);
            }
            case AVERAGE_TRADE -> {
                return nets.isEmpty() ? Optional.empty() : Optional.of((double) sum / nets.size());
            }
            case PROFIT_FACTOR -> {
                long lost = nets.stream().filter(n -> n < 0).mapToLong(n -> -n).sum();
                return lost == 0
                        ? Optional.empty()
                        : Optional.of((double) nets.stream().filter(n -> n > 0).mapToLong(n -> n).sum() / lost);
            }
            case SHARPE_RATIO -> {
                BigInteger s = BigInteger.ZERO;
                BigInteger q = BigInteger.ZERO;
                for (Walked day : days) {
                    s = s.add(BigInteger.valueOf(day.points().getLast()));
                    q = q.add(BigInteger.valueOf(day.points().getLast()).pow(2));
                }
                int n = days.size();
                double spread = q.multiply(BigInteger.valueOf(n)).subtract(s.pow(2)).doubleValue();
                return n < 2 || spread == 0
                        ? Optional.empty()
                        : Optional.of(s.doubleValue() / n / Math.sqrt(spread / n / (n - 1)));
            }
            default -> {
                long equity = 0;
                long peak = 0;
                long deepest = 0;
                for (Walked day : days) {
                    for (long point : day.points()) {
                        peak = Math.max(peak, equity + point);
                        deepest = Math.max(deepest, peak - equity - point);
                    }
                    equity += day.points().getLast();
                }
                return Optional.of((double) deepest);
            }
        }
    }

    private static double percentile(List<Double> sorted, int p) {
        return sorted.get((p * sorted.size() + 99) / 100 - 1);
    }

    @Test
    public void aPlainTwinComesToTheSame() {
        SplittableRandom dice = new SplittableRandom(5);
        for (int round = 0; round < 60; round++) {
            List<Walked> days = new ArrayList<>();
            for (int i = dice.nextInt(1, 40); i > 0; i--) {
                days.add(walked(dice));
            }
            int block = dice.nextInt(1, 8);
            int count = dice.nextInt(1, 120);
            long seed = dice.nextLong();
            Map<Intervals.Figure, Intervals.Interval> found = Intervals.of(days.stream().map(Walked::day).toList(),
                    new Intervals.Settings(count, block, seed), Odds.Progress.NONE).orElseThrow();
            for (Intervals.Figure figure : Intervals.Figure.values()) {
                List<Double> drawn = new ArrayList<>(resamples(days, count, block, seed).stream()
                        .flatMap(r -> figure(figure, r).stream()).toList());
                Collections.sort(drawn);
                assertEquals(found.containsKey(figure), !drawn.isEmpty(), figure + " in round " + round);
                if (!drawn.isEmpty()) {
                    Intervals.Interval interval = found.get(figure);
                    double near = 1e-12 * Math.max(1, Math.abs(percentile(drawn, 95)));
                    assertEquals(interval.low(), percentile(drawn, 5), near, figure + " in round " + round);
                    assertEquals(interval.high(), percentile(drawn, 95), near, figure + " in round " + round);
                    assertEquals(interval.without(), count - drawn.size());
                }
            }
        }
    }

    /** Politis, Romano 1994: lengths of blocks are geometric with mean b, beginnings uniform, and so is every day. */
    @Test
    public void blocksAreGeometricAndDaysUniform() {
        int days = 50_000;
        double b = 5;
        DayDraws draws = new DayDraws(new SplittableRandom(9), days, b);
        int[] lengths = new int[60];
        int[] tenths = new int[10];
        int blocks = 0;
        int length = 1;
        int before = draws.next();
        int all = 400_000;
        for (int i = 1; i < all; i++) {
            int day = draws.next();
            tenths[day * 10 / days]++;
            if (day == (before + 1) % days) {
                length++;
            } else {
                lengths[Math.min(length, lengths.length - 1)]++;
                blocks++;
                length = 1;
            }
            before = day;
        }
        assertEquals((double) all / blocks, b, 0.05, "mean length");
        for (int k = 1; k < 15; k++) {
            double law = Math.pow(1 - 1 / b, k - 1) / b;
            assertEquals((double) lengths[k] / blocks, law, 4 * Math.sqrt(law / blocks), "blocks of " + k);
        }
        for (int tenth : tenths) {
            assertEquals(tenth / (double) all, 0.1, 0.006);
        }
    }

    @Test
    public void withoutDaysThereIsNothing() {
        assertTrue(Intervals.of(List.of(), Intervals.Settings.DEFAULT, Odds.Progress.NONE).isEmpty());
    }
}
