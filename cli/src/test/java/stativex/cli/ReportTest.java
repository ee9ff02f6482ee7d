package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.testng.annotations.Test;
import stativex.evidence.EquityCurve;
import stativex.evidence.Intervals;
import stativex.evidence.Odds;
import stativex.evidence.TrialReport;
import stativex.files.ReportPage;
import stativex.market.Money;
import stativex.files.ReportPdf;
import stativex.files.ResultFiles;
import stativex.trial.Run;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What a report says, worked again from the CSV files of the same trial by a plain second program. */
public class ReportTest {
    private static final int TRIALS = 120;

    private static List<Map<String, String>> rows(Path file) throws IOException {
        List<String> lines = Files.readAllLines(file);
        String[] names = lines.getFirst().split(",");
        List<Map<String, String>> rows = new ArrayList<>();
        for (String line : lines.subList(1, lines.size())) {
            String[] cells = line.split(",", -1);
            Map<String, String> row = new LinkedHashMap<>();
            for (int i = 0; i < names.length; i++) {
                row.put(names[i], cells[i]);
            }
            rows.add(row);
        }
        return rows;
    }

    private static BigDecimal sum(List<Map<String, String>> rows, String column) {
        return rows.stream().map(row -> new BigDecimal(row.get(column))).reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    /** Names come from documents, and nothing of them may become markup; every trade has a row. */
    @Test
    public void aPageHoldsEveryTradeAndNoMarkupOfOthers() throws IOException {
        Path folder = Files.createTempDirectory("page");
        Run run = new RandomTrial(3).run(folder);
        TrialReport report = TrialReport.of(run, new Intervals.Settings(20, 2, 1), Odds.Progress.NONE).orElseThrow();
        Path page = folder.resolve("report.html");
        Path pdf = page.resolveSibling("report.pdf");
        ReportPdf.write(pdf, run, report, EquityCurve.of(run, 60_000_000_000L), "not sealed \u4E2D");
        try (var document = org.apache.pdfbox.Loader.loadPDF(pdf.toFile())) {
            String words = new org.apache.pdfbox.text.PDFTextStripper().getText(document);
            assertTrue(words.contains("Trial of Ebb fade") && words.contains("Cost that kills it")
                    && words.contains(Money.text(report.summary().net())), words.substring(0, 400));
            assertTrue(words.replaceAll("\\s+", " ").contains("not sealed ?."),
                    "a sign that the font lacks is shown as such: " + words.substring(0, 600));
        }
        ReportPage.write(page, run, report, EquityCurve.of(run, 60_000_000_000L), "<b>not</b> sealed & \"so\"");
        String text = Files.readString(page);
        assertTrue(text.contains("&lt;b&gt;not&lt;/b&gt; sealed &amp; &quot;so&quot;"), "escaped");
        assertEquals(text.split("<h2>Trades</h2>")[1].split("<tr><td>").length - 1,
                run.engine().log().trades().size());
        assertTrue(text.contains("<polyline class=\"equity\""));
        for (String tag : List.of("table", "h1", "h2", "svg", "body", "html", "tr", "td", "th", "p")) {
            assertEquals(text.split("<" + tag + "[ >]", -1).length, text.split("</" + tag + ">", -1).length, tag);
        }
    }

    @Test
    public void tablesDaysAndPathAgreeWithTheTradesOnRandomTrials() throws IOException {
        int overnight = 0;
        int trades = 0;
        for (int seed = 1; seed <= TRIALS; seed++) {
            Path folder = Files.createTempDirectory("report");
            Run run = new RandomTrial(seed).run(folder);
            ResultFiles.write(folder, run,
                    new ResultFiles.Extras(true, Optional.of(new Intervals.Settings(30, 2, 7))));
            List<Map<String, String>> of = rows(folder.resolve("trades.csv"));
            trades += of.size();
            JsonNode report = JsonMapper.shared().readTree(Files.readString(folder.resolve("report.json")));
            for (String[] table : new String[][]{{"day", "trading_day"}, {"side", "side"}, {"window", "window"},
                    {"exitReason", "exit_reason"}, {"grade", "grade"}, {"contract", "contract"}}) {
                Map<String, List<Map<String, String>>> by = new TreeMap<>();
                of.forEach(row -> by.computeIfAbsent(row.get(table[1]), k -> new ArrayList<>()).add(row));
                JsonNode found = report.path("tables").path(table[0]);
                assertEquals(found.size(), by.size(), table[0] + " of trial " + seed);
                int i = 0;
                for (Map.Entry<String, List<Map<String, String>>> entry : by.entrySet()) {
                    JsonNode row = found.get(i++);
                    assertEquals(row.path("of").asString(), entry.getKey());
                    assertEquals(row.path("trades").asInt(), entry.getValue().size());
                    assertEquals(new BigDecimal(row.path("net").asString()).compareTo(sum(entry.getValue(), "net")), 0);
                    assertEquals(new BigDecimal(row.path("fees").asString()).compareTo(sum(entry.getValue(), "fees")),
                            0);
                }
            }
            overnight += path(folder, seed);
            List<Map<String, String>> days = rows(folder.resolve("days.csv"));
            assertEquals(sum(days, "trades").intValueExact(), of.size(), "trial " + seed);
            assertEquals(sum(days, "fills").intValueExact(), rows(folder.resolve("fills.csv")).size());
            assertEquals(sum(days, "result").compareTo(sum(of, "net")), 0, "days sum to the trades of trial " + seed);
            statistics(report.path("statistics"), days);
        }
        assertTrue(overnight > 0, "days that begin with a position");
        assertTrue(trades > 5 * TRIALS, trades + " trades");
    }

    /** The last row of a day is its result, where nothing is open any more equity is the balance. Returns days begun with a position. */
    private static int path(Path folder, int seed) throws IOException {
        Map<String, Map<String, String>> last = new LinkedHashMap<>();
        Map<String, Map<String, String>> first = new LinkedHashMap<>();
        for (Map<String, String> row : rows(folder.resolve("path.csv"))) {
            first.putIfAbsent(row.get("trading_day"), row);
            last.put(row.get("trading_day"), row);
        }
        for (Map<String, String> day : rows(folder.resolve("days.csv"))) {
            Map<String, String> row = last.get(day.get("trading_day"));
            assertEquals(row.get("equity"), day.get("result"), day.get("trading_day") + " of trial " + seed);
            Map<String, String> begun = first.get(day.get("trading_day"));
            assertEquals(begun.get("equity"), "0.00");
            if (row.get("open").equals("0") && begun.get("open").equals("0")) {
                assertEquals(row.get("balance"), row.get("equity"));
            }
        }
        return (int) first.values().stream().filter(row -> !row.get("open").equals("0")).count();
    }

    private static void statistics(JsonNode found, List<Map<String, String>> days) {
        double[] results = days.stream().mapToDouble(day -> Double.parseDouble(day.get("result"))).toArray();
        double mean = 0;
        for (double result : results) {
            mean += result / results.length;
        }
        double squares = 0;
        for (double result : results) {
            squares += (result - mean) * (result - mean);
        }
        double deviation = Math.sqrt(squares / (results.length - 1));
        assertEquals(found.path("days").asInt(), results.length);
        if (results.length > 1 && deviation > 1e-9) {
            assertEquals(found.path("sharpeRatioPerDay").asDouble(), mean / deviation, 1e-6);
            assertEquals(found.path("deviationOfDays").asDouble(), deviation, 1e-5 * Math.max(1, deviation));
        } else {
            assertTrue(found.path("sharpeRatioPerDay").isMissingNode());
        }
    }
}
