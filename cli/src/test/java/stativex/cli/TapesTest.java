package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.files.AttemptBook;
import stativex.files.DataFolder;

/** The tape commands as a person types them. The build sets STATIVEX_HOME to a folder under target. */
public class TapesTest {
    private Path folder;
    private String contract;

    @BeforeMethod
    public void freshHome() throws IOException {
        Path home = DataFolder.path();
        assertTrue(home.toString().contains("target"), "tests must not touch a person's data: " + home);
        if (Files.exists(home)) {
            try (Stream<Path> files = Files.walk(home)) {
                files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
            }
        }
        folder = Files.createTempDirectory("tapes");
        Main.run("demo", "--export", folder.toString());
        contract = folder.resolve("tdl.contract.json").toString();
    }

    static String said(int expected, String... words) {
        PrintStream out = System.out;
        PrintStream err = System.err;
        ByteArrayOutputStream caught = new ByteArrayOutputStream();
        System.setOut(new PrintStream(caught, true, StandardCharsets.UTF_8));
        System.setErr(System.out);
        try {
            assertEquals(Main.run(words), expected, caught.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(out);
            System.setErr(err);
        }
        return caught.toString(StandardCharsets.UTF_8);
    }

    private String bars(String tape, String... more) throws IOException {
        Path out = folder.resolve("bars.csv");
        String[] words = Stream.concat(Stream.of("bars", "--tape", tape, "--type", "range", "--size", "20", "--out",
                out.toString()), Stream.of(more)).toArray(String[]::new);
        said(0, words);
        return Files.readString(out);
    }

    @Test
    public void sealedDatesAreLeftOutUntilTheyAreOpenedForAVersion() throws IOException {
        said(0, "import", folder.resolve("tdl.ticks.csv").toString(), "--contract", contract, "--name", "TDL 2026-12");
        Path out = folder.resolve("out");
        String[] trial = {"trial", "--tape", "TDL 2026-12", "--contract", contract, "--strategy",
                folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString(), "--out", out.toString()};
        assertTrue(said(0, Stream.concat(Stream.of(trial), Stream.of("--keep")).toArray(String[]::new))
                .contains("prints; not sealed."));
        assertEquals(Files.readAllLines(out.resolve("days.csv")).size(), 6);
        assertTrue(said(1, Stream.concat(Stream.of(trial), Stream.of("--unseen")).toArray(String[]::new))
                .contains("expected a stored tape of a sealed contract"));
        assertTrue(
                said(1, "seal", folder.resolve("tdl.ticks.csv").toString()).contains("files and the demo are never"));
        assertTrue(said(0, "seal", "TDL 2026-12").contains("sealed TDL from 2026-09-24 to 2026-09-24"),
                "the last of five days");
        assertTrue(said(1, "seal", "TDL 2026-12").contains("has a seal already"));
        assertTrue(said(0, trial).contains("sealed 2026-09-24 to 2026-09-24, opened 0 times"));
        assertEquals(Files.readAllLines(out.resolve("days.csv")).size(), 5, "the sealed day is not there");
        assertTrue(said(0, Stream.concat(Stream.of(trial), Stream.of("--keep", "--html")).toArray(String[]::new))
                .contains("kept as trial 2"));
        assertTrue(Files.readString(out.resolve("report.html")).contains("sealed 2026-09-24 to 2026-09-24"));
        String before = DataFolder.path().resolve("trials").resolve("0001").toString();
        String refused = said(1, "trial", "--again", before);
        assertTrue(refused.contains("it looks at dates that are sealed now, 2026-09-24 to 2026-09-24"), refused);
        assertTrue(said(1, "trial", "--session", before + "/trial.session", "--out", out.toString())
                .contains("dates that are sealed now"));
        String kept = DataFolder.path().resolve("trials").resolve("0002").toString();
        assertTrue(said(0, "trial", "--again", kept).contains("the same, byte for byte"));
        Files.writeString(Path.of(kept).resolve("days.csv"),
                Files.readString(Path.of(kept).resolve("days.csv")).replace("-454.70", "454.70"));
        assertTrue(said(1, "trial", "--again", kept).contains("days.csv, line 4: was 2026-09-22,454.70"));
        assertTrue(said(1, Stream.concat(Stream.of(trial), Stream.of("--from", "2026-09-24")).toArray(String[]::new))
                .contains("are sealed"));
        assertTrue(said(0, Stream.concat(Stream.of(trial), Stream.of("--unseen")).toArray(String[]::new))
                .contains("opened: sealed 2026-09-24 to 2026-09-24, opened 1 times"));
        assertEquals(Files.readAllLines(out.resolve("days.csv")).size(), 2, "the sealed day alone");
        assertTrue(Files.readAllLines(out.resolve("days.csv")).getLast().startsWith("2026-09-24,"));
        said(0, Stream.concat(Stream.of(trial), Stream.of("--unseen")).toArray(String[]::new));
        assertTrue(said(0, "seal").contains("opened 1 times"), "the same version opens it once");
        assertTrue(said(0, "trial", "--again", before).contains("the same, byte for byte"),
                "it is open for the version");
        assertEquals(AttemptBook.own().count("TDL", "Ebb fade", LocalDate.parse("2026-09-18"),
                LocalDate.parse("2026-09-23")), 1, "one variant was tried on the fit range");
        assertEquals(AttemptBook.own().count("TDL", "Ebb fade", LocalDate.parse("2026-09-24"),
                LocalDate.parse("2026-09-24")), 1, "by the trial before the seal; an opening is no attempt");
        assertTrue(said(0, "past", "--tape", "TDL 2026-12", "--contract", contract, "--strategy",
                folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString()).lines().noneMatch(
                        line -> line.contains("2026-09-24T")),
                "nothing of the sealed day is followed");
        String unseen = Files.readAllLines(out.resolve("days.csv")).getLast().split(",")[1];
        Files.writeString(folder.resolve("stops.search.json"),
                "{\"document\":\"search\",\"version\":1,\"contractFile\":\"tdl.contract.json\",\"accountFile\":"
                        + "\"gannet-row-40k.account.json\",\"strategyFile\":\"ebb-fade.strategy.json\",\"tape\":"
                        + "\"TDL 2026-12\",\"leastTrades\":1,\"method\":{\"kind\":\"grid\"},\"ranges\":[{\"name\":"
                        + "\"stop\",\"at\":\"/exit/stop/ticks\",\"values\":[12,16,20]}]}");
        Path found = folder.resolve("found");
        String searched = said(0, "search", "--spec", folder.resolve("stops.search.json").toString(), "--out",
                found.toString());
        assertEquals(searched.lines().filter(line -> line.contains("; unseen ")).toList().size(), 1, searched);
        assertTrue(searched.contains("; unseen ") && searched.contains(", net " + unseen + "\n"), searched + unseen);
        String json = Files.readString(found.resolve("search.json"));
        assertTrue(json.contains("\"openings\" : 1") && json.contains("\"net\" : \"" + unseen + "\""),
                "the version that opened it, alone: " + json);
    }

    @Test
    public void aTapeIsImportedLookedAtBarredExportedAndRemoved() throws IOException {
        assertTrue(said(0, "tapes").contains("No tape yet"));
        String csv = folder.resolve("tdl.ticks.csv").toString();
        assertTrue(said(0, "import", csv, "--contract", contract, "--look").contains("455221 prints"));
        assertTrue(said(0, "tapes", "list").contains("No tape yet"), "looking keeps nothing");
        assertTrue(said(1, "import", csv, "--contract", contract, "--name", "never", "--incomplete", "2026-09-21/Noon")
                .contains("incomplete session 2026-09-21/Noon: expected a session of that date, which has"));
        assertTrue(said(0, "import", csv, "--contract", contract, "--name", "TDL 2026-12", "--incomplete",
                "2026-09-21/Day").contains("Kept as TDL 2026-12"));
        assertTrue(said(0, "tapes").contains("TDL 2026-12: TDL, 455221 prints, 2026-09-17 to 2026-09-24"));
        assertTrue(said(0, "tapes", "show", "TDL 2026-12").contains("incomplete: 2026-09-21/Day"));
        assertEquals(bars("TDL 2026-12"), bars(csv, "--contract", contract));
        Path parquet = folder.resolve("day.parquet");
        assertTrue(said(0, "export", "--tape", "TDL 2026-12", "--from", "2026-09-24", "--out", parquet.toString())
                .contains("95293 prints"));
        assertTrue(
                said(0, "import", parquet.toString(), "--contract", contract).contains("95293 prints from 2026-09-23"));
        Path back = folder.resolve("back.csv");
        said(0, "export", "--tape", "day", "--out", back.toString());
        String[] day = Files.readString(Path.of(csv)).split("(?=2026-09-23T06:00)", 2);
        assertEquals(Files.readString(back), day[0].lines().findFirst().orElseThrow() + "\r\n" + day[1],
                "through Parquet and the store to the same bytes");
        said(0, "tapes", "remove", "TDL 2026-12");
        assertTrue(said(1, "tapes", "show", "TDL 2026-12").contains("there are day"));
    }

    @Test
    public void badLinesAreCountedAndLeftOutOnlyWhenSaid() throws IOException {
        Path file = folder.resolve("other.txt");
        Files.writeString(file,
                "Stamp;Last;Lots;Memo\n24.09.2026 09:45:00;1280,00;2;a\n24.09.2026 09:45:01;1280,10;2;b\n"
                        + "24.09.2026 09:45:02;1280,25;1;c\n");
        String refused = said(1, "import", file.toString(), "--contract", contract, "--columns", "time=Stamp");
        assertTrue(refused.contains("Prices off the tick grid: 1 (bad lines)")
                && refused.contains("line 3: Last: expected a price on the tick grid of 0.25")
                && refused.contains("Nothing was kept; --leave-out keeps the rest"), refused);
        assertTrue(said(0, "import", file.toString(), "--contract", contract, "--columns", "time=Stamp", "--leave-out")
                .contains("Kept as other, 1 lines left out, listed in "));
        assertEquals(Files.readString(DataFolder.path().resolve("tapes/other.left-out.txt")),
                "line 3: Last: expected a price on the tick grid of 0.25, found 1280,10\n");
        assertTrue(said(0, "import", file.toString(), "--contract", contract, "--look").contains("Stamp: time"),
                "a column of times is known by its values");
        assertTrue(said(1, "import", file.toString(), "--contract", contract, "--columns", "size=Last")
                .contains("hold the price"));
        assertTrue(said(2, "import", file.toString(), "--contract", contract, "--columns", "time=Stump")
                .contains("Stamp, Last, Lots, Memo"));
        assertTrue(said(2, "import", file.toString(), "--contract", contract, "--zone", "Aukland").contains("IANA"));
        assertTrue(said(2, "import", file.toString(), "--contract", contract, "--gap", "soon").contains("minutes"));
    }

    @Test
    public void aDamagedTapeMendsItself() throws IOException {
        String csv = folder.resolve("tdl.ticks.csv").toString();
        said(0, "import", csv, "--contract", contract, "--name", "hurt");
        String before = bars("hurt");
        Path file = DataFolder.path().resolve("tapes/hurt.tape");
        byte[] bytes = Files.readAllBytes(file);
        bytes[bytes.length / 3] ^= 1;
        Path other = folder.resolve("other");
        Files.write(other, bytes);
        Files.move(other, file, StandardCopyOption.REPLACE_EXISTING);
        assertTrue(said(0, "tapes", "check", "hurt").contains("hurt was damaged and is whole again"));
        assertTrue(said(0, "tapes", "check", "hurt").contains("hurt is whole"));
        Files.write(other, bytes);
        Files.move(other, file, StandardCopyOption.REPLACE_EXISTING);
        assertEquals(bars("hurt"), before, "mended on the way");
    }

    @Test
    public void monthsAreJoined() throws IOException {
        String csv = folder.resolve("tdl.ticks.csv").toString();
        said(0, "import", csv, "--contract", contract, "--name", "2026-09");
        // the next month: the same prints, four points higher
        Path higher = folder.resolve("higher.csv");
        try (Stream<String> lines = Files.lines(Path.of(csv))) {
            Files.write(higher, (Iterable<String>) lines.map(line -> {
                String[] f = line.split(",");
                return line.startsWith("time")
                        ? line
                        : f[0] + "," + up(f[1]) + "," + f[2] + "," + up(f[3]) + ","
                                + up(f[4]) + "," + f[5];
            })::iterator);
        }
        said(0, "import", higher.toString(), "--contract", contract, "--name", "2026-12");
        assertTrue(said(0, "tapes", "join", "TDL", "--months", "2026-09,2026-12", "--on", "2026-09-22")
                .contains("2026-09-22: 2026-09 to 2026-12, adjustment 16 ticks (4.00)"));
        assertTrue(said(0, "tapes").contains("TDL: join"));
        String adjusted = bars("TDL", "--back-adjust");
        assertEquals(adjusted, bars("2026-12"), "moved by the difference, both months are one");
        String[] real = bars("TDL").split("\r\n");
        assertEquals(real[1].split(",")[2], bars("2026-09").split("\r\n")[1].split(",")[2], "real prices unless asked");
        assertTrue(said(1, "tapes", "join", "TDL", "--months", "2026-09,2026-12", "--on", "2026-09-22")
                .contains("already"));
        assertTrue(said(1, "tapes", "join", "other", "--months", "2026-09,2026-12", "--on", "2026-09-20")
                .contains("no session"));
        assertTrue(said(1, "tapes", "join", "other", "--months", "2026-09,2026-12", "--by-volume")
                .contains("never exceeds"));
        assertTrue(said(0, "tapes", "join", "rolling", "--months", "2026-09,2026-12", "--on", "2026-09-23")
                .contains("2026-09-23"));
        tradedOverTheRoll();
        said(0, "tapes", "remove", "TDL");
        assertTrue(said(0, "tapes").contains("2026-12"), "the months stay");
    }

    /**
     * The months are alike but for four points: until the roll the join trades like the older one, and from it on, since studies see
     * everything before at the newer one's prices, like the newer one.
     */
    private void tradedOverTheRoll() throws IOException {
        List<String> older = decisions("2026-09");
        List<String> newer = decisions("2026-12");
        List<String> both = decisions("rolling", "--roll-lead", "30");
        // the trading day 2026-09-23 opens at 06:00 UTC of the day before
        assertEquals(from(both, "2026-09-22T06"), from(newer, "2026-09-22T06"));
        List<String> before = both.subList(1, both.size() - from(both, "2026-09-22T06").size());
        assertEquals(before, older.subList(1, before.size() + 1));
        assertTrue(before.size() > 5 && from(both, "2026-09-22T06").size() > 5, both.toString());
        assertTrue(said(1, "trial", "--tape", "rolling", "--contract", contract, "--strategy",
                folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString(), "--out", folder.resolve("t").toString(),
                "--count-flickers").contains("is a join"));
    }

    private List<String> decisions(String tape, String... more) throws IOException {
        Path out = folder.resolve("out-" + tape);
        List<String> args = new ArrayList<>(List.of("trial", "--tape", tape, "--contract", contract,
                "--strategy", folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString(), "--out", out.toString()));
        args.addAll(List.of(more));
        said(0, args.toArray(String[]::new));
        return Files.readAllLines(out.resolve("decisions.csv"));
    }

    private static List<String> from(List<String> rows, String time) {
        return rows.stream().filter(row -> row.startsWith("2026") && row.compareTo(time) >= 0).toList();
    }

    private static String up(String price) {
        return new java.math.BigDecimal(price).add(new java.math.BigDecimal("4.00")).toPlainString();
    }
}
