package stativex.desk.trials;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.engine.DayBook;
import stativex.engine.Strategy;
import stativex.evidence.Basket;
import stativex.evidence.BookReading;
import stativex.evidence.DayStatistics;
import stativex.evidence.InterlockPrice;
import stativex.evidence.Intervals;
import stativex.evidence.Odds;
import stativex.evidence.TrialReport;
import stativex.files.AttemptBook;
import stativex.files.ResultWords;
import stativex.files.TrialSettings;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.trial.Inputs;
import stativex.trial.Summary;

/** What came of a trial in figures: costs first, then what each is worth. Every figure says on hover how it is worked. */
final class TrialFacts extends VBox {
    private static final double INTERVAL = 132;

    TrialFacts() {
        super(3);
        setId("trial-facts");
    }

    void say(String words) {
        getChildren().setAll(Form.wrapped(words));
    }

    /** Both sides of a seal. */
    record Pair(TrialQueue.Result fit, TrialQueue.Result unseen) {}

    /**
     * @param seal what is said about unseen dates
     * @param pair where both ranges have been tried
     */
    void show(TrialQueue.Result result, String seal, Optional<Pair> pair) {
        getChildren().clear();
        TrialReport report = result.report();
        Summary s = report.summary();
        Inputs inputs = result.run().inputs();
        heading("Result", inputs.account().currency() + ", one account");
        row("trial-net", "Net", Format.signedMoney(s.net()), interval(report, Intervals.Figure.NET, true),
                "Gross − fees = " + Format.money(s.gross()) + " − " + Format.money(s.fees())
                        + "; gross has the slippage inside.");
        row("", "Gross", Format.signedMoney(s.gross()), "", "From the fills: " + Format.money(s.slippage())
                + " went to the slippage setting, " + Format.money(s.gaps()) + " to quotes and gaps.");
        row("", "Fees", Format.money(-s.fees()), "", "Money per contract and side, on every fill.");
        row("trial-average", "Average trade",
                s.averageTrade().isPresent() ? Format.signedMoney(s.averageTrade().getAsLong()) : "none",
                interval(report, Intervals.Figure.AVERAGE_TRADE, true), "Net ÷ " + s.trades() + " trades.");
        row("trial-kills", "Cost that kills it", killing(s, inputs), "",
                "Net ÷ contracts entered: so much more per contract, both sides together, and net is zero.");
        rule();
        row("", "Trades", Integer.toString(s.trades()), "", "From flat to flat of one owner.");
        row("", "Win rate", percent(s.winRate()), "", s.wins() + " of " + s.trades() + " trades ended above 0.");
        row("trial-factor", "Profit factor", ratio(s.profitFactor(), 2),
                interval(report, Intervals.Figure.PROFIT_FACTOR, false),
                "Σ net of winners ÷ Σ |net| of losers; none without losses.");
        row("", "Expectancy", s.expectancyR().isPresent() ? ratio(s.expectancyR(), 2) + " R" : "none", "",
                "Mean of net ÷ R over trades that have a stop.");
        row("trial-sharpe", "Sharpe ratio, year", year(report.statistics().sharpe()), sharpe(report),
                "Mean ÷ deviation of " + report.statistics().days() + " day results, zeros included, × √252.");
        row("", "Largest loss", Format.money(-s.largestLoss()), "", "Of one trade, net.");
        row("", "Worst day", s.worstDay().map(TrialFacts::day).orElse("none"), "",
                "The lowest day result, open result included.");
        threshold(s, inputs);
        row("trial-drawdown", "Deepest drawdown", Format.money(-s.deepestDrawdown()),
                interval(report, Intervals.Figure.DEEPEST_DRAWDOWN, true),
                "The deepest fall of equity from its best so far, at every print.");
        row("", "Longest drawdown", longest(s.longestDrawdown()), days(s.longestDrawdown()),
                "From the last print at a best to the first at or above it again, or the end (not over); and how many trading"
                        + " days it touches.");
        row("", "Return on margin", percent(report.margin().yearlyReturn()), "", "Net × 365 ÷ calendar days ÷ ("
                + report.margin().mostOpen() + " contracts at most × margin). None where no margin is known.");
        getChildren().add(Form.wrapped("Right: 5th to 95th percentile over " + Format.grouped("2000")
                + " drawings of the trial's days, blocks of 5 days on average, seed 1."));
        pair.ifPresent(this::pair);
        report.basket().ifPresent(this::basket);
        how(result, inputs, seal);
        verdict(result.verdict(), inputs);
    }

    private void how(TrialQueue.Result result, Inputs inputs, String seal) {
        heading("How it was run", seal);
        Contract contract = inputs.contract();
        getChildren().add(Form.wrapped("every print · fill " + inputs.terms().realism().word() + " · "
                + contract.slippage() + " t slippage · latency "
                + inputs.terms().latency() * 1000 / TapeTime.SECOND + " ms · "
                + Format.grouped(Integer.toString(inputs.prints())) + " prints · "
                + result.documents().strategies().getFirst().value().version()));
        List<DayBook.Day> days = result.report().summary().days();
        if (!days.isEmpty()) {
            int attempts = AttemptBook.own().count(contract.symbol(), inputs.strategies().getFirst().name(),
                    days.getFirst().date(), days.getLast().date());
            Label tried = Form.wrapped(attempts + (attempts == 1 ? " variant" : " variants") + " of "
                    + inputs.strategies().getFirst().name() + " tried on these dates so far.");
            tried.setId("trial-attempts");
            getChildren().add(tried);
        }
        int larger = result.run().engine().ordersLargerThanTheirPrint();
        if (larger > 0) {
            getChildren().add(Form.wrapped(larger + " market orders were larger than the print they met."));
        }
        if (inputs.strategies().stream().anyMatch(TrialFacts::lacksStop)) {
            Label label = Form.wrapped("Without a stop: what a trade may lose is not bounded.");
            label.getStyleClass().setAll("label", "near");
            getChildren().add(label);
        }
    }

    /** What each contract gave, beside what it costs to trade it; and how much their days go together. */
    private void basket(Basket basket) {
        heading("Contracts", "average trade, its cost");
        for (Basket.Part part : basket.parts()) {
            row("", part.contract().symbol() + ", " + part.trades()
                    + (part.trades() == 1 ? " trade" : " trades"), Format.signedMoney(part.net()),
                    part.averageTrade().isPresent()
                            ? Format.signedMoney(part.averageTrade().getAsLong()) + ", "
                                    + Format.money(part.averageCost().getAsLong())
                            : "",
                    "Net of its trades; what one brings and what one costs on average, fees, slippage and"
                            + " gaps together.");
        }
        for (int i = 0; i < basket.parts().size(); i++) {
            for (int j = i + 1; j < basket.parts().size(); j++) {
                OptionalDouble together = basket.correlation().get(i).get(j);
                row("", basket.parts().get(i).contract().symbol() + " with "
                        + basket.parts().get(j).contract().symbol(), ratio(together, 2), "",
                        "Correlation of their day results: 1 go together, 0 apart, −1 against each other.");
            }
        }
    }

    private void verdict(TrialQueue.Verdict verdict, Inputs inputs) {
        if (!verdict.interlocks().isEmpty()) {
            heading("What each interlock did", "");
            for (InterlockPrice price : verdict.interlocks()) {
                row("", ResultWords.of(price.reason()), Format.signedMoney(price.saved()),
                        price.declined() + " declined", "Declined signals as trades of their own: a plus was saved.");
            }
        }
        heading("Rulebook", inputs.account().rulebook().name());
        if (verdict.reading().isEmpty()) {
            getChildren().add(Form.wrapped(verdict.why()));
            return;
        }
        BookReading reading = verdict.reading().get();
        Label words = Form.wrapped(words(reading));
        words.setId("trial-verdict");
        getChildren().add(words);
        verdict.odds().ifPresent(odds -> getChildren().add(Form.wrapped(odds(odds))));
    }

    /** The day's loss that is too much for the person: the account's own day loss, until another one is written. */
    private void threshold(Summary s, Inputs inputs) {
        Optional<Long> own = TrialSettings.read().worstDay();
        Optional<Long> line = own.or(() -> inputs.account().own().dayLoss().map(Account.DayLoss::amount));
        TextField field = new TextField(line.map(Money::text).orElse(""));
        field.setId("trial-threshold");
        field.setAccessibleText("Loss of a day that is too much; empty: the account's own day loss");
        field.setPrefColumnCount(6);
        Label said = Form.muted("");
        said.setId("trial-threshold-said");
        Runnable judge = () -> {
            long worst = s.worstDay().map(DayBook.Day::result).orElse(0L);
            long days = parsed(field.getText()).map(most -> s.days().stream().filter(d -> d.result() < -most).count())
                    .orElse(0L);
            said.getStyleClass().setAll("label", days > 0 ? "problem" : "muted");
            said.setText(parsed(field.getText()).isEmpty()
                    ? field.getText().isBlank() ? "none" : "expected money above 0"
                    : days > 0
                            ? "worse on " + days + (days == 1 ? " day" : " days") + ", by "
                                    + Format.money(-worst - parsed(field.getText()).get())
                            : "never worse");
        };
        field.setOnAction(e -> {
            if (field.getText().isBlank() || parsed(field.getText()).isPresent()) {
                new TrialSettings(parsed(field.getText())).keep();
            }
            judge.run();
        });
        judge.run();
        getChildren().add(Form.row(Form.muted("no worse than"), field, said));
    }

    private static Optional<Long> parsed(String text) {
        try {
            return Optional.of(Money.parse(text.strip())).filter(money -> money > 0);
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** Both sides of a seal, a column each: a steep fall is a bad sign. */
    private void pair(Pair of) {
        heading("Fitted and unseen", "a steep fall is a bad sign");
        GridPane columns = ReportView.columns(List.of("fitted", "unseen"), List.of(of.fit(), of.unseen()));
        columns.setId("trial-pair");
        getChildren().add(columns);
    }

    private static boolean lacksStop(Strategy strategy) {
        return strategy.sides().longSide().isPresent() && strategy.plan().longTerms().stop().isEmpty()
                || strategy.sides().shortSide().isPresent() && strategy.plan().shortTerms().stop().isEmpty();
    }

    private static String words(BookReading reading) {
        String over = reading.over().map(day -> "Over on " + Format.day(day.date()) + ". ").orElse("");
        return over + (reading.daysToTarget().isPresent()
                ? "The target met on day " + reading.daysToTarget().getAsInt() + "."
                : "The target was not met in " + reading.days().size() + " days.");
    }

    private static String odds(Odds odds) {
        return "Odds of " + Format.grouped(Integer.toString(odds.accounts())) + " accounts: "
                + Math.round(100 * odds.passed().share()) + " % reach the target first"
                + odds.honest().map(h -> ", honestly " + Math.round(100 * h.low()) + " to " + Math.round(100 * h.high())
                        + " %").orElse("")
                + ".";
    }

    private static String killing(Summary s, Inputs inputs) {
        return s.killingCost().map(cost -> Format.signedMoney(cost) + "  " + Format.decimal(
                (double) cost / inputs.contract().tickValue(), 1) + " t").orElse("no profit");
    }

    private static String day(DayBook.Day day) {
        return Format.signedMoney(day.result());
    }

    private static String longest(Summary.Longest of) {
        long hours = of.time() / TapeTime.SECOND / 3600;
        return of.time() == 0
                ? "none"
                : hours >= 48 ? hours / 24 + " days" : Format.duration(of.time());
    }

    private static String days(Summary.Longest of) {
        return (of.tradingDays() > 1 ? of.tradingDays() + " trading" + (of.unfinished() ? ", " : "") : "")
                + (of.unfinished() ? "not over" : "");
    }

    private static String percent(OptionalDouble share) {
        return share.isPresent() ? Format.decimal(100 * share.getAsDouble(), 0) + " %" : "none";
    }

    private static String ratio(OptionalDouble value, int decimals) {
        return value.isPresent() ? Format.decimal(value.getAsDouble(), decimals) : "none";
    }

    private static String year(OptionalDouble day) {
        return day.isPresent() ? Format.decimal(day.getAsDouble() * Math.sqrt(DayStatistics.YEAR), 2) : "none";
    }

    private static String sharpe(TrialReport report) {
        return Optional.ofNullable(report.intervals().get(Intervals.Figure.SHARPE_RATIO))
                .map(i -> Format.decimal(i.low() * Math.sqrt(DayStatistics.YEAR), 1) + " … "
                        + Format.decimal(i.high() * Math.sqrt(DayStatistics.YEAR), 1))
                .orElse("");
    }

    private static String interval(TrialReport report, Intervals.Figure figure, boolean money) {
        return Optional.ofNullable(report.intervals().get(figure)).map(i -> money
                ? whole(i.low(), figure) + " … " + whole(i.high(), figure)
                : Format.decimal(i.low(), 2) + " … " + Format.decimal(i.high(), 2)).orElse("");
    }

    private static String whole(double money, Intervals.Figure figure) {
        boolean fall = figure == Intervals.Figure.DEEPEST_DRAWDOWN;
        double value = (fall ? -money : money) / Money.UNIT;
        return (value > 0 ? "+" : "") + Format.decimal(value, Math.abs(value) < 100 ? 1 : 0);
    }

    // ------------------------------------------------------------------ parts

    private void heading(String words, String beside) {
        Label title = new Label(words);
        title.getStyleClass().add("heading");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox line = new HBox(6, title, gap, Form.muted(beside));
        line.setPadding(new javafx.geometry.Insets(getChildren().isEmpty() ? 0 : 10, 0, 2, 0));
        getChildren().add(line);
    }

    private void rule() {
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        getChildren().add(rule);
    }

    private void row(String id, String word, String figure, String interval, String how) {
        Label name = new Label(word);
        name.setMinWidth(USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label value = new Label(figure);
        value.getStyleClass().add("fact");
        value.setMinWidth(USE_PREF_SIZE);
        if (!id.isEmpty()) {
            value.setId(id);
        }
        Label range = Form.muted(interval);
        range.setMinWidth(INTERVAL);
        range.setPrefWidth(INTERVAL);
        range.setAlignment(javafx.geometry.Pos.CENTER_RIGHT);
        HBox line = new HBox(6, name, gap, value, range);
        Tooltip.install(line, new Tooltip(how));
        line.setAccessibleText(word + " " + figure + (interval.isEmpty() ? "" : ", " + interval) + ". " + how);
        getChildren().add(line);
    }

    /** The rows that trials are compared by: a word and its figures. */
    record Row(String word, List<String> figures) {}

    /** One column for each trial. */
    static List<Row> compared(List<TrialQueue.Result> results) {
        List<Summary> all = results.stream().map(r -> r.report().summary()).toList();
        return List.of(
                new Row("Net", all.stream().map(s -> Format.signedMoney(s.net())).toList()),
                new Row("Trades", all.stream().map(s -> Integer.toString(s.trades())).toList()),
                new Row("Average trade", all.stream().map(s -> s.averageTrade().isPresent()
                        ? Format.signedMoney(s.averageTrade().getAsLong())
                        : "none").toList()),
                new Row("Cost that kills it", all.stream()
                        .map(s -> s.killingCost().map(Format::signedMoney).orElse("no profit")).toList()),
                new Row("Win rate", all.stream().map(s -> percent(s.winRate())).toList()),
                new Row("Profit factor", all.stream().map(s -> ratio(s.profitFactor(), 2)).toList()),
                new Row("Sharpe ratio, year",
                        results.stream().map(r -> year(r.report().statistics().sharpe())).toList()),
                new Row("Worst day", all.stream().map(s -> s.worstDay().map(TrialFacts::day).orElse("none")).toList()),
                new Row("Deepest drawdown",
                        all.stream().map(s -> Format.money(-s.deepestDrawdown())).toList()));
    }
}
