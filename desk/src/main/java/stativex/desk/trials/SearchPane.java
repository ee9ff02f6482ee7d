package stativex.desk.trials;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.HPos;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.evidence.DayStatistics;
import stativex.files.BadInput;
import stativex.files.SearchFolder;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.market.Tape;
import stativex.search.Method;
import stativex.search.Ranking;
import stativex.search.Score;
import stativex.search.Space;
import tools.jackson.databind.JsonNode;

/** A search in the window: its fields while it is new, its progress while it runs, then map, table and what the best is worth. */
final class SearchPane {
    /** Ranges that a new search has room for. */
    private static final int RANGES = 3;
    /** Rows of the table. */
    private static final int ROWS = 60;

    private final Consumer<JsonNode> use;
    private final Runnable changed;
    private final Supplier<String> seal;
    private final SearchJob job = new SearchJob();
    private final SearchMap map = new SearchMap(this::picked);
    private final GridPane table = new GridPane(12, 2);
    private final VBox centre = new VBox();
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
     * @param changed told when a search has begun or ended
     * @param seal what is said about unseen dates
     */
    SearchPane(Consumer<JsonNode> use, Runnable changed, Supplier<String> seal) {
        this.use = use;
        this.changed = changed;
        this.seal = seal;
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
        centre.getChildren().addAll(mapHead, map, tableHead, scroll);
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
        Map<String, JsonNode> numbers = SearchFolder.numbers(maker.strategy());
        List<String> places = List.copyOf(numbers.keySet());
        List<ComboBox<String>> which = new ArrayList<>();
        List<TextField[]> figures = new ArrayList<>();
        VBox rows = new VBox(6);
        for (int i = 0; i < RANGES; i++) {
            List<String> words = new ArrayList<>(List.of("none"));
            places.forEach(place -> words.add(SearchFolder.words(place)));
            ComboBox<String> box = Form.choice("search-range-" + i, "Setting that is varied",
                    words.toArray(String[]::new));
            box.setMaxWidth(Double.MAX_VALUE);
            TextField[] fields = {field("search-from-" + i, "From"), field("search-to-" + i, "To"),
                    field("search-step-" + i, "In steps of")};
            box.valueProperty().addListener((o, before, now) -> offer(box, fields, places, numbers));
            which.add(box);
            figures.add(fields);
            box.getSelectionModel().select(0);
            rows.getChildren().addAll(box, Form.row(Form.muted("from"), fields[0], Form.muted("to"), fields[1],
                    Form.muted("by"), fields[2]));
        }
        places.stream().filter(place -> place.startsWith("/exit/") && !place.endsWith("/quantity")).limit(2)
                .forEach(place -> {
                    ComboBox<String> box = which.stream().filter(b -> b.getSelectionModel().getSelectedIndex() <= 0)
                            .findFirst().orElseThrow();
                    box.getSelectionModel().select(places.indexOf(place) + 1);
                });
        ComboBox<String> score = Form.choice("search-score", "What variants are ranked by",
                Arrays.stream(Score.values()).map(Score::word).toArray(String[]::new));
        score.getSelectionModel().select(Score.NET_PER_TRADE.ordinal());
        TextField least = field("search-least", "Fewest trades of a variant that counts");
        least.setText("30");
        ComboBox<String> method = Form.choice("search-method", "How variants are chosen", "every one",
                "drawn at random", "halving");
        method.getSelectionModel().select(0);
        TextField drawn = field("search-drawn", "How many are drawn");
        drawn.setText("100");
        Form.show(drawn, false);
        method.setOnAction(e -> Form.show(drawn, method.getSelectionModel().getSelectedIndex() == 1));
        Button start = new Button("Search");
        start.setId("search-start");
        start.setOnAction(e -> {
            try {
                List<SearchSpec.Setting> settings = new ArrayList<>();
                for (int i = 0; i < RANGES; i++) {
                    int at = which.get(i).getSelectionModel().getSelectedIndex() - 1;
                    if (at >= 0) {
                        settings.add(SearchFolder.setting(places.get(at), figures.get(i)[0].getText(),
                                figures.get(i)[1].getText(), figures.get(i)[2].getText()));
                    }
                }
                Method how = switch (method.getSelectionModel().getSelectedIndex()) {
                    case 1 -> new Method.Random(Long.parseLong(drawn.getText().strip()), 1);
                    case 2 -> new Method.Halving();
                    default -> new Method.Grid();
                };
                SearchSpec spec = maker.spec(settings, how, new SearchSpec.Ranked(
                        Score.values()[score.getSelectionModel().getSelectedIndex()],
                        Integer.parseInt(least.getText().strip()), 16));
                spec.space();
                begin(maker.keep(spec), maker.tape());
            } catch (NumberFormatException x) {
                said.setText("expected a whole number of trades and of variants");
            } catch (BadInput | IllegalArgumentException x) {
                said.setText(x.getMessage().replaceFirst("^.*?\\$\\.?:? ?", ""));
            }
        });
        said.setText("");
        right.getChildren().setAll(heading("New search"),
                Form.wrapped("What of the open strategy is varied, and by how much."), rows, heading("Ranked by"),
                Form.row(score, Form.muted("from"), least, Form.muted("trades on")), heading("Variants"),
                Form.row(method, drawn), start, said);
    }

    private static void offer(ComboBox<String> box, TextField[] fields, List<String> places,
            Map<String, JsonNode> numbers) {
        int at = box.getSelectionModel().getSelectedIndex() - 1;
        if (at < 0) {
            return;
        }
        java.math.BigDecimal now = numbers.get(places.get(at)).decimalValue();
        boolean whole = now.stripTrailingZeros().scale() <= 0;
        java.math.BigDecimal step = whole
                ? java.math.BigDecimal.valueOf(Math.max(1, now.longValue() / 8))
                : now.divide(java.math.BigDecimal.valueOf(10), java.math.MathContext.DECIMAL32).abs();
        java.math.BigDecimal from = now.subtract(step.multiply(java.math.BigDecimal.valueOf(4)));
        fields[0].setText((whole ? from.max(java.math.BigDecimal.ONE.min(now)) : from).stripTrailingZeros()
                .toPlainString());
        fields[1].setText(now.add(step.multiply(java.math.BigDecimal.valueOf(4))).stripTrailingZeros()
                .toPlainString());
        fields[2].setText(step.stripTrailingZeros().toPlainString());
    }

    private static TextField field(String id, String words) {
        TextField field = new TextField();
        field.setId(id);
        field.setAccessibleText(words);
        field.setPrefColumnCount(4);
        return field;
    }

    // ------------------------------------------------------------------ running, and what came of it

    /** Shows a kept search; one that has its results is read from its journal, which takes a moment. */
    void begin(SearchFolder.Kept kept, Tape of) {
        open = Optional.of(kept);
        tape = Optional.of(of);
        result = Optional.empty();
        run(kept, of);
    }

    private void run(SearchFolder.Kept kept, Tape of) {
        said.setText("");
        progress.setText("beginning …");
        bar.setProgress(0);
        showRight();
        job.run(kept, of, step -> {
            bar.setProgress((double) step.variants() / step.of());
            progress.setText(Format.grouped(Integer.toString(step.variants())) + " of "
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

    private void first(SearchJob.Result found) {
        Space space = found.run().space();
        showing = true;
        List<String> names = space.ranges().stream().map(Space.Range::name).toList();
        across.getItems().setAll(names);
        up.getItems().setAll(names);
        across.getSelectionModel().select(0);
        up.getSelectionModel().select(names.size() > 1 ? 1 : 0);
        showing = false;
        chosen = found.judged().ranked().isEmpty()
                ? new int[names.size()]
                : space.places(found.judged().ranked().getFirst().entry().grid());
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
        String[] head = {"rank", "settings", "trades", "net", "score", "neighbours", "1 − deflated"};
        for (int i = 0; i < head.length; i++) {
            cell(Form.muted(head[i]), i, 0);
        }
        List<Ranking.Ranked> ranked = found.judged().ranked();
        long grid = space.number(chosen);
        for (int r = 0; r < Math.min(ROWS, ranked.size()); r++) {
            Ranking.Ranked one = ranked.get(r);
            String[] words = {Integer.toString(r + 1),
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
                cell(label, i, r + 1);
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
        nodes.add(heading("What was tried"));
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
                + spec.ranked().least() + " trades on; " + seal.get() + "."));
        if (job.isBusy()) {
            nodes.addAll(List.of(bar, progress, cancel, Form.wrapped("Results are kept: it goes on where it was.")));
        } else if (result.isEmpty()) {
            nodes.addAll(List.of(progress, go));
        }
        nodes.add(said);
        result.ifPresent(found -> worth(found, nodes));
        right.getChildren().setAll(nodes);
    }

    private static String method(Method method) {
        return switch (method) {
            case Method.Grid ignored -> "every one tried";
            case Method.Halving ignored -> "halved";
            case Method.Random random -> random.variants() + " drawn, seed " + random.seed();
        };
    }

    private void worth(SearchJob.Result found, List<Node> nodes) {
        SearchRun.Judged judged = found.judged();
        nodes.add(heading("The honest corner"));
        double year = Math.sqrt(DayStatistics.YEAR);
        String luck = judged.bestAtRandom().isPresent()
                ? "Best of " + Format.grouped(Integer.toString(judged.attempts()))
                        + " worthless rules would show a Sharpe ratio of about "
                        + Format.decimal(judged.bestAtRandom().getAsDouble() * year, 2) + " a year."
                : "Too few variants have a Sharpe ratio to say what luck alone would show.";
        nodes.add(Form.wrapped(luck));
        nodes.add(fact("search-luck", "Chance that the best is luck", judged.luck()
                .map(l -> Format.decimal(100 * l.chance(), 0) + " %").orElse("absent")));
        nodes.add(Form.wrapped(judged.luck()
                .map(l -> "Without any skill " + Format.decimal(100 * l.withoutSkill(), 0) + " %; "
                        + Format.grouped(Integer.toString(l.choices())) + " ways to halve " + l.days() * 16
                        + " days.")
                .orElse("It takes 16 blocks of 5 days, and two variants.")));
        nodes.add(fact("search-attempts", "Attempts on these dates so far",
                Format.grouped(Integer.toString(judged.attempts()))));
        Optional<Ranking.Ranked> of = judged.ranked().stream()
                .filter(one -> one.entry().grid() == found.run().space().number(chosen)).findFirst();
        nodes.add(heading("Chosen"));
        nodes.add(Form.wrapped(found.run().space().words(chosen).replace("; ", " · ").replace("=", " ")));
        of.ifPresent(one -> {
            nodes.add(fact("", "Net", Format.signedMoney(one.entry().tried().net())));
            nodes.add(fact("", "Trades", Integer.toString(one.entry().tried().trades())));
            nodes.add(fact("", "Neighbours' score", SearchMap.text(one.neighbours())));
            nodes.add(fact("", "1 − deflated Sharpe ratio", one.deflated().isPresent()
                    ? Format.decimal(1 - one.deflated().getAsDouble(), 3)
                    : "absent"));
            if (!one.entry().tried().hasStop()) {
                Label no = Form.wrapped("Without a stop: shown, never offered for a run.");
                no.getStyleClass().setAll("label", "near");
                nodes.add(no);
            } else {
                Button take = new Button("Use the chosen one");
                take.setId("search-use");
                take.setOnAction(e -> use.accept(open.orElseThrow().spec().variant(chosen).document()));
                nodes.add(take);
            }
        });
    }

    private static Label heading(String words) {
        Label heading = new Label(words);
        heading.getStyleClass().add("heading");
        heading.setPadding(new Insets(8, 0, 2, 0));
        return heading;
    }

    private static HBox fact(String id, String word, String figure) {
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label value = new Label(figure);
        value.getStyleClass().add("fact");
        if (!id.isEmpty()) {
            value.setId(id);
        }
        return new HBox(6, new Label(word), gap, value);
    }
}
