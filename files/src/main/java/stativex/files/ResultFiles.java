package stativex.files;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.zone.ZoneRulesProvider;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.function.Function;
import stativex.engine.DayBook;
import stativex.engine.Decision;
import stativex.engine.History;
import stativex.engine.Strategy;
import stativex.engine.Trade;
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

/** Writes the results of a run: {@code fills.csv}, {@code trades.csv}, {@code decisions.csv}, {@code summary.json}. */
public final class ResultFiles {
    /** Version of the engine: the same version on the same inputs gives the same fills. */
    public static final String ENGINE = "0.1.0";

    private ResultFiles() {}

    /** Engine and zone data version, as results and session files carry them. */
    public static String engineVersion() {
        return ENGINE + " zones " + ZoneRulesProvider.getVersions("UTC").lastEntry().getKey();
    }

    /**
     * Writes all of them or none; what an earlier run left in the folder stays until then.
     *
     * @throws BadInput when the folder cannot be written
     */
    public static void write(Path folder, Run run) {
        Map<String, WholeFile.Content> files = new LinkedHashMap<>();
        files.put("fills.csv", csv(fills(run)));
        files.put("trades.csv", csv(trades(run)));
        files.put("decisions.csv", csv(decisions(run)));
        files.put("summary.json", out -> out.write(Json.pretty(summary(run))));
        WholeFolder.write(folder, files);
    }

    private static WholeFile.Content csv(List<List<String>> rows) {
        return out -> {
            try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
                rows.forEach(csv::writeRecord);
            }
        };
    }

    /** The rows of {@code fills.csv}, header first. */
    public static List<List<String>> fills(Run run) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("time", "strategy", "order", "side", "quantity", "price", "fee", "reason"));
        for (Fill fill : run.engine().log().fills()) {
            rows.add(List.of(time(fill.time()), owner(run, fill.owner()), Integer.toString(fill.order()),
                    fill.buy() ? "buy" : "sell", Integer.toString(fill.quantity()),
                    run.inputs().contract(fill.owner()).text(fill.price()),
                    Money.text(fill.fee()), ResultWords.of(fill.reason())));
        }
        return rows;
    }

    /** The rows of {@code trades.csv}, header first. */
    public static List<List<String>> trades(Run run) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(
                List.of("entry_time", "exit_time", "strategy", "side", "quantity", "entry_price", "exit_price", "gross",
                        "fees", "net", "mae_ticks", "mfe_ticks", "bars", "exit_reason"));
        for (Trade t : run.engine().log().trades()) {
            Contract contract = run.inputs().contract(t.owner());
            rows.add(List.of(time(t.entryTime()), time(t.exitTime()), owner(run, t.owner()), t.side().word(),
                    Integer.toString(t.quantity()), contract.meanText(t.entrySum(), t.quantity()),
                    contract.meanText(t.exitSum(), t.left()), Money.text(t.gross()), Money.text(t.fees()),
                    Money.text(t.net()), Long.toString(t.mae()), Long.toString(t.mfe()), Integer.toString(t.bars()),
                    t.exitReason().map(ResultWords::of).orElse("")));
        }
        return rows;
    }

    /** The rows of {@code decisions.csv}, header first. */
    public static List<List<String>> decisions(Run run) {
        List<Contract> contracts = run.engine().contracts();
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("time", "strategy", "side", "decision", "reason", "price"));
        for (Decision d : run.engine().log().decisions()) {
            if (d.kind() == Decision.Kind.BY_HAND) {
                // an act is no decision about an entry; the session file has it with its place on the tape
                continue;
            }
            rows.add(List.of(time(d.time()), d.owner().map(owner -> owner(run, owner)).orElse(""),
                    d.side().map(Side::word).orElse(""), ResultWords.of(d.kind()), ResultWords.reason(d),
                    d.price() == Tape.NONE ? "" : contracts.get(d.market()).text(d.price())));
        }
        return rows;
    }

    private static String time(long nanos) {
        return TapeTime.instant(nanos).toString();
    }

    private static String owner(Run run, Owner owner) {
        return switch (owner) {
            case Owner.Strategy strategy -> strategy(run, strategy.index());
            case Owner.Person ignored -> "by hand";
        };
    }

    private static String strategy(Run run, int index) {
        return run.inputs().strategies().get(index).name();
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
        json.put("from", prints == 0 ? "" : time(inputs.tape().time(0)));
        json.put("to", prints == 0 ? "" : time(inputs.tape().time(prints - 1)));
        List<String> traded = run.engine().contracts().stream().map(Contract::symbol).toList();
        if (!inputs.others().isEmpty()) {
            json.put("furtherTapes", new TreeMap<>(inputs.others()).entrySet().stream().map(other -> {
                Map<String, Object> one = new LinkedHashMap<>();
                Tape tape = other.getValue().tape();
                one.put("contract", other.getKey());
                one.put("prints", tape.count());
                one.put("from", tape.count() == 0 ? "" : time(tape.time(0)));
                one.put("to", tape.count() == 0 ? "" : time(tape.time(tape.count() - 1)));
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
        json.put("longestDrawdownSeconds", s.longestDrawdown() / TapeTime.SECOND);
        s.worstDay().ifPresent(day -> json.put("worstDay", day(day)));
        s.bestDay().ifPresent(day -> json.put("bestDay", day(day)));
        json.put("days", s.days().stream().map(ResultFiles::day).toList());
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
