package stativex.files;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import stativex.engine.DayBook;
import stativex.evidence.Basket;
import stativex.evidence.DayStatistics;
import stativex.evidence.EquityCurve;
import stativex.evidence.Intervals;
import stativex.evidence.TradeTable;
import stativex.evidence.TrialReport;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.order.Owner;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Summary;
import stativex.trial.TradeFacts;

/**
 * A trial's report as one HTML file to hand to somebody: figures with their intervals, equity as an inline picture, tables, days and
 * trades. It loads nothing and holds no script.
 */
public final class ReportPage {
    private static final double WIDTH = 960;
    private static final double HEIGHT = 300;
    private static final double UNDER = 110;
    /** Trades beyond so many are left to {@code trades.csv}. */
    private static final int MOST_TRADES = 2000;

    private final StringBuilder page = new StringBuilder(64_000);
    private final Run run;
    private final TrialReport report;

    private ReportPage(Run run, TrialReport report) {
        this.run = run;
        this.report = report;
    }

    /**
     * Writes a report.
     *
     * @param curve equity of the run in pieces; none in bar mode
     * @param seal what is said about unseen dates
     * @throws BadInput when the file cannot be written
     */
    public static void write(Path file, Run run, TrialReport report, List<EquityCurve.Day> curve, String seal) {
        String page = new ReportPage(run, report).page(curve, seal);
        WholeFile.write(file, out -> out.write(page), StandardCharsets.UTF_8);
    }

    private String page(List<EquityCurve.Day> curve, String seal) {
        Inputs inputs = run.inputs();
        String names = String.join(", ", inputs.strategies().stream().map(s -> s.name()).toList());
        page.append("<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<title>")
                .append(text("Trial of " + names)).append("</title>\n<style>\n").append(STYLE)
                .append("</style>\n</head>\n<body>\n");
        tag("h1", "Trial of " + names);
        tag("p", ReportFigures.how(run, report, seal));
        if (!curve.isEmpty()) {
            tag("h2", "Equity, print by print; below, how far under its best so far");
            picture(curve);
        }
        tag("h2", "Result");
        figures();
        for (TradeTable.By by : List.of(TradeTable.By.MONTH, TradeTable.By.WEEKDAY, TradeTable.By.HOUR,
                TradeTable.By.WINDOW, TradeTable.By.SIDE, TradeTable.By.GRADE, TradeTable.By.EXIT_REASON,
                TradeTable.By.CONTRACT)) {
            TradeTable table = report.table(by, ReportFile::exit);
            if (!table.rows().isEmpty() && !(table.rows().size() == 1 && table.rows().getFirst().key().isEmpty())) {
                tag("h2", "By " + by.name().toLowerCase(Locale.ROOT).replace('_', ' '));
                table(table);
            }
        }
        report.basket().ifPresent(this::basket);
        tag("h2", "Days");
        days();
        tag("h2", "Trades");
        trades();
        page.append("</body>\n</html>\n");
        return page.toString();
    }

    // ------------------------------------------------------------------ figures

    private void figures() {
        page.append("<table><tr><th></th><th></th><th>5th to 95th percentile</th></tr>\n");
        ReportFigures.of(report).forEach(line -> row("td", line.word(), line.value(), line.interval()));
        page.append("</table>\n");
        ReportFigures.locks(run).forEach(words -> tag("p", words));
    }

    // ------------------------------------------------------------------ picture

    private void picture(List<EquityCurve.Day> curve) {
        List<double[]> points = ReportFigures.points(curve);
        double begun = points.getLast()[1];
        double low = points.stream().mapToDouble(p -> p[1]).min().orElse(0);
        double high = Math.max(points.stream().mapToDouble(p -> p[1]).max().orElse(0), low + 1);
        double deepest = Math.min(points.stream().mapToDouble(p -> p[2]).min().orElse(0), -1);
        double step = WIDTH / curve.size();
        page.append(String.format(Locale.ROOT, "<svg viewBox=\"0 0 %.0f %.0f\" role=\"img\">%n", WIDTH + 110,
                HEIGHT + UNDER + 20));
        page.append("<title>").append(text("Equity ends at " + Money.text((long) begun) + ", deepest drawdown "
                + Money.text((long) -deepest))).append("</title>\n");
        level(0, low, high);
        polyline("equity", points, step, 1, p -> 10 + (HEIGHT - 20) * (high - p) / (high - low));
        polyline("under", points, step, 2, p -> HEIGHT + 10 + (UNDER - 10) * p / deepest);
        label(HEIGHT * 0 + 20, Money.text((long) high));
        label(HEIGHT - 6, Money.text((long) low));
        label(HEIGHT + UNDER, Money.text((long) deepest));
        page.append("</svg>\n");
    }

    private void level(double at, double low, double high) {
        if (at >= low && at <= high) {
            double y = 10 + (HEIGHT - 20) * (high - at) / (high - low);
            page.append(
                    String.format(Locale.ROOT, "<line class=\"zero\" x1=\"0\" y1=\"%.1f\" x2=\"%.0f\" y2=\"%.1f\"/>%n",
                            y, WIDTH, y));
        }
    }

    private void label(double y, String words) {
        page.append(String.format(Locale.ROOT, "<text x=\"%.0f\" y=\"%.0f\">%s</text>%n", WIDTH + 8, y, text(words)));
    }

    private void polyline(String style, List<double[]> points, double step, int column,
            java.util.function.DoubleUnaryOperator y) {
        page.append("<polyline class=\"").append(style).append("\" points=\"");
        for (double[] point : points) {
            page.append(String.format(Locale.ROOT, "%.1f,%.1f ", point[0] * step, y.applyAsDouble(point[column])));
        }
        page.append("\"/>\n");
    }

    // ------------------------------------------------------------------ tables

    private void table(TradeTable table) {
        page.append("<table>");
        row("th", "", "trades", "won", "net", "average", "profit factor", "largest loss");
        for (TradeTable.Row of : table.rows()) {
            row("td", of.key().isEmpty()
                    ? "none"
                    : table.by() == TradeTable.By.WEEKDAY
                            ? java.time.DayOfWeek.of(Integer.parseInt(of.key()))
                                    .getDisplayName(java.time.format.TextStyle.FULL, Locale.ENGLISH)
                            : of.key(),
                    Integer.toString(of.trades()), ReportFigures.percent(of.winRate()), Money.text(of.net()),
                    of.averageTrade().isPresent() ? Money.text(of.averageTrade().getAsLong()) : "",
                    ReportFigures.ratio(of.profitFactor()), Money.text(of.largestLoss()));
        }
        page.append("</table>\n");
    }

    private void basket(Basket basket) {
        tag("h2", "Contracts, and how much their days go together (correlation)");
        page.append("<table>");
        List<String> head = new ArrayList<>(List.of("", "trades", "net", "average trade", "its cost"));
        basket.parts().forEach(part -> head.add(part.contract().symbol()));
        row("th", head.toArray(String[]::new));
        for (int i = 0; i < basket.parts().size(); i++) {
            Basket.Part part = basket.parts().get(i);
            List<String> words = new ArrayList<>(List.of(part.contract().symbol(), Integer.toString(part.trades()),
                    Money.text(part.net()), money(part.averageTrade()), money(part.averageCost())));
            basket.correlation().get(i).forEach(value -> words.add(ReportFigures.ratio(value)));
            row("td", words.toArray(String[]::new));
        }
        page.append("</table>\n");
    }

    private static String money(OptionalLong money) {
        return money.isPresent() ? Money.text(money.getAsLong()) : "";
    }

    private void days() {
        page.append("<table>");
        row("th", "trading day", "result");
        for (DayBook.Day day : report.summary().days()) {
            row("td", day.date().toString(), Money.text(day.result()));
        }
        page.append("</table>\n");
    }

    private void trades() {
        page.append("<table>");
        row("th", "entry", "exit", "strategy", "side", "quantity", "net", "against, ticks", "for it, ticks", "R",
                "out by");
        for (TradeFacts facts : report.trades().subList(0, Math.min(MOST_TRADES, report.trades().size()))) {
            var t = facts.trade();
            row("td", TapeTime.instant(t.entryTime()).toString(), TapeTime.instant(t.exitTime()).toString(),
                    t.owner() instanceof Owner.Strategy(int index)
                            ? run.inputs().strategies().get(index).name()
                            : "by hand",
                    t.side().word(), Integer.toString(t.quantity()), Money.text(t.net()), Long.toString(t.mae()),
                    Long.toString(t.mfe()), ResultRows.ratio(facts.r()), ReportFile.exit(t));
        }
        page.append("</table>\n");
        if (report.trades().size() > MOST_TRADES) {
            tag("p", (report.trades().size() - MOST_TRADES) + " further trades stand in trades.csv.");
        }
    }

    private void row(String cell, String... words) {
        page.append("<tr>");
        for (String word : words) {
            page.append('<').append(cell).append('>').append(text(word)).append("</").append(cell).append('>');
        }
        page.append("</tr>\n");
    }

    private void tag(String name, String words) {
        page.append('<').append(name).append('>').append(text(words)).append("</").append(name).append(">\n");
    }

    /** Names come from documents: nothing of them is markup. */
    private static String text(String words) {
        return words.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }

    private static final String STYLE = """
            body { font: 14px/1.5 sans-serif; color: #1F2529; background: #FBFAF6; max-width: 1100px; margin: 24px auto; }
            h1 { font-size: 20px; } h2 { font-size: 15px; margin-top: 26px; }
            table { border-collapse: collapse; font-variant-numeric: tabular-nums; }
            td, th { padding: 2px 14px 2px 0; text-align: right; border-bottom: 1px solid #D2CCBE; font-weight: normal; }
            td:first-child, th:first-child { text-align: left; } th { color: #5F6361; }
            svg { width: 100%; background: #FFFFFF; border: 1px solid #D2CCBE; } svg text { font-size: 11px; fill: #5F6361; }
            .equity { fill: none; stroke: #1F2529; stroke-width: 1.3; } .under { fill: none; stroke: #56616B; }
            .zero { stroke: #D2CCBE; }
            """;
}
