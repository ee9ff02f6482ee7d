package stativex.desk.exits;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.NumberField;
import stativex.exit.Leave;

/** The ways a plan leaves at the market, each with a tick and its figures. */
final class LeaveFields extends VBox {
    private final Runnable changed;
    private final CheckBox bars = box("leave-bars", "after", "Leaves so many bars after the one that holds the entry");
    private final NumberField count = new NumberField("20", 3, "Bars until the trade is left", BigDecimal.ONE);
    private final CheckBox profit = box("leave-bars-profit", "if in profit",
            "From then on at the first close in profit, else whatever the price");
    private final CheckBox first = box("leave-first", "first close in profit",
            "Leaves at the first bar that closes in profit");
    private final CheckBox opposite = box("leave-opposite", "opposite signal",
            "Leaves when the other side's rule fires");
    private final CheckBox rule = box("leave-rule", "when", "Leaves while a condition of the rule language holds");
    private final TextField condition = new TextField();
    private final NumberField part = new NumberField("", 2, "Contracts that the rule takes off once; empty: all",
            BigDecimal.ONE);
    private final CheckBox window = box("leave-window", "window's end", "Leaves when the session window ends");
    private final CheckBox clock = box("leave-clock", "at", "Leaves at a time of day");
    private final TextField time = new TextField("16:45");
    private final TextField zone = new TextField();
    /** What the fields cannot show stays as it is. */
    private List<Leave> others = List.of();

    LeaveFields(ZoneId exchange, Runnable changed) {
        super(4);
        this.changed = changed;
        count.setId("leave-bars-count");
        condition.setId("leave-rule-text");
        condition.setPromptText("condition");
        condition.setAccessibleText("Condition on which the trade is left");
        condition.setPrefColumnCount(8);
        HBox.setHgrow(condition, Priority.ALWAYS);
        part.setId("leave-rule-part");
        part.setTooltip(new Tooltip("Contracts, once in a trade; empty: everything"));
        time.setId("leave-time");
        time.setPrefColumnCount(4);
        time.setAccessibleText("Time of day at which the trade is left");
        zone.setId("leave-zone");
        zone.setText(exchange.getId());
        zone.setPrefColumnCount(9);
        zone.setAccessibleText("Zone of that time");
        HBox.setHgrow(zone, Priority.ALWAYS);
        getChildren().addAll(Form.row(bars, count, Form.muted("bars"), profit), Form.row(first), Form.row(opposite),
                Form.row(rule, condition, part), Form.row(window), Form.row(clock, time, zone));
        Stream.of(bars, profit, first, opposite, rule, window, clock).forEach(b -> b.setOnAction(e -> tell()));
        Stream.of(condition, time, zone).forEach(field -> {
            field.setOnAction(e -> tell());
            field.focusedProperty().addListener((o, before, now) -> {
                if (!now) {
                    tell();
                }
            });
        });
        count.onChanged(this::tell);
        part.onChanged(this::tell);
    }

    private static CheckBox box(String id, String words, String help) {
        CheckBox box = new CheckBox(words);
        box.setId(id);
        box.setAccessibleText(help);
        box.setTooltip(new Tooltip(help));
        box.setMinWidth(USE_PREF_SIZE);
        return box;
    }

    private void tell() {
        changed.run();
    }

    void show(List<Leave> leaves) {
        List<Leave> left = new ArrayList<>(leaves);
        Optional<Leave.AfterBars> after = take(left, Leave.AfterBars.class);
        bars.setSelected(after.isPresent());
        after.ifPresent(a -> {
            count.setText(Integer.toString(a.bars()));
            profit.setSelected(a.onlyInProfit());
        });
        first.setSelected(take(left, Leave.FirstCloseInProfit.class).isPresent());
        opposite.setSelected(take(left, Leave.OppositeSignal.class).isPresent());
        Optional<Leave.Rule> ruled = take(left, Leave.Rule.class);
        rule.setSelected(ruled.isPresent());
        ruled.ifPresent(r -> {
            condition.setText(r.rule());
            part.setText(r.quantity().isPresent() ? Integer.toString(r.quantity().getAsInt()) : "");
        });
        window.setSelected(take(left, Leave.WindowEnd.class).isPresent());
        Optional<Leave.ClockTime> at = take(left, Leave.ClockTime.class);
        clock.setSelected(at.isPresent());
        at.ifPresent(c -> {
            time.setText(c.time().toString());
            zone.setText(c.zone().getId());
        });
        others = List.copyOf(left);
    }

    private static <T extends Leave> Optional<T> take(List<Leave> from, Class<T> kind) {
        Optional<T> found = from.stream().filter(kind::isInstance).map(kind::cast).findFirst();
        found.ifPresent(from::remove);
        return found;
    }

    /** @throws IllegalArgumentException saying which field holds nothing possible */
    List<Leave> leaves() {
        List<Leave> leaves = new ArrayList<>();
        if (bars.isSelected()) {
            leaves.add(new Leave.AfterBars(whole(count), profit.isSelected()));
        }
        if (first.isSelected()) {
            leaves.add(new Leave.FirstCloseInProfit());
        }
        if (opposite.isSelected()) {
            leaves.add(new Leave.OppositeSignal());
        }
        if (rule.isSelected()) {
            if (condition.getText().isBlank()) {
                throw new IllegalArgumentException("leave when: expected a condition");
            }
            leaves.add(new Leave.Rule(condition.getText().strip(),
                    part.getText().isBlank() ? OptionalInt.empty() : OptionalInt.of(whole(part))));
        }
        if (window.isSelected()) {
            leaves.add(new Leave.WindowEnd());
        }
        if (clock.isSelected()) {
            leaves.add(clock());
        }
        leaves.addAll(others);
        return leaves;
    }

    private Leave clock() {
        String text = time.getText().strip();
        try {
            return new Leave.ClockTime(LocalTime.parse(text.indexOf(':') == 1 ? "0" + text : text),
                    ZoneId.of(zone.getText().strip()));
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "leave at: expected a time such as 16:45 and a zone such as Pacific/Auckland", e);
        }
    }

    private static int whole(NumberField field) {
        return field.number().filter(n -> n.signum() > 0 && n.stripTrailingZeros().scale() <= 0
                && n.compareTo(BigDecimal.valueOf(100_000)) <= 0).map(BigDecimal::intValue)
                .orElseThrow(() -> new IllegalArgumentException(
                        field.getAccessibleText() + ": expected a whole number"));
    }
}
