package stativex.desk.exits;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.engine.Decision;
import stativex.engine.Trade;
import stativex.exit.ExitPlan;
import stativex.files.ResultWords;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Fill;
import stativex.order.Order;

/** Try it on a past trade: which bar, which side, what came of it, as a picture and as a list. */
final class PastTradePanel extends VBox {
    private final Contract contract;
    private final Tape tape;
    private final Runnable asked;
    private final ToggleButton every = new ToggleButton("Every signal");
    private final MenuButton beside = new MenuButton("Beside…");
    private final EverySignalView all = new EverySignalView();
    private final HBox one;
    private final Label working = new Label();
    private Optional<ExitPlan> other = Optional.empty();
    private final Slider bar = new Slider(0, 0, 0);
    private final ToggleButton longSide = new ToggleButton("Long");
    private final ToggleButton shortSide = new ToggleButton("Short");
    private final TextField price = new TextField();
    private final Button earlier = new Button("← signal");
    private final Button later = new Button("signal →");
    private final Label where = new Label();
    private final Label result = new Label();
    private final Label figures = new Label();
    private final PastTradeView picture;
    private final ListView<String> events = new ListView<>();
    private Side side = Side.LONG;
    private Optional<Tried> tried = Optional.empty();
    private boolean showing;
    private String asking = "";

    /** @param asked another bar or side was chosen */
    PastTradePanel(Tape tape, Contract contract, Runnable asked) {
        this.contract = contract;
        this.tape = tape;
        this.asked = asked;
        this.picture = new PastTradeView(tape, contract);
        Label heading = new Label("Try it on a past trade");
        heading.getStyleClass().add("heading");
        heading.setMinWidth(USE_PREF_SIZE);
        longSide.setId("past-long");
        shortSide.setId("past-short");
        earlier.setId("past-earlier");
        earlier.setTooltip(new Tooltip("The signal before, by the strategy's rules"));
        later.setId("past-later");
        later.setTooltip(new Tooltip("The signal after, by the strategy's rules"));
        for (var button : List.of(longSide, shortSide, earlier, later)) {
            button.getStyleClass().add("small");
            button.setMinWidth(USE_PREF_SIZE);
        }
        bar.setId("past-bar");
        bar.setAccessibleText("Bar with whose close the trade begins");
        bar.setBlockIncrement(1);
        HBox.setHgrow(bar, Priority.ALWAYS);
        where.setId("past-where");
        where.getStyleClass().add("figures");
        where.setMinWidth(USE_PREF_SIZE);
        result.setId("past-result");
        result.getStyleClass().add("heading");
        result.setMinWidth(USE_PREF_SIZE);
        figures.setId("past-figures");
        figures.getStyleClass().add("figures");
        figures.setMinWidth(USE_PREF_SIZE);
        bar.setMinWidth(50);
        events.setId("past-events");
        events.setAccessibleText("What happened in the trade");
        events.getStyleClass().add("dense");
        events.setPrefWidth(232);
        events.setMinWidth(232);
        price.setId("past-price");
        price.setPromptText("market");
        price.setPrefColumnCount(4);
        price.setMinWidth(54);
        price.setAccessibleText("Price of the entry; empty: at the market");
        price.setTooltip(new Tooltip(
                "Price of the entry, a limit or a stop by where it lies, good for the day. Empty: at the market"));
        price.setOnAction(e -> priced());
        price.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                priced();
            }
        });
        longSide.setOnAction(e -> turn(Side.LONG));
        shortSide.setOnAction(e -> turn(Side.SHORT));
        earlier.setOnAction(e -> jump(-1));
        later.setOnAction(e -> jump(1));
        bar.valueProperty().addListener((o, before, now) -> {
            if (!showing && before.intValue() != now.intValue()) {
                asked.run();
            }
        });
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(10, heading, where, gap, result);
        every.setId("past-every");
        every.setTooltip(new Tooltip("The plan on every signal of the strategy, and what if a handle stood elsewhere"));
        every.getStyleClass().add("small");
        every.setMinWidth(USE_PREF_SIZE);
        beside.setId("past-beside");
        beside.setTooltip(new Tooltip("Holds the plan of another strategy against this one on the same signals"));
        beside.getStyleClass().add("small");
        beside.setMinWidth(USE_PREF_SIZE);
        working.setId("past-working");
        working.getStyleClass().add("muted");
        HBox tools = new HBox(6, longSide, shortSide, price, earlier, bar, later, figures, beside, working, every);
        for (HBox row : List.of(head, tools)) {
            row.setAlignment(Pos.CENTER_LEFT);
            row.getStyleClass().add("past-row");
        }
        HBox.setHgrow(picture, Priority.ALWAYS);
        one = new HBox(picture, events);
        StackPane body = new StackPane(one, all);
        VBox.setVgrow(body, Priority.ALWAYS);
        getChildren().addAll(head, tools, body);
        every.setOnAction(e -> {
            mode();
            asked.run();
        });
        mode();
        getStyleClass().add("past");
        marked();
    }

    private void marked() {
        longSide.setSelected(side == Side.LONG);
        shortSide.setSelected(side == Side.SHORT);
    }

    private void mode() {
        boolean whole = every.isSelected();
        for (Node node : List.of(longSide, shortSide, price, earlier, bar, later, figures, where, result)) {
            node.setVisible(!whole);
            node.setManaged(!whole);
        }
        for (Node node : List.of(beside, working)) {
            node.setVisible(whole);
            node.setManaged(whole);
        }
        one.setVisible(!whole);
        all.setVisible(whole);
    }

    private void priced() {
        if (!price.getText().strip().equals(asking)) {
            asking = price.getText().strip();
            asked.run();
        }
    }

    /** The price of the entry, ticks; empty at the market, or while none is written. */
    Optional<Long> price() {
        try {
            return asking.isEmpty() ? Optional.empty() : Optional.of(contract.price(asking));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** Whether every signal is asked for, not one bar. */
    boolean whole() {
        return every.isSelected();
    }

    /** The plan that is held against this one. */
    Optional<ExitPlan> beside() {
        return other;
    }

    /** Plans that can be held against this one. */
    void plans(List<ExitPlan> known) {
        MenuItem none = new MenuItem("no other plan");
        none.setOnAction(e -> against(Optional.empty()));
        beside.getItems().setAll(none);
        known.forEach(plan -> {
            MenuItem item = new MenuItem(plan.name());
            item.setOnAction(e -> against(Optional.of(plan)));
            beside.getItems().add(item);
        });
    }

    private void against(Optional<ExitPlan> plan) {
        other = plan;
        beside.setText(plan.map(p -> "Beside " + p.name()).orElse("Beside…"));
        asked.run();
    }

    /** Shows what came of every signal. @param words what is still worked; empty: nothing */
    void show(Optional<EverySignal> of, String words) {
        all.show(of);
        working.setText(words);
    }

    /** The side that is tried. */
    Side side() {
        return side;
    }

    void side(Side of) {
        side = of;
        marked();
    }

    /** The bar that is tried; empty while none was chosen. */
    Optional<Integer> bar() {
        return bar.getMax() > 0 ? Optional.of((int) Math.round(bar.getValue())) : Optional.empty();
    }

    /** Another strategy: its bars are others. */
    void forget() {
        other = Optional.empty();
        beside.setText("Beside…");
        all.show(Optional.empty());
        showing = true;
        bar.setMax(0);
        showing = false;
        tried = Optional.empty();
        picture.show(Optional.empty());
        events.getItems().clear();
        result.setText("");
        figures.setText("");
        where.setText("");
    }

    private void turn(Side to) {
        side(to);
        asked.run();
    }

    private void jump(int way) {
        tried.ifPresent(t -> {
            int now = bar().orElse(0);
            (way < 0
                    ? t.signals().stream().filter(at -> at < now).reduce((a, b) -> b)
                    : t.signals().stream().filter(at -> at > now).findFirst())
                    .ifPresent(at -> bar.setValue(at));
        });
    }

    /** Says why nothing is tried. */
    void say(String words) {
        picture.show(Optional.empty());
        events.getItems().clear();
        tried = Optional.empty();
        where.setText("");
        figures.setText("");
        result.setText(words);
        result.getStyleClass().setAll("label", "muted");
    }

    /** Shows what came of it. */
    void show(Tried of) {
        tried = Optional.of(of);
        showing = true;
        bar.setMax(Math.max(1, of.bars().count() - 1));
        bar.setValue(of.bar());
        showing = false;
        picture.show(tried);
        ZoneId zone = contract.calendar().zone();
        long moment = of.bars().moment(of.bar());
        where.setText(Format.day(TapeTime.in(zone, moment).toLocalDate()) + " " + Format.clock(moment, zone)
                + " · bar " + Format.grouped(Integer.toString(of.bar() + 1)) + " of "
                + Format.grouped(Integer.toString(of.bars().count()))
                + (of.signals().contains(of.bar()) ? " · a signal" : ""));
        earlier.setDisable(of.signals().isEmpty() || of.signals().getFirst() >= of.bar());
        later.setDisable(of.signals().isEmpty() || of.signals().getLast() <= of.bar());
        result.getStyleClass().setAll("label", "heading");
        Optional<Trade> trade = of.outcome().trade();
        if (trade.isEmpty()) {
            result.setText(of.outcome().declined()
                    .map(d -> "not entered: " + reason(d)).orElse("not entered: no print after it filled the entry"));
            figures.setText("");
            events.getItems().clear();
            return;
        }
        result.setText(exits(of.outcome().fills(), trade.get()) + " · " + Format.signedMoney(trade.get().net()));
        long fee = of.outcome().fills().getFirst().fee() / of.outcome().fills().getFirst().quantity();
        figures.setText("best " + Format.ticks(trade.get().mfe()) + " · worst " + Format.ticks(-trade.get().mae())
                + trade.get().inR(contract, fee).stream().mapToObj(r -> " · " + (r > 0 ? "+" : "")
                        + Format.decimal(r, 2) + " R").collect(Collectors.joining())
                + " · " + Format.duration(trade.get().exitTime() - trade.get().entryTime()));
        events.getItems().setAll(events(of, trade.get()));
    }

    private static String reason(Decision decision) {
        return decision.outcome() instanceof Decision.Declined declined
                ? ResultWords.of(declined.refusal().reason())
                : ResultWords.of(decision.kind());
    }

    private static long ticks(Trade trade, long price) {
        return Math.floorDiv(trade.side().sign() * (price * trade.quantity() - trade.entrySum()), trade.quantity());
    }

    private static String exits(List<Fill> fills, Trade trade) {
        return "out " + fills.stream().filter(f -> f.role() != Order.Role.ENTRY)
                .map(f -> f.quantity() + " @ " + Format.ticks(ticks(trade, f.price())))
                .collect(Collectors.joining(" · "));
    }

    private record Event(int print, int order, String words) {}

    private List<String> events(Tried of, Trade trade) {
        ZoneId zone = contract.calendar().zone();
        List<Event> all = new ArrayList<>();
        for (Fill fill : of.outcome().fills()) {
            boolean entry = fill.role() == Order.Role.ENTRY;
            all.add(new Event(fill.print(), entry ? 0 : 2, (entry ? "in " : "out ") + fill.quantity() + " @ "
                    + Format.price(contract, fill.price())
                    + (entry ? "" : ", " + ResultWords.of(fill.reason()))));
        }
        for (Trade.StopPoint stop : trade.stops()) {
            all.add(new Event(stop.print(), 1, "stop " + Format.ticks(ticks(trade, stop.level()))
                    + (stop == trade.stops().getFirst() ? "" : ", " + ResultWords.of(stop.origin()))));
        }
        all.sort(Comparator.comparingInt(Event::print).thenComparingInt(Event::order));
        return all.stream().map(e -> Format.clock(tape.time(e.print()), zone) + "  " + e.words()).toList();
    }
}
