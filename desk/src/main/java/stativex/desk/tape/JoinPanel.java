package stativex.desk.tape;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.files.BadInput;
import stativex.files.tape.Joins;
import stativex.market.Join;
import stativex.market.TapeTime;

/** Joining months: which ones, in which order, and on which days the next one takes over. */
final class JoinPanel extends VBox {
    private static final String DATES = "on the dates";
    private static final String VOLUME = "the day after the newer month traded more";
    private static final String EXPIRY = "days before the last trading day";

    private final Joins joins;
    private final Consumer<Optional<String>> closed;
    private final List<CheckBox> months = new ArrayList<>();
    private final TextField name = new TextField();
    private final ChoiceBox<String> rule = new ChoiceBox<>();
    private final TextField value = new TextField();
    private final Label problem = new Label();

    /**
     * @param tapes names of stored tapes, in order; months are joined in that order
     * @param closed told when it is over: the name of the join kept, or empty
     */
    JoinPanel(Joins joins, List<String> tapes, Consumer<Optional<String>> closed) {
        super(10);
        this.joins = joins;
        this.closed = closed;
        getStyleClass().addAll("import", "import-body");
        setId("join");
        Label title = new Label("Join contract months into one series");
        title.getStyleClass().add("title");
        VBox list = new VBox(4);
        for (String tape : tapes) {
            CheckBox box = new CheckBox(tape);
            months.add(box);
            list.getChildren().add(box);
        }
        name.setId("join-name");
        name.setPromptText("name of the series");
        rule.setId("join-rule");
        rule.getItems().setAll(VOLUME, DATES, EXPIRY);
        rule.setValue(VOLUME);
        value.setId("join-value");
        value.setPromptText("2026-09-14, 2026-12-14");
        value.setDisable(true);
        rule.setOnAction(e -> {
            value.setDisable(rule.getValue().equals(VOLUME));
            value.setPromptText(rule.getValue().equals(EXPIRY) ? "5" : "2026-09-14, 2026-12-14");
        });
        problem.getStyleClass().add("problem");
        problem.setId("join-problem");
        problem.setWrapText(true);
        Button keep = new Button("Join");
        keep.setId("join-keep");
        keep.getStyleClass().add("primary");
        keep.setOnAction(e -> keep());
        Button cancel = new Button("Not now");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> closed.accept(Optional.empty()));
        HBox rolls = new HBox(8, new Label("The next month takes over"), rule, value);
        rolls.setAlignment(Pos.CENTER_LEFT);
        HBox naming = new HBox(8, new Label("Name"), name);
        naming.setAlignment(Pos.CENTER_LEFT);
        Label order = new Label("Months are joined in this order, oldest first. No print is copied.");
        order.getStyleClass().add("muted");
        getChildren().addAll(title, order, list, rolls, naming, new HBox(10, keep, cancel), problem);
    }

    private void keep() {
        try {
            List<String> chosen = months.stream().filter(CheckBox::isSelected).map(CheckBox::getText).toList();
            List<Join.Month> read = joins.months(chosen);
            List<LocalDate> dates = new ArrayList<>();
            if (rule.getValue().equals(DATES)) {
                Stream.of(value.getText().split(",")).map(String::strip).filter(s -> !s.isEmpty())
                        .forEach(date -> dates.add(TapeTime.date(date)));
            } else {
                for (int i = 1; i < read.size(); i++) {
                    dates.add(rule.getValue().equals(VOLUME)
                            ? Join.byVolume(read.get(i - 1), read.get(i))
                            : Join.beforeExpiry(read.get(i - 1), Integer.parseInt(value.getText().strip())));
                }
            }
            joins.keep(name.getText().strip(), chosen, dates);
            closed.accept(Optional.of(name.getText().strip()));
        } catch (NumberFormatException e) {
            problem.setText("expected a number of days such as 5, found \"" + value.getText() + "\"");
        } catch (DateTimeException e) {
            problem.setText("expected dates such as 2026-09-14, found \"" + value.getText() + "\"");
        } catch (BadInput | IllegalArgumentException e) {
            problem.setText(e.getMessage());
        }
    }
}
