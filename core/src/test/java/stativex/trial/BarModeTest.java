package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.engine.SignalPlan;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.market.BarType;
import stativex.market.Join;
import stativex.market.Rolls;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Order;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.order.TrialMode;

/** Trials that walk bars tick by tick. Expected values are worked by hand from SEMANTICS, "Bar mode". */
public class BarModeTest {
    private static final long OPEN = Given.at(0, "01:00:00");
    private static final Terms BARS = Terms.DEFAULT.in(TrialMode.BAR);

    /** Bars of four single contracts each. */
    private static Tape bars(long[]... bars) {
        TapeBuilder tape = new TapeBuilder(bars.length * 4);
        for (long[] bar : bars) {
            for (long price : bar) {
                tape.add(OPEN + tape.count() * Given.SECOND, price, 1, Tape.NONE, Tape.NONE);
            }
        }
        return tape.build();
    }

    private static Given.Draft draft() {
        Given.Draft draft = Given.strategy();
        draft.bars = 4;
        draft.once = true;
        return draft;
    }

    private static Run run(Tape tape, Given.Draft draft, Terms terms, int slippage) {
        return Run.trial(Inputs.of(tape, Given.contract(slippage), Given.account(), List.of(draft.build()), terms));
    }

    /** Fills without their step: {@code buy 1 at 14 entry}. */
    private static List<String> fills(Run run) {
        return Said.fills(run).stream().map(f -> f.substring(f.indexOf(' ') + 1)).toList();
    }

    @Test
    public void whatIsSentAtACloseMeetsTheNextOpenAndAStopInsideABarFillsAtItsPrice() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.plan = Given.plan(5);
        // bought at the open of 103 for 104, the stop of 99 lies inside the bar: its prints jump over it, its steps do not
        Tape tape = bars(new long[]{100, 101, 102, 102}, new long[]{103, 103, 96, 97}, new long[]{97, 97, 97, 97});
        assertEquals(fills(run(tape, draft, BARS, 1)), List.of("buy 1 at 104 entry", "sell 1 at 98 stop"),
                "slippage is a tick");
        assertEquals(fills(run(tape, draft, Terms.DEFAULT, 1)), List.of("buy 1 at 104 entry", "sell 1 at 95 stop"),
                "the same prints in tick mode: the stop of 99 meets 96");
    }

    @Test
    public void onlyAnOpenCanGap() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.plan = Given.plan(5);
        Tape tape = bars(new long[]{100, 101, 102, 102}, new long[]{103, 103, 102, 103}, new long[]{90, 91, 90, 91});
        assertEquals(fills(run(tape, draft, BARS, 0)), List.of("buy 1 at 103 entry", "sell 1 at 90 stop"));
    }

    /** A bar of 103 with 98 and 108 in it: target and stop both lie inside, whichever way it goes. */
    @DataProvider
    public Object[][] equalExtremes() {
        return new Object[][]{
                {"close > open", new long[]{100, 101, 102, 102}, "sell 1 at 99 stop", "long: the low first"},
                {"close < open", new long[]{100, 99, 98, 98}, "buy 1 at 107 stop", "short: the high first"}};
    }

    @Test(dataProvider = "equalExtremes")
    public void ofTwoExtremesThatLieEquallyFarTheOneAgainstThePositionComesFirst(String rule, long[] signal,
            String exit, String why) {
        Given.Draft draft = draft();
        draft.longSide = rule.contains(">") ? Optional.of(Given.rule(rule)) : Optional.empty();
        draft.shortSide = rule.contains("<") ? Optional.of(Given.rule(rule)) : Optional.empty();
        draft.plan = Given.plan(4, Given.target(1, 4));
        Run run = run(bars(signal, new long[]{103, 108, 98, 103}), draft, BARS, 0);
        assertEquals(fills(run).get(1), exit, why);
        assertEquals(run.assumed().orElseThrow(), new Assumed(0, 1, 0, 0));
    }

    @Test
    public void aTargetDoesNotFillWhereTheRestOfTheBarStillComesToTheStop() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.plan = Given.plan(6, Given.target(1, 3));
        // the high is nearer the open: 103 → 107 → 96 → 100. Nobody knows that the target of 106 came before the stop of 97
        Tape tape = bars(new long[]{100, 101, 102, 102}, new long[]{103, 107, 96, 100}, new long[]{100, 100, 100, 100});
        Run run = run(tape, draft, BARS, 0);
        assertEquals(fills(run), List.of("buy 1 at 103 entry", "sell 1 at 97 stop"));
        assertEquals(run.assumed().orElseThrow(), new Assumed(1, 0, 0, 0));
        assertEquals(fills(run(tape, draft, Terms.DEFAULT, 0)),
                List.of("buy 1 at 103 entry", "sell 1 at 106 target 1"));
    }

    @Test
    public void aTargetFillsBehindAStopThatHasMovedOutOfTheRestOfTheBar() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.plan = Given.plan(6, Given.target(1, 3));
        Run run = run(bars(new long[]{100, 101, 102, 102}, new long[]{103, 107, 98, 100}), draft, BARS, 0);
        assertEquals(fills(run), List.of("buy 1 at 103 entry", "sell 1 at 106 target 1"), "the bar never comes to 97");
        assertEquals(run.assumed().orElseThrow(), new Assumed(0, 0, 0, 0));
    }

    @Test
    public void limitsTogetherTakeAtMostTheBarsVolumeAndAQueueIsTakenAsThrough() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.longSide = Optional.of(Given.rule("close > open", "close - 2 ticks"));
        draft.type = Order.Type.LIMIT;
        draft.quantity = 6;
        Tape tape = bars(new long[]{100, 101, 102, 102}, new long[]{102, 98, 99, 98}, new long[]{101, 98, 99, 98});
        Run run = run(tape, draft, new Terms(Realism.QUEUE, 0, 50, TrialMode.BAR), 0);
        assertEquals(fills(run).subList(0, 2), List.of("buy 4 at 100 entry", "buy 2 at 100 entry"),
                "four contracts in each bar, and nobody stands ahead");
        assertEquals(run.assumed().orElseThrow(), new Assumed(0, 0, 2, 0));
    }

    @Test
    public void aStopThatIsHeldHereGoesWithItsPriceWhateverItCounts() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.plan = new ExitPlan("plan", "1", new ExitTerms(
                Optional.of(new ExitTerms.Stop(new Distance.Ticks(3), Optional.empty(),
                        Optional.of(new ExitTerms.Local(20, 1000)))),
                List.of(), Optional.empty(), List.of(), ExitTerms.Judged.EVERY_PRINT, List.of()));
        Run run = run(bars(new long[]{100, 101, 102, 102}, new long[]{103, 104, 98, 99}), draft, BARS, 0);
        assertEquals(fills(run), List.of("buy 1 at 103 entry", "sell 1 at 99 local stop"),
                "100 is reached, the next step meets the market");
        assertEquals(run.assumed().orElseThrow(), new Assumed(0, 0, 0, 1));
    }

    @Test
    public void anOpenHasItsBarsStartAsTimeAndLaterStepsItsLastInstant() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.barType = Optional.of(new BarType.Time(10 * Given.SECOND));
        draft.plan = Given.plan(3);
        Tape tape = Given.tape(OPEN + 3 * Given.SECOND, 100, 101, 102, 102, 102, 102, 102, 103, 103, 99, 98, 99);
        Run run = run(tape, draft, BARS, 0);
        assertEquals(run.engine().log().fills().stream().map(f -> f.time() - OPEN).toList(),
                List.of(10 * Given.SECOND, 15 * Given.SECOND - Given.SECOND),
                "the bar that forms has come to its last print");
        Tape longer = Given.tape(OPEN + 3 * Given.SECOND, 100, 101, 102, 102, 102, 102, 102, 103, 103, 99, 98, 99, 99,
                99,
                99, 99, 99, 99);
        assertEquals(run(longer, draft, BARS, 0).engine().log().fills().getLast().time() - OPEN,
                20 * Given.SECOND - 1);
    }

    @Test
    public void dayBarsEnterAtTheNextSessionsOpen() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.barType = Optional.of(BarType.Period.DAY);
        TapeBuilder tape = new TapeBuilder(8);
        long[] prices = {100, 104, 103, 107, 110};
        long[] times = {Given.at(0, "01:00:10"), Given.at(0, "03:30:00"), Given.at(1, "01:20:00"),
                Given.at(1, "03:10:00"),
                Given.at(2, "01:00:00")};
        for (int i = 0; i < prices.length; i++) {
            tape.add(times[i], prices[i], 1, Tape.NONE, Tape.NONE);
        }
        Run run = run(tape.build(), draft, BARS, 0);
        assertEquals(fills(run).getFirst(), "buy 1 at 103 entry");
        assertEquals(run.engine().log().fills().getFirst().time(), Given.at(1, "01:00:00"));
    }

    /** Flat, low first, then up through the buy stop and back to the open: the stop at 101 is on the other way only. */
    @Test
    public void ofTheTwoWaysOfABarOneIsWalked() {
        Given.Draft draft = draft().onlyLong("close > open");
        draft.longSide = Optional.of(Given.rule("close > open", "close + 3 ticks"));
        draft.type = Order.Type.STOP;
        draft.plan = Given.plan(4);
        Run run = run(bars(new long[]{100, 101, 102, 102}, new long[]{103, 98, 108, 103}), draft, BARS, 0);
        assertEquals(fills(run), List.of("buy 1 at 105 entry", "sell 1 at 103 open at end"));
    }

    /** Where every bar is one print there is nothing to assume: the same fills, trades and days. */
    @Test
    public void onBarsOfOnePrintBothModesAreEqual() {
        int trades = 0;
        for (long seed = 1; seed <= 300; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            TapeBuilder tape = new TapeBuilder(400);
            long time = OPEN;
            long price = 1000;
            for (int i = 0; i < 400; i++) {
                tape.add(time, price, dice.nextInt(1, 5), Tape.NONE, Tape.NONE);
                price += dice.nextInt(-3, 4);
                time += dice.nextLong(30 * Given.SECOND);
            }
            Given.Draft draft = Given.strategy();
            draft.barType = Optional.of(new BarType.Ticks(1));
            draft.longSide = Optional.of(Given.rule("close > close 1 bar before", "close - 1 ticks"));
            draft.shortSide = Optional.of(Given.rule("close < close 2 bars before", "close + 2 ticks"));
            draft.type = dice.nextBoolean() ? Order.Type.LIMIT : Order.Type.STOP;
            draft.quantity = dice.nextInt(1, 7);
            draft.plan = new ExitPlan("plan", "1", Optional.of(new Distance.Ticks(dice.nextInt(2, 12))),
                    List.of(Given.target(1, dice.nextInt(1, 12)), Given.target(2, dice.nextInt(1, 20))),
                    Optional.of(new ExitTerms.Breakeven(3, 1)), List.of(new ExitTerms.TrailStep(4, 3, 1)));
            Terms terms = new Terms(dice.nextBoolean() ? Realism.THROUGH : Realism.TOUCH,
                    dice.nextBoolean() ? 0 : dice.nextLong(20 * Given.SECOND));
            Run ticks = run(tape.build(), draft, terms, 1);
            Run bars = run(tape.build(), draft, terms.in(TrialMode.BAR), 1);
            assertEquals(fills(bars), fills(ticks), "seed " + seed);
            assertEquals(bars.engine().log().trades().toString(), ticks.engine().log().trades().toString(),
                    "seed " + seed);
            assertEquals(bars.engine().log().decisions().toString(), ticks.engine().log().decisions().toString(),
                    "seed " + seed);
            assertEquals(bars.engine().days().deepestDrawdown(), ticks.engine().days().deepestDrawdown());
            assertEquals(bars.assumed().orElseThrow(), new Assumed(0, 0, 0, 0));
            trades += ticks.engine().log().trades().size();
        }
        assertTrue(trades > 3000, trades + " trades");
    }

    @Test
    public void whatBarsCannotSayIsRefused() {
        Tape tape = Given.tape(OPEN, 100, 101, 102, 103);
        Given.Draft every = draft();
        every.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        refused(tape, List.of(every), "on every trade");
        Given.Draft bricks = draft();
        bricks.barType = Optional.of(new BarType.Renko(2, 2));
        refused(tape, List.of(bricks), "renko");
        Given.Draft other = draft();
        other.name = "Slack water";
        other.bars = 5;
        refused(tape, List.of(draft(), other), "the same signal bars");
        refused(Given.tape(OPEN, 0, 60_000_000), List.of(draft()), "50000000");
        TapeBuilder newer = new TapeBuilder(2);
        newer.add(OPEN, 100, 1, Tape.NONE, Tape.NONE);
        newer.add(Given.at(1, "01:00:00"), 100, 1, Tape.NONE, Tape.NONE);
        Join join = Join.of(
                List.of(new Join.Month("old", Given.contract(0), Given.tape(OPEN, 100, 101)),
                        new Join.Month("new", Given.contract(0), newer.build())),
                List.of(Given.MONDAY.plusDays(1)));
        Inputs joined = Inputs.of(join.tape(), Given.contract(0), Given.account(), List.of(draft().build()), BARS)
                .rolling(new Rolls(join.legs(), 0));
        assertTrue(
                expectThrows(IllegalArgumentException.class, () -> Run.trial(joined)).getMessage().contains("a join"));
        assertThrows(IllegalArgumentException.class, () -> new Terms(Realism.TOUCH, 0, 3, TrialMode.BAR));
    }

    private static void refused(Tape tape, List<Given.Draft> drafts, String word) {
        Inputs inputs = Inputs.of(tape, Given.contract(0), Given.account(),
                drafts.stream().map(Given.Draft::build).toList(), BARS);
        String said = expectThrows(IllegalArgumentException.class, () -> Run.trial(inputs)).getMessage();
        assertTrue(said.contains(word), said);
    }

    @Test
    public void aTapeWithoutPrintsHasNothingToWalk() {
        List<Tape> tapes = new ArrayList<>(List.of(Given.tape(OPEN)));
        tapes.add(Given.tape(Given.at(0, "02:10:00"), 100, 101, 102));
        for (Tape tape : tapes) {
            Run run = run(tape, draft(), BARS, 0);
            assertEquals(run.engine().log().fills(), List.of());
            assertEquals(run.assumed().orElseThrow(), new Assumed(0, 0, 0, 0));
        }
    }
}
