package stativex.desk.exits;

import java.math.BigDecimal;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusKeeper;
import stativex.desk.look.Form;
import stativex.desk.look.NumberField;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.market.Side;

/** An exit plan in fields, both sides alike or each apart; and in one sentence, or what is wrong with it. */
public final class PlanFields extends VBox {
    private static final List<DistanceField.Unit> OF_STOP = Arrays.stream(DistanceField.Unit.values())
            .filter(unit -> unit != DistanceField.Unit.R).toList();
    private static final List<DistanceField.Unit> OF_TRAIL = Arrays.stream(DistanceField.Unit.values())
            .filter(unit -> unit != DistanceField.Unit.LEVEL).toList();
    private static final List<DistanceField.Unit> ALL = List.of(DistanceField.Unit.values());

    private final Consumer<ExitPlan> changed;
    private final TextField name = new TextField();
    private final CheckBox apart = new CheckBox("apart");
    private final ToggleButton longSide = new ToggleButton("Long");
    private final ToggleButton shortSide = new ToggleButton("Short");
    private final CheckBox stops = new CheckBox();
    private final DistanceField stop = new DistanceField("plan-stop", "distance of the stop", 1, OF_STOP, this::tell);
    private final CheckBox follows = new CheckBox("follows");
    private final TextField follow = new TextField();
    private final CheckBox local = new CheckBox("held here");
    private final NumberField disaster = number("plan-disaster", "20", "ticks further out at the broker");
    private final NumberField volume = new NumberField("0", 4, "contracts that are counted; 0: the first print",
            BigDecimal.ZERO);
    private final VBox targets = new VBox(4);
    private final CheckBox breakeven = new CheckBox();
    private final CheckBox afterOn = new CheckBox("after");
    private final DistanceField after = new DistanceField("plan-after", "breakeven trigger", 1, ALL, this::tell);
    private final CheckBox barsOn = new CheckBox("after");
    private final NumberField bars = number("plan-be-bars", "10", "bars until breakeven");
    private final CheckBox legOn = new CheckBox("at target");
    private final NumberField leg = number("plan-be-leg", "1", "target that leads to breakeven");
    private final DistanceField offset = new DistanceField("plan-offset", "breakeven offset", -1000, ALL, this::tell);
    private final VBox trail = new VBox(4);
    private final ComboBox<String> judged = new ComboBox<>();
    private final LeaveFields leaves;
    private final Label said = new Label();
    private final VBox breakevenRows;
    private final HBox followRow;
    private final HBox localRow;
    private List<Leg> legs = new ArrayList<>();
    private List<Step> steps = new ArrayList<>();
    private Side side = Side.LONG;
    /** The side that is not shown, while the sides are apart. */
    private Optional<ExitTerms> other = Optional.empty();
    private boolean showing;

    /** Fields of a target; without {@code distance} it is the runner. */
    private record Leg(NumberField quantity, Optional<DistanceField> distance) {}

    private record Step(DistanceField from, DistanceField behind, DistanceField every) {}

    /**
     * @param exchange its zone, which a clock time begins with
     * @param changed told of each plan that reads
     */
    public PlanFields(ZoneId exchange, Consumer<ExitPlan> changed) {
        super(5);
        this.changed = changed;
        this.leaves = new LeaveFields(exchange, this::tell);
        ids();
        breakevenRows = new VBox(4, row(breakeven, Form.muted("stop to"), offset), row(afterOn, after),
                row(barsOn, bars, Form.muted("bars"), legOn, leg));
        followRow = row(follows, follow);
        localRow = row(local, disaster, Form.muted("t out, counts"), volume);
        judged.getItems().setAll("at every print", "at bar closes");
        getChildren().addAll(Form.line("Name", name), Form.line("Sides", apart, longSide, shortSide),
                Form.line("Stop", stops, stop),
                Form.line("", followRow), Form.line("", localRow), Form.line("Targets", targets),
                Form.line("Breakeven", breakevenRows),
                Form.line("Trail", trail), Form.line("Judged", judged), Form.line("Leave", leaves), said);
        listen();
    }

    private void ids() {
        name.setId("plan-name");
        name.setAccessibleText("Name of the exit plan");
        HBox.setHgrow(name, Priority.ALWAYS);
        apart.setId("plan-apart");
        apart.setTooltip(new Tooltip("Long and short trades are left in different ways"));
        longSide.setId("plan-long");
        shortSide.setId("plan-short");
        longSide.getStyleClass().add("small");
        shortSide.getStyleClass().add("small");
        stops.setId("plan-stops");
        stops.setAccessibleText("Whether there is a stop");
        follows.setId("plan-follows");
        follows.setTooltip(
                new Tooltip("At each bar close the stop takes the value of a study, where that tightens it"));
        follow.setId("plan-follow");
        follow.setPromptText("study");
        follow.setAccessibleText("Study that the stop follows, in the rule language");
        HBox.setHgrow(follow, Priority.ALWAYS);
        local.setId("plan-local");
        local.setTooltip(new Tooltip("The stop is kept on this computer; the broker holds one further out"));
        volume.setId("plan-volume");
        volume.setTooltip(new Tooltip("Contracts at or beyond the level until the trade is left; 0: the first print"));
        breakeven.setId("plan-breakeven");
        breakeven.setAccessibleText("Whether the stop moves to breakeven");
        afterOn.setId("plan-after-on");
        barsOn.setId("plan-be-bars-on");
        barsOn.setTooltip(new Tooltip("So many bars since the entry, and a close beyond entry and offset"));
        legOn.setId("plan-be-leg-on");
        judged.setId("plan-judged");
        judged.setAccessibleText("When breakeven and trail are judged");
        said.setId("plan-said");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.setMaxWidth(Double.MAX_VALUE);
        for (CheckBox box : List.of(apart, stops, follows, local, breakeven, afterOn, barsOn, legOn)) {
            box.setMinWidth(USE_PREF_SIZE);
        }
    }

    private void listen() {
        for (TextField field : List.of(name, follow)) {
            field.setOnAction(e -> tell());
            field.focusedProperty().addListener((o, before, now) -> {
                if (!now) {
                    tell();
                }
            });
        }
        for (CheckBox box : List.of(stops, follows, local, breakeven, afterOn, barsOn, legOn)) {
            box.setOnAction(e -> tell());
        }
        breakeven.setOnAction(e -> {
            if (breakeven.isSelected() && !afterOn.isSelected() && !barsOn.isSelected() && !legOn.isSelected()) {
                afterOn.setSelected(true);
            }
            tell();
        });
        for (NumberField field : List.of(disaster, volume, bars, leg)) {
            field.onChanged(this::tell);
        }
        bars.setMinWidth(40);
        judged.setOnAction(e -> tell());
        apart.setOnAction(e -> apart());
        longSide.setOnAction(e -> turn(Side.LONG));
        shortSide.setOnAction(e -> turn(Side.SHORT));
    }

    private static NumberField number(String id, String value, String words) {
        NumberField field = new NumberField(value, 3, words, BigDecimal.ONE);
        field.setId(id);
        return field;
    }

    private static HBox row(Node... fields) {
        HBox row = new HBox(5, fields);
        row.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(row, Priority.ALWAYS);
        return row;
    }

    private void tell() {
        if (!showing) {
            enable();
            try {
                ExitPlan plan = plan();
                say(plan);
                changed.accept(plan);
            } catch (IllegalArgumentException e) {
                said.setText(e.getMessage());
                said.getStyleClass().setAll("label", "problem");
            }
        }
    }

    private void say(ExitPlan plan) {
        String words = plan.words();
        said.setText(words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1) + ".");
        said.getStyleClass().setAll("label", "state");
    }

    /** Fields of what is off are not in the way. */
    private void enable() {
        stop.setDisable(!stops.isSelected());
        Form.show(followRow.getParent(), stops.isSelected());
        Form.show(localRow.getParent(), stops.isSelected());
        follow.setDisable(!follows.isSelected());
        disaster.setDisable(!local.isSelected());
        volume.setDisable(!local.isSelected());
        for (int i = 1; i < breakevenRows.getChildren().size(); i++) {
            Form.show(breakevenRows.getChildren().get(i), breakeven.isSelected());
        }
        offset.setDisable(!breakeven.isSelected());
        after.setDisable(!afterOn.isSelected());
        bars.setDisable(!barsOn.isSelected());
        leg.setDisable(!legOn.isSelected());
        Form.show(longSide, apart.isSelected());
        Form.show(shortSide, apart.isSelected());
        longSide.setSelected(side == Side.LONG);
        shortSide.setSelected(side == Side.SHORT);
    }

    /** The sides begin alike and go apart, or the one that is shown stands for both. */
    private void apart() {
        try {
            ExitTerms mine = terms();
            other = apart.isSelected() ? Optional.of(mine) : Optional.empty();
            side = apart.isSelected() ? side : Side.LONG;
            tell();
        } catch (IllegalArgumentException e) {
            apart.setSelected(!apart.isSelected());
            said.setText(e.getMessage());
        }
    }

    private void turn(Side to) {
        try {
            if (to != side && other.isPresent()) {
                ExitTerms mine = terms();
                ExitTerms next = other.get();
                other = Optional.of(mine);
                side = to;
                showing = true;
                show(next);
                showing = false;
            }
        } catch (IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
        enable();
    }

    /** The side that is shown. */
    public Side side() {
        return side;
    }

    private static int whole(NumberField field, int least) {
        return field.number().filter(n -> n.stripTrailingZeros().scale() <= 0
                && n.compareTo(BigDecimal.valueOf(least)) >= 0 && n.compareTo(BigDecimal.valueOf(1_000_000)) <= 0)
                .map(BigDecimal::intValue).orElseThrow(() -> new IllegalArgumentException(
                        field.getAccessibleText() + ": expected a whole number of " + least + " or more"));
    }

    /** @throws IllegalArgumentException when the fields make no plan */
    private ExitPlan plan() {
        if (name.getText().isBlank()) {
            throw new IllegalArgumentException("expected a name for the plan");
        }
        ExitTerms mine = terms();
        ExitTerms theirs = other.orElse(mine);
        return side == Side.LONG
                ? new ExitPlan(name.getText().strip(), "", mine, theirs)
                : new ExitPlan(name.getText().strip(), "", theirs, mine);
    }

    private ExitTerms terms() {
        Optional<ExitTerms.Stop> level = !stops.isSelected()
                ? Optional.empty()
                : Optional.of(new ExitTerms.Stop(stop.distance(),
                        follows.isSelected() ? Optional.of(followed()) : Optional.empty(),
                        local.isSelected()
                                ? Optional.of(new ExitTerms.Local(whole(disaster, 1), whole(volume, 0)))
                                : Optional.empty()));
        Optional<ExitTerms.Breakeven> move = !breakeven.isSelected()
                ? Optional.empty()
                : Optional.of(new ExitTerms.Breakeven(
                        afterOn.isSelected() ? Optional.of(after.distance()) : Optional.empty(),
                        barsOn.isSelected() ? OptionalInt.of(whole(bars, 1)) : OptionalInt.empty(),
                        legOn.isSelected() ? OptionalInt.of(whole(leg, 1)) : OptionalInt.empty(), offset.distance()));
        return new ExitTerms(level,
                legs.stream().map(one -> new ExitTerms.Target(whole(one.quantity(), 1),
                        one.distance().map(DistanceField::distance))).toList(),
                move,
                steps.stream().map(step -> new ExitTerms.TrailStep(step.from().distance(), step.behind().distance(),
                        step.every().distance())).toList(),
                judged.getSelectionModel().getSelectedIndex() == 1
                        ? ExitTerms.Judged.BAR_CLOSE
                        : ExitTerms.Judged.EVERY_PRINT,
                leaves.leaves());
    }

    private String followed() {
        if (follow.getText().isBlank()) {
            throw new IllegalArgumentException("follows: expected a study");
        }
        return follow.getText().strip();
    }

    /** Shows a plan, unless it is what stands here already. */
    public void show(ExitPlan plan) {
        if (reads().filter(mine -> same(mine, plan)).isPresent()) {
            say(plan);
            enable();
            return;
        }
        showing = true;
        name.setText(plan.name());
        boolean differs = !plan.longTerms().equals(plan.shortTerms());
        apart.setSelected(differs);
        side = differs ? side : Side.LONG;
        other = differs ? Optional.of(plan.terms(side.opposite())) : Optional.empty();
        show(plan.terms(side));
        say(plan);
        showing = false;
        enable();
    }

    private void show(ExitTerms terms) {
        stops.setSelected(terms.stop().isPresent());
        terms.stop().ifPresent(s -> stop.show(s.distance()));
        follows.setSelected(terms.follow().isPresent());
        follow.setText(terms.follow().orElse(""));
        local.setSelected(terms.local().isPresent());
        terms.local().ifPresent(l -> {
            disaster.setText(Long.toString(l.disaster()));
            volume.setText(Long.toString(l.volume()));
        });
        breakeven.setSelected(terms.breakeven().isPresent());
        if (terms.breakeven().isEmpty()) {
            after.show(new Distance.Ticks(12));
            offset.show(new Distance.Ticks(1));
        }
        terms.breakeven().ifPresent(b -> {
            afterOn.setSelected(b.after().isPresent());
            b.after().ifPresent(after::show);
            barsOn.setSelected(b.bars().isPresent());
            b.bars().ifPresent(n -> bars.setText(Integer.toString(n)));
            legOn.setSelected(b.leg().isPresent());
            b.leg().ifPresent(n -> leg.setText(Integer.toString(n)));
            offset.show(b.offset());
        });
        legs = new ArrayList<>();
        terms.targets().forEach(target -> legs.add(leg(target.quantity(), target.distance())));
        steps = new ArrayList<>();
        terms.trail().forEach(step -> steps.add(step(step.activate(), step.distance(), step.step())));
        judged.getSelectionModel().select(terms.judged() == ExitTerms.Judged.BAR_CLOSE ? 1 : 0);
        leaves.show(terms.leaves());
        rows();
    }

    private Optional<ExitPlan> reads() {
        try {
            return judged.getValue() == null ? Optional.empty() : Optional.of(plan());
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static boolean same(ExitPlan a, ExitPlan b) {
        return a.name().equals(b.name()) && a.longTerms().equals(b.longTerms())
                && a.shortTerms().equals(b.shortTerms());
    }

    private Leg leg(int quantity, Optional<Distance> distance) {
        NumberField contracts = new NumberField(Integer.toString(quantity), 2, "contracts of the target",
                BigDecimal.ONE);
        contracts.onChanged(this::tell);
        contracts.setMinWidth(34);
        return new Leg(contracts, distance.map(d -> {
            DistanceField field = new DistanceField("target-ticks-" + legs.size(), "distance of the target", 1, ALL,
                    this::tell);
            field.show(d);
            return field;
        }));
    }

    private Step step(Distance from, Distance behind, Distance every) {
        int at = steps.size();
        Step step = new Step(
                new DistanceField("trail-from-" + at, "distance from which the stop follows", 0, OF_TRAIL, this::tell),
                new DistanceField("trail-behind-" + at, "distance that the stop follows behind", 1, OF_TRAIL,
                        this::tell),
                new DistanceField("trail-every-" + at, "distance that it moves by", 1, OF_TRAIL, this::tell));
        step.from().show(from);
        step.behind().show(behind);
        step.every().show(every);
        return step;
    }

    /** Builds the rows of targets and trail steps anew. */
    private void rows() {
        FocusKeeper.rebuild(this, () -> {
            targets.getChildren().clear();
            for (int i = 0; i < legs.size(); i++) {
                Leg one = legs.get(i);
                one.quantity().setId("target-quantity-" + i);
                Button less = less("target-less-" + i, () -> legs.remove(one));
                targets.getChildren().add(one.distance().isPresent()
                        ? row(one.quantity(), Form.muted("at"), one.distance().get(), less)
                        : row(one.quantity(), Form.muted("runs without a target"), less));
            }
            Button target = more("target-more", "+ target",
                    () -> legs.add(leg(1, Optional.of(new Distance.Ticks(30)))));
            Button runner = more("target-runner", "+ runner", () -> legs.add(leg(1, Optional.empty())));
            runner.setDisable(legs.stream().anyMatch(one -> one.distance().isEmpty()));
            targets.getChildren().add(row(target, runner));
            trail.getChildren().clear();
            for (int i = 0; i < steps.size(); i++) {
                Step step = steps.get(i);
                VBox rows = new VBox(3,
                        row(Form.muted("from"), step.from(), less("trail-less-" + i, () -> steps.remove(step))),
                        row(Form.muted("behind"), step.behind()), row(Form.muted("every"), step.every()));
                trail.getChildren().add(rows);
            }
            trail.getChildren().add(more("trail-more", "+ step", () -> steps.add(
                    step(new Distance.Ticks(16 + 10L * steps.size()), new Distance.Ticks(12), new Distance.Ticks(1)))));
        });
    }

    private Button more(String id, String words, Runnable add) {
        return button(id, words, () -> {
            add.run();
            again();
        });
    }

    private Button less(String id, Runnable remove) {
        Button less = button(id, "×", () -> {
            remove.run();
            again();
        });
        less.setAccessibleText("Take this line away");
        return less;
    }

    /** The rows are others; they are numbered anew. */
    private void again() {
        try {
            ExitTerms now = terms();
            showing = true;
            show(now);
            showing = false;
        } catch (IllegalArgumentException e) {
            rows();
        }
        tell();
    }

    private static Button button(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().addAll("small", words.length() > 1 ? "link" : "quiet");
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(e -> act.run());
        return button;
    }
}
