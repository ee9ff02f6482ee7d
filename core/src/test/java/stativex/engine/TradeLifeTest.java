package stativex.engine;

import static org.testng.Assert.assertEquals;

import java.util.List;
import java.util.Optional;
import org.testng.annotations.Test;
import stativex.exit.Average;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Order;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Said;
import stativex.trial.Summary;

/** From an entry's sending to the figures of its trade, each by an example that can be worked by hand. */
public class TradeLifeTest {
    private static final long OPEN = Given.at(0, "01:00:00");

    private static Run trial(Tape tape, Contract contract, Given.Draft strategy, Terms terms) {
        return Run.trial(Inputs.of(tape, contract, Given.account(), List.of(strategy.build()), terms));
    }

    private static Run trial(Tape tape, Given.Draft strategy) {
        return trial(tape, Given.contract(0), strategy, Terms.DEFAULT);
    }

    private static List<String> fills(Run run) {
        return Said.fills(run);
    }

    private static List<String> decisions(Run run) {
        return Said.decisions(run);
    }

    private static Trade trade(Run run) {
        return run.engine().log().trades().getFirst();
    }

    private static Given.Draft stopBuyer(int bars) {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.longSide = Optional.of(Given.rule("close > open", "close + 1 tick"));
        draft.type = Order.Type.STOP;
        draft.goodFor = new Strategy.GoodFor.Bars(bars);
        return draft;
    }

    @Test
    public void anEntryOfEveryTradeDiesWithTheFirstCloseWhenGoodForOneBar() {
        Given.Draft draft = stopBuyer(1);
        draft.bars = 3;
        draft.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        // true inside the bar at 11: a stop at 12; the bar closes at 11, so 12 comes too late
        assertEquals(fills(trial(Given.tape(OPEN, 10, 11, 11, 12, 12), draft)), List.of());
        assertEquals(fills(trial(Given.tape(OPEN, 10, 11, 12, 12), draft)).getFirst(), "2 buy 1 at 12 entry");
        draft.goodFor = new Strategy.GoodFor.Bars(2);
        assertEquals(fills(trial(Given.tape(OPEN, 10, 11, 11, 12, 12), draft)).getFirst(), "3 buy 1 at 12 entry");
    }

    @Test
    public void barsThatOnePrintClosesAreClosedBeforeAnyIsJudged() {
        Given.Draft draft = stopBuyer(1);
        draft.longSide = Optional.of(Given.rule("close > open", "close"));
        draft.barType = Optional.of(new BarType.Renko(1, 1));
        Run run = trial(Given.tape(OPEN, 100, 103, 102), draft);
        assertEquals(decisions(run),
                List.of("1 taken", "1 declined adds not allowed", "1 declined adds not allowed"));
        assertEquals(fills(run).getFirst(), "2 buy 1 at 102 entry");
    }

    @Test
    public void aMoneyStopIsNeverFurtherThanAsked() {
        Contract contract = Given.contract("1", "1", 0);
        Distance stop = new Distance.PerContract(Money.parse("5.40"));
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.adds = true;
        draft.maximum = 2;
        draft.plan = new ExitPlan("plan", "1", Optional.of(stop), List.of(), Optional.empty(), List.of());
        // entries at 100 and 101, then down
        Run run = trial(Given.tape(OPEN, 98, 99, 100, 101, 101, 97, 96, 95, 94), contract, draft, Terms.DEFAULT);
        assertEquals(fills(run).getLast(), "6 sell 2 at 96 stop");
    }

    @Test
    public void excursionsTakeEveryExitFillAndTheAverageOfTheirPrint() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.quantity = 2;
        draft.plan = Given.plan(50, Given.target(1, 5), Given.target(1, 2));
        // both legs leave on one print that lies far beyond: their own prices count, not the print's
        Run run = trial(Given.tape(OPEN, 98, 99, 100, 110, 111), Given.contract(0), draft, new Terms(Realism.TOUCH, 0));
        assertEquals(fills(run).subList(0, 3),
                List.of("2 buy 2 at 100 entry", "3 sell 1 at 105 target 1", "3 sell 1 at 102 target 2"));
        assertEquals(List.of(trade(run).mae(), trade(run).mfe()), List.of(0L, 5L));

        draft.quantity = 1;
        draft.adds = true;
        draft.maximum = 2;
        draft.plan = Given.plan(50);
        // 100, up to 104, down to 99, and 103 joins: average 101.5, up to 106 and out at the end
        run = trial(Given.tape(OPEN, 98, 99, 100, 104, 99, 99, 98, 99, 103, 106, 106, 105), draft);
        assertEquals(fills(run).subList(0, 2), List.of("2 buy 1 at 100 entry", "4 buy 1 at 99 entry"));
        assertEquals(trade(run).mfe(), 6, "106 against 99.5, rounded down");
        assertEquals(trade(run).mae(), 2, "98 against 99.5, rounded up; 99 stood against 100 once");
    }

    @Test
    public void aBrickThatTheCloseDiscardsIsBarZeroAllTheSame() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.barType = Optional.of(new BarType.Renko(2, 2));
        long late = Given.at(0, "01:59:00");
        long day = Given.at(0, "03:00:00");
        TapeBuilder tape = new TapeBuilder(8);
        tape.add(OPEN, 100, 1, Tape.NONE, Tape.NONE).add(late, 102, 1, Tape.NONE, Tape.NONE)
                .add(late + 1, 103, 1, Tape.NONE, Tape.NONE);
        for (long price : new long[]{103, 105, 107, 109}) {
            tape.add(day++, price, 1, Tape.NONE, Tape.NONE);
        }
        Run run = trial(tape.build(), draft);
        assertEquals(fills(run).getFirst(), "2 buy 1 at 103 entry");
        assertEquals(trade(run).bars(), 3, "three bricks have closed since");
    }

    @Test
    public void signalsCountAnewAtEachWindowsOwnBeginning() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.most = Optional.of(new SignalPlan.Most(1, SignalPeriod.WINDOW));
        draft.plan = Given.plan(50, Given.target(1, 1));
        draft.windows = List.of(Given.window("Early", "01:00", "01:10", SessionWindow.End.STOP_ENTERING, 0),
                Given.window("Touching", "01:10", "01:20", SessionWindow.End.STOP_ENTERING, 0));
        TapeBuilder tape = new TapeBuilder(20);
        for (String time : List.of("01:01:00", "01:04:00", "01:11:00", "01:14:00")) {
            long price = 10;
            for (int i = 0; i < 4; i++) {
                tape.add(Given.at(0, time) + i * Given.SECOND, price + 2 * i, 1, Tape.NONE, Tape.NONE);
            }
        }
        assertEquals(decisions(trial(tape.build(), draft)).stream().filter(d -> d.contains("taken")).toList(),
                List.of("1 taken", "9 taken"));
    }

    @Test
    public void whatTheBestReachesAfterAnAddIsJudgedWithThatPrintsStops() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.adds = true;
        draft.maximum = 2;
        draft.plan = new ExitPlan("plan", "1", Optional.of(new Distance.Ticks(20)), List.of(),
                Optional.of(new ExitTerms.Breakeven(5, -3)), List.of());
        // in at 100, best 104; 94 joins and makes the average 97: 104 lies 7 beyond, so the stop stands at 94, which that print
        // has reached: judged in its step (4), at the level or beyond
        Run run = trial(Given.tape(OPEN, 98, 99, 100, 104, 94, 94, 95, 96), draft);
        assertEquals(fills(run),
                List.of("2 buy 1 at 100 entry", "4 buy 1 at 94 entry", "5 sell 2 at 94 stop at market"));
        assertEquals(
                trade(run).stops().stream().map(s -> s.print() + " " + s.level() + " " + Said.word(s.origin()))
                        .toList(),
                List.of("2 80 stop", "4 94 breakeven"));
    }

    @Test
    public void theInitialStopIsTheTighterOfPlanAndTrailFromTheStart() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.plan = new ExitPlan("plan", "1", Optional.of(new Distance.Ticks(20)), List.of(), Optional.empty(),
                List.of(new ExitTerms.TrailStep(0, 8, 1)));
        Run run = trial(Given.tape(OPEN, 98, 99, 100, 100, 92), draft);
        assertEquals(trade(run).initialStop(), Optional.of(8L));
        assertEquals(fills(run).getLast(), "4 sell 1 at 92 trail");
    }

    @Test
    public void exitsAreWorkedLeaveStopTargetsAtThePlaceOfTheFirst() {
        // 98 joins and moves the target, so that another strategy's entry was accepted between stop and target; the print at 110
        // has room for one contract
        Given.Draft first = Given.strategy().onlyLong("close > open");
        first.adds = true;
        first.maximum = 2;
        first.plan = Given.plan(50, Given.target(2, 4));
        Given.Draft other = Given.strategy();
        other.name = "Slack water";
        other.longSide = Optional.empty();
        other.shortSide = Optional.of(Given.rule("close > 24.75", "close + 4 ticks"));
        other.type = Order.Type.LIMIT;
        Run run = Run
                .trial(Inputs.of(Given.tape(OPEN, 98, 99, 100, 101, 98, 110, 98), Given.contract(0), Given.account(),
                        List.of(first.build(), other.build()), Terms.DEFAULT));
        assertEquals(fills(run).subList(0, 3),
                List.of("2 buy 1 at 100 entry", "4 buy 1 at 98 entry", "5 sell 1 at 103 target 1"));
    }

    @Test
    public void whatOnlyTheSessionsCloseBringsEntersNoMore() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.barType = Optional.of(new BarType.Time(600 * Given.SECOND));
        long end = Given.at(0, "01:35:00");
        Tape tape = new TapeBuilder(4).add(end, 10, 1, Tape.NONE, Tape.NONE).add(end + 1, 12, 1, Tape.NONE, Tape.NONE)
                .add(Given.at(0, "03:00:05"), 12, 1, Tape.NONE, Tape.NONE).build();
        // the bar ends at 01:40, and nothing comes before the session's close at 02:00
        draft.barType = Optional.of(new BarType.Time(600 * Given.SECOND));
        Run run = trial(tape, patient(), draft, Terms.DEFAULT);
        assertEquals(decisions(run), List.of("1 declined session closed"));
    }

    private static Contract patient() {
        Contract c = Given.contract(0);
        var calendar = new stativex.market.SessionCalendar(java.time.ZoneOffset.UTC,
                java.util.Map.of(Given.MONDAY.getDayOfWeek(), Given.calendar().sessions(Given.MONDAY).stream()
                        .map(s -> new stativex.market.SessionCalendar.Hours(s.name(),
                                java.time.LocalTime.ofSecondOfDay(Math.floorMod(s.open() / Given.SECOND, 86_400)), 0,
                                java.time.LocalTime.ofSecondOfDay(Math.floorMod(s.close() / Given.SECOND, 86_400)), 0))
                        .toList()),
                java.util.Map.of(), 7200 * Given.SECOND);
        return new Contract(c.symbol(), c.name(), c.currency(), c.tickSize(), c.tickValue(), c.slippage(), calendar,
                Optional.empty());
    }

    @Test
    public void averageTradeAndCostThatKillsItAreRoundedAlikeForGainsAndLosses() {
        for (int sign : new int[]{1, -1}) {
            Given.Draft draft = Given.strategy();
            draft.longSide = sign > 0 ? draft.longSide : Optional.empty();
            draft.shortSide = sign > 0 ? Optional.empty() : Optional.of(Given.rule("close > open"));
            draft.plan = Given.plan(50);
            Run run = trial(Given.tape(OPEN, 98, 99, 100, 104), draft);
            Summary s = Summary.of(run);
            long net = sign * 4 * 125_000L - 40_000;
            assertEquals(s.net(), net);
            assertEquals(s.averageTrade().orElseThrow(), net);
            assertEquals(s.killingCost(), sign > 0 ? Optional.of(net) : Optional.empty(), "absent when net is no gain");
        }
    }
}
