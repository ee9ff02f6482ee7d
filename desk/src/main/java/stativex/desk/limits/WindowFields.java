package stativex.desk.limits;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import stativex.desk.look.DayChoice;
import stativex.desk.look.FocusKeeper;
import stativex.desk.look.Form;
import stativex.desk.look.NumberField;
import stativex.files.StrategySetup;
import stativex.interlock.SessionWindow;
import stativex.market.Money;
import stativex.market.TapeTime;

/** Session windows as a list: name, days, from, to, zone, and what happens at the end. */
public final class WindowFields extends VBox {
    private final ZoneId exchange;
    private final Consumer<List<SessionWindow>> changed;
    private final VBox cards = new VBox(8);
    private final Label said = new Label();
    private List<Card> all = new ArrayList<>();

    /** @param changed told of each list that reads */
    public WindowFields(ZoneId exchange, Consumer<List<SessionWindow>> changed) {
        super(5);
        this.exchange = exchange;
        this.changed = changed;
        said.setId("window-said");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.getStyleClass().add("problem");
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        getChildren().addAll(cards, said);
        rows();
    }

    /** One window's fields. */
    private final class Card {
        private final TextField name = text("Name of the window", 8);
        private final DayChoice days;
        private final TextField from = text("Time from which entries may be sent", 5);
        private final TextField to = text("Time until which the window lasts", 5);
        private final TextField zone = text("Zone of the window's times", 17);
        private final ComboBox<String> end = new ComboBox<>();
        private final TextField loss = text("What the window may lose, empty for no limit", 6);
        private final TextField profit = text("What the window may win, empty for no limit", 6);
        private final CheckBox wholeDay = new CheckBox("at that limit no entry until the next trading day");
        private final NumberField lead = new NumberField("30", 3, "Seconds before the end at which a flatten acts",
                BigDecimal.ZERO);

        Card(SessionWindow window) {
            name.setText(window.name());
            days = new DayChoice(window.days(), WindowFields.this::tell);
            from.setText(window.from().toString());
            to.setText(window.to().toString());
            zone.setText(window.zone().getId());
            for (SessionWindow.End one : SessionWindow.End.values()) {
                end.getItems().add(one.word());
            }
            end.setValue(window.end().word());
            end.setAccessibleText("What happens at the window's end");
            end.setOnAction(e -> tell());
            lead.setText(Long.toString(window.lead() / TapeTime.SECOND));
            lead.onChanged(WindowFields.this::tell);
            loss.setText(window.limits().loss().map(Money::text).orElse(""));
            profit.setText(window.limits().profit().map(Money::text).orElse(""));
            wholeDay.setSelected(window.limits().wholeDay());
            wholeDay.setAccessibleText("Reached, it ends the later windows of the day, too");
            wholeDay.setOnAction(e -> tell());
        }

        private TextField text(String words, int columns) {
            TextField field = new TextField();
            field.setAccessibleText(words);
            field.setPrefColumnCount(columns);
            field.setOnAction(e -> tell());
            field.focusedProperty().addListener((o, before, now) -> {
                if (!now) {
                    tell();
                }
            });
            return field;
        }

        VBox node(int index) {
            name.setId("window-name-" + index);
            from.setId("window-from-" + index);
            to.setId("window-to-" + index);
            zone.setId("window-zone-" + index);
            end.setId("window-end-" + index);
            lead.setId("window-lead-" + index);
            loss.setId("window-loss-" + index);
            profit.setId("window-profit-" + index);
            wholeDay.setId("window-whole-day-" + index);
            days.name("window", index);
            Button less = button("window-less-" + index, "×", () -> {
                all.remove(this);
                rows();
                tell();
            });
            less.setAccessibleText("Take this window away");
            return new VBox(4, Form.row(name, from, Form.muted("to"), to, less), days,
                    Form.row(Form.muted("in"), zone),
                    Form.row(Form.muted("at its end"), end, lead, Form.muted("s before")),
                    Form.row(Form.muted("may lose"), loss, Form.muted("win"), profit), wholeDay);
        }

        SessionWindow window() {
            SessionWindow.End action = java.util.Arrays.stream(SessionWindow.End.values())
                    .filter(one -> one.word().equals(end.getValue())).findFirst().orElseThrow();
            long seconds = lead.number().filter(n -> n.signum() >= 0 && n.compareTo(BigDecimal.valueOf(86_400)) <= 0)
                    .orElseThrow(() -> new IllegalArgumentException("expected seconds before the end, 0 or more"))
                    .longValue();
            return new SessionWindow(name.getText().strip(), days.chosen(), time(from), time(to), place(zone), action,
                    seconds * TapeTime.SECOND,
                    new SessionWindow.Limits(money(loss), money(profit), wholeDay.isSelected()));
        }
    }

    private static Button button(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setOnAction(e -> act.run());
        return button;
    }

    private static Optional<Long> money(TextField field) {
        String text = field.getText().strip();
        try {
            return text.isEmpty() ? Optional.empty() : Optional.of(Money.parse(text));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(field.getAccessibleText() + ": " + e.getMessage(), e);
        }
    }

    private static LocalTime time(TextField field) {
        String text = field.getText().strip();
        try {
            return LocalTime.parse(text.indexOf(':') == 1 ? "0" + text : text);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    field.getAccessibleText() + ": expected a time such as 09:45, found " + text, e);
        }
    }

    private static ZoneId place(TextField field) {
        try {
            return ZoneId.of(field.getText().strip());
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "expected an IANA zone such as Pacific/Auckland, found " + field.getText(), e);
        }
    }

    private void tell() {
        try {
            List<SessionWindow> windows = all.stream().map(Card::window).toList();
            said.setText("");
            changed.accept(windows);
        } catch (IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    /** Shows windows, unless they are what stands here already. */
    public void show(List<SessionWindow> windows) {
        try {
            if (all.stream().map(Card::window).toList().equals(windows)) {
                return;
            }
        } catch (IllegalArgumentException e) {
            // what is being typed does not read yet: the strategy's own stands as it was, and so do the fields
            if (all.size() == windows.size()) {
                return;
            }
        }
        said.setText("");
        all = new ArrayList<>(windows.stream().map(Card::new).toList());
        rows();
    }

    private void rows() {
        FocusKeeper.rebuild(this, () -> {
            cards.getChildren().clear();
            if (all.isEmpty()) {
                cards.getChildren().add(Form.muted("Every hour of every session."));
            }
            for (int i = 0; i < all.size(); i++) {
                cards.getChildren().add(all.get(i).node(i));
            }
            cards.getChildren().add(button("window-more", "+ window", () -> {
                all.add(new Card(new SessionWindow("Window " + (all.size() + 1),
                        EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY), LocalTime.of(9, 45), LocalTime.of(11, 30),
                        exchange,
                        SessionWindow.End.FLATTEN, StrategySetup.LEAD * TapeTime.SECOND)));
                rows();
                tell();
            }));
        });
    }
}
