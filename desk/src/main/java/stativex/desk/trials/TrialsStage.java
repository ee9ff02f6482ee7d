package stativex.desk.trials;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.exits.PlanBook;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Strategy;
import stativex.engine.StrategyProblems;
import stativex.engine.Trade;
import stativex.evidence.TradeTable;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.ReportFile;
import stativex.files.ReportPage;
import stativex.files.SealBook;
import stativex.files.SearchFolder;
import stativex.files.SearchSpec;
import stativex.files.SessionFile;
import stativex.files.StrategyDraft;
import stativex.files.TrialFolder;
import stativex.files.tape.FurtherTape;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.search.Method;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.TradeFacts;
import tools.jackson.databind.JsonNode;

/**
 * The Trials stage: the queue and the trials that were kept on the left, one trial's report or several side by side in the centre, its
 * figures on the right.
 */
public final class TrialsStage extends BorderPane {
    /** So many may stand side by side. */
    private static final int MOST = 6;

    /**
     * What it works on.
     *
     * @param documents contract and account that trials are made with; their strategies are those of {@code plans}
     * @param inputs tape, terms and days
     * @param tape how the tape is named
     * @param tapes finds a kept trial's tape again
     * @param seal over dates of the contract that nobody looks at; empty: none
     * @param stored whether the tape is the store's own, so that dates of it can be sealed
     */
    public record Work(SessionFile.Set documents, Inputs inputs, String tape, PlanBook plans,
            SessionFile.TapeSource tapes, Optional<SealBook.Seal> seal, boolean stored) {}

    /** What the window around the stage does for it. */
    public interface Window {
        /** Shows what led to an entry. @param time of the entry, nanoseconds */
        void show(long time, Side side);

        /** Dates were sealed: nothing of them may be shown any more, and the open strategy is tried. */
        void sealed();
    }

    private final Supplier<Work> work;
    private final Window window;
    private final FilePicker picker;
    private final TrialFolder folder = TrialFolder.own();
    private final SearchFolder searches = SearchFolder.own();
    private final SearchPane search;
    private final TrialQueue queue;
    private final ComboBox<String> strategies = Form.choice("trials-strategy", "Strategy that is tried");
    private final VBox list = new VBox();
    private final Label title = new Label();
    private final Label subtitle = new Label();
    private final Label said = new Label();
    private final TrialPicture picture = new TrialPicture();
    private final ExcursionView excursions = new ExcursionView(this::chosen);
    private final Label excursionWords = Form.wrapped("");
    private final Button toChart = new Button("On the chart");
    private final DayCalendarView days = new DayCalendarView();
    private final Label dayWords = Form.wrapped("");
    private final VBox tables = new VBox(2);
    private final BorderPane below = new BorderPane();
    private final TrialFacts facts = new TrialFacts();
    private final VBox trialBody = new VBox();
    private final ComboBox<String> by = Form.choice("trials-by", "What the table lists trades by", "days",
            "day", "week", "month", "year", "weekday", "hour", "window", "side", "grade", "exit reason", "contract");
    private final Button compare = new Button("Compare side by side");
    private final Set<Integer> ticked = new LinkedHashSet<>();
    private final Map<Integer, TrialQueue.Result> results = new HashMap<>();
    private List<TrialFolder.Kept> kept = List.of();
    private List<SearchFolder.Kept> found = List.of();
    private Optional<Integer> openSearch = Optional.empty();
    private Optional<Integer> open = Optional.empty();
    private Optional<TradeFacts> trade = Optional.empty();
    private Optional<TrialQueue.Job> last = Optional.empty();
    private boolean comparing;
    private boolean declined;
    private boolean reading;

    /**
     * @param work what is at hand now
     * @param window around the stage
     * @param picker asks where a report goes
     */
    public TrialsStage(Supplier<Work> work, Window window, FilePicker picker) {
        this.work = work;
        this.window = window;
        this.picker = picker;
        this.queue = new TrialQueue(folder, this::queueChanged);
        this.search = new SearchPane(this::use, () -> {
            found = searches.list();
            showList();
        }, this::sealWords);
        getStyleClass().add("limits-stage");
        setLeft(left());
        setCenter(centre());
        setRight(rightSide());
        read();
        facts.say(
                "A trial runs the open strategy over this tape, every print, with fees and slippage, and says what the"
                        + " result is worth before how good it looks.");
    }

    // ------------------------------------------------------------------ parts

    private Region left() {
        Label heading = new Label("Trials");
        heading.getStyleClass().add("heading");
        Label note = Form.muted("net, after costs");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(6, heading, gap, note);
        head.setAlignment(Pos.BASELINE_LEFT);
        strategies.setMaxWidth(Double.MAX_VALUE);
        Button tryIt = new Button("Try it");
        tryIt.setId("trials-try");
        tryIt.setMinWidth(Region.USE_PREF_SIZE);
        tryIt.setTooltip(new Tooltip("Ctrl+Enter, in any stage"));
        tryIt.setOnAction(e -> tryIt());
        strategies.setOnAction(e -> {
            if (!reading && strategies.getValue() != null) {
                work.get().plans().open(strategies.getValue());
            }
        });
        HBox.setHgrow(strategies, Priority.ALWAYS);
        Button newSearch = new Button("New search …");
        newSearch.setId("trials-search");
        newSearch.setMaxWidth(Double.MAX_VALUE);
        newSearch.setOnAction(e -> newSearch());
        HBox make = new HBox(6, strategies, tryIt);
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        list.setId("trials-list");
        compare.setId("trials-compare");
        compare.setMaxWidth(Double.MAX_VALUE);
        compare.setOnAction(e -> compare());
        said.setId("trials-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(Region.USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        Label how = Form
                .wrapped("Trials run beside the window, at the lowest priority, and are kept with all that repeats"
                        + " them.");
        VBox left = new VBox(8, head, make, said, scroll, compare, newSearch, how);
        left.getStyleClass().add("side-panel");
        left.setPrefWidth(236);
        left.setMinWidth(236);
        return left;
    }

    private Region centre() {
        title.getStyleClass().add("title");
        title.setId("trials-title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        subtitle.getStyleClass().add("muted");
        subtitle.setId("trials-subtitle");
        HBox head = new HBox(10, title, subtitle);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("chart-head");
        title.setText("No trial");
        picture.setId("trials-picture");
        picture.setPrefHeight(360);
        VBox.setVgrow(picture, Priority.ALWAYS);
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        below.setPrefHeight(316);
        below.setMinHeight(240);
        excursions.setId("trials-excursions");
        days.setId("trials-days");
        toChart.setId("trials-to-chart");
        toChart.getStyleClass().add("small");
        toChart.setMinWidth(Region.USE_PREF_SIZE);
        toChart.setOnAction(e -> trade.ifPresent(t -> window.show(t.trade().entryTime(), t.trade().side())));
        by.getSelectionModel().select(0);
        by.setMaxWidth(130);
        by.setOnAction(e -> showDays());
        VBox.setVgrow(trialBody, Priority.ALWAYS);
        VBox.setVgrow(search.centre(), Priority.ALWAYS);
        trialBody.getChildren().addAll(picture, rule, below);
        Form.show(search.centre(), false);
        VBox box = new VBox(head, trialBody, search.centre());
        box.getStyleClass().add("centre");
        return box;
    }

    private Region rightSide() {
        Form.show(search.right(), false);
        VBox right = new VBox(8, facts, search.right());
        right.getStyleClass().add("plan-side");
        ScrollPane scroll = new ScrollPane(right);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox side = new VBox(6, scroll);
        side.getStyleClass().add("side-panel");
        side.setPrefWidth(352);
        side.setMinWidth(352);
        return side;
    }

    // ------------------------------------------------------------------ the list

    /** The strategies and the kept trials may be others. */
    private void read() {
        reading = true;
        strategies.getItems().setAll(work.get().plans().all().stream().map(StrategyDraft::name).toList());
        strategies.setValue(work.get().plans().draft().name());
        reading = false;
        try {
            kept = folder.list();
            found = searches.list();
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
        showList();
    }

    /** Comes to the front. */
    public void focus() {
        read();
        strategies.requestFocus();
    }

    private void showList() {
        List<Node> rows = new ArrayList<>();
        queue.jobs().forEach(job -> rows.add(row(job)));
        found.forEach(one -> rows.add(row(one)));
        kept.forEach(one -> rows.add(row(one)));
        list.getChildren().setAll(rows);
        if (rows.isEmpty()) {
            Label none = Form.muted("None yet.");
            list.getChildren().setAll(none);
        }
        compare.setDisable(ticked.size() < 2);
        compare.setText(ticked.size() < 2 ? "Tick two to compare" : "Compare " + ticked.size() + " side by side");
    }

    private Node row(TrialQueue.Job job) {
        Label name = new Label(job.wanted.name());
        name.getStyleClass().add("fact");
        String words = switch (job.state) {
            case WAITING -> "waiting";
            case RUNNING -> (job.paused ? "paused at " : "") + Math.round(100 * job.done) + " %"
                    + (job.paused ? "" : job.left(System.nanoTime()).map(s -> " · " + s + " s left").orElse(""));
            case FAILED -> job.problem;
            case DONE, CANCELLED -> "";
        };
        Label state = Form.wrapped(words);
        ProgressBar bar = new ProgressBar(job.done);
        bar.setMaxWidth(Double.MAX_VALUE);
        bar.setPrefHeight(6);
        Button pause = small("trial-pause", job.paused ? "Go on" : "Pause", () -> queue.pause(job, !job.paused));
        Button cancel = small("trial-cancel", job.state == TrialQueue.State.FAILED ? "Close" : "Cancel",
                () -> queue.cancel(job));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox acts = new HBox(4, state, gap, pause, cancel);
        acts.setAlignment(Pos.CENTER_LEFT);
        Form.show(pause, job.state == TrialQueue.State.RUNNING);
        VBox box = new VBox(3, name, bar, acts);
        Form.show(bar, job.state == TrialQueue.State.RUNNING);
        box.setPadding(new Insets(6, 4, 6, 8));
        return box;
    }

    private Node row(TrialFolder.Kept one) {
        CheckBox tick = new CheckBox();
        tick.setId("trial-tick-" + one.number());
        tick.setSelected(ticked.contains(one.number()));
        tick.setAccessibleText("Compare trial " + one.number());
        tick.setOnAction(e -> tick(one.number(), tick.isSelected()));
        Label name = new Label(one.number() + "  " + one.strategy());
        name.getStyleClass().add("fact");
        Label contract = Form.muted(one.contract());
        contract.setMinWidth(Region.USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label range = Form.muted(range(one));
        Region other = new Region();
        HBox.setHgrow(other, Priority.ALWAYS);
        Label net = new Label(Format.signedMoney(one.net()));
        net.getStyleClass().add("fact");
        net.setMinWidth(Region.USE_PREF_SIZE);
        VBox words = new VBox(2, new HBox(4, name, gap, contract), new HBox(4, range, other, net));
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox row = new HBox(6, tick, words);
        row.setId("trial-" + one.number());
        row.getStyleClass().add("trial-row");
        if (!comparing && open.equals(Optional.of(one.number()))) {
            row.getStyleClass().add("chosen");
        }
        row.setFocusTraversable(true);
        row.setAccessibleText("Trial " + one.number() + ", " + one.strategy() + ", " + range.getText() + ", net "
                + net.getText());
        row.setOnMouseClicked(e -> open(one));
        row.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                open(one);
                e.consume();
            } else if (e.getCode() == KeyCode.SPACE) {
                tick(one.number(), !ticked.contains(one.number()));
                e.consume();
            }
        });
        return row;
    }

    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);

    /** {@code 2 Mar – 14 Aug}. */
    private static String range(TrialFolder.Kept one) {
        return one.from().map(DATE::format).orElse("no day")
                + one.to().map(day -> " – " + DATE.format(day)).orElse("");
    }

    private void tick(int number, boolean on) {
        if (!on) {
            ticked.remove(number);
        } else if (ticked.size() < MOST) {
            ticked.add(number);
        } else {
            said.setText("At most " + MOST + " trials stand side by side.");
        }
        showList();
    }

    private static Button small(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(e -> act.run());
        return button;
    }

    // ------------------------------------------------------------------ trying

    /** Puts a trial of the open strategy into the queue. */
    public void tryIt() {
        said.setText("");
        try {
            StrategyDraft draft = work.get().plans().draft();
            List<StrategyProblems.Problem> problems = draft.problems(work.get().inputs().contract(), List.of());
            if (!problems.isEmpty()) {
                said.setText(draft.name() + " is not complete: " + problems.getFirst().text());
                return;
            }
            if (offersSeal()) {
                return;
            }
            Documents.Read<Strategy> strategy = draft.strategy();
            List<FurtherTape> others = work.get().documents().others();
            SessionFile.Set documents = new SessionFile.Set(work.get().documents().contract(),
                    work.get().documents().account(),
                    List.of(strategy), others);
            Inputs of = work.get().inputs();
            Inputs inputs = documents.inputs(of.tape(), of.terms()).over(of.days()).rolling(of.rolls());
            last = Optional.of(queue.add(new TrialQueue.Wanted(documents, inputs, work.get().tape(), sealWords())));
        } catch (BadInput | IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    /** At a contract's first trial a seal is offered, once. Returns whether it was asked just now. */
    private boolean offersSeal() {
        if (work.get().seal().isPresent() || !work.get().stored() || declined) {
            return false;
        }
        Inputs inputs = work.get().inputs();
        Optional<SealBook.Seal> offered = SealBook.offered(inputs.contract().symbol(),
                Days.dates(inputs.days().of(inputs.seen(), inputs.contract().calendar()),
                        inputs.contract().calendar()));
        if (offered.isEmpty()) {
            return false;
        }
        SealBook.Seal seal = offered.get();
        searching(false);
        Label heading = new Label("Seal the last third?");
        heading.getStyleClass().add("heading");
        Button yes = new Button("Seal " + DATE.format(seal.from()) + " – " + DATE.format(seal.to()));
        yes.setId("seal-yes");
        yes.setOnAction(e -> {
            try {
                SealBook.own().seal(seal);
                window.sealed();
            } catch (BadInput problem) {
                said.setText(problem.getMessage());
            }
        });
        Button no = new Button("Not for this contract now");
        no.setId("seal-no");
        no.setOnAction(e -> {
            declined = true;
            tryIt();
        });
        facts.getChildren().setAll(heading, Form.wrapped("What a rule was fitted on proves nothing. Sealed dates are"
                + " left out everywhere, trials, searches, marks, odds and replays, until you open them once for one"
                + " version, which is counted for ever. A seal is never changed."), yes, no);
        return true;
    }

    private String sealWords() {
        return work.get().seal().map(seal -> "sealed " + DATE.format(seal.from()) + " – " + DATE.format(seal.to())
                + ", opened " + times(SealBook.own().openings(seal))).orElse("not sealed");
    }

    private static String times(int times) {
        return times == 1 ? "once" : times == 0 ? "never" : times + " times";
    }

    /** Opens the sealed range for the version of a trial: counted, and run as a trial of its own. */
    private void openSeal(TrialQueue.Result of) {
        SealBook.Seal seal = work.get().seal().orElseThrow();
        Documents.Read<Strategy> strategy = of.documents().strategies().getFirst();
        try {
            SealBook.own().open(seal, strategy.value().name(), strategy.value().version());
            Inputs fit = of.run().inputs();
            Inputs unseen = of.documents().inputs(fit.tape(), fit.terms()).over(seal.unseen()).rolling(fit.rolls());
            last = Optional.of(
                    queue.add(new TrialQueue.Wanted(of.documents(), unseen, work.get().tape(),
                            "opened: " + sealWords())));
        } catch (BadInput | IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    private Node saver(TrialFolder.Kept one, TrialQueue.Result result) {
        Button save = new Button("Save report …");
        save.setId("trial-save");
        save.setOnAction(e -> picker.save("Save the report", "trial-" + one.number() + ".html", "html")
                .ifPresent(file -> {
                    try {
                        ReportPage.write(file, result.run(), result.report(), result.curve(), sealWords());
                        said.setText("");
                        subtitle.setText("saved: " + file.getFileName());
                    } catch (BadInput problem) {
                        said.setText(problem.getMessage());
                    }
                }));
        return save;
    }

    /** What is known of the sealed range, beside a trial of the fit range. */
    private Node unseen(TrialFolder.Kept one, TrialQueue.Result result) {
        VBox box = new VBox(4);
        if (work.get().seal().isEmpty()) {
            return box;
        }
        SealBook.Seal seal = work.get().seal().get();
        Label heading = new Label("Unseen");
        heading.getStyleClass().add("heading");
        box.getChildren().add(heading);
        boolean itself = one.from().filter(seal::holds).isPresent();
        Optional<TrialFolder.Kept> opened = kept.stream()
                .filter(other -> other.version().equals(one.version()) && other.contract().equals(one.contract())
                        && other.from().filter(seal::holds).isPresent())
                .findFirst();
        if (itself) {
            box.getChildren().add(Form.wrapped("This is the unseen range, opened " + times(SealBook.own()
                    .openings(seal)) + " by now."));
        } else if (opened.isPresent()) {
            TrialFolder.Kept other = opened.get();
            Label words = Form.wrapped("Trial " + other.number() + " of the same version: " + other.trades()
                    + " trades, net " + Format.signedMoney(other.net()) + (other.trades() == 0
                            ? ""
                            : ", average " + Format.signedMoney(other.net() / other.trades()))
                    + ". Opened " + times(SealBook.own().openings(seal)) + ".");
            words.setId("trial-unseen");
            box.getChildren().add(words);
        } else {
            HoldButton open = new HoldButton("Hold to open " + DATE.format(seal.from()) + " – "
                    + DATE.format(seal.to()) + " for this version",
                    "It is opened for this version alone, and counted for ever.", () -> openSeal(result));
            open.setId("trial-open-seal");
            box.getChildren().addAll(Form.wrapped("Sealed: never looked at with this version; opened "
                    + times(SealBook.own().openings(seal)) + " by others."), open);
        }
        return box;
    }

    /** Tries the first so many strategies one after the other. */
    public void tryAll(int trials) {
        work.get().plans().all().stream().map(StrategyDraft::name).limit(trials).toList().forEach(name -> {
            work.get().plans().open(name);
            tryIt();
        });
        read();
    }

    /** Puts the newest trials side by side. */
    public void compareAll() {
        kept.stream().limit(MOST).forEach(one -> ticked.add(one.number()));
        compare();
    }

    private void queueChanged() {
        Optional<TrialQueue.Job> done = last.filter(job -> job.state == TrialQueue.State.DONE);
        if (done.isPresent()) {
            last = Optional.empty();
            TrialFolder.Kept made = done.get().kept.orElseThrow();
            results.put(made.number(), done.get().result.orElseThrow());
            kept = folder.list();
            open = Optional.of(made.number());
            show(made, results.get(made.number()), "");
        } else if (queue.jobs().isEmpty()) {
            kept = folder.list();
        }
        showList();
    }

    private void open(TrialFolder.Kept one) {
        searching(false);
        open = Optional.of(one.number());
        comparing = false;
        showList();
        Optional<SealBook.Seal> seal = work.get().seal().filter(s -> s.contract().equals(one.contract()));
        if (seal.isPresent() && one.to().filter(day -> !day.isBefore(seal.get().from())).isPresent()
                && !SealBook.own().opened(seal.get(), one.version())) {
            title.setText("Trial " + one.number());
            subtitle.setText("");
            picture.say("It was made before dates were sealed, and looks at them: open them for this version first.");
            facts.say("");
            below.setCenter(null);
            return;
        }
        if (results.containsKey(one.number())) {
            show(one, results.get(one.number()), "");
            return;
        }
        subtitle.setText("running again …");
        title.setText("Trial " + one.number());
        queue.open(one, work.get().tapes(), opened -> {
            results.put(one.number(), opened.result());
            if (open.equals(Optional.of(one.number())) && !comparing) {
                show(one, opened.result(), opened.differences().isEmpty()
                        ? " · run again: the same, byte for byte"
                        : " · run again: " + opened.differences().getFirst());
            }
        }, problem -> {
            subtitle.setText("");
            picture.say(problem);
            facts.say(problem);
        });
    }

    // ------------------------------------------------------------------ one trial

    private void show(TrialFolder.Kept one, TrialQueue.Result result, String again) {
        searching(false);
        comparing = false;
        trade = Optional.empty();
        title.setText("Trial " + one.number());
        subtitle.setText(one.strategy() + " · " + result.documents().strategies().getFirst().value().plan().name()
                + " · " + one.contract() + " · " + range(one) + again);
        picture.show(List.of(new TrialPicture.Line(one.strategy(), result.curve())));
        excursions.show(result.report().trades());
        excursionWords.setText(excursions.words());
        Form.show(toChart, false);
        facts.show(result, sealWords());
        facts.getChildren().addAll(unseen(one, result), saver(one, result));
        below.setLeft(null);
        below.setCenter(split());
        showDays();
        showList();
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
        ScrollPane scroll = new ScrollPane(tables);
        scroll.setFitToWidth(true);
        scroll.setId("trials-table");
        scroll.getStyleClass().add("cards");
        tables.setPadding(new Insets(2, 12, 6, 12));
        VBox.setVgrow(days, Priority.ALWAYS);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        Form.show(scroll, by.getSelectionModel().getSelectedIndex() > 0);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        VBox right = new VBox(part("By", by), days, scroll, dayWords);
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
        Optional<TrialQueue.Result> shown = open.map(results::get);
        if (shown.isEmpty() || comparing) {
            return;
        }
        int index = by.getSelectionModel().getSelectedIndex();
        boolean calendar = index <= 0;
        Form.show(days, calendar);
        Node scroll = tables.getParent() == null ? tables : below.getCenter().lookup("#trials-table");
        if (scroll != null) {
            Form.show(scroll, !calendar);
        }
        var report = shown.get().report();
        if (calendar) {
            days.show(DayCalendarView.of(report.summary().days(),
                    report.table(TradeTable.By.DAY, ReportFile::exit)));
            dayWords.setText(days.words());
            return;
        }
        TradeTable table = report.table(TradeTable.By.values()[index - 1], ReportFile::exit);
        GridPane grid = new GridPane(12, 3);
        header(grid, "", "trades", "won", "net", "average");
        int row = 1;
        for (TradeTable.Row of : table.rows()) {
            cells(grid, row++, key(table.by(), of.key()), Integer.toString(of.trades()),
                    Math.round(100 * of.winRate().orElse(0)) + " %", Format.signedMoney(of.net()),
                    Format.signedMoney(of.averageTrade().orElse(0)));
        }
        tables.getChildren().setAll(grid);
        dayWords.setText(table.by() == TradeTable.By.HOUR
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

    private static void header(GridPane grid, String... words) {
        for (int i = 0; i < words.length; i++) {
            Label label = Form.muted(words[i]);
            GridPane.setHalignment(label, i == 0 ? javafx.geometry.HPos.LEFT : javafx.geometry.HPos.RIGHT);
            grid.add(label, i, 0);
        }
    }

    private static void cells(GridPane grid, int row, String... words) {
        for (int i = 0; i < words.length; i++) {
            Label label = new Label(words[i]);
            label.setMinWidth(Region.USE_PREF_SIZE);
            GridPane.setHalignment(label, i == 0 ? javafx.geometry.HPos.LEFT : javafx.geometry.HPos.RIGHT);
            grid.add(label, i, row);
        }
    }

    private void chosen(int at) {
        open.map(results::get).ifPresent(result -> {
            TradeFacts facts = result.report().trades().get(at);
            trade = Optional.of(facts);
            Trade t = facts.trade();
            excursionWords.setText(Format.day(facts.tradingDay()) + " "
                    + Format.minute(t.entryTime(), facts.contract().calendar().zone()) + " " + t.side().word() + " "
                    + t.quantity() + ", " + Format.signedMoney(t.net()) + ", out by " + ReportFile.exit(t) + ": "
                    + Format.ticks(-t.mae()) + " against, " + Format.ticks(t.mfe()) + " for it");
            Form.show(toChart, true);
        });
    }

    // ------------------------------------------------------------------ searches

    private void searching(boolean on) {
        if (!on) {
            openSearch = Optional.empty();
        } else {
            comparing = false;
            open = Optional.empty();
        }
        Form.show(trialBody, !on);
        Form.show(search.centre(), on);
        Form.show(facts, !on);
        Form.show(search.right(), on);
    }

    /** The fields of a new search over the open strategy. */
    public void newSearch() {
        said.setText("");
        try {
            StrategyDraft draft = work.get().plans().draft();
            List<StrategyProblems.Problem> problems = draft.problems(work.get().inputs().contract(), List.of());
            if (!problems.isEmpty()) {
                said.setText(draft.name() + " is not complete: " + problems.getFirst().text());
                return;
            }
            Documents.Read<Strategy> strategy = draft.strategy();
            searching(true);
            title.setText("New search");
            subtitle.setText(draft.name());
            showList();
            search.fields(new SearchPane.Maker() {
                @Override
                public JsonNode strategy() {
                    return strategy.document();
                }

                @Override
                public SearchSpec spec(List<SearchSpec.Setting> settings, Method method, SearchSpec.Ranked ranked) {
                    Inputs inputs = work.get().inputs();
                    return new SearchSpec(draft.name(), work.get().documents().contract(),
                            work.get().documents().account(), strategy.document(),
                            new SearchSpec.Trial(work.get().tape(), inputs.terms(), inputs.days()), settings, method,
                            ranked);
                }

                @Override
                public SearchFolder.Kept keep(SearchSpec spec) {
                    SearchFolder.Kept made = searches.add(spec);
                    openSearch = Optional.of(made.number());
                    title.setText("Search " + made.number());
                    found = searches.list();
                    return made;
                }

                @Override
                public Tape tape() {
                    return work.get().inputs().tape();
                }
            });
        } catch (BadInput | IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    /** Starts the search whose fields are shown. @param least trades of a variant that counts */
    public void startSearch(int least) {
        ((TextField) search.right().lookup("#search-least")).setText(Integer.toString(least));
        ((Button) search.right().lookup("#search-start")).fire();
    }

    private void open(SearchFolder.Kept one) {
        searching(true);
        openSearch = Optional.of(one.number());
        title.setText("Search " + one.number());
        subtitle.setText(one.spec().name());
        showList();
        if (work.get().seal().filter(seal -> one.spec().contract().value().symbol().equals(seal.contract())
                && one.spec().trial().days().last().filter(day -> day.isBefore(seal.from())).isEmpty()).isPresent()) {
            said.setText("Search " + one.number() + " was made before dates were sealed, and looks at them.");
            return;
        }
        try {
            search.begin(one, work.get().tapes().tape(one.spec().trial().tape(), one.spec().contract().value()));
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
    }

    /** A variant becomes the open strategy, as a change that can be taken back. */
    private void use(JsonNode variant) {
        work.get().plans().open(StrategyDraft.of(variant).name());
        work.get().plans().edit(draft -> StrategyDraft.of(variant));
        subtitle.setText("used: " + StrategyDraft.of(variant).name() + " has these settings now; Ctrl+Z in Rules takes"
                + " them back");
    }

    private Node row(SearchFolder.Kept one) {
        Label name = new Label("Search " + one.number() + "  " + one.spec().name());
        name.getStyleClass().add("fact");
        boolean running = search.isBusy() && openSearch.equals(Optional.of(one.number()));
        Label words = Form.muted(running
                ? "running"
                : Format.grouped(Long.toString(one.spec().space().count())) + " variants"
                        + (one.whole() ? "" : ", not through"));
        VBox row = new VBox(2, name, words);
        row.setId("search-" + one.number());
        row.getStyleClass().add("trial-row");
        if (openSearch.equals(Optional.of(one.number()))) {
            row.getStyleClass().add("chosen");
        }
        row.setFocusTraversable(true);
        row.setAccessibleText(name.getText() + ", " + words.getText());
        row.setOnMouseClicked(e -> open(one));
        row.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                open(one);
                e.consume();
            }
        });
        return row;
    }

    // ------------------------------------------------------------------ side by side

    private void compare() {
        List<TrialFolder.Kept> chosen = kept.stream().filter(one -> ticked.contains(one.number()))
                .sorted(java.util.Comparator.comparingInt(TrialFolder.Kept::number)).toList();
        searching(false);
        comparing = true;
        title.setText("Side by side");
        subtitle.setText("running again …");
        showList();
        gather(chosen, 0);
    }

    /** Works those that are not at hand, one after the other, then shows all. */
    private void gather(List<TrialFolder.Kept> chosen, int from) {
        for (int i = from; i < chosen.size(); i++) {
            TrialFolder.Kept one = chosen.get(i);
            if (!results.containsKey(one.number())) {
                int next = i + 1;
                queue.open(one, work.get().tapes(), opened -> {
                    results.put(one.number(), opened.result());
                    gather(chosen, next);
                }, problem -> {
                    said.setText("Trial " + one.number() + ": " + problem);
                    subtitle.setText("");
                });
                return;
            }
        }
        if (comparing) {
            show(chosen);
        }
    }

    private void show(List<TrialFolder.Kept> chosen) {
        List<TrialQueue.Result> all = chosen.stream().map(one -> results.get(one.number())).toList();
        subtitle.setText(chosen.size() + " trials on the same axes");
        List<TrialPicture.Line> lines = new ArrayList<>();
        for (int i = 0; i < chosen.size(); i++) {
            lines.add(new TrialPicture.Line(Integer.toString(chosen.get(i).number()), all.get(i).curve()));
        }
        picture.show(lines);
        GridPane grid = new GridPane(18, 4);
        grid.setPadding(new Insets(10, 14, 10, 14));
        grid.setId("trials-grid");
        List<String> head = new ArrayList<>(List.of(""));
        chosen.forEach(one -> head.add(one.number() + " " + one.strategy()));
        header(grid, head.toArray(String[]::new));
        int row = 1;
        for (TrialFacts.Row of : TrialFacts.compared(all)) {
            List<String> words = new ArrayList<>(List.of(of.word()));
            words.addAll(of.figures());
            cells(grid, row++, words.toArray(String[]::new));
        }
        ScrollPane scroll = new ScrollPane(grid);
        scroll.getStyleClass().add("cards");
        below.setCenter(scroll);
        facts.say("");
        List<Node> words = new ArrayList<>();
        Label heading = new Label("What differs");
        heading.getStyleClass().add("heading");
        words.add(heading);
        for (int i = 1; i < chosen.size(); i++) {
            Label said = new Label(Differences.words(chosen.getFirst().number(), all.getFirst(),
                    chosen.get(i).number(), all.get(i)));
            said.setId("trials-difference-" + i);
            said.setWrapText(true);
            said.setMinHeight(Region.USE_PREF_SIZE);
            words.add(said);
        }
        facts.getChildren().setAll(words);
        showList();
    }

    /** Whether something is being worked. */
    public boolean isBusy() {
        return queue.jobs().stream().anyMatch(job -> job.state == TrialQueue.State.RUNNING
                || job.state == TrialQueue.State.WAITING) || subtitle.getText().equals("running again …")
                || search.isBusy();
    }

    /** The picture of trades, for whoever clicks a mark. */
    public javafx.geometry.Point2D mark(int trade) {
        return excursions.mark(trade);
    }

    /** Ends what runs. */
    public void leave() {
        queue.close();
        search.close();
    }
}
