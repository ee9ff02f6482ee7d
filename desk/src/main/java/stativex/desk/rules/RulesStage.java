package stativex.desk.rules;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import stativex.desk.chart.ChartLink;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.ChartOptions;
import stativex.desk.chart.ChartView;
import stativex.desk.chart.Drawings;
import stativex.desk.chart.LanesView;
import stativex.desk.chart.Readout;
import stativex.desk.chart.Viewport;
import stativex.desk.exits.PlanBook;
import stativex.engine.SideRules;
import stativex.engine.Snapshot;
import stativex.engine.StrategyProblems;
import stativex.files.BadInput;
import stativex.files.DrawingFile;
import stativex.exit.ExitPlan;
import stativex.files.StrategyDraft;
import stativex.files.StrategySetup;
import stativex.files.StrategyFolder;
import stativex.files.tape.FurtherTapes;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Drawing;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.rule.Explanation;
import stativex.rule.Truth;
import stativex.study.StudyDefinition;
import stativex.study.Unit;

/**
 * The Rules stage: strategies and studies on the left, the chart with would-be entries, the why lanes and the reasons of
 * one bar in the middle, the rule as rows and as text and the entry on the right. Every change is kept at once and shown
 * on the chart as soon as it reads.
 */
public final class RulesStage extends BorderPane {
    private static final KeyCombination UNDO = new KeyCodeCombination(KeyCode.Z, KeyCombination.SHORTCUT_DOWN);

    private final Contract contract;
    private final DraftBook book;
    private final Evaluation.Maker maker;
    private final RuleJob job = new RuleJob();
    private final Shelf shelf;
    private final StudyShelf studies;
    private final FurtherTapes further;
    private final SeriesShelf series;
    private List<Drawing> drawn = List.of();
    private final Viewport viewport = new Viewport();
    private final ChartView chart = new ChartView(viewport);
    private final OtherCharts others;
    private final LanesView lanes = new LanesView(viewport);
    private final WhyView why;
    private final ExamplesPane examples;
    private final RulePanel rule;
    private final BarChoice bars = new BarChoice("bars", type -> edit(d -> d.withBars(type)));
    private final Label title = new Label();
    private final Label state = new Label();
    private final Label figures = new Label();
    private final Label values = new Label();
    private final Label lanesTitle = new Label();
    private final Label lanesCount = new Label();
    private Optional<Evaluation> evaluation = Optional.empty();
    /** Says that a long tape is being worked; a further change gives up and begins anew. */
    private final PauseTransition working = new PauseTransition(Duration.millis(300));
    private Optional<Integer> chosen = Optional.empty();
    /** A moment that somebody wants to see as soon as there is a chart. */
    private Optional<Long> wanted = Optional.empty();

    /**
     * @param tape what rules are tried on
     * @param further tapes of contracts that series may name
     * @param atHand strategies that are there anyway; the person's own of the same name stand in their place
     * @param link of the charts that follow each other
     * @param toRun takes a complete strategy to the Run stage
     * @param running whether that would end something that is under way there
     */
    public RulesStage(Contract contract, Tape tape, FurtherTapes further, List<StrategyDraft> atHand,
            StrategyFolder folder, ChartLink link,
            Consumer<StrategyDraft> toRun, BooleanSupplier running) {
        this.contract = contract;
        this.rule = new RulePanel(contract, this::edit, () -> {
            showDraft();
            showEvaluation();
        });
        this.further = further;
        this.maker = new Evaluation.Maker(contract, tape, further);
        this.why = new WhyView(contract.calendar().zone());
        this.examples = new ExamplesPane(contract, new ForExamples());
        this.series = new SeriesShelf(contract, further, this::edit);
        this.others = new OtherCharts(link);
        this.shelf = new Shelf(this::problems, contract, this::open, this::add, this::rename, this::remove,
                () -> evaluation.filter(Evaluation::complete).ifPresent(e -> toRun.accept(draft())), running);
        this.studies = new StudyShelf(contract, this::studiesChanged, (from, to) -> edit(d -> d.renamed(from, to)));
        this.book = new DraftBook(contract.symbol(), atHand, folder, shelf::say);
        getStyleClass().add("rules-stage");
        VBox left = new VBox(8, shelf, series, studies);
        VBox.setVgrow(studies, Priority.ALWAYS);
        left.getStyleClass().add("side-panel");
        left.setPrefWidth(236);
        left.setMinWidth(236);
        setLeft(left);
        setCenter(centre());
        setRight(rule);
        chart.link(link);
        DrawingFile file = DrawingFile.own(contract);
        try {
            drawn = file.read();
            chart.drawings(new Drawings(drawn, all -> {
                file.write(all);
                drawn = List.copyOf(all);
                edit(UnaryOperator.identity());
            }));
        } catch (BadInput e) {
            shelf.say(e.getMessage());
        }
        chart.onMove(this::showMoved);
        chart.addEventHandler(MouseEvent.MOUSE_CLICKED, e -> {
            if (e.isStillSincePress() && e.getClickCount() == 1) {
                chart.cursorBar().ifPresent(this::choose);
            }
        });
        chart.addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER) {
                chart.cursorBar().ifPresent(this::choose);
            }
        });
        lanes.onChoose(this::choose);
        working.setOnFinished(e -> {
            if (job.isBusy() && draft().signals().isPresent()) {
                state.setText("trying it on the tape …");
                state.getStyleClass().setAll("label", "muted");
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            boolean typing = getScene().getFocusOwner() instanceof TextInputControl || rule.isTyping();
            // what was drawn last is the chart's to take back
            boolean drawing = chart.isFocused() && chart.drawings().filter(Drawings::canUndo).isPresent();
            if (UNDO.match(e) && !typing && !drawing) {
                undo();
                e.consume();
            }
        });
        listed();
    }

    /** The stage is not shown any more. */
    public void leave() {
        chart.unlink();
        others.show(Map.of());
        examples.leave();
    }

    /** What the examples know of the stage. */
    private final class ForExamples implements ExamplesPane.Stage {
        @Override
        public Optional<Evaluation> evaluation() {
            return evaluation;
        }

        @Override
        public Side side() {
            return RulesStage.this.side();
        }

        @Override
        public Optional<Integer> bar() {
            return evaluation.flatMap(RulesStage.this::lookedAt);
        }

        @Override
        public void edit(UnaryOperator<StrategyDraft> change) {
            RulesStage.this.edit(change);
        }

        @Override
        public void marked() {
            evaluation.ifPresent(RulesStage.this::showChart);
        }
    }

    private Region centre() {
        title.getStyleClass().add("title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        title.setId("rules-title");
        state.setId("rules-state");
        figures.getStyleClass().add("figures");
        values.getStyleClass().add("studies");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox headline = new HBox(12, title, state, gap, bars);
        headline.setAlignment(Pos.CENTER_LEFT);
        VBox head = new VBox(2, headline, figures, values);
        head.getStyleClass().addAll("chart-head", "tall");
        chart.setId("rules-chart");
        chart.options(ChartOptions.PLAIN);
        chart.setPrefHeight(300);
        VBox.setVgrow(chart, Priority.ALWAYS);
        lanesTitle.getStyleClass().add("heading");
        lanesTitle.setMinWidth(Region.USE_PREF_SIZE);
        lanesCount.getStyleClass().add("muted");
        lanesCount.setId("lanes-count");
        Region between = new Region();
        HBox.setHgrow(between, Priority.ALWAYS);
        HBox lanesHead = new HBox(10, lanesTitle, between, lanesCount);
        lanesHead.getStyleClass().add("lanes-head");
        lanes.setId("rules-lanes");
        Region above = rule();
        Region below = rule();
        why.setPrefHeight(188);
        why.setMinHeight(120);
        // rules that were found stand in its place
        why.visibleProperty().bind(examples.found().not());
        why.managedProperty().bind(why.visibleProperty());
        VBox box = new VBox(head, chart, others, above, lanesHead, lanes, examples, below, why);
        box.getStyleClass().add("centre");
        return box;
    }

    private static Region rule() {
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        return rule;
    }

    private Side side() {
        return rule.side();
    }

    /** The strategy that is worked on. */
    public StrategyDraft draft() {
        return book.draft();
    }

    private void open(String name) {
        book.open(name);
        opened();
    }

    /** Another strategy is open. */
    private void opened() {
        chosen = Optional.empty();
        evaluation = Optional.empty();
        rule.opened(draft());
        studies.close();
        rule.plans(otherPlans());
        viewport.follow();
        changed();
    }

    /** Exit plans of the other strategies, one of each name. */
    private List<ExitPlan> otherPlans() {
        Map<String, ExitPlan> plans = new LinkedHashMap<>();
        book.all().stream().filter(d -> !d.name().equals(draft().name())).flatMap(d -> StrategySetup.plan(d).stream())
                .forEach(plan -> plans.putIfAbsent(plan.name(), plan));
        return List.copyOf(plans.values());
    }

    private void add(StrategyDraft made) {
        book.add(made);
        listed();
    }

    private void rename(String to) {
        if (book.rename(to)) {
            shelf.show(book.all(), to);
            changed();
        }
    }

    private void remove() {
        if (book.remove()) {
            listed();
        }
    }

    /** Other strategies are there, one of them open. */
    private void listed() {
        shelf.show(book.all(), draft().name());
        opened();
    }

    /** Takes a change: keeps it, shows it, and tries it on the tape. */
    private void edit(UnaryOperator<StrategyDraft> change) {
        // what rules name is taken into the strategy as it is drawn now
        if (book.edit(d -> change.apply(d).withDrawings(drawn, contract))) {
            changed();
        }
    }

    private void undo() {
        if (book.undo()) {
            changed();
        }
    }

    private void changed() {
        showDraft();
        job.evaluate(maker, draft(), made -> {
            evaluation = Optional.of(made);
            chosen = chosen.filter(bar -> bar < made.program().rows());
            showEvaluation();
        }, problem -> {
            state.setText(problem);
            state.getStyleClass().setAll("label", "problem");
        });
        working.playFromStart();
        // a document that does not say what the strategy looks at has no evaluation, only problems
        if (draft().signals().isEmpty()) {
            showProblems(problems(draft()), List.of());
        }
    }

    private List<StrategyProblems.Problem> problems(StrategyDraft of) {
        return of.problems(contract, of.signals().map(plan -> further.of(plan, contract).values().stream()
                .map(ContractTape::contract).toList()).orElse(List.of()));
    }

    /** What is written, at once. */
    private void showDraft() {
        rule.show(draft(), names());
        draft().bars().ifPresent(settings -> bars.show(settings.type()));
        title.setText(contract.symbol() + "  " + draft().name());
        studies.show(draft(), names());
        series.show(draft());
    }

    private List<String> names() {
        return evaluation.filter(e -> e.draft().studies().equals(draft().studies()))
                .map(e -> List.copyOf(e.program().names())).orElseGet(this::lastNames);
    }

    private List<String> lastNames() {
        return evaluation.map(e -> List.copyOf(e.program().names())).orElse(List.of());
    }

    /** What the tape says to it. */
    private void showEvaluation() {
        evaluation.ifPresent(made -> {
            boolean panels = made.chart().studies().stream().anyMatch(study -> study.unit() != Unit.LEVEL);
            if (panels != chart.options().studyPanels()) {
                chart.options(ChartOptions.PLAIN.withStudyPanels(panels));
            }
            showChart(made);
            lookAtWanted();
            others.show(made.others());
            rule.know(made, names());
            studies.show(draft(), names());
            showProblems(made.problems(), made.doubts());
            List<Snapshot.Lane> shown = made.lanes().getOrDefault(side(), List.of());
            double height = LanesView.height(shown.size());
            lanes.setMinHeight(height);
            lanes.setPrefHeight(height);
            showMoved();
        });
    }

    /** The chart with the bars that are marked as examples. */
    private void showChart(Evaluation made) {
        List<Snapshot.MarkView> drawn = new ArrayList<>(made.chart().drawn());
        drawn.addAll(examples.marks(made, side()));
        chart.show(made.chart().drawing(drawn));
    }

    private void showProblems(List<StrategyProblems.Problem> problems, List<StrategyProblems.Problem> doubts) {
        shelf.problems(draft(), problems);
        List<StrategyProblems.Problem> said = problems.isEmpty() ? doubts : problems;
        boolean silent = said.isEmpty();
        state.setText((problems.isEmpty() ? "complete" : "") + (problems.isEmpty() && !silent ? ", but " : "")
                + (silent ? "" : Shelf.words(said.getFirst()))
                + (said.size() > 1 ? " (and " + (said.size() - 1) + " more)" : ""));
        state.getStyleClass().setAll("label", silent ? "muted" : "warn-text");
        state.setTooltip(silent
                ? null
                : new Tooltip(String.join("\n", said.stream().map(Shelf::words).toList())));
    }

    /** View, crosshair or chosen bar moved: figures and lanes go along. */
    private void showMoved() {
        evaluation.ifPresent(made -> {
            ChartModel model = made.chart();
            figures.setText(Readout.figures(chart, model));
            values.setText(Readout.studies(chart, model));
            others.follow(model, viewport, chart.cursorBar());
            List<Snapshot.Lane> shown = made.lanes().getOrDefault(side(), List.of());
            lanesTitle.setText("Why lanes — " + side().word());
            lanes.unread(!draft().rule(side()).isBlank());
            lanes.show(shown, side(), chart.cursorBar(), chosen);
            int from = viewport.firstSeen();
            int to = viewport.lastSeen(model.bars().count());
            long entries = model.marks().stream().filter(m -> m.side() == side() && m.bar() >= from && m.bar() <= to)
                    .count();
            lanesCount.setText(shown.isEmpty()
                    ? ""
                    : neverJudged(made, shown)
                            .orElseGet(() -> "would enter " + entries + (entries == 1 ? " time" : " times")
                                    + " in view · " + (waitsForFlickers(made, shown)
                                            ? "looking at every print …"
                                            : "click a bar: should one be here?")));
            examples.show();
            rule.facts(made, chart.cursorBar().or(() -> chosen), from, to);
            studies.values(made, chart.cursorBar().or(() -> chosen));
            made.sides().entrySet().stream().filter(e -> e.getKey() == side()).map(Map.Entry::getValue).findFirst()
                    .ifPresentOrElse(found -> showWhy(made, found), why::nothing);
        });
    }

    private static boolean waitsForFlickers(Evaluation made, List<Snapshot.Lane> shown) {
        return Evaluation.Maker.flickers(made) && shown.getLast().raised().isEmpty();
    }

    /** A rule that is absent on every bar says why: a study longer than the tape, a division by zero. */
    private Optional<String> neverJudged(Evaluation made, List<Snapshot.Lane> shown) {
        int rows = made.program().rows();
        boolean judged = IntStream.range(0, rows).anyMatch(bar -> shown.getLast().truth().get(bar) != Truth.ABSENT);
        if (judged || rows == 0) {
            return Optional.empty();
        }
        List<Explanation> failed = made.sides().get(side()).whole().explain(rows - 1).failed();
        return Optional.of("absent on every bar of this tape: " + failed.stream()
                .filter(part -> part.truth() == Truth.ABSENT).findFirst().map(part -> part.note().isEmpty()
                        ? part.text()
                        : part.note())
                .orElse("no part of it is known"));
    }

    private void showWhy(Evaluation made, SideRules rules) {
        lookedAt(made)
                .ifPresentOrElse(
                        bar -> why.show(rules, bar, at -> made.program().bars().moment(at), made::words), why::nothing);
    }

    /** The newest bar, until another is picked. */
    private Optional<Integer> lookedAt(Evaluation made) {
        int rows = made.program().rows();
        return chosen.or(() -> Optional.of(rows - 1)).filter(bar -> bar >= 0 && bar < rows);
    }

    /** Shows the bar before a moment of the tape in the middle of the chart, with a side's reasons, once the chart is there. */
    public void lookAt(long time, Side side) {
        rule.turn(side);
        wanted = Optional.of(time);
        lookAtWanted();
    }

    /** When the chart's last bar ends, nanoseconds. */
    public long lastShown() {
        return chart.model().map(m -> m.bars().end(m.bars().count() - 1)).orElse(Long.MIN_VALUE);
    }

    private void lookAtWanted() {
        if (wanted.isPresent() && chart.model().isPresent()) {
            long time = wanted.get();
            wanted = Optional.empty();
            // what is entered in a bar was signalled by the one before
            int bar = Math.max(0, chart.model().get().bars().barAt(time) - 1);
            viewport.endWith(bar + viewport.plotWidth() / viewport.barWidth() / 2);
            chart.pointAt(Optional.of(chart.model().get().bars().start(bar)));
            choose(bar);
        }
    }

    private void choose(int bar) {
        chosen = Optional.of(bar);
        showMoved();
    }

    private void studiesChanged(List<StudyDefinition> next) {
        edit(d -> d.withStudies(next));
    }

    /** Its strategies, for whoever works on their exit plans. */
    public PlanBook plans() {
        return new PlanBook() {
            @Override
            public Collection<StrategyDraft> all() {
                return book.all();
            }

            @Override
            public StrategyDraft draft() {
                return book.draft();
            }

            @Override
            public void open(String name) {
                shelf.show(book.all(), name);
                RulesStage.this.open(name);
            }

            @Override
            public void edit(UnaryOperator<StrategyDraft> change) {
                RulesStage.this.edit(change);
            }

            @Override
            public void undo() {
                RulesStage.this.undo();
            }
        };
    }

    /** Whether a change is not on the chart yet. */
    public boolean isBusy() {
        return job.isBusy() || examples.isBusy();
    }

    /** Chooses, of the short side, the newest bar at which all conditions but one held. */
    public void nearlyOne() {
        evaluation.ifPresent(made -> {
            rule.side(Side.SHORT);
            showDraft();
            showEvaluation();
            List<Snapshot.Lane> shown = made.lanes().getOrDefault(side(), List.of());
            for (int bar = made.program().rows() - 1; bar >= 0; bar--) {
                int at = bar;
                if (shown.stream().filter(lane -> lane.truth().get(at) != Truth.TRUE).count() == 2) {
                    choose(bar);
                    return;
                }
            }
        });
    }

    /** Marks the newest short bars at which the rule held as right, and has rules found that hold on them. */
    public void markWhereItHeld() {
        rule.side(Side.SHORT);
        showDraft();
        showEvaluation();
        evaluation.ifPresent(made -> made.chart().marks().reversed().stream().filter(mark -> mark.side() == Side.SHORT)
                .limit(5).forEach(mark -> {
                    choose(mark.bar());
                    examples.markRight();
                }));
        examples.find();
    }

    /** The chart takes the keyboard. Tapes that came in meanwhile are seen. */
    public void focus() {
        further.refresh();
        series.contracts();
        chart.requestFocus();
    }

    /** Says something to the person. */
    public void say(String words) {
        shelf.say(words);
    }

}
