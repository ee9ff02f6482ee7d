package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.function.ToDoubleFunction;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.engine.Snapshot;
import stativex.evidence.Odds;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.ExampleBook;
import stativex.files.StrategyDraft;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.DoubleColumn;
import stativex.market.Side;
import stativex.search.ExampleRules;
import stativex.search.Examples;
import stativex.study.MarkColumn;
import stativex.study.StudyDefinition;

/**
 * Rules from examples: bars are marked as right or wrong for an entry, and rules that hold on them and seldom elsewhere are offered. Every
 * conjunction that is looked at counts as an attempt.
 */
final class ExamplesPane extends VBox {
    private static final int OFFERS = 20;
    private static final BigDecimal WEIGHT = new BigDecimal("0.2");

    /** What the stage around it knows. */
    interface Stage {
        Optional<Evaluation> evaluation();

        Side side();

        /** The bar that was picked, else the newest. */
        Optional<Integer> bar();

        void edit(UnaryOperator<StrategyDraft> change);

        /** Marks are others now. */
        void marked();
    }

    private final Contract contract;
    private final Stage stage;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = Thread.ofPlatform().daemon().name("examples").unstarted(work);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });
    private final Button right = small("example-right", "Right here");
    private final Button wrong = small("example-wrong", "Wrong here");
    private final CheckBox beside = new CheckBox("or a bar beside");
    private final Button find = small("example-find", "Find rules");
    private final Label words = Form.muted("");
    private final VBox offers = new VBox(4);
    private final ScrollPane shown = new ScrollPane(offers);
    private Optional<ExampleBook> book = Optional.empty();
    private String of = "";
    private volatile boolean cancelled;
    private boolean busy;

    ExamplesPane(Contract contract, Stage stage) {
        this.contract = contract;
        this.stage = stage;
        words.setId("example-words");
        beside.setId("example-beside");
        beside.setMinWidth(Region.USE_PREF_SIZE);
        right.setOnAction(e -> mark(ExampleBook.Mark.RIGHT));
        wrong.setOnAction(e -> mark(ExampleBook.Mark.WRONG));
        find.setOnAction(e -> {
            if (busy) {
                cancelled = true;
            } else {
                find();
            }
        });
        Label title = new Label("Examples");
        title.getStyleClass().add("heading");
        title.setMinWidth(Region.USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox bar = new HBox(8, title, right, wrong, words, gap, beside, find);
        bar.setAlignment(Pos.CENTER_LEFT);
        bar.getStyleClass().add("lanes-head");
        shown.setFitToWidth(true);
        shown.getStyleClass().add("cards");
        shown.setPrefHeight(188);
        offers.setId("example-offers");
        offers.setPadding(new javafx.geometry.Insets(4, 14, 6, 14));
        Form.show(shown, false);
        getChildren().addAll(bar, shown);
    }

    private static Button small(String id, String text) {
        Button button = new Button(text);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setMinWidth(Region.USE_PREF_SIZE);
        return button;
    }

    /** The marks of the open strategy; none while its file does not read. */
    private Optional<ExampleBook> book() {
        String name = stage.evaluation().map(made -> made.draft().name()).orElse("");
        if (!name.equals(of)) {
            of = name;
            Form.show(shown, false);
            try {
                book = name.isEmpty() ? Optional.empty() : Optional.of(ExampleBook.own(name));
            } catch (BadInput e) {
                book = Optional.empty();
                words.setText(e.getMessage());
            }
        }
        return book;
    }

    /** Another bar, side or strategy is looked at. */
    void show() {
        if (busy) {
            return;
        }
        Optional<ExampleBook> marks = book();
        boolean possible = marks.isPresent() && stage.bar().isPresent();
        right.setDisable(!possible);
        wrong.setDisable(!possible);
        ExampleBook.Mark now = possible ? marks.get().at(stage.side(), moment()) : ExampleBook.Mark.NONE;
        right.setText(now == ExampleBook.Mark.RIGHT ? "Not right" : "Right here");
        wrong.setText(now == ExampleBook.Mark.WRONG ? "Not wrong" : "Wrong here");
        int rights = marks.map(m -> m.rights(stage.side())).orElse(0);
        find.setDisable(rights == 0);
        marks.ifPresent(m -> words.setText(rights == 0
                ? "pick a bar: was a " + stage.side().word() + " entry right?"
                : rights + (rights == 1 ? " bar" : " bars") + " marked as right"));
    }

    private long moment() {
        return stage.evaluation().orElseThrow().program().bars().moment(stage.bar().orElseThrow());
    }

    /** The bar that is looked at is right. */
    void markRight() {
        if (book().filter(marks -> marks.at(stage.side(), moment()) != ExampleBook.Mark.RIGHT).isPresent()) {
            mark(ExampleBook.Mark.RIGHT);
        }
    }

    private void mark(ExampleBook.Mark mark) {
        book().ifPresent(marks -> {
            try {
                marks.mark(stage.side(), moment(),
                        marks.at(stage.side(), moment()) == mark ? ExampleBook.Mark.NONE : mark);
                show();
                stage.marked();
            } catch (BadInput e) {
                words.setText(e.getMessage());
            }
        });
    }

    /** The marks of a side as the chart draws them: a chevron where it was right, a diamond where it was wrong. */
    List<Snapshot.MarkView> marks(Evaluation made, Side side) {
        Optional<ExampleBook> marks = book();
        List<Snapshot.MarkView> views = new ArrayList<>();
        if (marks.isPresent()) {
            BarSeries bars = made.program().bars();
            boolean up = side == Side.LONG;
            ToDoubleFunction<Integer> end = bar -> up ? bars.low(bar) : bars.high(bar);
            MarkColumn.Way way = up ? MarkColumn.Way.UP : MarkColumn.Way.DOWN;
            views.add(view(new MarkColumn.Shape("right", MarkColumn.Form.CHEVRON, way, Optional.empty()), bars, end,
                    bar -> marks.get().at(side, bars.moment(bar)) == ExampleBook.Mark.RIGHT));
            views.add(view(new MarkColumn.Shape("wrong", MarkColumn.Form.DIAMOND, way, Optional.empty()), bars, end,
                    bar -> marks.get().at(side, bars.moment(bar)) == ExampleBook.Mark.WRONG));
        }
        return views;
    }

    private static Snapshot.MarkView view(MarkColumn.Shape shape, BarSeries bars,
            ToDoubleFunction<Integer> price, java.util.function.IntPredicate stands) {
        double[] ago = new double[bars.count()];
        double[] prices = new double[bars.count()];
        Arrays.fill(ago, Double.NaN);
        for (int bar = 0; bar < ago.length; bar++) {
            if (stands.test(bar)) {
                ago[bar] = 0;
                prices[bar] = price.applyAsDouble(bar);
            }
        }
        return new Snapshot.MarkView(shape.name(), shape, "teal", new DoubleColumn.Prefix(ago, ago.length),
                new DoubleColumn.Prefix(prices, prices.length), Optional.empty());
    }

    // ------------------------------------------------------------------ finding

    /** Looks for rules that hold on the marked bars. */
    void find() {
        Evaluation made = stage.evaluation().orElseThrow();
        Side side = stage.side();
        Examples.Marks marks;
        try {
            marks = book().orElseThrow().marks(side, made.program().bars(), beside.isSelected());
        } catch (BadInput e) {
            words.setText(e.getMessage());
            return;
        }
        busy = true;
        cancelled = false;
        find.setText("Cancel");
        worker.execute(() -> {
            try {
                Optional<ExampleRules.Result> found = ExampleRules
                        .search(made.draft().signals().orElseThrow(), contract,
                                made.contracts(), made.program().bars(), marks, WEIGHT, OFFERS,
                                new Odds.Progress(share -> Platform.runLater(
                                        () -> words.setText("looking, " + Math.round(100 * share) + " %")),
                                        () -> cancelled));
                found.ifPresent(result -> count(made, result));
                Platform.runLater(() -> ended(found, side, ""));
            } catch (BadInput | IllegalArgumentException e) {
                Platform.runLater(() -> ended(Optional.empty(), side, e.getMessage()));
            }
        });
    }

    private void count(Evaluation made, ExampleRules.Result result) {
        BarSeries bars = made.program().bars();
        AttemptBook.own().addScored(contract.symbol(), made.draft().name(), bars.tradingDate(0),
                bars.tradingDate(bars.count() - 1), result.scored());
    }

    private void ended(Optional<ExampleRules.Result> found, Side side, String problem) {
        busy = false;
        find.setText("Find rules");
        show();
        if (!problem.isEmpty()) {
            words.setText(problem);
        }
        found.ifPresent(result -> {
            Button close = small("example-close", "Close");
            close.setOnAction(e -> Form.show(shown, false));
            Label honest = Form.wrapped(Format.grouped(Long.toString(result.scored())) + " conjunctions of "
                    + result.conditions() + " conditions looked at: each counts as an attempt, and the best of so many"
                    + " fits by luck alone.");
            HBox.setHgrow(honest, Priority.ALWAYS);
            honest.setMaxWidth(Double.MAX_VALUE);
            offers.getChildren().setAll(new HBox(10, honest, close));
            if (result.offers().isEmpty()) {
                offers.getChildren().add(Form.muted("None holds on a marked bar and on none marked as wrong."));
            }
            result.offers().forEach(offer -> offers.getChildren().add(row(offer, side)));
            Form.show(shown, true);
        });
    }

    private HBox row(ExampleRules.Offer offer, Side side) {
        Examples.Found found = offer.found();
        Label figures = new Label(found.hits() + " hit, " + found.misses() + " missed, " + found.falseAlarms()
                + (found.falseAlarms() == 1 ? " false alarm" : " false alarms"));
        figures.getStyleClass().add("fact");
        figures.setMinWidth(190);
        Label text = new Label(offer.text().replace("\n", " "));
        text.setWrapText(true);
        HBox.setHgrow(text, Priority.ALWAYS);
        text.setMaxWidth(Double.MAX_VALUE);
        Button use = small("example-use", "Use");
        use.setOnAction(e -> stage.edit(draft -> used(draft, offer, side)));
        HBox row = new HBox(10, figures, text, use);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** The rule of a side, with the studies that it names. */
    private static StrategyDraft used(StrategyDraft draft, ExampleRules.Offer offer, Side side) {
        List<StudyDefinition> studies = new ArrayList<>(draft.studies());
        offer.studies().stream().filter(study -> studies.stream().noneMatch(s -> s.name().equals(study.name())))
                .forEach(studies::add);
        return draft.withStudies(studies).withRule(side, offer.text());
    }

    /** Whether rules that were found are shown, which takes room. */
    ReadOnlyBooleanProperty found() {
        return shown.visibleProperty();
    }

    /** Whether rules are being looked for. */
    boolean isBusy() {
        return busy;
    }

    /** Ends what runs. */
    void leave() {
        cancelled = true;
        worker.shutdown();
    }
}
