package stativex.desk.exits;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import stativex.desk.look.NumberField;
import stativex.exit.Distance;
import stativex.market.Decimals;
import stativex.market.Money;

/** A distance of an exit plan: how much, in which unit, of which study. */
final class DistanceField extends HBox {
    /** What a distance may be given in, as said on screen. */
    enum Unit {
        TICKS("ticks"), PRICE("price"), CONTRACT("money a contract"), POSITION("money in all"), PERCENT("percent"), R(
                "R"), TIMES("× study"), LEVEL("study's level");

        private final String words;

        Unit(String words) {
            this.words = words;
        }
    }

    private final NumberField amount;
    private final ComboBox<String> unit = new ComboBox<>();
    private final TextField study = new TextField();
    private final Map<String, Unit> units = new LinkedHashMap<>();
    private final String words;

    /**
     * @param words what it is, for messages and for those who do not see it
     * @param least the smallest value that arrows reach
     */
    DistanceField(String id, String words, long least, List<Unit> offered, Runnable changed) {
        super(4);
        this.words = words;
        offered.forEach(one -> units.put(one.words, one));
        amount = new NumberField("", 4, words, BigDecimal.valueOf(least));
        amount.setId(id);
        amount.setMinWidth(46);
        unit.setId(id + "-unit");
        unit.setAccessibleText("Unit of " + words);
        unit.getItems().setAll(units.keySet());
        unit.setValue(units.keySet().iterator().next());
        unit.setPrefWidth(92);
        unit.setMinWidth(62);
        study.setId(id + "-study");
        study.setPromptText("study");
        study.setPrefColumnCount(6);
        study.setAccessibleText("Study of " + words + ", in the rule language");
        study.setTooltip(new Tooltip("A study by its name, or any distance or price of the rule language"));
        HBox.setHgrow(study, Priority.ALWAYS);
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(amount, unit, study);
        HBox.setHgrow(this, Priority.ALWAYS);
        amount.onChanged(changed);
        unit.setOnAction(e -> {
            fields();
            changed.run();
        });
        study.setOnAction(e -> changed.run());
        study.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                changed.run();
            }
        });
        fields();
    }

    private Unit chosen() {
        return units.get(unit.getValue());
    }

    private void fields() {
        boolean level = chosen() == Unit.LEVEL;
        boolean asks = level || chosen() == Unit.TIMES;
        amount.setVisible(!level);
        amount.setManaged(!level);
        study.setVisible(asks);
        study.setManaged(asks);
    }

    /** Shows a distance. */
    void show(Distance distance) {
        switch (distance) {
            case Distance.Ticks t -> set(Unit.TICKS, Long.toString(t.ticks()));
            case Distance.Price p -> set(Unit.PRICE, p.price().toPlainString());
            case Distance.PerContract m -> set(Unit.CONTRACT, Money.text(m.money()));
            case Distance.WholePosition m -> set(Unit.POSITION, Money.text(m.money()));
            case Distance.Percent p -> set(Unit.PERCENT, p.percent().toPlainString());
            case Distance.Risks r -> set(Unit.R, r.times().toPlainString());
            case Distance.Times t -> {
                set(Unit.TIMES, t.times().toPlainString());
                study.setText(t.study());
            }
            case Distance.Level l -> {
                set(Unit.LEVEL, "");
                study.setText(l.study());
            }
        }
    }

    private void set(Unit of, String text) {
        unit.setValue(of.words);
        amount.setText(text);
        fields();
    }

    /** What stands there. @throws IllegalArgumentException saying what was expected */
    Distance distance() {
        return switch (chosen()) {
            case TICKS -> new Distance.Ticks(whole());
            case PRICE -> new Distance.Price(number());
            case CONTRACT -> new Distance.PerContract(money());
            case POSITION -> new Distance.WholePosition(money());
            case PERCENT -> new Distance.Percent(number());
            case R -> new Distance.Risks(number());
            case TIMES -> new Distance.Times(number(), text());
            case LEVEL -> new Distance.Level(text());
        };
    }

    private String text() {
        if (study.getText().isBlank()) {
            throw new IllegalArgumentException(words + ": expected the name of a study");
        }
        return study.getText().strip();
    }

    private long money() {
        try {
            return Money.parse(amount.getText().strip());
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(words + ": " + e.getMessage(), e);
        }
    }

    private BigDecimal number() {
        try {
            return Decimals.plain(amount.getText().strip());
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(words + ": expected a number, found \"" + amount.getText() + "\"", e);
        }
    }

    private long whole() {
        return amount.number()
                .filter(n -> n.stripTrailingZeros().scale() <= 0
                        && n.abs().compareTo(BigDecimal.valueOf(1_000_000)) <= 0)
                .map(BigDecimal::longValue)
                .orElseThrow(() -> new IllegalArgumentException(words + ": expected a whole number"));
    }
}
