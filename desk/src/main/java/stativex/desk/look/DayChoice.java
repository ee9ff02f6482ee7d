package stativex.desk.look;

import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;

/** The days of the week side by side, each on or off. */
public final class DayChoice extends HBox {
    private final Map<DayOfWeek, ToggleButton> days = new EnumMap<>(DayOfWeek.class);

    /** @param changed run when the person turns a day on or off */
    public DayChoice(Set<DayOfWeek> chosen, Runnable changed) {
        getStyleClass().add("choice");
        for (DayOfWeek day : DayOfWeek.values()) {
            ToggleButton button = new ToggleButton(day.getDisplayName(TextStyle.SHORT, Locale.ENGLISH).substring(0, 2));
            button.setAccessibleText(day.getDisplayName(TextStyle.FULL, Locale.ENGLISH));
            button.getStyleClass().add("small");
            button.setSelected(chosen.contains(day));
            button.setOnAction(e -> changed.run());
            days.put(day, button);
            getChildren().add(button);
        }
    }

    /** Names each day's button {@code BEGINNING-monday-INDEX}. */
    public void name(String beginning, int index) {
        days.forEach(
                (day, button) -> button.setId(beginning + "-" + day.name().toLowerCase(Locale.ROOT) + "-" + index));
    }

    /** The days that are on. */
    public Set<DayOfWeek> chosen() {
        Set<DayOfWeek> chosen = EnumSet.noneOf(DayOfWeek.class);
        days.forEach((day, button) -> {
            if (button.isSelected()) {
                chosen.add(day);
            }
        });
        return chosen;
    }
}
