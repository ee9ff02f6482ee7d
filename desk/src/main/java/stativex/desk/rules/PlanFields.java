package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusKeeper;
import stativex.desk.look.NumberField;
import stativex.exit.ExitPlan;
import stativex.market.Money;

/** An exit plan in fields: stop, targets and a runner, breakeven, trail steps; and in one sentence, or what is wrong with it. */
final class PlanFields extends VBox {
    private static final String TICKS = "ticks";
    private static final String MONEY = "money a contract";

    private final Consumer<ExitPlan> changed;
    private final TextField name = new TextField();
    private final CheckBox stops = new CheckBox();
    private final NumberField stop = number("plan-stop", "20", "Distance of the stop");
    private final ComboBox<String> unit = new ComboBox<>();
    private final VBox targets = new VBox(4);
    private final CheckBox breakeven = new CheckBox("after");
    private final NumberField after = number("plan-after", "12",
            "Ticks in favour after which the stop goes to breakeven");
    private final NumberField offset = new NumberField("1", 3, "Ticks from the average that breakeven stands at",
            BigDecimal.valueOf(-1000));
    private final VBox trail = new VBox(4);
    private final Label said = new Label();
    private List<Leg> legs = new ArrayList<>();
    private List<Step> steps = new ArrayList<>();
    private boolean showing;

    /** Fields of a target; without {@code ticks} it is the runner. */
    private record Leg(NumberField quantity, Optional<NumberField> ticks) {}

    private record Step(NumberField from, NumberField behind, NumberField every) {}

    /** @param changed told of each plan that reads */
    PlanFields(Consumer<ExitPlan> changed) {
        super(5);
        this.changed = changed;
        name.setId("plan-name");
        name.setAccessibleText("Name of the exit plan");
        HBox.setHgrow(name, javafx.scene.layout.Priority.ALWAYS);
        stops.setId("plan-stops");
        stops.setAccessibleText("Whether there is a stop");
        unit.setId("plan-unit");
        unit.setAccessibleText("Unit of the stop");
        unit.getItems().setAll(TICKS, MONEY);
        breakeven.setId("plan-breakeven");
        offset.setId("plan-offset");
        said.setId("plan-said");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.setMaxWidth(Double.MAX_VALUE);
        getChildren().addAll(SetupFields.line("Name", name), SetupFields.line("Stop", stops, stop, unit),
                SetupFields.line("Targets", targets),
                SetupFields.line("Breakeven", breakeven, after, SetupFields.muted("t, at"), offset,
                        SetupFields.muted("t")),
                SetupFields.line("Trail", trail), said);
        name.setOnAction(e -> tell());
        name.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                tell();
            }
        });
        stops.setOnAction(e -> tell());
        stop.onChanged(this::tell);
        unit.setOnAction(e -> tell());
        breakeven.setOnAction(e -> tell());
        after.onChanged(this::tell);
        offset.onChanged(this::tell);
    }

    private static NumberField number(String id, String value, String words) {
        NumberField field = new NumberField(value, 4, words, BigDecimal.ONE);
        field.setId(id);
        return field;
    }

    private static long whole(NumberField field) {
        return field.number().filter(
                n -> n.stripTrailingZeros().scale() <= 0 && n.abs().compareTo(BigDecimal.valueOf(1_000_000)) <= 0)
                .map(BigDecimal::longValue)
                .orElseThrow(
                        () -> new IllegalArgumentException(field.getAccessibleText() + ": expected a whole number"));
    }

    private void tell() {
        if (!showing) {
            try {
                ExitPlan plan = plan();
                said.setText(sentence(plan));
                said.getStyleClass().setAll("label", "state");
                changed.accept(plan);
            } catch (IllegalArgumentException e) {
                said.setText(e.getMessage());
                said.getStyleClass().setAll("label", "problem");
            }
        }
    }

    private static String sentence(ExitPlan plan) {
        String words = plan.words();
        return words.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + words.substring(1) + ".";
    }

    /** @throws IllegalArgumentException when the fields make no plan */
    private ExitPlan plan() {
        if (name.getText().isBlank()) {
            throw new IllegalArgumentException("expected a name for the plan");
        }
        Optional<ExitPlan.Stop> level = !stops.isSelected()
                ? Optional.empty()
                : Optional.of(unit.getValue().equals(TICKS)
                        ? new ExitPlan.Stop.Ticks(atLeastOne(whole(stop)))
                        : new ExitPlan.Stop.PerContract(Money.parse(stop.getText().strip())));
        return new ExitPlan(name.getText().strip(), "", level,
                legs.stream().map(
                        leg -> new ExitPlan.Target((int) whole(leg.quantity()), leg.ticks().map(PlanFields::whole)))
                        .toList(),
                breakeven.isSelected()
                        ? Optional.of(new ExitPlan.Breakeven(whole(after), whole(offset)))
                        : Optional.empty(),
                steps.stream().map(step -> new ExitPlan.TrailStep(whole(step.from()), whole(step.behind()),
                        whole(step.every()))).toList());
    }

    private static long atLeastOne(long ticks) {
        if (ticks < 1) {
            throw new IllegalArgumentException("Distance of the stop: expected 1 tick or more");
        }
        return ticks;
    }

    /** Shows a plan, unless it is what stands here already. */
    void show(ExitPlan plan) {
        if (reads().filter(mine -> same(mine, plan)).isPresent()) {
            said.setText(sentence(plan));
            said.getStyleClass().setAll("label", "state");
            return;
        }
        showing = true;
        name.setText(plan.name());
        stops.setSelected(plan.stop().isPresent());
        plan.stop().ifPresent(level -> {
            stop.setText(switch (level) {
                case ExitPlan.Stop.Ticks t -> Long.toString(t.ticks());
                case ExitPlan.Stop.PerContract m -> Money.text(m.money());
            });
            unit.setValue(level instanceof ExitPlan.Stop.Ticks ? TICKS : MONEY);
        });
        if (unit.getValue() == null) {
            unit.setValue(TICKS);
        }
        breakeven.setSelected(plan.breakeven().isPresent());
        plan.breakeven().ifPresent(b -> {
            after.setText(Long.toString(b.after()));
            offset.setText(Long.toString(b.offset()));
        });
        legs = new ArrayList<>(plan.targets().stream()
                .map(target -> leg(target.quantity(), target.ticks().map(ticks -> Long.toString(ticks)))).toList());
        steps = new ArrayList<>(plan.trail().stream()
                .map(step -> step(step.activate(), step.distance(), step.step())).toList());
        rows();
        said.setText(sentence(plan));
        said.getStyleClass().setAll("label", "state");
        showing = false;
    }

    private Optional<ExitPlan> reads() {
        try {
            return unit.getValue() == null ? Optional.empty() : Optional.of(plan());
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static boolean same(ExitPlan a, ExitPlan b) {
        return a.name().equals(b.name()) && a.stop().equals(b.stop()) && a.targets().equals(b.targets())
                && a.breakeven().equals(b.breakeven()) && a.trail().equals(b.trail());
    }

    private Leg leg(int quantity, Optional<String> ticks) {
        NumberField contracts = new NumberField(Integer.toString(quantity), 2, "Contracts of the target",
                BigDecimal.ONE);
        contracts.onChanged(this::tell);
        Optional<NumberField> distance = ticks.map(text -> {
            NumberField field = new NumberField(text, 4, "Ticks to the target", BigDecimal.ONE);
            field.onChanged(this::tell);
            return field;
        });
        return new Leg(contracts, distance);
    }

    private Step step(long from, long behind, long every) {
        Step step = new Step(
                new NumberField(Long.toString(from), 3, "Ticks in favour from which the stop follows", BigDecimal.ZERO),
                new NumberField(Long.toString(behind), 3, "Ticks that the stop follows behind", BigDecimal.ONE),
                new NumberField(Long.toString(every), 2, "Ticks that it moves by", BigDecimal.ONE));
        List.of(step.from(), step.behind(), step.every()).forEach(field -> field.onChanged(this::tell));
        return step;
    }

    /** Builds the rows of targets and trail steps anew. */
    private void rows() {
        FocusKeeper.rebuild(this, () -> {
            targets.getChildren().clear();
            for (int i = 0; i < legs.size(); i++) {
                Leg leg = legs.get(i);
                leg.quantity().setId("target-quantity-" + i);
                leg.ticks().ifPresent(field -> field.setId("target-ticks-" + legs.indexOf(leg)));
                Button less = less("target-less-" + i, () -> legs.remove(leg));
                targets.getChildren().add(leg.ticks().isPresent()
                        ? SetupFields.row(leg.quantity(), SetupFields.muted("at"), leg.ticks().get(),
                                SetupFields.muted("t"), less)
                        : SetupFields.row(leg.quantity(), SetupFields.muted("runs without a target"), less));
            }
            Button target = more("target-more", "+ target", () -> legs.add(leg(1, Optional.of("30"))));
            Button runner = more("target-runner", "+ runner", () -> legs.add(leg(1, Optional.empty())));
            runner.setDisable(legs.stream().anyMatch(leg -> leg.ticks().isEmpty()));
            targets.getChildren().add(SetupFields.row(target, runner));
            trail.getChildren().clear();
            for (int i = 0; i < steps.size(); i++) {
                Step step = steps.get(i);
                step.from().setId("trail-from-" + i);
                step.behind().setId("trail-behind-" + i);
                step.every().setId("trail-every-" + i);
                trail.getChildren()
                        .add(SetupFields.row(SetupFields.muted("from"), step.from(), SetupFields.muted("behind"),
                                step.behind(), SetupFields.muted("by"), step.every(),
                                less("trail-less-" + i, () -> steps.remove(step))));
            }
            long from = steps.isEmpty()
                    ? 16
                    : steps.getLast().from().number().map(BigDecimal::longValue).orElse(16L) + 10;
            trail.getChildren().add(more("trail-more", "+ step", () -> steps.add(step(from, 12, 1))));
        });
    }

    private Button more(String id, String words, Runnable add) {
        return SetupFields.button(id, words, () -> {
            add.run();
            rows();
            tell();
        });
    }

    private Button less(String id, Runnable remove) {
        Button less = SetupFields.button(id, "×", () -> {
            remove.run();
            rows();
            tell();
        });
        less.setAccessibleText("Take this line away");
        return less;
    }
}
