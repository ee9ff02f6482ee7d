package stativex.desk.limits;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusKeeper;
import stativex.desk.look.Form;
import stativex.files.BadInput;
import stativex.files.BookSketch;

/** A rulebook in fields: its name and, rule by rule, its figures. Tells of every state that reads, and says what does not. */
final class BookEditor extends VBox {
    private final Consumer<BookSketch> changed;
    private final TextField name = new TextField();
    private final VBox rules = new VBox(8);
    private final Label said = new Label();
    private BookSketch sketch = BookSketch.empty("");

    /** @param changed told of each state that reads */
    BookEditor(Consumer<BookSketch> changed) {
        super(8);
        this.changed = changed;
        setId("book-editor");
        name.setId("book-name");
        name.setAccessibleText("Name of the rulebook");
        listen(name, () -> take(sketch.named(name.getText())));
        said.setId("book-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        getChildren().addAll(Form.line("Name", name), rules, said);
    }

    /** Takes a book to be changed. */
    void edit(BookSketch of) {
        sketch = of;
        name.setText(of.name());
        said.setText("");
        rows();
    }

    BookSketch sketch() {
        return sketch;
    }

    private void take(BookSketch next) {
        if (next.equals(sketch)) {
            return;
        }
        sketch = next;
        try {
            sketch.read();
            said.setText("");
            changed.accept(sketch);
        } catch (BadInput e) {
            said.setText(e.getMessage().replaceFirst("^.*?\\$\\.?", ""));
        }
    }

    private void rows() {
        FocusKeeper.rebuild(this, () -> {
            rules.getChildren().clear();
            for (int i = 0; i < sketch.rules().size(); i++) {
                rules.getChildren().add(rule(i, sketch.rules().get(i)));
            }
            MenuButton more = new MenuButton("+ rule");
            more.setId("book-more");
            more.getStyleClass().add("small");
            for (String kind : sketch.missing()) {
                MenuItem item = new MenuItem(kind);
                item.setId("book-more-" + kind.replace(' ', '-'));
                item.setOnAction(e -> {
                    List<BookSketch.RuleSketch> all = new ArrayList<>(sketch.rules());
                    all.add(BookSketch.RuleSketch.of(kind));
                    take(sketch.with(all));
                    rows();
                });
                more.getItems().add(item);
            }
            more.setDisable(sketch.missing().isEmpty());
            rules.getChildren().add(more);
        });
    }

    private VBox rule(int index, BookSketch.RuleSketch of) {
        String id = "book-" + of.kind().replace(' ', '-');
        Label kind = new Label(Character.toUpperCase(of.kind().charAt(0)) + of.kind().substring(1));
        kind.getStyleClass().add("fact");
        Button less = new Button("×");
        less.setId(id + "-less");
        less.getStyleClass().add("small");
        less.setAccessibleText("Take the rule " + of.kind() + " away");
        less.setOnAction(e -> {
            List<BookSketch.RuleSketch> all = new ArrayList<>(sketch.rules());
            all.remove(index);
            take(sketch.with(all));
            rows();
        });
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        FlowPane fields = new FlowPane(8, 5);
        fields.setPrefWrapLength(290);
        BookSketch.parts(of.kind()).forEach(part -> fields.getChildren().add(field(id, index, part)));
        VBox box = new VBox(4, Form.row(kind, gap, less), fields);
        box.getStyleClass().add("rule-card");
        return box;
    }

    private Node field(String id, int index, BookSketch.Part part) {
        String text = sketch.rules().get(index).texts().getOrDefault(part.key(), "");
        String name = id + "-" + part.key().replaceAll("[.].*", "");
        switch (part.takes()) {
            case YES_NO : {
                CheckBox box = new CheckBox(part.word());
                box.setId(name);
                box.setAccessibleText(part.words());
                box.setSelected(text.equals("true"));
                box.setOnAction(e -> put(index, part.key(), Boolean.toString(box.isSelected())));
                return box;
            }
            case CHOICE : {
                ComboBox<String> choice = Form.choice(name, part.words(), part.choices().toArray(String[]::new));
                choice.setValue(text);
                choice.setOnAction(e -> put(index, part.key(), choice.getValue()));
                return Form.row(Form.muted(part.word()), choice);
            }
            default : {
                TextField field = new TextField(text);
                field.setId(name);
                field.setAccessibleText(part.words());
                field.setTooltip(new Tooltip(part.words()));
                field.setPrefColumnCount(part.key().equals("tiers") || part.key().equals("micros")
                        || part.key().equals("zone") ? 13 : part.takes() == BookSketch.Takes.WHOLE ? 4 : 7);
                listen(field, () -> put(index, part.key(), field.getText()));
                return Form.row(Form.muted(part.word()), field);
            }
        }
    }

    private void put(int index, String key, String text) {
        List<BookSketch.RuleSketch> all = new ArrayList<>(sketch.rules());
        all.set(index, all.get(index).with(key, text));
        take(sketch.with(all));
    }

    private static void listen(TextField field, Runnable told) {
        field.setOnAction(e -> told.run());
        field.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                told.run();
            }
        });
    }
}
