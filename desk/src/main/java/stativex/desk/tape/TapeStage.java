package stativex.desk.tape;

import java.io.File;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import stativex.desk.chart.ChartLink;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.ChartOptions;
import stativex.desk.chart.ChartPane;
import stativex.desk.chart.ChartView;
import stativex.desk.chart.Drawings;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Format;
import stativex.desk.look.Look;
import stativex.files.BadInput;
import stativex.files.ChartLooks;
import stativex.files.ChartSetup;
import stativex.files.ContractSketch;
import stativex.files.DocumentFolder;
import stativex.files.Documents;
import stativex.files.DrawingFile;
import stativex.files.tape.Damaged;
import stativex.files.tape.Joins;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * The Tape stage: stored tapes and joined series on the left, a chart of any of them with any bars in the middle, what is
 * known of it on the right. A file dropped anywhere is brought in.
 */
public final class TapeStage extends BorderPane {
    /** The demo's tape with its contract's document. */
    public record Demonstration(Shown shown, Documents.Read<Contract> contract) {
        String reference() {
            return shown.reference();
        }
    }

    private final TapeStore store;
    private final Joins joins;
    private Optional<Demonstration> demo;
    private final FilePicker picker;
    private final Consumer<Shown> openInRun;
    private final ZoneId own;
    private final ListView<String> list = new ListView<>();
    private final Map<String, String> words = new LinkedHashMap<>();
    private final BarControls controls = new BarControls(this::make);
    private final ChartPane pane;
    private final ChartLink link;
    private final DocumentFolder<Contract> contracts = DocumentFolder.contracts();
    private final ContractShelf shelf;
    private final TapeFacts facts = new TapeFacts(this::adjust);
    private final StackPane centre = new StackPane();
    private final ProgressBar progress = new ProgressBar(0);
    private final Label state = new Label();
    private final HBox busy;
    private final BarJob job = new BarJob();
    private final Button remove = new Button("Remove");
    private final Button join = new Button("Join…");
    private final Button run = new Button("Open in Run");
    private Optional<Shown> shown = Optional.empty();
    private final RangeFields range = new RangeFields(this::ranged);
    private final ChartLooks looks = ChartLooks.own();
    private final LookMenu lookMenu = new LookMenu(looks, this::look, this::putOn, this::say);
    private boolean adjusted;
    private boolean first;
    /** Reference of the tape that the chart shows. */
    private String made = "";
    /** Reference of the tape that runs, and what strategies do there. */
    private String runs = "";
    private List<ChartModel.StrategyLayer> running = List.of();
    /** Charts in windows of their own, with the tape that each shows. */
    private final Map<ChartView, String> torn = new LinkedHashMap<>();
    private boolean sure;

    /**
     * @param demo the demo's tape, if the person looks at it
     * @param lookAtDemo asked for the demo from an empty list
     * @param own the person's own zone
     * @param link of the charts that follow each other
     * @param openInRun replays a tape in the Run stage
     */
    public TapeStage(TapeStore store, Optional<Demonstration> demo, ZoneId own, FilePicker picker, ChartLink link,
            Consumer<Shown> openInRun, Runnable lookAtDemo) {
        this.store = store;
        this.joins = new Joins(store);
        this.demo = demo;
        this.picker = picker;
        this.link = link;
        this.openInRun = openInRun;
        this.own = own;
        shelf = new ContractShelf(contracts, own, this::editContract);
        pane = new ChartPane(own, picker, this::tearOff);
        pane.chart().setId("tape-chart");
        pane.chart().link(link);
        pane.onOptions(this::keepLook);
        pane.beside(lookMenu);
        pane.sceneProperty().addListener((o, before, now) -> showRunning());
        state.setId("tape-state");
        state.setWrapText(true);
        Button cancel = new Button("Cancel");
        cancel.setOnAction(e -> {
            job.cancel();
            say("Cancelled.", false);
        });
        progress.setPrefWidth(180);
        busy = new HBox(10, state, progress, cancel);
        busy.setAlignment(Pos.CENTER_LEFT);
        busy.getStyleClass().add("busy");
        VBox chart = new VBox(controls, busy, pane);
        VBox.setVgrow(pane, Priority.ALWAYS);
        centre.getChildren().add(chart);
        setLeft(left(lookAtDemo));
        setCenter(centre);
        ScrollPane right = new ScrollPane(facts);
        right.setFitToWidth(true);
        right.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        right.getStyleClass().add("cards");
        BorderPane rightPanel = new BorderPane(right);
        rightPanel.getStyleClass().add("side-panel");
        rightPanel.setPrefWidth(276);
        rightPanel.setMinWidth(276);
        setRight(rightPanel);
        addEventHandler(DragEvent.DRAG_OVER, e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
        });
        addEventHandler(DragEvent.DRAG_DROPPED, e -> {
            e.getDragboard().getFiles().stream().map(File::toPath).findFirst().ifPresent(this::bringIn);
            e.setDropCompleted(true);
        });
        run.disableProperty().bind(list.getSelectionModel().selectedItemProperty().isNull());
        refresh();
        say("", false);
        remove.setDisable(true);
    }

    private Node left(Runnable lookAtDemo) {
        Label heading = new Label("Tapes");
        heading.getStyleClass().add("heading");
        list.setId("tapes");
        list.setAccessibleText("Tapes and joined series");
        Button look = new Button("Look at the demo");
        look.setId("look-at-demo");
        look.setOnAction(e -> lookAtDemo.run());
        Label nothing = new Label("No tape yet. Bring in a tick file of your own, or look at the demo first.");
        nothing.setWrapText(true);
        VBox empty = new VBox(8, nothing, look);
        empty.setPadding(new javafx.geometry.Insets(8));
        list.setPlaceholder(empty);
        list.setCellFactory(view -> new Cell());
        list.getSelectionModel().selectedItemProperty().addListener((o, before, now) -> {
            if (now != null) {
                open(now);
            }
        });
        Button bring = new Button("Bring in…");
        bring.setId("tape-import");
        bring.setTooltip(new Tooltip("A tick file, CSV or Parquet; it can also be dropped on the window"));
        bring.setOnAction(e -> picker.open("Tick file", "csv", "txt", "tsv", "parquet").ifPresent(this::bringIn));
        join.setId("tape-join");
        join.setOnAction(e -> joinMonths());
        remove.setId("tape-remove");
        remove.setOnAction(e -> remove());
        run.setId("tape-run");
        run.setTooltip(new Tooltip("Replays this tape with the strategies of the Run stage"));
        run.setOnAction(e -> shown.ifPresent(this::toRun));
        VBox.setVgrow(list, Priority.ALWAYS);
        VBox box = new VBox(8, heading, list, new HBox(6, bring, join), new HBox(6, run, remove), range, shelf);
        box.getStyleClass().add("side-panel");
        box.setPrefWidth(216);
        box.setMinWidth(216);
        return box;
    }

    /** Two lines: the name, and what it is. */
    private final class Cell extends ListCell<String> {
        @Override
        protected void updateItem(String name, boolean empty) {
            super.updateItem(name, empty);
            if (empty || name == null) {
                setGraphic(null);
                return;
            }
            Label title = new Label(isDemo(name) ? "Demo: " + demo.orElseThrow().contract().value().symbol() : name);
            title.getStyleClass().add("fact");
            Label under = new Label(words.getOrDefault(name, ""));
            under.getStyleClass().add("muted");
            setGraphic(new VBox(1, title, under));
        }
    }

    /** Reads the store anew. */
    public void refresh() {
        words.clear();
        demo.map(Demonstration::shown)
                .ifPresent(one -> words.put(one.reference(), words(one.contract(), one.tape().count(),
                        one.tape().time(one.tape().count() - 1))));
        List<TapeStore.Entry> entries = store.list();
        for (TapeStore.Entry entry : entries) {
            words.put(entry.name(), entry.stored()
                    .map(s -> words(s.info().contract().value(), s.tape().count(), s.lastTime()))
                    .orElse("cannot be opened"));
        }
        joins.names().forEach(name -> words.put(name, "joined series"));
        String chosen = list.getSelectionModel().getSelectedItem();
        list.getItems().setAll(words.keySet());
        if (chosen != null && words.containsKey(chosen)) {
            list.getSelectionModel().select(chosen);
        }
        join.setDisable(entries.size() < 2);
    }

    private static String words(Contract contract, int prints, long last) {
        return contract.symbol() + " · " + Format.grouped(Integer.toString(prints)) + " prints · "
                + Format.day(TapeTime.in(contract.calendar().zone(), last).toLocalDate());
    }

    /** Selects a tape or join; the first when there is none of that name. */
    public void select(String name) {
        if (words.containsKey(name)) {
            list.getSelectionModel().select(name);
        } else {
            list.getSelectionModel().selectFirst();
        }
    }

    private boolean isDemo(String name) {
        return demo.filter(one -> one.reference().equals(name)).isPresent();
    }

    /** The demo's tape comes into the list. */
    public void demo(Demonstration shown) {
        demo = Optional.of(shown);
        refresh();
    }

    private void open(String name) {
        sure = false;
        remove.setText("Remove");
        remove.setDisable(isDemo(name));
        try {
            Shown next = isDemo(name)
                    ? demo.orElseThrow().shown()
                    : joins.has(name) ? Shown.of(name, joins.open(name)) : Shown.of(store.open(name));
            adjusted = next.join().isPresent()
                    && next.join().get().rolls().stream().allMatch(roll -> roll.adjustment().isPresent());
            show(next);
        } catch (Damaged e) {
            mend(name, e);
        } catch (BadInput e) {
            say(e.getMessage(), false);
        }
    }

    private void show(Shown next) {
        shown = Optional.of(next);
        range.show(next.contract(), next.tape(), next.days());
        controls.tape(next.contract(), next.tape());
        looks.last(next.contract().symbol()).ifPresent(this::setUp);
        facts.show(next, adjusted);
        DrawingFile file = DrawingFile.own(next.contract());
        try {
            pane.chart().drawings(new Drawings(file.read(), file::write));
        } catch (BadInput e) {
            say(e.getMessage(), false);
        }
        first = true;
        controls.again();
    }

    /** Other days of the tape: the chart shows them from the last on. */
    private void ranged() {
        shown = shown.map(of -> of.over(range.days()));
        first = true;
        controls.again();
    }

    /** How the chart looks now. */
    private Optional<ChartSetup> look() {
        ChartOptions o = pane.chart().options();
        return controls.wish().map(wish -> new ChartSetup(wish.settings(), wish.heikinAshi(), wish.studies(),
                new ChartSetup.Drawn(o.flow(), o.ticks(), o.delta(), o.studyPanels(), o.own())));
    }

    private void putOn(ChartSetup setup) {
        setUp(setup);
        controls.again();
    }

    private void setUp(ChartSetup setup) {
        controls.set(setup);
        ChartSetup.Drawn drawn = setup.drawn();
        pane.options(new ChartOptions(drawn.flow(), drawn.ticks(), drawn.delta(), drawn.panels(), drawn.zone()));
    }

    /** The last look of a contract comes back with it. */
    private void keepLook() {
        if (shown.isPresent()) {
            try {
                look().ifPresent(now -> looks.keepLast(shown.get().contract().symbol(), now));
            } catch (BadInput e) {
                say(e.getMessage(), false);
            }
        }
    }

    private void adjust(boolean on) {
        adjusted = on;
        controls.again();
    }

    private Tape tape(Shown of) {
        return of.join().isPresent() && adjusted ? of.join().get().backAdjusted() : of.tape();
    }

    private void make(BarControls.Wish wish) {
        shown.ifPresent(of -> {
            say("Making " + wish.words() + " of " + Format.grouped(Integer.toString(of.tape().count())) + " prints …",
                    true);
            job.make(of.contract(), tape(of), of.days(), wish, model -> made(of, wish, model), e -> failed(of, e),
                    progress::setProgress);
        });
    }

    private void made(Shown of, BarControls.Wish wish, ChartModel model) {
        say("", false);
        made = of.reference();
        pane.show(of.contract().symbol() + "  " + wish.words() + (of.join().isPresent() && adjusted
                ? ", back-adjusted"
                : ""), model);
        if (first) {
            pane.chart().lastDay();
            first = false;
        }
        showRunning();
        keepLook();
    }

    /** Shows what runs on a tape on every chart of that tape, torn-off ones too. */
    public void running(String reference, List<ChartModel.StrategyLayer> layers) {
        runs = reference;
        running = layers;
        showRunning();
        torn.forEach((chart, of) -> chart.running(on(of)));
    }

    /** A chart that nobody sees is not drawn anew. */
    private void showRunning() {
        if (pane.getScene() != null) {
            pane.chart().running(on(made));
        }
    }

    private List<ChartModel.StrategyLayer> on(String reference) {
        return reference.equals(runs) ? running : List.of();
    }

    private void failed(Shown of, Throwable problem) {
        if (problem instanceof Damaged damage && of.stored().isPresent()) {
            mend(of.reference(), damage);
        } else {
            say(problem.getMessage(), false);
        }
    }

    /** A damaged tape is made again from its source, then shown. */
    private void mend(String name, Damaged damage) {
        say(damage.getMessage() + ". Making it again from its source …", true);
        Thread.ofPlatform().daemon().name("mend").start(() -> {
            try {
                store.rebuild(name, (done, all) -> Platform.runLater(() -> progress.setProgress((double) done / all)));
                Platform.runLater(() -> open(name));
            } catch (BadInput e) {
                Platform.runLater(() -> say(e.getMessage(), false));
            }
        });
    }

    /** Says something to the person. */
    public void say(String text) {
        say(text, false);
    }

    private void say(String text, boolean working) {
        state.setText(text);
        busy.setVisible(!text.isEmpty());
        busy.setManaged(!text.isEmpty());
        progress.setProgress(0);
        busy.getChildren().stream().filter(node -> node != state).forEach(node -> {
            node.setVisible(working);
            node.setManaged(working);
        });
    }

    /** Shows what a tick file holds and lets the person keep it. */
    public void bringIn(Path file) {
        Map<String, Documents.Read<Contract>> known = new LinkedHashMap<>();
        store.list().forEach(entry -> entry.stored().ifPresent(
                stored -> known.put(stored.info().contract().value().symbol(), stored.info().contract())));
        shelf.all().forEach(one -> known.put(one.value().symbol(), one));
        demo.ifPresent(one -> known.putIfAbsent(one.contract().value().symbol(), one.contract()));
        over(new ImportPanel(store, file, known, contracts, picker, this::closed));
    }

    private void toRun(Shown chosen) {
        if (chosen.join().isPresent()) {
            say("A join is looked at here only: a replay takes one month's tape.", false);
        } else {
            openInRun.accept(chosen);
        }
    }

    /** Shows the fields of the demo's contract. */
    public void showContract() {
        demo.ifPresent(
                one -> editContract(ContractSketch.of(one.contract()), "Contract " + one.contract().value().symbol()));
    }

    private void editContract(ContractSketch sketch, String title) {
        over(new ContractPanel(sketch, title, picker, made -> {
            closed(Optional.empty());
            made.ifPresent(shelf::keep);
        }));
    }

    private void joinMonths() {
        over(new JoinPanel(joins, store.list().stream().filter(e -> e.stored().isPresent())
                .map(TapeStore.Entry::name).toList(), this::closed));
    }

    private void over(Node panel) {
        if (centre.getChildren().size() == 1) {
            centre.getChildren().getFirst().setVisible(false);
            centre.getChildren().add(panel);
        }
    }

    private void closed(Optional<String> kept) {
        centre.getChildren().removeLast();
        centre.getChildren().getFirst().setVisible(true);
        refresh();
        shelf.refresh();
        kept.ifPresent(this::select);
    }

    private void remove() {
        String name = list.getSelectionModel().getSelectedItem();
        if (!sure) {
            sure = true;
            remove.setText("Remove " + name + "?");
            return;
        }
        try {
            if (joins.has(name)) {
                joins.remove(name);
            } else {
                store.remove(name);
            }
        } catch (BadInput e) {
            say(e.getMessage(), false);
        }
        refresh();
        select("");
    }

    /** The same chart in a window of its own; its crosshair and this one's go together. */
    private void tearOff(ChartPane from) {
        ChartPane other = new ChartPane(own, picker, this::tearOff);
        other.chart().options(from.chart().options());
        from.chart().drawings().ifPresent(other.chart()::drawings);
        other.chart().link(link);
        from.chart().model().ifPresent(model -> other.show(from.title(), model));
        torn.put(other.chart(), torn.getOrDefault(from.chart(), made));
        Stage window = new Stage();
        window.setTitle("Stativex — " + from.title());
        Scene scene = new Scene(other, 900, 560);
        Look.apply(scene);
        window.setScene(scene);
        window.setOnHidden(e -> {
            other.chart().unlink();
            torn.remove(other.chart());
        });
        window.show();
    }

    /** Whether bars are being made. */
    public boolean isBusy() {
        return progress.isVisible() && busy.isVisible();
    }

    /** The chart with its tools. */
    public ChartPane pane() {
        return pane;
    }
}
