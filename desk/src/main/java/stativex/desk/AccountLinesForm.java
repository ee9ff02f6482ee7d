package stativex.desk;

import java.util.List;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import stativex.files.AccountLines;

/** Further lines of an account in fields: floor, book's day loss, give-back, losing run, flat by, quiet times. */
final class AccountLinesForm extends GridPane {
    private static final List<String> KINDS = List.of("intraday", "end of day", "static");
    private static final List<String> KIND_WORDS = List.of("the highest equity", "the best day's end", "the start");
    private static final List<String> FROM = List.of("balance", "equity");
    private static final List<String> ACTIONS = List.of("no entries", "cancel", "flatten");

    private final ComboBox<String> kind = choice("account-floor-kind", "What the floor hangs from", KIND_WORDS);
    private final TextField guard = new TextField();
    private final TextField bookLoss = new TextField();
    private final ComboBox<String> bookFrom = choice("account-book-from", "What the book's day loss counts from", FROM);
    private final CheckBox breaks = new CheckBox("breaks the account");
    private final TextField giveFall = new TextField();
    private final TextField giveAfter = new TextField();
    private final TextField losing = new TextField();
    private final TextField pause = new TextField();
    private final TextField flatTime = new TextField();
    private final TextField flatZone = new TextField();
    private final TextArea releases = new TextArea();
    private final TextField before = new TextField();
    private final TextField after = new TextField();
    private final ComboBox<String> action = choice("account-quiet-action", "What a quiet time does", ACTIONS);

    AccountLinesForm(AccountLines lines) {
        super(10, 8);
        kind.getSelectionModel().select(Math.max(0, KINDS.indexOf(lines.floorKind())));
        bookFrom.getSelectionModel().select(lines.bookFrom());
        action.getSelectionModel().select(lines.quiet().action());
        breaks.setId("account-book-breaks");
        breaks.setSelected(lines.bookBreaks());
        releases.setPrefRowCount(4);
        releases.setPrefColumnCount(26);
        addRow(0, word("Floor below"), kind);
        addRow(1, word("Floor's guard"), row(field(guard, "account-floor-guard",
                "Ticks above the floor at which everything leaves, empty for no guard", lines.floorGuard(), 4),
                muted("ticks before it; empty: none")));
        addRow(2, word("Book's day loss"), row(field(bookLoss, "account-book-loss",
                "Day loss of the rulebook, empty for none", lines.bookLoss(), 7), muted("from"), bookFrom, breaks));
        addRow(3, word("Give-back"), row(field(giveFall, "account-give-fall",
                "How much of the day's best may be given back, empty for no line", lines.giveFall(), 7),
                muted("once the day was"),
                field(giveAfter, "account-give-after", "Best of the day from which it counts", lines.giveAfter(), 7)));
        addRow(4, word("Losing run"), row(field(losing, "account-losing",
                "Losing trades in a row after which nothing is entered, empty for none", lines.losingTrades(), 3),
                muted("trades, then pause"),
                field(pause, "account-pause", "Minutes of the pause, empty for the rest of the day",
                        lines.losingPause(), 4),
                muted("min; empty: the day")));
        addRow(5, word("Flat by"), row(field(flatTime, "account-flat-time", "Time of day, empty for none",
                lines.flatTime(), 5), muted("in"),
                field(flatZone, "account-flat-zone", "Zone such as Pacific/Auckland", lines.flatZone(), 14)));
        addRow(6, word("Quiet times"), row(field(before, "account-quiet-before", "Minutes before a release",
                lines.quiet().before(), 3), muted("min before,"),
                field(after, "account-quiet-after", "Minutes after a release", lines.quiet().after(), 3),
                muted("after:"), action));
        field(releases, "account-releases", "Releases, one a line: time, title | country | impact",
                lines.quiet().releases());
        add(releases, 1, 7);
        add(muted("one a line: 2026-09-24T02:30:00Z Tide table | NZ | high"), 1, 8);
    }

    private static ComboBox<String> choice(String id, String words, List<String> items) {
        ComboBox<String> box = new ComboBox<>(FXCollections.observableArrayList(items));
        box.setId(id);
        box.setAccessibleText(words);
        box.setTooltip(new Tooltip(words));
        return box;
    }

    private static Label word(String text) {
        Label label = new Label(text);
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    private static Label muted(String text) {
        Label label = word(text);
        label.getStyleClass().add("muted");
        return label;
    }

    private static HBox row(Node... nodes) {
        HBox row = new HBox(6, nodes);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static TextField field(TextField field, String id, String words, String text, int columns) {
        field(field, id, words, text);
        field.setPrefColumnCount(columns);
        return field;
    }

    private static void field(TextInputControl field, String id, String words, String text) {
        field.setId(id);
        field.setAccessibleText(words);
        field.setTooltip(new Tooltip(words));
        field.setText(text);
    }

    /** As they are written now. */
    AccountLines lines() {
        return new AccountLines(KINDS.get(kind.getSelectionModel().getSelectedIndex()), guard.getText(),
                bookLoss.getText(), bookFrom.getValue(), breaks.isSelected(), giveFall.getText(), giveAfter.getText(),
                losing.getText(), pause.getText(), flatTime.getText(), flatZone.getText(),
                new AccountLines.Quiet(releases.getText(), before.getText(), after.getText(), action.getValue()));
    }
}
