package stativex.exit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.testng.annotations.Test;
import stativex.market.Side;
import stativex.trial.Given;

/** An exit plan at work, without orders and engine. */
public class PlanRunTest {
    private static final Readings NONE = text -> Double.NaN;

    private static PlanRun run(ExitTerms terms, int quantity, int open) {
        PlanRun run = new PlanRun(terms, Side.LONG, Given.contract(0), 100, quantity, open, NONE);
        run.entered(0, open, 100, 100, NONE);
        return run;
    }

    private static ExitTerms.Stop stop(long ticks, Optional<ExitTerms.Local> local) {
        return new ExitTerms.Stop(new Distance.Ticks(ticks), Optional.empty(), local);
    }

    @Test
    public void breakevenWithATargetWaitsForTheEntrysRest() {
        ExitTerms terms = new ExitTerms(Optional.of(stop(10, Optional.empty())),
                List.of(Given.target(1, 5), Given.target(1, 9)),
                Optional.of(new ExitTerms.Breakeven(Optional.empty(), OptionalInt.empty(), OptionalInt.of(1),
                        new Distance.Ticks(1))),
                List.of(), ExitTerms.Judged.EVERY_PRINT, List.of());
        PlanRun run = run(terms, 2, 1);
        run.entering(true);
        run.filled(1, 1);
        run.print(105);
        assertEquals(run.stop().orElseThrow(), new PlanRun.Stop(90, StopOrigin.STOP), "the rest may still come");
        run.entering(false);
        run.print(105);
        assertEquals(run.stop().orElseThrow(), new PlanRun.Stop(101, StopOrigin.BREAKEVEN));
    }

    @Test
    public void aStopHeldHereCountsAnewWhenItsLevelMoves() {
        ExitTerms terms = new ExitTerms(Optional.of(stop(10, Optional.of(new ExitTerms.Local(20, 3)))), List.of(),
                Optional.empty(), List.of(new ExitTerms.TrailStep(5, 4, 1)), ExitTerms.Judged.EVERY_PRINT, List.of());
        PlanRun run = run(terms, 1, 1);
        meets(run, 90, 2, false);
        meets(run, 105, 1, false);
        assertEquals(run.stop().orElseThrow().level(), 101);
        meets(run, 101, 2, false);
        // back above, it goes on counting what is at or beyond
        meets(run, 103, 5, false);
        meets(run, 100, 1, true);
    }

    private static void meets(PlanRun run, long price, long contracts, boolean leaves) {
        run.print(price);
        Optional<PlanRun.Departure> departure = run.meets(price, contracts).departure();
        assertEquals(departure.isPresent(), leaves, price + " with " + contracts);
        assertTrue(departure.stream().allMatch(d -> d.why() == PlanRun.Why.LOCAL_STOP));
    }
}
