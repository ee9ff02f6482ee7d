package stativex.desk.limits;

import java.math.BigDecimal;
import java.util.EnumMap;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;
import stativex.account.ForThePerson;
import stativex.account.ForThePerson.Of;
import stativex.account.ForThePerson.Response;
import stativex.desk.look.Form;
import stativex.files.OwnOrders;

/** What an account's interlocks do with the person's own orders: each stops, asks or warns; and from when on a line is near. */
final class OwnOrdersForm extends VBox {
    private final Consumer<ForThePerson> changed;
    private final Map<Of, ComboBox<String>> choices = new EnumMap<>(Of.class);
    private final CheckBox along = new CheckBox("My position leaves with windows and strategies");
    private final TextField percent = field("near-percent", "A line is near below so many percent of its allowance", 3);
    private final TextField outs = field("near-outs", "A line is near below so many full stop-outs", 3);
    private final Label said = new Label();
    private ForThePerson shown = ForThePerson.DEFAULT;
    private boolean showing;

    /** @param changed told of what somebody wants */
    OwnOrdersForm(Consumer<ForThePerson> changed) {
        super(4);
        this.changed = changed;
        Label title = new Label("For your own orders");
        title.getStyleClass().add("fact");
        getChildren().add(title);
        for (Of of : Of.values()) {
            ComboBox<String> choice = Form.choice(
                    "own-orders-" + of.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'),
                    OwnOrders.name(of) + ", for your own orders", words());
            choice.setPrefWidth(92);
            choice.setMaxWidth(92);
            choice.setOnAction(e -> put());
            choices.put(of, choice);
            Label word = new Label(OwnOrders.name(of));
            word.setMinWidth(118);
            getChildren().add(Form.row(word, choice));
        }
        Label always = Form
                .wrapped("Locks, a broken account, and the rulebook's lines, sizes and flat by always stop.");
        along.setId("own-orders-along");
        along.setWrapText(true);
        along.setTooltip(new Tooltip("With those of the account, the contract and the rulebook it always does."));
        along.setOnAction(e -> put());
        for (TextField field : new TextField[]{percent, outs}) {
            field.setOnAction(e -> put());
            field.focusedProperty().addListener((o, before, now) -> {
                if (!now) {
                    put();
                }
            });
        }
        said.setId("own-orders-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        getChildren().addAll(always, along,
                Form.row(new Label("Near below"), percent, Form.muted("% or"), outs, Form.muted("stop-outs")), said);
    }

    private static String[] words() {
        return java.util.Arrays.stream(Response.values()).map(OwnOrders::name).toArray(String[]::new);
    }

    void show(ForThePerson manners) {
        showing = true;
        shown = manners;
        choices.forEach((of, choice) -> choice.getSelectionModel().select(manners.of(of).ordinal()));
        along.setSelected(manners.along());
        percent.setText(Integer.toString(manners.near().percent()));
        outs.setText(BigDecimal.valueOf(manners.near().tenths(), 1).toPlainString());
        showing = false;
    }

    private void put() {
        if (showing) {
            return;
        }
        Map<Of, Response> orders = new EnumMap<>(Of.class);
        choices.forEach(
                (of, choice) -> orders.put(of, Response.values()[choice.getSelectionModel().getSelectedIndex()]));
        try {
            ForThePerson next = new ForThePerson(orders, along.isSelected(), new ForThePerson.Near(
                    Integer.parseInt(percent.getText().strip()),
                    new BigDecimal(outs.getText().strip()).movePointRight(1).intValueExact()));
            said.setText("");
            if (!next.equals(shown)) {
                changed.accept(next);
            }
        } catch (ArithmeticException | NumberFormatException e) {
            said.setText("expected whole percent, and stop-outs with one decimal");
        } catch (IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    private static TextField field(String id, String words, int columns) {
        TextField field = new TextField();
        field.setId(id);
        field.setAccessibleText(words);
        field.setTooltip(new Tooltip(words));
        field.setPrefColumnCount(columns);
        return field;
    }
}
