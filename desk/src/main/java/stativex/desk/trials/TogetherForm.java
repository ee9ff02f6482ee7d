package stativex.desk.trials;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.desk.look.Form;
import stativex.files.BadInput;
import stativex.files.StrategyDraft;
import stativex.files.Together;
import stativex.market.Contract;
import stativex.market.Money;

/** Several contracts and strategies on one account: which are tried at once, and what a side of each contract costs. */
final class TogetherForm extends VBox {
    private final Map<String, CheckBox> contracts = new LinkedHashMap<>();
    private final Map<String, TextField> fees = new LinkedHashMap<>();
    private final Map<StrategyDraft, CheckBox> others = new LinkedHashMap<>();

    /**
     * @param same whose rules run on every contract that is ticked
     * @param known contracts that there is a tape of; the first is the one that is open
     * @param go gets what was chosen
     */
    TogetherForm(StrategyDraft same, List<Contract> known, Collection<StrategyDraft> all, Account account,
            Consumer<Together.Wanted> go) {
        super(6);
        setId("together");
        getChildren().addAll(heading("Several at once"), Form.wrapped("One account, one capital, one run: lines and"
                + " limits hold over all of them together."), heading(same.name() + " on"));
        for (Contract contract : known) {
            CheckBox tick = new CheckBox(contract.symbol() + "  " + contract.name());
            tick.setId("together-" + contract.symbol());
            tick.setSelected(contracts.isEmpty() || contract.symbol().equals(same.contract()));
            contracts.put(contract.symbol(), tick);
            TextField fee = new TextField(account.fees().containsKey(contract.symbol())
                    ? Money.text(account.fee(contract.symbol()))
                    : "");
            fee.setId("together-fee-" + contract.symbol());
            fee.setAccessibleText("Fee of one side of " + contract.symbol());
            fee.setDisable(account.fees().containsKey(contract.symbol()));
            fee.setPrefColumnCount(5);
            fees.put(contract.symbol(), fee);
            Region gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            getChildren().add(Form.row(tick, gap, Form.muted("a side"), fee));
        }
        if (all.size() > 1) {
            getChildren().add(heading("And beside it"));
        }
        for (StrategyDraft draft : all) {
            if (!draft.name().equals(same.name())) {
                CheckBox tick = new CheckBox(draft.name() + ", " + draft.contract());
                others.put(draft, tick);
                getChildren().add(tick);
            }
        }
        Label said = Form.wrapped("");
        said.getStyleClass().setAll("label", "problem");
        said.setId("together-said");
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        Button start = new Button("Try them together");
        start.setId("together-go");
        start.setOnAction(e -> {
            try {
                said.setText("");
                go.accept(wanted(same));
            } catch (BadInput | IllegalArgumentException problem) {
                said.setText(problem.getMessage());
            }
        });
        getChildren().addAll(start, said);
    }

    private Together.Wanted wanted(StrategyDraft same) {
        Map<String, String> costs = new LinkedHashMap<>();
        fees.forEach((symbol, field) -> costs.put(symbol, field.getText()));
        return new Together.Wanted(same,
                contracts.entrySet().stream().filter(e -> e.getValue().isSelected()).map(Map.Entry::getKey).toList(),
                others.entrySet().stream().filter(e -> e.getValue().isSelected()).map(Map.Entry::getKey).toList(),
                costs);
    }

    private static Label heading(String words) {
        Label heading = new Label(words);
        heading.getStyleClass().add("heading");
        return heading;
    }
}
