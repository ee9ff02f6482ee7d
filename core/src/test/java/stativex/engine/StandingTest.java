package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.Test;
import stativex.interlock.InterlockKind;
import stativex.interlock.InterlockView;
import stativex.interlock.Lacking;
import stativex.interlock.Reason;
import stativex.interlock.Refusal;
import stativex.interlock.SignalPeriod;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Terms;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Said;

/** What the screen says of a strategy is what its next signal meets. */
public class StandingTest {
    private static final long OPEN = Given.at(0, "01:00:00");

    private static Run run(Tape tape, Contract contract, Given.Draft draft) {
        Run run = new Run(Inputs.of(tape, contract, Given.account(), List.of(draft.build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        return run;
    }

    private static Snapshot.StrategyView view(Run run) {
        return run.engine().snapshot().strategies().getFirst();
    }

    private static InterlockView interlock(Run run, InterlockKind kind) {
        return view(run).interlocks().stream().filter(v -> v.kind() == kind).findFirst().orElseThrow();
    }

    private static List<Reason> why(Run run) {
        return ((StrategyState.NotTrading) view(run).state()).why().stream().map(Refusal::reason).toList();
    }

    private static List<String> decisions(Run run) {
        return Said.decisions(run);
    }

    @Test
    public void onTheLastTradingDayNothingWaitsForASignal() {
        Contract c = Given.contract(0);
        Contract last = new Contract(c.symbol(), c.name(), c.currency(), c.tickSize(), c.tickValue(), c.slippage(),
                c.calendar(), Optional.of(Given.MONDAY));
        Run run = run(Given.tape(OPEN, 10, 11, 12, 13), last, Given.strategy());
        run.toPlace(1);
        assertEquals(why(run), List.of(Reason.LAST_TRADING_DAY));
        assertEquals(interlock(run, InterlockKind.LAST_TRADING_DAY).state(), InterlockView.State.HELD);
        run.toPlace(2);
        assertEquals(decisions(run), List.of("1 declined last trading day"));
    }

    @Test
    public void aSideWhoseSignalsAreUsedUpIsNotWaitedFor() {
        Given.Draft draft = Given.strategy();
        draft.most = Optional.of(new SignalPlan.Most(1, SignalPeriod.DAY));
        draft.plan = Given.plan(50, Given.target(1, 1));
        Run run = run(Given.tape(OPEN, 10, 11, 12, 14, 14, 13, 12, 10, 10, 11), Given.contract(0), draft);
        run.toPlace(4);
        assertEquals(Said.fills(run).size(), 2, "in and out with its target");
        assertEquals(view(run).state(), new StrategyState.Waiting(Set.of(Side.SHORT)));
        assertFalse(interlock(run, InterlockKind.SIGNALS).every());
        assertEquals(interlock(run, InterlockKind.SIGNALS).refusals(),
                List.of(new Refusal.SignalsPerPeriod(Side.LONG, 1, SignalPeriod.DAY)));
        run.toPlace(8);
        assertEquals(why(run), List.of(Reason.SIGNALS_PER_PERIOD, Reason.SIGNALS_PER_PERIOD));
        assertEquals(interlock(run, InterlockKind.SIGNALS).state(), InterlockView.State.HELD);
    }

    @Test
    public void aStrategyOnTimeBarsStandsALateBeginningAndSaysSo() {
        Given.Draft draft = Given.strategy();
        draft.barType = Optional.of(new BarType.Time(2 * Given.SECOND));
        Tape late = Given.tape(OPEN + 62 * Given.SECOND, 10, 11, 12, 13);
        Run run = run(late, Given.contract(0), draft);
        run.toPlace(2);
        assertTrue(view(run).state() instanceof StrategyState.Waiting, view(run).state().toString());
        assertEquals(interlock(run, InterlockKind.SESSION).state(), InterlockView.State.CLEAR);
        run.toPlace(3);
        assertEquals(decisions(run), List.of("2 taken"));
        draft.barType = Optional.of(new BarType.Ticks(2));
        run = run(late, Given.contract(0), draft);
        run.toPlace(1);
        assertEquals(((StrategyState.NotTrading) view(run).state()).why(),
                List.of(new Refusal.SessionIncomplete(Lacking.JOINED_LATE)));
    }

    @Test
    public void anEntryThatRestsTakesTheLastTradeOfTheDay() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.longSide = Optional.of(Given.rule("close > open", "close - 5 ticks"));
        draft.type = Order.Type.LIMIT;
        draft.tradesADay = Optional.of(1);
        draft.adds = true;
        draft.maximum = 9;
        Run run = run(Given.tape(OPEN, 10, 11, 11, 12), Given.contract(0), draft);
        run.toPlace(3);
        assertEquals(view(run).state(), new StrategyState.Entering());
        assertEquals(interlock(run, InterlockKind.TRADES).refusals(),
                List.of(new Refusal.TradesADay(Refusal.Of.STRATEGY, 0, 1, 1)));
        assertEquals(interlock(run, InterlockKind.TRADES).state(), InterlockView.State.HELD);
        run.toPlace(4);
        assertEquals(decisions(run), List.of("1 taken", "3 declined trades a day"));
    }

    @Test
    public void theListStandsInTheOrderInWhichItIsAsked() {
        Given.Draft draft = Given.strategy();
        draft.tradesADay = Optional.of(3);
        List<InterlockKind> kinds = view(run(Given.tape(OPEN, 10, 11), Given.contract(0), draft)).interlocks().stream()
                .map(InterlockView::kind).toList();
        assertEquals(kinds, kinds.stream().sorted().toList());
        assertEquals(kinds.subList(0, 3),
                List.of(InterlockKind.STRATEGY, InterlockKind.FEED, InterlockKind.SESSION));
        assertTrue(Arrays.asList(InterlockKind.values()).containsAll(kinds));
    }

    /** What is said before a print holds for the signals of that print, as long as only they come with it. */
    @Test
    public void whatIsSaidIsWhatTheNextSignalMeets() {
        int declined = 0;
        for (long seed = 1; seed <= 200; seed++) {
            java.util.SplittableRandom dice = new java.util.SplittableRandom(seed);
            Given.Draft draft = Given.strategy();
            draft.bars = 1;
            draft.longSide = Optional.of(Given.rule("close > close 1 bar before"));
            draft.shortSide = Optional.of(Given.rule("close < close 1 bar before"));
            draft.adds = dice.nextBoolean();
            draft.maximum = dice.nextInt(1, 4);
            draft.tradesADay = dice.nextBoolean() ? Optional.of(dice.nextInt(1, 4)) : Optional.empty();
            draft.most = dice.nextBoolean()
                    ? Optional.of(new SignalPlan.Most(dice.nextInt(1, 4), SignalPeriod.DAY))
                    : Optional.empty();
            draft.plan = Given.plan(500);
            Run run = run(Given.tape(OPEN, dice.longs(60, 100, 110).toArray()), Given.contract(0), draft);
            for (int print = 0; print < 60; print++) {
                List<InterlockView> before = view(run).interlocks();
                int known = run.engine().log().decisions().size();
                int fills = run.engine().log().fills().size();
                run.toPlace(print + 1);
                List<Decision> after = run.engine().log().decisions();
                boolean filled = run.engine().log().fills().size() > fills;
                if (print > 0 && !filled && after.size() > known
                        && after.getLast().outcome() instanceof Decision.Declined why) {
                    Side side = after.getLast().side().orElseThrow();
                    assertTrue(before.stream().anyMatch(v -> v.refusals().contains(why.refusal())),
                            "seed " + seed + ", print " + print + ", " + side + " " + why.refusal() + " in " + before);
                    declined++;
                }
            }
        }
        assertTrue(declined > 1000, declined + " declined");
    }
}
