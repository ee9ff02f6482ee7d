package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.StreamSupport;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.TapeTime;

/** Release calendars from files, and what an account document makes of them. */
public class ReleaseCalendarTest {
    private final Path folder;

    public ReleaseCalendarTest() throws IOException {
        folder = Files.createTempDirectory("releases");
    }

    private List<String> times(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.writeString(file, text);
        return StreamSupport.stream(ReleaseCalendar.read(file).spliterator(), false)
                .map(one -> one.get("time").asString() + " " + one.get("title").asString() + " "
                        + one.get("country").asString() + " " + one.get("impact").asString())
                .map(String::strip).toList();
    }

    private static String event(String... lines) {
        return "BEGIN:VEVENT\r\nDTSTAMP:19970101T000000Z\r\n" + String.join("\r\n", lines) + "\r\nEND:VEVENT\r\n";
    }

    private static String calendar(String... events) {
        return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//test//EN\r\n" + String.join("", events)
                + "END:VCALENDAR\r\n";
    }

    @Test
    public void aTableOfReleases() throws IOException {
        assertEquals(times("tides.csv", """
                time,title,country,impact
                2026-09-24T14:30:00+12:00,"Tide table, quarterly",NZ,high
                2026-09-23T20:00:00Z,Buoy readings,AU,
                """), List.of("2026-09-23T20:00:00Z Buoy readings AU",
                "2026-09-24T02:30:00Z Tide table, quarterly NZ high"));
    }

    /** The standard's own list for the first Friday of ten months (RFC 5545, section 3.8.5.3, from memory), over a change of clocks. */
    @Test
    public void aRepeatedReleaseIsFollowedInItsZone() throws IOException {
        List<String> times = times("monthly.ics", calendar(event("UID:a", "SUMMARY:Payroll of the fleet",
                "LOCATION:US", "CATEGORIES:high", "DTSTART;TZID=America/New_York:19970905T090000",
                "RRULE:FREQ=MONTHLY;COUNT=10;BYDAY=1FR")));
        assertEquals(times.stream().map(t -> t.split(" ")[0]).toList(),
                List.of("1997-09-05T13:00:00Z", "1997-10-03T13:00:00Z", "1997-11-07T14:00:00Z", "1997-12-05T14:00:00Z",
                        "1998-01-02T14:00:00Z", "1998-02-06T14:00:00Z", "1998-03-06T14:00:00Z", "1998-04-03T14:00:00Z",
                        "1998-05-01T13:00:00Z", "1998-06-05T13:00:00Z"));
        assertTrue(times.getFirst().endsWith("Payroll of the fleet US high"), times.getFirst());
    }

    @Test
    public void exceptedCancelledAndMovedDaysAreNotThere() throws IOException {
        assertEquals(times("week.ics", calendar(
                event("UID:a", "SUMMARY:Swell report", "DTSTART:20260921T200000Z", "RRULE:FREQ=DAILY;COUNT=5",
                        "EXDATE:20260922T200000Z"),
                event("UID:a", "SUMMARY:Swell report", "RECURRENCE-ID:20260923T200000Z", "DTSTART:20260923T213000Z"),
                event("UID:a", "SUMMARY:Swell report", "RECURRENCE-ID:20260924T200000Z", "DTSTART:20260924T200000Z",
                        "STATUS:CANCELLED"),
                event("UID:b", "SUMMARY:Harbour notes", "DTSTART:20260924T010000Z", "STATUS:CANCELLED"))),
                List.of("2026-09-21T20:00:00Z Swell report", "2026-09-23T21:30:00Z Swell report",
                        "2026-09-25T20:00:00Z Swell report"));
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][]{
                {"a.csv", "time,title\n2026-09-24T14:30:00,Tide table\n",
                        "line 2, column time: expected a time with its offset"},
                {"b.csv", "when,title\n2026-09-24T14:30:00Z,Tide table\n",
                        "expected the columns time,title,country,impact"},
                {"c.csv", "time,title\n2026-09-24T14:30:00Z,\n", "line 2, column title: expected something"},
                {"d.csv", "time,title\n", "expected releases, found none"},
                {"e.ics", calendar(event("UID:a", "SUMMARY:Regatta", "DTSTART;VALUE=DATE:20260924")),
                        "\"Regatta\": expected a time of day"},
                {"f.ics", calendar(event("UID:a", "SUMMARY:Regatta", "DTSTART:20260924T100000")),
                        "\"Regatta\": expected a time in a zone"},
                {"g.ics", "BEGIN:VCALENDAR\r\nnonsense", "expected an iCalendar file"}};
    }

    @Test(dataProvider = "wrong")
    public void whatIsWrongIsSaidWithItsPlace(String name, String text, String words) {
        String said = expectThrows(BadInput.class, () -> times(name, text)).getMessage();
        assertTrue(said.contains(name) && said.contains(words), said);
    }

    @Test
    public void anAccountKeepsAwayFromTheReleasesThatItsFiltersName() throws IOException {
        Files.writeString(folder.resolve("all.csv"), """
                time,title,country,impact
                2026-09-24T02:30:00Z,Tide table,NZ,high
                2026-09-24T03:30:00Z,Tide table,AU,high
                2026-09-24T04:30:00Z,Kelp prices,NZ,low
                """);
        Path file = folder.resolve("quiet.account.json");
        String text = Texts.ACCOUNT.replaceFirst("\"rulebookFile\": \"[^\"]*\"", """
                "rulebook": {"document": "rulebook", "version": 1, "name": "b", "rules": [
                   {"rule": "flat by", "time": "16:00", "zone": "Pacific/Auckland"}]},
                "quietTimes": {"on": true, "releasesFile": "all.csv", "countries": ["nz"], "impacts": ["High"],
                   "minutesBefore": 5, "minutesAfter": 10, "action": "flatten"}""");
        Files.writeString(file, text);
        Documents.Read<Account> read = Documents.account(file);
        QuietTimes quiet = read.value().own().quietTimes();
        assertEquals(quiet.releases().stream().map(r -> TapeTime.instant(r.time()).toString()).toList(),
                List.of("2026-09-24T02:30:00Z"));
        assertEquals(TapeTime.instant(quiet.times().getFirst().acts()).toString(), "2026-09-24T02:24:30Z",
                "five minutes, and thirty seconds to leave");
        assertEquals(TapeTime.instant(quiet.times().getFirst().to()).toString(), "2026-09-24T02:40:00Z");
        Rulebook.FlatBy flat = read.value().rulebook().of(Rulebook.FlatBy.class).findFirst().orElseThrow();
        assertEquals(flat.lead(), Rulebook.FlatBy.LEAD);
        // the document stands alone once it is read
        assertEquals(Documents.account(Json.line(read.document()), "again", other -> other).value(), read.value());
        Files.writeString(file, text.replace("\"on\": true, \"releasesFile\"", "\"on\": false, \"releasesFile\""));
        assertEquals(Documents.account(file).value().own().quietTimes(), QuietTimes.NONE);
        for (String[] bad : new String[][]{{"\"flatten\"", "\"hide\"", "action"}, {"5, \"minutesAfter\": 10",
                "0, \"minutesAfter\": 0", "not both 0"}, {"all.csv", "../all.csv", "inside its own folder"}}) {
            Files.writeString(file, text.replace(bad[0], bad[1]));
            String said = expectThrows(BadInput.class, () -> Documents.account(file)).getMessage();
            assertTrue(said.contains(bad[2]), said);
        }
    }

    @Test
    public void flatByFollowsTheClocksOfItsZone() {
        Rulebook.FlatBy flat = new Rulebook.FlatBy(java.time.LocalTime.of(16, 0),
                java.time.ZoneId.of("Pacific/Auckland"),
                300 * TapeTime.SECOND);
        // the clocks go forward on 27 September 2026
        assertEquals(TapeTime.instant(flat.actsFrom(at("2026-09-25T20:00:00Z"))).toString(), "2026-09-26T03:55:00Z");
        assertEquals(TapeTime.instant(flat.actsFrom(at("2026-09-26T20:00:00Z"))).toString(), "2026-09-27T02:55:00Z");
        assertEquals(flat.actsFrom(at("2026-09-27T02:55:00Z")), at("2026-09-27T02:55:00Z"), "at that very moment");
        assertEquals(TapeTime.instant(flat.actsFrom(at("2026-09-27T02:55:01Z"))).toString(), "2026-09-28T02:55:00Z");
    }

    private static long at(String time) {
        java.time.Instant instant = java.time.Instant.parse(time);
        return instant.getEpochSecond() * TapeTime.SECOND;
    }
}
