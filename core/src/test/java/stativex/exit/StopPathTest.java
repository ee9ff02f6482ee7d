package stativex.exit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Side;
import stativex.trial.Given;

public class StopPathTest {
    private static ExitPlan plan(long stop, Optional<ExitTerms.Breakeven> breakeven, ExitTerms.TrailStep... trail) {
        return new ExitPlan("plan", "1", Optional.of(new Distance.Ticks(stop)), List.of(), breakeven,
                List.of(trail));
    }

    private static StopPath path(ExitPlan plan, Side side, long entry) {
        ExitTerms terms = plan.terms(side);
        return new StopPath(terms,
                new PlanFigures(terms, side, Given.contract(0), entry, 1, 1, text -> Double.NaN), side,
                new Average(entry, 1), 1);
    }

    @Test
    public void theTrailOfTheTrade() {
        // common practice, no source: stop 30, activate at 5, distance 20: at +5 the stop jumps from −30 to −15
        StopPath path = path(plan(30, Optional.empty(), new ExitTerms.TrailStep(5, 20, 1)), Side.LONG, 1000);
        assertEquals(path.levelTicks(), 970);
        path.print(1004, false);
        assertEquals(path.levelTicks(), 970);
        path.print(1005, false);
        assertEquals(path.levelTicks(), 985);
        path.print(1006, false);
        assertEquals(path.levelTicks(), 986);
        path.print(990, false);
        assertEquals(path.levelTicks(), 986, "it never comes back");
        // by whole steps of 5: at +9 still −15, at +10 −10
        StopPath steps = path(plan(30, Optional.empty(), new ExitTerms.TrailStep(5, 20, 5)), Side.SHORT, 1000);
        steps.print(991, false);
        assertEquals(steps.levelTicks(), 1015);
        steps.print(990, false);
        assertEquals(steps.levelTicks(), 1010);
        assertEquals(steps.origin(), StopOrigin.TRAIL);
    }

    @Test
    public void aWiderStepWaitsUntilItCatchesUp() {
        StopPath path = path(plan(30, Optional.empty(), new ExitTerms.TrailStep(10, 5, 1),
                new ExitTerms.TrailStep(20, 18, 1)), Side.LONG, 0);
        path.print(19, false);
        assertEquals(path.levelTicks(), 14);
        path.print(25, false);
        assertEquals(path.levelTicks(), 14, "25 − 18 would be looser");
        path.print(33, false);
        assertEquals(path.levelTicks(), 15);
    }

    @Test
    public void breakevenSetsOnceAndStays() {
        StopPath path = path(plan(16, Optional.of(new ExitTerms.Breakeven(12, 1))), Side.SHORT, 5000);
        path.print(4989, false);
        assertEquals(path.levelTicks(), 5016);
        path.print(4988, false);
        assertEquals(path.levelTicks(), 4999);
        assertEquals(path.origin(), StopOrigin.BREAKEVEN);
        path.print(5100, false);
        assertEquals(path.levelTicks(), 4999);
    }

    private static PlanFigures figures(Distance stop, Side side, Contract contract) {
        ExitTerms terms = new ExitPlan("plan", "1", Optional.of(stop),
                List.of(new ExitTerms.Target(1, Optional.of(new Distance.Ticks(10)))), Optional.empty(), List.of())
                .terms(side);
        return new PlanFigures(terms, side, contract, 1000, 1, 1, text -> Double.NaN);
    }

    @Test
    public void anOffGridAverageRoundsAwayFromTheMarket() {
        Average half = new Average(2001, 2); // 1000.5
        PlanFigures buyer = figures(new Distance.Ticks(10), Side.LONG, Given.contract(0));
        assertEquals(buyer.stop(half, 1), 990);
        assertEquals(buyer.target(0, half, text -> Double.NaN), 1011);
        PlanFigures seller = figures(new Distance.Ticks(10), Side.SHORT, Given.contract(0));
        assertEquals(seller.stop(half, 1), 1011);
        assertEquals(seller.target(0, half, text -> Double.NaN), 990);
        assertEquals(buyer.stop(new Average(-2001, 2), 1), -1011);
    }

    @Test
    public void moneyIsNeverFurtherThanAsked() {
        // common practice, no source: a 100 money stop at 10 a tick is 10 ticks; 105 is no more
        Contract contract = Given.contract("0.01", "10.00", 0);
        PlanFigures figures = figures(new Distance.PerContract(Money.parse("105")), Side.LONG, contract);
        assertEquals(figures.stop(new Average(9391, 1), 1), 9381);
        Contract one = Given.contract("1", "1", 0);
        Distance stop = new Distance.PerContract(Money.parse("5.40"));
        assertEquals(figures(stop, Side.LONG, one).stop(new Average(201, 2), 1), 96, "100.5 less 5.40 is 95.10");
        assertEquals(figures(stop, Side.SHORT, one).stop(new Average(201, 2), 1), 105, "105.90");
        assertEquals(figures(stop, Side.LONG, one).stop(new Average(100, 1), 1), 95, "94.60");
        assertEquals(figures(stop, Side.LONG, one).stop(new Average(-201, 2), 1), -105, "−105.90");
        assertThrows(IllegalArgumentException.class, () -> new ExitPlan("plan", "1",
                Optional.of(new Distance.PerContract(Money.parse("9.99"))), List.of(), Optional.empty(), List.of())
                .check(contract));
    }

    @Test
    public void impossiblePlansAreRefused() {
        assertThrows(IllegalArgumentException.class, () -> new ExitTerms.Breakeven(5, 5));
        assertThrows(IllegalArgumentException.class, () -> new ExitTerms.TrailStep(1, 0, 1));
        assertThrows(IllegalArgumentException.class, () -> plan(5, Optional.empty(), new ExitTerms.TrailStep(3, 1, 1),
                new ExitTerms.TrailStep(3, 2, 1)));
        assertThrows(IllegalArgumentException.class, () -> plan(0, Optional.empty()));
        assertThrows(IllegalArgumentException.class, () -> new ExitTerms.Stop(new Distance.Risks(BigDecimal.ONE),
                Optional.empty(), Optional.empty()));
        assertThrows(IllegalArgumentException.class,
                () -> new ExitPlan("plan", "1", Optional.empty(), List.of(new ExitTerms.Target(1,
                        Optional.of(new Distance.Risks(BigDecimal.TWO)))), Optional.empty(), List.of()));
        assertThrows(IllegalArgumentException.class, () -> Given.plan(5, new ExitTerms.Target(1, Optional.empty()),
                new ExitTerms.Target(1, Optional.empty())));
    }

    /**
     * The level against a plain recomputation in decimals, from SEMANTICS alone, over the whole history at every print:
     * 1 000 random tapes, averages off the grid included.
     */
    @Test
    public void agreesWithAPlainTwinOnAThousandTapes() {
        SplittableRandom dice = new SplittableRandom(5);
        int moved = 0;
        for (int round = 0; round < 1000; round++) {
            Side side = dice.nextBoolean() ? Side.LONG : Side.SHORT;
            long stop = dice.nextInt(1, 40);
            long after = dice.nextInt(1, 20);
            long offset = after - dice.nextInt(1, 9);
            Optional<ExitTerms.Breakeven> breakeven = dice.nextBoolean()
                    ? Optional.of(new ExitTerms.Breakeven(after, offset))
                    : Optional.empty();
            List<long[]> trail = new ArrayList<>();
            for (int i = dice.nextInt(4), a = 0; i > 0; i--) {
                a += dice.nextInt(i == 3 ? 0 : 1, 9);
                trail.add(new long[]{a, dice.nextInt(1, 30), dice.nextInt(1, 7)});
            }
            ExitTerms terms = plan(stop, breakeven, trail.stream().map(t -> new ExitTerms.TrailStep(t[0], t[1], t[2]))
                    .toArray(ExitTerms.TrailStep[]::new)).terms(side);
            long sum = dice.nextInt(-3000, 3000);
            int quantity = dice.nextInt(1, 8);
            PlanFigures figures = new PlanFigures(terms, side, Given.contract(0), sum / quantity, 1, 1,
                    text -> Double.NaN);
            StopPath path = new StopPath(terms, figures, side, new Average(sum, quantity), 1);
            BigDecimal average = BigDecimal.valueOf(sum).divide(BigDecimal.valueOf(quantity), 30,
                    RoundingMode.HALF_EVEN);
            BigDecimal best = BigDecimal.ZERO;
            BigDecimal tightest = BigDecimal.valueOf(-stop);
            long before = path.levelTicks();
            long price = Math.floorDiv(sum, quantity);
            for (int print = 0; print < 200; print++) {
                price += dice.nextInt(-3, 4);
                path.print(price, false);
                BigDecimal favour = BigDecimal.valueOf(price).subtract(average)
                        .multiply(BigDecimal.valueOf(side.sign()));
                best = best.max(favour.setScale(20, RoundingMode.HALF_EVEN));
                if (breakeven.isPresent()
                        && best.compareTo(BigDecimal.valueOf(after)) >= 0) {
                    tightest = tightest.max(BigDecimal.valueOf(offset));
                }
                long[] active = null;
                for (long[] t : trail) {
                    if (BigDecimal.valueOf(t[0]).compareTo(best) <= 0
                            && (active == null || t[0] > active[0])) {
                        active = t;
                    }
                }
                if (active != null) {
                    BigDecimal steps = best.subtract(BigDecimal.valueOf(active[0]))
                            .divide(BigDecimal.valueOf(active[2]), 0, RoundingMode.FLOOR);
                    tightest = tightest.max(steps.multiply(BigDecimal.valueOf(active[2]))
                            .add(BigDecimal.valueOf(active[0] - active[1])));
                }
                BigDecimal level = side == Side.LONG ? average.add(tightest) : average.subtract(tightest);
                long grid = level.setScale(12, RoundingMode.HALF_EVEN)
                        .setScale(0, side == Side.LONG ? RoundingMode.FLOOR : RoundingMode.CEILING).longValueExact();
                assertEquals(path.levelTicks(), grid, "round " + round + ", print " + print);
                assertEquals(side.tighter(before, grid), grid, "never loosens");
                moved += before == grid ? 0 : 1;
                before = grid;
            }
        }
        assertTrue(moved > 2000, "the stops moved " + moved + " times");
    }
}
