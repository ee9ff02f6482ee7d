package stativex.desk.run;

import java.math.BigDecimal;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.ForThePerson;
import stativex.account.Headroom;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.desk.look.NumberField;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.files.ResultWords;
import stativex.files.Sentences;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Owner;

/**
 * An order of the person's own: side, quantity, type, price, the exit plan that its trade takes, and what the worst of it would cost
 * before it is sent. What the account's settings make a question (a line of the person's own that a stop-out would cross, a quiet time …)
 * is one here: the order is then held to be sent.
 */
final class Ticket extends VBox {
    private static final String NO_PLAN = "none";

    private final Contract contract;
    private final long fee;
    private final Consumer<Command> send;
    private final ToggleButton buys = new ToggleButton("Long");
    private final ToggleButton sells = new ToggleButton("Short");
    private final NumberField quantity = new NumberField("1", 3, "Contracts", BigDecimal.ONE);
    private final ComboBox<String> type = Form.choice("ticket-type", "Order type", "market", "limit", "stop",
            "stop-limit");
    private final TextField price = new TextField();
    private final Label away = Form.muted("");
    private final TextField limit = new TextField();
    private final ComboBox<String> plan = Form.choice("ticket-plan", "Exit plan of the trade", NO_PLAN);
    private final HBox priceLine = Form.line("Price", price, away);
    private final HBox limitLine = Form.line("Limit", limit);
    private final Label worst = new Label();
    private final Label left = new Label();
    private final Label said = new Label();
    private final Button go = new Button("Send");
    private final HoldButton anyway = new HoldButton("Hold to send anyway",
            "The account asks before an order goes past this.", () -> order().ifPresent(o -> give(o, true)));
    private Optional<Snapshot> last = Optional.empty();
    private int decisions;
    /** The last order was declined by what the account asks about, and is still the one that stands here. */
    private Optional<Command.Enter> held = Optional.empty();

    /**
     * @param fee money per contract and side
     * @param close closes the ticket
     */
    Ticket(Contract contract, long fee, List<Strategy> strategies, Consumer<Command> send, Runnable close) {
        super(7);
        this.contract = contract;
        this.fee = fee;
        this.send = send;
        setId("ticket");
        getStyleClass().add("ticket");
        setMaxSize(236, Region.USE_PREF_SIZE);
        setMinWidth(236);
        Label title = new Label("Order, " + contract.symbol());
        title.getStyleClass().add("heading");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button shut = new Button("×");
        shut.setId("ticket-close");
        shut.setAccessibleText("Close the order ticket");
        shut.getStyleClass().addAll("small", "quiet");
        shut.setOnAction(e -> close.run());
        HBox head = new HBox(6, title, gap, shut);
        ToggleGroup group = new ToggleGroup();
        buys.setToggleGroup(group);
        sells.setToggleGroup(group);
        buys.setId("ticket-long");
        sells.setId("ticket-short");
        buys.getStyleClass().add("side-long");
        sells.getStyleClass().add("side-short");
        buys.setSelected(true);
        HBox sides = new HBox(buys, sells);
        sides.getStyleClass().add("choice");
        quantity.setId("ticket-quantity");
        price.setId("ticket-price");
        price.setPrefColumnCount(7);
        price.setAccessibleText("Price of the order");
        limit.setId("ticket-limit");
        limit.setPrefColumnCount(7);
        limit.setAccessibleText("Limit of the stop-limit");
        plan.getItems().addAll(plans(strategies));
        plan.getSelectionModel().select(strategies.isEmpty() ? 0 : 1);
        type.getSelectionModel().select(0);
        worst.setId("ticket-worst");
        left.setId("ticket-left");
        said.setId("ticket-said");
        left.setWrapText(true);
        left.setMinHeight(Region.USE_PREF_SIZE);
        said.setWrapText(true);
        said.setMinHeight(Region.USE_PREF_SIZE);
        go.setId("ticket-send");
        go.setMaxWidth(Double.MAX_VALUE);
        go.setOnAction(e -> order().ifPresent(o -> give(o, false)));
        anyway.setId("ticket-anyway");
        anyway.setMaxWidth(Double.MAX_VALUE);
        getChildren().addAll(head, Form.line("Side", sides),
                Form.line("Quantity", step("−", -1), quantity, step("+", 1)),
                Form.line("Type", type), priceLine, limitLine, Form.line("Plan", plan), worst, left, said, go, anyway);
        for (ToggleButton side : List.of(buys, sells)) {
            side.setOnAction(e -> {
                side.setSelected(true);
                work();
            });
        }
        type.setOnAction(e -> {
            startPrice();
            work();
        });
        plan.setOnAction(e -> work());
        quantity.onChanged(this::work);
        for (TextField field : List.of(price, limit)) {
            field.textProperty().addListener((o, before, now) -> work());
        }
        addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                close.run();
                e.consume();
            }
        });
        work();
    }

    private static List<String> plans(List<Strategy> strategies) {
        List<String> plans = strategies.stream().map(strategy -> strategy.plan().name()).toList();
        return strategies.stream().map(strategy -> Collections.frequency(plans, strategy.plan().name()) == 1
                ? strategy.plan().name()
                : strategy.plan().name() + ", " + strategy.name()).toList();
    }

    /** Plans may have been changed while the strategies run. */
    private void planned(List<Strategy> strategies) {
        List<String> now = plans(strategies);
        for (int i = 0; i < now.size(); i++) {
            // the first item is no plan
            if (!plan.getItems().get(i + 1).equals(now.get(i))) {
                plan.getItems().set(i + 1, now.get(i));
            }
        }
    }

    private Button step(String word, int by) {
        Button button = new Button(word);
        button.getStyleClass().add("small");
        button.setAccessibleText(by > 0 ? "one contract more" : "one contract less");
        button.setOnAction(e -> {
            quantity.setText(Integer.toString(Math.max(1, contracts().orElse(1) + by)));
            work();
        });
        return button;
    }

    private Side side() {
        return buys.isSelected() ? Side.LONG : Side.SHORT;
    }

    private Order.Type type() {
        return Order.Type.values()[type.getSelectionModel().getSelectedIndex()];
    }

    private Optional<Integer> contracts() {
        return quantity.number().filter(n -> n.signum() > 0 && n.stripTrailingZeros().scale() <= 0
                && n.compareTo(BigDecimal.valueOf(100_000)) <= 0).map(BigDecimal::intValue);
    }

    private OptionalInt planOf() {
        int index = plan.getSelectionModel().getSelectedIndex();
        return index <= 0 ? OptionalInt.empty() : OptionalInt.of(index - 1);
    }

    private Optional<Long> ticks(TextField field) {
        try {
            return Optional.of(contract.price(field.getText().replace("\u2009", "").replace(" ", "").strip()));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    void side(Side side) {
        (side == Side.LONG ? buys : sells).setSelected(true);
        work();
    }

    /** A resting order at a price: a limit on the side of the market where it waits, else a stop. */
    void at(long ticks) {
        price.setText(contract.text(ticks));
        last.flatMap(Snapshot::lastPrice).ifPresent(now -> type.getSelectionModel()
                .select(side().sign() * (ticks - now) <= 0 ? Order.Type.LIMIT.ordinal() : Order.Type.STOP.ordinal()));
        work();
    }

    /** Puts the keyboard into the ticket. */
    void begin() {
        quantity.requestFocus();
    }

    /** A price to begin with: the last one. */
    private void startPrice() {
        last.flatMap(Snapshot::lastPrice).ifPresent(now -> {
            if (price.getText().isBlank()) {
                price.setText(contract.text(now));
            }
            if (limit.getText().isBlank()) {
                limit.setText(contract.text(now));
            }
        });
    }

    private Optional<Command.Enter> order() {
        Optional<Integer> contracts = contracts();
        boolean priced = type() != Order.Type.MARKET;
        boolean limited = type() == Order.Type.STOP_LIMIT;
        Optional<Long> at = priced ? ticks(price) : Optional.of(Tape.NONE);
        Optional<Long> bound = limited ? ticks(limit) : Optional.of(Tape.NONE);
        return contracts.isEmpty() || at.isEmpty() || bound.isEmpty()
                ? Optional.empty()
                : Optional
                        .of(new Command.Enter(side(), type(), contracts.get(), at.get(), bound.get(), planOf(), false));
    }

    private void give(Command.Enter o, boolean crosses) {
        decisions = last.map(s -> mine(s).size()).orElse(0);
        held = Optional.empty();
        said.setText("sent");
        said.getStyleClass().setAll("label", "muted");
        send.accept(new Command.Enter(o.side(), o.type(), o.quantity(), o.price(), o.limit(), o.plan(), crosses));
    }

    private static List<Decision> mine(Snapshot s) {
        return s.decisions().stream().filter(d -> d.owner().equals(Optional.of(Owner.PERSON))
                && d.kind() != Decision.Kind.BY_HAND).toList();
    }

    /** Shows what has come of the last order, and what the next one would cost. */
    void show(Snapshot snapshot) {
        last = Optional.of(snapshot);
        planned(snapshot.strategies().stream().map(Snapshot.StrategyView::strategy).toList());
        List<Decision> mine = mine(snapshot);
        if (mine.size() > decisions) {
            Decision newest = mine.getLast();
            decisions = mine.size();
            boolean taken = newest.kind() == Decision.Kind.TAKEN;
            held = asks(newest) ? order() : Optional.empty();
            said.setText(taken
                    ? "taken: it meets the next trade"
                    : ResultWords.of(newest.kind()) + ": "
                            + new Sentences(contract.calendar().zone(), newest.time()).decision(newest));
            said.getStyleClass().setAll("label", taken ? "muted" : "held");
        }
        work();
    }

    private void work() {
        boolean priced = type() != Order.Type.MARKET;
        Form.show(priceLine, priced);
        Form.show(limitLine, type() == Order.Type.STOP_LIMIT);
        Optional<Command.Enter> order = order();
        Optional<Long> now = last.flatMap(Snapshot::lastPrice);
        away.setText(priced && now.isPresent() && ticks(price).isPresent()
                ? Format.ticks(ticks(price).get() - now.get())
                : "");
        String wrong = wrong(order, now);
        Optional<Long> cost = order.flatMap(this::cost);
        worst.setText(order.isEmpty()
                ? ""
                : "worst case  " + cost.map(c -> Format.signedMoney(-c)).orElse("without a stop"));
        Optional<Headroom> nearest = nearest();
        left.setText(cost.isPresent() && nearest.isPresent() && cost.get() > 0
                ? Format.tenths(Math.floorDiv(Math.multiplyExact(nearest.get().money(), 10L), cost.get()))
                        + " such stop-outs left: " + ResultWords.of(nearest.get().line().kind())
                : "");
        boolean crosses = wrong.isEmpty() && nearest.isPresent()
                && (cost.isEmpty() || cost.get() >= nearest.get().money());
        boolean asks = crosses && !nearest.get().line().kind().ofTheBook()
                && response(ForThePerson.Of.OWN_LINES) == ForThePerson.Response.ASK
                || held.isPresent() && held.equals(order);
        left.getStyleClass().setAll("label", crosses ? "held" : "muted");
        if (!wrong.isEmpty()) {
            said.setText(wrong);
            said.getStyleClass().setAll("label", "held");
        } else if (said.getText().startsWith("expected")) {
            said.setText("");
        }
        go.setText(order.map(o -> (o.side() == Side.LONG ? "Buy " : "Sell ") + o.quantity() + " "
                + ResultWords.of(o.type())
                + (o.price() == Tape.NONE ? "" : " @ " + Format.price(contract, o.price()))).orElse("Send"));
        go.setDisable(!wrong.isEmpty());
        Form.show(go, !asks);
        Form.show(anyway, asks);
    }

    private ForThePerson.Response response(ForThePerson.Of interlock) {
        return last.map(s -> s.hand().manners().of(interlock)).orElse(interlock.byDefault());
    }

    /** Whether it was declined for something that the account asks about. */
    private boolean asks(Decision decision) {
        return decision.outcome() instanceof Decision.Declined declined && declined.refusal().settable()
                .filter(of -> response(of) == ForThePerson.Response.ASK).isPresent();
    }

    private String wrong(Optional<Command.Enter> order, Optional<Long> now) {
        if (contracts().isEmpty()) {
            return "expected contracts of 1 or more";
        }
        if (order.isEmpty()) {
            return "expected a price on the grid of " + contract.tickSize().toPlainString();
        }
        if (order.get().type() == Order.Type.STOP_LIMIT
                && order.get().side().sign() * (order.get().limit() - order.get().price()) < 0) {
            return "expected a limit no tighter than its stop";
        }
        return now.isEmpty() ? "expected a first trade" : "";
    }

    /** What a stop-out would cost: to the plan's stop, slippage, both fees. */
    private Optional<Long> cost(Command.Enter o) {
        return o.plan().isEmpty() || last.isEmpty()
                ? Optional.empty()
                : Optional.ofNullable(last.get().hand().planned().get(o.plan().getAsInt()).get(o.side()))
                        .map(stop -> o.quantity()
                                * (contract.money(Math.max(0, stop) + contract.slippage(), 1) + 2 * fee));
    }

    /** The loss line that is nearest, of those of the account and the contract. */
    private Optional<Headroom> nearest() {
        return last.stream().flatMap(s -> s.strategies().stream()).findFirst().stream()
                .flatMap(view -> view.headroom().stream()).filter(h -> h.line().below() && h.line().kind().ofEveryone())
                .min(Comparator.comparingLong(Headroom::money));
    }
}
