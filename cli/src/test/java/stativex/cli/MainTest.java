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
import java.util.List;
import java.util.Optional;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.SessionFile;
import stativex.link.Replay;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

public class MainTest {
    private Path demo;

    @BeforeClass
    public void export() throws IOException {
        demo = Files.createTempDirectory("demo");
        assertEquals(Main.run("demo", "--export", demo.toString()), 0);
    }

    private String[] trial(String strategy, String out, String... more) {
        List<String> words = new java.util.ArrayList<>(List.of("trial", "--tape", demo + "/tdl.ticks.csv", "--contract",
                demo + "/tdl.contract.json", "--strategy", demo + "/" + strategy, "--account",
                demo + "/gannet-row-40k.account.json", "--out", demo.resolve(out).toString()));
        words.addAll(List.of(more));
        return words.toArray(String[]::new);
    }

    private static String errors(int expected, String... words) {
        PrintStream before = System.err;
        ByteArrayOutputStream caught = new ByteArrayOutputStream();
        System.setErr(new PrintStream(caught, true, StandardCharsets.UTF_8));
        try {
            assertEquals(Main.run(words), expected);
        } finally {
            System.setErr(before);
        }
        return caught.toString(StandardCharsets.UTF_8);
    }

    private String read(String file) throws IOException {
        return Files.readString(demo.resolve(file));
    }

    @Test
    public void aTrialOfTheExportedDemoAndASessionEngagedBeforeTheFirstPrintAreTheSame() throws IOException {
        assertEquals(Main.run(trial("ebb-fade.strategy.json", "plain", "--strategy",
                demo + "/slack-water.strategy.json")), 0);
        SessionFile.Set documents = Demo.documents();
        Inputs inputs = documents.inputs(Demo.tape(documents.contract().value()), Terms.DEFAULT);
        Path file = demo.resolve("day.session.jsonl");
        Replay replay = new Replay(new Run(inputs),
                Optional.of(new SessionFile.Recorder(file, Demo.TAPE, documents, inputs))).start();
        replay.command(new Command.SetMode(0, Mode.ENGAGED));
        replay.command(new Command.SetMode(1, Mode.ENGAGED));
        replay.jumpTo(Long.MAX_VALUE - 1);
        try {
            replay.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        replay.end();
        assertEquals(Main.run("trial", "--session", file.toString(), "--out", demo.resolve("again").toString()), 0);
        assertTrue(read("plain/fills.csv").lines().count() > 20);
        for (String result : List.of("fills.csv", "trades.csv", "decisions.csv", "summary.json")) {
            assertEquals(read("again/" + result), read("plain/" + result), result);
        }
    }

    @Test
    public void badInputIsOneMessageAndExitCodeOne() throws IOException {
        String strategy = read("ebb-fade.strategy.json");
        Files.writeString(demo.resolve("typo.json"), strategy.replace("reach > 4 ticks", "raech > 4 ticks"));
        String error = errors(1, trial("typo.json", "never"));
        assertEquals(error.lines().count(), 1, error);
        assertTrue(error.contains("Ebb fade") && error.contains("line 4, column 5")
                && error.contains("did you mean \"reach\""), error);
        assertFalse(Files.exists(demo.resolve("never")), "nothing is written half");
        assertTrue(errors(1, trial("nowhere.json", "never")).contains("nowhere.json: no such file"));
    }

    private String[] bars(String... options) {
        List<String> words = new java.util.ArrayList<>(List.of("bars", "--tape", demo + "/small.csv", "--contract",
                demo + "/tdl.contract.json", "--out", demo + "/bars.csv"));
        words.addAll(List.of(options));
        return words.toArray(String[]::new);
    }

    @Test
    public void barsAreWrittenAsTheFormatSays() throws IOException {
        Files.writeString(demo.resolve("small.csv"), """
                time,price,size,aggressor
                2026-09-23T20:30:00Z,1280.00,2,buyer
                2026-09-23T20:30:01Z,1280.75,5,seller
                2026-09-23T20:30:02.5Z,1282.50,3,buyer
                2026-09-24T05:00:00Z,1282.50,1,buyer
                """);
        assertEquals(Main.run(bars("--type", "volume", "--size", "4")), 0);
        String bars = "start,end,open,high,low,close,volume,buy_volume,sell_volume,trades,trading_day,cut\r\n"
                + "2026-09-23T20:30:00Z,2026-09-23T20:30:01Z,1280.00,1280.75,1280.00,1280.75,4,2,2,2,2026-09-24,0\r\n"
                + "2026-09-23T20:30:01Z,2026-09-23T20:30:02.500Z,1280.75,1282.50,1280.75,1282.50,4,1,3,2,2026-09-24,0\r\n"
                + "2026-09-23T20:30:02.500Z,2026-09-23T20:30:02.500Z,1282.50,1282.50,1282.50,1282.50,2,2,0,1,"
                + "2026-09-24,1\r\n";
        assertEquals(read("bars.csv"), bars);
        assertEquals(Main.run(bars("--type", "renko", "--size", "2", "--turn", "4")), 0);
        assertEquals(read("bars.csv").lines().skip(1).toList(), List.of(
                "2026-09-23T20:30:00Z,2026-09-23T20:30:01Z,1280.00,1280.50,1280.00,1280.50,7,2,5,2,2026-09-24,0,1281.00,"
                        + "1279.50,0",
                "2026-09-23T20:30:02.500Z,2026-09-23T20:30:02.500Z,1280.50,1281.00,1280.50,1281.00,3,3,0,1,2026-09-24,0,"
                        + "1281.50,1280.00,1",
                "2026-09-23T20:30:02.500Z,2026-09-23T20:30:02.500Z,1281.00,1281.50,1281.00,1281.50,0,0,0,0,2026-09-24,0,"
                        + "1282.00,1280.50,1",
                "2026-09-23T20:30:02.500Z,2026-09-23T20:30:02.500Z,1281.50,1282.00,1281.50,1282.00,0,0,0,0,2026-09-24,0,"
                        + "1282.50,1281.00,1",
                "2026-09-23T20:30:02.500Z,2026-09-23T20:30:02.500Z,1282.00,1282.50,1282.00,1282.50,0,0,0,0,2026-09-24,0,"
                        + "1283.00,1281.50,1"));
        assertEquals(Main.run(bars("--type", "day", "--heikin-ashi")), 0);
        assertEquals(read("bars.csv").lines().skip(1).toList(), List.of(
                "2026-09-23T06:00:00Z,2026-09-24T05:00:00Z,1281.250000,1282.500000,1280.000000,1281.250000,10,5,5,3,"
                        + "2026-09-24,0,1"));
        assertEquals(Main.run(bars("--type", "seconds", "--size", "1.5", "--restart", "never", "--anchor",
                "2026-09-24", "--sessions", "Day,Night")), 0);
        assertEquals(read("bars.csv").lines().count(), 3);
        errors(2, bars("--type", "tick"));
        errors(2, bars("--type", "day", "--size", "3"));
        errors(2, bars("--type", "renko", "--size", "3", "--turn", "2"));
        errors(2, bars("--type", "tick", "--size", "3", "--restart", "never"));
        errors(2, bars("--type", "tick", "--size", "3", "--anchor", "2026-09-24"));
        errors(2, bars("--type", "tick", "--size", "3", "--sessions", "Noon"));
    }

    @Test
    public void usageIsExitCodeTwo() {
        errors(2);
        errors(2, "trial");
        errors(2, "trial", "--session", "a", "--tape", "b", "--out", "c");
        assertTrue(errors(2, trial("ebb-fade.strategy.json", "never", "--realism", "hopeful")).contains("hopeful"));
        errors(2, trial("ebb-fade.strategy.json", "never", "--latency", "-5"));
        assertTrue(errors(2, trial("ebb-fade.strategy.json", "never", "--mode", "bars")).contains("tick or bar"));
    }

    @Test
    public void barModeSaysWhatItAssumed() throws IOException {
        assertEquals(Main.run(trial("ebb-fade.strategy.json", "bars", "--mode", "bar", "--realism", "queue")), 0);
        String summary = read("bars/summary.json");
        assertTrue(summary.contains("\"mode\" : \"bar\"") && summary.contains("\"barsInWhichTheStopCounted\" : ")
                && summary.contains("\"queueFillsTakenAsThrough\" : "), summary);
        assertTrue(read("bars/trades.csv").lines().count() > 5);
        assertEquals(Main.run(trial("ebb-fade.strategy.json", "prints", "--realism", "queue")), 0);
        String prints = read("prints/summary.json");
        assertFalse(prints.contains("assumed\""), prints);
        for (String key : List.of("\"prints\"", "\"printsOutsideSessions\"", "\"from\"", "\"to\"")) {
            assertEquals(line(summary, key), line(prints, key), "it is the same tape");
        }
        Files.writeString(demo.resolve("every.json"), read("ebb-fade.strategy.json").replaceFirst("\"version\": 1,",
                "\"version\": 1, \"evaluate\": \"every trade\","));
        assertTrue(errors(1, trial("every.json", "never", "--mode", "bar")).contains("on every trade"));
    }

    private static String line(String json, String key) {
        return json.lines().filter(l -> l.contains(key + " :")).findFirst().orElseThrow();
    }

    @Test
    public void realismAndLatencyChangeResults() throws IOException {
        assertEquals(Main.run(trial("slack-water.strategy.json", "touch", "--realism", "touch", "--latency", "250.5")),
                0);
        assertTrue(read("touch/summary.json").contains("\"latencySeconds\" : 0.2505"), read("touch/summary.json"));
    }

    @Test
    public void aTrialIsEvaluatedFromADayOnWithTheHistoryBeforeIt() throws IOException {
        assertEquals(Main.run(trial("ebb-fade.strategy.json", "late", "--from", "2026-09-23")), 0);
        assertTrue(read("late/summary.json").contains("\"evaluatedFrom\" : \"2026-09-23\""), read("late/summary.json"));
        assertFalse(read("late/summary.json").contains("historyShort"));
        assertTrue(read("late/decisions.csv").lines().skip(1).allMatch(row -> row.compareTo("2026-09-22T06") > 0));
        String note = errors(0, trial("ebb-fade.strategy.json", "short", "--from", "2026-09-18"));
        assertTrue(note.contains("history short"), note);
        assertTrue(read("short/summary.json").contains("\"historyShort\" : true"), read("short/summary.json"));
        assertTrue(errors(1, trial("ebb-fade.strategy.json", "never", "--from", "2026-09-20")).contains("no session"));
        assertTrue(errors(1, trial("ebb-fade.strategy.json", "never", "--to", "2026-09-20")).contains("no session"));
        assertTrue(errors(1, trial("ebb-fade.strategy.json", "never", "--from", "2026-09-23", "--to", "2026-09-22"))
                .contains("not before the first"));
        // the days before are the same, what comes after is not there
        assertEquals(Main.run(trial("ebb-fade.strategy.json", "two", "--to", "2026-09-22")), 0);
        assertEquals(Main.run(trial("ebb-fade.strategy.json", "whole")), 0);
        String two = read("two/decisions.csv");
        String whole = read("whole/decisions.csv");
        assertTrue(whole.startsWith(two.stripTrailing()) && two.length() < whole.length());
        assertTrue(read("two/summary.json").contains("\"evaluatedTo\" : \"2026-09-22\""));
    }
}
