package stativex.market;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.trial.Given;

public class JoinTest {
    private static final LocalDate MONDAY = Given.MONDAY;

    private static Contract contract(Optional<LocalDate> lastDay) {
        Contract c = Given.contract(0);
        return new Contract(c.symbol(), c.name(), c.currency(), c.tickSize(), c.tickValue(), c.slippage(), c.calendar(),
                lastDay);
    }

    /** A print a minute from the night's open to the day's close of some days, sizes by day. */
    private static Join.Month month(String name, long price, int from, long... sizes) {
        TapeBuilder tape = new TapeBuilder(1000);
        for (int day = 0; day < sizes.length; day++) {
            for (Session session : Given.calendar().sessions(MONDAY.plusDays(from + day))) {
                for (long time = session.open(); time < session.close(); time += 60 * Given.SECOND) {
                    tape.add(time, price + 10 * (from + day) + (time - session.open()) / (600 * Given.SECOND),
                            sizes[day], Tape.NONE, Tape.NONE);
                }
            }
        }
        return new Join.Month(name, contract(Optional.of(MONDAY.plusDays(from + sizes.length - 1))), tape.build());
    }

    private final Join.Month september = month("September", 1000, 0, 9, 9, 5, 1);
    private final Join.Month december = month("December", 1040, 0, 1, 9, 8, 9, 3);
    private final Join.Month march = month("March", 1100, 3, 2, 4);

    @Test
    public void theNewerMonthIsInForceFromTheRollDaysFirstOpen() {
        Join join = Join.of(List.of(september, december), List.of(MONDAY.plusDays(2)));
        Tape tape = join.tape();
        Join.Roll roll = join.rolls().getFirst();
        assertEquals(roll.open(), Given.calendar().sessions(MONDAY.plusDays(2)).getFirst().open());
        assertEquals(tape.time(roll.print()), roll.open());
        assertTrue(tape.time(roll.print() - 1) < roll.open());
        assertEquals(roll.adjustment(), Optional.of(40L));
        for (int i = 0; i < tape.count(); i++) {
            Tape month = i < roll.print() ? september.tape() : december.tape();
            assertEquals(tape.price(i), month.price(month.firstAt(tape.time(i))), "real prices");
        }
        Tape adjusted = join.backAdjusted();
        for (int i = 0; i < tape.count(); i++) {
            assertEquals(adjusted.price(i), tape.price(i) + (i < roll.print() ? 40 : 0));
        }
    }

    @Test
    public void adjustmentsAddUpOverSeveralRolls() {
        Join join = Join.of(List.of(september, december, march), List.of(MONDAY.plusDays(2), MONDAY.plusDays(4)));
        long second = join.rolls().get(1).adjustment().orElseThrow();
        assertEquals(second, march.tape().price(march.tape().firstAt(join.rolls().get(1).open()) - 1)
                - december.tape().price(december.tape().firstAt(join.rolls().get(1).open()) - 1));
        assertEquals(join.backAdjusted().price(0), join.tape().price(0) + 40 + second);
        int last = join.tape().count() - 1;
        assertEquals(join.backAdjusted().price(last), join.tape().price(last));
    }

    @Test
    public void rollDaysByVolumeAndBeforeExpiry() {
        assertEquals(Join.byVolume(september, december), MONDAY.plusDays(3), "8 against 5 on Wednesday, so Thursday");
        assertEquals(Join.beforeExpiry(september, 0), MONDAY.plusDays(3));
        assertEquals(Join.beforeExpiry(september, 2), MONDAY.plusDays(1));
        assertEquals(Join.beforeExpiry(september, 4).getDayOfWeek(), java.time.DayOfWeek.FRIDAY,
                "weekends do not count");
        assertTrue(expectThrows(IllegalArgumentException.class, () -> Join.byVolume(december, march)).getMessage()
                .contains("volume of March never exceeds"),
                "a day that December's tape does not hold whole counts not");
    }

    @Test
    public void whatDoesNotFitIsRefusedInWords() {
        assertTrue(refusal(List.of(december, september), List.of(MONDAY.plusDays(4))).contains("September"));
        assertTrue(refusal(List.of(september, december), List.of(MONDAY.plusDays(5))).contains("no session"));
        assertTrue(refusal(List.of(september), List.of()).contains("two or more months"));
        assertTrue(refusal(List.of(september, december, march), List.of(MONDAY.plusDays(3), MONDAY.plusDays(2)))
                .contains("while it is in force"));
        Join bare = Join.of(List.of(december, march), List.of(MONDAY.plusDays(3)));
        assertEquals(bare.rolls().getFirst().adjustment(), Optional.empty());
        assertTrue(expectThrows(IllegalArgumentException.class, bare::backAdjusted).getMessage()
                .contains("March has no print before it"));
    }

    private static String refusal(List<Join.Month> months, List<LocalDate> dates) {
        return expectThrows(IllegalArgumentException.class, () -> Join.of(months, dates)).getMessage();
    }

    /** Bars of an adjusted join are the bars of the real prices, each moved by its month's shift. */
    @Test
    public void barsOfAnAdjustedJoinAreShiftedMonthByMonth() {
        SplittableRandom dice = new SplittableRandom(3);
        Join join = Join.of(List.of(september, december, march), List.of(MONDAY.plusDays(2), MONDAY.plusDays(4)));
        for (int round = 0; round < 20; round++) {
            BarSettings settings = BarSettings.of(new BarType.Ticks(dice.nextInt(1, 50)));
            BarSeries real = SeriesBuilder.all(join.tape(), Given.calendar(), settings);
            BarSeries moved = SeriesBuilder.all(join.backAdjusted(), Given.calendar(), settings);
            assertEquals(moved.count(), real.count());
            List<Long> shifts = new ArrayList<>();
            for (int bar = 0; bar < real.count(); bar++) {
                long shift = moved.open(bar) - real.open(bar);
                assertEquals(moved.high(bar) - real.high(bar), shift);
                assertEquals(moved.low(bar) - real.low(bar), shift);
                assertEquals(moved.close(bar) - real.close(bar), shift);
                if (shifts.isEmpty() || shifts.getLast() != shift) {
                    shifts.add(shift);
                }
            }
            assertEquals(shifts.size(), 3);
            assertEquals(shifts.getLast(), Long.valueOf(0));
        }
    }

    @Test
    public void studiesSeeEarlierMonthsAtThePricesOfTheMonthInForce() {
        Join join = Join.of(List.of(september, december, march), List.of(MONDAY.plusDays(2), MONDAY.plusDays(4)));
        List<Join.Leg> legs = join.legs();
        Tape real = join.tape();
        int first = join.rolls().get(0).print();
        int second = join.rolls().get(1).print();
        assertEquals(legs.stream().map(leg -> leg.seen().count()).toList(), List.of(first, second, real.count()));
        long toDecember = join.rolls().get(0).adjustment().orElseThrow();
        long toMarch = join.rolls().get(1).adjustment().orElseThrow();
        assertEquals(legs.get(1).seen().price(0), real.price(0) + toDecember);
        assertEquals(legs.get(1).seen().price(first), real.price(first), "the month in force at its real prices");
        assertEquals(legs.get(2).seen().price(0), real.price(0) + toDecember + toMarch);
        assertEquals(legs.get(2).seen().price(first), real.price(first) + toMarch);
        assertEquals(legs.get(1).before(), real.price(first - 1) + toDecember);
        Rolls rolls = Rolls.of(join);
        Rolls again = Rolls.of(real, "September", legs.getFirst().lastTradingDay(), rolls.changes(), rolls.lead());
        for (int month = 0; month < 3; month++) {
            assertEquals(again.legs().get(month).seen().checksum(), legs.get(month).seen().checksum());
            assertEquals(again.legs().get(month).lastTradingDay(), legs.get(month).lastTradingDay());
        }
    }
}
