package stativex.desk.live;

import java.util.function.BiConsumer;
import java.util.function.IntConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.link.Preflight;

/** One check before engaging: how it stands, in a sentence; the way to where it is mended; what follows if it is not clear. */
final class CheckRow extends HBox {
    private final Preflight.Item item;
    private final Mark mark = new Mark();
    private final Label what = new Label();
    private final VBox lines = new VBox();
    private final CheckBox anyway = new CheckBox("go on all the same");
    private final CheckBox confirmed = new CheckBox("the firm shows the same balance and floor today");
    private final VBox words;
    private Preflight.Check check;

    /**
     * @param go goes to a stage
     * @param set told what is to follow from now on
     * @param changed told that something was ticked
     */
    CheckRow(Preflight.Item item, IntConsumer go, BiConsumer<Preflight.Item, Preflight.Response> set,
            Runnable changed) {
        super(10);
        this.item = item;
        getStyleClass().add("check-row");
        setId("check-" + item.name().toLowerCase(java.util.Locale.ROOT));
        Label name = new Label(item.words());
        name.getStyleClass().add("check-name");
        name.setMinWidth(USE_PREF_SIZE);
        what.getStyleClass().add("check-state");
        anyway.setId("anyway-" + item.name().toLowerCase(java.util.Locale.ROOT));
        anyway.setOnAction(e -> changed.run());
        confirmed.setId("confirmed");
        confirmed.setOnAction(e -> changed.run());
        words = new VBox(1, new HBox(8, name, what), lines);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox side = new HBox(2);
        side.setAlignment(Pos.TOP_RIGHT);
        side.setMinWidth(USE_PREF_SIZE);
        if (item != Preflight.Item.ORDERS) {
            Button to = new Button("go to " + stage(item.stage()));
            to.setId("go-" + item.name().toLowerCase(java.util.Locale.ROOT));
            to.getStyleClass().addAll("link", "small");
            to.setOnAction(e -> go.accept(item.stage()));
            side.getChildren().add(to);
        }
        if (!item.always()) {
            MenuButton then = new MenuButton("if not");
            then.setId("then-" + item.name().toLowerCase(java.util.Locale.ROOT));
            then.getStyleClass().addAll("small", "link");
            then.setTooltip(new Tooltip("What follows when this is not clear"));
            for (Preflight.Response response : Preflight.Response.values()) {
                MenuItem one = new MenuItem("it " + response.word());
                one.setOnAction(e -> set.accept(item, response));
                then.getItems().add(one);
            }
            side.getChildren().addFirst(then);
        }
        VBox picture = new VBox(mark);
        picture.getStyleClass().add("check-mark");
        HBox all = new HBox(10, picture, words, side);
        HBox.setHgrow(all, Priority.ALWAYS);
        getChildren().add(all);
    }

    private static String stage(int number) {
        return switch (number) {
            case 1 -> "Tape";
            case 3 -> "Exits";
            case 4 -> "Limits";
            case 5 -> "Trials";
            default -> "Run";
        };
    }

    /** Whether the person has said that they have compared balance and floor. */
    boolean isConfirmed() {
        return confirmed.isSelected();
    }

    /** Whether the person goes on all the same. */
    boolean isAnyway() {
        return anyway.isSelected();
    }

    void show(Preflight.Check shown) {
        if (shown.equals(check)) {
            return;
        }
        check = shown;
        mark.set(shown.clear() ? Mark.State.CLEAR : shown.blocks() ? Mark.State.WRONG : Mark.State.NEAR);
        what.setText(shown.clear() ? "" : shown.then().word());
        getStyleClass().removeAll("check-near", "check-wrong");
        if (!shown.clear()) {
            getStyleClass().add(shown.blocks() ? "check-wrong" : "check-near");
        }
        lines.getChildren().setAll(shown.lines().stream().map(line -> {
            Label label = new Label(line);
            label.setWrapText(true);
            label.setMinHeight(USE_PREF_SIZE);
            return label;
        }).toList());
        words.getChildren().removeAll(anyway, confirmed);
        if (shown.asks()) {
            words.getChildren().add(anyway);
        } else if (shown.compares()) {
            words.getChildren().add(confirmed);
        }
        setAccessibleText(item.words() + ", " + (shown.clear() ? "clear" : shown.then().word()) + ": "
                + String.join(" ", shown.lines()));
    }
}
