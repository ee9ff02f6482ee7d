package stativex.desk.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusScroll;
import stativex.engine.SideRules;
import stativex.engine.Snapshot;
import stativex.exit.ExitPlan;
import stativex.files.StrategyDraft;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.rule.Explanation;
import stativex.rule.Mirroring;
import stativex.rule.RuleProblem;

/** One side's rule as rows and as text, made from the other side's if that is wished, and the entry. */
final class RulePanel extends BorderPane {
    private final Consumer<UnaryOperator<StrategyDraft>> edit;
    private final RowsView rows;
    private final RuleText text;
    private final EntryFields entry;
    private final SetupFields setup;
    private final ToggleButton longSide = new ToggleButton("Long");
    private final ToggleButton shortSide = new ToggleButton("Short");
    private final Button mirror = new Button();
    private final Label mirrorSaid = new Label();
    private Optional<Evaluation> evaluation = Optional.empty();
    private Optional<StrategyDraft> shown = Optional.empty();
    private Side side = Side.LONG;

    /**
     * @param contract that its strategies trade
     * @param edit takes a change of the strategy
     * @param turned told when the person turns to the other side
     */
    RulePanel(Contract contract, Consumer<UnaryOperator<StrategyDraft>> edit, Runnable turned) {
        this.edit = edit;
        this.rows = new RowsView(words -> edit.accept(d -> d.withRule(side, words)));
        this.text = new RuleText(words -> edit.accept(d -> d.withRule(side, words)));
        this.entry = new EntryFields(edit);
        this.setup = new SetupFields(contract, edit);
        ToggleGroup group = new ToggleGroup();
        longSide.setId("side-long");
        shortSide.setId("side-short");
        for (ToggleButton button : List.of(longSide, shortSide)) {
            button.setToggleGroup(group);
            button.setOnAction(e -> {
                button.setSelected(true);
                side(button == longSide ? Side.LONG : Side.SHORT);
                turned.run();
            });
        }
        HBox choice = new HBox(longSide, shortSide);
        choice.getStyleClass().add("choice");
        mirror.setId("mirror");
        mirror.getStyleClass().addAll("small", "link");
        mirror.setOnAction(e -> mirror());
        mirrorSaid.setId("mirror-said");
        mirrorSaid.getStyleClass().add("held");
        mirrorSaid.setWrapText(true);
        mirrorSaid.setMinHeight(Region.USE_PREF_SIZE);
        mirrorSaid.managedProperty().bind(mirrorSaid.textProperty().isNotEmpty());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, choice, gap, mirror);
        head.setAlignment(Pos.CENTER_LEFT);
        Label same = new Label("The same in text");
        same.getStyleClass().add("heading");
        VBox box = new VBox(7, head, mirrorSaid, rows, same, text, entry, setup);
        box.getStyleClass().add("rule-side");
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        FocusScroll.follow(scroll);
        setCenter(scroll);
        getStyleClass().add("side-panel");
        setPrefWidth(332);
        setMinWidth(332);
    }

    /** The side that is worked on. */
    Side side() {
        return side;
    }

    /** Turns to a side as a press of its button does. */
    void turn(Side to) {
        (to == Side.LONG ? longSide : shortSide).fire();
    }

    /** Turns to a side. */
    void side(Side to) {
        side = to;
        mirrorSaid.setText("");
    }

    /** Whether somebody types in the rule's text. */
    boolean isTyping() {
        return text.area().isFocused();
    }

    /** Another strategy is open: nothing is known of it yet. */
    void opened(StrategyDraft draft) {
        evaluation = Optional.empty();
        side(draft.rule(side).isBlank() && !draft.rule(side.opposite()).isBlank() ? side.opposite() : side);
    }

    /** Exit plans that can be chosen by their names. */
    void plans(List<ExitPlan> known) {
        setup.plans(known);
    }

    /** What is written, at once. */
    void show(StrategyDraft draft, List<String> names) {
        shown = Optional.of(draft);
        longSide.setSelected(side == Side.LONG);
        shortSide.setSelected(side == Side.SHORT);
        mirror.setText("mirror from " + side.opposite().word());
        mirror.setTooltip(new Tooltip("Makes the " + side.word() + " rule from the " + side.opposite().word()
                + " one, with every side exchanged"));
        mirror.setDisable(draft.rule(side.opposite()).isBlank());
        rows.show(draft.rule(side), names);
        text.show(draft.rule(side));
        entry.show(draft, side);
        setup.show(draft);
    }

    /** What the tape says to it. */
    void know(Evaluation made, List<String> names) {
        evaluation = Optional.of(made);
        String rule = shown.orElseThrow().rule(side);
        text.know(made.program());
        text.problems(rule.isBlank() ? List.of() : made.program().problems(rule));
        rows.show(rule, names);
    }

    /**
     * Beside each row: its first value at a bar, and on how many bars it held.
     *
     * @param bar the bar that is pointed at; the newest if there is none
     * @param from first bar in view, {@code to} the last one
     */
    void facts(Evaluation made, Optional<Integer> bar, int from, int to) {
        List<Snapshot.Lane> all = made.lanes().getOrDefault(side, List.of());
        Optional<SideRules> rules = Optional.ofNullable(made.sides().get(side));
        int last = made.program().rows() - 1;
        int at = Math.min(last, bar.orElse(last));
        List<RowsView.Facts> facts = IntStream.range(0, Math.max(0, all.size() - 1))
                .mapToObj(i -> new RowsView.Facts(
                        (at < 0 ? "" : number(made, rules.orElseThrow().lanes().get(i).condition().explain(at)))
                                + Evaluation.held(all.get(i), from, to),
                        "true on " + Evaluation.held(all.get(i), 0, last) + " bars of the whole tape"))
                .toList();
        rows.facts(made.draft().rule(side).equals(shown.orElseThrow().rule(side)) ? facts : List.of());
    }

    private static String number(Evaluation made, Explanation of) {
        return of.terms().isEmpty() ? "" : made.words(of.terms().getFirst().amount()) + " · ";
    }

    private void mirror() {
        evaluation.ifPresent(made -> {
            StrategyDraft draft = shown.orElseThrow();
            Side from = side.opposite();
            try {
                Mirroring.Result rule = made.program().mirrored(draft.rule(from));
                List<String> left = new ArrayList<>(rule.left());
                Optional<String> price = draft.price(from).map(written -> {
                    Mirroring.Result level = made.program().mirroredLevel(written);
                    left.addAll(level.left());
                    return level.text();
                });
                edit.accept(d -> price.isPresent()
                        ? d.withRule(side, rule.text()).withPrice(side, price)
                        : d.withRule(side, rule.text()));
                mirrorSaid.setText(left.isEmpty() ? "" : "Stays as it is: " + String.join("; ", left));
            } catch (RuleProblem e) {
                mirrorSaid.setText("The " + from.word() + " rule does not read: " + e.getMessage());
            }
        });
    }
}
