package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.LockReason;
import stativex.account.Rulebook;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.exit.StopOrigin;
import stativex.interlock.Refusal;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.study.StudyDefinition;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Said;

/** What one print does, step by step. */
public class EngineTest {
    private static final long OPEN = Given.at(0, "01:00:00");

    private static List<String> fills(Run run) {
        return Said.fills(run);
    }

    private static List<String> decisions(Run run) {
        return Said.decisions(run);
    }

    private static Run trial(Tape tape, Contract contract, Strategy strategy, Account account, Terms terms) {
        return Run.trial(Inputs.of(tape, contract, account, List.of(strategy), terms));
    }

    private static Run trial(Tape tape, Given.Draft strategy) {
        return trial(tape, Given.contract(0), strategy.build(), Given.account(), Terms.DEFAULT);
    }

    private static Given.Draft buyer() {
        return Given.strategy().onlyLong("close > open");
    }

    @Test
    public void anEntryMeetsTheNextPrintAtTheEarliest() {
        Run run = trial(Given.tape(OPEN, 10, 11, 14, 13), buyer());
        assertEquals(fills(run), List.of("2 buy 1 at 14 entry", "3 sell 1 at 13 open at end"));
    }

    @Test
    public void latencyWaitsForAPrintThatIsNotBeforeAcceptance() {
        Terms slow = new Terms(Realism.THROUGH, 3 * Given.SECOND);
        Run run = trial(Given.tape(OPEN, 10, 11, 14, 13, 12, 17, 18), Given.contract(0), buyer().build(),
                Given.account(), slow);
        // sent with print 1 at second 1, accepted at second 4: print 4 is stamped exactly then
        assertEquals(fills(run).getFirst(), "4 buy 1 at 12 entry");
    }

    @Test
    public void theStopWorksFromThePrintAfterTheFill() {
        var strategy = buyer();
        strategy.plan = Given.plan(3);
        Run run = trial(Given.tape(OPEN, 10, 11, 14, 11, 10), strategy);
        assertEquals(fills(run), List.of("2 buy 1 at 14 entry", "3 sell 1 at 11 stop"));
    }

    @Test
    public void aMarketOrderPaysTheWorseOfFarQuoteAndPrintThenSlippage() {
        Tape tape = new TapeBuilder(4).add(OPEN, 10, 1, 9, 10).add(OPEN + 1, 11, 1, 10, 11)
                .add(OPEN + 2, 12, 1, 12, 15).add(OPEN + 3, 12, 1, 11, 13).build();
        Run run = trial(tape, Given.contract(2), buyer().build(), Given.account(), Terms.DEFAULT);
        assertEquals(fills(run), List.of("2 buy 1 at 17 entry", "3 sell 1 at 12 open at end"));
        Fill entry = run.engine().log().fills().getFirst();
        assertEquals(entry.slippage(), 2);
        assertEquals(entry.gap(), 4, "from the last print when it was sent, slippage apart");
    }

    @Test
    public void aStopGapsThroughAndPaysTheGap() {
        var strategy = buyer();
        strategy.plan = Given.plan(3);
        Run run = trial(Given.tape(OPEN, 10, 11, 14, 13, 5, 6), Given.contract(1), strategy.build(), Given.account(),
                Terms.DEFAULT);
        assertEquals(fills(run).get(1), "4 sell 1 at 4 stop", "never better than its price, here far worse");
        Trade trade = run.engine().log().trades().getFirst();
        assertEquals(trade.slippage(), Given.contract(1).money(2, 1), "a tick at each end");
        assertEquals(trade.net(), trade.gross() - 2 * 2 * Money.UNIT);
    }

    @Test
    public void limitsFillThroughOrAtATouch() {
        var strategy = Given.strategy();
        strategy.longSide = Optional.of(Given.rule("close > open", "close - 2 ticks"));
        strategy.shortSide = Optional.empty();
        strategy.type = Order.Type.LIMIT;
        Tape tape = Given.tape(OPEN, 10, 12, 11, 10, 11, 9, 11);
        Run through = trial(tape, Given.contract(0), strategy.build(), Given.account(), Terms.DEFAULT);
        assertEquals(fills(through).getFirst(), "5 buy 1 at 10 entry");
        Run touch = trial(tape, Given.contract(0), strategy.build(), Given.account(),
                new Terms(Realism.TOUCH, 0));
        assertEquals(fills(touch).getFirst(), "3 buy 1 at 10 entry");
    }

    @Test
    public void entryPricesRoundAwayFromTheMarket() {
        // the mean of 10, 13, 12 and 12 is 11.75
        long[] prices = {10, 13, 12, 12, 12, 11, 10, 14};
        for (String[] expected : new String[][]{{"LIMIT", "LONG", "11"}, {"LIMIT", "SHORT", "12"},
                {"STOP", "LONG", "12"}, {"STOP", "SHORT", "11"}}) {
            var strategy = Given.strategy();
            strategy.bars = 4;
            strategy.studies = List.of(StudyDefinition.of("mean", "vwap", "deviations", "1"));
            strategy.type = Order.Type.valueOf(expected[0]);
            Optional<Strategy.SideRule> rule = Optional.of(Given.rule("close > open", "mean"));
            strategy.longSide = expected[1].equals("LONG") ? rule : Optional.empty();
            strategy.shortSide = expected[1].equals("SHORT") ? rule : Optional.empty();
            Run run = trial(Given.tape(OPEN, prices), strategy);
            assertEquals(run.engine().log().decisions().getFirst().price(), Long.parseLong(expected[2]),
                    String.join(" ", expected));
        }
    }

    @Test
    public void limitsTakeAtMostThePrintAndRestForTheNext() {
        var strategy = Given.strategy();
        strategy.longSide = Optional.of(Given.rule("close > open", "close - 2 ticks"));
        strategy.shortSide = Optional.empty();
        strategy.type = Order.Type.LIMIT;
        strategy.quantity = 5;
        strategy.plan = Given.plan(100, Given.target(5, 40));
        Tape tape = new TapeBuilder(8).add(OPEN, 10, 1, Tape.NONE, Tape.NONE)
                .add(OPEN + 1, 12, 1, Tape.NONE, Tape.NONE).add(OPEN + 2, 9, 2, Tape.NONE, Tape.NONE)
                .add(OPEN + 3, 8, 2, Tape.NONE, Tape.NONE).add(OPEN + 4, 9, 9, Tape.NONE, Tape.NONE).build();
        Run run = trial(tape, Given.contract(0), strategy.build(), Given.account(), Terms.DEFAULT);
        assertEquals(fills(run).subList(0, 3),
                List.of("2 buy 2 at 10 entry", "3 buy 2 at 10 entry", "4 buy 1 at 10 entry"));
    }

    @Test
    public void aLimitTheMarketHasPassedTakesTheFarQuote() {
        var strategy = Given.strategy();
        strategy.longSide = Optional.of(Given.rule("close > open", "close + 5 ticks"));
        strategy.shortSide = Optional.empty();
        strategy.type = Order.Type.LIMIT;
        Tape tape = new TapeBuilder(4).add(OPEN, 10, 1, 9, 10).add(OPEN + 1, 12, 1, 11, 12)
                .add(OPEN + 2, 12, 3, 12, 13).add(OPEN + 3, 12, 1, 11, 12).build();
        Run run = trial(tape, Given.contract(2), strategy.build(), Given.account(), Terms.DEFAULT);
        assertEquals(fills(run).getFirst(), "2 buy 1 at 13 entry", "no slippage on a limit");
    }

    @Test
    public void targetsBreakevenAndTrailWorkPrintByPrint() {
        var strategy = buyer();
        strategy.quantity = 2;
        strategy.plan = new ExitPlan("plan", "1", Optional.of(new Distance.Ticks(16)),
                List.of(Given.target(1, 14), Given.target(1, 36)), Optional.of(new ExitTerms.Breakeven(12, 1)),
                List.of(new ExitTerms.TrailStep(16, 12, 4)));
        // entry at 100; +12 sets breakeven +1; +15 fills target 1 at +14; +16 trails to +4; +20 to +8; back to +8
        Run run = trial(Given.tape(OPEN, 98, 99, 100, 111, 112, 115, 116, 120, 109, 108, 107), strategy);
        assertEquals(fills(run), List.of("2 buy 2 at 100 entry", "5 sell 1 at 114 target 1", "9 sell 1 at 108 trail"));
        Trade trade = run.engine().log().trades().getFirst();
        assertEquals(
                trade.stops().stream().map(s -> s.print() + " " + s.level() + " " + Said.word(s.origin())).toList(),
                List.of("2 84 stop", "4 101 breakeven", "6 104 trail", "7 108 trail"));
        assertEquals(trade.mfe(), 20);
        assertEquals(trade.mae(), 0);
        assertEquals(trade.exitReason(), Optional.of(new FillReason.AtStop(StopOrigin.TRAIL)));
        assertEquals(trade.gross(), Given.contract(0).money(14 + 8, 1));
    }

    @Test
    public void aLeaveThatWorksGoesBeforeStopAndTarget() {
        var strategy = buyer();
        strategy.plan = Given.plan(3, Given.target(1, 2));
        Inputs inputs = Inputs.of(Given.tape(OPEN, 10, 11, 14, 14, 17, 18), Given.contract(0), Given.account(),
                List.of(strategy.build()), Terms.DEFAULT);
        Run run = new Run(inputs);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(4);
        run.command(new Command.Flatten(0));
        run.toPlace(run.length());
        run.finish();
        assertEquals(fills(run), List.of("2 buy 1 at 14 entry", "4 sell 1 at 17 by hand"));
    }

    @Test
    public void aWindowsFlattenActsItsLeadBeforeTheEndAndMeetsTheNextPrint() {
        var strategy = buyer();
        strategy.windows = List.of(Given.window("Morning", "00:30", "01:00:08", SessionWindow.End.FLATTEN, 3));
        Run run = trial(Given.tape(OPEN, 10, 11, 12, 12, 12, 12, 13, 9, 10), strategy);
        // the lead begins at second 5: print 5 brings the clock there, its order meets print 6
        assertEquals(fills(run), List.of("2 buy 1 at 12 entry", "6 sell 1 at 13 window end"));
        assertEquals(decisions(run), List.of("1 taken"));
    }

    @Test
    public void aFlattenWithoutAPrintIsAssumedAtTheSessionsEnd() {
        var strategy = buyer();
        strategy.windows = List.of(Given.window("All", "00:30", "02:00", SessionWindow.End.FLATTEN, 10));
        Tape tape = new TapeBuilder(5).add(OPEN, 10, 1, Tape.NONE, Tape.NONE)
                .add(OPEN + 1, 11, 1, Tape.NONE, Tape.NONE).add(OPEN + 2, 12, 1, Tape.NONE, Tape.NONE)
                .add(Given.at(0, "01:59:55"), 13, 1, Tape.NONE, Tape.NONE)
                .add(Given.at(0, "03:00:00"), 30, 1, Tape.NONE, Tape.NONE).build();
        Run run = trial(tape, Given.contract(1), strategy.build(), Given.account(), Terms.DEFAULT);
        assertEquals(fills(run).get(1), "3 sell 1 at 12 assumed at session end");
        assertEquals(run.engine().log().fills().get(1).time(), Given.at(0, "02:00:00"));
    }

    @Test
    public void theLineCheckDeclinesWhatAStopOutWouldCross() {
        var strategy = buyer();
        strategy.plan = Given.plan(40); // 40 × 12.50 + 12.50 + 4 = 516.50 with a tick of slippage
        Account narrow = Given.account(Optional.of(new Account.DayLoss(Money.parse("516.50"), true)), Optional.empty(),
                List.of());
        Account wide = Given.account(Optional.of(new Account.DayLoss(Money.parse("516.51"), true)), Optional.empty(),
                List.of());
        Tape tape = Given.tape(OPEN, 10, 11, 12, 12);
        assertEquals(decisions(trial(tape, Given.contract(1), strategy.build(), narrow, Terms.DEFAULT)),
                List.of("1 declined line check"));
        assertEquals(decisions(trial(tape, Given.contract(1), strategy.build(), wide, Terms.DEFAULT)),
                List.of("1 taken"));
    }

    @Test
    public void theLineCheckCountsARestingEntryOfAnotherStrategyWithBothFees() {
        var resting = buyer();
        resting.name = "resting";
        resting.type = Order.Type.STOP;
        resting.longSide = Optional.of(Given.rule("close > open", "close + 30 ticks"));
        resting.plan = Given.plan(40);
        var second = buyer();
        second.plan = Given.plan(40);
        Tape tape = Given.tape(OPEN, 10, 11, 12, 12);
        // twice what one alone may lose, 516.50: see above
        for (var expected : Map.of("1033.00", "declined line check", "1033.01", "taken").entrySet()) {
            Account account = Given.account(
                    Optional.of(new Account.DayLoss(Money.parse(expected.getKey()), true)), Optional.empty(),
                    List.of());
            Run run = Run.trial(Inputs.of(tape, Given.contract(1), account,
                    List.of(resting.build(), second.build()), Terms.DEFAULT));
            assertEquals(decisions(run).subList(0, 2), List.of("1 taken", "1 " + expected.getValue()));
        }
    }

    /** A day begins with a trade in profit: its stop lies beyond the day's line, so that the guard has something to do. */
    @Test
    public void theGuardActsWhenClosingWouldEndOnTheLine() {
        var strategy = buyer();
        strategy.plan = Given.plan(40);
        TapeBuilder tape = new TapeBuilder(7);
        long[] prices = {10, 11, 12, 50};
        for (int i = 0; i < prices.length; i++) {
            tape.add(OPEN + i * Given.SECOND, prices[i], 1, Tape.NONE, Tape.NONE);
        }
        long next = Given.at(1, "01:00:00");
        Tape falls = tape.add(next, 50, 1, Tape.NONE, Tape.NONE).add(next + 1, 8, 1, Tape.NONE, Tape.NONE)
                .add(next + 2, 8, 1, Tape.NONE, Tape.NONE).build();
        // 42 ticks of 12.50 down are 525.00; closing costs a tick of slippage and a fee of 2.00
        assertEquals(guarded(falls, strategy, "539.50", true), List.of("locked day loss guarded"));
        assertEquals(guarded(falls, strategy, "539.51", true), List.of());
        assertEquals(guarded(falls, strategy, "539.50", false), List.of());
        assertEquals(guarded(falls, strategy, "525.00", true), List.of("locked day loss"));
        assertEquals(guarded(falls, strategy, "525.00", false), List.of("locked day loss"));
    }

    private static List<String> guarded(Tape tape, Given.Draft strategy, String loss, boolean guard) {
        Account account = Given.account(Optional.of(new Account.DayLoss(Money.parse(loss), guard)), Optional.empty(),
                List.of());
        return trial(tape, Given.contract(1), strategy.build(), account, Terms.DEFAULT).engine().log().decisions()
                .stream().filter(d -> d.outcome() instanceof Decision.Locked)
                .map(d -> Said.decision(d) + (((Decision.Locked) d.outcome()).guarded() ? " guarded" : "")).toList();
    }

    @Test
    public void theDayLossLocksUntilTheNextTradingDay() {
        var strategy = buyer();
        strategy.plan = Given.plan(4);
        Account account = Given.account(Optional.of(new Account.DayLoss(Money.parse("200"), true)), Optional.empty(),
                List.of());
        TapeBuilder tape = new TapeBuilder(20);
        long[] prices = {10, 11, 14, 0, 1, 2, 1, 2};
        for (int i = 0; i < prices.length; i++) {
            tape.add(OPEN + i * Given.SECOND, prices[i], 1, Tape.NONE, Tape.NONE);
        }
        long next = Given.at(1, "01:00:00");
        tape.add(next, 10, 1, Tape.NONE, Tape.NONE).add(next + 1, 11, 1, Tape.NONE, Tape.NONE).add(next + 2, 11, 1,
                Tape.NONE, Tape.NONE);
        Run run = trial(tape.build(), Given.contract(1), strategy.build(), account, Terms.DEFAULT);
        assertEquals(decisions(run), List.of("1 taken", "3 locked day loss", "5 declined locked", "7 declined locked",
                "9 taken"));
    }

    @Test
    public void theFloorBreaksTheAccountForGood() {
        var strategy = buyer();
        strategy.plan = Given.plan(4);
        Account account = Given.account(Optional.empty(), Optional.empty(),
                List.of(new Rulebook.DrawdownFloor(Money.parse("150"), Optional.empty())));
        TapeBuilder tape = new TapeBuilder(20);
        long[] prices = {10, 11, 14, 25, 12, 9, 10};
        for (int i = 0; i < prices.length; i++) {
            tape.add(OPEN + i * Given.SECOND, prices[i], 1, Tape.NONE, Tape.NONE);
        }
        long next = Given.at(1, "01:00:00");
        tape.add(next, 10, 1, Tape.NONE, Tape.NONE).add(next + 1, 11, 1, Tape.NONE, Tape.NONE);
        Run run = trial(tape.build(), Given.contract(0), strategy.build(), account, Terms.DEFAULT);
        // the peak at +11 ticks lifts the floor by 135.50 to −14.50; at −2 ticks and one fee equity is −27
        assertEquals(decisions(run), List.of("1 taken", "3 declined adds not allowed", "4 locked drawdown floor",
                "8 declined broken"));
        assertEquals(fills(run).get(1), "5 sell 1 at 9 drawdown floor", "leave goes before the stop");
        assertTrue(run.engine().watch().broken());
    }

    @Test
    public void onlySignalsAfterEngagingCountAndSwitchingOffCancelsWhatRests() {
        var strategy = Given.strategy();
        strategy.longSide = Optional.of(Given.rule("close > open", "close - 5 ticks"));
        strategy.shortSide = Optional.empty();
        strategy.type = Order.Type.LIMIT;
        Inputs inputs = Inputs.of(Given.tape(OPEN, 10, 11, 11, 12, 12, 12, 1, 1), Given.contract(0), Given.account(),
                List.of(strategy.build()), Terms.DEFAULT);
        Run run = new Run(inputs);
        run.toPlace(2);
        assertTrue(decisions(run).isEmpty(), "off: nothing");
        run.command(new Command.SetMode(0, Mode.WATCHING));
        run.toPlace(3);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(4);
        assertEquals(decisions(run), List.of("3 taken"));
        run.command(new Command.SetMode(0, Mode.OFF));
        run.toPlace(run.length());
        run.finish();
        assertTrue(fills(run).isEmpty(), "the resting entry was cancelled: " + fills(run));
    }

    @Test
    public void onceSwitchesASideOffAfterItsEntry() {
        var strategy = buyer();
        strategy.once = true;
        strategy.plan = Given.plan(2);
        Run run = trial(Given.tape(OPEN, 10, 11, 12, 10, 10, 11, 11, 12), strategy);
        assertEquals(decisions(run), List.of("1 taken", "5 declined side off", "7 declined side off"));
    }

    @Test
    public void breakevenByHandOnlyTightensAndHalfOffTakesHalf() {
        var strategy = buyer();
        strategy.quantity = 4;
        strategy.plan = Given.plan(10);
        Inputs inputs = Inputs.of(Given.tape(OPEN, 10, 11, 20, 24, 23, 20, 19), Given.contract(0), Given.account(),
                List.of(strategy.build()), Terms.DEFAULT);
        Run run = new Run(inputs);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(4);
        run.command(new Command.HalfOff(0));
        run.command(new Command.HalfOff(0));
        run.command(new Command.Breakeven(0));
        run.toPlace(run.length());
        run.finish();
        assertEquals(fills(run),
                List.of("2 buy 4 at 20 entry", "4 sell 2 at 23 by hand", "5 sell 2 at 20 breakeven"));
    }

    @Test
    public void partsTakenOffShrinkTheLastTargetAndTheStop() {
        var strategy = buyer();
        strategy.quantity = 3;
        strategy.plan = Given.plan(10, Given.target(1, 4), Given.target(2, 8));
        Inputs inputs = Inputs.of(Given.tape(OPEN, 10, 11, 20, 21, 22, 25, 22), Given.contract(0), Given.account(),
                List.of(strategy.build()), Terms.DEFAULT);
        Run run = new Run(inputs);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(4);
        run.command(new Command.HalfOff(0));
        run.toPlace(5);
        assertEquals(orders(run), List.of("stop 2 at 10", "target 1 1 at 24", "target 2 1 at 28"));
        run.toPlace(6);
        assertEquals(fills(run).getLast(), "5 sell 1 at 24 target 1");
        assertEquals(orders(run), List.of("stop 1 at 10", "target 2 1 at 28"), "a target's fill reduces the stop");
        run.command(new Command.HalfOff(0));
        run.toPlace(7);
        assertEquals(orders(run), List.of(), "half of one contract is one contract");
    }

    private static List<String> orders(Run run) {
        return run.engine().snapshot().orders().stream()
                .map(o -> Said.reason(o.reason()) + " " + o.rest() + " at " + o.price().orElseThrow()).toList();
    }

    @Test
    public void dayLinesAreMetWhenTheResultIsOnThem() {
        var strategy = buyer();
        strategy.plan = Given.plan(4);
        // the stop at 10 gaps to 6: −8 ticks of 12.50 and two fees of 2.00 are −104.00
        Tape falls = Given.tape(OPEN, 10, 11, 14, 6, 6, 7);
        assertEquals(locks(falls, strategy, Optional.of("104.00"), Optional.empty()), List.of("day loss"));
        assertEquals(locks(falls, strategy, Optional.of("104.01"), Optional.empty()), List.of());
        // +8 ticks and one fee are 98.00
        Tape rises = Given.tape(OPEN, 10, 11, 14, 22, 22, 21);
        assertEquals(locks(rises, strategy, Optional.empty(), Optional.of("98.00")), List.of("day profit"));
        assertEquals(locks(rises, strategy, Optional.empty(), Optional.of("98.01")), List.of());
    }

    private static List<String> locks(Tape tape, Given.Draft strategy, Optional<String> loss,
            Optional<String> profit) {
        Account account = Given.account(loss.map(l -> new Account.DayLoss(Money.parse(l), false)),
                profit.map(Money::parse), List.of());
        return trial(tape, Given.contract(0), strategy.build(), account, Terms.DEFAULT).engine().log().decisions()
                .stream().filter(d -> d.kind() == Decision.Kind.LOCKED).map(Said::decision)
                .map(locked -> locked.replace("locked ", "")).toList();
    }

    @Test
    public void flatAndLockLeavesAndNobodyEntersThatDay() {
        Inputs inputs = Inputs.of(Given.tape(OPEN, 10, 11, 12, 13, 14, 15), Given.contract(0), Given.account(),
                List.of(buyer().build()), Terms.DEFAULT);
        Run run = new Run(inputs);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(3);
        run.command(new Command.FlatAndLock());
        run.toPlace(run.length());
        run.finish();
        assertEquals(fills(run), List.of("2 buy 1 at 12 entry", "3 sell 1 at 13 by hand"));
        assertEquals(decisions(run), List.of("1 taken", "2 locked by hand", "3 declined locked", "5 declined locked"));
    }

    @Test
    public void aLockBeforeTheFirstPrintHoldsForThatDay() {
        Run run = new Run(Inputs.of(Given.tape(OPEN + 1, 10, 11, 12), Given.contract(0), Given.account(),
                List.of(buyer().build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.command(new Command.FlatAndLock());
        run.toPlace(run.length());
        assertEquals(decisions(run), List.of("-1 locked by hand", "1 declined locked"));
    }

    @Test
    public void twoStrategiesDoNotTouchEachOthersOrders() {
        var one = buyer();
        one.plan = Given.plan(3);
        var two = Given.strategy();
        two.name = "Slack-water";
        two.longSide = Optional.empty();
        two.shortSide = Optional.of(Given.rule("close > open"));
        two.plan = Given.plan(50, Given.target(1, 4));
        Run run = Run.trial(Inputs.of(Given.tape(OPEN, 10, 11, 14, 11, 9), Given.contract(0), Given.account(),
                List.of(one.build(), two.build()), Terms.DEFAULT));
        assertEquals(fills(run), List.of("2 buy 1 at 14 entry", "2 sell 1 at 14 entry", "3 sell 1 at 11 stop",
                "4 buy 1 at 10 target 1"));
        assertEquals(run.engine().log().fills().stream().map(f -> ((Owner.Strategy) f.owner()).index()).toList(),
                List.of(0, 1, 0, 1));
        assertTrue(run.engine().ledger().flat());
    }

    @Test
    public void anIncompleteFirstSessionDeclines() {
        Run run = trial(Given.tape(OPEN + 61 * Given.SECOND, 10, 11, 12), buyer());
        assertEquals(decisions(run), List.of("1 declined session incomplete"));
    }

    /** Bars by the clock stand a late beginning; the tick bars that their rule looks at do not. */
    @Test
    public void tickBarsBesideTimeBarsNeedTheWholeSession() {
        Given.Draft draft = buyer();
        draft.barType = Optional.of(new BarType.Time(2 * Given.SECOND));
        Tape late = Given.tape(OPEN + 62 * Given.SECOND, 10, 11, 12, 13);
        assertEquals(decisions(trial(late, draft)).getFirst(), "2 taken");
        draft.series = List.of(new stativex.rule.Blueprint.SeriesDefinition("trend",
                stativex.market.BarSettings.of(new BarType.Ticks(1)), Optional.empty()));
        assertEquals(decisions(trial(late, draft)).getFirst(), "2 declined session incomplete");
    }

    @Test
    public void howLateAFirstPrintMayBeIsTheCalendars() {
        var given = Given.contract(0);
        var patient = new stativex.market.SessionCalendar(java.time.ZoneOffset.UTC,
                java.util.Map.of(Given.MONDAY.getDayOfWeek(), List.of(new stativex.market.SessionCalendar.Hours("Day",
                        java.time.LocalTime.of(1, 0), 0, java.time.LocalTime.of(4, 0), 0))),
                java.util.Map.of(), 300 * Given.SECOND);
        var contract = new stativex.market.Contract(given.symbol(), given.name(), given.currency(), given.tickSize(),
                given.tickValue(), given.slippage(), patient, Optional.empty());
        long open = patient.sessions(Given.MONDAY).getFirst().open();
        assertEquals(decisions(trial(Given.tape(open + 300 * Given.SECOND, 10, 11, 12), contract, buyer().build(),
                Given.account(), Terms.DEFAULT)), List.of("1 taken"));
        assertEquals(decisions(trial(Given.tape(open + 301 * Given.SECOND, 10, 11, 12), contract, buyer().build(),
                Given.account(), Terms.DEFAULT)), List.of("1 declined session incomplete"));
    }

    @Test
    public void aSessionThatTheTapeCallsIncompleteDeclines() {
        Tape whole = Given.tape(OPEN, 10, 11, 12);
        var session = Given.calendar().current(OPEN).orElseThrow();
        Run run = trial(whole.withIncomplete(Set.of(new Tape.SessionName(session.tradingDate(), session.name()))),
                buyer());
        assertEquals(decisions(run), List.of("1 declined session incomplete"));
        Run other = trial(whole.withIncomplete(Set.of(new Tape.SessionName(session.tradingDate(), "Other"))), buyer());
        assertEquals(decisions(other), List.of("1 taken"));
    }

    @Test
    public void printsOutsideASessionOnlyMoveTheClock() {
        Run run = trial(Given.tape(OPEN - 10 * Given.SECOND, 10, 11, 12, 13), buyer());
        assertTrue(decisions(run).isEmpty());
        assertEquals(run.engine().runs().getFirst().series().count(), 0);
    }

    @Test
    public void historyDaysOnlyFeedTheStudies() {
        var strategy = buyer();
        strategy.history = 1;
        TapeBuilder tape = new TapeBuilder(8);
        for (int day = 0; day < 2; day++) {
            for (int i = 0; i < 2; i++) {
                tape.add(Given.at(day, "01:00:0" + i), 10 + i, 1, Tape.NONE, Tape.NONE);
            }
        }
        assertEquals(decisions(trial(tape.build(), strategy)), List.of("3 taken"));
        Run run = new Run(Inputs.of(tape.build(), Given.contract(0), Given.account(), List.of(strategy.build()),
                Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(1);
        assertEquals(state(run), new StrategyState.FeedingStudies(1));
    }

    @Test
    public void documentsThatDoNotFitAreRefused() {
        var strategy = buyer();
        strategy.longSide = Optional.of(Given.rule("close > open", "close"));
        assertThrows(IllegalArgumentException.class, () -> trial(Given.tape(OPEN, 1), strategy));
        var limit = buyer();
        limit.type = Order.Type.LIMIT;
        assertThrows(IllegalArgumentException.class, () -> trial(Given.tape(OPEN, 1), limit));
        Strategy same = buyer().build();
        assertThrows(IllegalArgumentException.class, () -> Inputs.of(Given.tape(OPEN, 1), Given.contract(0),
                Given.account(), List.of(same, same), Terms.DEFAULT));
    }

    @Test
    public void theSentenceSaysWhy() {
        var strategy = buyer();
        strategy.windows = List.of(Given.window("Morning", "01:10", "01:30", SessionWindow.End.FLATTEN, 30));
        Run run = new Run(Inputs.of(Given.tape(OPEN, 10, 11, 12, 12), Given.contract(0), Given.account(),
                List.of(strategy.build()), Terms.DEFAULT));
        assertEquals(state(run), new StrategyState.Off());
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(1);
        assertTrue(((StrategyState.NotTrading) state(run)).why().getFirst() instanceof Refusal.OutsideWindow why
                && why.stretch().orElseThrow().from() == Given.at(0, "01:10:00"), state(run).toString());
        run.command(new Command.FlatAndLock());
        assertEquals(state(run), new StrategyState.NotTrading(List.of(new Refusal.Locked(LockReason.BY_HAND))));
        assertFalse(run.engine().snapshot().strategies().getFirst().lanes().get(Side.LONG).isEmpty());
    }

    private static StrategyState state(Run run) {
        return run.engine().snapshot().strategies().getFirst().state();
    }

    // ------------------------------------------------------------------ signal series, moments, what a signal needs

    /** Provisional at the first print at which it holds, once a bar; what does not hold at the close was withdrawn. */
    @Test
    public void onEveryTradeASignalIsTakenTheFirstTimeItHolds() {
        var strategy = Given.strategy().onlyLong("close > open + 1 tick");
        strategy.bars = 4;
        strategy.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        strategy.adds = true;
        strategy.maximum = 9;
        // bar 0 is true at its second and third print and no longer at its close, bar 1 only at its close
        long[] prices = {10, 12, 13, 10, 20, 20, 21, 23, 30};
        Run run = trial(Given.tape(OPEN, prices), strategy);
        assertEquals(decisions(run), List.of("1 taken", "7 taken"));
        assertEquals(fills(run).subList(0, 2), List.of("2 buy 1 at 13 entry", "8 buy 1 at 30 entry"));
        strategy.evaluate = SignalPlan.Evaluate.BAR_CLOSE;
        assertEquals(decisions(trial(Given.tape(OPEN, prices), strategy)), List.of("7 taken"));
    }

    /** What a run notes of signals inside bars is what a look through the whole tape finds. */
    @Test
    public void withdrawnSignalsAreCounted() {
        var strategy = Given.strategy();
        strategy.bars = 5;
        strategy.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        int withdrawn = 0;
        for (long seed = 1; seed <= 20; seed++) {
            java.util.SplittableRandom dice = new java.util.SplittableRandom(seed);
            long[] prices = dice.longs(203, 100, 110).toArray();
            Tape tape = Given.tape(OPEN, prices);
            Strategy made = strategy.build();
            Inputs inputs = Inputs.of(tape, Given.contract(0), Given.account(), List.of(made), Terms.DEFAULT);
            Run run = new Run(inputs);
            run.toPlace(run.length());
            Map<Side, Flickers.Found> found = Flickers.of(made, Given.contract(0), tape, Map.of());
            for (Side side : Side.values()) {
                Snapshot.Lane lane = run.engine().snapshot().strategies().getFirst().lanes().get(side).getLast();
                Flickers.Found flickers = found.get(side);
                assertEquals(flickers.raised().count(), 40);
                int raised = 0;
                for (int bar = 0; bar < 40; bar++) {
                    assertEquals(flickers.raised().get(bar), lane.raised().orElseThrow().get(bar));
                    // by hand: at some print of the bar the price was on that side of its first one
                    boolean held = false;
                    for (int print = 5 * bar; print < 5 * bar + 5; print++) {
                        held |= side.sign() * (prices[print] - prices[5 * bar]) > 0;
                    }
                    assertEquals(flickers.raised().get(bar), held ? 1 : 0);
                    assertEquals(lane.withdrawn(bar),
                            held && side.sign() * (prices[5 * bar + 4] - prices[5 * bar]) <= 0);
                    raised += held ? 1 : 0;
                }
                assertEquals(flickers.confirmed() + flickers.withdrawn(), raised);
                assertEquals(flickers.provisional(), lane.provisional());
                withdrawn += flickers.withdrawn();
            }
        }
        assertTrue(withdrawn > 100, withdrawn + " withdrawn");
    }

    @Test
    public void bricksAreNotJudgedOnEveryTrade() {
        var strategy = buyer();
        strategy.barType = Optional.of(new BarType.Renko(2, 4));
        strategy.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        IllegalArgumentException refused = expectThrows(IllegalArgumentException.class, strategy::build);
        assertTrue(refused.getMessage().contains("at bar close"), refused.getMessage());
    }

    private static Strategy.SideRule graded(String... entering) {
        return new Strategy.SideRule("close > open", Optional.empty(),
                List.of(new Strategy.Grade("strong", "close > open + 3 ticks"),
                        new Strategy.Grade("plain", "close < open + 3 ticks")),
                List.of(entering), Optional.empty());
    }

    @Test
    public void aGradeMayEnterAndTheLogNamesIt() {
        var strategy = buyer();
        strategy.adds = true;
        strategy.maximum = 9;
        Tape tape = Given.tape(OPEN, 10, 11, 10, 14, 10, 13, 10, 16, 12);
        strategy.longSide = Optional.of(graded("strong", "plain"));
        assertEquals(
                trial(tape, strategy).engine().log().decisions().stream().map(Decision::outcome)
                        .map(taken -> ((Decision.Taken) taken).grade().orElseThrow()).toList(),
                List.of("plain", "strong", "strong"));
        strategy.longSide = Optional.of(graded("plain"));
        assertEquals(decisions(trial(tape, strategy)), List.of("1 taken"));
    }

    @Test
    public void aFilterCountsOnlyWhenItIsOn() {
        Tape tape = Given.tape(OPEN, 10, 11, 10, 14, 12);
        var strategy = buyer();
        strategy.adds = true;
        strategy.maximum = 9;
        for (boolean on : new boolean[]{true, false}) {
            strategy.filters = List.of(new SignalPlan.Filter("far", on, Optional.of("close - open > 2 ticks"),
                    Optional.empty()));
            assertEquals(decisions(trial(tape, strategy)), on ? List.of("3 taken") : List.of("1 taken", "3 taken"));
        }
    }

    /** Bar 0 signals; bar 1 does not trade beyond its close of 12, bar 2 does. Bar 3 signals and is never confirmed. */
    @Test
    public void aSignalThatNeedsConfirmationWaitsForIt() {
        Tape tape = Given.tape(OPEN, 10, 12, 12, 11, 11, 13, 20, 24, 24, 20, 22, 20, 20, 19, 26, 20);
        var strategy = Given.strategy().onlyLong("close > open + 1 tick and close < 30");
        strategy.adds = true;
        strategy.maximum = 9;
        strategy.longSide = Optional.of(Given.rule("close > open + 1 tick and high < 6.25"));
        strategy.confirm = Optional.of(2);
        assertEquals(decisions(trial(tape, strategy)), List.of("5 taken", "7 taken"));
        strategy.confirm = Optional.of(1);
        assertEquals(decisions(trial(tape, strategy)), List.of("7 taken"));
    }

    @Test
    public void onlySoManySignalsOfASideSendAnOrderInASession() {
        TapeBuilder tape = new TapeBuilder(24);
        for (String open : new String[]{"01:00:00", "03:00:00"}) {
            for (int i = 0; i < 10; i++) {
                tape.add(Given.at(0, open) + i * Given.SECOND, i % 2 == 0 ? 10 : 12, 1, Tape.NONE, Tape.NONE);
            }
        }
        var strategy = buyer();
        strategy.adds = true;
        strategy.maximum = 9;
        strategy.most = Optional.of(new SignalPlan.Most(2, SignalPeriod.SESSION));
        String limit = "declined signals per period";
        assertEquals(decisions(trial(tape.build(), strategy)),
                List.of("1 taken", "3 taken", "5 " + limit, "7 " + limit, "9 " + limit, "11 taken", "13 taken",
                        "15 " + limit, "17 " + limit, "19 " + limit));
        strategy.most = Optional.of(new SignalPlan.Most(3, SignalPeriod.DAY));
        assertEquals(decisions(trial(tape.build(), strategy)).stream().filter(d -> d.endsWith("taken")).toList(),
                List.of("1 taken", "3 taken", "5 taken"));
        // a trading week is from Monday's to Sunday's trading dates
        TapeBuilder weeks = new TapeBuilder(40);
        for (int day : new int[]{3, 4, 7}) {
            for (int i = 0; i < 6; i++) {
                weeks.add(Given.at(day, "01:00:00") + i * Given.SECOND, i % 2 == 0 ? 10 : 12, 1, Tape.NONE, Tape.NONE);
            }
        }
        strategy.most = Optional.of(new SignalPlan.Most(4, SignalPeriod.WEEK));
        assertEquals(decisions(trial(weeks.build(), strategy)),
                List.of("1 taken", "3 taken", "5 taken", "7 taken", "9 " + limit, "11 " + limit, "13 taken", "15 taken",
                        "17 taken"));
        // only signals that sent an order count
        strategy.adds = false;
        strategy.maximum = 1;
        assertEquals(decisions(trial(tape.build(), strategy)).subList(0, 3),
                List.of("1 taken", "3 declined adds not allowed", "5 declined adds not allowed"));
    }

    private static Tape twoDays(long... first) {
        TapeBuilder tape = new TapeBuilder(first.length + 4);
        for (int i = 0; i < first.length; i++) {
            tape.add(Given.at(0, "01:00:00") + i * Given.SECOND, first[i], 1, Tape.NONE, Tape.NONE);
        }
        tape.add(Given.at(0, "03:59:59"), 20, 1, Tape.NONE, Tape.NONE);
        tape.add(Given.at(1, "01:00:00"), 25, 1, Tape.NONE, Tape.NONE);
        tape.add(Given.at(1, "01:00:01"), 26, 1, Tape.NONE, Tape.NONE);
        return tape.build();
    }

    /** Decided at Monday's close, sent as of Tuesday's open: it meets Tuesday's first print and belongs to that day. */
    @Test
    public void aDayBarsEntryMeetsTheNextSessionsFirstPrint() {
        var strategy = buyer();
        strategy.barType = Optional.of(BarType.Period.DAY);
        Run run = trial(twoDays(10, 11), strategy);
        assertEquals(fills(run).getFirst(), "3 buy 1 at 25 entry");
        Decision taken = run.engine().log().decisions().getFirst();
        assertEquals(taken.kind(), Decision.Kind.TAKEN);
        assertEquals(taken.time(), Given.at(1, "01:00:00"));
        // a heartbeat that opens the session sends it as well
        Inputs inputs = Inputs.of(twoDays(10, 11), Given.contract(0), Given.account(), List.of(strategy.build()),
                Terms.DEFAULT);
        Run live = new Run(inputs);
        live.command(new Command.SetMode(0, Mode.ENGAGED));
        live.toPlace(live.length());
        live.finish();
        assertEquals(fills(live), fills(run));
    }

    /** Bars of ten seconds: the bar of second 0 to 10 ends when the print of second 12 arrives, before it is worked. */
    @Test
    public void aTimeBarsEntryMeetsThePrintThatFoundItOver() {
        var strategy = buyer();
        strategy.barType = Optional.of(new BarType.Time(10 * Given.SECOND));
        Tape tape = new TapeBuilder(4).add(OPEN + Given.SECOND, 10, 1, Tape.NONE, Tape.NONE)
                .add(OPEN + 9 * Given.SECOND, 12, 1, Tape.NONE, Tape.NONE)
                .add(OPEN + 12 * Given.SECOND, 15, 1, Tape.NONE, Tape.NONE)
                .add(OPEN + 13 * Given.SECOND, 16, 1, Tape.NONE, Tape.NONE).build();
        Run run = trial(tape, strategy);
        // what is sent in step (0) because of print 2 meets print 3 at the earliest
        assertEquals(fills(run).getFirst(), "3 buy 1 at 16 entry");
        assertEquals(run.engine().log().decisions().getFirst().time(), OPEN + 10 * Given.SECOND);
    }

    /** One print closes three bricks: each is judged by itself, oldest first, and the entry meets the next print. */
    @Test
    public void everyBrickOfAJumpIsJudged() {
        var strategy = Given.strategy().onlyLong("close > open");
        strategy.barType = Optional.of(new BarType.Renko(2, 4));
        strategy.adds = true;
        strategy.maximum = 9;
        Run run = trial(Given.tape(OPEN, 10, 16, 17, 17), strategy);
        assertEquals(decisions(run), List.of("1 taken", "1 taken", "1 taken"));
        assertEquals(fills(run).subList(0, 3),
                List.of("2 buy 1 at 17 entry", "2 buy 1 at 17 entry", "2 buy 1 at 17 entry"));
        assertEquals(run.engine().log().trades().getFirst().bars(), 0);
    }

    @Test
    public void rangeAndVolumeBarsAreJudgedWhereTheyClose() {
        var range = buyer();
        range.barType = Optional.of(new BarType.Range(3));
        // the print at 14 would make the range 4: the bar of 10 to 12 closes before it, the entry meets the next
        assertEquals(fills(trial(Given.tape(OPEN, 10, 12, 14, 15), range)).getFirst(), "3 buy 1 at 15 entry");
        var volume = buyer();
        volume.barType = Optional.of(new BarType.Volume(5));
        Tape tape = new TapeBuilder(4).add(OPEN, 10, 3, Tape.NONE, Tape.NONE)
                .add(OPEN + 1, 12, 9, Tape.NONE, Tape.NONE).add(OPEN + 2, 13, 1, Tape.NONE, Tape.NONE).build();
        // the second print completes bar 0 and all of bar 1, whose open is its close
        Run run = trial(tape, volume);
        assertEquals(decisions(run), List.of("1 taken"));
        assertEquals(fills(run).getFirst(), "2 buy 1 at 13 entry");
    }

    @Test
    public void rulesKnowTheOpenPosition() {
        // bars of two prints; bought with print 2 at 12, in bar 1: bar 3 is two bars since entry
        Tape tape = Given.tape(OPEN, 10, 11, 12, 12, 14, 14, 11, 11, 15, 15);
        Object[][] expected = {{"bars since entry = 2", "7"}, {"open result = -1 tick", "7"},
                {"open result > 2 ticks", "9"}, {"best excursion = 2 ticks", "5 7"},
                {"worst excursion = 1 tick", "7 9"}, {"best excursion >= open result + 3 ticks", "7"}};
        for (Object[] row : expected) {
            var strategy = Given.strategy().onlyLong("bars since session open = 0 or " + row[0]);
            strategy.adds = true;
            strategy.maximum = 1;
            String asked = trial(tape, strategy).engine().log().decisions().stream().skip(1)
                    .map(d -> String.valueOf(d.print())).collect(java.util.stream.Collectors.joining(" "));
            assertEquals(asked, row[1], (String) row[0]);
        }
    }

    @Test
    public void rulesKnowTheStrategysOwnTrades() {
        // bars of two prints; bought with print 2 at 12, stopped out with print 4 at 10, in bar 2
        Tape tape = Given.tape(OPEN, 10, 11, 12, 12, 10, 10, 11, 11, 12, 12);
        Object[][] expected = {{"bars since exit = 1", "7"}, {"bars since exit = 2 and losses in a row = 1", "9"},
                {"trades today = 1 and bars since exit = 0", "5"}, {"last result < 0 and bars since exit = 1", "7"},
                {"result today < 0 and bars since exit = 2", "9"},
                // stopped out where the stop stood, with the fees of both ways: exactly what was risked
                {"last result in R = -1 and bars since exit = 1", "7"},
                {"last result in R > -1 and bars since exit >= 0", ""},
                {"minutes since exit > 0.03 and bars since exit < 2", "7"},
                {"last result > 0 and bars since exit >= 0", ""}, {"losses in a row > 1", ""}};
        for (Object[] row : expected) {
            var strategy = Given.strategy().onlyLong("bars since session open = 0 or " + row[0]);
            strategy.plan = Given.plan(2);
            String asked = trial(tape, strategy).engine().log().decisions().stream().skip(1)
                    .map(d -> String.valueOf(d.print())).collect(java.util.stream.Collectors.joining(" "));
            assertEquals(asked, row[1], (String) row[0]);
        }
    }
}
