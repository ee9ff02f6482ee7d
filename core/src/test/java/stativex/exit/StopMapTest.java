package stativex.exit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.Money;
import stativex.market.Side;
import stativex.trial.Given;

public class StopMapTest {
    /** Stop 24, breakeven after 20 to +1, trail from 30, 20 behind, every 5; one of two at 28, one running. */
    private static final ExitTerms TWO_STEPS = new ExitPlan("Two-step runner", "1",
            Optional.of(new Distance.Ticks(24)),
            List.of(Given.target(1, 28), new ExitTerms.Target(1, Optional.empty())),
            Optional.of(new ExitTerms.Breakeven(20, 1)), List.of(new ExitTerms.TrailStep(30, 20, 5))).longTerms();

    private static StopMap.Entry entry(Side side) {
        return new StopMap.Entry(side, Given.contract(0), 5000, 2, text -> Double.NaN);
    }

    private static StopMap map(ExitTerms terms, Side side) {
        return StopMap.of(terms, entry(side)).orElseThrow();
    }

    private static StopMap.Handle handle(StopMap map, StopMap.Kind kind) {
        return map.handles().stream().filter(h -> h.kind() == kind).findFirst().orElseThrow();
    }

    @DataProvider
    public Object[][] sides() {
        return new Object[][]{{Side.LONG}, {Side.SHORT}};
    }

    @Test(dataProvider = "sides")
    public void theStaircaseOfATwoStepRunner(Side side) {
        StopMap map = map(TWO_STEPS, side);
        assertEquals(map.steps().subList(0, 5),
                List.of(new StopMap.Step(0, -24, StopOrigin.STOP), new StopMap.Step(20, 1, StopOrigin.BREAKEVEN),
                        new StopMap.Step(30, 10, StopOrigin.TRAIL), new StopMap.Step(35, 15, StopOrigin.TRAIL),
                        new StopMap.Step(40, 20, StopOrigin.TRAIL)));
        assertEquals(map.at(19).orElseThrow(), -24);
        assertEquals(map.at(36).orElseThrow(), 15);
        assertEquals(map.handles(), List.of(new StopMap.Handle(StopMap.Kind.STOP, 0, 0, -24, false, true),
                new StopMap.Handle(StopMap.Kind.BREAKEVEN, 0, 20, 1, true, true),
                new StopMap.Handle(StopMap.Kind.TRAIL, 0, 30, 10, true, true),
                new StopMap.Handle(StopMap.Kind.TARGET, 0, 28, 28, true, false)));
        assertTrue(map.furthest() >= 55, "some steps of the trail are seen");
    }

    @Test(dataProvider = "sides")
    public void aDraggedHandleChangesItsFigures(Side side) {
        StopMap map = map(TWO_STEPS, side);
        ExitTerms stop = StopMap.dragged(TWO_STEPS, handle(map, StopMap.Kind.STOP), 3, -17, entry(side));
        assertEquals(stop.stop().orElseThrow().distance(), new Distance.Ticks(17));
        ExitTerms moved = StopMap.dragged(stop, handle(map, StopMap.Kind.BREAKEVEN), 16, 2, entry(side));
        assertEquals(moved.breakeven(), Optional.of(new ExitTerms.Breakeven(16, 2)));
        ExitTerms trail = StopMap.dragged(moved, handle(map, StopMap.Kind.TRAIL), 40, 28, entry(side));
        assertEquals(trail.trail(), List.of(new ExitTerms.TrailStep(40, 12, 5)));
        ExitTerms target = StopMap.dragged(trail, handle(map, StopMap.Kind.TARGET), 33, 0, entry(side));
        assertEquals(target.targets(), List.of(Given.target(1, 33), new ExitTerms.Target(1, Optional.empty())));
        // what no plan may be: no stop above the entry, no breakeven that asks for more than it waits for
        assertEquals(StopMap.dragged(TWO_STEPS, handle(map, StopMap.Kind.STOP), 0, 5, entry(side)).stop().orElseThrow()
                .distance(), new Distance.Ticks(1));
        assertEquals(StopMap.dragged(TWO_STEPS, handle(map, StopMap.Kind.BREAKEVEN), 10, 12, entry(side)).breakeven(),
                Optional.of(new ExitTerms.Breakeven(10, 9)));
        ExitTerms two = new ExitTerms(TWO_STEPS.stop(), List.of(), Optional.empty(),
                List.of(new ExitTerms.TrailStep(10, 5, 1), new ExitTerms.TrailStep(20, 8, 1)),
                ExitTerms.Judged.EVERY_PRINT, List.of());
        assertEquals(expectThrows(IllegalArgumentException.class, () -> StopMap.dragged(two,
                handle(map(two, side), StopMap.Kind.TRAIL), 20, 12, entry(side))).getMessage(),
                "two trail steps activate at 20 ticks");
    }

    @Test(dataProvider = "sides")
    public void everyUnitKeepsItsOwn(Side side) {
        // 1 tick is 0.25 in price and 12.50 in money; the study says 8 ticks
        StopMap.Entry entry = new StopMap.Entry(side, Given.contract(0), 5000, 2,
                text -> text.equals("reach") ? 8 : 5000 - side.sign() * 11);
        List<Distance> units = List.of(new Distance.Price(new BigDecimal("2.50")),
                new Distance.PerContract(125 * Money.UNIT), new Distance.WholePosition(250 * Money.UNIT),
                new Distance.Percent(new BigDecimal("0.2")), new Distance.Times(new BigDecimal("1.25"), "reach"));
        List<Distance> at20 = List.of(new Distance.Price(new BigDecimal("5.00")),
                new Distance.PerContract(250 * Money.UNIT), new Distance.WholePosition(500 * Money.UNIT),
                new Distance.Percent(new BigDecimal("0.4")), new Distance.Times(new BigDecimal("2.5"), "reach"));
        for (int i = 0; i < units.size(); i++) {
            ExitTerms terms = new ExitTerms(
                    Optional.of(new ExitTerms.Stop(units.get(i), Optional.empty(), Optional.empty())),
                    List.of(new ExitTerms.Target(1, Optional.of(new Distance.Risks(new BigDecimal("1.5"))))),
                    Optional.empty(), List.of(), ExitTerms.Judged.BAR_CLOSE, List.of());
            StopMap map = StopMap.of(terms, entry).orElseThrow();
            assertEquals(map.at(0).orElseThrow(), -10, units.get(i).words());
            assertEquals(handle(map, StopMap.Kind.TARGET).best(), 15, units.get(i).words());
            ExitTerms moved = StopMap.dragged(terms, handle(map, StopMap.Kind.STOP), 0, -20, entry);
            assertEquals(moved.stop().orElseThrow().distance(), at20.get(i));
            assertEquals(StopMap.of(moved, entry).orElseThrow().at(0).orElseThrow(), -20, units.get(i).words());
            assertEquals(StopMap.dragged(moved, handle(map, StopMap.Kind.TARGET), 40, 0, entry).targets().getFirst()
                    .distance(), Optional.of(new Distance.Risks(new BigDecimal("2"))));
        }
        ExitTerms level = new ExitTerms(
                Optional.of(new ExitTerms.Stop(new Distance.Level("band"), Optional.empty(), Optional.empty())),
                List.of(), Optional.empty(), List.of(), ExitTerms.Judged.EVERY_PRINT, List.of());
        assertEquals(StopMap.of(level, entry).orElseThrow().handles(),
                List.of(new StopMap.Handle(StopMap.Kind.STOP, 0, 0, -11, false, false)));
        assertEquals(StopMap.of(level, entry(side)), Optional.empty(), "the study is not there");
    }
}
