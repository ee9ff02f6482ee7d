package stativex.desk.look;

import java.math.BigDecimal;
import java.util.Optional;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.ScrollEvent;
import stativex.market.Decimals;

/** A field for a number: typing, the arrow keys and the mouse wheel (with Shift ten at a time). */
public final class NumberField extends TextField {
    private final BigDecimal least;
    private Runnable changed = () -> {
    };

    /** @param least the smallest value that arrows and wheel reach */
    public NumberField(String value, int columns, String words, BigDecimal least) {
        super(value);
        this.least = least;
        setPrefColumnCount(columns);
        setAccessibleText(words);
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.UP || e.getCode() == KeyCode.DOWN) {
                step((e.getCode() == KeyCode.UP ? 1 : -1) * (e.isShiftDown() ? 10 : 1));
                e.consume();
            }
        });
        addEventHandler(ScrollEvent.SCROLL, e -> {
            double way = e.getDeltaY() == 0 ? e.getDeltaX() : e.getDeltaY();
            step((way > 0 ? 1 : -1) * (e.isShiftDown() ? 10 : 1));
            e.consume();
        });
        setOnAction(e -> changed.run());
        focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                changed.run();
            }
        });
    }

    /** Told when a value stands: after Enter, an arrow, the wheel, or leaving the field. */
    public void onChanged(Runnable told) {
        changed = told;
    }

    /** The number that stands there; empty when it is none. */
    public Optional<BigDecimal> number() {
        try {
            return Optional.of(Decimals.plain(getText().strip()));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private void step(int by) {
        number().ifPresent(value -> {
            setText(value.add(BigDecimal.valueOf(by)).max(least).toPlainString());
            changed.run();
        });
    }
}
