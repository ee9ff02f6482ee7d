package stativex.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.interlock.LineCheck;
import stativex.market.Bounds;
import stativex.market.Money;
import stativex.order.Owner;

public class AccountTest {
    private static long money(String text) {
        return Money.parse(text);
    }

    @Test
    public void realisedResultIsByAverageCostRoundedDown() {
        Ledger ledger = new Ledger(0);
        Ledger.Holding holding = ledger.holding(1);
        Owner owner = new Owner.Strategy(0);
        holding.fill(owner, true, 3, 10, 0);
        holding.fill(owner, true, 4, 11, 0); // cost 74 over 7
        holding.fill(owner, false, 1, 12, 0); // share 74/7 = 10.57, taken as 11: result 1, rounded down from 1.43
        assertEquals(ledger.balance(), 1);
        holding.mark(12);
        assertEquals(holding.position(owner).openResult(), 6 * 12 - 63);
        holding.fill(owner, false, 6, 12, 0);
        assertEquals(ledger.balance(), 7 * 12 - 74, "the remainder stayed with the open part");
    }

    /** Law: balance plus open result is what was paid and received, exactly, whatever was filled. */
    @Test
    public void balancePlusOpenResultIsExact() {
        SplittableRandom dice = new SplittableRandom(3);
        for (int round = 0; round < 500; round++) {
            // two contracts with a tick value each, two owners of each: a strategy and the person
            long[] tickValues = {dice.nextInt(1, 100_000), dice.nextInt(1, 100_000)};
            Ledger ledger = new Ledger(1_000_000);
            Ledger.Holding[] holdings = {ledger.holding(tickValues[0]), ledger.holding(tickValues[1])};
            Owner[] owners = {new Owner.Strategy(0), new Owner.Person()};
            long cash = 1_000_000;
            long[][] held = new long[2][2];
            long[][] results = new long[2][2];
            long[] last = new long[2];
            for (int i = 0; i < 40; i++) {
                int contract = dice.nextInt(2);
                int owner = dice.nextInt(2);
                boolean buy = dice.nextBoolean();
                long quantity = dice.nextInt(1, 9);
                long price = dice.nextInt(-500, 500);
                long fee = dice.nextInt(1000);
                holdings[contract].fill(owners[owner], buy, quantity, price, fee);
                long paid = (buy ? quantity : -quantity) * price * tickValues[contract];
                cash -= paid + fee;
                results[contract][owner] -= paid + fee;
                held[contract][owner] += buy ? quantity : -quantity;
                last[contract] = dice.nextInt(-500, 500);
                holdings[contract].mark(last[contract]);
                long equity = cash;
                for (int c = 0; c < 2; c++) {
                    equity += (held[c][0] + held[c][1]) * last[c] * tickValues[c];
                    assertEquals(holdings[c].open(), Math.abs(held[c][0]) + Math.abs(held[c][1]));
                    for (int o = 0; o < 2; o++) {
                        assertEquals(holdings[c].position(owners[o]).result(),
                                results[c][o] + held[c][o] * last[c] * tickValues[c]);
                    }
                }
                assertEquals(ledger.equity(), equity);
                bounds(ledger, holdings[contract], dice);
            }
        }
    }

    /** Between the prices drawn for two equities, equity lies between them; at them and beyond it does not. */
    private static void bounds(Ledger ledger, Ledger.Holding holding, SplittableRandom dice) {
        long low = ledger.equity() - dice.nextLong(1, 9_000_000);
        long high = ledger.equity() + dice.nextLong(1, 9_000_000);
        Bounds bounds = new Bounds();
        holding.bound(low, high, bounds);
        for (long price = -600; price < 600; price += 7) {
            long equity = holding.equityAtZero() + holding.perTick() * price;
            boolean between = low < equity && equity < high;
            assertEquals(bounds.down() < price && price < bounds.up(), between, "price " + price);
        }
    }

    private static AccountWatch watch(long start, Rulebook.DrawdownFloor floor) {
        Account account = new Account("Gannet Row 40K", "NZD", start, Map.of(), Optional.empty(), Optional.empty(),
                new Rulebook("rules", List.of(floor)));
        return new AccountWatch(account, AccountState.fresh(account));
    }

    private static long floor(AccountWatch watch, long equity) {
        return watch.lines(equity).getFirst().money();
    }

    @Test
    public void theFloorTrailsThePeakAndLocks() {
        Rulebook.DrawdownFloor rule = new Rulebook.DrawdownFloor(money("1700"), Optional.of(money("40000")));
        AccountWatch watch = watch(money("40000"), rule);
        assertEquals(floor(watch, money("40000")), money("38300"));
        assertEquals(watch.judge(money("40900"), 0), Optional.empty());
        assertEquals(floor(watch, money("40000")), money("39200"));
        assertEquals(watch.judge(money("39200.01"), 0), Optional.empty(), "a hair above");
        AccountState kept = watch.state(money("39200.01"));
        assertEquals(watch.judge(money("39200"), 0),
                Optional.of(new AccountWatch.Verdict(LineKind.DRAWDOWN_FLOOR, false)),
                "broken when equity is at the floor");
        assertTrue(watch.broken());
        watch.judge(money("45000"), 0);
        assertEquals(floor(watch, money("45000")), money("40000"), "it locks at the start balance");
        Account account = new Account("again", "NZD", money("40000"), Map.of(), Optional.empty(), Optional.empty(),
                new Rulebook("rules", List.of(rule)));
        AccountWatch again = new AccountWatch(account, kept);
        assertEquals(floor(again, 0), money("39200"), "the peak goes out and in with the state");
        assertThrows(IllegalArgumentException.class, () -> watch(money("40000"),
                new Rulebook.DrawdownFloor(money("100"), Optional.of(money("39000")))));
    }

    /** The floor, and how far equity may go until it must be judged, against a recomputation from the whole history. */
    @Test
    public void theFloorAgreesWithAPlainTwin() {
        SplittableRandom dice = new SplittableRandom(9);
        for (int round = 0; round < 1000; round++) {
            long start = 1000;
            long allowance = dice.nextInt(1, 300);
            Optional<Long> lock = dice.nextBoolean()
                    ? Optional.of(start - allowance + dice.nextInt(0, 400))
                    : Optional.empty();
            AccountWatch watch = watch(start, new Rulebook.DrawdownFloor(allowance, lock));
            long equity = start;
            long highest = start;
            long above = Long.MIN_VALUE;
            long below = Long.MIN_VALUE;
            for (int i = 0; i < 100; i++) {
                equity += dice.nextInt(-30, 31);
                highest = Math.max(highest, equity);
                long level = lock.isPresent() && highest - allowance > lock.get() ? lock.get() : highest - allowance;
                boolean broken = equity <= level;
                if (below < equity && equity < above) {
                    assertFalse(broken, "quiet, though the floor is reached");
                }
                assertEquals(watch.judge(equity, 0).isPresent(), broken && highest > Long.MIN_VALUE);
                assertEquals(floor(watch, equity), level);
                if (broken) {
                    break;
                }
                above = watch.quietAbove(equity, 0);
                below = watch.quietBelow(equity, 0, above);
                assertTrue(below < equity && equity < above, "something is quiet");
            }
        }
    }

    @Test
    public void headroomIsSaidThreeWays() {
        // 268.75 above the floor with 2 contracts at 6.25 a tick: 21 ticks; a stop-out of 16 ticks + 1 + two fees
        Line floor = new Line(LineKind.DRAWDOWN_FLOOR, money("39210"), money("1700"));
        long stopOut = 17 * money("6.25") + 2 * money("2.15");
        Headroom headroom = Headroom.of(floor, money("39478.75"), money("6.25"), 2, Optional.of(stopOut));
        assertEquals(headroom.money(), money("268.75"));
        assertEquals(headroom.ticks(), 21);
        assertEquals(headroom.tenthsOfStopOuts(), Optional.of(12L), "268.75 ÷ 221.10 = 1.21");
        assertTrue(headroom.near(), "below 20 % of the allowance");
        Headroom far = Headroom.of(floor, money("40900"), money("6.25"), 2, Optional.of(stopOut));
        assertFalse(far.near());
        Headroom tight = Headroom.of(floor, money("39750"), money("6.25"), 8, Optional.of(stopOut));
        assertTrue(tight.near(), "below one full stop-out");
        assertEquals(Headroom.of(floor, money("39200"), money("6.25"), 1, Optional.empty()).ticks(), -2);
    }

    @Test
    public void theLineCheckMustStayStrictlyAbove() {
        Line line = new Line(LineKind.DAY_LOSS, money("-520"), money("520"));
        Line profit = new Line(LineKind.DAY_PROFIT, money("1040"), money("1040"));
        // one contract, 40 ticks of 12.50, costs 20: at most 520 may go
        LineCheck check = new LineCheck().risk(1, Optional.of(40L), money("12.50"), money("20"));
        assertEquals(check.loss(), money("520"));
        assertTrue(check.crossed(0, List.of(line, profit)).isPresent());
        assertTrue(check.crossed(1, List.of(line, profit)).isEmpty());
        LineCheck inside = new LineCheck().risk(2, Optional.of(-5L), money("12.50"), money("1"));
        assertEquals(inside.loss(), money("2"), "a stop already in profit costs no ticks, and gives none");
        LineCheck none = new LineCheck().risk(1, Optional.empty(), money("12.50"), 0);
        assertTrue(none.crossed(money("9000"), List.of(line)).isPresent(), "without a stop any line fails");
        assertTrue(none.crossed(money("9000"), List.of(profit)).isEmpty());
    }

    /** As CONTRIBUTING says: a rule of a rulebook is one class and one line. */
    @Test
    public void aFurtherRuleIsOneClassAndOneLine() {
        record StaticFloor(long level) implements Judge {
            @Override
            public LineKind kind() {
                return LineKind.DRAWDOWN_FLOOR;
            }

            @Override
            public long allowance() {
                return 100;
            }

            @Override
            public long reachedAt(long peak, long dayStart, long closing) {
                return level;
            }
        }
        Account account = new Account("a", "NZD", 1000, Map.of(), Optional.empty(), Optional.of(50L),
                new Rulebook("rules", List.of()));
        List<Judge> judges = new java.util.ArrayList<>(AccountWatch.judges(account));
        judges.addFirst(new StaticFloor(900));
        AccountWatch watch = new AccountWatch(judges, AccountState.fresh(account));
        assertEquals(watch.lines(1000).stream().map(Line::money).toList(), List.of(900L, 1050L));
        assertEquals(List.of(watch.quietBelow(1000, 0, 1050), watch.quietAbove(1000, 0)), List.of(900L, 1050L));
        assertEquals(watch.judge(1050, 0).orElseThrow().line(), LineKind.DAY_PROFIT);
        assertEquals(watch.judge(901, 0), Optional.empty());
        assertEquals(watch.judge(900, 0).orElseThrow().line(), LineKind.DRAWDOWN_FLOOR);
        assertTrue(watch.broken());
    }
}
