package stativex.desk.look;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** How the lines of our forms are put together: a quiet word, then its fields. */
public final class Form {
    private static final double WORD = 66;

    private Form() {}

    /** A quiet word that is never cut. */
    public static Label muted(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("muted");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    public static HBox row(Node... fields) {
        HBox row = new HBox(5, fields);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** Muted words that take as many lines as they need. */
    public static Label wrapped(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("muted");
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        return label;
    }

    /** A line of a form; several rows stand beside their word's top. */
    public static HBox line(String word, Node... fields) {
        Label label = muted(word);
        label.setPrefWidth(WORD);
        label.setMinWidth(WORD);
        HBox line = row(fields);
        line.getChildren().addFirst(label);
        if (fields.length == 1 && fields[0] instanceof VBox) {
            line.setAlignment(Pos.TOP_LEFT);
            HBox.setHgrow(fields[0], Priority.ALWAYS);
        }
        return line;
    }

    /** A choice of words. @param words for who cannot see it */
    public static ComboBox<String> choice(String id, String words, String... items) {
        ComboBox<String> box = new ComboBox<>();
        box.setId(id);
        box.getItems().setAll(items);
        box.setAccessibleText(words);
        box.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    /** Shows a node, or leaves no place for it. */
    public static void show(Node node, boolean visible) {
        node.setVisible(visible);
        node.setManaged(visible);
    }
}
