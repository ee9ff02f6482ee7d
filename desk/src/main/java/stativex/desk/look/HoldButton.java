package stativex.desk.look;

import javafx.animation.KeyFrame;
import javafx.animation.KeyValue;
import javafx.animation.Timeline;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.util.Duration;

/**
 * A button that acts after being held for half a second, by mouse, Space or Enter: for acts that need no question but
 * must not happen by a slip. It fills from the left while it is held.
 */
public final class HoldButton extends Button {
    /** How long it is held before it acts. */
    public static final Duration HOLD = Duration.millis(500);

    private final DoubleProperty held = new SimpleDoubleProperty();
    private final Timeline timeline;
    private boolean down;

    /** @param act what happens after the hold */
    public HoldButton(String text, String tooltip, Runnable act) {
        super(text);
        getStyleClass().add("hold-button");
        setTooltip(new Tooltip(tooltip + " Hold for half a second."));
        setAccessibleText(text + ", hold for half a second");
        timeline = new Timeline(new KeyFrame(Duration.ZERO, new KeyValue(held, 0)),
                new KeyFrame(HOLD, e -> act.run(), new KeyValue(held, 1)));
        timeline.setOnFinished(e -> held.set(0));
        held.addListener((o, before, now) -> show(now.doubleValue()));
        addEventFilter(MouseEvent.MOUSE_PRESSED, e -> {
            if (e.getButton() == MouseButton.PRIMARY) {
                press();
            }
        });
        addEventFilter(MouseEvent.MOUSE_RELEASED, e -> release());
        addEventFilter(MouseEvent.MOUSE_EXITED, e -> release());
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.SPACE || e.getCode() == KeyCode.ENTER) {
                press();
                e.consume();
            }
        });
        addEventFilter(KeyEvent.KEY_RELEASED, e -> release());
        focusedProperty().addListener((o, before, focused) -> {
            if (!focused) {
                release();
            }
        });
    }

    /** How much of the hold is done: 0 up to 1, at which it acts. */
    public ReadOnlyDoubleProperty heldProperty() {
        return held;
    }

    private void press() {
        // a held key repeats its press: only the first one starts the clock, and it acts once
        if (!down) {
            down = true;
            timeline.playFromStart();
        }
    }

    private void release() {
        down = false;
        timeline.stop();
        held.set(0);
    }

    private void show(double part) {
        int percent = (int) Math.round(part * 100);
        setStyle(percent == 0
                ? ""
                : "-fx-background-color: linear-gradient(to right, -trip-soft " + percent + "%, -button-ground "
                        + percent + "%);");
    }
}
