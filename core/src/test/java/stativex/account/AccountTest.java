package stativex.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
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
        Account account = new Account("Gannet Row 40K", "NZD", start, Map.of(), OwnLimits.NONE,
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
        assertEquals(watch.judge(money("40900"), Closing.NOTHING), Optional.empty());
        assertEquals(floor(watch, money("40000")), money("39200"));
        assertEquals(watch.judge(money("39200.01"), Closing.NOTHING), Optional.empty(), "a hair above");
        AccountState kept = watch.state(money("39200.01"));
        assertEquals(watch.judge(money("39200"), Closing.NOTHING),
                Optional.of(new AccountWatch.Verdict(LineKind.DRAWDOWN_FLOOR, false, money("-800"), money("40000"))),
                "broken when equity is at the floor");
        assertTrue(watch.broken());
        watch.judge(money("45000"), Closing.NOTHING);
        assertEquals(floor(watch, money("45000")), money("40000"), "it locks at the start balance");
        Account account = new Account("again", "NZD", money("40000"), Map.of(), OwnLimits.NONE,
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
                assertEquals(watch.judge(equity, Closing.NOTHING).isPresent(), broken && highest > Long.MIN_VALUE);
                assertEquals(floor(watch, equity), level);
                if (broken) {
                    break;
                }
                above = watch.quietAbove(equity, Closing.NOTHING);
                below = watch.quietBelow(equity, Closing.NOTHING, above);
                assertTrue(below < equity && equity < above, "something is quiet");
            }
        }
    }

    @Test
    public void headroomIsSaidThreeWays() {
        // 268.75 above the floor with 2 contracts at 6.25 a tick: 21 ticks; a stop-out of 16 ticks + 1 + two fees
        Line floor = new Line(LineKind.DRAWDOWN_FLOOR, money("39210"), money("1700"));
        long stopOut = 17 * money("6.25") + 2 * money("2.15");
        Headroom headroom = Headroom.of(floor, money("39478.75"), money("6.25"), 2, Optional.of(stopOut),
                ForThePerson.Near.DEFAULT);
        assertEquals(headroom.money(), money("268.75"));
        assertEquals(headroom.ticks(), 21);
        assertEquals(headroom.tenthsOfStopOuts(), Optional.of(12L), "268.75 ÷ 221.10 = 1.21");
        assertTrue(headroom.near(), "below 20 % of the allowance");
        Headroom far = Headroom.of(floor, money("40900"), money("6.25"), 2, Optional.of(stopOut),
                ForThePerson.Near.DEFAULT);
        assertFalse(far.near());
        Headroom tight = Headroom.of(floor, money("39750"), money("6.25"), 8, Optional.of(stopOut),
                ForThePerson.Near.DEFAULT);
        assertTrue(tight.near(), "below one full stop-out");
        assertEquals(Headroom.of(floor, money("39200"), money("6.25"), 1, Optional.empty(), ForThePerson.Near.DEFAULT)
                .ticks(), -2);
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

    /** Every kind of line over random days, against a recomputation of each from the whole history. */
    @Test
    public void everyLineAgreesWithAPlainTwin() {
        SplittableRandom dice = new SplittableRandom(13);
        int[] seen = new int[LineKind.values().length];
        int guards = 0;
        for (int round = 0; round < 4000; round++) {
            PlainLines twin = new PlainLines(dice);
            AccountWatch watch = new AccountWatch(twin.account, AccountState.fresh(twin.account));
            long above = Long.MIN_VALUE;
            long below = Long.MAX_VALUE;
            for (int i = 0; i < 150; i++) {
                if (dice.nextInt(25) == 0) {
                    twin.beginDay();
                    watch.beginDay(twin.equity(), twin.balance);
                    below = Long.MAX_VALUE;
                }
                if (dice.nextInt(6) == 0) {
                    twin.trade(dice);
                    below = Long.MAX_VALUE;
                }
                twin.moves(dice.nextInt(-25, 26));
                Closing closing = twin.open == 0
                        ? Closing.NOTHING
                        : new Closing(Math.abs(twin.open) * 7L, Math.abs(twin.open) * 3L);
                String expected = twin.judge(closing.money(), closing.perTick());
                if (below < twin.equity() && twin.equity() < above) {
                    assertEquals(expected, "", "quiet, though a line is reached, round " + round);
                }
                Optional<AccountWatch.Verdict> verdict = watch.judge(twin.equity(), closing);
                assertEquals(verdict.map(v -> v.line() + (v.guarded() ? " guarded" : "")).orElse(""), expected,
                        "round " + round + ", " + twin.account);
                assertEquals(watch.broken(), twin.broken);
                assertEquals(watch.lock().isPresent(), twin.locked);
                verdict.ifPresent(v -> seen[v.line().ordinal()]++);
                guards += verdict.filter(AccountWatch.Verdict::guarded).isPresent() ? 1 : 0;
                above = watch.quietAbove(twin.equity(), closing);
                below = watch.quietBelow(twin.equity(), closing, above);
            }
        }
        for (LineKind kind : List.of(LineKind.DAY_LOSS, LineKind.GIVE_BACK, LineKind.BOOK_DAY_LOSS,
                LineKind.DRAWDOWN_FLOOR, LineKind.DAY_PROFIT)) {
            assertTrue(seen[kind.ordinal()] > 100, kind + " was met " + seen[kind.ordinal()] + " times");
        }
        assertTrue(guards > 300, guards + " guards");
    }

    /** SEMANTICS read once more: everything from the list of what has happened. */
    private static final class PlainLines {
        final Account account;
        long balance = 1000;
        long open;
        long openResult;
        boolean begun;
        boolean broken;
        boolean locked;
        private final List<Long> equities = new java.util.ArrayList<>(List.of(1000L));
        private final List<Long> closes = new java.util.ArrayList<>(List.of(1000L));
        private int dayFrom;
        private long dayEquity = 1000;
        private long dayBalance = 1000;

        PlainLines(SplittableRandom dice) {
            List<Rulebook.Rule> rules = new java.util.ArrayList<>();
            if (dice.nextBoolean()) {
                Rulebook.Trails trails = Rulebook.Trails.values()[dice.nextInt(3)];
                long allowance = dice.nextInt(60, 400);
                rules.add(new Rulebook.DrawdownFloor(trails, allowance,
                        trails == Rulebook.Trails.STATIC || dice.nextBoolean()
                                ? Optional.empty()
                                : Optional.of(1000 - allowance + dice.nextInt(0, 500)),
                        guard(dice)));
            }
            if (dice.nextBoolean()) {
                rules.add(new Rulebook.DayLoss(dice.nextInt(30, 250), Rulebook.From.values()[dice.nextInt(2)],
                        dice.nextInt(3) == 0, guard(dice)));
            }
            account = new Account("a", "NZD", 1000, Map.of(), new OwnLimits(
                    dice.nextBoolean()
                            ? Optional.of(new Account.DayLoss(dice.nextInt(30, 250), guard(dice)))
                            : Optional.empty(),
                    dice.nextBoolean() ? Optional.of(dice.nextLong(60, 300)) : Optional.empty(),
                    dice.nextBoolean()
                            ? Optional.of(new GiveBack(dice.nextInt(20, 150), dice.nextInt(20, 200), guard(dice)))
                            : Optional.empty(),
                    Optional.empty(), Optional.empty(), QuietTimes.NONE, Map.of(), ForThePerson.DEFAULT),
                    new Rulebook("rules", rules));
        }

        private static Guard guard(SplittableRandom dice) {
            return new Guard(dice.nextBoolean(), dice.nextInt(0, 30), dice.nextInt(0, 5));
        }

        long equity() {
            return balance + openResult;
        }

        void moves(int by) {
            openResult += open == 0 ? 0 : by;
        }

        void trade(SplittableRandom dice) {
            if (open == 0) {
                open = dice.nextInt(1, 4);
            } else {
                balance += openResult - 2;
                openResult = 0;
                open = 0;
            }
        }

        void beginDay() {
            if (begun) {
                closes.add(balance);
            }
            begun = true;
            locked = false;
            dayEquity = equity();
            dayBalance = balance;
            dayFrom = equities.size();
        }

        private boolean at(long level, Guard guard, long closing, long perTick, boolean[] guarded) {
            if (equity() <= level) {
                return true;
            }
            long margin = guard.money() + guard.ticks() * perTick;
            guarded[0] = guard.on() && open != 0 && equity() - closing <= level + margin;
            return guarded[0];
        }

        private long floor(Rulebook.DrawdownFloor rule) {
            long from = switch (rule.trails()) {
                case STATIC -> 1000;
                case END_OF_DAY -> closes.stream().mapToLong(x -> x).max().orElseThrow();
                case INTRADAY -> equities.stream().mapToLong(x -> x).max().orElseThrow();
            };
            return Math.min(from - rule.allowance(), rule.lock().orElse(Long.MAX_VALUE));
        }

        String judge(long closing, long perTick) {
            equities.add(equity());
            if (broken) {
                return "";
            }
            List<Rulebook.DayLoss> losses = account.rulebook().of(Rulebook.DayLoss.class).toList();
            Optional<Rulebook.DrawdownFloor> rule = account.rulebook().floor();
            if (rule.isPresent() && equity() <= floor(rule.get())) {
                broken = true;
                return "DRAWDOWN_FLOOR";
            }
            for (Rulebook.DayLoss loss : losses) {
                if (loss.breaks() && equity() <= base(loss) - loss.amount()) {
                    broken = true;
                    return "BOOK_DAY_LOSS";
                }
            }
            if (locked) {
                return "";
            }
            boolean[] guarded = {false};
            String met = "";
            if (rule.isPresent() && at(floor(rule.get()), rule.get().guard(), closing, perTick, guarded)) {
                met = "DRAWDOWN_FLOOR";
            }
            for (Rulebook.DayLoss loss : losses) {
                if (met.isEmpty() && at(base(loss) - loss.amount(), loss.guard(), closing, perTick, guarded)) {
                    met = "BOOK_DAY_LOSS";
                }
            }
            if (met.isEmpty() && account.own().dayLoss().isPresent()
                    && at(dayEquity - account.own().dayLoss().get().amount(),
                            account.own().dayLoss().get().guard(), closing, perTick, guarded)) {
                met = "DAY_LOSS";
            }
            long best = Math.max(dayEquity,
                    equities.subList(dayFrom, equities.size()).stream().mapToLong(x -> x).max().orElseThrow());
            if (met.isEmpty() && account.own().giveBack().isPresent()
                    && best - dayEquity >= account.own().giveBack().get().after()
                    && at(best - account.own().giveBack().get().fall(), account.own().giveBack().get().guard(), closing,
                            perTick,
                            guarded)) {
                met = "GIVE_BACK";
            }
            if (met.isEmpty() && account.own().dayProfit().isPresent()
                    && equity() >= dayEquity + account.own().dayProfit().get()) {
                met = "DAY_PROFIT";
            }
            locked = !met.isEmpty();
            return met + (guarded[0] && !met.isEmpty() ? " guarded" : "");
        }

        private long base(Rulebook.DayLoss loss) {
            return loss.from() == Rulebook.From.BALANCE ? dayBalance : dayEquity;
        }
    }

    @Test
    public void aLosingRunPausesAndIsCountedAnew() {
        Account account = new Account("a", "NZD", 1000, Map.of(),
                OwnLimits.NONE.with(new LosingRun(2, OptionalInt.of(30))), new Rulebook("rules", List.of()));
        AccountWatch watch = new AccountWatch(account, AccountState.fresh(account));
        long minute = 60_000_000_000L;
        watch.beginDay(1000, 1000);
        watch.ended(-5, minute);
        watch.ended(0, 2 * minute);
        watch.ended(-5, 3 * minute);
        assertTrue(watch.pausedAt(3 * minute).isEmpty(), "a trade at 0 is no loss: it is counted anew");
        watch.ended(-5, 4 * minute);
        assertEquals(watch.pausedAt(33 * minute).getAsLong(), 34 * minute);
        assertTrue(watch.pausedAt(34 * minute).isEmpty());
        watch.ended(-5, 35 * minute);
        watch.beginDay(900, 900);
        watch.ended(-5, 36 * minute);
        assertTrue(watch.pausedAt(36 * minute).isEmpty(), "anew each day");
        Account whole = new Account("a", "NZD", 1000, Map.of(),
                OwnLimits.NONE.with(new LosingRun(1, OptionalInt.empty())), new Rulebook("rules", List.of()));
        AccountWatch day = new AccountWatch(whole, AccountState.fresh(whole));
        day.beginDay(1000, 1000);
        day.ended(-1, minute);
        assertEquals(day.pausedAt(Long.MAX_VALUE - 1).getAsLong(), Losses.NEXT_DAY);
        AccountState kept = day.state(999);
        assertTrue(new AccountWatch(whole, kept).pausedAt(0).isPresent(), "it goes out and in with the state");
        day.beginDay(999, 999);
        assertTrue(day.pausedAt(0).isEmpty());
    }

    /** As CONTRIBUTING says: a rule of a rulebook is one class and one line. */
    @Test
    public void aFurtherRuleIsOneClassAndOneLine() {
        record Level(long level) implements Judge {
            @Override
            public LineKind kind() {
                return LineKind.DRAWDOWN_FLOOR;
            }

            @Override
            public long allowance() {
                return 100;
            }

            @Override
            public long at(Heights s) {
                return level;
            }

            @Override
            public boolean breaks() {
                return true;
            }
        }
        Account account = new Account("a", "NZD", 1000, Map.of(), OwnLimits.day(Optional.empty(), Optional.of(50L)),
                new Rulebook("rules", List.of()));
        List<Judge> judges = new java.util.ArrayList<>(AccountWatch.judges(account));
        judges.addFirst(new Level(900));
        AccountWatch watch = new AccountWatch(judges, Optional.empty(), AccountState.fresh(account));
        assertEquals(watch.lines(1000).stream().map(Line::money).toList(), List.of(900L, 1050L));
        assertEquals(List.of(watch.quietBelow(1000, Closing.NOTHING, 1050),
                watch.quietAbove(1000, Closing.NOTHING)), List.of(900L, 1050L));
        assertEquals(watch.judge(1050, Closing.NOTHING).orElseThrow().line(), LineKind.DAY_PROFIT);
        assertEquals(watch.judge(901, Closing.NOTHING), Optional.empty());
        assertEquals(watch.judge(900, Closing.NOTHING).orElseThrow().line(), LineKind.DRAWDOWN_FLOOR);
        assertTrue(watch.broken());
    }
}
