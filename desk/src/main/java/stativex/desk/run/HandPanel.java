package stativex.desk.run;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.files.ResultWords;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Owner;

/** What the person holds themselves: their position, with what they may do to it, and their orders that rest. Not there while there is nothing. */
final class HandPanel extends VBox {
    private final Contract contract;
    private List<Strategy> strategies;
    private final Consumer<Command> send;
    private final Label side = new Label();
    private final Label result = new Label();
    private final Label facts = new Label();
    private final VBox orders = new VBox(3);
    private final VBox acts = new VBox(6);
    private List<Snapshot.OrderView> shown = List.of();

    HandPanel(Contract contract, List<Strategy> strategies, Consumer<Command> send) {
        super(6);
        this.contract = contract;
        this.strategies = strategies;
        this.send = send;
        getStyleClass().add("position");
        setId("hand");
        side.setId("hand-side");
        side.getStyleClass().add("side");
        result.getStyleClass().add("result");
        facts.setId("hand-facts");
        facts.getStyleClass().add("figures");
        facts.setWrapText(true);
        facts.setMinHeight(Region.USE_PREF_SIZE);
        Label mine = new Label("Mine");
        mine.getStyleClass().add("heading");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button breakeven = button("hand-breakeven", "Breakeven",
                () -> send.accept(new Command.Breakeven(Owner.PERSON)));
        Button half = button("hand-half", "Half off", () -> send.accept(new Command.HalfOff(Owner.PERSON)));
        HoldButton flatten = new HoldButton("Flatten",
                "Leaves your own position at the market and cancels your entries.",
                () -> send.accept(new Command.Flatten(Owner.PERSON)));
        flatten.setId("hand-flatten");
        MenuButton plan = menu("hand-plan", "Plan…", "Attaches a strategy's exit plan to this position", index -> send
                .accept(new Command.AttachPlan(index)), true);
        MenuButton give = menu("hand-give", "Hand to…", "A strategy takes this position and manages it by its own plan",
                index -> send.accept(new Command.HandOver(Owner.PERSON, new Owner.Strategy(index))), false);
        HBox first = new HBox(8, breakeven, half, flatten);
        HBox second = new HBox(8, plan, give);
        for (Region each : new Region[]{breakeven, half, flatten, plan, give}) {
            HBox.setHgrow(each, Priority.ALWAYS);
            each.setMaxWidth(Double.MAX_VALUE);
            each.getStyleClass().add("tight");
        }
        Label whose = new Label("Windows and strategies leave it alone; the account and its rulebook take it.");
        whose.setId("hand-whose");
        whose.getStyleClass().add("muted");
        whose.setWrapText(true);
        whose.setMinHeight(USE_PREF_SIZE);
        acts.getChildren().addAll(facts, first, second, whose);
        getChildren().addAll(new HBox(8, mine, side, gap, result), acts, orders);
    }

    private static Button button(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.setOnAction(e -> act.run());
        return button;
    }

    private MenuButton menu(String id, String words, String help, java.util.function.IntConsumer chosen,
            boolean plans) {
        MenuButton menu = new MenuButton(words);
        menu.setId(id);
        menu.setAccessibleText(help);
        menu.setTooltip(new javafx.scene.control.Tooltip(help));
        for (int i = 0; i < strategies.size(); i++) {
            int index = i;
            MenuItem item = new MenuItem();
            item.setOnAction(e -> chosen.accept(index));
            menu.getItems().add(item);
        }
        Runnable names = () -> {
            for (int i = 0; i < strategies.size(); i++) {
                menu.getItems().get(i).setText(plans
                        ? strategies.get(i).plan().name() + " (" + strategies.get(i).name() + ")"
                        : strategies.get(i).name());
            }
        };
        names.run();
        menu.setOnShowing(e -> names.run());
        return menu;
    }

    void show(Snapshot snapshot) {
        Snapshot.HandView hand = snapshot.hand();
        // a plan may have been changed while it ran
        strategies = snapshot.strategies().stream().map(Snapshot.StrategyView::strategy).toList();
        boolean open = hand.position().isPresent();
        boolean any = open || !hand.orders().isEmpty();
        setVisible(any);
        setManaged(any);
        if (!any) {
            return;
        }
        side.getStyleClass().removeAll("long", "short");
        acts.setVisible(open);
        acts.setManaged(open);
        if (open) {
            Snapshot.PositionView p = hand.position().get();
            side.getStyleClass().add(p.side().word());
            side.setText((p.side() == Side.LONG ? "LONG " : "SHORT ") + p.open());
            result.setText(Format.signedMoney(p.openResult()));
            String plan = hand.guide().isPresent()
                    ? strategies.get(hand.guide().getAsInt()).plan().name()
                    : "no plan: nothing leaves by itself";
            facts.setText("avg " + Format.grouped(contract.meanText(p.averageSum(), p.averageQuantity())) + " · " + plan
                    + (p.leaving() ? " · leaving" : ""));
        } else {
            side.setText("Flat");
            result.setText("");
        }
        if (!hand.orders().equals(shown)) {
            shown = hand.orders();
            orders.getChildren().setAll(shown.stream().map(this::row).toList());
        }
    }

    private HBox row(Snapshot.OrderView order) {
        Label what = new Label((order.buy() ? "buy " : "sell ") + order.rest() + " " + ResultWords.of(order.type())
                + order.price().map(price -> " @ " + Format.price(contract, price)).orElse(""));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button cancel = button("hand-cancel-" + order.number(), "×",
                () -> send.accept(new Command.Cancel(order.number())));
        cancel.setAccessibleText("Cancel " + what.getText());
        cancel.getStyleClass().addAll("small", "quiet");
        return new HBox(6, what, gap, cancel);
    }
}
