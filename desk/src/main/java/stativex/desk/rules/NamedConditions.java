package stativex.desk.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusKeeper;

/** Conditions with a name and a switch each: the filters of a strategy, the grades of a side. */
final class NamedConditions extends VBox {
    /** @param origin place before the change; −1 for a new one */
    record Item(int origin, String name, boolean on, String rule) {}

    private final String word;
    private final String id;
    private final Consumer<List<Item>> changed;
    private final VBox rows = new VBox(3);
    private List<Item> items = List.of();

    /**
     * @param word what one of them is called
     * @param help what the switch means
     * @param changed told all of them after a change
     */
    NamedConditions(String word, String help, Consumer<List<Item>> changed) {
        super(3);
        this.word = word;
        this.id = "entry-" + word;
        this.changed = changed;
        Label title = new Label(word.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + word.substring(1) + "s");
        title.getStyleClass().add("muted");
        title.setTooltip(new Tooltip(help));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button add = new Button("+ " + word);
        add.setId(id + "-add");
        add.getStyleClass().addAll("small", "link");
        add.setOnAction(e -> add());
        HBox head = new HBox(title, gap, add);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, rows);
    }

    private void add() {
        List<Item> next = new ArrayList<>(items);
        String name = word;
        for (int i = 2; named(name); i++) {
            name = word + " " + i;
        }
        next.add(new Item(-1, name, true, "close > open"));
        changed.accept(next);
    }

    private boolean named(String name) {
        return items.stream().anyMatch(item -> item.name().equals(name));
    }

    /** Shows what there is. */
    void show(List<Item> shown) {
        if (shown.equals(items) && rows.getChildren().size() == shown.size()) {
            return;
        }
        items = List.copyOf(shown);
        FocusKeeper.rebuild(rows, () -> {
            rows.getChildren().clear();
            for (int i = 0; i < items.size(); i++) {
                rows.getChildren().add(row(i, items.get(i)));
            }
        });
    }

    private HBox row(int index, Item item) {
        CheckBox on = new CheckBox();
        on.setSelected(item.on());
        on.setId(id + "-" + index);
        on.setAccessibleText(word + " " + item.name() + " is on");
        TextField name = new TextField(item.name());
        name.setId(id + "-name-" + index);
        name.setPrefWidth(84);
        name.setMinWidth(60);
        name.setAccessibleText("Name of the " + word);
        TextField rule = new TextField(item.rule());
        rule.setId(id + "-rule-" + index);
        rule.setAccessibleText("Condition of the " + word + " " + item.name());
        rule.setTooltip(new Tooltip(item.rule()));
        HBox.setHgrow(rule, Priority.ALWAYS);
        Button remove = new Button("×");
        remove.getStyleClass().addAll("small", "quiet");
        remove.setMinWidth(USE_PREF_SIZE);
        remove.setAccessibleText("Take the " + word + " " + item.name() + " away");
        remove.setOnAction(e -> {
            List<Item> next = new ArrayList<>(items);
            next.remove(index);
            changed.accept(next);
        });
        Runnable tell = () -> {
            boolean unique = items.stream()
                    .noneMatch(other -> other != item && other.name().equals(name.getText().strip()));
            if (!unique || name.getText().isBlank()) {
                name.setText(item.name());
            }
            Item after = new Item(item.origin(), name.getText().strip(), on.isSelected(), rule.getText().strip());
            if (!after.equals(item) && index < items.size() && items.get(index) == item) {
                List<Item> next = new ArrayList<>(items);
                next.set(index, after);
                changed.accept(next);
            }
        };
        on.setOnAction(e -> tell.run());
        for (TextField field : List.of(name, rule)) {
            field.setOnAction(e -> tell.run());
            field.focusedProperty().addListener((o, before, now) -> {
                if (!now) {
                    tell.run();
                }
            });
        }
        HBox row = new HBox(4, on, name, rule, remove);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }
}
