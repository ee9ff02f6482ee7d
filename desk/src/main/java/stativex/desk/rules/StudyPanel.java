package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import stativex.desk.look.FocusKeeper;
import stativex.desk.look.NumberField;
import stativex.desk.look.Palette;
import stativex.study.Studies;
import stativex.study.StudyDefinition;
import stativex.study.StudyField;
import stativex.study.StudyKind;
import stativex.study.StudyProblem;

/** One study's fields: its name, kind, what it takes, and what the kind asks for, each with unit, bounds and one line of help. */
final class StudyPanel extends VBox {
    private final BiConsumer<StudyDefinition, StudyDefinition> changed;
    private final Consumer<StudyDefinition> removed;
    private final Label problem = new Label();
    private Optional<StudyDefinition> study = Optional.empty();
    private List<String> values = List.of();
    private List<String> series = List.of();

    /**
     * @param changed told the study before and after a change
     * @param removed told the study that is to go
     */
    StudyPanel(BiConsumer<StudyDefinition, StudyDefinition> changed, Consumer<StudyDefinition> removed) {
        super(4);
        this.changed = changed;
        this.removed = removed;
        setId("study-panel");
        getStyleClass().add("study-panel");
        problem.getStyleClass().add("problem");
        problem.setId("study-problem");
        problem.setWrapText(true);
        problem.setMinHeight(USE_PREF_SIZE);
        say("");
    }

    private void say(String words) {
        problem.setText(words);
        problem.setVisible(!words.isEmpty());
        problem.setManaged(!words.isEmpty());
    }

    /** The study that is shown. */
    Optional<StudyDefinition> study() {
        return study;
    }

    /** No study is chosen. */
    void close() {
        study = Optional.empty();
        getChildren().clear();
    }

    /**
     * Shows a study.
     *
     * @param known values it may take
     * @param others series it may sit on
     */
    void show(StudyDefinition shown, List<String> known, List<String> others) {
        if (study.filter(shown::equals).isPresent() && known.equals(values) && others.equals(series)) {
            return;
        }
        study = Optional.of(shown);
        values = known;
        series = others;
        say("");
        FocusKeeper.rebuild(this, () -> build(shown, known, others));
    }

    private void build(StudyDefinition shown, List<String> known, List<String> others) {
        getChildren().clear();
        TextField name = new TextField(shown.name());
        name.setId("study-name");
        commit(name, () -> change(shown, shown.named(name.getText().strip())));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button remove = new Button("Remove");
        remove.getStyleClass().add("small");
        remove.setId("study-remove");
        remove.setMinWidth(USE_PREF_SIZE);
        remove.setOnAction(e -> removed.accept(shown));
        getChildren().addAll(line("name", name, "", "the name that rules and chart use"), kind(shown));
        Optional<StudyKind> kind = Studies.kind(shown.kind());
        if (shown.kind().equals(StudyDefinition.FORMULA) || kind.flatMap(StudyKind::of).isPresent()) {
            ComboBox<String> of = box(known, shown.of().orElseGet(() -> kind.flatMap(StudyKind::of)
                    .map(field -> field.word()).orElse("")), "study-of");
            of.setEditable(true);
            of.setOnAction(e -> change(shown, shown.taking(of.getEditor().getText().strip())));
            getChildren().add(line("of", of, "", "what it takes: any value of the rule language"));
        }
        if (!others.isEmpty() && kind.isPresent()) {
            List<String> offered = new ArrayList<>(List.of("signal series"));
            offered.addAll(others);
            ComboBox<String> on = box(offered, shown.on().orElse("signal series"), "study-on");
            on.setOnAction(e -> change(shown, new StudyDefinition(shown.name(), shown.kind(), shown.of(),
                    on.getValue().equals("signal series") ? Optional.empty() : Optional.of(on.getValue()),
                    shown.settings())));
            getChildren().add(line("on", on, "", "the series it sits on"));
        }
        kind.ifPresent(k -> k.fields().forEach(field -> getChildren().add(field(shown, field))));
        shownOutputs(shown, known.stream().filter(one -> one.equals(shown.name()) || one.startsWith(shown.name() + "."))
                .map(one -> one.equals(shown.name()) ? StudyDefinition.MAIN : one.substring(shown.name().length() + 1))
                .toList());
        if (shown.kind().equals(StudyDefinition.FORMULA)) {
            ComboBox<String> mark = box(StudyDefinition.MARKS, shown.mark(), "study-mark");
            mark.setOnAction(e -> set(shown, StudyDefinition.MARK, mark.getValue(), StudyDefinition.MARKS.getFirst()));
            getChildren().add(line("mark", mark, "",
                    "of a yes or no: a mark on every bar on which it holds, at the close, or pointing up below the low, or down above the high"));
        }
        getChildren().add(ink(shown));
        kind.ifPresent(k -> {
            Label help = new Label(k.help() + ". " + k.definition());
            help.setWrapText(true);
            help.setMinHeight(USE_PREF_SIZE);
            help.getStyleClass().add("muted");
            getChildren().add(help);
        });
        getChildren().addAll(problem, new HBox(gap, remove));
    }

    private Node kind(StudyDefinition shown) {
        List<String> kinds = new ArrayList<>(Studies.kinds().stream().map(StudyKind::word).sorted().toList());
        kinds.add(StudyDefinition.FORMULA);
        ComboBox<String> box = box(kinds, shown.kind(), "study-kind");
        box.setOnAction(e -> {
            Optional<StudyKind> next = Studies.kind(box.getValue());
            // what the other kind has as well stays
            Map<String, String> kept = new LinkedHashMap<>(shown.settings());
            // another kind has other outputs
            kept.remove(StudyDefinition.SHOW);
            kept.keySet().removeIf(
                    name -> !name.equals(StudyDefinition.INK) && next.flatMap(k -> k.field(name)).isEmpty());
            Optional<String> of = next.isEmpty()
                    ? Optional.of(shown.of().orElse("close"))
                    : next.get().of().isPresent() ? shown.of() : Optional.empty();
            change(shown,
                    new StudyDefinition(shown.name(), box.getValue(), of,
                            next.isEmpty() ? Optional.empty() : shown.on(),
                            kept));
        });
        return line("kind", box, "", "what is computed");
    }

    private Node field(StudyDefinition shown, StudyField field) {
        String value = shown.settings().getOrDefault(field.name(), field.fallback());
        String help = field.help() + bounds(field.type());
        return switch (field.type()) {
            case StudyField.Choice(List<String> words) -> {
                ComboBox<String> box = box(words, value, "study-" + field.name());
                box.setOnAction(e -> set(shown, field, box.getValue()));
                yield line(field.name(), box, field.unit(), help);
            }
            case StudyField.Whole whole -> {
                NumberField number = new NumberField(value, 5, field.name(), BigDecimal.valueOf(whole.least()));
                number.setId("study-" + field.name());
                number.onChanged(() -> set(shown, field, number.getText().strip()));
                yield line(field.name(), number, field.unit(), help);
            }
            default -> {
                TextField text = new TextField(value);
                text.setId("study-" + field.name());
                commit(text, () -> set(shown, field, text.getText().strip()));
                yield line(field.name(), text, field.unit(), help);
            }
        };
    }

    /** What its lines are drawn with. */
    private Node ink(StudyDefinition shown) {
        ComboBox<String> box = box(StudyDefinition.INKS, shown.ink(), "study-ink");
        box.setCellFactory(list -> new InkCell());
        box.setButtonCell(new InkCell());
        box.setOnAction(e -> set(shown, StudyDefinition.INK, box.getValue(), StudyDefinition.INKS.getFirst()));
        return line("line", box, "", "plain ink, or a muted tone that means nothing; dashes tell its lines apart");
    }

    /** A tone with its word. */
    private static final class InkCell extends ListCell<String> {
        @Override
        protected void updateItem(String word, boolean empty) {
            super.updateItem(word, empty);
            setText(empty ? "" : word);
            setGraphic(empty ? null : new Rectangle(14, 3, Palette.ink(word, Palette.MUTED)));
        }
    }

    /** A tick for each output that the chart shows; rules may use every one. */
    private void shownOutputs(StudyDefinition shown, List<String> outputs) {
        if (outputs.size() < 2) {
            return;
        }
        FlowPane ticks = new FlowPane(8, 3);
        List<CheckBox> boxes = new ArrayList<>();
        for (String output : outputs) {
            CheckBox box = new CheckBox(output);
            box.setId("study-show-" + output);
            box.setSelected(shown.shows(output.equals(StudyDefinition.MAIN) ? "" : output));
            boxes.add(box);
            box.setOnAction(e -> {
                List<String> on = boxes.stream().filter(CheckBox::isSelected).map(CheckBox::getText).toList();
                Map<String, String> settings = new LinkedHashMap<>(shown.settings());
                settings.put(StudyDefinition.SHOW, on.isEmpty() ? "none" : String.join("+", on));
                if (on.size() == outputs.size()) {
                    settings.remove(StudyDefinition.SHOW);
                }
                change(shown, new StudyDefinition(shown.name(), shown.kind(), shown.of(), shown.on(), settings));
            });
        }
        ticks.getChildren().addAll(boxes);
        ticks.setPrefWrapLength(130);
        getChildren().add(line("drawn", ticks, "", "outputs that the chart shows; rules may use every one"));
    }

    /** Writes a field, or leaves it out where it says what is so anyway. */
    private void set(StudyDefinition shown, String field, String value, String usual) {
        Map<String, String> settings = new LinkedHashMap<>(shown.settings());
        settings.put(field, value);
        if (value.equals(usual)) {
            settings.remove(field);
        }
        change(shown, new StudyDefinition(shown.name(), shown.kind(), shown.of(), shown.on(), settings));
    }

    private static String bounds(StudyField.Type type) {
        return switch (type) {
            case StudyField.Whole(long least, long most) -> " (" + least + " to " + most + ")";
            case StudyField.Number(double above, double most) -> " (above " + above + ", at most " + most + ")";
            case StudyField.Some(List<String> words) -> " (some of " + String.join(", ", words) + ", with +)";
            default -> "";
        };
    }

    private void set(StudyDefinition shown, StudyField field, String value) {
        try {
            field.type().check(value);
        } catch (IllegalArgumentException e) {
            say(field.name() + ": " + e.getMessage());
            return;
        }
        Map<String, String> settings = new LinkedHashMap<>(shown.settings());
        settings.put(field.name(), value);
        if (!value.equals(shown.settings().getOrDefault(field.name(), field.fallback()))) {
            change(shown, new StudyDefinition(shown.name(), shown.kind(), shown.of(), shown.on(), settings));
        }
    }

    /** A field that is gone from the panel changes nothing any more, even if it loses the keyboard only then. */
    private void change(StudyDefinition shown, StudyDefinition next) {
        if (next.equals(shown) || study.filter(shown::equals).isEmpty()) {
            return;
        }
        try {
            Studies.check(next);
        } catch (StudyProblem e) {
            say(e.getMessage());
            return;
        }
        say("");
        changed.accept(shown, next);
    }

    private static ComboBox<String> box(List<String> items, String value, String id) {
        ComboBox<String> box = new ComboBox<>();
        box.getItems().setAll(items);
        box.setValue(value);
        box.setId(id);
        return box;
    }

    private static void commit(TextField field, Runnable told) {
        field.setOnAction(e -> told.run());
        field.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                told.run();
            }
        });
    }

    private static HBox line(String name, Region field, String unit, String help) {
        Label label = new Label(name);
        label.getStyleClass().add("muted");
        label.setPrefWidth(64);
        label.setMinWidth(64);
        field.setAccessibleText(name + ": " + help);
        field.setMaxWidth(Double.MAX_VALUE);
        field.setMinWidth(40);
        field.setPrefWidth(80);
        HBox.setHgrow(field, Priority.ALWAYS);
        Tooltip tip = new Tooltip(help);
        label.setTooltip(tip);
        HBox line = new HBox(4, label, field);
        line.setAlignment(Pos.CENTER_LEFT);
        if (!unit.isEmpty()) {
            Label of = new Label(unit);
            of.getStyleClass().add("muted");
            of.setMinWidth(USE_PREF_SIZE);
            line.getChildren().add(of);
        }
        return line;
    }
}
