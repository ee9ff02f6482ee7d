package stativex.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import stativex.engine.DayBook;
import stativex.evidence.DayStatistics;
import stativex.evidence.EquityCurve;
import stativex.evidence.Intervals;
import stativex.evidence.TrialReport;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Summary;

/** The headline figures of a report in words, for every kind of file. */
final class ReportFigures {
    /** @param interval 5th to 95th percentile; empty where there is none */
    record Line(String word, String value, String interval) {}

    private ReportFigures() {}

    /** In their order. */
    static List<Line> of(TrialReport report) {
        Summary s = report.summary();
        List<Line> lines = new ArrayList<>();
        lines.add(new Line("Net", Money.text(s.net()), interval(report, Intervals.Figure.NET)));
        lines.add(new Line("Gross", Money.text(s.gross()), ""));
        lines.add(new Line("Fees", Money.text(s.fees()), ""));
        lines.add(new Line("Trades", Integer.toString(s.trades()), ""));
        lines.add(new Line("Average trade",
                s.averageTrade().isPresent() ? Money.text(s.averageTrade().getAsLong()) : "none",
                interval(report, Intervals.Figure.AVERAGE_TRADE)));
        lines.add(
                new Line("Cost that kills it, per contract", s.killingCost().map(Money::text).orElse("no profit"), ""));
        lines.add(new Line("Win rate", percent(s.winRate()), ""));
        lines.add(new Line("Profit factor", ratio(s.profitFactor()), interval(report, Intervals.Figure.PROFIT_FACTOR)));
        lines.add(new Line("Payoff", ratio(s.payoff()), ""));
        lines.add(new Line("Expectancy in R", ratio(s.expectancyR()), ""));
        lines.add(new Line("Sharpe ratio, a year", ratio(year(report.statistics().sharpe())),
                interval(report, Intervals.Figure.SHARPE_RATIO)));
        lines.add(new Line("Largest loss", Money.text(s.largestLoss()), ""));
        lines.add(new Line("Worst day",
                s.worstDay().map(d -> Money.text(d.result()) + " on " + d.date()).orElse("none"), ""));
        lines.add(new Line("Best day", s.bestDay().map(d -> Money.text(d.result()) + " on " + d.date()).orElse("none"),
                ""));
        lines.add(new Line("Deepest drawdown", Money.text(s.deepestDrawdown()),
                interval(report, Intervals.Figure.DEEPEST_DRAWDOWN)));
        lines.add(new Line("Return on margin, a year", percent(report.margin().yearlyReturn()), ""));
        return lines;
    }

    /** What locked the account. */
    static List<String> locks(Run run) {
        return run.engine().locks().stream().map(lock -> "Locked by " + ResultWords.of(lock.line().lock()) + " at "
                + TapeTime.instant(lock.time()) + ": " + Sentences.lock(lock) + ".").toList();
    }

    /** How it was run, in a few sentences. @param seal what is said about unseen dates */
    static String how(Run run, TrialReport report, String seal) {
        Inputs inputs = run.inputs();
        Contract contract = inputs.contract();
        List<DayBook.Day> days = report.summary().days();
        String range = days.isEmpty()
                ? "no day"
                : days.getFirst().date() + " to " + days.getLast().date() + ", " + days.size() + " days";
        return contract.symbol() + ", " + range + ". " + inputs.terms().mode().word() + " mode, fill "
                + inputs.terms().realism().word() + ", slippage " + contract.slippage() + " ticks, fee "
                + Money.text(inputs.account().fee(contract.symbol())) + " " + contract.currency()
                + " per contract and side, latency " + inputs.terms().latency() * 1000 / TapeTime.SECOND + " ms, "
                + inputs.prints() + " prints. Account " + inputs.account().name() + ", rulebook "
                + inputs.account().rulebook().name() + ". Versions: "
                + String.join(", ", inputs.strategies().stream()
                        .map(s -> s.name() + " " + s.version() + " with " + s.plan().name() + " " + s.plan().version())
                        .toList())
                + ". Engine " + ResultFiles.engineVersion() + ". " + seal + ".";
    }

    /** Points of the picture: x in days from the beginning, equity, and how far it lies under its best so far; money. */
    static List<double[]> points(List<EquityCurve.Day> curve) {
        List<double[]> points = new ArrayList<>();
        double begun = 0;
        double best = 0;
        points.add(new double[]{0, 0, 0});
        for (int d = 0; d < curve.size(); d++) {
            EquityCurve.Day day = curve.get(d);
            double last = 0;
            int count = day.pieces().size();
            for (int p = 0; p < count; p++) {
                EquityCurve.Piece piece = day.pieces().get(p);
                for (long value : new long[]{piece.high(), piece.low(), piece.last()}) {
                    best = Math.max(best, begun + value);
                    points.add(new double[]{d + (p + 1.0) / (count + 1), begun + value, begun + value - best});
                }
                last = piece.last();
            }
            begun += last;
            points.add(new double[]{d + 1.0, begun, begun - best});
        }
        return points;
    }

    private static OptionalDouble year(OptionalDouble day) {
        return day.isPresent() ? OptionalDouble.of(day.getAsDouble() * Math.sqrt(DayStatistics.YEAR)) : day;
    }

    static String ratio(OptionalDouble value) {
        return value.isPresent() ? String.format(Locale.ROOT, "%.2f", value.getAsDouble()) : "none";
    }

    static String percent(OptionalDouble share) {
        return share.isPresent() ? String.format(Locale.ROOT, "%.1f %%", 100 * share.getAsDouble()) : "none";
    }

    private static String interval(TrialReport report, Intervals.Figure figure) {
        Map<Intervals.Figure, Intervals.Interval> all = report.intervals();
        if (!all.containsKey(figure)) {
            return "";
        }
        double unit = figure == Intervals.Figure.PROFIT_FACTOR
                ? 1
                : figure == Intervals.Figure.SHARPE_RATIO ? 1 / Math.sqrt(DayStatistics.YEAR) : Money.UNIT;
        return String.format(Locale.ROOT, "%.2f to %.2f", all.get(figure).low() / unit, all.get(figure).high() / unit);
    }
}
