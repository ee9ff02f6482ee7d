package stativex.files;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import stativex.engine.DayBook;
import stativex.engine.Trade;
import stativex.evidence.Basket;
import stativex.evidence.DayStatistics;
import stativex.evidence.Intervals;
import stativex.evidence.TradeTable;
import stativex.evidence.TrialReport;
import stativex.market.Money;

/** {@code report.json}: statistics, intervals and tables of a trial. Definitions: SEMANTICS, "Results" and "Searches and evidence". */
public final class ReportFile {
    private ReportFile() {}

    /** What is written. */
    static Map<String, Object> json(TrialReport report, Intervals.Settings drawn, String seal) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("seal", seal);
        List<DayBook.Day> days = report.summary().days();
        if (!days.isEmpty()) {
            json.put("fitFrom", days.getFirst().date().toString());
            json.put("fitTo", days.getLast().date().toString());
        }
        json.put("statistics", statistics(report.statistics()));
        Map<String, Object> intervals = new LinkedHashMap<>();
        for (Intervals.Figure figure : Intervals.Figure.values()) {
            if (report.intervals().containsKey(figure)) {
                intervals.put(name(figure), interval(figure, report.intervals().get(figure)));
            }
        }
        json.put("intervals", intervals);
        Map<String, Object> how = new LinkedHashMap<>();
        how.put("resamples", drawn.resamples());
        how.put("meanBlockDays", drawn.meanBlock());
        how.put("seed", drawn.seed());
        json.put("drawn", how);
        json.put("mostContractsOpen", report.margin().mostOpen());
        put(json, "returnOnMarginPerYear", report.margin().yearlyReturn());
        Map<String, Object> tables = new LinkedHashMap<>();
        for (TradeTable table : report.tables(ReportFile::exit)) {
            tables.put(name(table.by()), rows(table));
        }
        json.put("tables", tables);
        report.basket().ifPresent(basket -> json.put("contracts", basket(basket)));
        return json;
    }

    private static List<Map<String, Object>> basket(Basket basket) {
        List<Map<String, Object>> rows = new ArrayList<>();
        for (int i = 0; i < basket.parts().size(); i++) {
            Basket.Part part = basket.parts().get(i);
            Map<String, Object> json = new LinkedHashMap<>();
            json.put("contract", part.contract().symbol());
            json.put("trades", part.trades());
            json.put("gross", Money.text(part.gross()));
            json.put("fees", Money.text(part.fees()));
            json.put("net", Money.text(part.net()));
            part.averageTrade().ifPresent(average -> json.put("averageTrade", Money.text(average)));
            part.averageCost().ifPresent(cost -> json.put("averageCost", Money.text(cost)));
            Map<String, Object> correlation = new LinkedHashMap<>();
            for (int j = 0; j < basket.parts().size(); j++) {
                put(correlation, basket.parts().get(j).contract().symbol(), basket.correlation().get(i).get(j));
            }
            json.put("correlationOfDays", correlation);
            rows.add(json);
        }
        return rows;
    }

    /** The word for what ended a trade. */
    public static String exit(Trade trade) {
        return trade.exitReason().map(ResultWords::of).orElse("");
    }

    private static Map<String, Object> statistics(DayStatistics statistics) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("days", statistics.days());
        put(json, "meanDay", money(statistics.mean()));
        put(json, "deviationOfDays", money(statistics.deviation()));
        put(json, "sharpeRatioPerDay", statistics.sharpe());
        statistics.sharpe().ifPresent(ratio -> put(json, "sharpeRatioPerYear",
                OptionalDouble.of(ratio * Math.sqrt(DayStatistics.YEAR))));
        put(json, "skewness", statistics.skewness());
        put(json, "kurtosis", statistics.kurtosis());
        return json;
    }

    private static OptionalDouble money(OptionalDouble ten) {
        return ten.isPresent() ? OptionalDouble.of(ten.getAsDouble() / Money.UNIT) : ten;
    }

    private static Map<String, Object> interval(Intervals.Figure figure, Intervals.Interval interval) {
        boolean money = figure == Intervals.Figure.NET || figure == Intervals.Figure.AVERAGE_TRADE
                || figure == Intervals.Figure.DEEPEST_DRAWDOWN;
        double unit = money ? Money.UNIT : 1;
        Map<String, Object> json = new LinkedHashMap<>();
        put(json, "percentile5", OptionalDouble.of(interval.low() / unit));
        put(json, "percentile95", OptionalDouble.of(interval.high() / unit));
        json.put("resamplesWithout", interval.without());
        return json;
    }

    private static List<Map<String, Object>> rows(TradeTable table) {
        List<Map<String, Object>> rows = new ArrayList<>();
        for (TradeTable.Row row : table.rows()) {
            Map<String, Object> json = new LinkedHashMap<>();
            json.put("of", row.key());
            json.put("trades", row.trades());
            json.put("wins", row.wins());
            json.put("gross", Money.text(row.gross()));
            json.put("fees", Money.text(row.fees()));
            json.put("net", Money.text(row.net()));
            row.averageTrade().ifPresent(average -> json.put("averageTrade", Money.text(average)));
            put(json, "profitFactor", row.profitFactor());
            json.put("largestLoss", Money.text(row.largestLoss()));
            rows.add(json);
        }
        return rows;
    }

    private static void put(Map<String, Object> json, String name, OptionalDouble value) {
        value.ifPresent(v -> json.put(name, Math.round(v * 1e6) / 1e6));
    }

    /** {@code exitReason} of {@code EXIT_REASON}. */
    static String name(Enum<?> word) {
        String[] parts = word.name().toLowerCase(Locale.ROOT).split("_");
        StringBuilder name = new StringBuilder(parts[0]);
        for (int i = 1; i < parts.length; i++) {
            name.append(Character.toUpperCase(parts[i].charAt(0))).append(parts[i].substring(1));
        }
        return name.toString();
    }
}
