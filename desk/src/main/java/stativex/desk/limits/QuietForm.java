package stativex.desk.limits;

import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Form;
import stativex.files.BadInput;
import stativex.files.QuietSketch;

/** Quiet times in fields: minutes, action, filters, and the release calendars that are brought in. */
final class QuietForm extends VBox {
    private final Consumer<QuietSketch> changed;
    private final FilePicker picker;
    private final CheckBox on = new CheckBox("Quiet times around releases");
    private final TextField before = field("quiet-before", "Minutes before a release", 3);
    private final TextField after = field("quiet-after", "Minutes after a release", 3);
    private final ComboBox<String> action = Form.choice("quiet-action", "What a quiet time does when it begins",
            QuietSketch.actions().toArray(String[]::new));
    private final TextField countries = field("quiet-countries", "Countries, a comma between, empty for any", 14);
    private final TextField impacts = field("quiet-impacts", "Impacts such as high, a comma between, empty for any",
            14);
    private final TextField titles = field("quiet-titles", "Parts of titles, a comma between, empty for any", 14);
    private final Label counted = new Label();
    private final Label next = new Label();
    private final Label said = new Label();
    private QuietSketch sketch;
    private boolean showing;

    /** @param changed told of what somebody wants; what it throws is said beside the fields */
    QuietForm(FilePicker picker, Consumer<QuietSketch> changed) {
        super(6);
        this.picker = picker;
        this.changed = changed;
        on.setId("quiet-on");
        on.setOnAction(e -> tell());
        action.setOnAction(e -> tell());
        for (TextField field : new TextField[]{before, after, countries, impacts, titles}) {
            field.setOnAction(e -> tell());
            field.focusedProperty().addListener((o, was, now) -> {
                if (!now) {
                    tell();
                }
            });
        }
        Button bring = new Button("Bring a calendar in …");
        bring.setId("quiet-bring");
        bring.setTooltip(
                new Tooltip("iCalendar, or CSV with the columns time, title, country, impact; as many as wanted"));
        bring.setOnAction(e -> bring());
        Button empty = new Button("Take all away");
        empty.setId("quiet-empty");
        empty.setOnAction(e -> tell(sketch.emptied()));
        counted.setId("quiet-counted");
        counted.getStyleClass().add("muted");
        counted.setWrapText(true);
        next.setId("quiet-next");
        next.setWrapText(true);
        next.setMinHeight(USE_PREF_SIZE);
        said.setId("quiet-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        getChildren().addAll(on, Form.row(before, Form.muted("min before,"), after, Form.muted("min after")),
                Form.line("Action", action), Form.line("Countries", countries), Form.line("Impacts", impacts),
                Form.line("Titles", titles), counted, next, Form.row(bring, empty), said);
    }

    private static TextField field(String id, String words, int columns) {
        TextField field = new TextField();
        field.setId(id);
        field.setAccessibleText(words);
        field.setTooltip(new Tooltip(words));
        field.setPrefColumnCount(columns);
        return field;
    }

    /** @param ahead what comes next, or that the calendar lies behind */
    void show(QuietSketch of, String ahead) {
        showing = true;
        sketch = of;
        on.setSelected(of.on());
        before.setText(of.before());
        after.setText(of.after());
        action.setValue(of.action());
        countries.setText(of.countries());
        impacts.setText(of.impacts());
        titles.setText(of.titles());
        counted.setText(of.counted());
        next.setText(ahead);
        showing = false;
    }

    private void tell() {
        if (!showing && sketch != null) {
            tell(sketch.filled(on.isSelected(), before.getText(), after.getText(), action.getValue(),
                    countries.getText(), impacts.getText(), titles.getText()));
        }
    }

    private void tell(QuietSketch wanted) {
        if (wanted.equals(sketch)) {
            return;
        }
        try {
            changed.accept(wanted);
            said.setText("");
        } catch (BadInput e) {
            said.setText(e.getMessage().replaceFirst("^.*?\\$\\.?", ""));
        }
    }

    private void bring() {
        Optional<Path> file = picker.open("Release calendar", "ics", "csv");
        file.ifPresent(path -> {
            try {
                tell(sketch.with(path));
            } catch (BadInput e) {
                said.setText(e.getMessage());
            }
        });
    }
}
