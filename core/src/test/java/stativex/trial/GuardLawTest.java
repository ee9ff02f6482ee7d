package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.DayLimits;
import stativex.account.Guard;
import stativex.account.LockReason;
import stativex.account.Rulebook;
import stativex.engine.Decision;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Terms;

/** A guard acts before its line: where prints move by no more than it allows for, the line is never met. */
public class GuardLawTest {
    /** Fewer only where the tests themselves are tried on planted faults. */
    private static final int TAPES = 5 * Integer.getInteger("stativex.twin.tapes", 2000);

    /** Prices that go by a tick at most, with a jump now and then if so wanted. */
    private static Tape tape(SplittableRandom dice, boolean jumps) {
        TapeBuilder tape = new TapeBuilder(260);
        long price = 1000;
        long trend = dice.nextInt(2) * 2 - 1;
        for (int i = 0; i < 260; i++) {
            tape.add(Given.at(0, "01:00:01") + i * Given.SECOND, price, 9, Tape.NONE, Tape.NONE);
            trend = dice.nextInt(30) == 0 ? -trend : trend;
            price += dice.nextInt(3) == 0 ? -trend : trend;
            price += jumps && dice.nextInt(40) == 0 ? 30 * (dice.nextInt(2) * 2 - 1) : 0;
        }
        return tape.build();
    }

    private static Run run(SplittableRandom dice, Account account, DayLimits own, boolean jumps) {
        Given.Draft draft = Given.strategy();
        draft.bars = dice.nextInt(2, 7);
        draft.quantity = dice.nextInt(1, 4);
        draft.plan = Given.plan(dice.nextInt(10, 18));
        draft.day = own;
        return Run.trial(Inputs.of(tape(dice, jumps), Given.contract(1), account, List.of(draft.build()),
                Terms.DEFAULT));
    }

    private static Account trailing(SplittableRandom dice, Guard guard) {
        return Given.account(Optional.empty(), Optional.empty(), List.of(new Rulebook.DrawdownFloor(
                Rulebook.Trails.INTRADAY, dice.nextInt(700, 1100) * Money.UNIT, Optional.empty(), guard)));
    }

    @Test
    public void noFloorIsMetWherePrintsGoByATick() {
        int acted = 0;
        for (int seed = 1; seed <= TAPES; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            // closing costs are counted by the guard itself: a tick until it is seen, one until it is filled
            Run run = run(dice, trailing(dice, new Guard(true, 0, 2)), DayLimits.NONE, false);
            assertFalse(run.engine().accountState().broken().isPresent(), "seed " + seed);
            acted += locks(run, LockReason.DRAWDOWN_FLOOR);
        }
        assertTrue(acted > TAPES / 20, "the guard acted " + acted + " times");
    }

    @Test
    public void aJumpBeyondTheGuardBreaksTheAccountAndIsNoGuard() {
        int broken = 0;
        for (int seed = 1; seed <= TAPES / 5; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            Run run = run(dice, trailing(dice, new Guard(true, 0, 2)), DayLimits.NONE, true);
            List<Decision> locks = run.engine().log().decisions().stream()
                    .filter(d -> d.kind() == Decision.Kind.LOCKED).toList();
            boolean whole = locks.stream().allMatch(d -> d.outcome() instanceof Decision.Locked(var why, var guarded)
                    && guarded);
            assertEquals(run.engine().accountState().broken().isEmpty(), whole, "seed " + seed);
            broken += whole ? 0 : 1;
        }
        assertTrue(broken > 20, broken + " broken");
    }

    @Test
    public void aStrategysOwnLineIsKeptByItsGuardToo() {
        int acted = 0;
        for (int seed = 1; seed <= TAPES / 5; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            long loss = dice.nextInt(600, 1000) * Money.UNIT;
            Run run = run(dice, Given.account(), new DayLimits(
                    Optional.of(new Account.DayLoss(loss, new Guard(true, 0, 2))), Optional.empty()), false);
            long result = run.engine().accountState().balance() - 40_000 * Money.UNIT;
            assertTrue(result > -loss, "seed " + seed + ": " + Money.text(result) + " of " + Money.text(-loss));
            acted += locks(run, LockReason.STRATEGY_DAY_LOSS);
        }
        assertTrue(TAPES < 10_000 || acted > 5, "the guard acted " + acted + " times");
    }

    private static int locks(Run run, LockReason why) {
        return (int) run.engine().log().decisions().stream().filter(d -> d.lockedFor(why)).count();
    }
}
