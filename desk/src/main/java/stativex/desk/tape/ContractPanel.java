package stativex.desk.tape;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.DayChoice;
import stativex.desk.look.FilePicker;
import stativex.files.BadInput;
import stativex.files.ContractSketch;
import stativex.files.Documents;
import stativex.files.SpecialDates;
import stativex.market.Contract;
import stativex.market.TapeTime;

/** A contract in fields: what it is, its sessions, special dates; beside them the picture of any week. */
final class ContractPanel extends BorderPane {
    private final Consumer<Optional<Documents.Read<Contract>>> closed;
    private final TextField symbol = field("contract-symbol", "Symbol of the contract", 8);
    private final TextField name = field("contract-name", "Name of the contract", 18);
    private final TextField currency = field("contract-currency", "Currency of its money", 5);
    private final TextField zone = field("contract-zone", "The exchange's zone", 16);
    private final TextField tick = field("contract-tick", "Price of one tick", 7);
    private final TextField value = field("contract-value", "Money that a tick is worth for one contract", 7);
    private final TextField slippage = field("contract-slippage", "Ticks added against every market and stop order", 3);
    private final TextField last = field("contract-last", "Last trading day, if there is one", 10);
    private final TextField late = field("contract-late", "Seconds after the open from which a first print is late", 4);
    private final TextField margin = field("contract-margin", "Money that one contract binds, if you want it shown", 7);
    private final TextArea months = new TextArea();
    private final Label front = new Label();
    private final VBox lines = new VBox(6);
    private final TextArea special = new TextArea();
    private final TextField week = field("contract-week", "A date of the week that is shown", 10);
    private final WeekPicture picture = new WeekPicture(this::dragged);
    private final Label brought = new Label();
    private final Label problem = new Label();
    private List<SessionLine> sessions = new ArrayList<>();
    private boolean showing;

    /** @param closed told of the contract that is to be kept, or of none */
    ContractPanel(ContractSketch sketch, String title, FilePicker picker,
            Consumer<Optional<Documents.Read<Contract>>> closed) {
        this.closed = closed;
        getStyleClass().add("import");
        setId("contract-panel");
        Label heading = new Label(title);
        heading.getStyleClass().add("title");
        problem.setId("contract-problem");
        problem.getStyleClass().add("problem");
        problem.setWrapText(true);
        problem.setMinHeight(USE_PREF_SIZE);
        special.setId("contract-special");
        special.setAccessibleText("Dates with other hours, one a line");
        special.setPromptText(
                "2026-12-25 closed\n2026-12-24 closes 13:00\n2026-12-28 opens 10:00\n2026-12-31 has Day 09:00 to 12:00");
        special.setPrefRowCount(4);
        special.textProperty().addListener((o, before, now) -> changed());
        week.setText(LocalDate.now().toString());
        GridPane fields = new GridPane(10, 6);
        fields.addRow(0, new Label("Symbol"), symbol, new Label("Name"), name);
        fields.addRow(1, new Label("Currency"), currency, new Label("Zone"), zone);
        fields.addRow(2, new Label("Tick size"), with(tick, "price"), new Label("Worth"), with(value, "money"));
        fields.addRow(3, new Label("Slippage"), with(slippage, "ticks"), new Label("Last trading day"), last);
        fields.addRow(4, new Label("Late after"), with(late, "s"), new Label("Margin"), with(margin, "money"));
        months.setId("contract-months");
        months.setAccessibleText("Months of this root, one a line, each with its last trading day");
        months.setPromptText("2026-09 until 2026-09-16\n2026-12 until 2026-12-16");
        months.setPrefRowCount(2);
        months.textProperty().addListener((o, before, now) -> changed());
        front.setId("contract-front");
        front.getStyleClass().add("muted");
        // a word is never cut; the fields give way
        fields.lookupAll(".label").forEach(label -> ((Label) label).setMinWidth(USE_PREF_SIZE));
        Button keep = new Button("Keep");
        keep.setId("contract-keep");
        keep.getStyleClass().add("primary");
        keep.setOnAction(e -> keep());
        Button cancel = new Button("Not now");
        cancel.setId("contract-cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> closed.accept(Optional.empty()));
        Button dates = button("contract-dates", "from a file…",
                () -> picker.open("Holidays", "ics", "csv").ifPresent(this::bringDates));
        dates.setTooltip(new Tooltip("Holidays, early closes and late opens from an iCalendar or CSV file"));
        HBox over = new HBox(8, sub("Special dates"), dates);
        over.setAlignment(Pos.CENTER_LEFT);
        brought.setId("contract-brought");
        brought.getStyleClass().add("muted");
        brought.setWrapText(true);
        brought.setMinHeight(USE_PREF_SIZE);
        VBox left = new VBox(8, heading, fields, sub("Months"), months, front, sub("Sessions"), lines, over, special,
                brought, problem,
                new HBox(10, keep, cancel));
        left.setMinWidth(430);
        left.setPrefWidth(430);
        VBox right = new VBox(8, weeks(), picture);
        HBox.setHgrow(right, Priority.ALWAYS);
        HBox both = new HBox(20, left, right);
        both.getStyleClass().add("import-body");
        ScrollPane scroll = new ScrollPane(both);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("cards");
        setCenter(scroll);
        show(sketch);
    }

    private TextField field(String id, String words, int columns) {
        TextField field = new TextField();
        field.setId(id);
        field.setAccessibleText(words);
        field.setTooltip(new Tooltip(words));
        field.setPrefColumnCount(columns);
        field.textProperty().addListener((o, before, now) -> changed());
        return field;
    }

    private static Label sub(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("heading");
        return label;
    }

    private static HBox with(TextField field, String unit) {
        Label label = new Label(unit);
        label.getStyleClass().add("muted");
        HBox box = new HBox(5, field, label);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private Node weeks() {
        Button before = button("contract-week-before", "<", () -> move(-7));
        before.setAccessibleText("The week before");
        Button after = button("contract-week-after", ">", () -> move(7));
        after.setAccessibleText("The week after");
        Button spring = button("contract-change-next", "next clock change", this::nextChange);
        HBox row = new HBox(6, before, week, after, spring);
        row.setAlignment(Pos.CENTER_LEFT);
        spring.setMinWidth(USE_PREF_SIZE);
        week.setMinWidth(USE_PREF_SIZE);
        return new VBox(6, sub("A week as it runs"), row);
    }

    private static Button button(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().addAll("small", words.length() > 1 ? "link" : "quiet");
        button.setOnAction(e -> act.run());
        return button;
    }

    private void move(int days) {
        monday().ifPresent(date -> week.setText(date.plusDays(days).toString()));
    }

    /** Goes to the week in which the zone's clock is next changed. */
    private void nextChange() {
        read().ifPresent(contract -> monday().ifPresent(from -> {
            var rules = contract.value().calendar().zone().getRules();
            var next = rules
                    .nextTransition(from.plusDays(7).atStartOfDay(contract.value().calendar().zone()).toInstant());
            if (next != null) {
                week.setText(next.getDateTimeBefore().toLocalDate().toString());
            }
        }));
    }

    /** An edge of a session was dragged: its line has another open or close, on all of its days. */
    private void dragged(WeekPicture.Edge edge, LocalTime to) {
        sessions.stream().filter(line -> line.called.getText().strip().equals(edge.session())
                && line.days.chosen().contains(edge.tradingDate().getDayOfWeek())).findFirst()
                .ifPresent(line -> (edge.open() ? line.open : line.close).setText(to.toString()));
    }

    private Optional<LocalDate> monday() {
        try {
            return Optional
                    .of(TapeTime.date(week.getText().strip()).with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY)));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /** One session's fields. */
    private final class SessionLine {
        private final TextField called = field("", "Name of the session", 6);
        private final DayChoice days;
        private final TextField open = field("", "Its open, exchange time", 5);
        private final CheckBox evening = new CheckBox("the evening before");
        private final TextField close = field("", "Its close, exchange time", 5);
        private final ContractSketch.Line from;

        SessionLine(ContractSketch.Line line) {
            from = line;
            called.setText(line.name());
            open.setText(line.open());
            close.setText(line.close());
            evening.setSelected(line.openDay() < 0);
            evening.setOnAction(e -> changed());
            days = new DayChoice(line.days(), ContractPanel.this::changed);
        }

        Node node(int index) {
            called.setId("session-name-" + index);
            open.setId("session-open-" + index);
            evening.setId("session-evening-" + index);
            close.setId("session-close-" + index);
            days.name("session", index);
            Button less = button("session-less-" + index, "×", () -> {
                sessions.remove(this);
                rows();
            });
            less.setAccessibleText("Take this session away");
            HBox hours = new HBox(5, called, open, evening, new Label("to"), close, less);
            hours.setAlignment(Pos.CENTER_LEFT);
            return new VBox(3, hours, days);
        }

        ContractSketch.Line line() {
            return new ContractSketch.Line(called.getText(), days.chosen(), open.getText(),
                    evening.isSelected() ? -1 : 0,
                    close.getText(), from.closeDay());
        }
    }

    private void show(ContractSketch sketch) {
        showing = true;
        symbol.setText(sketch.symbol());
        name.setText(sketch.name());
        currency.setText(sketch.currency());
        zone.setText(sketch.hours().zone());
        tick.setText(sketch.prices().tickSize());
        value.setText(sketch.prices().tickValue());
        slippage.setText(sketch.prices().slippage());
        margin.setText(sketch.prices().margin());
        months.setText(sketch.listing().months());
        last.setText(sketch.listing().lastTradingDay());
        late.setText(sketch.hours().lateSeconds());
        special.setText(sketch.hours().special());
        showing = false;
        sessions(sketch.hours().sessions());
    }

    private void sessions(List<ContractSketch.Line> all) {
        sessions = new ArrayList<>(all.stream().map(SessionLine::new).toList());
        rows();
    }

    private void rows() {
        lines.getChildren().clear();
        for (int i = 0; i < sessions.size(); i++) {
            lines.getChildren().add(sessions.get(i).node(i));
        }
        MenuButton patterns = new MenuButton("Begin with…");
        patterns.setId("session-pattern");
        patterns.getStyleClass().addAll("small", "link");
        ContractSketch.patterns().forEach((words, pattern) -> {
            MenuItem item = new MenuItem(words);
            item.setOnAction(e -> sessions(pattern));
            patterns.getItems().add(item);
        });
        lines.getChildren().add(new HBox(8, button("session-more", "+ session", () -> {
            sessions.add(new SessionLine(new ContractSketch.Line("Session " + (sessions.size() + 1),
                    EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY), "18:00", false, "20:00")));
            rows();
        }), patterns));
        changed();
    }

    private ContractSketch sketch() {
        return new ContractSketch(symbol.getText(), name.getText(), currency.getText(),
                new ContractSketch.Prices(tick.getText(), value.getText(), slippage.getText(), margin.getText()),
                new ContractSketch.Listing(last.getText(), months.getText()),
                new ContractSketch.Hours(zone.getText(), late.getText(),
                        sessions.stream().map(SessionLine::line).toList(), special.getText()));
    }

    private Optional<Documents.Read<Contract>> read() {
        try {
            Documents.Read<Contract> contract = sketch().read();
            problem.setText("");
            return Optional.of(contract);
        } catch (BadInput | IllegalArgumentException e) {
            problem.setText(plain(e.getMessage()));
            return Optional.empty();
        }
    }

    /** What a document's reader says, with the fields' own names. */
    private static String plain(String said) {
        return said.replaceFirst("^.*, \\$\\.?", "").replaceFirst("^calendar\\.?", "")
                .replaceFirst("^tickSize", "tick size")
                .replaceFirst("^tickValue", "worth").replaceFirst("^lastTradingDay", "last trading day")
                .replaceFirst("^months\\[\\d+\\]\\S*", "months")
                .replaceFirst("^week\\[\\d+\\]\\.sessions\\[\\d+\\]\\.?", "session ")
                .replaceFirst("^exceptions\\[(\\d+)\\]\\S*", "special date $1").replaceFirst("^: ", "");
    }

    private void changed() {
        if (!showing && sessions != null) {
            Optional<Documents.Read<Contract>> read = read();
            picture.show(read.map(contract -> contract.value().calendar()), monday().orElse(LocalDate.EPOCH));
            LocalDate shown = monday().orElse(LocalDate.EPOCH);
            front.setText(read.map(Documents.Read::value).flatMap(of -> of.front(shown))
                    .map(month -> "In the week shown the front month is " + month.name() + ".").orElse(""));
        }
    }

    /** Adds the dates of a file from two years ago to five years from now; what is written stays. */
    private void bringDates(Path file) {
        try {
            LocalDate today = LocalDate.now();
            SpecialDates.Found found = SpecialDates.read(file, today.minusYears(2).withDayOfYear(1),
                    today.plusYears(5), ZoneId.of(zone.getText().strip()));
            String all = found.added(special.getText());
            long more = all.lines().count() - special.getText().stripTrailing().lines().count();
            special.setText(all);
            brought.setText(more + " of " + found.lines().size() + " dates added from " + file.getFileName()
                    + (found.lines().size() > more ? "; the others were there already" : "")
                    + (found.leftOut().isEmpty() ? "." : ". Left out: " + String.join("; ", found.leftOut()) + "."));
        } catch (BadInput e) {
            brought.setText(e.getMessage());
        } catch (DateTimeException e) {
            brought.setText("zone: expected an IANA zone such as Pacific/Auckland, before a calendar can be read");
        }
    }

    private void keep() {
        read().ifPresent(contract -> closed.accept(Optional.of(contract)));
    }
}
