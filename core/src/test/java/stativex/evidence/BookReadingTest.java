package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.Guard;
import stativex.account.LineKind;
import stativex.account.Rulebook;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** What a rulebook would have said of past days, worked by hand. */
public class BookReadingTest {
    private static final long TICK = 125_000;
    private static final long FEE = 20_000;

    /** Buys on the third print of a day, sells on the last one but one; 12.50 a tick, 2.00 a side. */
    private static Run run(long[]... days) {
        Tape tape = null;
        List<Tape.Part> parts = new ArrayList<>();
        for (int d = 0; d < days.length; d++) {
            tape = Given.tape(Given.at(d, "01:00:01"), days[d]);
            parts.add(new Tape.Part(tape, 0, tape.count(), 0));
        }
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.tradesADay = Optional.of(1);
        draft.windows = List.of(Given.window("First", "01:00", "01:00:08",
                stativex.interlock.SessionWindow.End.FLATTEN, 1));
        return FreeTrial.run(Inputs.of(Tape.joined(parts), Given.contract(0), Given.account(), List.of(draft.build()),
                Terms.DEFAULT), 1);
    }

    private static Account with(Rulebook.Rule... rules) {
        return Given.account().with(new Rulebook("book", List.of(rules)));
    }

    /** Prices 100 101 then the walk: bought at the third, sold at the eighth. */
    private static long[] day(long... walk) {
        long[] prices = new long[walk.length + 2];
        prices[0] = 100;
        prices[1] = 101;
        System.arraycopy(walk, 0, prices, 2, walk.length);
        return prices;
    }

    @Test
    public void aFloorThatTrailsLocksAndBreaksOnItsDay() {
        Run run = run(day(101, 121, 121, 121, 121, 121, 121, 121), day(101, 90, 80, 70, 60, 60, 60, 60));
        assertEquals(run.engine().log().trades().size(), 2);
        BookReading reading = BookReading.of(run, with(new Rulebook.DrawdownFloor(400 * Money.UNIT,
                Optional.of(39_850 * Money.UNIT))));
        BookReading.Day first = reading.days().getFirst();
        assertEquals(first.result(), 20 * TICK - 2 * FEE);
        assertEquals(first.high(), 20 * TICK - FEE, "before the way out is paid");
        assertEquals(first.floor().getAsLong(), 39_600 * Money.UNIT);
        assertEquals(first.floorAfter().getAsLong(), 40_000 * Money.UNIT + 20 * TICK - FEE - 400 * Money.UNIT);
        assertEquals(first.end(), BookReading.End.WHOLE);
        BookReading.Day second = reading.days().getLast();
        assertEquals(second.end(), BookReading.End.BROKEN);
        assertEquals(second.line(), Optional.of(LineKind.DRAWDOWN_FLOOR));
        assertEquals(reading.over(), Optional.of(second));
        // 40 246 at the start, floor 39 848: 398 lost at −32 ticks and a fee
        assertEquals(second.result(), -41 * TICK - FEE, "the print that is beyond it");
        assertEquals(second.at().getAsLong(), Given.at(1, "01:00:07"));
        assertEquals(reading.rules().getFirst().state(), BookReading.State.BROKEN);
    }

    @Test
    public void aSoftDayLossEndsTheDayAndTheTargetNeedsItsDays() {
        Run run = run(day(101, 131, 131, 131, 131, 131, 131, 131), day(101, 91, 81, 101, 151, 151, 151, 151),
                day(101, 131, 131, 131, 131, 131, 131, 131));
        Account account = with(new Rulebook.DayLoss(200 * Money.UNIT, Rulebook.From.BALANCE, false, Guard.OFF),
                new Rulebook.ProfitTarget(300 * Money.UNIT), new Rulebook.FewestDays(3),
                new Rulebook.Consistency(new BigDecimal("100")),
                new Rulebook.Payout(100 * Money.UNIT, 2, 100 * Money.UNIT, Optional.of(50 * Money.UNIT)),
                new Rulebook.HoldingTime(3 * Given.SECOND, new BigDecimal("50")),
                new Rulebook.Size(1, List.of(), Map.of()));
        BookReading reading = BookReading.of(run, account);
        BookReading.Day locked = reading.days().get(1);
        assertEquals(locked.end(), BookReading.End.LOCKED);
        assertEquals(locked.result(), -20 * TICK - 2 * FEE, "closed there, its costs paid");
        assertEquals(locked.low(), -20 * TICK - FEE);
        assertTrue(reading.days().getFirst().result() > 300 * Money.UNIT, "met by money on the first day");
        assertEquals(reading.daysToTarget().orElse(0), 3, "by its days only on the third");
        assertEquals(reading.days().get(2).payout(), 50 * Money.UNIT, "two winning days, and the cap");
        assertEquals(reading.days().get(0).payout(), 0);
        assertEquals(reading.rules().stream().map(BookReading.Standing::state).toList(),
                List.of(BookReading.State.BROKEN, BookReading.State.MET, BookReading.State.MET, BookReading.State.CLEAR,
                        BookReading.State.MET, BookReading.State.CLEAR, BookReading.State.CLEAR));
        assertTrue(reading.over().isEmpty());
    }

    @Test
    public void aSizeIsBrokenByTheContractTooMany() {
        Run two = FreeTrial.run(run(day(101, 131, 131, 131, 131, 131, 131, 131)).inputs(), 2);
        assertEquals(two.engine().log().trades().getFirst().quantity(), 2, "twice the contracts");
        BookReading reading = BookReading.of(two, with(new Rulebook.Size(1, List.of(), Map.of())));
        assertEquals(reading.rules().getFirst().state(), BookReading.State.BROKEN);
        assertEquals(BookReading.of(two, with(new Rulebook.Size(2, List.of(), Map.of()))).rules().getFirst().state(),
                BookReading.State.CLEAR);
        assertEquals(BookReading.of(two, with(new Rulebook.Size(1, List.of(),
                Map.of("TDL", new Rulebook.Share(1, 2))))).rules().getFirst().state(), BookReading.State.CLEAR);
    }

    @Test
    public void aGuardLeavesNoRoomOnTheNextDay() {
        Run run = run(day(101, 91, 81, 81, 81, 81, 81, 81), day(101, 101, 101, 101, 101, 101, 101, 101));
        BookReading reading = BookReading.of(run, with(new Rulebook.DrawdownFloor(Rulebook.Trails.STATIC,
                300 * Money.UNIT, Optional.empty(), new Guard(true, 60 * Money.UNIT, 0))));
        assertEquals(reading.days().getFirst().end(), BookReading.End.LOCKED);
        assertTrue(reading.days().getFirst().guarded());
        assertEquals(reading.days().getLast().end(), BookReading.End.NO_ROOM);
        assertEquals(reading.over().orElseThrow().line(), Optional.of(LineKind.DRAWDOWN_FLOOR));
    }
}
