package stativex.evidence;

import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.function.Function;
import stativex.engine.DayBook;
import stativex.engine.Trade;
import stativex.market.Contract;
import stativex.order.Fill;
import stativex.trial.Run;
import stativex.trial.Summary;
import stativex.trial.TradeFacts;

/**
 * All that is said of a finished trial. Source: SEMANTICS, "Results" and "Searches and evidence".
 *
 * @param trades in the order of their ends
 * @param statistics of the day results
 * @param intervals of the headline figures; empty in bar mode, or without a day
 * @param days of the trial as they are drawn from; empty in bar mode
 * @param margin most contracts open at once and what the net brought on their margin
 * @param basket of a trial over several contracts
 */
public record TrialReport(Summary summary, List<TradeFacts> trades, DayStatistics statistics,
        Map<Intervals.Figure, Intervals.Interval> intervals, List<TrialDay> days, Margin margin,
        Optional<Basket> basket) {

    /**
     * @param mostOpen contracts open at once
     * @param yearlyReturn net × 365 ÷ calendar days ÷ (most open × margin); empty without a margin, a position, or over several contracts
     */
    public record Margin(long mostOpen, OptionalDouble yearlyReturn) {}

    public TrialReport {
        trades = List.copyOf(trades);
        days = List.copyOf(days);
        intervals = Map.copyOf(intervals);
    }

    /** Works it out. @return empty when it was cancelled */
    public static Optional<TrialReport> of(Run run, Intervals.Settings settings, Odds.Progress progress) {
        Summary summary = Summary.of(run);
        List<TrialDay> days = run.assumed().isPresent() ? List.of() : TrialDay.of(run);
        Optional<Map<Intervals.Figure, Intervals.Interval>> intervals = days.isEmpty()
                ? Optional.of(Map.of())
                : Intervals.of(days, settings, progress);
        return intervals.map(found -> new TrialReport(summary, TradeFacts.of(run),
                DayStatistics.of(summary.days().stream().mapToLong(DayBook.Day::result).toArray()), found, days,
                margin(run, summary), Basket.of(run)));
    }

    /** A table of its trades. @param exits the word for what ended a trade */
    public TradeTable table(TradeTable.By by, Function<Trade, String> exits) {
        return TradeTable.of(by, trades, exits);
    }

    private static Margin margin(Run run, Summary summary) {
        Map<String, Long> open = new HashMap<>();
        long most = 0;
        for (Fill fill : run.engine().log().fills()) {
            // owners are not netted against each other: each holds its own
            String owner = fill.owner() + " " + run.inputs().contract(fill.owner()).symbol();
            open.merge(owner, fill.buy() ? (long) fill.quantity() : -fill.quantity(), Long::sum);
            most = Math.max(most, open.values().stream().mapToLong(Math::abs).sum());
        }
        List<Contract> contracts = run.engine().contracts();
        OptionalLong margin = contracts.size() == 1
                ? contracts.getFirst().listing().margin()
                : OptionalLong.empty();
        List<DayBook.Day> days = summary.days();
        if (margin.isEmpty() || most == 0 || days.isEmpty()) {
            return new Margin(most, OptionalDouble.empty());
        }
        long calendar = ChronoUnit.DAYS.between(days.getFirst().date(), days.getLast().date()) + 1;
        return new Margin(most, OptionalDouble
                .of(summary.net() * 365.0 / calendar / ((double) most * margin.getAsLong())));
    }

    /** Every table. */
    public List<TradeTable> tables(Function<Trade, String> exits) {
        return Arrays.stream(TradeTable.By.values()).map(by -> table(by, exits)).toList();
    }
}
