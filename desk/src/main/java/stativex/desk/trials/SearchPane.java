package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import javafx.geometry.HPos;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.SealBook;
import stativex.files.SearchChoices;
import stativex.files.SearchFolder;
import stativex.files.SearchSpec;
import stativex.market.Tape;
import stativex.search.Control;
import stativex.search.Method;
import stativex.search.Ranking;
import stativex.search.Space;
import tools.jackson.databind.JsonNode;

/** A search in the window: its fields while it is new, its progress while it runs, then map, table and what the best is worth. */
final class SearchPane {
    /** Rows of the table. */
    private static final int ROWS = 60;

    private final Runnable changed;
    private final SealPart seal;
    private final SearchWorth worth;
    private final SearchJob job = new SearchJob();
    private final SearchMap map = new SearchMap(this::picked);
    private final GridPane table = new GridPane(12, 2);
    private final VBox centre = new VBox();
    private final VBox found = new VBox();
    private final VBox right = new VBox(5);
    private final Label said = Form.wrapped("");
    private final ProgressBar bar = new ProgressBar(0);
    private final Label progress = Form.wrapped("");
    private final Button go = new Button("Go on");
    private final Button cancel = new Button("Cancel");
    private final ComboBox<String> across = Form.choice("search-across", "Range across the map");
    private final ComboBox<String> up = Form.choice("search-up", "Range up the map");
    private Optional<SearchFolder.Kept> open = Optional.empty();
    private Optional<SearchJob.Result> result = Optional.empty();
    private Optional<Tape> tape = Optional.empty();
    private int[] chosen = {};
    private boolean showing;

    /**
     * @param use takes the document of a variant that is to be worked on
     * @param join takes those of a long and a short variant that are to be tried together
     * @param changed told when a search has begun or ended
     * @param seal over unseen dates
     */
    SearchPane(Consumer<JsonNode> use, Consumer<List<JsonNode>> join, Runnable changed, SealPart seal) {
        this.changed = changed;
        this.seal = seal;
        this.worth = new SearchWorth(use, join, this::openSeal);
        map.setId("search-map");
        map.setPrefHeight(330);
        table.setId("search-table");
        table.setPadding(new Insets(4, 14, 8, 14));
        bar.setMaxWidth(Double.MAX_VALUE);
        progress.setId("search-progress");
        said.setId("search-said");
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        progress.managedProperty().bind(progress.textProperty().isNotEmpty());
        go.setId("search-go");
        cancel.setId("search-cancel");
        go.setOnAction(e -> open.ifPresent(kept -> run(kept, tape.orElseThrow())));
        cancel.setOnAction(e -> job.cancel());
        across.setMaxWidth(190);
        up.setMaxWidth(190);
        for (ComboBox<String> box : List.of(across, up)) {
            box.setOnAction(e -> {
                if (!showing) {
                    showMap();
                }
            });
        }
        Label head = new Label("Map");
        head.getStyleClass().add("title");
        HBox mapHead = new HBox(8, head, Form.muted("across"), across, Form.muted("up"), up);
        mapHead.setAlignment(Pos.CENTER_LEFT);
        mapHead.getStyleClass().add("chart-head");
        Label ranked = new Label("Ranked");
        ranked.getStyleClass().add("title");
        HBox tableHead = new HBox(10, ranked,
                Form.muted("by what a setting and its neighbours make together, so that a lone peak sinks"));
        tableHead.setAlignment(Pos.CENTER_LEFT);
        tableHead.getStyleClass().add("chart-head");
        ScrollPane scroll = new ScrollPane(table);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(map, Priority.ALWAYS);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        scroll.setPrefHeight(280);
        found.getChildren().addAll(mapHead, map, tableHead, scroll);
        VBox.setVgrow(found, Priority.ALWAYS);
        Label none = Form.muted("What is found stands here: a map of two settings, and the variants in their order.");
        none.setPadding(new Insets(14));
        none.visibleProperty().bind(found.visibleProperty().not());
        none.managedProperty().bind(none.visibleProperty());
        Form.show(found, false);
        centre.getChildren().addAll(none, found);
    }

    Node centre() {
        return centre;
    }

    Node right() {
        return right;
    }

    boolean isBusy() {
        return job.isBusy();
    }

    void close() {
        job.close();
    }

    // ------------------------------------------------------------------ a new one

    /** What a new search is made of. */
    interface Maker {
        /** @return the strategy's document with its exit plan inside */
        JsonNode strategy();

        SearchSpec spec(List<SearchSpec.Setting> settings, Method method, SearchSpec.Ranked ranked);

        SearchFolder.Kept keep(SearchSpec spec);

        Tape tape();
    }

    /** The fields of a new search. */
    void fields(Maker maker) {
        open = Optional.empty();
        result = Optional.empty();
        Form.show(found, false);
        right.getChildren().setAll(new SearchFields(maker, spec -> begin(maker.keep(spec), maker.tape())));
    }

    // ------------------------------------------------------------------ running, and what came of it

    /** Shows a kept search; one that has its results is read from its journal, which takes a moment. */
    void begin(SearchFolder.Kept kept, Tape of) {
        open = Optional.of(kept);
        tape = Optional.of(of);
        result = Optional.empty();
        Form.show(found, false);
        run(kept, of);
    }

    private void run(SearchFolder.Kept kept, Tape of) {
        said.setText("");
        progress.setText("beginning …");
        bar.setProgress(0);
        showRight();
        job.run(kept, of, seal.over(kept.spec()), step -> {
            bar.setProgress((double) step.variants() / step.of());
            progress.setText(step.walked().map(steps -> "walking forward, step " + steps + ": ").orElse("")
                    + Format.grouped(Integer.toString(step.variants())) + " of "
                    + Format.grouped(Integer.toString(step.of()))
                    + (step.rounds() > 0 ? ", " + step.rounds() + " rounds after it" : "") + ", "
                    + step.left() + " s left");
        }, ended -> {
            result = ended;
            progress.setText(ended.isPresent() ? "" : "Cancelled; what was done is kept.");
            ended.ifPresent(this::first);
            showRight();
            changed.run();
        }, problem -> {
            said.setText(problem);
            progress.setText("");
            showRight();
            changed.run();
        });
        changed.run();
        showRight();
    }

    /** Opens the sealed dates for the chosen variant, and looks at them. */
    private void openSeal(Documents.Read<Strategy> variant) {
        SearchJob.Result of = result.orElseThrow();
        SealBook.Seal sealed = of.unseen().orElseThrow().seal();
        try {
            SealBook.own().open(sealed, variant.value().name(), variant.value().version());
        } catch (BadInput e) {
            said.setText(e.getMessage());
            showRight();
            return;
        }
        job.look(open.orElseThrow(), tape.orElseThrow(), sealed, of, looked -> {
            result = Optional.of(looked);
            showRight();
            changed.run();
        }, problem -> {
            said.setText(problem);
            showRight();
        });
        showRight();
    }

    private void first(SearchJob.Result of) {
        Form.show(found, true);
        Space space = of.run().space();
        showing = true;
        List<String> names = space.ranges().stream().map(Space.Range::name).toList();
        across.getItems().setAll(names);
        up.getItems().setAll(names);
        across.getSelectionModel().select(0);
        up.getSelectionModel().select(names.size() > 1 ? 1 : 0);
        showing = false;
        chosen = of.judged().ranked().isEmpty()
                ? new int[names.size()]
                : space.places(of.judged().ranked().getFirst().entry().grid());
        showMap();
        showTable();
    }

    private void picked(long grid) {
        result.ifPresent(found -> {
            chosen = found.run().space().places(grid);
            showMap();
            showTable();
            showRight();
        });
    }

    private void showMap() {
        result.ifPresent(found -> map.show(found.run().space(), found.judged().ranked(),
                Math.max(0, across.getSelectionModel().getSelectedIndex()),
                Math.max(0, up.getSelectionModel().getSelectedIndex()), chosen));
    }

    private void showTable() {
        table.getChildren().clear();
        SearchJob.Result found = result.orElseThrow();
        Space space = found.run().space();
        int control = Control.place(space, SearchChoices.FILTERS);
        String[] head = {"rank", "settings", "trades", "net", "score", "neighbours", "1 − deflated"};
        for (int i = 0; i < head.length; i++) {
            cell(Form.muted(head[i]), i, 0);
        }
        List<Ranking.Ranked> ranked = found.judged().ranked();
        long grid = space.number(chosen);
        List<Integer> shown = new ArrayList<>();
        if (control >= 0) {
            // no filter, the control, stays on top wherever it ranks
            int[] without = chosen.clone();
            without[control] = 0;
            long pinned = space.number(without);
            IntStream.range(0, ranked.size()).filter(r -> ranked.get(r).entry().grid() == pinned)
                    .forEach(shown::add);
        }
        int pinned = shown.size();
        IntStream.range(0, Math.min(ROWS, ranked.size())).forEach(shown::add);
        for (int line = 0; line < shown.size(); line++) {
            int r = shown.get(line);
            Ranking.Ranked one = ranked.get(r);
            String[] words = {line < pinned ? "control" : Integer.toString(r + 1),
                    space.words(space.places(one.entry().grid())).replace("; ", " · ")
                            .replace("=", " "),
                    Integer.toString(one.entry().tried().trades()),
                    Format.signedMoney(one.entry().tried().net()), SearchMap.text(one.score()),
                    SearchMap.text(one.neighbours()), one.deflated().isPresent()
                            ? Format.decimal(1 - one.deflated().getAsDouble(), 3)
                            : "absent"};
            for (int i = 0; i < words.length; i++) {
                Label label = new Label((i == 1 && !one.entry().tried().hasStop() ? "no stop · " : "") + words[i]);
                if (one.entry().grid() == grid) {
                    label.getStyleClass().add("fact");
                }
                label.setOnMouseClicked(e -> picked(one.entry().grid()));
                cell(label, i, line + 1);
            }
        }
    }

    private void cell(Label label, int column, int row) {
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, column == 1 ? HPos.LEFT : HPos.RIGHT);
        GridPane.setHgrow(label, column == 1 ? Priority.ALWAYS : Priority.NEVER);
        table.add(label, column, row);
    }

    private void showRight() {
        List<Node> nodes = new ArrayList<>();
        SearchSpec spec = open.orElseThrow().spec();
        nodes.add(SearchFields.heading("What was tried"));
        GridPane ranges = new GridPane(10, 3);
        int row = 0;
        for (Space.Range range : spec.space().ranges()) {
            ranges.add(new Label(range.name()), 0, row);
            ranges.add(Form.muted(range.values().getFirst() + " – " + range.values().getLast()), 1, row);
            Label count = new Label(Integer.toString(range.values().size()));
            count.getStyleClass().add("fact");
            ranges.add(count, 2, row++);
        }
        nodes.add(ranges);
        nodes.add(Form.wrapped(Format.grouped(Long.toString(spec.space().count())) + " variants in the grid, "
                + method(spec.method()) + "; ranked by " + spec.ranked().score().word() + " from "
                + spec.ranked().least() + " trades on; " + seal.words() + "."));
        if (job.isBusy()) {
            nodes.addAll(List.of(bar, progress, cancel, Form.wrapped("Results are kept: it goes on where it was.")));
        } else if (result.isEmpty()) {
            nodes.addAll(List.of(progress, go));
        }
        nodes.add(said);
        result.ifPresent(found -> nodes.addAll(worth.nodes(spec, found, chosen)));
        right.getChildren().setAll(nodes);
    }

    private static String method(Method method) {
        return switch (method) {
            case Method.Grid ignored -> "every one tried";
            case Method.Halving ignored -> "halved";
            case Method.Random random -> random.variants() + " drawn, seed " + random.seed();
        };
    }
}
