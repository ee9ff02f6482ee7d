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
import stativex.market.Money;
import stativex.market.Side;
import stativex.trial.Given;

public class StopPathTest {
    private static ExitPlan plan(long stop, Optional<ExitPlan.Breakeven> breakeven, ExitPlan.TrailStep... trail) {
        return new ExitPlan("plan", "1", Optional.of(new ExitPlan.Stop.Ticks(stop)), List.of(), breakeven,
                List.of(trail));
    }

    private static StopPath path(ExitPlan plan, Side side, long entry) {
        return new StopPath(plan, side, Given.contract(0), new Average(entry, 1));
    }

    @Test
    public void theTrailOfTheTrade() {
        // common practice, no source: stop 30, activate at 5, distance 20: at +5 the stop jumps from −30 to −15
        StopPath path = path(plan(30, Optional.empty(), new ExitPlan.TrailStep(5, 20, 1)), Side.LONG, 1000);
        assertEquals(path.levelTicks(), 970);
        path.print(1004);
        assertEquals(path.levelTicks(), 970);
        path.print(1005);
        assertEquals(path.levelTicks(), 985);
        path.print(1006);
        assertEquals(path.levelTicks(), 986);
        path.print(990);
        assertEquals(path.levelTicks(), 986, "it never comes back");
        // by whole steps of 5: at +9 still −15, at +10 −10
        StopPath steps = path(plan(30, Optional.empty(), new ExitPlan.TrailStep(5, 20, 5)), Side.SHORT, 1000);
        steps.print(991);
        assertEquals(steps.levelTicks(), 1015);
        steps.print(990);
        assertEquals(steps.levelTicks(), 1010);
        assertEquals(steps.origin(), StopOrigin.TRAIL);
    }

    @Test
    public void aWiderStepWaitsUntilItCatchesUp() {
        StopPath path = path(plan(30, Optional.empty(), new ExitPlan.TrailStep(10, 5, 1),
                new ExitPlan.TrailStep(20, 18, 1)), Side.LONG, 0);
        path.print(19);
        assertEquals(path.levelTicks(), 14);
        path.print(25);
        assertEquals(path.levelTicks(), 14, "25 − 18 would be looser");
        path.print(33);
        assertEquals(path.levelTicks(), 15);
    }

    @Test
    public void breakevenSetsOnceAndStays() {
        StopPath path = path(plan(16, Optional.of(new ExitPlan.Breakeven(12, 1))), Side.SHORT, 5000);
        path.print(4989);
        assertEquals(path.levelTicks(), 5016);
        path.print(4988);
        assertEquals(path.levelTicks(), 4999);
        assertEquals(path.origin(), StopOrigin.BREAKEVEN);
        path.print(5100);
        assertEquals(path.levelTicks(), 4999);
    }

    @Test
    public void anOffGridAverageRoundsAwayFromTheMarket() {
        ExitPlan plan = plan(10, Optional.empty());
        StopPath buyer = new StopPath(plan, Side.LONG, Given.contract(0), new Average(2001, 2)); // 1000.5
        assertEquals(buyer.levelTicks(), 990);
        assertEquals(buyer.target(10), 1011);
        StopPath seller = new StopPath(plan, Side.SHORT, Given.contract(0), new Average(2001, 2));
        assertEquals(seller.levelTicks(), 1011);
        assertEquals(seller.target(10), 990);
        StopPath below = new StopPath(plan, Side.LONG, Given.contract(0), new Average(-2001, 2));
        assertEquals(below.levelTicks(), -1011);
    }

    @Test
    public void moneyIsNeverFurtherThanAsked() {
        var contract = Given.contract("0.01", "10.00", 0);
        assertEquals(new ExitPlan.Stop.PerContract(Money.parse("105")).distance(contract), 10);
        assertThrows(IllegalArgumentException.class,
                () -> new ExitPlan.Stop.PerContract(Money.parse("9.99")).distance(contract));
    }

    @Test
    public void impossiblePlansAreRefused() {
        assertThrows(IllegalArgumentException.class, () -> new ExitPlan.Breakeven(5, 5));
        assertThrows(IllegalArgumentException.class, () -> new ExitPlan.TrailStep(1, 0, 1));
        assertThrows(IllegalArgumentException.class, () -> plan(5, Optional.empty(), new ExitPlan.TrailStep(3, 1, 1),
                new ExitPlan.TrailStep(3, 2, 1)));
        assertThrows(IllegalArgumentException.class, () -> plan(0, Optional.empty()).stop().orElseThrow()
                .distance(Given.contract(0)));
        assertThrows(IllegalArgumentException.class, () -> Given.plan(5, new ExitPlan.Target(1, Optional.empty()),
                new ExitPlan.Target(1, Optional.empty())));
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
            Optional<ExitPlan.Breakeven> breakeven = Optional.empty();
            if (dice.nextBoolean()) {
                long after = dice.nextInt(1, 20);
                breakeven = Optional.of(new ExitPlan.Breakeven(after, after - dice.nextInt(1, 9)));
            }
            List<ExitPlan.TrailStep> trail = new ArrayList<>();
            for (int i = dice.nextInt(4), a = 0; i > 0; i--) {
                a += dice.nextInt(i == 3 ? 0 : 1, 9);
                trail.add(new ExitPlan.TrailStep(a, dice.nextInt(1, 30), dice.nextInt(1, 7)));
            }
            ExitPlan plan = plan(stop, breakeven, trail.toArray(ExitPlan.TrailStep[]::new));
            long sum = dice.nextInt(-3000, 3000);
            int quantity = dice.nextInt(1, 8);
            StopPath path = new StopPath(plan, side, Given.contract(0), new Average(sum, quantity));
            BigDecimal average = BigDecimal.valueOf(sum).divide(BigDecimal.valueOf(quantity), 30,
                    RoundingMode.HALF_EVEN);
            BigDecimal best = BigDecimal.ZERO;
            BigDecimal tightest = BigDecimal.valueOf(-stop);
            long before = path.levelTicks();
            long price = Math.floorDiv(sum, quantity);
            for (int print = 0; print < 200; print++) {
                price += dice.nextInt(-3, 4);
                path.print(price);
                BigDecimal favour = BigDecimal.valueOf(price).subtract(average)
                        .multiply(BigDecimal.valueOf(side.sign()));
                best = best.max(favour.setScale(20, RoundingMode.HALF_EVEN));
                if (breakeven.isPresent()
                        && best.compareTo(BigDecimal.valueOf(breakeven.get().after())) >= 0) {
                    tightest = tightest.max(BigDecimal.valueOf(breakeven.get().offset()));
                }
                ExitPlan.TrailStep active = null;
                for (ExitPlan.TrailStep t : trail) {
                    if (BigDecimal.valueOf(t.activate()).compareTo(best) <= 0
                            && (active == null || t.activate() > active.activate())) {
                        active = t;
                    }
                }
                if (active != null) {
                    BigDecimal steps = best.subtract(BigDecimal.valueOf(active.activate()))
                            .divide(BigDecimal.valueOf(active.step()), 0, RoundingMode.FLOOR);
                    tightest = tightest.max(steps.multiply(BigDecimal.valueOf(active.step()))
                            .add(BigDecimal.valueOf(active.activate() - active.distance())));
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
