package stativex.desk.tape;

import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import stativex.files.BadInput;
import stativex.files.ChartLooks;
import stativex.files.ChartSetup;

/** Looks of charts under names: one is put on by choosing it, and the present one kept under a name. */
final class LookMenu extends MenuButton {
    private final ChartLooks looks;
    private final Supplier<Optional<ChartSetup>> present;
    private final Consumer<ChartSetup> chosen;
    private final Consumer<String> said;
    private final TextField name = new TextField();

    /**
     * @param present how the chart looks now; empty while a field holds no possible value
     * @param chosen puts a look on; {@code said} tells the person what went wrong
     */
    LookMenu(ChartLooks looks, Supplier<Optional<ChartSetup>> present, Consumer<ChartSetup> chosen,
            Consumer<String> said) {
        super("Looks");
        this.looks = looks;
        this.present = present;
        this.chosen = chosen;
        this.said = said;
        setId("looks");
        getStyleClass().add("small");
        setTooltip(new Tooltip("Bars, hours, studies, panels and axes of this chart, kept under a name"));
        name.setId("look-name");
        name.setPromptText("name");
        name.setPrefColumnCount(10);
        name.setAccessibleText("Name of the look that is kept");
        name.setOnAction(e -> keep());
        setOnShowing(e -> fill());
        fill();
    }

    private void fill() {
        Map<String, ChartSetup> named;
        try {
            named = looks.named();
        } catch (BadInput e) {
            said.accept(e.getMessage());
            return;
        }
        getItems().clear();
        named.forEach((word, setup) -> {
            MenuItem item = new MenuItem(word);
            item.setOnAction(e -> {
                name.setText(word);
                chosen.accept(setup);
            });
            getItems().add(item);
        });
        if (!named.isEmpty()) {
            getItems().add(new SeparatorMenuItem());
        }
        Button keep = new Button("Keep");
        keep.setId("look-keep");
        keep.getStyleClass().add("small");
        keep.setOnAction(e -> keep());
        HBox line = new HBox(6, new Label("This look as"), name, keep);
        line.setAlignment(Pos.CENTER_LEFT);
        CustomMenuItem asNamed = new CustomMenuItem(line, false);
        getItems().add(asNamed);
        if (!named.isEmpty()) {
            Menu away = new Menu("Take away");
            named.keySet().forEach(word -> {
                MenuItem item = new MenuItem(word);
                item.setOnAction(e -> told(() -> looks.remove(word)));
                away.getItems().add(item);
            });
            getItems().add(away);
        }
    }

    /** Puts a look on by its name. */
    void choose(String word) {
        Optional.ofNullable(looks.named().get(word)).ifPresent(chosen);
    }

    /** Keeps the present look under the name that is written. */
    private void keep() {
        present.get().ifPresent(setup -> told(() -> {
            looks.keep(name.getText().strip(), setup);
            said.accept("The look is kept as \"" + name.getText().strip() + "\".");
            hide();
        }));
    }

    private void told(Runnable act) {
        try {
            act.run();
        } catch (BadInput | IllegalArgumentException e) {
            said.accept(e.getMessage());
        }
    }
}
