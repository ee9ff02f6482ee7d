package stativex.files.tape;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.concurrent.CancellationException;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

public class TapeStoreTest {
    private static final String[] SHORT = {"2026-09-20T21:45:00Z,1284.00,1", "2026-09-20T21:45:01Z,1284.25,2"};
    private final Documents.Read<Contract> contract = Documents.contract(Texts.CONTRACT, "contract.json");
    private Path home;
    private TapeStore store;

    @BeforeMethod
    public void freshStore() throws IOException {
        home = Files.createTempDirectory("store");
        store = new TapeStore(home.resolve("tapes"));
    }

    private Path csv(String header, String... lines) throws IOException {
        Path file = Files.createTempFile(home, "ticks", ".csv");
        Files.writeString(file, header + "\n" + String.join("\n", lines) + "\n", StandardCharsets.UTF_8);
        return file;
    }

    private TapeImport read(Path file) {
        return TapeImport.read(store, file, contract,
                TapeImport.isParquet(file)
                        ? Optional.empty()
                        : Optional.of(LayoutGuess.of(file, contract.value().calendar().zone()).layout()),
                TapeImport.GAP, Progress.NONE);
    }

    /** A tape of several blocks with quotes, written as one of our own files. */
    private Path large(int prints) throws IOException {
        SplittableRandom dice = new SplittableRandom(prints);
        TapeBuilder tape = new TapeBuilder(prints);
        long time = TapeTime.nanos(java.time.Instant.parse("2026-09-20T20:30:00Z"));
        long price = 5000;
        for (int i = 0; i < prints; i++) {
            time += dice.nextLong(100_000_000L);
            price += dice.nextInt(-2, 3);
            tape.add(time, price, dice.nextInt(1, 9), price - 1, price + dice.nextInt(2));
        }
        Path file = home.resolve("large.csv");
        TickCsv.write(file, tape.build(), contract.value());
        return file;
    }

    private Tape keep(Path file, String name) {
        try (TapeImport job = read(file)) {
            job.keep(name, true, Set.of());
        }
        return store.open(name).tape();
    }

    private List<String> files() throws IOException {
        try (var list = Files.list(store.folder())) {
            return list.map(f -> f.getFileName().toString()).filter(f -> !f.equals(".lock")).sorted().toList();
        }
    }

    @Test
    public void whatIsImportedIsKeptToTheLastPrint() throws IOException {
        Path file = large(150_000);
        Tape direct = TickCsv.read(file, contract.value());
        Tape kept = keep(file, "TDL 2026-12");
        assertEquals(kept.count(), direct.count());
        assertEquals(kept.checksum(), direct.checksum());
        assertEquals(files(), List.of("TDL 2026-12.tape"));
        double bytes = (double) store.open("TDL 2026-12").bytes() / kept.count();
        assertTrue(bytes <= 24, bytes + " bytes a tick");
        assertEquals(store.list().stream().map(TapeStore.Entry::name).toList(), List.of("TDL 2026-12"));
        TapeInfo info = store.open("TDL 2026-12").info();
        assertEquals(info.contract().value().symbol(), "TDL");
        assertEquals(info.source(), file.toAbsolutePath().toString());
        store.remove("TDL 2026-12");
        assertTrue(expectThrows(BadInput.class, () -> store.open("TDL 2026-12")).getMessage()
                .contains("which is empty: bring one in"));
    }

    @Test
    public void parquetComesBackTheSame() throws IOException {
        Path file = large(70_000);
        Tape tape = TickCsv.read(file, contract.value());
        Path parquet = home.resolve("ticks.parquet");
        ParquetTicks.write(parquet, tape, contract.value(), 0, tape.count(), Progress.NONE);
        assertEquals(keep(parquet, "back").checksum(), tape.checksum());
        try (var left = Files.list(home)) {
            assertEquals(left.filter(f -> f.getFileName().toString().startsWith(".")).count(), 0);
        }
    }

    @Test
    public void parquetOfOtherHandsIsRead() throws Exception {
        Path file = home.resolve("other.parquet");
        try (var base = Parquet.reader(); var statement = base.createStatement()) {
            statement.execute("COPY (SELECT 7 AS volume, 1284.3::DOUBLE + 0.05 * i::DOUBLE AS last, "
                    + "TIMESTAMPTZ '2026-09-20 21:45:00+00' + to_seconds(i) AS \"Time Stamp\" FROM range(10) t(i)) TO "
                    + Parquet.quoted(file.toString()) + " (FORMAT parquet)");
        }
        try (TapeImport job = read(file)) {
            assertEquals(job.findings().count(Finding.OFF_GRID), 8, "only 1284.50 and 1284.75 are on the grid");
            assertEquals(job.prints(), 2);
            assertEquals(job.findings().places(Finding.OFF_GRID).getFirst().line(), 1);
        }
        assertTrue(files().isEmpty(), "nothing was kept");
    }

    @Test
    public void findingsAreCountedByKindWithTheirFirstPlaces() throws IOException {
        // Monday 2026-09-21 Auckland: the session is 20:30 to 05:00 UTC
        Path file = csv("time,price,size,bid,ask", "2026-09-20T20:00:00Z,1284.00,1,1284.00,1284.25",
                "2026-09-20T20:32:00Z,1284.00,1,1284.00,1284.25", "2026-09-20T20:32:00Z,1284.00,1,1284.00,1284.25",
                "2026-09-20T20:32:10Z,1284.10,1,1284.00,1284.25", "2026-09-20T20:32:11Z,1284.00,0,1284.00,1284.25",
                "2026-09-20T20:32:05Z,1284.00,1,1284.00,1284.25", "2026-09-20T20:32:04Z,1284.00,1,1284.00,1284.25",
                "2026-09-20T20:40:00Z,1284.00,1,,1284.25", "2026-09-20T20:41:00Z,1284.00,1,1284.25,1284.25",
                "nonsense", "2026-09-20T21:45:00Z,1284.00,1,1284.00,1284.25");
        try (TapeImport job = read(file)) {
            Findings f = job.findings();
            assertEquals(f.count(Finding.UNREADABLE), 2);
            assertEquals(f.count(Finding.OFF_GRID), 1);
            assertEquals(f.count(Finding.BACKWARDS), 1);
            assertEquals(f.bad(), 4);
            assertEquals(f.count(Finding.DUPLICATE), 1);
            assertEquals(f.count(Finding.OUTSIDE), 1);
            assertEquals(f.count(Finding.NO_QUOTE), 1);
            assertEquals(f.count(Finding.CROSSED), 1);
            assertEquals(f.count(Finding.GAP), 2);
            assertEquals(f.count(Finding.LATE), 1);
            assertEquals(f.places(Finding.UNREADABLE).getFirst(), new Findings.Place(6,
                    "size: expected a whole number of contracts, 1 or more, found \"0\""));
            assertEquals(f.places(Finding.BACKWARDS).getFirst().line(), 8);
            assertEquals(f.places(Finding.GAP).getFirst(), new Findings.Place(9,
                    "2026-09-21/Day: no print for 7 min from 2026-09-21 08:32:05 Auckland"));
            assertEquals(f.lacking(), Set.of(TapeInfo.sessionName("2026-09-21/Day")));
            assertEquals(job.prints(), 7);
            BadInput refused = expectThrows(BadInput.class, () -> job.keep("odd", false, Set.of()));
            assertTrue(refused.getMessage().contains("4 lines cannot be taken; first: line 6"), refused.getMessage());
        }
        assertTrue(files().isEmpty());
        try (TapeImport job = read(file)) {
            job.keep("odd", true, job.findings().lacking());
        }
        TapeInfo.Closing closing = store.open("odd").info().closing();
        assertEquals(closing.findings().count(Finding.GAP), 2);
        assertEquals(closing.findings().places(Finding.BACKWARDS).size(), 1);
        assertTrue(closing.leftOut());
        assertEquals(store.open("odd").tape().incomplete(), Set.of(TapeInfo.sessionName("2026-09-21/Day")));
    }

    @Test
    public void cancellingLeavesNothing() throws IOException {
        Path file = csv("time,price,size", SHORT);
        TickLayout layout = LayoutGuess.of(file, contract.value().calendar().zone()).layout();
        assertThrows(CancellationException.class, () -> TapeImport.read(store, file, contract, Optional.of(layout),
                TapeImport.GAP, (done, all) -> {
                    throw new CancellationException();
                }));
        assertTrue(files().isEmpty());
    }

    @Test
    public void aNameIsTakenOnce() throws IOException {
        Path file = csv("time,price,size", SHORT);
        keep(file, "one");
        BadInput refused = expectThrows(BadInput.class, () -> keep(file, "one"));
        assertTrue(refused.getMessage().contains("already"), refused.getMessage());
        assertThrows(BadInput.class, () -> keep(file, "../one"));
        assertThrows(BadInput.class, () -> keep(file, ".hidden"));
        assertEquals(files(), List.of("one.tape"));
    }

    /** Puts other bytes in a tape's place; what is mapped of the old file stays as it was. */
    private void damage(String name, byte[] bytes) throws IOException {
        Path beside = store.folder().resolve("beside");
        Files.write(beside, bytes);
        Files.move(beside, store.folder().resolve(name + ".tape"), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    }

    private byte[] bytes(String name) throws IOException {
        return Files.readAllBytes(store.folder().resolve(name + ".tape"));
    }

    @Test
    public void aTornTapeIsNeverReadAndIsMadeAgainWithItsMarks() throws IOException {
        Path file = large(140_000);
        Set<Tape.SessionName> marks = Set.of(TapeInfo.sessionName("2026-09-21/Day"));
        try (TapeImport job = read(file)) {
            job.keep("torn", true, marks);
        }
        Tape whole = store.open("torn").tape();
        byte[] bytes = bytes("torn");
        SplittableRandom dice = new SplittableRandom(1);
        for (int round = 0; round < 40; round++) {
            int length = round < 10 ? bytes.length - 1 - round * 7 : dice.nextInt(100, bytes.length);
            damage("torn", java.util.Arrays.copyOf(bytes, length));
            assertThrows(Damaged.class, () -> store.open("torn"));
            assertTrue(store.list().getFirst().problem().isPresent());
            if (length < TapeFile.ROOM) {
                // not even the head is there
                assertThrows(BadInput.class, () -> store.rebuild("torn", Progress.NONE));
                assertEquals(bytes("torn").length, length, "the damaged one stays");
                continue;
            }
            store.rebuild("torn", Progress.NONE);
            TapeStore.Stored again = store.open("torn");
            assertEquals(again.tape().count(), whole.count());
            assertEquals(again.tape().incomplete(), marks, "round " + round);
            assertEquals(again.info().closing().leftOut(), false);
            if (round % 10 == 0) {
                assertEquals(again.tape().checksum(), whole.checksum());
            }
        }
    }

    @Test
    public void aDamagedEndWithoutTheSourceIsMadeAgainFromTheBlocksOrRefused() throws IOException {
        Path file = large(140_000);
        Tape whole = keep(file, "alone");
        byte[] bytes = bytes("alone");
        Files.delete(file);
        byte[] end = bytes.clone();
        end[end.length - 100] ^= 1;
        damage("alone", end);
        assertThrows(Damaged.class, () -> store.open("alone"));
        store.rebuild("alone", Progress.NONE);
        assertEquals(store.open("alone").tape().checksum(), whole.checksum(), "every block was there");
        byte[] head = bytes.clone();
        head[40] ^= 1;
        damage("alone", head);
        assertThrows(Damaged.class, () -> store.open("alone"));
        store.rebuild("alone", Progress.NONE);
        assertEquals(store.open("alone").tape().checksum(), whole.checksum(), "the end tells what the head did");
        damage("alone", java.util.Arrays.copyOf(bytes, bytes.length - 500_000));
        assertTrue(expectThrows(BadInput.class, () -> store.rebuild("alone", Progress.NONE)).getMessage()
                .contains("is gone"));
        assertThrows(Damaged.class, () -> store.open("alone"));
    }

    @Test
    public void aTapeWithoutItsEndIsNotMadeFromAnotherSource() throws IOException {
        Path file = large(140_000);
        keep(file, "cut");
        byte[] bytes = bytes("cut");
        String text = Files.readString(file);
        Files.writeString(file, text.substring(0, text.length() - 60) + "\nnot a print,at all,1\n");
        damage("cut", java.util.Arrays.copyOf(bytes, bytes.length - 500_000));
        assertTrue(expectThrows(BadInput.class, () -> store.rebuild("cut", Progress.NONE)).getMessage()
                .contains("has changed since the import"));
        Files.writeString(file, text.replace(",1,", ",2,"));
        assertTrue(expectThrows(BadInput.class, () -> store.rebuild("cut", Progress.NONE)).getMessage()
                .contains("has changed since the import"), "as long as before");
    }

    @Test
    public void namesThatMeanSomethingElseAreRefused() throws IOException {
        Path file = csv("time,price,size", SHORT);
        for (String name : List.of("demo", "Demo", "demo MNH", "x.csv", "x.PARQUET")) {
            assertTrue(expectThrows(BadInput.class, () -> keep(file, name)).getMessage().contains("cannot be named"));
        }
        keep(file, "demonstration");
        assertTrue(expectThrows(BadInput.class, () -> store.fresh("y.csv", ".join.json")).getMessage()
                .contains("cannot be named"));
    }

    @Test
    public void aParquetFileIsTheOneNamedAndNoOther() throws IOException {
        Tape tape = TickCsv.read(csv("time,price,size", SHORT), contract.value());
        Tape other = TickCsv.read(csv("time,price,size", "2026-09-20T21:45:00Z,1300.00,7"), contract.value());
        for (String name : List.of("t[1].parquet", "t*.parquet", "t?.parquet", "t{a,b}.parquet", "it's.parquet")) {
            Path file = home.resolve(name);
            ParquetTicks.write(file, tape, contract.value(), 0, tape.count(), Progress.NONE);
            for (String beside : List.of("t1.parquet", "tx.parquet", "ta.parquet")) {
                ParquetTicks.write(home.resolve(beside), other, contract.value(), 0, 1, Progress.NONE);
            }
            assertEquals(ParquetTicks.read(file, contract.value()).checksum(), tape.checksum(), name);
        }
    }

    @Test
    public void numbersOfParquetThatDoNotFitAreRefusedWithTheirRow() throws Exception {
        Path file = home.resolve("far.parquet");
        List<String> rows = List.of("18446744073709551615::UBIGINT, 1, TIMESTAMP '2026-09-20 21:45:00'",
                "170141183460469231731687303715884105727::HUGEINT, 1, TIMESTAMP '2026-09-20 21:45:00'",
                "99999999999999999999999999999999999.5::DECIMAL(38,1), 1, TIMESTAMP '2026-09-20 21:45:00'",
                "1284, 18446744073709551615::UBIGINT, TIMESTAMP '2026-09-20 21:45:00'",
                "1284, 1, TIMESTAMP '9999-01-01 00:00:00'", "1284, 1, TIMESTAMP '0001-01-01 00:00:00'",
                "1284, 1, 'infinity'::TIMESTAMP", "1284, 1, TIMESTAMP_S '290000-01-01 00:00:00'",
                "1e300::DOUBLE, 1, TIMESTAMP '2026-09-20 21:45:00'",
                "'NaN'::DOUBLE, 1, TIMESTAMP '2026-09-20 21:45:00'");
        for (String row : rows) {
            try (var base = Parquet.reader(); var statement = base.createStatement()) {
                statement.execute("COPY (SELECT price, size, time FROM (VALUES (" + row + ")) t(price, size, time)) TO "
                        + Parquet.quoted(file.toString()) + " (FORMAT parquet)");
            }
            String said = expectThrows(BadInput.class, () -> ParquetTicks.read(file, contract.value())).getMessage();
            assertTrue(said.contains("row 1") && !said.contains("\n"), row + ": " + said);
            Files.delete(file);
        }
    }

    @Test
    public void noFlippedBitGoesUnnoticed() throws IOException {
        Path file = large(3000);
        Tape whole = TickCsv.read(file, contract.value());
        keep(file, "bits");
        Path stored = store.folder().resolve("bits.tape");
        byte[] bytes = Files.readAllBytes(stored);
        SplittableRandom dice = new SplittableRandom(2);
        int noticed = 0;
        for (int round = 0; round < 300; round++) {
            byte[] flipped = bytes.clone();
            // the head's room is mostly empty
            int place = round < 120
                    ? bytes.length - 1 - round
                    : round < 180 ? dice.nextInt(1000) : dice.nextInt(TapeFile.ROOM + 2000, bytes.length);
            flipped[place] ^= (byte) (1 << dice.nextInt(8));
            // a mapped file must not be written over: each round has a name of its own
            Path other = store.folder().resolve("bits" + round + ".tape");
            Files.write(other, flipped);
            try {
                assertEquals(store.open("bits" + round).tape().checksum(), whole.checksum(), "byte " + place);
            } catch (BadInput expected) {
                noticed++;
            }
            Files.delete(other);
        }
        assertTrue(noticed > 250, noticed + " of 300 were noticed; the rest hit padding");
    }

    @Test
    public void aDamagedTapeIsMadeAgainFromItsSource() throws IOException {
        Path file = large(2000);
        keep(file, "again");
        Path stored = store.folder().resolve("again.tape");
        byte[] bytes = Files.readAllBytes(stored);
        bytes[bytes.length - 10_000] ^= 4;
        Path beside = stored.resolveSibling("new");
        Files.write(beside, bytes);
        Files.move(beside, stored, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        Damaged damage = expectThrows(Damaged.class, () -> store.open("again").tape().price(0));
        assertTrue(damage.getMessage().contains("prints 0 to 1999"), damage.getMessage());
        store.rebuild("again", Progress.NONE);
        assertEquals(store.open("again").tape().checksum(), TickCsv.read(file, contract.value()).checksum());
        damage("again", bytes);
        Files.writeString(file, Files.readString(file).replace("12", "13"));
        BadInput changed = expectThrows(BadInput.class, () -> store.rebuild("again", Progress.NONE));
        assertTrue(changed.getMessage().contains("has changed since the import"), changed.getMessage());
        Files.delete(file);
        assertTrue(expectThrows(BadInput.class, () -> store.rebuild("again", Progress.NONE)).getMessage()
                .contains("is gone"));
        assertEquals(files(), List.of("again.tape"));
    }

    /** Begins an import in another process and is killed in the middle of it. */
    public static final class Victim {
        private Victim() {}

        public static void main(String[] arguments) throws Exception {
            TapeStore store = new TapeStore(Path.of(arguments[0]));
            try (TapeStore.Part part = store.part()) {
                part.channel().write(java.nio.ByteBuffer.wrap(new byte[1000]));
                System.out.println("writing");
                System.in.read();
            }
        }
    }

    @Test
    public void whatAKilledCopyLeftIsSweptAndALiveOneIsLeftAlone() throws Exception {
        Process other = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-cp",
                classPath(), Victim.class.getName(), store.folder().toString()).redirectErrorStream(true).start();
        try {
            assertEquals(other.inputReader().readLine(), "writing");
            keep(csv("time,price,size", SHORT), "beside");
            assertEquals(files().stream().filter(f -> f.endsWith(".part")).count(), 1, "a live copy's file stays");
        } finally {
            other.destroyForcibly().waitFor();
        }
        keep(csv("time,price,size", SHORT), "after");
        assertEquals(files(), List.of("after.tape", "beside.tape"));
        assertFalse(store.has("nothing"));
    }

    private static String classPath() {
        return String.join(java.io.File.pathSeparator, System.getProperty("java.class.path", ""),
                System.getProperty("jdk.module.path", ""), "target/classes", "target/test-classes",
                "../core/target/classes");
    }
}
