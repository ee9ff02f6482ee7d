package stativex.desk;

import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.files.AccountSketch;
import stativex.files.BadInput;
import stativex.files.Documents;

/** A simulated account in fields: its money, fees, own lines for the day, and the floor of its rulebook. */
final class AccountPanel extends BorderPane {
    private final Consumer<Optional<Documents.Read<Account>>> closed;
    private final TextField name = new TextField();
    private final TextField currency = new TextField();
    private final TextField start = new TextField();
    private final TextArea fees = new TextArea();
    private final TextField loss = new TextField();
    private final TextField profit = new TextField();
    private final TextField rulebook = new TextField();
    private final TextField allowance = new TextField();
    private final TextField lock = new TextField();
    private final Label problem = new Label();
    private final AccountSketch sketch;
    private final AccountLinesForm further;

    /** @param closed told of the account that is to be kept, or of none */
    AccountPanel(AccountSketch sketch, String title, Consumer<Optional<Documents.Read<Account>>> closed) {
        this.closed = closed;
        this.sketch = sketch;
        this.further = new AccountLinesForm(sketch.lines());
        getStyleClass().add("import");
        setId("account-panel");
        Label heading = new Label(title);
        heading.getStyleClass().add("title");
        problem.setId("account-problem");
        problem.getStyleClass().add("problem");
        problem.setWrapText(true);
        fees.setPrefRowCount(3);
        fees.setPrefColumnCount(18);
        GridPane fields = new GridPane(10, 8);
        fields.addRow(0, new Label("Name"), set(name, "account-name", "Name of the account", sketch.name()));
        fields.addRow(1, new Label("Currency"),
                set(currency, "account-currency", "Currency of its money", sketch.currency()));
        fields.addRow(2, new Label("Start"), set(start, "account-start", "Balance it begins with", sketch.start()));
        fields.addRow(3, new Label("Fees"),
                beside(set(fees, "account-fees", "Fees: a contract and the fee of one side, one a line", sketch.fees()),
                        "a contract and side, one a line"));
        fields.addRow(4, new Label("Day loss"),
                beside(set(loss, "account-loss", "Own day loss, empty for none", sketch.dayLoss()), "empty: none"));
        fields.addRow(5, new Label("Day profit"),
                beside(set(profit, "account-profit", "Own day profit, empty for none", sketch.dayProfit()),
                        "empty: none"));
        fields.addRow(6, new Label("Rulebook"),
                set(rulebook, "account-rulebook", "Name of the rulebook", sketch.rulebook()));
        fields.addRow(7, new Label("Drawdown floor"),
                beside(set(allowance, "account-allowance", "Money below what the floor hangs from, empty for no floor",
                        sketch.allowance()), "empty: none"));
        fields.addRow(8, new Label("Locks at"),
                beside(set(lock, "account-lock", "The floor never rises above this", sketch.lockAt()),
                        "empty: always trails"));
        Button keep = new Button("Keep");
        keep.setId("account-keep");
        keep.getStyleClass().add("primary");
        keep.setOnAction(e -> keep());
        Button cancel = new Button("Not now");
        cancel.setId("account-cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> closed.accept(Optional.empty()));
        HBox both = new HBox(36, fields, further);
        VBox box = new VBox(10, heading, both, problem, new HBox(10, keep, cancel));
        box.getStyleClass().add("import-body");
        setCenter(box);
    }

    private static <T extends TextInputControl> T set(T field, String id, String words, String text) {
        field.setId(id);
        field.setAccessibleText(words);
        field.setTooltip(new Tooltip(words));
        field.setText(text);
        return field;
    }

    private static HBox beside(TextInputControl field, String words) {
        Label label = new Label(words);
        label.getStyleClass().add("muted");
        HBox box = new HBox(8, field, label);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private void keep() {
        try {
            Documents.Read<Account> account = sketch.filled(name.getText(), currency.getText(), start.getText(),
                    fees.getText(), loss.getText(), profit.getText(), rulebook.getText(), allowance.getText(),
                    lock.getText(), further.lines()).read();
            closed.accept(Optional.of(account));
        } catch (BadInput e) {
            problem.setText(e.getMessage().replaceFirst("^.*, \\$\\.?", ""));
        }
    }
}
