package stativex.desk.tape;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.trial.Days;

/** From which trading day to which a tape is looked at and replayed. */
final class RangeFields extends VBox {
    private final ComboBox<Optional<LocalDate>> from = box("range-from", "First trading day", "its first day");
    private final ComboBox<Optional<LocalDate>> to = box("range-to", "Last trading day", "its last day");
    private final Runnable changed;
    private boolean quiet;

    /** @param changed told when another range is chosen */
    RangeFields(Runnable changed) {
        super(4);
        this.changed = changed;
        from.setTooltip(
                new Tooltip("First trading day of chart and replay; a strategy's history is counted back from it"));
        to.setTooltip(new Tooltip("Last trading day; what is open in a replay is left on its last print"));
        from.setOnAction(e -> keep(true));
        to.setOnAction(e -> keep(false));
        getChildren().addAll(line("From", from), line("To", to));
        setDisable(true);
    }

    private static HBox line(String name, ComboBox<Optional<LocalDate>> box) {
        Label label = new Label(name);
        label.getStyleClass().add("muted");
        label.setMinWidth(38);
        HBox line = new HBox(4, label, box);
        line.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(box, Priority.ALWAYS);
        return line;
    }

    private static ComboBox<Optional<LocalDate>> box(String id, String words, String open) {
        ComboBox<Optional<LocalDate>> box = new ComboBox<>();
        box.setId(id);
        box.setAccessibleText(words);
        box.setMaxWidth(Double.MAX_VALUE);
        box.setCellFactory(list -> new Cell(open));
        box.setButtonCell(new Cell(open));
        return box;
    }

    /** A day, or the tape's own end. */
    private static final class Cell extends ListCell<Optional<LocalDate>> {
        private final String open;

        Cell(String open) {
            this.open = open;
        }

        @Override
        protected void updateItem(Optional<LocalDate> day, boolean empty) {
            super.updateItem(day, empty);
            setText(empty || day == null ? "" : day.map(Format::day).orElse(open));
        }
    }

    /** The trading days of a tape, and which of them are chosen. */
    void show(Contract contract, Tape tape, Days days) {
        quiet = true;
        List<Optional<LocalDate>> all = new ArrayList<>(List.of(Optional.empty()));
        if (tape.count() > 0) {
            Optional<Session> session = contract.calendar().current(tape.time(0));
            long last = tape.time(tape.count() - 1);
            while (session.isPresent() && session.get().open() <= last) {
                Optional<LocalDate> date = Optional.of(session.get().tradingDate());
                if (!all.getLast().equals(date)) {
                    all.add(date);
                }
                session = contract.calendar().after(session.get());
            }
        }
        from.getItems().setAll(all);
        to.getItems().setAll(all);
        from.setValue(all.contains(days.first()) ? days.first() : Optional.empty());
        to.setValue(all.contains(days.last()) ? days.last() : Optional.empty());
        quiet = false;
        setDisable(false);
    }

    /** What is chosen. */
    Days days() {
        return new Days(from.getValue(), to.getValue());
    }

    /** The day that was not chosen last gives way. */
    private void keep(boolean first) {
        if (quiet || from.getValue() == null || to.getValue() == null) {
            return;
        }
        boolean crossed = from.getValue().isPresent() && to.getValue().isPresent()
                && to.getValue().get().isBefore(from.getValue().get());
        if (crossed) {
            quiet = true;
            (first ? to : from).setValue((first ? from : to).getValue());
            quiet = false;
        }
        changed.run();
    }
}
