package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.Terms;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Said;

/** The person steps in: orders of their own, stops and targets moved, positions handed over. Values worked by hand from SEMANTICS. */
public class ByHandTest {
    private static final long OPEN = Given.at(0, "01:00:00");
    private static final Owner STRATEGY = new Owner.Strategy(0);
    private static final OptionalInt NO_PLAN = OptionalInt.empty();
    private static final OptionalInt ITS_PLAN = OptionalInt.of(0);

    private static Command.Enter market(Side side, int quantity, OptionalInt plan) {
        return new Command.Enter(side, Order.Type.MARKET, quantity, Tape.NONE, Tape.NONE, plan, false);
    }

    /** A strategy that buys once on the first bar that closes above its open, two contracts; stop 8, target 5 for one of them. */
    private static Given.Draft draft() {
        Given.Draft draft = Given.strategy();
        draft.onlyLong("close > open");
        draft.quantity = 2;
        draft.once = true;
        draft.plan = new ExitPlan("plan", "1", Optional.of(new stativex.exit.Distance.Ticks(8)),
                List.of(Given.target(1, 5), new ExitTerms.Target(1, Optional.empty())), Optional.empty(),
                List.of(new ExitTerms.TrailStep(4, 6, 1)));
        return draft;
    }

    private static Run run(Account account, long... prices) {
        return new Run(Inputs.of(Given.tape(OPEN, prices), Given.contract(0), account, List.of(draft().build()),
                Terms.DEFAULT));
    }

    private static Run run(long... prices) {
        return run(Given.account(), prices);
    }

    private static void steps(Run run, int steps) {
        for (int i = 0; i < steps; i++) {
            run.step();
        }
    }

    private static List<String> trades(Run run) {
        return run.engine().log().trades().stream()
                .map(t -> t.owner() + " " + t.side().word() + " " + t.quantity() + " "
                        + t.entrySum() + " " + t.exitSum() + " " + Said.reason(t.exitReason().orElseThrow()) + " "
                        + Money.text(t.net()))
                .toList();
    }

    @Test
    public void anOrderOfThePersonTakesThePlanThatItNames() {
        Run run = run(100, 100, 101, 103, 107, 101);
        steps(run, 1);
        run.command(market(Side.LONG, 1, ITS_PLAN));
        steps(run, 4);
        run.finish();
        // in at 100, target 5 beyond at 105: the print at 107 fills it at 105
        assertEquals(Said.fills(run), List.of("1 buy 1 at 100 entry", "4 sell 1 at 105 target 1"));
        assertEquals(trades(run), List.of("Person[] long 1 100 105 target 1 58.50"));
        assertEquals(Said.decisions(run), List.of("0 taken"));
    }

    @Test
    public void thePersonMayHoldTheOtherSideOfAStrategy() {
        Run run = run(100, 101, 101, 102, 103);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 3);
        run.command(market(Side.SHORT, 1, NO_PLAN));
        steps(run, 2);
        Snapshot now = run.engine().snapshot();
        assertEquals(now.strategies().getFirst().position().orElseThrow().open(), 2);
        assertEquals(now.hand().position().orElseThrow().side(), Side.SHORT);
        assertTrue(now.hand().position().orElseThrow().stop().isEmpty(), "without a plan nothing leaves by itself");
        run.command(new Command.Flatten(Owner.PERSON));
        run.finish();
        assertEquals(run.engine().log().trades(Owner.PERSON).size(), 1);
        assertEquals(run.engine().log().trades(STRATEGY).size(), 1);
    }

    @Test
    public void aStopIsTightenedAndLoosenedAndAutomationGoesOnFromWhatItAskedForLast() {
        Run run = run(100, 101, 101, 103, 107, 107, 104, 108, 103, 103, 102);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 4);
        int stop = run.engine().snapshot().orders().stream().filter(o -> o.type() == Order.Type.STOP).findFirst()
                .orElseThrow().number();
        run.command(new Command.Move(stop, 97));
        steps(run, 2);
        // best 6: the trail of 6 asks for 101 − 6 + 6 = 101
        assertEquals(level(run), 101L);
        run.command(new Command.Move(stop, 94));
        steps(run, 1);
        assertEquals(level(run), 94L, "what the trail asked for before it was loosened it does not ask for again");
        steps(run, 2);
        assertEquals(level(run), 102L, "at 108 it asks for more than ever");
        run.command(new Command.Move(stop, 109));
        assertEquals(level(run), 102L, "where the market is already it would be a flatten");
        assertEquals(Said.decisions(run).stream().filter(d -> d.contains("by hand")).toList(),
                List.of("3 by hand stop moved", "5 by hand stop loosened"));
    }

    private static ExitPlan plan(long stop, long activate, long distance, ExitTerms.Target... targets) {
        return new ExitPlan("other", "2", Optional.of(new stativex.exit.Distance.Ticks(stop)), List.of(targets),
                Optional.empty(), List.of(new ExitTerms.TrailStep(activate, distance, 1)));
    }

    @Test
    public void aChangedPlanTouchesTheNextTradeOnly() {
        Given.Draft draft = draft();
        draft.once = false;
        draft.quantity = 1;
        draft.plan = Given.plan(8);
        Run run = new Run(Inputs.of(Given.tape(OPEN, 100, 101, 101, 102, 93, 94, 94, 94, 91, 92), Given.contract(0),
                Given.account(), List.of(draft.build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 3);
        run.command(new Command.ChangePlan(0, Given.plan(3), false));
        assertEquals(level(run), 93L, "101 − 8");
        steps(run, 4);
        assertEquals(level(run), 91L, "94 − 3");
        assertEquals(run.engine().snapshot().strategies().getFirst().strategy().plan().longTerms(),
                Given.plan(3).longTerms());
        assertEquals(Said.decisions(run).stream().filter(d -> d.contains("by hand")).toList(),
                List.of("2 by hand plan changed"));
    }

    @Test
    public void appliedToTheOpenTradeItsBestSoFarCountsAndTheStopNeverLoosens() {
        Run run = run(100, 101, 101, 109, 104, 104, 104, 103);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 5);
        assertEquals(level(run), 103L, "best 8, the trail of 6 stands at 101 − 6 + 8");
        run.command(new Command.ChangePlan(0, plan(20, 10, 30, Given.target(2, 12)), true));
        steps(run, 1);
        assertEquals(level(run), 103L, "the new plan has it at 81: it stays");
        assertEquals(offered(run), List.of("1 at 113"), "the other leg's contract has left at 106");
        run.command(new Command.ChangePlan(0, plan(20, 7, 5, Given.target(2, 12)), true));
        steps(run, 1);
        run.finish();
        // best 8 reaches 7: 7 − 5 + 1 = 3 above 101 is 104, where the market is
        assertEquals(Said.fills(run).getLast(), "6 sell 1 at 104 stop at market");
        assertEquals(trades(run).getFirst().split(" ")[4], "210", "106 and 104");
    }

    private static List<String> offered(Run run) {
        return run.engine().snapshot().orders().stream().filter(o -> o.role() == Order.Role.TARGET)
                .map(o -> o.rest() + " at " + o.price().orElseThrow()).toList();
    }

    @Test
    public void anOpenTradeKeepsReadingTheStudiesOfItsOldPlan() {
        Given.Draft draft = draft();
        draft.quantity = 1;
        ExitTerms follows = new ExitTerms(
                Optional.of(new ExitTerms.Stop(new stativex.exit.Distance.Ticks(8), Optional.of("low - 1 tick"),
                        Optional.empty())),
                List.of(), Optional.empty(), List.of(), ExitTerms.Judged.EVERY_PRINT, List.of());
        draft.plan = new ExitPlan("plan", "1", follows);
        Run run = new Run(Inputs.of(Given.tape(OPEN, 100, 101, 101, 102, 103, 104, 106, 107, 108), Given.contract(0),
                Given.account(), List.of(draft.build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 5);
        assertEquals(level(run), 100L, "the bar 101, 102: a tick under its low");
        run.command(new Command.ChangePlan(0, Given.plan(30), false));
        steps(run, 4);
        assertEquals(level(run), 105L, "the bar 106, 107");
    }

    @Test
    public void anEntryThatNoLineWouldHoldWithTheNewStopEnds() {
        Given.Draft draft = draft();
        draft.longSide = Optional.of(Given.rule("close > open", "close - 20 ticks"));
        draft.type = Order.Type.LIMIT;
        draft.quantity = 1;
        draft.plan = Given.plan(8);
        Run run = new Run(Inputs.of(Given.tape(OPEN, 100, 101, 101, 101, 101), Given.contract(0),
                Given.account(Optional.of(new Account.DayLoss(300 * Money.UNIT, false)), Optional.empty(), List.of()),
                List.of(draft.build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 3);
        run.command(new Command.ChangePlan(0, Given.plan(10), false));
        steps(run, 1);
        assertEquals(run.engine().snapshot().orders().size(), 1, "10 × 12.50 and two fees are less than 300");
        run.command(new Command.ChangePlan(0, Given.plan(40), false));
        steps(run, 1);
        assertEquals(run.engine().snapshot().orders(), List.of());
        assertTrue(Said.decisions(run).getLast().contains("declined line check"), Said.decisions(run).toString());
    }

    /** A step of three: the best goes further, and the trail asks for the same level once more. */
    @Test
    public void aLoosenedStopStaysWhereTheTrailAsksForNothingNew() {
        Given.Draft draft = draft();
        draft.plan = new ExitPlan("plan", "1", Optional.of(new stativex.exit.Distance.Ticks(8)), List.of(),
                Optional.empty(), List.of(new ExitTerms.TrailStep(4, 6, 3)));
        Run run = new Run(Inputs.of(Given.tape(OPEN, 100, 101, 101, 106, 106, 107, 107, 108, 108), Given.contract(0),
                Given.account(), List.of(draft.build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 5);
        assertEquals(level(run), 99L, "best 5: 4 − 6");
        int stop = run.engine().snapshot().orders().getFirst().number();
        run.command(new Command.Move(stop, 94));
        steps(run, 2);
        assertEquals(level(run), 94L, "best 6 asks for 99 again");
        steps(run, 2);
        assertEquals(level(run), 102L, "best 7 is a step further");
    }

    @Test
    public void aTargetThatThePersonMovedStaysWhenTheAverageMoves() {
        Run run = run(100, 100, 100, 102, 102, 102);
        steps(run, 1);
        run.command(market(Side.LONG, 1, ITS_PLAN));
        steps(run, 1);
        Snapshot.OrderView target = run.engine().snapshot().orders().stream()
                .filter(o -> o.role() == Order.Role.TARGET).findFirst().orElseThrow();
        assertEquals(target.price(), Optional.of(105L));
        run.command(new Command.Move(target.number(), 104));
        steps(run, 1);
        run.command(market(Side.LONG, 1, ITS_PLAN));
        steps(run, 3);
        assertEquals(run.engine().snapshot().hand().position().orElseThrow().averageSum(), 101L);
        assertEquals(run.engine().snapshot().orders().stream().filter(o -> o.role() == Order.Role.TARGET)
                .map(o -> o.price().orElseThrow()).toList(), List.of(104L), "101 + 5 would be 106");
    }

    /** Of a new month's first print "the print before" is the new month's own: 200 lies above a buy limit of 198, 100 would lie below. */
    @Test
    public void beforeANewMonthsFirstPrintItsOwnLastPriceCounts() {
        java.util.function.BiFunction<Integer, long[], Tape> day = (at, prices) -> Given
                .tape(Given.at(at, "01:00:00") + (at == 1 ? Given.SECOND : 0), prices);
        TapeBuilder newer = new TapeBuilder(8);
        newer.add(OPEN, 200, 1, Tape.NONE, Tape.NONE);
        for (int i = 1; i <= 3; i++) {
            newer.add(Given.at(1, "01:00:00") + i * Given.SECOND, 198 - i, 1, Tape.NONE, Tape.NONE);
        }
        stativex.market.Join join = stativex.market.Join.of(
                List.of(new stativex.market.Join.Month("old", Given.contract(0),
                        day.apply(0, new long[]{100, 100, 100})),
                        new stativex.market.Join.Month("new", Given.contract(0), newer.build())),
                List.of(Given.MONDAY.plusDays(1)));
        Run run = new Run(new Inputs(join.tape(), Given.contract(0), java.util.Map.of(), Given.account(),
                List.of(draft().build()), Terms.DEFAULT, stativex.trial.Days.ALL,
                new long[]{Given.at(1, "01:00:00")}).rolling(stativex.market.Rolls.of(join)));
        steps(run, 4);
        run.command(new Command.Enter(Side.LONG, Order.Type.LIMIT, 1, 198, Tape.NONE, NO_PLAN, false));
        steps(run, 1);
        assertEquals(Said.fills(run), List.of("3 buy 1 at 198 entry"), "it rests, and 197 goes beyond it");
    }

    private static long level(Run run) {
        return run.engine().snapshot().strategies().getFirst().position().orElseThrow().stop().orElseThrow();
    }

    @Test
    public void looseningPassesTheLineCheckOrIsDeclined() {
        // two contracts from 101 to 93: 8 × 12.50 × 2, fees 2 × 2.00; the floor lies 300.00 away
        Account account = Given.account(Optional.empty(), Optional.empty(),
                List.of(new Rulebook.DrawdownFloor(300 * Money.UNIT, Optional.empty())));
        Run run = run(account, 100, 101, 101, 101, 101);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 4);
        int stop = run.engine().snapshot().orders().stream().filter(o -> o.type() == Order.Type.STOP).findFirst()
                .orElseThrow().number();
        run.command(new Command.Move(stop, 90));
        run.command(new Command.Move(stop, 89));
        steps(run, 1);
        assertEquals(level(run), 90L, "11 ticks are 275.00 and 8.00 of fees; 12 ticks reach the floor");
        assertEquals(Said.decisions(run), List.of("1 taken", "3 by hand stop loosened", "3 declined line check"));
    }

    @Test
    public void targetsAndEntriesMoveAndEnd() {
        Run run = run(100, 101, 101, 103, 103, 104, 106, 106, 98, 97);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 4);
        Snapshot.OrderView target = run.engine().snapshot().orders().stream()
                .filter(o -> o.type() == Order.Type.LIMIT).findFirst().orElseThrow();
        assertEquals(target.price(), Optional.of(106L));
        run.command(new Command.Move(target.number(), 103));
        run.command(new Command.Enter(Side.LONG, Order.Type.LIMIT, 1, 98, Tape.NONE, NO_PLAN, false));
        run.command(new Command.Enter(Side.LONG, Order.Type.LIMIT, 1, 99, Tape.NONE, NO_PLAN, false));
        steps(run, 2);
        List<Snapshot.OrderView> mine = run.engine().snapshot().hand().orders();
        assertEquals(mine.stream().map(o -> o.price().orElseThrow()).toList(), List.of(98L, 99L));
        run.command(new Command.Cancel(mine.get(1).number()));
        run.command(new Command.Move(mine.getFirst().number(), 99));
        steps(run, 4);
        assertEquals(Said.fills(run).subList(0, 3), List.of("2 buy 2 at 101 entry", "5 sell 1 at 103 target 1",
                "8 buy 1 at 99 entry"), "moved to 103 the print at 104 fills it; one of the person's limits is left");
    }

    @Test
    public void aPositionIsHandedOverAndBackWithoutAFill() {
        Run run = run(100, 101, 101, 103, 103, 104, 104, 104);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        steps(run, 4);
        long equity = run.engine().equity();
        run.command(new Command.HandOver(STRATEGY, Owner.PERSON));
        assertEquals(run.engine().equity(), equity);
        assertEquals(trades(run), List.of("Strategy[index=0] long 2 202 206 handed over 46.00"),
                "101 to 103, two contracts, only the fees of the entry");
        Snapshot.PositionView held = run.engine().snapshot().hand().position().orElseThrow();
        assertEquals(held.stop(), Optional.of(93L), "its stop and targets go on");
        assertEquals(held.averageSum(), 101L * held.averageQuantity(), "distances count from the real average");
        steps(run, 2);
        run.command(new Command.HandOver(Owner.PERSON, STRATEGY));
        assertEquals(trades(run).getLast(), "Person[] long 2 206 208 handed over 25.00", "103 to 104, without a fee");
        run.command(new Command.Flatten(0));
        steps(run, 2);
        run.finish();
        assertEquals(trades(run).getLast(), "Strategy[index=0] long 2 208 208 by hand -4.00");
        assertEquals(run.engine().log().fills().size(), 2);
        assertEquals(run.engine().log().trades().stream().mapToLong(Trade::net).sum(),
                run.engine().equity() - Given.account().start());
    }

    @Test
    public void aPlanIsAttachedToAnOpenPosition() {
        Run run = run(100, 100, 100, 104, 91);
        steps(run, 1);
        run.command(market(Side.LONG, 2, NO_PLAN));
        steps(run, 2);
        run.command(new Command.AttachPlan(0));
        assertEquals(run.engine().snapshot().hand().position().orElseThrow().stop(), Optional.of(92L));
        steps(run, 2);
        assertEquals(Said.fills(run), List.of("1 buy 2 at 100 entry", "4 sell 2 at 91 trail"),
                "104 is 4 beyond the real average: the trail asks for 98");
    }

    @Test
    public void theirTradesAreCountedByTheDay() {
        TapeBuilder tape = new TapeBuilder(8);
        for (int day = 0; day < 2; day++) {
            for (int i = 0; i < 4; i++) {
                tape.add(Given.at(day, "01:00:00") + i * Given.SECOND, 100 + i, 1, Tape.NONE, Tape.NONE);
            }
        }
        Run run = new Run(new Inputs(tape.build(), Given.contract(0), java.util.Map.of(), Given.account(),
                List.of(draft().build()), Terms.DEFAULT, stativex.trial.Days.ALL, new long[0]));
        for (int day = 0; day < 2; day++) {
            steps(run, 1);
            run.command(market(Side.LONG, 1, NO_PLAN));
            steps(run, 1);
            run.command(new Command.Flatten(Owner.PERSON));
            steps(run, 2);
        }
        assertEquals(run.engine().log().trades().stream().map(Trade::number).toList(), List.of(1, 1));
    }

    @Test
    public void linesHoldThePersonBackTheirOwnOnesOnlyUntilTheyAnswer() {
        Account account = Given.account(Optional.of(new Account.DayLoss(100 * Money.UNIT, false)), Optional.empty(),
                List.of(new Rulebook.DrawdownFloor(1_000 * Money.UNIT, Optional.empty())));
        Run run = run(account, 100, 100, 100, 100);
        steps(run, 1);
        run.command(market(Side.LONG, 1, ITS_PLAN));
        assertEquals(Said.decisions(run), List.of("0 declined line check"), "8 ticks are 100.00, fees beside");
        run.command(new Command.Enter(Side.LONG, Order.Type.MARKET, 1, Tape.NONE, Tape.NONE, ITS_PLAN, true));
        run.command(new Command.Enter(Side.LONG, Order.Type.MARKET, 9, Tape.NONE, Tape.NONE, ITS_PLAN, true));
        assertEquals(Said.decisions(run).subList(1, 5),
                List.of("0 by hand line check", "0 taken", "0 by hand line check", "0 declined line check"),
                "a rulebook's line is no question");
        run.command(new Command.FlatAndLock());
        run.command(market(Side.LONG, 1, ITS_PLAN));
        assertEquals(Said.decisions(run).getLast(), "0 declined locked");
    }

    @Test
    public void aStopLimitWhoseLimitIsTighterIsRefused() {
        Run run = run(100, 100, 100);
        steps(run, 1);
        run.command(new Command.Enter(Side.LONG, Order.Type.STOP_LIMIT, 1, 104, 103, NO_PLAN, false));
        assertEquals(Said.decisions(run), List.of("0 taken", "0 rejected limit tighter than its stop"));
    }

    /** Random tapes, strategies and acts: stretches come to the same as single prints, nothing is created or lost. */
    @Test
    public void whateverThePersonDoesAddsUp() {
        int acts = 0;
        int handedOver = 0;
        for (long seed = 1; seed <= 600; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            Inputs inputs = inputs(dice);
            Run clear = new Run(inputs);
            clear.command(new Command.SetMode(0, Mode.ENGAGED));
            Run fast = new Run(inputs, new stativex.market.Histories(), new stativex.rule.Worked());
            fast.command(new Command.SetMode(0, Mode.ENGAGED));
            int place = 0;
            while (!clear.atEnd()) {
                int until = place + dice.nextInt(1, 40);
                while (place < until && !clear.atEnd()) {
                    clear.step();
                    place++;
                }
                fast.toPlace(place);
                Optional<Command> act = act(dice, clear.engine().snapshot());
                if (act.isPresent()) {
                    clear.command(act.get());
                    fast.command(act.get());
                    acts++;
                }
            }
            clear.finish();
            fast.finish();
            Log log = clear.engine().log();
            assertEquals(fast.engine().log().fills().toString(), log.fills().toString(), "fills, seed " + seed);
            assertEquals(fast.engine().log().decisions().toString(), log.decisions().toString(), "seed " + seed);
            assertEquals(fast.engine().log().trades().toString(), log.trades().toString(), "trades, seed " + seed);
            assertEquals(log.fills().stream().mapToLong(f -> f.buy() ? f.quantity() : -f.quantity()).sum(), 0L);
            assertEquals(log.trades().stream().mapToLong(Trade::net).sum(),
                    clear.engine().equity() - inputs.account().start(), "every trade's net, seed " + seed);
            everythingLeaves(log.fills(), seed);
            handedOver += (int) log.trades().stream()
                    .filter(t -> Said.reason(t.exitReason().orElseThrow()).equals("handed over")).count();
        }
        assertTrue(acts > 3000 && handedOver > 100, acts + " acts, " + handedOver + " handed over");
    }

    private static void everythingLeaves(List<Fill> fills, long seed) {
        long held = 0;
        for (Fill fill : fills) {
            long signed = fill.buy() ? fill.quantity() : -fill.quantity();
            held += signed;
        }
        assertEquals(held, 0L, "seed " + seed);
    }

    private static Inputs inputs(SplittableRandom dice) {
        TapeBuilder tape = new TapeBuilder(600);
        long time = OPEN;
        long price = 1000;
        for (int i = 0; i < 600; i++) {
            tape.add(time, price, 1 + dice.nextInt(4), Tape.NONE, Tape.NONE);
            price += dice.nextInt(-2, 3) + (dice.nextInt(40) == 0 ? dice.nextInt(-15, 16) : 0);
            time += dice.nextLong(14 * Given.SECOND);
        }
        Given.Draft draft = Given.strategy();
        draft.bars = dice.nextInt(2, 9);
        draft.quantity = dice.nextInt(1, 4);
        draft.maximum = 2 * draft.quantity;
        draft.adds = dice.nextBoolean();
        draft.plan = new ExitPlan("plan", "1", Optional.of(new stativex.exit.Distance.Ticks(dice.nextInt(3, 20))),
                List.of(Given.target(1, dice.nextInt(1, 20)), Given.target(1, dice.nextInt(5, 30))), Optional.empty(),
                dice.nextBoolean()
                        ? List.of(new ExitTerms.TrailStep(dice.nextInt(6), dice.nextInt(2, 9), 1))
                        : List.of());
        Account account = Given.account(
                dice.nextBoolean()
                        ? Optional.of(new Account.DayLoss(dice.nextInt(500, 3000) * Money.UNIT, dice.nextBoolean()))
                        : Optional.empty(),
                Optional.empty(), List.of());
        return Inputs.of(tape.build(), Given.contract(dice.nextInt(2)), account, List.of(draft.build()),
                new Terms(stativex.order.Realism.values()[dice.nextInt(3)],
                        dice.nextBoolean() ? 0 : dice.nextLong(20 * Given.SECOND)));
    }

    private static Optional<Command> act(SplittableRandom dice, Snapshot now) {
        if (now.lastPrice().isEmpty()) {
            return Optional.empty();
        }
        long last = now.lastPrice().get();
        List<Snapshot.OrderView> orders = new ArrayList<>(now.orders());
        Optional<Snapshot.OrderView> order = orders.isEmpty()
                ? Optional.empty()
                : Optional.of(orders.get(dice.nextInt(orders.size())));
        Owner owner = dice.nextBoolean() ? Owner.PERSON : STRATEGY;
        return switch (dice.nextInt(12)) {
            case 0, 1, 2 -> {
                Order.Type type = Order.Type.values()[dice.nextInt(4)];
                Side side = dice.nextBoolean() ? Side.LONG : Side.SHORT;
                long price = last + dice.nextInt(-6, 7);
                yield Optional.of(new Command.Enter(side, type, dice.nextInt(1, 4),
                        type == Order.Type.MARKET ? Tape.NONE : price,
                        type == Order.Type.STOP_LIMIT ? price + side.sign() * dice.nextInt(-1, 4) : Tape.NONE,
                        dice.nextBoolean() ? ITS_PLAN : NO_PLAN, dice.nextBoolean()));
            }
            case 3, 4, 5 -> order.flatMap(o -> o.price()
                    .map(price -> new Command.Move(o.number(), price + dice.nextInt(-4, 5))));
            case 6 -> order.map(o -> new Command.Cancel(o.number()));
            case 7 -> Optional.of(dice.nextBoolean()
                    ? new Command.HandOver(STRATEGY, Owner.PERSON)
                    : new Command.HandOver(Owner.PERSON, STRATEGY));
            case 8 -> Optional.of(new Command.AttachPlan(0));
            case 9 -> Optional.of(new Command.HalfOff(owner));
            case 10 -> Optional.of(new Command.Breakeven(owner));
            default -> Optional.of(new Command.Flatten(owner));
        };
    }
}
