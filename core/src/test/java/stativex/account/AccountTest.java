package stativex.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.interlock.LineCheck;
import stativex.market.Money;

public class AccountTest {
    private static long money(String text) {
        return Money.parse(text);
    }

    @Test
    public void realisedResultIsByAverageCostRoundedDown() {
        Ledger ledger = new Ledger(0, 1, 1);
        ledger.fill(0, true, 3, 10, 0);
        ledger.fill(0, true, 4, 11, 0); // cost 74 over 7
        ledger.fill(0, false, 1, 12, 0); // share 74/7 = 10.57, taken as 11: result 1, rounded down from 1.43
        assertEquals(ledger.balance(), 1);
        assertEquals(ledger.openResult(0, 12), 6 * 12 - 63);
        ledger.fill(0, false, 6, 12, 0);
        assertEquals(ledger.balance(), 7 * 12 - 74, "the remainder stayed with the open part");
    }

    /** Law: balance plus open result is what was paid and received, exactly, whatever was filled. */
    @Test
    public void balancePlusOpenResultIsExact() {
        SplittableRandom dice = new SplittableRandom(3);
        for (int round = 0; round < 500; round++) {
            long tickValue = dice.nextInt(1, 100_000);
            Ledger ledger = new Ledger(1_000_000, tickValue, 2);
            long cash = 1_000_000;
            long[] held = new long[2];
            long[] results = new long[2];
            for (int i = 0; i < 40; i++) {
                int owner = dice.nextInt(2);
                boolean buy = dice.nextBoolean();
                long quantity = dice.nextInt(1, 9);
                long price = dice.nextInt(-500, 500);
                long fee = dice.nextInt(1000);
                ledger.fill(owner, buy, quantity, price, fee);
                long paid = (buy ? quantity : -quantity) * price * tickValue;
                cash -= paid + fee;
                results[owner] -= paid + fee;
                held[owner] += buy ? quantity : -quantity;
                long last = dice.nextInt(-500, 500);
                assertEquals(ledger.equity(last), cash + (held[0] + held[1]) * last * tickValue);
                assertEquals(ledger.result(owner, last), results[owner] + held[owner] * last * tickValue);
                assertEquals(ledger.contractsOpen(), Math.abs(held[0]) + Math.abs(held[1]));
            }
        }
    }

    @Test
    public void theFloorTrailsThePeakAndLocks() {
        Floor floor = new Floor(new Rulebook.DrawdownFloor(money("1700"), Optional.of(money("40000"))),
                money("40000"));
        assertEquals(floor.level(), money("38300"));
        assertFalse(floor.judge(money("40900")));
        assertEquals(floor.level(), money("39200"));
        assertFalse(floor.judge(money("39200.01")), "a hair above");
        assertTrue(floor.judge(money("39200")), "broken when equity is at the floor");
        floor.judge(money("45000"));
        assertEquals(floor.level(), money("40000"), "it locks at the start balance");
        assertThrows(IllegalArgumentException.class,
                () -> new Floor(new Rulebook.DrawdownFloor(money("100"), Optional.of(money("39000"))),
                        money("40000")));
    }

    /** The floor against a recomputation from the whole history of equity. */
    @Test
    public void theFloorAgreesWithAPlainTwin() {
        SplittableRandom dice = new SplittableRandom(9);
        for (int round = 0; round < 1000; round++) {
            long start = 1000;
            long allowance = dice.nextInt(1, 300);
            Optional<Long> lock = dice.nextBoolean()
                    ? Optional.of(start - allowance + dice.nextInt(0, 400))
                    : Optional.empty();
            Floor floor = new Floor(new Rulebook.DrawdownFloor(allowance, lock), start);
            long equity = start;
            long highest = start;
            for (int i = 0; i < 100; i++) {
                equity += dice.nextInt(-30, 31);
                highest = Math.max(highest, equity);
                long level = lock.isPresent() && highest - allowance > lock.get() ? lock.get() : highest - allowance;
                assertEquals(floor.judge(equity), equity <= level);
                assertEquals(floor.level(), level);
            }
        }
    }

    @Test
    public void headroomIsSaidThreeWays() {
        // 268.75 above the floor with 2 contracts at 6.25 a tick: 21 ticks; a stop-out of 16 ticks + 1 + two fees
        Line floor = new Line("Trailing floor", money("39210"), money("1700"), true);
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
        Line line = new Line("Own day loss", money("-520"), money("520"), true);
        Line profit = new Line("Profit lock", money("1040"), money("1040"), false);
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
}
