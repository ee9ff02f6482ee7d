package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.market.BarType;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.order.TrialMode;

/**
 * The fast way over quiet prints, with bars and rules worked ahead, against working every print by the clear path with bars and rules
 * as they come: everything that a run gives must be the same, on random tapes and documents.
 */
public class QuietStretchTest {
    /** Fewer only where the tests themselves are tried on planted faults. */
    private static final int TAPES = Math.min(2000, 2 * Integer.getInteger("stativex.twin.tapes", 1000));

    @Test
    public void stretchesComeToTheSameAsSinglePrints() {
        int trades = 0;
        for (long seed = 1; seed <= TAPES; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            List<Strategy> strategies = new ArrayList<>();
            strategies.add(RandomDay.strategy(dice, "Ebb fade"));
            if (dice.nextInt(3) == 0) {
                strategies.add(RandomDay.strategy(dice, "Slack water"));
            }
            Inputs inputs = Inputs
                    .of(RandomDay.tape(dice), Given.contract(dice.nextInt(3)), RandomDay.account(dice), strategies,
                            new Terms(dice.nextBoolean() ? Realism.THROUGH : Realism.TOUCH,
                                    dice.nextBoolean() ? 0 : dice.nextLong(20 * Given.SECOND)))
                    .over(new Days(Optional.empty(),
                            dice.nextInt(5) == 0 ? Optional.of(Given.MONDAY) : Optional.empty()));
            Run clear = clear(inputs);
            assertEquals(RandomDay.all(Run.trial(inputs).engine()), RandomDay.all(clear.engine()), "seed " + seed);
            trades += clear.engine().log().trades().size();
        }
        assertTrue(trades > 3 * TAPES, trades + " trades");
    }

    private static Run clear(Inputs inputs) {
        Run clear = new Run(inputs);
        for (int i = 0; i < inputs.strategies().size(); i++) {
            clear.command(new stativex.engine.Command.SetMode(i, stativex.engine.Mode.ENGAGED));
        }
        while (!clear.atEnd()) {
            clear.step();
        }
        clear.finish();
        return clear;
    }

    @Test
    public void barsAreWalkedInStretchesAsStepByStep() {
        int trades = 0;
        int walked = 0;
        for (long seed = 1; seed <= TAPES; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            Strategy strategy = RandomDay.strategy(dice, "Ebb fade");
            if (strategy.signals().bars().type() instanceof BarType.Renko
                    || strategy.signals().evaluate() == SignalPlan.Evaluate.EVERY_TRADE) {
                continue;
            }
            Inputs inputs = Inputs.of(RandomDay.tape(dice), Given.contract(dice.nextInt(3)), RandomDay.account(dice),
                    List.of(strategy),
                    new Terms(Realism.values()[dice.nextInt(3)], dice.nextBoolean() ? 0 : 3 * Given.SECOND, 0,
                            TrialMode.BAR));
            Run clear = clear(inputs);
            Run fast = Run.trial(inputs);
            assertEquals(RandomDay.all(fast.engine()), RandomDay.all(clear.engine()), "seed " + seed);
            assertEquals(fast.assumed(), clear.assumed(), "seed " + seed);
            trades += clear.engine().log().trades().size();
            walked++;
        }
        assertTrue(trades > walked, trades + " trades");
    }
}
