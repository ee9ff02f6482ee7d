package stativex.search;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.Test;

/** Spaces, scores, neighbours and methods against plain twins written from SEMANTICS. */
public class RankingTest {
    private static Space.Range numbers(String name, int count) {
        return new Space.Range(name, IntStream.range(0, count).mapToObj(Integer::toString).toList(), true);
    }

    private static Tried tried(int trades, long net) {
        return new Tried(trades, net, OptionalDouble.of(1.5), 100, OptionalDouble.empty(), new long[]{net}, true);
    }

    @Test
    public void variantsAreCountedWithTheLastRangeFastest() {
        Space space = new Space(List.of(numbers("stop", 3), new Space.Range("filter", List.of("none", "trend"), false),
                numbers("target", 4)));
        assertEquals(space.count(), 24);
        assertEquals(space.words(space.places(0)), "stop=0; filter=none; target=0");
        assertEquals(space.words(space.places(1)), "stop=0; filter=none; target=1");
        assertEquals(space.words(space.places(23)), "stop=2; filter=trend; target=3");
        for (long n = 0; n < 24; n++) {
            assertEquals(space.number(space.places(n)), n);
        }
        expectThrows(IllegalArgumentException.class, () -> new Space(List.of()));
        List<Space.Range> many = Collections.nCopies(5, numbers("x", 10_000));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> new Space(many)).getMessage()
                .startsWith("more variants than can be counted"));
    }

    @Test
    public void scoresAreAbsentNoneOrNumbers() {
        Tried none = new Tried(40, 5, OptionalDouble.empty(), 0, OptionalDouble.empty(), new long[]{5}, true);
        assertEquals(Score.PROFIT_FACTOR.of(none, 30), Score.NONE);
        assertEquals(Score.NET_OVER_DRAWDOWN.of(none, 30), Score.NONE);
        assertEquals(Score.NET.of(none, 41), Score.ABSENT);
        assertEquals(Score.EXPECTANCY_R.of(none, 30), Score.ABSENT);
        assertEquals(Score.NET_PER_TRADE.of(none, 30), 5 / 40.0 / 10_000);
        Tried idle = new Tried(0, 0, OptionalDouble.empty(), 0, OptionalDouble.empty(), new long[]{0}, true);
        assertEquals(Score.NET_PER_TRADE.of(idle, 0), Score.ABSENT);
        assertEquals(Score.PROFIT_FACTOR.of(idle, 0), Score.ABSENT);
        assertEquals(Score.NET_OVER_DRAWDOWN.of(idle, 0), Score.ABSENT);
        assertEquals(Score.NET.of(idle, 0), 0.0);
    }

    // ------------------------------------------------------------------ the twin

    private static boolean near(Space space, int[] a, int[] b) {
        for (int i = 0; i < a.length; i++) {
            if (Math.abs(a[i] - b[i]) > (space.ranges().get(i).numeric() ? 1 : 0)) {
                return false;
            }
        }
        return true;
    }

    private static double twin(Space space, Map<Long, Double> scores, long grid) {
        if (!scores.containsKey(grid) || scores.get(grid) == Double.NEGATIVE_INFINITY) {
            return Double.NEGATIVE_INFINITY;
        }
        int exist = 0;
        List<Double> around = new ArrayList<>();
        for (long other = 0; other < space.count(); other++) {
            if (near(space, space.places(grid), space.places(other))) {
                exist += other == grid ? 0 : 1;
                if (scores.containsKey(other)) {
                    around.add(scores.get(other));
                }
            }
        }
        if (2 * (around.size() - 1) < exist) {
            return Double.NEGATIVE_INFINITY;
        }
        Collections.sort(around);
        return around.get((around.size() + 1) / 2 - 1);
    }

    @Test
    public void theNeighboursScoreIsThatOfAPlainTwin() {
        SplittableRandom dice = new SplittableRandom(12);
        for (int round = 0; round < 200; round++) {
            List<Space.Range> ranges = new ArrayList<>();
            for (int i = dice.nextInt(1, 4); i > 0; i--) {
                ranges.add(new Space.Range("r" + i,
                        IntStream.range(0, dice.nextInt(1, 6)).mapToObj(Integer::toString).toList(),
                        dice.nextInt(3) > 0));
            }
            Space space = new Space(ranges);
            List<Ranking.Entry> entries = new ArrayList<>();
            Map<Long, Double> scores = new HashMap<>();
            for (long grid = 0; grid < space.count(); grid++) {
                if (dice.nextInt(4) > 0) {
                    Tried tried = tried(dice.nextInt(25, 40), dice.nextInt(-3, 4) * 10_000L);
                    entries.add(new Ranking.Entry(entries.size() + 1, grid, tried));
                    scores.put(grid, tried.trades() < 30 ? Double.NEGATIVE_INFINITY : tried.net() / 10_000.0);
                }
            }
            Ranking ranking = new Ranking(space, Score.NET, 30, entries);
            for (long grid = 0; grid < space.count(); grid++) {
                assertEquals(ranking.neighbours(grid), twin(space, scores, grid), "round " + round);
            }
            List<Ranking.Ranked> ranked = ranking.ranked(entries.size());
            for (int i = 1; i < ranked.size(); i++) {
                Ranking.Ranked a = ranked.get(i - 1);
                Ranking.Ranked b = ranked.get(i);
                boolean inOrder = a.neighbours() > b.neighbours() || a.neighbours() == b.neighbours()
                        && (a.entry().tried().trades() > b.entry().tried().trades()
                                || a.entry().tried().trades() == b.entry().tried().trades()
                                        && a.entry().number() < b.entry().number());
                assertTrue(inOrder, a + " before " + b);
            }
            List<Long> missing = ranking.missing(Method.BEST);
            assertEquals(missing.stream().distinct().count(), missing.size());
            assertTrue(missing.stream().noneMatch(scores::containsKey));
        }
    }

    @Test
    public void randomVariantsAreDrawnOnceEach() {
        Space space = new Space(List.of(numbers("a", 7), numbers("b", 9)));
        List<Long> drawn = Method.first(new Method.Random(63, 4), space).boxed().toList();
        assertEquals(drawn.stream().sorted().collect(Collectors.toList()),
                IntStream.range(0, 63).mapToObj(n -> (long) n).toList());
        assertEquals(Method.first(new Method.Random(10, 4), space).boxed().toList(), drawn.subList(0, 10),
                "the same seed");
        expectThrows(IllegalArgumentException.class, () -> Method.first(new Method.Random(64, 4), space));
    }

    @Test
    public void halvingBeginsWithTwentyDaysOrMore() {
        assertEquals(Method.rounds(57), 0, "a third would be 19 days");
        assertEquals(Method.rounds(58), 1, "a third is 20, rounded up");
        assertEquals(Method.rounds(180), 2);
        assertEquals(Method.days(180, 2), 20);
        assertEquals(Method.least(30, 20, 180), 4);
        assertEquals(Method.least(30, 180, 180), 30);
    }
}
