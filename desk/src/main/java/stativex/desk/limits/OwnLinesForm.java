package stativex.desk.limits;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.Consumer;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.files.BadInput;
import stativex.files.OwnLines;
import stativex.market.Money;

/** The own limits of an account, a contract or a strategy: a switch and its figures each, with what it is worth in stop-outs. */
final class OwnLinesForm extends VBox {
    private final OwnLines.Of whose;
    private final Consumer<Map<OwnLines.Kind, OwnLines.Limit>> changed;
    private final Label title = new Label();
    private final VBox rows = new VBox(4);
    private final Label said = new Label();
    private Map<OwnLines.Kind, OwnLines.Limit> limits = Map.of();
    private OptionalLong stopOut = OptionalLong.empty();

    /** @param changed told of limits that somebody wants; what it throws is said beside the fields */
    OwnLinesForm(OwnLines.Of whose, Consumer<Map<OwnLines.Kind, OwnLines.Limit>> changed) {
        super(4);
        this.whose = whose;
        this.changed = changed;
        title.getStyleClass().add("fact");
        said.setId("own-" + word() + "-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        getChildren().addAll(title, rows, said);
    }

    private String word() {
        return whose.name().toLowerCase(java.util.Locale.ROOT);
    }

    /** @param outs what a full stop-out of the strategy at hand costs; empty where nobody knows */
    void show(String name, Map<OwnLines.Kind, OwnLines.Limit> shown, OptionalLong outs) {
        title.setText(name);
        boolean same = shown.equals(limits) && outs.equals(stopOut) && !rows.getChildren().isEmpty();
        limits = shown;
        stopOut = outs;
        if (!same) {
            said.setText("");
            rows.getChildren().clear();
            shown.forEach((kind, limit) -> rows.getChildren().add(row(kind, limit)));
        }
    }

    private VBox row(OwnLines.Kind kind, OwnLines.Limit limit) {
        String id = "own-" + word() + "-" + kind.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
        CheckBox on = new CheckBox(OwnLines.name(kind));
        on.setId(id);
        on.setSelected(limit.on());
        boolean two = kind == OwnLines.Kind.GIVE_BACK || kind == OwnLines.Kind.LOSING_RUN;
        on.setPrefWidth(two ? 92 : 118);
        on.setMinWidth(two ? 92 : 118);
        boolean amount = kind == OwnLines.Kind.DAY_LOSS || kind == OwnLines.Kind.DAY_PROFIT
                || kind == OwnLines.Kind.GIVE_BACK;
        TextField first = field(id + "-first", OwnLines.name(kind) + (amount ? ", money" : ", how many"),
                limit.first(), amount ? (kind == OwnLines.Kind.GIVE_BACK ? 5 : 7) : 3);
        VBox box = new VBox(1);
        if (kind == OwnLines.Kind.GIVE_BACK || kind == OwnLines.Kind.LOSING_RUN) {
            boolean fall = kind == OwnLines.Kind.GIVE_BACK;
            TextField second = field(id + "-second",
                    fall ? "Best of the day from which on it counts, money" : "Minutes of the pause, empty for the day",
                    limit.second(), fall ? 5 : 4);
            Runnable put = () -> put(kind, new OwnLines.Limit(on.isSelected(), first.getText(), second.getText()));
            listen(on, put, first, second);
            box.getChildren().add(Form.row(on, first, Form.muted(fall ? "from" : "trades, pause"), second,
                    Form.muted(fall ? "on" : "min")));
        } else {
            Runnable put = () -> put(kind, new OwnLines.Limit(on.isSelected(), first.getText(), ""));
            listen(on, put, first);
            box.getChildren().add(Form.row(on, first));
        }
        if (kind == OwnLines.Kind.DAY_LOSS && limit.on()) {
            worth(limit.first()).ifPresent(words -> box.getChildren().add(words));
        }
        return box;
    }

    /** {@code 3.1 full stop-outs}; below two it is said that this is few. */
    private java.util.Optional<Label> worth(String amount) {
        if (stopOut.isEmpty() || stopOut.getAsLong() <= 0) {
            return java.util.Optional.empty();
        }
        try {
            long tenths = Math.floorDiv(Math.multiplyExact(Money.parse(amount.strip()), 10L), stopOut.getAsLong());
            Label label = new Label(Format.tenths(tenths) + " full stop-outs of " + Format.money(stopOut.getAsLong())
                    + (tenths < 20 ? ": fewer than two" : ""));
            label.setId("own-" + word() + "-worth");
            label.getStyleClass().add(tenths < 20 ? "near" : "muted");
            label.setStyle("-fx-padding: 0 0 0 24");
            return java.util.Optional.of(label);
        } catch (IllegalArgumentException | ArithmeticException e) {
            return java.util.Optional.empty();
        }
    }

    private void put(OwnLines.Kind kind, OwnLines.Limit limit) {
        if (limit.equals(limits.get(kind)) || limit.on() && limit.first().isBlank()) {
            return;
        }
        Map<OwnLines.Kind, OwnLines.Limit> next = new LinkedHashMap<>(limits);
        next.put(kind, limit);
        try {
            changed.accept(next);
            said.setText("");
        } catch (BadInput e) {
            said.setText(e.getMessage().replaceFirst("^.*?\\$\\.?", ""));
        }
    }

    private static void listen(CheckBox on, Runnable put, TextField... fields) {
        on.setOnAction(e -> {
            put.run();
            if (on.isSelected() && fields[0].getText().isBlank()) {
                fields[0].requestFocus();
            }
        });
        for (TextField field : fields) {
            field.setOnAction(e -> put.run());
            field.focusedProperty().addListener((o, before, now) -> {
                if (!now) {
                    put.run();
                }
            });
        }
    }

    private static TextField field(String id, String words, String text, int columns) {
        TextField field = new TextField(text);
        field.setId(id);
        field.setAccessibleText(words);
        field.setTooltip(new Tooltip(words));
        field.setPrefColumnCount(columns);
        return field;
    }
}
