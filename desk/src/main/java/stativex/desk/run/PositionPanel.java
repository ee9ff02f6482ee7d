package stativex.desk.run;

import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.files.Sentences;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Owner;

/** The selected strategy's position, and what a person may do to it: breakeven, half off, flatten. */
final class PositionPanel extends VBox {
    private final Contract contract;
    private final Label side = new Label();
    private final Label result = new Label();
    private final Label facts = new Label();
    private final Button breakeven = new Button("Breakeven");
    private final Button halfOff = new Button("Half off");
    private final Button handOver = new Button("To me");
    private final HoldButton flatten;
    private int strategy;

    PositionPanel(Contract contract, Consumer<Command> send) {
        this.contract = contract;
        getStyleClass().add("position");
        breakeven.setId("breakeven");
        breakeven.setTooltip(new Tooltip("Moves the stop to the average entry price, if that tightens it."));
        breakeven.setOnAction(e -> send.accept(new Command.Breakeven(strategy)));
        halfOff.setId("half-off");
        halfOff.setTooltip(new Tooltip("Takes half of the open contracts off at the market."));
        halfOff.setOnAction(e -> send.accept(new Command.HalfOff(strategy)));
        flatten = new HoldButton("Flatten", "Leaves this strategy's position at the market and cancels its entries.",
                () -> send.accept(new Command.Flatten(strategy)));
        flatten.setId("flatten");
        side.setId("side");
        facts.setId("facts");
        side.getStyleClass().add("side");
        result.getStyleClass().add("result");
        facts.getStyleClass().add("figures");
        facts.setWrapText(true);
        facts.setMinHeight(30);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(side, gap, result);
        handOver.setId("hand-to-me");
        handOver.setTooltip(new Tooltip("The position becomes yours as it stands, with its stop, targets and plan."));
        handOver.setOnAction(e -> send.accept(new Command.HandOver(new Owner.Strategy(strategy), Owner.PERSON)));
        HBox buttons = new HBox(6, breakeven, halfOff, handOver, flatten);
        for (Button button : new Button[]{breakeven, halfOff, handOver, flatten}) {
            HBox.setHgrow(button, Priority.ALWAYS);
            button.setMaxWidth(Double.MAX_VALUE);
            button.setMinWidth(USE_PREF_SIZE);
            button.getStyleClass().add("tight");
        }
        setSpacing(6);
        getChildren().addAll(head, facts, buttons);
    }

    /** @param handBusy the person has something at work already, so nothing can be handed to them */
    void show(Snapshot.StrategyView view, boolean handBusy) {
        strategy = view.index();
        boolean open = view.position().isPresent();
        breakeven.setDisable(!open);
        halfOff.setDisable(!open);
        handOver.setDisable(!open || handBusy);
        flatten.setDisable(!open);
        side.getStyleClass().removeAll("long", "short");
        if (!open) {
            side.setText("Flat");
            result.setText("");
            facts.setText(
                    Sentences.entries(view.strategy()) + " · "
                            + view.strategy().plan().name());
            return;
        }
        Snapshot.PositionView p = view.position().get();
        side.getStyleClass().add(p.side().word());
        side.setText((p.side() == Side.LONG ? "LONG " : "SHORT ") + p.open());
        result.setText(Format.signedMoney(p.openResult()));
        facts.setText("avg " + Format.grouped(contract.meanText(p.averageSum(), p.averageQuantity())) + " · bar "
                + p.bars() + "\nbest " + Format.ticks(p.best()) + " · worst " + Format.ticks(-p.worst())
                + (p.leaving() ? " · leaving" : ""));
    }
}
