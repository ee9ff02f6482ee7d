package stativex.desk.trials;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import javafx.geometry.HPos;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.engine.Trade;
import stativex.evidence.TradeTable;
import stativex.files.ReportFile;
import stativex.market.Side;
import stativex.trial.TradeFacts;

/** The centre of the Trials stage: equity and drawdown; below them trades and days of one trial, or figures of several side by side. */
final class ReportView extends VBox {
    /**
     * A trial with what lies on the other side of its seal.
     *
     * @param name of its strategy
     * @param result that is looked at; of a pair either one
     * @param fit the range that was fitted on, where there are two
     * @param unseen opened; empty: never looked at, or nothing is sealed
     * @param sealed dates of the unseen range
     */
    record Shown(String name, TrialQueue.Result result, Optional<TrialQueue.Result> fit,
            Optional<TrialQueue.Result> unseen, List<LocalDate> sealed) {}

    private final TrialPicture picture = new TrialPicture();
    private final ExcursionView excursions = new ExcursionView(this::chosen);
    private final Label excursionWords = Form.wrapped("");
    private final Button toChart = new Button("On the chart");
    private final DayCalendarView days = new DayCalendarView();
    private final Label dayWords = Form.wrapped("");
    private final VBox tables = new VBox(2);
    private final ScrollPane table = new ScrollPane(tables);
    private final BorderPane below = new BorderPane();
    private final ComboBox<String> by = Form.choice("trials-by", "What the table lists trades by", "days",
            "day", "week", "month", "year", "weekday", "hour", "window", "side", "grade", "exit reason", "contract",
            "R");
    private Optional<Shown> shown = Optional.empty();
    private Optional<TradeFacts> trade = Optional.empty();

    /** @param show leads to what was entered at a time, on a side */
    ReportView(BiConsumer<Long, Side> show) {
        picture.setId("trials-picture");
        picture.setPrefHeight(360);
        VBox.setVgrow(picture, Priority.ALWAYS);
        below.setPrefHeight(316);
        below.setMinHeight(240);
        excursions.setId("trials-excursions");
        days.setId("trials-days");
        toChart.setId("trials-to-chart");
        toChart.getStyleClass().add("small");
        toChart.setMinWidth(Region.USE_PREF_SIZE);
        toChart.setOnAction(e -> trade.ifPresent(t -> show.accept(t.trade().entryTime(), t.trade().side())));
        by.getSelectionModel().select(0);
        by.setMaxWidth(130);
        by.setOnAction(e -> showDays());
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        table.setFitToWidth(true);
        table.setId("trials-table");
        table.getStyleClass().add("cards");
        tables.setPadding(new Insets(2, 12, 6, 12));
        getChildren().addAll(picture, rule, below);
    }

    /** Nothing but words. */
    void say(String words) {
        shown = Optional.empty();
        picture.say(words);
        below.setCenter(null);
    }

    void show(Shown next) {
        shown = Optional.of(next);
        trade = Optional.empty();
        TrialQueue.Result before = next.fit().orElse(next.result());
        picture.show(List.of(new TrialPicture.Line(next.name(), before.curve())), next.sealed().isEmpty()
                ? Optional.empty()
                : Optional.of(new TrialPicture.Unseen(next.sealed(), next.unseen().map(TrialQueue.Result::curve))));
        excursions.show(next.result().report().trades(), next.result().documents().strategies().size() > 1
                ? List.of()
                : ExcursionView.lines(next.result().documents().strategies().getFirst().value().plan()));
        excursionWords.setText(excursions.words());
        Form.show(toChart, false);
        below.setCenter(split());
        showDays();
    }

    private Node split() {
        HBox words = new HBox(8, excursionWords, toChart);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setPadding(new Insets(4, 10, 8, 12));
        HBox.setHgrow(excursionWords, Priority.ALWAYS);
        VBox left = new VBox(part("Against and for", Form.muted("a mark each trade, ticks")), excursions, words);
        VBox.setVgrow(excursions, Priority.ALWAYS);
        left.setPrefWidth(360);
        dayWords.setPadding(new Insets(4, 10, 8, 12));
        VBox.setVgrow(days, Priority.ALWAYS);
        VBox.setVgrow(table, Priority.ALWAYS);
        VBox right = new VBox(part("By", by), days, table, dayWords);
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox.setHgrow(right, Priority.ALWAYS);
        left.setMinWidth(300);
        right.setMinWidth(300);
        right.setPrefWidth(340);
        Region rule = new Region();
        rule.setMinWidth(1);
        rule.setPrefWidth(1);
        rule.getStyleClass().add("rule");
        return new HBox(left, rule, right);
    }

    private static HBox part(String words, Node beside) {
        Label title = new Label(words);
        title.getStyleClass().add("title");
        HBox head = new HBox(10, title, beside);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("chart-head");
        return head;
    }

    private void showDays() {
        int index = by.getSelectionModel().getSelectedIndex();
        Form.show(days, index <= 0);
        Form.show(table, index > 0);
        shown.ifPresent(of -> {
            if (index <= 0) {
                calendar(of);
            } else if (index > TradeTable.By.values().length) {
                distribution(of.result().report().trades());
            } else {
                table(of.result().report().table(TradeTable.By.values()[index - 1], ReportFile::exit));
            }
        });
    }

    /** Days of both ranges, and those that nobody has looked at. */
    private void calendar(Shown of) {
        List<DayCalendarView.Day> all = new ArrayList<>();
        of.fit().filter(fit -> fit != of.result()).ifPresent(fit -> all.addAll(daysOf(fit)));
        all.addAll(daysOf(of.result()));
        of.unseen().filter(unseen -> unseen != of.result()).ifPresent(unseen -> all.addAll(daysOf(unseen)));
        days.show(all, of.unseen().isPresent() ? List.of() : of.sealed());
        dayWords.setText(days.words());
    }

    private static List<DayCalendarView.Day> daysOf(TrialQueue.Result result) {
        return DayCalendarView.of(result.report().summary().days(),
                result.report().table(TradeTable.By.DAY, ReportFile::exit));
    }

    /** How many trades ended in each half R. */
    private void distribution(List<TradeFacts> trades) {
        TreeMap<Integer, Integer> halves = new TreeMap<>();
        trades.stream().flatMapToDouble(facts -> facts.r().stream())
                .forEach(r -> halves.merge((int) Math.floor(2 * r), 1, Integer::sum));
        GridPane grid = new GridPane(12, 3);
        header(grid, "R", "trades", "");
        int most = halves.values().stream().mapToInt(n -> n).max().orElse(1);
        for (int half = halves.isEmpty() ? 1 : halves.firstKey(); !halves.isEmpty()
                && half <= halves.lastKey(); half++) {
            int count = halves.getOrDefault(half, 0);
            int row = half - halves.firstKey() + 1;
            cells(grid, row, Format.decimal(half / 2.0, 1) + " to " + Format.decimal((half + 1) / 2.0, 1),
                    Integer.toString(count));
            Region bar = new Region();
            bar.getStyleClass().add(half < 0 ? "bar-lost" : "bar-won");
            bar.setMinSize(150.0 * count / most, 12);
            bar.setMaxSize(150.0 * count / most, 12);
            grid.add(bar, 2, row);
        }
        tables.getChildren().setAll(grid);
        long without = trades.stream().filter(facts -> facts.r().isEmpty()).count();
        dayWords.setText("Net ÷ what the initial stop risked, fees of both ways in it"
                + (without > 0 ? "; " + without + " trades have no stop." : "."));
    }

    private void table(TradeTable of) {
        GridPane grid = new GridPane(12, 3);
        header(grid, "", "trades", "won", "net", "average");
        int row = 1;
        for (TradeTable.Row one : of.rows()) {
            cells(grid, row++, key(of.by(), one.key()), Integer.toString(one.trades()),
                    Math.round(100 * one.winRate().orElse(0)) + " %", Format.signedMoney(one.net()),
                    Format.signedMoney(one.averageTrade().orElse(0)));
        }
        tables.getChildren().setAll(grid);
        dayWords.setText(of.by() == TradeTable.By.HOUR
                ? "Hours of the exchange, by the entry."
                : "Trades are listed by their entry.");
    }

    private static String key(TradeTable.By by, String key) {
        if (by == TradeTable.By.WEEKDAY) {
            return java.time.DayOfWeek.of(Integer.parseInt(key)).getDisplayName(java.time.format.TextStyle.FULL,
                    Locale.ENGLISH);
        }
        return key.isEmpty() ? "none" : by == TradeTable.By.HOUR ? key + ":00" : key;
    }

    /** Several side by side. @param names over the columns */
    void compare(List<String> names, List<TrialPicture.Line> lines, List<TrialQueue.Result> all) {
        shown = Optional.empty();
        picture.show(lines, Optional.empty());
        GridPane grid = columns(names, all);
        grid.setPadding(new Insets(10, 14, 10, 14));
        grid.setId("trials-grid");
        ScrollPane scroll = new ScrollPane(grid);
        scroll.getStyleClass().add("cards");
        below.setCenter(scroll);
    }

    /** A column of figures for each result. */
    static GridPane columns(List<String> names, List<TrialQueue.Result> all) {
        GridPane grid = new GridPane(18, 4);
        List<String> head = new ArrayList<>(List.of(""));
        head.addAll(names);
        header(grid, head.toArray(String[]::new));
        int row = 1;
        for (TrialFacts.Row of : TrialFacts.compared(all)) {
            List<String> words = new ArrayList<>(List.of(of.word()));
            words.addAll(of.figures());
            cells(grid, row++, words.toArray(String[]::new));
        }
        return grid;
    }

    private static void header(GridPane grid, String... words) {
        for (int i = 0; i < words.length; i++) {
            cell(grid, Form.muted(words[i]), i, 0);
        }
    }

    private static void cells(GridPane grid, int row, String... words) {
        for (int i = 0; i < words.length; i++) {
            cell(grid, new Label(words[i]), i, row);
        }
    }

    private static void cell(GridPane grid, Label label, int column, int row) {
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, column == 0 ? HPos.LEFT : HPos.RIGHT);
        grid.add(label, column, row);
    }

    private void chosen(int at) {
        shown.ifPresent(of -> {
            TradeFacts facts = of.result().report().trades().get(at);
            trade = Optional.of(facts);
            Trade t = facts.trade();
            excursionWords.setText(Format.day(facts.tradingDay()) + " "
                    + Format.minute(t.entryTime(), facts.contract().calendar().zone()) + " " + t.side().word() + " "
                    + t.quantity() + ", " + Format.signedMoney(t.net()) + ", out by " + ReportFile.exit(t) + ": "
                    + Format.ticks(-t.mae()) + " against, " + Format.ticks(t.mfe()) + " for it");
            Form.show(toChart, true);
        });
    }

    /** Where the mark of a trade stands, for whoever clicks it. */
    Point2D mark(int of) {
        return excursions.mark(of);
    }
}
