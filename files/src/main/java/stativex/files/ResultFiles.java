package stativex.files;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.zone.ZoneRulesProvider;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.function.Function;
import stativex.engine.DayBook;
import stativex.engine.Decision;
import stativex.engine.History;
import stativex.engine.Lock;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.evidence.Intervals;
import stativex.evidence.Odds;
import stativex.evidence.TrialReport;
import stativex.files.tape.RowsParquet;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Fill;
import stativex.order.Owner;
import stativex.order.Realism;
import stativex.trial.Assumed;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Summary;

/** Writes the results of a run: {@code fills.csv}, {@code trades.csv}, {@code decisions.csv}, {@code days.csv}, {@code summary.json}. */
public final class ResultFiles {
    /** Version of the engine: the same version on the same inputs gives the same fills. */
    public static final String ENGINE = "0.1.0";

    private ResultFiles() {}

    /** Engine and zone data version, as results and session files carry them. */
    public static String engineVersion() {
        return ENGINE + " zones " + ZoneRulesProvider.getVersions("UTC").lastEntry().getKey();
    }

    /**
     * What is written beside the files that every run has.
     *
     * @param path equity at every print at which something is held, {@code path.csv}: large
     * @param report how its intervals are drawn, {@code report.json}; empty: none
     * @param seal what the report says about unseen dates
     */
    public record Extras(boolean path, Optional<Intervals.Settings> report, String seal) {
        /** Nothing. */
        public static final Extras NONE = new Extras(false, Optional.empty());

        /** Of a tape that is not sealed. */
        public Extras(boolean path, Optional<Intervals.Settings> report) {
            this(path, report, "not sealed");
        }
    }

    /** Writes them with nothing beside. */
    public static void write(Path folder, Run run) {
        write(folder, run, Extras.NONE);
    }

    /**
     * Writes all of them or none; what an earlier run left in the folder stays until then.
     *
     * @throws BadInput when the folder cannot be written
     */
    public static void write(Path folder, Run run, Extras extras) {
        Map<String, WholeFile.Content> files = new LinkedHashMap<>();
        files.put("fills.csv", csv(ResultRows.fills(run)));
        files.put("trades.csv", csv(ResultRows.trades(run)));
        files.put("decisions.csv", csv(ResultRows.decisions(run)));
        files.put("days.csv", csv(ResultRows.days(run)));
        if (extras.path()) {
            files.put("path.csv", csv(ResultRows.path(run)));
        }
        files.put("summary.json", out -> out.write(Json.pretty(summary(run))));
        extras.report().ifPresent(drawn -> files.put("report.json", out -> out.write(Json.pretty(ReportFile
                .json(TrialReport.of(run, drawn, Odds.Progress.NONE).orElseThrow(), drawn, extras.seal())))));
        WholeFolder.write(folder, files);
    }

    /** The same rows as Parquet, typed, beside the CSV files. @throws BadInput when the folder cannot be written */
    public static void parquet(Path folder, Run run, boolean path) {
        RowsParquet.write(folder.resolve("fills.parquet"), ResultRows.fills(run));
        RowsParquet.write(folder.resolve("trades.parquet"), ResultRows.trades(run));
        RowsParquet.write(folder.resolve("decisions.parquet"), ResultRows.decisions(run));
        RowsParquet.write(folder.resolve("days.parquet"), ResultRows.days(run));
        if (path) {
            RowsParquet.write(folder.resolve("path.parquet"), ResultRows.path(run));
        }
    }

    /** Rows as a CSV text. */
    static String text(List<List<String>> rows) {
        StringWriter out = new StringWriter();
        try {
            csv(rows).to(out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    private static WholeFile.Content csv(List<List<String>> rows) {
        return out -> {
            try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
                rows.forEach(csv::writeRecord);
            }
        };
    }

    private static Map<String, Object> assumed(Assumed assumed) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("barsInWhichTheStopCounted", assumed.stopsCounted());
        json.put("barsWithEqualExtremes", assumed.equalExtremes());
        json.put("queueFillsTakenAsThrough", assumed.queueFills());
        json.put("localStopsTakenAtTheirPrice", assumed.localStops());
        return json;
    }

    private static Map<String, Object> summary(Run run) {
        Inputs inputs = run.inputs();
        Summary s = Summary.of(run);
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("engine", engineVersion());
        json.put("mode", inputs.terms().mode().word());
        run.assumed().ifPresent(assumed -> json.put("assumed", assumed(assumed)));
        json.put("realism", inputs.terms().realism().word());
        if (inputs.terms().realism() == Realism.QUEUE) {
            json.put("assumedAhead", inputs.terms().assumedAhead());
        }
        json.put("latencySeconds", java.math.BigDecimal.valueOf(inputs.terms().latency(), 9).stripTrailingZeros());
        json.put("contract", inputs.contract().symbol());
        json.put("slippageTicks", inputs.contract().slippage());
        json.put("feePerSide", Money.text(inputs.account().fee(inputs.contract().symbol())));
        json.put("account", inputs.account().name());
        json.put("rulebook", inputs.account().rulebook().name());
        List<Map<String, Object>> strategies = new ArrayList<>();
        for (int i = 0; i < inputs.strategies().size(); i++) {
            Map<String, Object> one = strategy(inputs.strategies().get(i), run.engine().histories().get(i), s);
            if (run.engine().contracts().size() > 1) {
                one.put("contract", inputs.strategies().get(i).contract());
            }
            strategies.add(one);
        }
        json.put("strategies", strategies);
        inputs.days().last().ifPresent(day -> json.put("evaluatedTo", day.toString()));
        int prints = inputs.prints();
        if (inputs.rolls().legs().size() > 1) {
            Map<String, String> rolls = new LinkedHashMap<>();
            inputs.rolls().changes().forEach(change -> rolls.put(change.date().toString(), change.name()));
            json.put("rolls", rolls);
            json.put("rollLeadMinutes", inputs.rolls().lead() / (60 * TapeTime.SECOND));
        }
        json.put("prints", prints);
        json.put("printsOutsideSessions", run.printsOutsideSessions());
        json.put("ordersLargerThanTheirPrint", run.engine().ordersLargerThanTheirPrint());
        json.put("from", prints == 0 ? "" : ResultRows.time(inputs.tape().time(0)));
        json.put("to", prints == 0 ? "" : ResultRows.time(inputs.tape().time(prints - 1)));
        List<String> traded = run.engine().contracts().stream().map(Contract::symbol).toList();
        if (!inputs.others().isEmpty()) {
            json.put("furtherTapes", new TreeMap<>(inputs.others()).entrySet().stream().map(other -> {
                Map<String, Object> one = new LinkedHashMap<>();
                Tape tape = other.getValue().tape();
                one.put("contract", other.getKey());
                one.put("prints", tape.count());
                one.put("from", tape.count() == 0 ? "" : ResultRows.time(tape.time(0)));
                one.put("to", tape.count() == 0 ? "" : ResultRows.time(tape.time(tape.count() - 1)));
                if (traded.contains(other.getKey())) {
                    one.put("slippageTicks", other.getValue().contract().slippage());
                    one.put("feePerSide", Money.text(inputs.account().fee(other.getKey())));
                }
                return one;
            }).toList());
        }
        json.put("trades", s.trades());
        json.put("wins", s.wins());
        ratio(json, "winRate", s.winRate());
        ratio(json, "profitFactor", s.profitFactor());
        json.put("gross", Money.text(s.gross()));
        json.put("fees", Money.text(s.fees()));
        json.put("net", Money.text(s.net()));
        json.put("slippage", Money.text(s.slippage()));
        json.put("gaps", Money.text(s.gaps()));
        s.averageTrade().ifPresent(average -> json.put("averageTrade", Money.text(average)));
        ratio(json, "payoff", s.payoff());
        ratio(json, "expectancyR", s.expectancyR());
        json.put("largestLoss", Money.text(s.largestLoss()));
        s.killingCost().ifPresent(cost -> {
            json.put("costThatKillsIt", Money.text(cost));
            if (traded.size() == 1) {
                // a tick is worth something else on each contract
                json.put("costThatKillsItTicks", Math.round(1e4 * cost / inputs.contract().tickValue()) / 1e4);
            }
        });
        json.put("deepestDrawdown", Money.text(s.deepestDrawdown()));
        json.put("longestDrawdownSeconds", s.longestDrawdown().time() / TapeTime.SECOND);
        json.put("longestDrawdownTradingDays", s.longestDrawdown().tradingDays());
        if (s.longestDrawdown().unfinished()) {
            json.put("longestDrawdownUnfinished", true);
        }
        s.worstDay().ifPresent(day -> json.put("worstDay", day(day)));
        s.bestDay().ifPresent(day -> json.put("bestDay", day(day)));
        json.put("days", s.days().stream().map(ResultFiles::day).toList());
        if (!run.engine().locks().isEmpty()) {
            json.put("locks", run.engine().locks().stream().map(lock -> lock(run, lock)).toList());
        }
        json.put("decisions", words(s.decisions(), ResultWords::of));
        json.put("declined", words(s.declined(), ResultWords::of));
        return json;
    }

    private static Map<String, Object> strategy(Strategy strategy, History history, Summary s) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("name", strategy.name());
        json.put("version", strategy.version());
        json.put("exitPlan", strategy.plan().name());
        json.put("exitPlanVersion", strategy.plan().version());
        json.put("historyDays", strategy.historyDays());
        json.put("evaluatedFrom", history.first().map(LocalDate::toString)
                .orElseGet(() -> s.days().size() > strategy.historyDays()
                        ? s.days().get(strategy.historyDays()).date().toString()
                        : "no day: the tape ends within the history days"));
        if (history.isShort()) {
            json.put("historyShort", true);
        }
        return json;
    }

    private static Map<String, Object> lock(Run run, Lock lock) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("time", ResultRows.time(lock.time()));
        lock.owner().ifPresent(owner -> json.put("strategy", ResultRows.owner(run, owner)));
        if (run.engine().contracts().size() > 1) {
            json.put("contract", run.engine().contracts().get(lock.market()).symbol());
        }
        json.put("reason", ResultWords.of(lock.line().lock()));
        json.put("byItsGuard", lock.guarded());
        json.put("line", Money.text(lock.at()));
        json.put("ended", Money.text(lock.ended()));
        json.put("beyond", Money.text(lock.beyond()));
        return json;
    }

    private static <K> Map<String, Integer> words(Map<K, Integer> counts, Function<K, String> word) {
        Map<String, Integer> words = new LinkedHashMap<>();
        counts.forEach((key, count) -> words.put(word.apply(key), count));
        return words;
    }

    private static Map<String, String> day(DayBook.Day day) {
        Map<String, String> json = new LinkedHashMap<>();
        json.put("date", day.date().toString());
        json.put("result", Money.text(day.result()));
        return json;
    }

    private static void ratio(Map<String, Object> json, String name, OptionalDouble value) {
        value.ifPresent(v -> json.put(name, Math.round(v * 1e6) / 1e6));
    }
}
