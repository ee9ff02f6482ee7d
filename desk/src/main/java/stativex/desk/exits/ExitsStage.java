package stativex.desk.exits;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.desk.look.Latest;
import stativex.engine.Strategy;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.exit.StopMap;
import stativex.files.StrategyDraft;
import stativex.files.StrategySetup;
import stativex.files.tape.FurtherTapes;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.PastTrades;

/**
 * The Exits stage: plans on the left, the stop map and a past trade in the middle, the plan in fields and what it means on the right.
 * Map, fields, words and money change together; a drag is kept when it ends.
 */
public final class ExitsStage extends BorderPane {
    private static final KeyCombination UNDO = new KeyCodeCombination(KeyCode.Z, KeyCombination.SHORTCUT_DOWN);

    private final PlanBook book;
    private final Contract contract;
    private final FurtherTapes further;
    private final Account account;
    /** One for each thread. */
    private final PastTrades past;
    private final PastTrades all;
    private final Latest job = new Latest("exits");
    private final Latest signals = new Latest("every signal");
    private final ListView<StrategyDraft> list = new ListView<>();
    private final StopMapView map = new StopMapView(this::dragged, this::released);
    private final PastTradePanel trade;
    private final PlanFields fields;
    private final PlanMoneyView money;
    private final RunningPlanView running;
    private final Button make = new Button("Make an exit plan");
    private final Label title = new Label();
    private Optional<ExitPlan> plan = Optional.empty();
    private Optional<Tried> tried = Optional.empty();
    private boolean showing;

    /**
     * Whose plans are worked on, and where they run.
     *
     * @param book the strategies
     * @param running of them those that run
     */
    public record Plans(PlanBook book, RunningPlans running) {}

    /** @param account its fees and lines count */
    public ExitsStage(Contract contract, Tape tape, Account account, FurtherTapes further, Terms terms,
            Plans plans) {
        this.book = plans.book();
        this.running = new RunningPlanView(plans.running());
        this.contract = contract;
        this.further = further;
        this.account = account;
        this.past = new PastTrades(tape, contract, account, terms);
        this.all = new PastTrades(tape, contract, account, terms);
        this.trade = new PastTradePanel(tape, contract, this::tryIt);
        this.fields = new PlanFields(contract.calendar().zone(), this::changed);
        this.money = new PlanMoneyView(account);
        getStyleClass().add("exits-stage");
        setLeft(left());
        setCenter(centre());
        setRight(right());
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (UNDO.match(e) && !(getScene().getFocusOwner() instanceof TextInputControl)) {
                book.undo();
                opened();
                e.consume();
            }
        });
    }

    private Region left() {
        Label heading = new Label("Exit plans");
        heading.getStyleClass().add("heading");
        list.setId("exit-plans");
        list.setAccessibleText("Exit plans, by strategy");
        list.setCellFactory(view -> new Cell());
        list.getSelectionModel().selectedItemProperty().addListener((o, before, now) -> {
            if (now != null && !showing) {
                book.open(now.name());
                trade.forget();
                tried = Optional.empty();
                opened();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        VBox left = new VBox(8, heading, list);
        left.getStyleClass().add("side-panel");
        left.setPrefWidth(236);
        left.setMinWidth(236);
        return left;
    }

    private Region centre() {
        Label heading = new Label("Stop map");
        heading.getStyleClass().add("title");
        heading.setMinWidth(USE_PREF_SIZE);
        title.setId("exits-title");
        title.getStyleClass().add("muted");
        HBox head = new HBox(12, heading, title);
        head.setAlignment(Pos.BASELINE_LEFT);
        head.getStyleClass().add("chart-head");
        map.setPrefHeight(430);
        VBox.setVgrow(map, Priority.ALWAYS);
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        trade.setPrefHeight(270);
        trade.setMinHeight(200);
        VBox box = new VBox(head, map, rule, trade);
        box.getStyleClass().add("centre");
        return box;
    }

    private Region right() {
        Label heading = new Label("Plan");
        heading.getStyleClass().add("heading");
        make.setId("exits-make");
        make.setOnAction(e -> {
            book.edit(StrategySetup::withFirstPlan);
            opened();
        });
        PlanShelf shelf = new PlanShelf(() -> plan, chosen -> {
            book.edit(draft -> StrategySetup.withPlan(draft, chosen));
            opened();
        });
        VBox inside = new VBox(8, heading, shelf, running, make, fields);
        inside.getStyleClass().add("plan-side");
        ScrollPane scroll = new ScrollPane(inside);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox right = new VBox(6, scroll, money);
        right.getStyleClass().add("side-panel");
        right.setPrefWidth(344);
        right.setMinWidth(344);
        return right;
    }

    /** The stage is shown: plans may have been changed elsewhere. */
    public void focus() {
        showing = true;
        list.getItems().setAll(book.all());
        showing = false;
        opened();
        map.requestFocus();
    }

    /** The open plan is another one. */
    private void opened() {
        Optional<ExitPlan> now = StrategySetup.plan(book.draft());
        list();
        make.setVisible(now.isEmpty());
        make.setManaged(now.isEmpty());
        fields.setVisible(now.isPresent());
        fields.setManaged(now.isPresent());
        money.setVisible(now.isPresent());
        money.setManaged(now.isPresent());
        plan = now;
        trade.plans(otherPlans());
        now.ifPresent(fields::show);
        show();
        tryIt();
    }

    private List<ExitPlan> otherPlans() {
        return book.all().stream().filter(d -> !d.name().equals(book.draft().name()))
                .flatMap(d -> StrategySetup.plan(d).stream()).toList();
    }

    /** The list as the plans stand. */
    private void list() {
        showing = true;
        String open = book.draft().name();
        List<StrategyDraft> all = List.copyOf(book.all());
        for (int i = 0; i < all.size(); i++) {
            if (i >= list.getItems().size()) {
                list.getItems().add(all.get(i));
            } else if (!list.getItems().get(i).equals(all.get(i))) {
                list.getItems().set(i, all.get(i));
            }
        }
        list.getItems().stream().filter(d -> d.name().equals(open)).findFirst()
                .ifPresent(list.getSelectionModel()::select);
        showing = false;
    }

    /** Fields say another plan. */
    private void changed(ExitPlan made) {
        plan = Optional.of(made);
        book.edit(draft -> StrategySetup.withPlan(draft, made));
        list();
        show();
        tryIt();
    }

    private void dragged(StopMap.Handle handle, long best, long level) {
        plan.ifPresent(now -> tried.ifPresent(of -> {
            try {
                ExitTerms next = StopMap.dragged(now.terms(of.side()), handle, best, level, of.entry());
                plan = Optional.of(now.with(of.side(), next));
                fields.show(plan.get());
                show();
                tryIt();
            } catch (IllegalArgumentException e) {
                // what makes no plan is not taken: the handle stays where it was
                title.setText(e.getMessage());
            }
        }));
    }

    private void released() {
        plan.ifPresent(made -> book.edit(draft -> StrategySetup.withPlan(draft, made)));
        list();
    }

    /** What runs may have changed. */
    public void runs() {
        running.refresh();
    }

    /** The map and the money of the plan as it is. */
    private void show() {
        running.show(book.draft().name(), plan);
        Optional<ExitTerms> terms = plan.map(p -> p.terms(trade.side()));
        Optional<StopMap> drawn = terms
                .flatMap(t -> tried.filter(of -> of.side() == trade.side()).flatMap(of -> StopMap.of(t, of.entry())));
        map.show(terms, drawn, plan.isEmpty()
                ? "This strategy has no exit plan yet."
                : tried.isEmpty() ? "" : "A study that the plan takes is not there at the bar of the past trade.");
        title.setText("where the stop stands, by how far the trade has gone your way" + terms.map(t -> (plan.get()
                .longTerms().equals(plan.get().shortTerms()) ? "" : ", " + trade.side().word())
                + (t.judged() == ExitTerms.Judged.BAR_CLOSE ? " · judged at bar closes" : "")
                + t.follow().map(study -> " · follows " + study + " too").orElse("")).orElse(""));
        terms.ifPresent(t -> tried.ifPresent(of -> money.show(t, of.entry())));
    }

    /** Tries the plan on the chosen bar; on a strategy's first time on its last signal. */
    private void tryIt() {
        if (plan.isEmpty()) {
            trade.say("There is no plan to try.");
            return;
        }
        StrategyDraft draft = StrategySetup.withPlan(book.draft(), plan.get());
        Side side = trade.side();
        Optional<Integer> bar = trade.bar();
        Optional<Long> price = trade.price();
        job.ask(() -> work(draft, side, bar, price), made -> {
            tried = Optional.of(made);
            trade.show(made);
            show();
            everySignal();
        }, problem -> {
            tried = Optional.empty();
            trade.say(problem);
            show();
        });
    }

    /** Tries the plan on every signal, if that is asked for; what is under way is given up. */
    private void everySignal() {
        if (!trade.whole() || plan.isEmpty() || tried.isEmpty()) {
            signals.cancel();
            return;
        }
        StrategyDraft draft = book.draft();
        EverySignal.Question question = new EverySignal.Question(draft, plan.get(), trade.beside(),
                tried.get().entry(), account.fee(contract.symbol()));
        trade.show(Optional.empty(), "working …");
        signals.<EverySignal>ask((told, stop) -> {
            Map<String, ContractTape> others = draft.signals().map(of -> further.of(of, contract)).orElse(Map.of());
            EverySignal.work(question, all, others, stop, told);
        }, made -> trade.show(Optional.of(made), made.whole() ? "" : "working on what if …"),
                problem -> trade.show(Optional.empty(), problem));
    }

    private Tried work(StrategyDraft draft, Side side, Optional<Integer> chosen, Optional<Long> price) {
        // without a rule a plan can be tried all the same
        boolean bare = draft.rule(Side.LONG).isBlank() && draft.rule(Side.SHORT).isBlank();
        Strategy strategy = (bare ? draft.withRule(side, "close > open") : draft).strategy().value();
        Map<String, ContractTape> others = further.of(strategy.signals(), contract);
        BarSeries bars = past.bars(strategy);
        if (bars.count() == 0) {
            throw new IllegalArgumentException("The tape has no bar of this strategy.");
        }
        List<Integer> signals = bare ? List.of() : past.signals(strategy, others, side);
        int bar = chosen.orElseGet(() -> signals.isEmpty() ? bars.count() * 3 / 4 : signals.getLast());
        int at = Math.min(bar, bars.count() - 1);
        StopMap.Entry entry = new StopMap.Entry(side, contract, bars.close(at), strategy.entry(side).quantity(),
                past.readings(strategy, others, side, at));
        return new Tried(bars, signals, side, at, entry, price.isPresent()
                ? past.at(strategy, others, side, at, price.get())
                : past.at(strategy, others, side, at));
    }

    /** Whether something is tried that is not shown yet. */
    public boolean isBusy() {
        return job.isBusy() || signals.isBusy();
    }

    /** Where a handle of the map is on screen, by its kind in words. */
    public Point2D handle(String kind) {
        StopMap.Handle handle = map.map().orElseThrow().handles().stream()
                .filter(h -> h.kind().name().equalsIgnoreCase(kind)).findFirst().orElseThrow();
        return map.localToScreen(map.place(handle));
    }

    /** The plan that is shown. */
    public Optional<ExitPlan> plan() {
        return plan;
    }

    /** Two lines: the plan and its strategy. */
    private static final class Cell extends ListCell<StrategyDraft> {
        @Override
        protected void updateItem(StrategyDraft item, boolean empty) {
            super.updateItem(item, empty);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            Optional<ExitPlan> of = StrategySetup.plan(item);
            Label title = new Label(of.map(ExitPlan::name).orElse("no exit plan yet"));
            title.getStyleClass().add(of.isPresent() ? "fact" : "muted");
            Label whose = new Label("of " + item.name());
            whose.getStyleClass().add("muted");
            Label words = new Label(of.map(ExitPlan::words).orElse(""));
            words.getStyleClass().add("figures");
            words.setWrapText(true);
            words.setPrefWidth(196);
            words.setMinHeight(USE_PREF_SIZE);
            VBox box = new VBox(1, title, whose, words);
            setGraphic(box);
            setAccessibleText(title.getText() + " " + whose.getText());
        }
    }
}
