package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.TapeTime;

/** Holidays from calendars and tables; the iCalendar examples follow those of RFC 5545, section 3.6.1. */
public class SpecialDatesTest {
    private static final ZoneId AUCKLAND = ZoneId.of("Pacific/Auckland");

    private static Path file(String ending, String text) throws IOException {
        Path file = Files.createTempFile("dates", ending);
        Files.writeString(file, text, StandardCharsets.UTF_8);
        return file;
    }

    private static SpecialDates.Found read(Path file) {
        return SpecialDates.read(file, LocalDate.of(1990, 1, 1), LocalDate.of(2030, 1, 1), AUCKLAND);
    }

    private static SpecialDates.Found events(String... events) throws IOException {
        StringBuilder text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Tern Harbour//EN\r\n");
        for (String event : events) {
            text.append("BEGIN:VEVENT\r\nUID:").append(text.length()).append("\r\nDTSTAMP:19970901T130000Z\r\n")
                    .append(event.replace("\n", "\r\n")).append("\r\nEND:VEVENT\r\n");
        }
        return read(file(".ics", text.append("END:VCALENDAR\r\n").toString()));
    }

    private static String lines(SpecialDates.Found found) {
        return String.join("\n", found.lines().values());
    }

    /** RFC 5545, 3.6.1: an event of whole days ends before its DTEND: 28 June to 8 July 2007. */
    @Test
    public void wholeDaysEndBeforeTheirEnd() throws IOException {
        SpecialDates.Found found = events("DTSTART;VALUE=DATE:20070628\nDTEND;VALUE=DATE:20070709\nSUMMARY:Festival");
        assertEquals(found.lines().keySet(),
                LocalDate.of(2007, 6, 28).datesUntil(LocalDate.of(2007, 7, 9))
                        .collect(java.util.stream.Collectors.toSet()));
        assertEquals(found.lines().get(LocalDate.of(2007, 7, 8)), "2007-07-08 closed # Festival");
    }

    /** RFC 5545, 3.6.1: an anniversary from 2 November 1997 on, each year. */
    @Test
    public void aYearlyDayIsThereEachYear() throws IOException {
        SpecialDates.Found found = events(
                "DTSTART;VALUE=DATE:19971102\nSUMMARY:Anniversary\nRRULE:FREQ=YEARLY\nEXDATE;VALUE=DATE:20051102");
        assertEquals(found.lines().size(), 2029 - 1997);
        assertTrue(found.lines().containsKey(LocalDate.of(2029, 11, 2)));
        assertTrue(!found.lines().containsKey(LocalDate.of(2005, 11, 2)), "the excepted one");
        assertEquals(found.leftOut(), List.of());
    }

    /** 24 December 2026, 13:00 in Auckland (UTC + 13), written three ways. */
    @DataProvider
    public Object[][] oneOclock() {
        return new Object[][]{{"DTSTART:20261224T000000Z"}, {"DTSTART;TZID=Pacific/Auckland:20261224T130000"},
                {"DTSTART:20261224T130000"}, {"DTSTART;TZID=Europe/Helsinki:20261224T020000"}};
    }

    @Test(dataProvider = "oneOclock")
    public void anEarlyCloseIsAtItsStartInTheExchangesZone(String start) throws IOException {
        assertEquals(lines(events(start + "\nSUMMARY:Early close")), "2026-12-24 closes 13:00 # Early close");
        assertEquals(lines(events(start + "\nSUMMARY:Opens late")), "2026-12-24 opens 13:00 # Opens late");
    }

    /** What cannot be known is said, never guessed. */
    @Test
    public void whatIsNotClearIsLeftOutByName() throws IOException {
        SpecialDates.Found found = events("DTSTART:20261224T000000Z\nSUMMARY:Party",
                "DTSTART:20261224T000030Z\nSUMMARY:Early close", "SUMMARY:Some day",
                "DTSTART:20261224T000000Z\nSUMMARY:Early close\nRRULE:FREQ=YEARLY",
                "DTSTART;VALUE=DATE:20261224\nSUMMARY:Often\nRRULE:FREQ=SECONDLY",
                "DTSTART;VALUE=DATE:20260101\nDTEND;VALUE=DATE:20290101\nSUMMARY:Long",
                "DTSTART;VALUE=DATE:20261228\nSUMMARY:Called off\nSTATUS:CANCELLED",
                "DTSTART;VALUE=DATE:20261225\nSUMMARY:Midsummer",
                "DTSTART:20261224T230000Z\nSUMMARY:Late open");
        assertEquals(lines(found), "2026-12-25 closed # Midsummer");
        assertEquals(found.leftOut(), List.of(
                "\"Party\": it has a time of day and says neither early close nor late open",
                "\"Early close\": its time is no whole minute", "\"Some day\": it has no beginning",
                "\"Early close\": it repeats and has a time of day", "\"Often\": it repeats within a day",
                "\"Long\": it lasts longer than a year",
                "\"Late open\": 2026-12-25 is there already with other hours"));
    }

    @Test
    public void aTableIsReadByItsColumns() throws IOException {
        SpecialDates.Found found = read(file(".csv", """
                name,hours,date,time
                "Midsummer, first",closed,2026-12-25,
                ,closes,2026-12-24,13:00
                Stocktaking,opens,2026-12-28,10:00
                """));
        assertEquals(lines(found), """
                2026-12-24 closes 13:00
                2026-12-25 closed # Midsummer, first
                2026-12-28 opens 10:00 # Stocktaking""");
        assertEquals(found.added("2026-12-25 closes 12:00\n"), """
                2026-12-25 closes 12:00
                2026-12-24 closes 13:00
                2026-12-28 opens 10:00 # Stocktaking""", "what a person wrote stands");
        var calendar = new ContractSketch("MNH", "", "NZD", new ContractSketch.Prices("0.05", "5.00", "1", ""),
                new ContractSketch.Listing("", ""), new ContractSketch.Hours("Pacific/Auckland", "60",
                        ContractSketch.patterns().get("Day session"), found.added("")))
                .read().value().calendar();
        assertEquals(TapeTime.instant(calendar.sessions(LocalDate.of(2026, 12, 24)).getFirst().close()),
                java.time.Instant.parse("2026-12-24T00:00:00Z"));
        assertTrue(calendar.sessions(LocalDate.of(2026, 12, 25)).isEmpty());
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][]{{"date,hours,time\n2026-12-25,shut,\n", "line 2, column hours: expected closed, closes"},
                {"date,hours,time\n2026-12-25,closed,13:00\n", "line 2, column time: expected nothing beside closed"},
                {"date,hours,time\n2026-12-25,closes,\n", "line 2, column time: expected a time such as 13:00"},
                {"date,hours,time\n\n2026-02-30,closed,\n", "line 3: expected a date such as 2026-12-24"},
                {"day,hours\n2026-12-25,closed\n", "line 2: expected the columns date,hours,time, found day,hours"},
                {"date,hours,time\n2026-12-25,closed,\n2026-12-25,closes,13:00\n",
                        "line 3: 2026-12-25 is there already"}};
    }

    @Test(dataProvider = "wrong")
    public void aWrongLineRefusesTheTable(String text, String said) throws IOException {
        Path file = file(".csv", text);
        BadInput e = org.testng.Assert.expectThrows(BadInput.class, () -> read(file));
        assertTrue(e.getMessage().startsWith(file + ", " + said), e.getMessage());
    }

    /** Whatever bytes are in a file, it is read or refused in words. */
    @Test
    public void damagedFilesAreRefusedInWords() throws IOException {
        String whole = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20261225\r\n"
                + "DTEND;VALUE=DATE:20261227\r\nRRULE:FREQ=YEARLY;COUNT=3\r\nSUMMARY:Midsummer\r\nEND:VEVENT\r\n"
                + "END:VCALENDAR\r\n";
        SplittableRandom dice = new SplittableRandom(8);
        for (int round = 0; round < 1000; round++) {
            byte[] bytes = whole.getBytes(StandardCharsets.UTF_8);
            for (int i = dice.nextInt(1, 4); i > 0; i--) {
                bytes[dice.nextInt(bytes.length)] = (byte) dice.nextInt(9, 130);
            }
            Path file = Files.createTempFile("dates", round % 5 == 0 ? ".csv" : ".ics");
            Files.write(file, java.util.Arrays.copyOf(bytes, dice.nextInt(bytes.length / 2, bytes.length + 1)));
            try {
                read(file);
            } catch (BadInput e) {
                assertTrue(e.getMessage().startsWith(file.toString()), e.getMessage());
            }
            Files.delete(file);
        }
        assertThrows(BadInput.class, () -> read(Files.createTempDirectory("dates")));
    }
}
