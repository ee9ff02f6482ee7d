package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusKeeper;
import stativex.desk.look.NumberField;
import stativex.rule.RuleProblem;
import stativex.rule.RuleRows;

/**
 * A rule as rows: a value, a relation, a value and a timing for each condition that must hold. Every change is a change of
 * the rule's text; what rows cannot express stands as one row of text.
 */
final class RowsView extends VBox {
    private static final String ALWAYS = "at this bar";

    /** Figures beside a row. */
    record Facts(String held, String tip) {}

    private final Consumer<String> edited;
    private final Label problem = new Label();
    private final List<Label> facts = new ArrayList<>();
    private List<String> names = List.of();
    private String text = "";
    private Optional<RuleRows> rows = Optional.empty();

    /** @param edited told the rule's text after a change of a row */
    RowsView(Consumer<String> edited) {
        super(5);
        this.edited = edited;
        setId("rule-rows");
        problem.getStyleClass().add("problem");
        problem.setId("row-problem");
        problem.setWrapText(true);
        problem.setMinHeight(USE_PREF_SIZE);
    }

    /**
     * Shows a rule.
     *
     * @param known names that values may have
     */
    void show(String rule, List<String> known) {
        boolean same = rule.equals(text) && known.equals(names) && rows.isPresent();
        if (same) {
            return;
        }
        text = rule;
        names = known;
        try {
            rows = Optional.of(RuleRows.of(rule));
        } catch (RuleProblem e) {
            // the text below says where it does not read; the rows wait
            rows = Optional.empty();
        }
        FocusKeeper.rebuild(this, this::build);
    }

    /** Figures of the rows, in their order. */
    void facts(List<Facts> shown) {
        for (int i = 0; i < facts.size(); i++) {
            boolean there = i < shown.size();
            facts.get(i).setText(there ? shown.get(i).held() : "");
            facts.get(i).setTooltip(there ? new Tooltip(shown.get(i).tip()) : null);
        }
    }

    private void build() {
        getChildren().clear();
        facts.clear();
        problem.setText("");
        if (rows.isEmpty()) {
            Label waits = new Label("The text does not read yet; its rows come back when it does.");
            waits.setWrapText(true);
            waits.setMinHeight(USE_PREF_SIZE);
            waits.getStyleClass().add("held");
            getChildren().add(waits);
            return;
        }
        List<RuleRows.Row> all = rows.get().rows();
        for (int i = 0; i < all.size(); i++) {
            getChildren().add(row(i, all.get(i)));
        }
        Button add = new Button("+ condition");
        add.setId("row-add");
        add.getStyleClass().addAll("small", "link");
        add.setOnAction(e -> apply(rows.orElseThrow().adding("close > open")));
        getChildren().addAll(add, problem);
        showProblem("");
    }

    private void showProblem(String words) {
        problem.setText(words);
        problem.setVisible(!words.isEmpty());
        problem.setManaged(!words.isEmpty());
    }

    private VBox row(int index, RuleRows.Row row) {
        Label held = new Label();
        held.getStyleClass().add("figures");
        held.setMinWidth(USE_PREF_SIZE);
        held.setId("row-facts-" + index);
        facts.add(held);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button remove = new Button("×");
        remove.getStyleClass().addAll("small", "quiet");
        remove.setAccessibleText("Take condition " + (index + 1) + " away");
        remove.setTooltip(new Tooltip("Takes this condition away"));
        remove.setMinWidth(USE_PREF_SIZE);
        remove.setId("row-remove-" + index);
        remove.setOnAction(e -> apply(rows.orElseThrow().without(index)));
        HBox first = new HBox(4);
        HBox second = new HBox(4);
        second.setAlignment(Pos.CENTER_LEFT);
        if (row.parts().isPresent()) {
            parts(index, row.parts().get(), first, second);
        } else {
            TextField words = new TextField(row.text());
            words.setAccessibleText("Condition " + (index + 1) + " as text");
            HBox.setHgrow(words, Priority.ALWAYS);
            commit(words, () -> apply(rows.orElseThrow().with(index, words.getText())));
            first.getChildren().add(words);
        }
        VBox box = new VBox(3, first, second);
        HBox last = second;
        if (second.getChildren().size() > 1) {
            // a timing with its number of bars takes a line of its own
            last = new HBox(4);
            last.setAlignment(Pos.CENTER_LEFT);
            box.getChildren().add(last);
        }
        last.getChildren().addAll(gap, held, remove);
        box.getStyleClass().add("rule-row");
        box.setId("row-" + index);
        return box;
    }

    private void parts(int index, RuleRows.Parts parts, HBox first, HBox second) {
        ComboBox<String> left = value(parts.left(), "Value of condition " + (index + 1));
        left.setId("row-left-" + index);
        commit(left, text -> change(index, p -> new RuleRows.Parts(text, p.relation(), p.right(), p.timing())));
        ComboBox<String> relation = choice(RuleRows.RELATIONS, parts.relation(),
                "Relation of condition " + (index + 1));
        relation.setId("row-relation-" + index);
        relation.setPrefWidth(102);
        relation.setMinWidth(102);
        relation.setOnAction(e -> change(index, p -> related(p, relation.getValue())));
        first.getChildren().addAll(left, relation);
        if (!parts.relation().equals("holds")) {
            ComboBox<String> right = value(parts.right(), slope(parts.relation())
                    ? "Over how many bars"
                    : "Second value of condition " + (index + 1));
            right.setId("row-right-" + index);
            commit(right, text -> change(index, p -> new RuleRows.Parts(p.left(), p.relation(), text, p.timing())));
            first.getChildren().add(right);
        }
        timing(index, parts, second);
    }

    private void timing(int index, RuleRows.Parts parts, HBox line) {
        List<String> offered = new ArrayList<>(List.of(ALWAYS));
        offered.addAll(RuleRows.TIMINGS);
        String now = RuleRows.TIMINGS.stream().filter(t -> parts.timing().startsWith(t)).findFirst().orElse(ALWAYS);
        ComboBox<String> timing = choice(offered, now, "Timing of condition " + (index + 1));
        timing.setId("row-timing-" + index);
        timing.setPrefWidth(116);
        timing.getStyleClass().add("small");
        timing.setOnAction(e -> change(index, p -> new RuleRows.Parts(p.left(), p.relation(), p.right(),
                timing.getValue().equals(ALWAYS)
                        ? ""
                        : timing.getValue().endsWith("last") ? timing.getValue() + " 4 bars" : timing.getValue())));
        line.getChildren().add(timing);
        if (now.endsWith("last")) {
            NumberField bars = new NumberField(parts.timing().replaceAll("\\D+", ""), 2, "Bars", BigDecimal.ONE);
            bars.setId("row-bars-" + index);
            bars.setMinWidth(36);
            timing.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(timing, Priority.ALWAYS);
            bars.onChanged(() -> bars.number().ifPresent(n -> change(index, p -> new RuleRows.Parts(p.left(),
                    p.relation(), p.right(),
                    now + " " + n.toPlainString() + (n.compareTo(BigDecimal.ONE) == 0 ? " bar" : " bars")))));
            Label unit = new Label("bars");
            unit.getStyleClass().add("muted");
            unit.setMinWidth(USE_PREF_SIZE);
            line.getChildren().addAll(bars, unit);
        }
    }

    private static boolean slope(String relation) {
        return relation.equals("is rising") || relation.equals("is falling") || relation.equals("is flat");
    }

    private static RuleRows.Parts related(RuleRows.Parts p, String relation) {
        boolean fits = slope(relation) == slope(p.relation()) && !p.relation().equals("holds");
        String right = relation.equals("holds")
                ? ""
                : fits ? p.right() : slope(relation) ? "10 bars" : p.left().equals("close") ? "open" : "close";
        return new RuleRows.Parts(p.left(), relation, right, p.timing());
    }

    private ComboBox<String> value(String text, String words) {
        ComboBox<String> box = new ComboBox<>();
        box.getItems().setAll(names);
        box.setEditable(true);
        box.setValue(text);
        box.setAccessibleText(words);
        box.setPrefWidth(96);
        box.setMinWidth(60);
        box.setTooltip(new Tooltip(text));
        HBox.setHgrow(box, Priority.ALWAYS);
        box.setMaxWidth(Double.MAX_VALUE);
        return box;
    }

    private static ComboBox<String> choice(List<String> items, String value, String words) {
        ComboBox<String> box = new ComboBox<>();
        box.getItems().setAll(items);
        box.setValue(value);
        box.setAccessibleText(words);
        return box;
    }

    /** An editable box tells its text after Enter, a choice from its list, or leaving it. */
    private static void commit(ComboBox<String> box, Consumer<String> told) {
        box.setOnAction(e -> told.accept(box.getEditor().getText().strip()));
        box.getEditor().focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                told.accept(box.getEditor().getText().strip());
            }
        });
    }

    private static void commit(TextField field, Runnable told) {
        field.setOnAction(e -> told.run());
        field.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                told.run();
            }
        });
    }

    private void change(int index, UnaryOperator<RuleRows.Parts> change) {
        RuleRows now = rows.orElseThrow();
        if (index < now.rows().size() && now.rows().get(index).parts().isPresent()) {
            RuleRows.Parts before = now.rows().get(index).parts().get();
            RuleRows.Parts after = change.apply(before);
            if (!after.equals(before)) {
                apply(now.with(index, after.text()));
            }
        }
    }

    /** Takes a changed text if it reads; else says why beside the rows and keeps the rule as it was. */
    private void apply(String changed) {
        if (changed.equals(text)) {
            showProblem("");
            return;
        }
        try {
            RuleRows.of(changed);
        } catch (RuleProblem e) {
            showProblem(e.what());
            return;
        }
        showProblem("");
        edited.accept(changed);
    }
}
