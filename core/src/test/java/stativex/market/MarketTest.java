package stativex.market;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.trial.Given;

public class MarketTest {
    private static final ZoneId AUCKLAND = ZoneId.of("Pacific/Auckland");
    private static final ZoneId HELSINKI = ZoneId.of("Europe/Helsinki");

    @Test
    public void figuresOfTheTrade() {
        // common practice, no source: 0.01 worth 10; 100 of money is 10 ticks; long from 93.91 the stop is at 93.81
        Contract crude = Given.contract("0.01", "10.00", 0);
        assertEquals(crude.ticksFor(Money.parse("100")), 10);
        assertEquals(crude.text(crude.price("93.91") - crude.ticksFor(Money.parse("100"))), "93.81");
        assertEquals(crude.ticksFor(Money.parse("105")), 10, "never further than asked");
        // common practice, no source: 0.25 worth 12.50; 3239.50 and a target of 10 points is 3249.50
        Contract index = Given.contract("0.25", "12.50", 0);
        assertEquals(index.text(index.price("3239.50") + index.price("10")), "3249.50");
        // common practice, no source: 200 pips of 0.0001 worth 10 on 100 000 units are 0.0200 and 2 000
        Contract pair = Given.contract("0.0001", "10.00", 0);
        assertEquals(pair.text(200), "0.0200");
        assertEquals(Money.text(pair.money(200, 1)), "2000.00");
    }

    @Test
    public void aMicroTickValueIsExact() {
        assertEquals(Money.parse("0.625"), 6250);
        assertEquals(Money.text(6250), "0.6250");
        assertEquals(Money.text(-6250 * 8), "-5.00");
        assertThrows(IllegalArgumentException.class, () -> Money.parse("0.00001"));
    }

    @Test
    public void pricesStayOnTheGrid() {
        Contract contract = Given.contract(0);
        assertEquals(contract.price("-1.25"), -5);
        assertEquals(contract.text(-5), "-1.25");
        assertEquals(contract.price("0"), 0);
        var problem = expectThrows(IllegalArgumentException.class, () -> contract.price("1284.30"));
        assertTrue(problem.getMessage().contains("tick grid of 0.25"), problem.getMessage());
        for (String bad : List.of("1e3", "1,284.00", "", "1 284", ".5", "NaN", "0x10")) {
            assertThrows(IllegalArgumentException.class, () -> contract.price(bad));
        }
        assertEquals(contract.meanText(9, 2), "1.125000", "four decimals more when off the grid");
        assertEquals(contract.meanText(-1, 3), "-0.083333", "half away from zero");
        assertEquals(contract.meanText(8, 2), "1.00");
    }

    @Test
    public void moneyThrowsOnOverflow() {
        Contract contract = Given.contract(0);
        assertThrows(ArithmeticException.class, () -> contract.money(Long.MAX_VALUE / 1000, 1000));
    }

    /** IANA time zone rules of both zones, checked against the published transition times (tz database, from memory). */
    @DataProvider
    public Object[][] localTimes() {
        return new Object[][]{
                // Auckland skips 02:00–03:00 on 27 September 2026: the first instant at or after is 03:00 NZDT
                {AUCKLAND, "2026-09-27T02:30", "2026-09-26T14:00:00Z"},
                {AUCKLAND, "2026-09-27T02:00", "2026-09-26T14:00:00Z"},
                {AUCKLAND, "2026-09-27T03:00", "2026-09-26T14:00:00Z"},
                {AUCKLAND, "2026-09-27T01:59", "2026-09-26T13:59:00Z"},
                // Auckland repeats 02:00–03:00 on 5 April 2026: the first showing is NZDT
                {AUCKLAND, "2026-04-05T02:30", "2026-04-04T13:30:00Z"},
                // Helsinki skips 03:00–04:00 on 29 March 2026 and repeats it on 25 October
                {HELSINKI, "2026-03-29T03:15", "2026-03-29T01:00:00Z"},
                {HELSINKI, "2026-10-25T03:15", "2026-10-25T00:15:00Z"},
                {HELSINKI, "2026-07-01T12:00", "2026-07-01T09:00:00Z"}};
    }

    @Test(dataProvider = "localTimes")
    public void aLocalTimeIsTheFirstInstantThatShowsIt(ZoneId zone, String local, String instant) {
        assertEquals(TapeTime.instant(TapeTime.first(LocalDateTime.parse(local), zone)), Instant.parse(instant));
    }

    @Test
    public void aggressorComesFromQuoteThenFromTheTickTest() {
        Tape tape = new TapeBuilder(8)
                .add(1, 10, 1, 9, 11) // between: tick test, none earlier
                .add(2, 11, 1, 9, 11) // at the ask
                .add(3, 9, 1, 9, 11) // at the bid
                .add(4, 9, 1, 9, 9) // locked: tick test against 11: lower
                .add(5, 10, 1, Tape.NONE, Tape.NONE) // no quote: higher than 9
                .add(6, 10, 1, Tape.NONE, Tape.NONE) // still against the last different price
                .add(7, 12, 1, Tape.NONE, 12) // one side only
                .add(8, 12, 1, 13, 11) // crossed: against 10: higher
                .add(9, 5, 1, 4, 5, Optional.of(Aggressor.SELLER)) // given stands
                .build();
        Aggressor[] expected = {Aggressor.UNKNOWN, Aggressor.BUYER, Aggressor.SELLER, Aggressor.SELLER, Aggressor.BUYER,
                Aggressor.BUYER, Aggressor.BUYER, Aggressor.BUYER, Aggressor.SELLER};
        for (int i = 0; i < expected.length; i++) {
            assertEquals(tape.aggressor(i), expected[i], "print " + i);
        }
    }

    @Test
    public void theTapeKeepsEverythingAndRefusesTimeGoingBack() {
        TapeBuilder builder = new TapeBuilder(1);
        for (int i = 0; i < 100; i++) {
            builder.add(i / 2, -50 + i, i + 1, i % 3 == 0 ? Tape.NONE : -51 + i, Tape.NONE);
        }
        assertThrows(IllegalArgumentException.class, () -> builder.add(10, 0, 1, Tape.NONE, Tape.NONE));
        assertThrows(IllegalArgumentException.class, () -> builder.add(60, 0, 0, Tape.NONE, Tape.NONE));
        Tape tape = builder.build();
        assertEquals(tape.count(), 100);
        for (int i = 0; i < 100; i++) {
            assertEquals(tape.time(i), i / 2);
            assertEquals(tape.price(i), -50 + i);
            assertEquals(tape.size(i), i + 1);
            assertEquals(tape.bid(i), i % 3 == 0 ? Tape.NONE : -51 + i);
        }
        assertEquals(tape.firstAt(7), 14);
        assertEquals(tape.firstAt(1000), 100);
    }

    @Test
    public void tickBarsCloseWithTheirNthTradeAndAreCutAtTheClose() {
        Tape tape = Given.tape(Given.at(0, "01:00"), 5, 9, 3, 6, 8, 7, 7);
        SeriesBuilder bars = new SeriesBuilder(tape, Given.calendar(), BarSettings.of(new BarType.Ticks(3)));
        for (int i = 0; i < 7; i++) {
            bars.print(i);
            assertEquals(bars.series().count(), (i + 1) / 3);
        }
        assertEquals(bars.forming().orElseThrow().close(), 7);
        bars.heartbeat(Given.at(0, "02:00"));
        assertTrue(bars.forming().isEmpty(), "nothing is forming any more");
        BarSeries series = bars.series();
        assertEquals(series.count(), 3);
        assertEquals(List.of(series.open(0), series.high(0), series.low(0), series.close(0)), List.of(5L, 9L, 3L, 3L));
        assertEquals(List.of(series.open(1), series.high(1), series.low(1), series.close(1)), List.of(6L, 8L, 6L, 7L));
        assertEquals(series.trades(2), 1);
        assertTrue(series.cut(2));
        assertEquals(series.tradingDate(2), Given.MONDAY);
    }

    @Test
    public void barsAgreeWithANaiveCountOnRandomTapes() {
        var dice = new java.util.SplittableRandom(7);
        for (int round = 0; round < 200; round++) {
            int n = dice.nextInt(1, 200);
            int size = dice.nextInt(1, 30);
            TapeBuilder builder = new TapeBuilder(n);
            for (int i = 0; i < n; i++) {
                builder.add(Given.at(0, "01:00") + i, dice.nextInt(-40, 40), dice.nextInt(1, 9), Tape.NONE, Tape.NONE,
                        Optional.of(Aggressor.values()[dice.nextInt(3)]));
            }
            Tape tape = builder.build();
            SeriesBuilder bars = new SeriesBuilder(tape, Given.calendar(), BarSettings.of(new BarType.Ticks(size)));
            for (int i = 0; i < n; i++) {
                bars.print(i);
            }
            assertEquals(bars.series().count(), n / size);
            for (int bar = 0; bar < n / size; bar++) {
                long high = Long.MIN_VALUE;
                long low = Long.MAX_VALUE;
                long volume = 0;
                long delta = 0;
                for (int i = bar * size; i < bar * size + size; i++) {
                    high = Math.max(high, tape.price(i));
                    low = Math.min(low, tape.price(i));
                    volume += tape.size(i);
                    delta += tape.aggressor(i) == Aggressor.BUYER
                            ? tape.size(i)
                            : tape.aggressor(i) == Aggressor.SELLER ? -tape.size(i) : 0;
                }
                assertEquals(bars.series().high(bar), high);
                assertEquals(bars.series().low(bar), low);
                assertEquals(bars.series().volume(bar), volume);
                assertEquals(bars.series().delta(bar), delta);
                assertEquals(bars.series().close(bar), tape.price(bar * size + size - 1));
            }
        }
    }

    @Test
    public void tradingDaysIncludeTheirPauses() {
        SessionCalendar calendar = Given.calendar();
        assertEquals(calendar.tradingDate(Given.at(0, "02:30")).orElseThrow(), Given.MONDAY);
        assertEquals(calendar.tradingDate(Given.at(1, "00:30")).orElseThrow(), Given.MONDAY, "until the next open");
        assertEquals(calendar.tradingDate(Given.at(1, "01:00")).orElseThrow(), Given.MONDAY.plusDays(1));
        Session night = calendar.current(Given.at(0, "01:30")).orElseThrow();
        assertTrue(night.contains(night.open()));
        assertFalse(night.contains(night.close()));
        assertEquals(calendar.current(night.close()).orElseThrow().name(), "Day");
        assertEquals(calendar.current(Given.at(4, "04:00")).orElseThrow().tradingDate(), Given.MONDAY.plusDays(7));
    }

    @Test
    public void sessionsCrossMidnightAndDaylightSaving() {
        // the night before Monday 28 September begins on Sunday 18:00 NZDT, the day after the clocks went forward
        var night = new SessionCalendar.Hours("Night", LocalTime.of(18, 0), -1, LocalTime.of(8, 0), 0);
        var calendar = new SessionCalendar(AUCKLAND, Map.of(java.time.DayOfWeek.MONDAY, List.of(night)),
                Map.of(LocalDate.of(2026, 10, 26), List.of()));
        Session session = calendar.sessions(LocalDate.of(2026, 9, 28)).getFirst();
        assertEquals(TapeTime.instant(session.open()), Instant.parse("2026-09-27T05:00:00Z"));
        assertEquals(TapeTime.instant(session.close()), Instant.parse("2026-09-27T19:00:00Z"));
        assertTrue(calendar.sessions(LocalDate.of(2026, 10, 26)).isEmpty(), "a closed date");
    }

    @DataProvider
    public Object[][] changingNights() {
        // a session from 18:00 to 08:00 over the night of the change (IANA rules): an hour less, an hour more
        return new Object[][]{{AUCKLAND, "2026-09-27", 13, "2026-09-26T06:00:00Z"},
                {AUCKLAND, "2026-04-05", 15, "2026-04-04T05:00:00Z"},
                {HELSINKI, "2026-03-29", 13, "2026-03-28T16:00:00Z"},
                {HELSINKI, "2026-10-25", 15, "2026-10-24T15:00:00Z"},
                {HELSINKI, "2026-10-24", 14, "2026-10-23T15:00:00Z"}};
    }

    @Test(dataProvider = "changingNights")
    public void sessionsThroughDaylightSavingChanges(ZoneId zone, String date, int hours, String open) {
        var night = new SessionCalendar.Hours("Night", LocalTime.of(18, 0), -1, LocalTime.of(8, 0), 0);
        Map<java.time.DayOfWeek, List<SessionCalendar.Hours>> week = new java.util.EnumMap<>(java.time.DayOfWeek.class);
        for (var day : java.time.DayOfWeek.values()) {
            week.put(day, List.of(night));
        }
        SessionCalendar calendar = new SessionCalendar(zone, week, Map.of());
        Session session = calendar.sessions(LocalDate.parse(date)).getFirst();
        assertEquals(TapeTime.instant(session.open()), Instant.parse(open));
        assertEquals(session.close() - session.open(), hours * 3600 * TapeTime.SECOND);
        // hourly bars count elapsed time, so the night has as many as it has hours
        TapeBuilder tape = new TapeBuilder(20);
        for (int minute = 30; minute < hours * 60; minute += 60) {
            tape.add(session.open() + minute * 60 * TapeTime.SECOND, 1, 1, Tape.NONE, Tape.NONE);
        }
        tape.add(session.close(), 1, 1, Tape.NONE, Tape.NONE);
        BarSeries bars = SeriesBuilder.all(tape.build(), calendar,
                BarSettings.of(new BarType.Time(3600 * TapeTime.SECOND)));
        assertEquals(bars.count(), hours);
        assertEquals(bars.end(hours - 1), session.close());
        assertFalse(bars.cut(hours - 1));
    }

    @Test
    public void overlappingSessionsAreRefused() {
        var a = new SessionCalendar.Hours("A", LocalTime.of(1, 0), 0, LocalTime.of(3, 0), 0);
        var b = new SessionCalendar.Hours("B", LocalTime.of(2, 0), 0, LocalTime.of(4, 0), 0);
        assertThrows(IllegalArgumentException.class, () -> new SessionCalendar(ZoneOffset.UTC,
                Map.of(java.time.DayOfWeek.MONDAY, List.of(a, b)), Map.of()));
    }

    @Test
    public void aSessionInsideTheMissingHourDoesNotTakePlace() {
        // IANA rules: New Zealand's clocks go from 02:00 to 03:00 on 2026-09-27, a Sunday
        ZoneId zone = ZoneId.of("Pacific/Auckland");
        SessionCalendar.Hours gap = new SessionCalendar.Hours("Early", LocalTime.of(2, 15), 0, LocalTime.of(2, 45), 0);
        SessionCalendar.Hours day = new SessionCalendar.Hours("Day", LocalTime.of(8, 30), 0, LocalTime.of(17, 0), 0);
        LocalDate sunday = LocalDate.of(2026, 9, 27);
        SessionCalendar calendar = new SessionCalendar(zone,
                Map.of(DayOfWeek.SUNDAY, List.of(gap, day), DayOfWeek.MONDAY, List.of(gap, day)),
                Map.of(sunday.plusDays(1), List.of(day), sunday.minusDays(7), List.of(gap)));
        List<Session> held = calendar.sessions(sunday);
        assertEquals(held.stream().map(Session::name).toList(), List.of("Day"));
        assertTrue(held.getFirst().first(), "it gives the day's open");
        assertEquals(calendar.sessions(sunday.plusDays(7)).size(), 2, "on other days it takes place");
        SessionCalendar only = new SessionCalendar(zone, Map.of(DayOfWeek.SUNDAY, List.of(gap)), Map.of());
        assertEquals(only.sessions(sunday), List.of(), "without another session the date is no trading date");
        long noon = TapeTime.first(sunday.atTime(12, 0), zone);
        assertEquals(only.current(noon).orElseThrow().tradingDate(), sunday.plusDays(7));
    }
}
