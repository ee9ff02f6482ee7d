package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.DataFolder;
import stativex.files.Documents;
import stativex.files.Json;
import stativex.files.SessionFile;
import stativex.files.tape.TickCsv;
import stativex.market.Side;
import stativex.order.Terms;
import stativex.trial.Inputs;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Inputs that are wrong in every way a generator could think of: each is either worked rightly or refused in one clear line. A line with
 * a class's name in it, a stack trace, or half a result is a failure. {@code -Dstativex.hostile=N} takes N times as many.
 */
public class HostileInputTest {
    private static final int TIMES = Integer.getInteger("stativex.hostile", 1);
    private static final List<String> RESULTS = List.of("days.csv", "decisions.csv", "fills.csv", "report.json",
            "summary.json", "trades.csv");

    /** What a value is put in place of, as JSON. */
    private static final List<String> VALUES = List.of("null", "true", "[]", "{}", "\"\"", "\"\\ud800\"", "-1", "0",
            "1.5",
            "1e999999999", "-1e-999999999", "99999999999999999999", "2147483648", "9223372036854775807", "\"NaN\"",
            "\"9223372036854775807.99\"", "\"0.000000000000000001\"", "\"1e5\"", "\"2026-13-45\"",
            "\"+999999999-12-31\"", "\"-999999999-01-01\"", "\"25:00\"", "\"24:00\"", "\"Mars/Olympus\"",
            "\"../../../../etc/passwd\"", "\"/etc/passwd\"", "\"line one\\nline two\"", "[null]", "[[]]", "{\"a\":1}",
            "\"" + "x".repeat(5000) + "\"", "\"" + "(".repeat(1200) + "\"", "\"close > " + "abs(".repeat(900) + "\"",
            "\"close > close" + " + close".repeat(3000) + "\"", "\"sma(close, 99999999999)\"",
            "\"close 2000000000 bars before > 1\"",
            "1000000000", "0.0000001", "[\"Monday\",\"Monday\"]");

    /** Words of a program's insides. */
    private static final List<String> TELLTALE = List.of("Exception", "Error:", "java.", "stativex.files",
            "stativex.core",
            "\tat ", "SELECT", "null pointer", "Stativex has", "jackson");

    private Path folder;
    private final SplittableRandom dice = new SplittableRandom(20_261_127);
    private final List<String> problems = new ArrayList<>();
    private int worked;
    private int refused;

    @BeforeClass
    public void documents() throws IOException {
        Path home = DataFolder.path();
        assertTrue(home.toString().contains("target"), "tests must not touch a person's data: " + home);
        folder = Files.createTempDirectory("hostile");
        assertEquals(Main.run("demo", "--export", folder.toString()), 0);
        List<String> all = Files.readAllLines(folder.resolve("tdl.ticks.csv"));
        // the first session's opening and some of its prints, with the last ones of the tape behind
        List<String> few = new ArrayList<>(all.subList(0, 600));
        few.addAll(all.subList(all.size() - 200, all.size()));
        Files.write(folder.resolve("few.csv"), few);
    }

    private record Said(int code, String out, String err) {}

    private static Said say(String... words) {
        PrintStream out = System.out;
        PrintStream err = System.err;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        ByteArrayOutputStream wrong = new ByteArrayOutputStream();
        System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
        System.setErr(new PrintStream(wrong, true, StandardCharsets.UTF_8));
        try {
            int code = Main.run(words);
            return new Said(code, said.toString(StandardCharsets.UTF_8), wrong.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(out);
            System.setErr(err);
        }
    }

    /** Runs a command; what it says must be clear, or it is counted among the problems. Returns whether it was worked. */
    private boolean clear(String of, String... words) {
        Said said = say(words);
        boolean check = words[0].equals("check");
        List<String> lines = (check ? said.out() + said.err() : said.err()).lines()
                .filter(line -> !line.contains(": note: ")).toList();
        // a damaged tape is said before it is mended, a check says everything that is wrong
        int most = of.startsWith("tape") ? 3 : check ? 100 : 1;
        boolean plain = said.code() != 1 || !lines.isEmpty() && lines.size() <= most
                && lines.stream().allMatch(line -> (check || line.startsWith("stativex: ")) && line.length() < 600);
        if (!plain || said.code() < 0 || said.code() > 2
                || TELLTALE.stream().anyMatch((said.out() + said.err())::contains)) {
            problems.add(of + " gave " + said.code() + ": " + said.out() + said.err());
        }
        refused += said.code() == 0 ? 0 : 1;
        worked += said.code() == 0 ? 1 : 0;
        return said.code() == 0;
    }

    private void everyCaseWasClear() {
        List<String> found = List.copyOf(problems);
        problems.clear();
        assertEquals(found.size(), 0, found.size() + " cases were not clear:\n"
                + String.join("\n", found.subList(0, Math.min(12, found.size()))));
    }

    private boolean trial(String of, Path tape, Path contract, Path strategy, Path account) throws IOException {
        Path out = folder.resolve("out");
        boolean done = clear(of, "trial", "--tape", tape.toString(), "--contract", contract.toString(), "--strategy",
                strategy.toString(), "--account", account.toString(), "--out", out.toString());
        assertEquals(Files.exists(out) ? names(out) : List.of(), done ? RESULTS : List.of(), of + problems);
        remove(out);
        return done;
    }

    private static List<String> names(Path folder) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        }
    }

    private static void remove(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> files = Files.walk(folder)) {
                files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
            }
        }
    }

    // ------------------------------------------------------------------ documents

    /** Every place of a document. */
    private static void places(JsonNode node, String at, List<String> into) {
        into.add(at);
        if (node.isObject()) {
            node.properties().forEach(field -> places(field.getValue(), at + "/" + field.getKey(), into));
        }
        for (int i = 0; node.isArray() && i < node.size(); i++) {
            places(node.get(i), at + "/" + i, into);
        }
    }

    /** A document with something else in a place: a value, nothing, or the same once more. */
    private String changed(JsonNode document, String place, int how) {
        if (place.isEmpty()) {
            return VALUES.get(how % VALUES.size());
        }
        JsonNode copy = document.deepCopy();
        String mark = "a mark that stands nowhere else";
        JsonNode parent = copy.at(place.substring(0, place.lastIndexOf('/')));
        String name = place.substring(place.lastIndexOf('/') + 1);
        if (how >= VALUES.size()) {
            if (parent instanceof ObjectNode object) {
                JsonNode value = object.remove(name);
                if (how > VALUES.size()) {
                    object.set(name + "x", value);
                }
            } else if (parent instanceof ArrayNode array) {
                JsonNode value = array.get(Integer.parseInt(name));
                if (how > VALUES.size()) {
                    array.add(value);
                } else {
                    array.remove(Integer.parseInt(name));
                }
            }
            return Json.line(copy);
        }
        if (parent instanceof ObjectNode object) {
            object.put(name, mark);
        } else if (parent instanceof ArrayNode array) {
            array.set(Integer.parseInt(name), mark);
        }
        return Json.line(copy).replace("\"" + mark + "\"", VALUES.get(how));
    }

    @Test
    public void documentsAreRightOrRefusedInOneLine() throws IOException {
        Path few = folder.resolve("few.csv");
        Path contract = folder.resolve("tdl.contract.json");
        Path account = folder.resolve("gannet-row-40k.account.json");
        Path strategy = folder.resolve("ebb-fade.strategy.json");
        List<Path> documents = new ArrayList<>(List.of(contract, account));
        try (Stream<Path> files = Files.walk(folder)) {
            files.filter(file -> file.toString().endsWith(".strategy.json")).sorted().forEach(documents::add);
        }
        Path other = folder.resolve("changed.json");
        for (int round = 0; round < 450 * TIMES; round++) {
            int which = round % 4 < 2 ? round % 4 : 2 + dice.nextInt(documents.size() - 2);
            JsonNode document = Json.read(documents.get(which));
            List<String> places = new ArrayList<>();
            places(document, "", places);
            String place = places.get(dice.nextInt(places.size()));
            int how = dice.nextInt(VALUES.size() + 2);
            Files.writeString(other, changed(document, place, how), StandardCharsets.UTF_8);
            String of = documents.get(which).getFileName() + " " + place + " := "
                    + (how < VALUES.size()
                            ? VALUES.get(how).substring(0, Math.min(60, VALUES.get(how).length()))
                            : how);
            trial(of, few, which == 0 ? other : contract, which > 1 ? other : strategy, which == 1 ? other : account);
            if (which > 1 && round % 8 == 2) {
                clear("check of " + of, "check", "--strategy", other.toString());
            }
        }
        everyCaseWasClear();
    }

    @Test
    public void textThatIsNoDocumentIsRefused() throws IOException {
        Path contract = folder.resolve("tdl.contract.json");
        Path account = folder.resolve("gannet-row-40k.account.json");
        byte[] good = Files.readAllBytes(folder.resolve("ebb-fade.strategy.json"));
        Path other = folder.resolve("bytes.json");
        for (int round = 0; round < 120 * TIMES; round++) {
            byte[] bytes = good.clone();
            for (int i = 0; i <= round % 3; i++) {
                bytes[dice.nextInt(bytes.length)] = (byte) dice.nextInt(256);
            }
            Files.write(other, round % 5 == 4 ? Arrays.copyOf(bytes, dice.nextInt(bytes.length)) : bytes);
            trial("bytes of a strategy, round " + round, folder.resolve("few.csv"), contract, other, account);
        }
        Files.writeString(other, "\uFEFF" + new String(good, StandardCharsets.UTF_8));
        assertTrue(trial("a byte-order mark", folder.resolve("few.csv"), contract, other, account));
        Files.writeString(other, "[".repeat(100_000));
        assertFalse(trial("brackets", folder.resolve("few.csv"), contract, other, account));
        Files.writeString(other, "{\"document\": \"strategy\", \"a\": \"" + "x".repeat(17_000_000) + "\"}");
        assertFalse(trial("a long document", folder.resolve("few.csv"), contract, other, account));
        assertFalse(trial("a folder", folder.resolve("few.csv"), contract, folder, account));
        assertFalse(trial("no file", folder.resolve("few.csv"), contract, folder.resolve("none.json"), account));
        everyCaseWasClear();
    }

    @Test
    public void aPipeIsRefusedAtOnce() throws IOException, InterruptedException {
        Path pipe = folder.resolve("pipe.csv");
        Process made = new ProcessBuilder("mkfifo", pipe.toString()).start();
        if (made.waitFor() != 0) {
            throw new org.testng.SkipException("no pipes on this system");
        }
        String contract = folder.resolve("tdl.contract.json").toString();
        assertFalse(clear("a pipe as contract", "import", folder.resolve("few.csv").toString(), "--contract",
                pipe.toString()));
        assertFalse(clear("a pipe as ticks", "import", pipe.toString(), "--contract", contract));
        assertFalse(clear("a pipe as tape", "bars", "--tape", pipe.toString(), "--contract", contract, "--type", "tick",
                "--size", "5", "--out", folder.resolve("bars.csv").toString()));
        assertFalse(
                clear("a pipe as place", "bars", "--tape", folder.resolve("few.csv").toString(), "--contract", contract,
                        "--type", "tick", "--size", "5", "--out", pipe.toString()));
        assertTrue(Files.exists(pipe), "it stays");
        Files.delete(pipe);
        everyCaseWasClear();
    }

    // ------------------------------------------------------------------ ticks

    @Test
    public void tickFilesAreRightOrRefusedInOneLine() throws IOException {
        Path contract = folder.resolve("tdl.contract.json");
        byte[] good = String.join("\n", Files.readAllLines(folder.resolve("few.csv")).subList(0, 60))
                .getBytes(StandardCharsets.UTF_8);
        String signs = "\r\n\"\0,;\t-+eE.:TZ 0123456789\u00e9x";
        Path other = folder.resolve("other.csv");
        Path out = folder.resolve("other.bars.csv");
        for (int round = 0; round < 125 * TIMES; round++) {
            byte[] bytes = good.clone();
            for (int i = 0; i <= round % 4; i++) {
                int at = dice.nextInt(bytes.length);
                if (round % 7 == 3) {
                    bytes[at] = (byte) dice.nextInt(256);
                } else {
                    bytes[at] = (byte) signs.charAt(dice.nextInt(signs.length()));
                }
            }
            Files.write(other, bytes);
            Files.deleteIfExists(out);
            boolean done = clear("ticks, round " + round, "bars", "--tape", other.toString(), "--contract",
                    contract.toString(), "--type", "tick", "--size", "1", "--out", out.toString());
            assertEquals(Files.exists(out), done);
            if (done) {
                // every line below the header is one print, none is lost
                long lines = new String(bytes, StandardCharsets.ISO_8859_1).lines().count() - 1;
                assertEquals(Files.readAllLines(out).size() - 1, lines, "round " + round);
            }
            if (round % 5 == 0) {
                clear("import, round " + round, "import", other.toString(), "--contract", contract.toString(), "--name",
                        "hostile " + round, "--leave-out");
            }
        }
        for (String row : List.of("2026-9-124T00:00:00Z,1244.25,1", "2026-10-32T00:00:00Z,1244.25,1",
                "9999-12-31T23:59:59Z,1244.25,1", "0001-01-01T00:00:00Z,1244.25,1", "2026-09-21T21:45:00Z,1e400,1",
                "2026-09-21T21:45:00Z,99999999999999999999,1", "2026-09-21T21:45:00Z,1244.25,99999999999",
                "2026-09-21T21:45:00Z,999999999999999.75,1", "2026-09-21T21:45:00Z,1244.25,1,1e9,",
                "\"2026-09-21T21:45:00Z\",1244.25\r,1",
                "\"2026-09-21T21:45:00Z\",1244.25,1\r\"2026-09-21T21:45:01Z\",1244.5,1")) {
            Files.writeString(other, "time,price,size\n2026-09-20T21:45:00Z,1244.25,1\n" + row + "\n");
            assertFalse(
                    clear(row, "bars", "--tape", other.toString(), "--contract", contract.toString(), "--type", "tick",
                            "--size", "1", "--out", out.toString()));
            assertFalse(
                    clear("import of " + row, "import", other.toString(), "--contract", contract.toString(), "--name",
                            "row"));
        }
        everyCaseWasClear();
    }

    // ------------------------------------------------------------------ stored tapes

    @Test
    public void storedTapesAreRightMadeAgainOrRefused() throws IOException {
        Path source = folder.resolve("source.csv");
        Files.copy(folder.resolve("tdl.ticks.csv"), source, StandardCopyOption.REPLACE_EXISTING);
        String contract = folder.resolve("tdl.contract.json").toString();
        assertTrue(clear("tape", "import", source.toString(), "--contract", contract, "--name", "bent", "--incomplete",
                "2026-09-22/Day"));
        Path stored = DataFolder.path().resolve("tapes").resolve("bent.tape");
        byte[] good = Files.readAllBytes(stored);
        String[] words = {"trial", "--tape", "bent", "--contract", contract, "--strategy",
                folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString(), "--out", folder.resolve("bent").toString()};
        assertTrue(clear("tape", words));
        List<String> fills = Files.readAllLines(folder.resolve("bent").resolve("fills.csv"));
        assertTrue(fills.size() > 3);
        int mended = 0;
        for (int round = 0; round < 30 * TIMES; round++) {
            remove(folder.resolve("bent"));
            byte[] bytes = good.clone();
            if (round % 3 == 0) {
                bytes = Arrays.copyOf(bytes,
                        round % 6 == 0 ? bytes.length - 1 - dice.nextInt(3000) : dice.nextInt(bytes.length));
            } else {
                int at = round % 3 == 1 ? bytes.length - 1 - dice.nextInt(3000) : dice.nextInt(bytes.length);
                bytes[at] ^= (byte) (1 << dice.nextInt(8));
            }
            Path beside = stored.resolveSibling("beside");
            Files.write(beside, bytes);
            Files.move(beside, stored, StandardCopyOption.REPLACE_EXISTING);
            if (round % 10 == 9) {
                Files.writeString(source, "gone");
            }
            if (clear("tape, round " + round, words)) {
                assertEquals(Files.readAllLines(folder.resolve("bent").resolve("fills.csv")), fills, "round " + round);
                mended++;
            } else {
                assertFalse(Files.exists(folder.resolve("bent")));
            }
            if (round % 10 == 9) {
                Files.copy(folder.resolve("tdl.ticks.csv"), source, StandardCopyOption.REPLACE_EXISTING);
            }
        }
        assertTrue(mended > 20 * TIMES, mended + " were made again");
        everyCaseWasClear();
    }

    @Test
    public void parquetFilesAreRightOrRefusedInOneLine() throws IOException {
        String contract = folder.resolve("tdl.contract.json").toString();
        Path good = folder.resolve("good.parquet");
        assertTrue(clear("parquet", "export", "--tape", folder.resolve("few.csv").toString(), "--contract", contract,
                "--out",
                good.toString()));
        byte[] bytes = Files.readAllBytes(good);
        Path other = folder.resolve("other.parquet");
        for (int round = 0; round < 60 * TIMES; round++) {
            byte[] bent = round % 4 == 0 ? Arrays.copyOf(bytes, dice.nextInt(bytes.length)) : bytes.clone();
            for (int i = 0; bent.length > 0 && i <= round % 3; i++) {
                int at = round % 2 == 0 ? dice.nextInt(bent.length) : Math.max(0, bent.length - 1 - dice.nextInt(700));
                bent[at] ^= (byte) (1 << dice.nextInt(8));
            }
            Files.write(other, bent);
            clear("parquet, round " + round, "bars", "--tape", other.toString(), "--contract", contract, "--type",
                    "tick",
                    "--size", "5", "--out", folder.resolve("parquet.csv").toString());
        }
        everyCaseWasClear();
    }

    // ------------------------------------------------------------------ places to write to

    @Test
    public void placesThatCannotBeWrittenAreSaidAndNothingIsReplaced() throws IOException {
        String few = folder.resolve("few.csv").toString();
        String contract = folder.resolve("tdl.contract.json").toString();
        Path file = folder.resolve("a file");
        Files.writeString(file, "mine");
        String[] trial = {"trial", "--tape", few, "--contract", contract, "--strategy",
                folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString(), "--out", ""};
        for (String out : List.of("/dev/null", "/", file.toString(), file + "/below", "/proc/nothing/here")) {
            trial[trial.length - 1] = out;
            assertFalse(clear("results in " + out, trial), out);
        }
        for (String out : List.of("/dev/null", "/", folder.toString(), file + "/below", "/proc/nothing.csv")) {
            assertFalse(
                    clear("bars in " + out, "bars", "--tape", few, "--contract", contract, "--type", "tick", "--size",
                            "5", "--out", out),
                    out);
            assertFalse(clear("ticks in " + out, "export", "--tape", few, "--contract", contract, "--out", out), out);
        }
        assertEquals(Files.readString(file), "mine");
        assertFalse(clear("the demo in a file", "demo", "--export", file.toString()));
        assertTrue(Files.exists(Path.of("/dev/null")) && !Files.isRegularFile(Path.of("/dev/null")));
        everyCaseWasClear();
    }

    @Test
    public void anEarlierResultStaysUntilTheNextIsWhole() throws IOException {
        String few = folder.resolve("few.csv").toString();
        Path out = folder.resolve("kept");
        Files.createDirectories(out.resolve(".kept.2147483646.stativex-part"));
        Files.writeString(out.resolve("notes.txt"), "mine");
        Path dead = folder.resolve(".kept.2147483646.stativex-part");
        Files.createDirectories(dead);
        Files.writeString(dead.resolve("fills.csv"), "half");
        String[] words = {"trial", "--tape", few, "--contract", folder.resolve("tdl.contract.json").toString(),
                "--strategy", folder.resolve("ebb-fade.strategy.json").toString(), "--account",
                folder.resolve("gannet-row-40k.account.json").toString(), "--out", out.toString()};
        assertTrue(clear("into a folder", words));
        assertEquals(names(out), List.of("days.csv", "decisions.csv", "fills.csv", "notes.txt", "report.json",
                "summary.json", "trades.csv"));
        assertFalse(Files.exists(dead), "what a killed copy left is swept");
        // a copy was killed when its set was whole but not yet in its places
        Path ready = out.resolve(".stativex-ready");
        Files.createDirectories(ready);
        Files.move(out.resolve("summary.json"), ready.resolve("summary.json"));
        Files.writeString(out.resolve("summary.json"), "older");
        assertTrue(clear("over an earlier one", words));
        assertEquals(names(out), List.of("days.csv", "decisions.csv", "fills.csv", "notes.txt", "report.json",
                "summary.json", "trades.csv"));
        assertTrue(Files.readString(out.resolve("summary.json")).contains("\"engine\""));
        everyCaseWasClear();
    }

    // ------------------------------------------------------------------ sessions

    @Test
    public void sessionsAreRightOrRefusedInOneLine() throws IOException {
        Path ticks = folder.resolve("few.csv");
        SessionFile.Set documents = new SessionFile.Set(Documents.contract(folder.resolve("tdl.contract.json")),
                Documents.account(folder.resolve("gannet-row-40k.account.json")),
                List.of(Documents.strategy(folder.resolve("ebb-fade.strategy.json"))));
        Inputs inputs = documents.inputs(TickCsv.read(ticks, documents.contract().value()), Terms.DEFAULT);
        Path file = folder.resolve("good.session.jsonl");
        try (SessionFile.Recorder recorder = new SessionFile.Recorder(file, ticks.toString(), documents, inputs)) {
            recorder.command(0, new Command.SetMode(0, Mode.ENGAGED));
            recorder.command(300, new Command.SetSide(0, Side.LONG, false));
            recorder.command(400, new Command.Flatten(0));
            recorder.command(500, new Command.FlatAndLock());
            recorder.end(700);
        }
        // lines of JSON alone, as version 1 had them, are read too, so that every value can be changed
        List<String> lines = Files.readAllLines(file).stream().map(line -> line.substring(line.indexOf('{'))).toList();
        Path other = folder.resolve("other.session.jsonl");
        Path out = folder.resolve("session");
        String[] words = {"trial", "--session", other.toString(), "--out", out.toString()};
        Files.write(other, lines);
        assertTrue(clear("a session", words));
        int wrong = 0;
        for (int round = 0; round < 200 * TIMES; round++) {
            remove(out);
            List<String> bent = new ArrayList<>(lines);
            int line = round % 3 == 0 ? 0 : 1 + dice.nextInt(lines.size() - 1);
            JsonNode document = Json.parse(lines.get(line), "line");
            List<String> places = new ArrayList<>();
            places(document, "", places);
            String place = round % 3 == 0 && round % 2 == 0
                    ? "/" + List
                            .of("heartbeats", "heartbeats/0", "prints", "checksum", "realism", "latencyNanos", "tape",
                                    "version", "strategies", "account", "contract", "engine")
                            .get(dice.nextInt(12))
                    : places.get(dice.nextInt(places.size()));
            bent.set(line, changed(document, place, dice.nextInt(VALUES.size() + 2)));
            Files.write(other, bent);
            wrong += clear("session, line " + (line + 1) + " " + place + " := " + bent.get(line), words) ? 0 : 1;
        }
        assertTrue(wrong > 100 * TIMES, wrong + " were refused");
        for (int i = 1; i < lines.size() - 1; i++) {
            List<String> bent = new ArrayList<>(lines);
            bent.add(i, lines.getLast());
            Files.write(other, bent);
            assertFalse(clear("an end before line " + i, words));
            bent = new ArrayList<>(lines);
            java.util.Collections.swap(bent, i, i + 1);
            Files.write(other, bent);
            assertFalse(clear("lines out of order at " + i, words));
            bent = new ArrayList<>(lines);
            bent.set(i, lines.get(i).replaceFirst("\"place\":[0-9]+", "\"place\":100000"));
            Files.write(other, bent);
            assertFalse(clear("a place behind the tape in line " + i, words));
        }
        everyCaseWasClear();
    }

    // ------------------------------------------------------------------ words

    @Test
    public void wordsOnTheCommandLineAreRightOrRefused() {
        String few = folder.resolve("few.csv").toString();
        String contract = folder.resolve("tdl.contract.json").toString();
        String out = folder.resolve("words.csv").toString();
        List<String> odd = List.of("", "0", "-1", "1e9", "99999999999999999999", "NaN", "x", "2026-13-45",
                "+999999999-01-01",
                "-999999999-01-01", "a\nb", "\ud800", "../..", "/", "*", "1,2,,3", "=", "x=", "=x",
                "x = ema 0 of close",
                "x = ema 99999999999 of close", "x = vwap(((", "\u0000");
        for (String word : odd) {
            clear("--size " + word, "bars", "--tape", few, "--contract", contract, "--type", "tick", "--size", word,
                    "--out", out);
            clear("--type " + word, "bars", "--tape", few, "--contract", contract, "--type", word, "--size", "5",
                    "--out", out);
            clear("--study " + word, "bars", "--tape", few, "--contract", contract, "--type", "tick", "--size", "5",
                    "--study",
                    word, "--out", out);
            clear("--tape " + word, "bars", "--tape", word, "--contract", contract, "--type", "tick", "--size", "5",
                    "--out", out);
            clear("--name " + word, "import", few, "--contract", contract, "--name", word);
            clear("show " + word, "tapes", "show", word);
            clear("remove " + word, "tapes", "remove", word);
            clear("join " + word, "tapes", "join", word, "--months", word, "--on", word);
            clear("--from " + word, "export", "--tape", few, "--contract", contract, "--from", word, "--out", out);
            clear("--incomplete " + word, "import", few, "--contract", contract, "--name", "w", "--incomplete", word);
            clear("--columns " + word, "import", few, "--contract", contract, "--name", "w", "--columns", word);
            clear("--out " + word, "bars", "--tape", few, "--contract", contract, "--type", "tick", "--size", "5",
                    "--out",
                    word.isEmpty() || word.length() > 5 ? folder + "/" + word : folder + "/x/" + word);
            clear("command " + word, word);
        }
        everyCaseWasClear();
    }

    /** A document stays inside the folder of the one that names it. */
    @Test
    public void otherFilesAreNotReadThroughADocument() throws IOException {
        Path inner = folder.resolve("inner");
        Files.createDirectories(inner);
        Files.writeString(folder.resolve("secret.json"), "{\"password\": \"open sesame\"}");
        Path link = inner.resolve("link.json");
        Files.deleteIfExists(link);
        Files.createSymbolicLink(link, folder.resolve("secret.json"));
        String strategy = Files.readString(folder.resolve("ebb-fade.strategy.json"));
        JsonNode document = Json.parse(strategy, "strategy");
        for (String name : List.of("../secret.json", folder.resolve("secret.json").toString(), "link.json",
                "a/../../secret.json")) {
            ObjectNode copy = (ObjectNode) document.deepCopy();
            copy.remove("exit");
            copy.put("exitFile", name);
            Path file = inner.resolve("strategy.json");
            Files.writeString(file, Json.line(copy));
            Said said = say("check", "--strategy", file.toString());
            assertEquals(said.code(), 1, said.err());
            assertFalse((said.out() + said.err()).contains("sesame"), said.err());
            assertTrue((said.out() + said.err()).contains("inside its own folder"), said.out() + said.err());
        }
        everyCaseWasClear();
    }

    @AfterClass
    public void enough() {
        assertTrue(worked + refused >= 600 * TIMES, worked + " were worked, " + refused + " refused");
        assertTrue(worked > 100 && refused > 300, worked + " were worked, " + refused + " refused");
    }
}
