package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.order.Owner;
import stativex.account.OwnLimits;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.account.AccountState;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Sizing;
import stativex.interlock.InterlockKind;
import stativex.engine.Strategy;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Order;
import stativex.order.Realism;
import stativex.order.Terms;

/** How entries are sent, how much they take and how they fill, print by print. Expected values are worked by hand from SEMANTICS. */
public class EntriesTest {
    private static final long OPEN = Given.at(0, "01:00:00");
    /** A stop-out of one contract at a stop of 8 ticks: 8 × 12.50, slippage 12.50, two fees of 2.00. */
    private static final long STOP_OUT = 116_5000L;

    private static Run trial(Tape tape, Given.Draft draft, Account account, Terms terms, int slippage) {
        return Run.trial(
                Inputs.of(tape, Given.contract(slippage), account, List.of(draft.build()), terms));
    }

    private static Given.Draft once(Strategy.Entry entry, String price) {
        Given.Draft draft = Given.strategy();
        draft.onlyLong("close > open");
        draft.longSide = Optional.of(price.isEmpty() ? Given.rule("close > open") : Given.rule("close > open", price));
        draft.entry = Optional.of(entry);
        draft.once = true;
        draft.maximum = entry.quantity();
        return draft;
    }

    private static Strategy.Entry stopLimit(int beyond) {
        return new Strategy.Entry(Order.Type.STOP_LIMIT, 2, new Strategy.GoodFor.Day(), false, Optional.empty(), false,
                beyond, Strategy.Risk.NONE);
    }

    /** Bars of two prints; the signal is 100, 101, so the stop stands at 104 and its limit at 105. */
    @DataProvider
    public Object[][] stopLimits() {
        return new Object[][]{
                {new long[]{100, 101, 103, 104, 104}, List.of("3 buy 1 at 104 entry", "4 buy 1 at 105 entry"),
                        "reached at 104 and passed (103 before it lies inside 105): that print fills what it holds, the rest"
                                + " rests at 105 and the print at 104 goes beyond it"},
                {new long[]{100, 101, 103, 107, 106, 105, 104}, List.of("6 buy 1 at 105 entry"),
                        "the print jumps over the limit: it rests, 105 is not beyond it, 104 is"},
                {new long[]{100, 101, 103, 107, 108}, List.of(), "it jumps over the limit and stays there"},
                {new long[]{100, 101, 103, 102, 101}, List.of(), "never reached"}};
    }

    @Test(dataProvider = "stopLimits")
    public void stopLimitIsReachedLikeAStopAndIsALimitFromThatPrintOn(long[] prices, List<String> fills, String why) {
        Run run = trial(Given.tape(OPEN, prices), once(stopLimit(1), "close + 3 ticks"), Given.account(), Terms.DEFAULT,
                1);
        assertEquals(Said.fills(run).stream().filter(f -> f.endsWith("entry")).toList(), fills, why);
    }

    /** A buy limit at 99 joins a bid of 5; the prints at 99 hold 3, 4 and 2: five stand ahead. */
    @Test
    public void inTheQueueTheContractsAheadTradeFirst() {
        TapeBuilder tape = new TapeBuilder(8);
        long[][] prints = {{100, 1}, {101, 1}, {100, 1}, {99, 3}, {99, 4}, {99, 2}, {100, 1}};
        for (int i = 0; i < prints.length; i++) {
            tape.add(OPEN + i * Given.SECOND, prints[i][0], prints[i][1], 99, 101, 5, 7, Optional.empty());
        }
        Strategy.Entry limit = new Strategy.Entry(Order.Type.LIMIT, 3, new Strategy.GoodFor.Day());
        Tape given = tape.build();
        assertEquals(entries(given, limit, new Terms(Realism.QUEUE, 0)),
                List.of("4 buy 2 at 99 entry", "5 buy 1 at 99 entry"), "5 − 3 are ahead of the print of 4");
        assertEquals(entries(given, limit, Terms.DEFAULT), List.of(), "nothing trades beyond 99");
        assertEquals(entries(given, limit, new Terms(Realism.TOUCH, 0)), List.of("3 buy 3 at 99 entry"));
        Tape bare = Given.tape(OPEN, 100, 101, 100, 99, 99, 99, 100);
        assertEquals(entries(bare, limit, new Terms(Realism.QUEUE, 0, 2)), List.of("5 buy 1 at 99 entry"),
                "without sizes two are assumed ahead; single prints take them, then us");
    }

    private static List<String> entries(Tape tape, Strategy.Entry entry, Terms terms) {
        return Said.fills(trial(tape, once(entry, "close - 2 ticks"), Given.account(), terms, 0)).stream()
                .filter(f -> f.endsWith("entry")).toList();
    }

    /** Buy stop 2 above and sell stop 2 below the close, both from one bar. */
    private static Given.Draft pair(boolean twoSided) {
        Given.Draft draft = Given.strategy();
        draft.longSide = Optional.of(Given.rule("close > open", "close + 2 ticks"));
        draft.shortSide = Optional.of(Given.rule("close > open", "close - 2 ticks"));
        draft.type = Order.Type.STOP;
        draft.twoSided = twoSided;
        return draft;
    }

    @Test
    public void firstContractOfATwoSidedEntryEndsTheOtherSide() {
        Tape down = Given.tape(OPEN, 100, 101, 100, 99, 98, 104, 105);
        Run run = trial(down, pair(true), Given.account(), Terms.DEFAULT, 0);
        assertEquals(Said.decisions(run).subList(0, 2), List.of("1 taken", "1 taken"));
        assertEquals(Said.fills(run).getFirst(), "3 sell 1 at 99 entry");
        assertEquals(run.engine().log().fills().stream().filter(f -> f.buy() && Said.reason(f.reason()).equals("entry"))
                .count(), 0, "the buy stop at 103 has ended with the sell's fill");
        Run alone = trial(down, pair(false), Given.account(), Terms.DEFAULT, 0);
        assertEquals(Said.decisions(alone).subList(0, 2), List.of("1 taken", "1 declined opposite position"));
    }

    /** Each side alone costs 1 000 ticks; together they would cross the day loss. */
    @Test
    public void aTwoSidedEntryRisksItsWorseSideOnly() {
        Account account = Given.account(Optional.of(new Account.DayLoss(13_000 * Money.UNIT, false)), Optional.empty(),
                List.of());
        Run run = trial(Given.tape(OPEN, 100, 101, 101), pair(true), account, Terms.DEFAULT, 0);
        assertEquals(Said.decisions(run), List.of("1 taken", "1 taken"));
        Account tight = Given.account(Optional.of(new Account.DayLoss(12_500 * Money.UNIT, false)), Optional.empty(),
                List.of());
        assertEquals(Said.decisions(trial(Given.tape(OPEN, 100, 101, 101), pair(true), tight, Terms.DEFAULT, 0)),
                List.of("1 declined line check", "1 declined line check"));
    }

    @DataProvider
    public Object[][] sizes() {
        Sizing three = new Sizing.Amount(3 * STOP_OUT);
        Sizing lessThanThree = new Sizing.Amount(3 * STOP_OUT - 1);
        // the floor is 1 000.00 away: 23.3 % are 233.00, exactly two stop-outs
        Sizing percent = new Sizing.Percent(new BigDecimal("23.3"));
        return new Object[][]{{Optional.of(three), 0L, false, "taken", 3},
                {Optional.of(lessThanThree), 0L, false, "taken", 2},
                {Optional.of(new Sizing.Amount(STOP_OUT - 1)), 0L, false, "declined risk cap", 0},
                {Optional.of(percent), 0L, false, "taken", 2},
                {Optional.of(new Sizing.Percent(new BigDecimal("23.29"))), 0L, false, "taken", 1},
                {Optional.empty(), 4 * STOP_OUT, false, "declined risk cap", 0},
                {Optional.empty(), 5 * STOP_OUT, false, "taken", 5},
                {Optional.empty(), 4 * STOP_OUT, true, "taken asked 5, granted 4", 4},
                // a risk cap of 600.00 leaves five, the line check four: five stop-outs of 116.50 are 582.50, the floor is 1 000.00 away
                {Optional.of(three), 2 * STOP_OUT, true, "taken asked 3, granted 2", 2}};
    }

    @Test(dataProvider = "sizes")
    public void quantityIsFixedOrByRiskAndCappedOrCut(Optional<Sizing> sizing, long cap, boolean cut, String said,
            int filled) {
        Strategy.Entry entry = new Strategy.Entry(Order.Type.MARKET, 5, new Strategy.GoodFor.Day(), false,
                Optional.empty(), false, 0,
                new Strategy.Risk(sizing, cap > 0 ? Optional.of(cap) : Optional.empty()));
        Given.Draft draft = once(entry, "");
        draft.plan = Given.plan(8);
        draft.maximum = 5;
        draft.cutting = cut;
        Account account = Given.account(Optional.empty(), Optional.empty(),
                List.of(new Rulebook.DrawdownFloor(1_000 * Money.UNIT, Optional.empty())));
        Run run = trial(Given.tape(OPEN, 100, 101, 101), draft, account, Terms.DEFAULT, 1);
        assertEquals(Said.decisions(run).getFirst(), "1 " + said);
        assertEquals(run.engine().log().fills().stream().filter(f -> f.buy()).mapToInt(f -> f.quantity()).sum(),
                filled);
    }

    /** The card of a strategy whose size comes to nothing, with a stop for the whole position: there is nothing to divide by. */
    @Test
    public void aSizeOfNothingIsShown() {
        Strategy.Entry entry = new Strategy.Entry(Order.Type.MARKET, 5, new Strategy.GoodFor.Day(), false,
                Optional.empty(), false, 0,
                new Strategy.Risk(Optional.of(new Sizing.Amount(Money.UNIT)), Optional.empty()));
        Given.Draft draft = once(entry, "");
        draft.plan = new ExitPlan("whole", "1", Optional.of(new Distance.WholePosition(400 * Money.UNIT)), List.of(),
                Optional.empty(), List.of());
        Account account = Given.account(Optional.empty(), Optional.empty(),
                List.of(new Rulebook.DrawdownFloor(1_000 * Money.UNIT, Optional.empty())));
        Run run = trial(Given.tape(OPEN, 100, 101, 101), draft, account, Terms.DEFAULT, 1);
        assertEquals(Said.decisions(run).getFirst(), "1 declined risk cap");
        assertEquals(run.engine().snapshot().strategies().getFirst().position(), Optional.empty());
    }

    /** The card before the first print of a live day: no stop-out can be reckoned, and no size. */
    @Test(dataProvider = "sizes")
    public void beforeTheFirstPrintNoCapIsInTheWay(Optional<Sizing> sizing, long cap, boolean cut, String said,
            int filled) {
        Strategy.Entry entry = new Strategy.Entry(Order.Type.MARKET, 5, new Strategy.GoodFor.Day(), false,
                Optional.empty(), false, 0,
                new Strategy.Risk(sizing, cap > 0 ? Optional.of(cap) : Optional.empty()));
        Given.Draft draft = once(entry, "");
        draft.plan = Given.plan(8);
        LiveRun live = new LiveRun(new LiveRun.Start(Given.contract(1), Given.account(), List.of(draft.build()),
                new TapeBuilder(1).build(), Optional.empty(), AccountState.fresh(Given.account()), "test"));
        live.take(new LiveInput.Asked(new Command.SetMode(0, Mode.ENGAGED)));
        assertTrue(live.engine().snapshot().strategies().getFirst().standing().interlocks().stream()
                .filter(one -> one.kind() == InterlockKind.RISK_CAP).allMatch(one -> one.refusals().isEmpty()));
    }

    @Test
    public void aMaximumPositionCutsWhereItMay() {
        Contract contract = Given.contract(0);
        Given.Draft draft = once(new Strategy.Entry(Order.Type.MARKET, 8, new Strategy.GoodFor.Day()), "");
        draft.maximum = 6;
        draft.cutting = true;
        Run run = Run
                .trial(Inputs.of(Given.tape(OPEN, 100, 101, 101), contract, Given.account(), List.of(draft.build()),
                        Terms.DEFAULT));
        assertEquals(Said.decisions(run).getFirst(), "1 taken asked 8, granted 6");
    }

    /** A reverse that waits for its exit is a trade to come, in the account's count too. */
    @Test
    public void whatWaitsToTurnRoundCountsAsATrade() {
        Given.Draft turning = Given.strategy();
        turning.reverse = true;
        Given.Draft other = Given.strategy().onlyLong("close > open and close < 27");
        other.name = "Slack water";
        // 2.5 s until an order is at work: the exit that was asked for at the sixth print has not filled at the eighth
        Terms late = new Terms(Realism.THROUGH, 2_500_000_000L);
        for (int most = 2; most <= 3; most++) {
            Account account = Given.account().with(OwnLimits.NONE.withTrades(most));
            Run run = Run.trial(Inputs.of(
                    Given.tape(Given.at(0, "01:00:01"), 110, 111, 111, 111, 111, 105, 105, 106, 106, 106, 106, 106,
                            106),
                    Given.contract(0), account, List.of(turning.build(), other.build()), late));
            List<String> at = run.engine().log().decisions().stream()
                    .filter(d -> d.print() == 7 && d.owner().equals(Optional.of(new Owner.Strategy(1))))
                    .map(Said::decision).toList();
            assertEquals(at, List.of(most == 2 ? "declined trades a day" : "taken"), "at most " + most);
        }
    }
}
