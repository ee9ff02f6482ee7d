package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.files.DataFolder;
import stativex.demo.Demo;

/** Studies as columns of bars, and what is missing or wrong in strategies. */
public class RulesTest {
    private Path folder;

    @BeforeClass
    public void export() throws IOException {
        folder = Files.createTempDirectory("rules");
        Demo.export(folder);
        // seven prints, bars of two
        Files.writeString(folder.resolve("small.csv"), """
                time,price,size,aggressor
                2026-09-23T20:30:00Z,1280.00,2,buyer
                2026-09-23T20:30:01Z,1280.50,5,seller
                2026-09-23T20:30:02Z,1281.00,3,buyer
                2026-09-23T20:30:03Z,1281.50,1,buyer
                2026-09-23T20:30:04Z,1281.00,1,seller
                2026-09-23T20:30:05Z,1282.25,2,buyer
                2026-09-23T20:30:06Z,1282.00,1,seller
                """);
    }

    /** Exit code and everything that was said. */
    private static String said(int code, String... words) {
        PrintStream out = System.out;
        PrintStream err = System.err;
        ByteArrayOutputStream caught = new ByteArrayOutputStream();
        PrintStream both = new PrintStream(caught, true, StandardCharsets.UTF_8);
        System.setOut(both);
        System.setErr(both);
        try {
            assertEquals(Main.run(words), code, caught.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(out);
            System.setErr(err);
        }
        return caught.toString(StandardCharsets.UTF_8);
    }

    private String bars(int code, String... studies) {
        List<String> words = new ArrayList<>(List.of("bars", "--tape", folder + "/small.csv", "--contract",
                folder + "/tdl.contract.json", "--type", "tick", "--size", "2", "--out", folder + "/bars.csv"));
        for (String study : studies) {
            words.addAll(List.of("--study", study));
        }
        return said(code, words.toArray(String[]::new));
    }

    @Test
    public void studiesAreColumnsAndAbsentValuesEmpty() throws IOException {
        bars(0, "slow = ema 2 of close", "edge = slow + 2 ticks", "band = bollinger 2 deviations 1",
                "up = sar", "share = delta / volume");
        List<String> lines = Files.readAllLines(folder.resolve("bars.csv"));
        String header = lines.getFirst();
        assertEquals(header.substring(header.indexOf("cut,") + 4),
                "slow,edge,band,band.upper,band.lower,band.width,up,up.rising,up.falling,share");
        List<String> columns = lines.stream().skip(1).map(line -> line.split(",", 13)[12]).toList();
        // closes 1280.50, 1281.50, 1282.25: in ticks 5122, 5126, 5129; the EMA begins with 5124, then + 2/3 of 5
        assertEquals(columns.get(0).split(",", -1)[0], "");
        assertTrue(columns.get(1).startsWith("1281.000000,1281.500000,1281.000000,1281.500000,1280.500000,4.000000,"),
                columns.get(1));
        assertTrue(columns.get(2).startsWith("1281.833333,1282.333333,1281.875000,"), columns.get(2));
        assertTrue(columns.get(0).endsWith(",-0.428571"), columns.get(0));
        assertEquals(columns.get(2).split(",", -1)[7], "1");
    }

    @Test
    public void whatIsWrongWithAStudyIsSaidAndNothingIsWritten() throws IOException {
        Files.deleteIfExists(folder.resolve("bars.csv"));
        String[][] wrong = {{"slow = emma 2", "did you mean \"ema\""}, {"ema 2", "NAME = EXPRESSION"},
                {"slow = ema 0", "from 1 to 100000"}, {"slow = ema 2 of clos", "did you mean \"close\""},
                {"a = b + 1 tick", "found \"b\""}, {"a = ema 2 of a", "itself"}, {"a = close -", "found the end"}};
        for (String[] row : wrong) {
            String error = bars(row[0].equals("ema 2") || row[0].contains("emma") ? 2 : 1, row[0]);
            assertTrue(error.contains(row[1]), row[0] + ": " + error);
            assertTrue(Files.notExists(folder.resolve("bars.csv")));
        }
        assertTrue(bars(1, "a = b + 1 tick", "b = a - 1 tick").contains("itself"));
    }

    private String check(int code, Path file) {
        return said(code, "check", "--strategy", file.toString(), "--contract", folder + "/tdl.contract.json");
    }

    private String past(int code, String... more) {
        List<String> words = new ArrayList<>(List.of("past", "--tape", folder + "/tdl.ticks.csv", "--contract",
                folder + "/tdl.contract.json", "--strategy", folder + "/ebb-fade.strategy.json", "--account",
                folder + "/gannet-row-40k.account.json"));
        words.addAll(List.of(more));
        return said(code, words.toArray(String[]::new));
    }

    @Test
    public void aPlanIsTriedOnPastBars() {
        List<String> one = past(0, "--bar", "201", "--side", "short").lines().toList();
        assertTrue(one.getFirst().contains(" sell 2 at ") && one.getFirst().endsWith("entry"), one.toString());
        assertTrue(one.get(1).contains(" stop at ") && one.get(1).endsWith("stop"), one.toString());
        assertTrue(one.getLast().startsWith("net "), one.toString());
        List<String> all = past(0).lines().filter(line -> !line.startsWith("stativex: ")).toList();
        assertTrue(all.getFirst().startsWith("entry_time,exit_time,side"), all.getFirst());
        assertTrue(all.size() > 20, all.size() + " lines");
        assertTrue(past(0).contains(" each after fees, "));
        assertTrue(past(1, "--bar", "0", "--side", "long").contains("--bar: expected 1 to "));
        assertTrue(past(0, "--bar", "201", "--side", "long", "--at", "1.00").contains("not entered: no print"));
        assertTrue(past(1, "--bar", "201", "--side", "long", "--at", "1.01").contains("--at: "));
        assertTrue(past(2, "--at", "1.00").contains("--at: expected a --bar"));
        assertTrue(past(2, "--bar", "3").contains("expected --bar with --side long or short"));
        assertTrue(past(2, "--bar", "3", "--side", "up").contains("expected --bar with --side long or short"));
    }

    @Test
    public void everyExportedStrategyIsComplete() throws IOException {
        List<Path> files = new ArrayList<>(
                List.of(folder.resolve("ebb-fade.strategy.json"), folder.resolve("slack-water.strategy.json")));
        try (Stream<Path> ready = Files.list(folder.resolve("ready"))) {
            ready.forEach(files::add);
        }
        assertEquals(files.size(), 13);
        for (Path file : files) {
            assertTrue(check(0, file).contains(": complete"), file.toString());
        }
    }

    @Test
    public void everythingThatIsMissingOrWrongIsSaidWithItsPlace() throws IOException {
        String text = Files.readString(folder.resolve("ebb-fade.strategy.json"));
        Path file = folder.resolve("wrong.strategy.json");
        Files.writeString(file,
                text.replace("delta > 0", "delta > 0 ticks").replace("reach > 4 ticks", "raech > 4 ticks")
                        .replace(",\n  \"exitFile\": \"two-step-runner.exit.json\"", ""));
        String said = check(1, file);
        assertTrue(said.contains("$.long.rule: line 3, column 5"), said);
        assertTrue(said.contains("$.long.rule: line 4, column 5: ") && said.contains("did you mean \"reach\""), said);
        assertTrue(said.contains("$.short.rule: line 4, column 5"), said);
        assertTrue(said.contains("no exit plan chosen"), said);
        assertTrue(said.contains("not complete, 4 things are missing or wrong"), said);
        Files.writeString(file, text.replace("\"quantity\": 2", "\"quantity\": 0"));
        assertTrue(check(1, file).contains("$.entry.quantity"), check(1, file));
        Files.writeString(file, text.replace("\"length\": 14", "\"length\": 0"));
        assertTrue(check(1, file).contains("$.studies[2].length: expected a whole number"), check(1, file));
        Files.writeString(file, text.replace("\"contract\": \"TDL\"", "\"contract\": \"MTD\""));
        assertTrue(check(1, file).contains("the strategy trades MTD"), check(1, file));
        Files.writeString(file, text.substring(0, 200));
        assertTrue(said(1, "check", "--strategy", file.toString()).contains("line"), "not JSON");
    }

    @Test
    public void flickersAreCounted() {
        String said = said(0, "trial", "--tape", folder + "/tdl.ticks.csv", "--contract", folder + "/tdl.contract.json",
                "--strategy", folder + "/ready/neap-return.strategy.json", "--account",
                folder + "/gannet-row-40k.account.json", "--out", folder.resolve("out").toString(),
                "--count-flickers");
        java.util.regex.Matcher figures = java.util.regex.Pattern
                .compile("Neap return, long: (\\d+) provisional signals, (\\d+) confirmed, (\\d+) withdrawn")
                .matcher(said);
        assertTrue(figures.find(), said);
        assertEquals(Integer.parseInt(figures.group(1)),
                Integer.parseInt(figures.group(2)) + Integer.parseInt(figures.group(3)));
        assertTrue(Integer.parseInt(figures.group(2)) > 0 && Integer.parseInt(figures.group(3)) > 0, said);
    }

    /** Trend of a thinner market as a filter for another one. */
    @Test
    public void aSeriesOfAnotherContractIsTraded() throws IOException {
        String text = Files.readString(folder.resolve("ebb-fade.strategy.json"));
        Path file = folder.resolve("honey.strategy.json");
        Files.writeString(file, text
                .replace("\"studies\": [",
                        "\"series\": [{\"name\": \"honey\", \"contract\": \"MNH\", \"bars\": \"tick\","
                                + " \"size\": 300}],\n  \"studies\": [\n"
                                + "    {\"name\": \"tide\", \"study\": \"ema\", \"length\": 5, \"on\": \"honey\"},")
                .replace("and reach > 4 ticks", "and honey.close > tide and honey.close > 50.00"));
        assertTrue(check(1, file).contains("$.series[0].contract: there is no tape of MNH here"), check(1, file));
        String further = folder + "/mnh.contract.json";
        assertTrue(said(0, "check", "--strategy", file.toString(), "--contract", folder + "/tdl.contract.json",
                "--further-contract", further).contains(": complete"));
        assertTrue(said(0, "check", "--strategy", file.toString()).contains(": complete"), "the demo's own are known");
        List<String> trial = new ArrayList<>(List.of("trial", "--tape", folder + "/tdl.ticks.csv", "--contract",
                folder + "/tdl.contract.json", "--strategy", file.toString(), "--account",
                folder + "/gannet-row-40k.account.json", "--out", folder.resolve("honey").toString()));
        assertTrue(said(1, trial.toArray(String[]::new)).contains("\"Ebb fade\" looks at MNH"));
        trial.addAll(List.of("--further-tape", folder + "/mnh.ticks.csv", "--further-contract", further));
        String said = said(0, trial.toArray(String[]::new));
        assertTrue(said.matches("(?s)\\d+ trades.*looked at MNH too: \\d+ prints, 2026-09-1.*"), said);
        String summary = Files.readString(folder.resolve("honey/summary.json"));
        assertTrue(summary.contains("\"furtherTapes\"") && summary.contains("\"MNH\""), summary);
        List<String> taken = Files.readAllLines(folder.resolve("honey/decisions.csv"));
        assertTrue(taken.size() > 3, taken.size() + " decisions");
        trial.set(trial.size() - 3, "demo MNH");
        trial.set(trial.indexOf(folder.resolve("honey").toString()), folder.resolve("again").toString());
        said(0, trial.toArray(String[]::new));
        assertEquals(Files.readAllLines(folder.resolve("again/decisions.csv")), taken,
                "the same ticks by another name");
        trial.subList(trial.size() - 2, trial.size()).clear();
        said(0, trial.toArray(String[]::new));
        assertEquals(Files.readAllLines(folder.resolve("again/decisions.csv")), taken, "the demo's has its contract");
        trial.addAll(List.of("--further-tape", folder + "/mnh.ticks.csv", "--further-contract", further));
        assertTrue(said(1, trial.toArray(String[]::new)).contains("expected each contract once, found MNH again"));
        assertTrue(said(1, "check", "--strategy", file.toString(), "--further-contract", further,
                "--further-contract", further).contains("expected each contract once, found MNH again"));
    }

    /** One account, two contracts: each strategy on its own tape, one day's lines over both. */
    @Test
    public void strategiesOfSeveralContractsAreTriedOnOneAccount() throws IOException {
        Path honey = folder.resolve("honey-fade.strategy.json");
        Files.writeString(honey, Files.readString(folder.resolve("ebb-fade.strategy.json"))
                .replace("\"name\": \"Ebb fade\"", "\"name\": \"Honey fade\"")
                .replace("\"contract\": \"TDL\"", "\"contract\": \"MNH\"")
                .replace("\"size\": 400", "\"size\": 60"));
        String own = folder + "/gannet-row-40k.account.json";
        List<String> trial = new ArrayList<>(List.of("trial", "--tape", folder + "/tdl.ticks.csv", "--contract",
                folder + "/tdl.contract.json", "--strategy", folder + "/ebb-fade.strategy.json", "--strategy",
                honey.toString(), "--further-tape", folder + "/mnh.ticks.csv", "--further-contract",
                folder + "/mnh.contract.json", "--out", folder.resolve("both").toString(), "--account"));
        Path account = folder.resolve("both.account.json");
        String listed = Files.readString(Path.of(own));
        Files.writeString(account,
                listed.replaceFirst("\\{[^{}]*\"MNH\"[^{}]*\\},?", "").replaceFirst(",\\s*\\]", "]"));
        trial.add(account.toString());
        assertTrue(said(1, trial.toArray(String[]::new)).contains("states no fee for contract MNH"));
        Files.writeString(account, listed.contains("\"MNH\"")
                ? listed
                : listed.replaceFirst("\"fees\": \\[",
                        "\"fees\": [{\"contract\": \"MNH\", \"perSide\": \"3.10\"}, "));
        trial.addAll(List.of("--keep", "--html"));
        String both = said(0, trial.toArray(String[]::new));
        assertTrue(both.contains("traded MNH too"), both);
        trial.subList(trial.size() - 2, trial.size()).clear();
        assertTrue(Files.readString(folder.resolve("both/report.html")).contains("how much their days go together"));
        assertTrue(Files.readString(folder.resolve("both/report.json")).contains("\"correlationOfDays\""));
        String kept = both.lines().filter(line -> line.startsWith("kept as trial ")).findFirst().orElseThrow()
                .substring(14);
        assertTrue(said(0, "trial", "--again", DataFolder.path().resolve("trials")
                .resolve("%04d".formatted(Integer.parseInt(kept))).toString()).contains("the same, byte for byte"));
        List<String> trades = Files.readAllLines(folder.resolve("both/trades.csv"));
        assertTrue(trades.stream().anyMatch(t -> t.contains("Ebb fade"))
                && trades.stream().anyMatch(t -> t.contains("Honey fade")), String.join("\n", trades));
        String summary = Files.readString(folder.resolve("both/summary.json"));
        assertTrue(summary.contains("\"contract\" : \"MNH\"") && !summary.contains("costThatKillsItTicks"), summary);
        trial.addAll(List.of("--mode", "bar"));
        assertTrue(said(1, trial.toArray(String[]::new)).contains("2 contracts: expected tick mode"));
    }

    /** A look-back longer than the tape is said, not taken for a no. */
    @Test
    public void aConditionThatIsNeverJudgedIsSaid() throws IOException {
        String text = Files.readString(folder.resolve("ebb-fade.strategy.json"));
        Path file = folder.resolve("long.strategy.json");
        Files.writeString(file, text.replace("\"length\": 14", "\"length\": 90000"));
        String said = said(0, "trial", "--tape", folder + "/tdl.ticks.csv", "--contract", folder + "/tdl.contract.json",
                "--strategy", file.toString(), "--account", folder + "/gannet-row-40k.account.json", "--out",
                folder.resolve("never").toString());
        assertTrue(said.contains("strategy \"Ebb fade\", long: reach > 4 ticks was absent on every one of"), said);
    }
}
