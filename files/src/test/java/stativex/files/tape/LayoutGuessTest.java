package stativex.files.tape;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeTime;

public class LayoutGuessTest {
    private static final long NINE_45 = TapeTime.nanos(Instant.parse("2026-09-20T21:45:00Z"));
    private final Documents.Read<Contract> contract = Documents.contract(Texts.CONTRACT, "contract.json");

    /** One print at 1284.50, size 3, and one a second and a millisecond later at 1284.25, size 12. */
    @DataProvider
    public Object[][] files() {
        return new Object[][]{
                {"Time;Last;Volume;Bid;Ask", "21.09.2026 09:45:00;1284,50;3;1284,25;1284,50",
                        "21.09.2026 09:45:01.001;1284,25;12;1284,25;1284,50"},
                {"Volume\tPrice\tExchange\tTimestamp", "3\t1284.50\tTH\t1789940700000",
                        "12\t1284.25\tTH\t1789940701001"},
                {"ts,px,qty,side", "1789940700000000000,1284.5,3,B", "1789940701001000000,1284.250,12,S"},
                {"timestamp,price,size", "1789940700,1284.50,3", "1789940701.001,1284.25,12"},
                {"\"Date\",\"Time\",\"Price\",\"Size\",\"Note\"", "09/21/2026,09:45:00,1284.50,3,\"a, b\"",
                        "09/21/2026,09:45:01.001,1284.25,12,"},
                {"Date,Time,Last,Volume", "20260921,094500,1284.50,3", "20260921,094501001,1284.25,12"},
                {"\uFEFFdatetime,price,size", "2026-09-20 21:45:00+00:00,1284.50,3",
                        "2026-09-20T21:45:01.001000Z,1284.25,12"},
                {"date,price,volume", "2026/09/21 9:45:00,+1284.50,3", "2026/09/21 9:45:01.001, 1284.25 ,12"},
                {"2026-09-21 09:45:00,1284.50,3,1284.25,1284.50",
                        "2026-09-21 09:45:01.001,1284.25,12,1284.25,1284.50"}};
    }

    @Test(dataProvider = "files")
    public void tickFilesOfManyShapesAreUnderstood(String... lines) throws IOException {
        Path file = Files.createTempFile("ticks", ".txt");
        Files.writeString(file, String.join("\r\n", lines) + "\r\n", StandardCharsets.UTF_8);
        ZoneId zone = contract.value().calendar().zone();
        LayoutGuess guess = LayoutGuess.of(file, zone);
        assertEquals(guess.begins(contract.value()), Optional.of(NINE_45));
        TapeStore store = new TapeStore(Files.createTempDirectory("store"));
        try (TapeImport job = TapeImport.read(store, file, contract, Optional.of(guess.layout()), TapeImport.GAP,
                Progress.NONE)) {
            assertEquals(job.findings().bad(), 0, guess.layout() + ": " + job.findings().places(Finding.UNREADABLE));
            job.keep("it", false, Set.of());
        }
        Tape tape = store.open("it").tape();
        assertEquals(tape.count(), 2, guess.layout().toString());
        assertEquals(tape.time(0), NINE_45);
        assertEquals(tape.time(1), NINE_45 + 1_001_000_000L);
        assertEquals(List.of(tape.price(0), tape.price(1)), List.of(5138L, 5137L));
        assertEquals(List.of(tape.size(0), tape.size(1)), List.of(3, 12));
        if (lines[0].toLowerCase(java.util.Locale.ROOT).contains("bid") || lines[0].contains("1284.25")) {
            assertEquals(tape.bid(0), 5137L);
        }
        store.rebuild("it", Progress.NONE);
        assertEquals(store.open("it").tape().checksum(), tape.checksum());
    }

    @Test
    public void doubtsAreSaid() throws IOException {
        Path file = Files.createTempFile("ticks", ".csv");
        Files.writeString(file, "time,price,size\n09/08/2026 09:45:00,1284.50,3\n");
        LayoutGuess guess = LayoutGuess.of(file, ZoneId.of("Europe/Helsinki"));
        assertTrue(guess.doubts().toString().contains("day and month cannot be told apart"), guess.doubts().toString());
        assertTrue(guess.doubts().toString().contains("local times in Europe/Helsinki"), guess.doubts().toString());
        assertEquals(guess.rows(5), List.of(List.of("09/08/2026 09:45:00", "1284.50", "3")));
    }

    @Test
    public void aColumnMappedByHandIsLookedAtAnew() throws IOException {
        Path file = Files.createTempFile("ticks", ".csv");
        Files.writeString(file, "When;Kurs;Lots\n21.09.2026 09:45:00;1284,50;3\n");
        LayoutGuess guess = LayoutGuess.of(file, ZoneId.of("Pacific/Auckland"));
        assertEquals(guess.layout().columns(), List.of(Column.TIME, Column.LEFT_OUT, Column.SIZE));
        TickLayout mapped = guess.with(List.of(Column.TIME, Column.PRICE, Column.SIZE));
        assertEquals(mapped.decimalMark(), ',', "the prices have a decimal comma");
        assertEquals(mapped.times(), TimeForm.DAY_FIRST);
    }

    /** Local times of every quarter of an hour through both changes of both zones, against {@link TapeTime#first}. */
    @Test
    public void localTimesAreTheFirstInstantTheZoneShowsThem() {
        for (String name : List.of("Pacific/Auckland", "Europe/Helsinki", "America/New_York", "UTC")) {
            ZoneId zone = ZoneId.of(name);
            FieldText text = new FieldText(new TickLayout(',', true, List.of(), List.of(), TimeForm.YEAR_FIRST,
                    Optional.of(zone), '.', true), contract.value());
            for (LocalDateTime at = LocalDateTime.of(2026, 1, 1, 0, 7); at.getYear() < 2028; at = at.plusMinutes(15)) {
                byte[] bytes = (at.toLocalDate() + " " + at.toLocalTime()).getBytes(StandardCharsets.US_ASCII);
                assertEquals(text.time(bytes, 0, bytes.length), TapeTime.first(at, zone), at + " " + name);
            }
        }
    }
}
