package stativex.desk.run;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import stativex.account.Headroom;
import stativex.desk.chart.ChartLink;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.ChartView;
import stativex.desk.chart.LanesView;
import stativex.desk.chart.Drawings;
import stativex.desk.chart.Readout;
import stativex.desk.chart.Viewport;
import stativex.desk.look.Format;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.DrawingFile;
import stativex.files.Sentences;
import stativex.link.RunView;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.trial.Inputs;

/**
 * The Run stage: strategies and what happened on the left, the chart with its why lanes and the day in the middle,
 * position, headroom, interlocks and today's curve on the right, the replay below.
 */
public final class RunStage extends BorderPane {
    private final Inputs inputs;
    private final Contract contract;
    private final Viewport viewport = new Viewport();
    private final ChartView chart = new ChartView(viewport);
    private final LanesView lanes = new LanesView(viewport);
    private final DayRibbon ribbon;
    private final List<StrategyCard> cards = new ArrayList<>();
    private final Journal journal;
    private final PositionPanel position;
    private final HandPanel hand;
    private final Label net = new Label();
    private final Consumer<Command> send;
    private final Region middle;
    private final Region beside;
    private final StackPane over = new StackPane();
    private final Ticket ticket;
    private final StopQuestion stopQuestion;
    private final HeadroomView headroom = new HeadroomView();
    private final InterlocksView interlocks = new InterlocksView();
    private final TodayCurve today = new TodayCurve();
    private final Label title = new Label();
    private final Label figures = new Label();
    private final Label studies = new Label();
    private final Label atQuantity = new Label();
    private final Label state = new Label();
    private final Label lanesTitle = new Label();
    private final Label dayResult = new Label();
    private final ToggleButton longLanes = new ToggleButton("Long");
    private final ToggleButton shortLanes = new ToggleButton("Short");
    private Optional<Side> chosenLanes = Optional.empty();
    private int selected;
    private RunView view;

    /**
     * @param own the person's own zone
     * @param link of the charts that follow each other
     * @param send takes the person's commands
     * @param bar along the lower edge
     * @param engages is asked for the strategy that is to be engaged; empty: its card asks
     */
    public RunStage(Inputs inputs, ZoneId own, RunView first, ChartLink link, Consumer<Command> send, Region bar,
            Optional<IntConsumer> engages) {
        this.inputs = inputs;
        this.contract = inputs.contract();
        this.view = first;
        ribbon = new DayRibbon(contract, inputs.account(), own);
        journal = new Journal(contract, inputs.strategies().stream().map(s -> s.name()).toList());
        this.send = send;
        position = new PositionPanel(contract, send);
        hand = new HandPanel(contract, inputs.strategies(), send);
        long fee = inputs.account().fee(contract.symbol());
        ticket = new Ticket(contract, fee, inputs.strategies(), send, () -> ticketShown(false));
        stopQuestion = new StopQuestion(contract, fee, send, this::stopAnswered);
        getStyleClass().add("run-stage");
        setLeft(left(first.snapshot(), engages));
        middle = centre();
        beside = right();
        setCenter(middle);
        setRight(beside);
        setBottom(bar);
        chart.setId("chart");
        chart.link(link);
        DrawingFile drawn = DrawingFile.own(contract);
        try {
            chart.drawings(new Drawings(drawn.read(), drawn::write));
        } catch (BadInput e) {
            // the Tape stage says what is wrong with the file; trading does not depend on it
        }
        chart.onMove(this::showChart);
        chart.movesOrders(this::move);
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.isShortcutDown() && e.getCode() == KeyCode.O) {
                ticketShown(!over.getChildren().contains(ticket));
                e.consume();
            }
        });
    }

    private void ticketShown(boolean shown) {
        if (shown && !over.getChildren().contains(ticket)) {
            over.getChildren().add(ticket);
            ticket.show(view.snapshot());
            chart.cursorPrice().ifPresent(ticket::at);
            ticket.begin();
        } else if (!shown) {
            over.getChildren().remove(ticket);
            chart.requestFocus();
        }
    }

    /** Opens the ticket with a price. */
    public void ticket(Side side, long price) {
        ticketShown(true);
        ticket.side(side);
        ticket.at(price);
    }

    private void stopAnswered() {
        chart.asks(Optional.empty(), 0);
        over.getChildren().remove(stopQuestion);
        chart.requestFocus();
    }

    /** An order is to stand elsewhere; a stop that would be looser is a question first. */
    private void move(Snapshot.OrderView order, long price) {
        Snapshot snapshot = view.snapshot();
        Optional<Snapshot.PositionView> of = order.owner() instanceof Owner.Strategy strategy
                ? snapshot.strategies().get(strategy.index()).position()
                : snapshot.hand().position();
        boolean looser = order.role() == Order.Role.STOP && of.isPresent()
                && of.get().side().sign() * (price - order.price().orElseThrow()) < 0;
        if (!looser) {
            send.accept(new Command.Move(order.number(), price));
            return;
        }
        stopQuestion.ask(new StopQuestion.Asked(order, of.get(), price), snapshot.strategies().get(selected).headroom()
                .stream().filter(h -> h.line().below()).min(Comparator.comparingLong(Headroom::money)),
                snapshot.lastPrice().orElse(price));
        chart.asks(Optional.of(order), price);
        if (!over.getChildren().contains(stopQuestion)) {
            over.getChildren().add(stopQuestion);
        }
        stopQuestion.keep().requestFocus();
    }

    /** The stage is not shown any more. */
    public void leave() {
        chart.unlink();
    }

    private Region left(Snapshot first, Optional<IntConsumer> engages) {
        VBox strategies = new VBox(8);
        for (Snapshot.StrategyView strategy : first.strategies()) {
            StrategyCard card = new StrategyCard(strategy, this::select, send, engages);
            cards.add(card);
            strategies.getChildren().add(card);
        }
        ScrollPane scroll = new ScrollPane(strategies);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setMinHeight(150);
        // a scroll pane does not ask its wrapped content how tall it is
        strategies.heightProperty().addListener((o, before, now) -> scroll.setPrefHeight(now.doubleValue() + 2));
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(journal, Priority.ALWAYS);
        journal.setPrefHeight(200);
        journal.setMinHeight(160);
        VBox box = new VBox(8, heading("Strategies"), scroll, journal);
        box.getStyleClass().add("side-panel");
        box.setPrefWidth(252);
        box.setMinWidth(252);
        return box;
    }

    private Region centre() {
        title.getStyleClass().add("title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        figures.getStyleClass().add("figures");
        figures.setId("figures");
        studies.setId("studies");
        studies.getStyleClass().add("studies");
        Region apart = new Region();
        HBox.setHgrow(apart, Priority.ALWAYS);
        Button order = new Button("Order…");
        order.setId("order");
        order.getStyleClass().addAll("small", "link");
        order.setMinWidth(Region.USE_PREF_SIZE);
        order.setTooltip(new Tooltip("An order of your own (Ctrl+O). Orders are moved on the chart by their handles"));
        order.setOnAction(e -> ticketShown(true));
        HBox headline = new HBox(14, title, figures, apart, order);
        headline.setAlignment(Pos.BASELINE_LEFT);
        VBox head = new VBox(3, headline, studies);
        head.getStyleClass().add("chart-head");
        over.getChildren().add(chart);
        StackPane.setAlignment(ticket, Pos.TOP_LEFT);
        StackPane.setMargin(ticket, new Insets(8, 0, 0, 14));
        StackPane.setAlignment(stopQuestion, Pos.TOP_RIGHT);
        StackPane.setMargin(stopQuestion, new Insets(26, ChartView.AXIS + 40, 0, 0));
        VBox.setVgrow(over, Priority.ALWAYS);
        over.setPrefHeight(420);
        over.setMinHeight(0);
        ToggleGroup group = new ToggleGroup();
        longLanes.setId("lanes-long");
        shortLanes.setId("lanes-short");
        for (ToggleButton button : List.of(longLanes, shortLanes)) {
            button.setToggleGroup(group);
            button.getStyleClass().add("small");
            button.setOnAction(e -> {
                button.setSelected(true);
                chosenLanes = Optional.of(button == longLanes ? Side.LONG : Side.SHORT);
                showChart();
            });
        }
        lanesTitle.getStyleClass().add("heading");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label count = new Label("true on n of the bars in view");
        count.getStyleClass().add("muted");
        HBox choice = new HBox(longLanes, shortLanes);
        choice.getStyleClass().add("choice");
        HBox lanesHead = new HBox(10, lanesTitle, choice, gap, count);
        lanesHead.getStyleClass().add("lanes-head");
        lanes.setPrefHeight(84);
        lanes.setMinHeight(84);
        ribbon.setPrefHeight(108);
        ribbon.setMinHeight(108);
        Region above = rule();
        Region below = rule();
        VBox box = new VBox(head, over, above, lanesHead, lanes, below, ribbon);
        box.getStyleClass().add("centre");
        return box;
    }

    private static Region rule() {
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        return rule;
    }

    private Region right() {
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        atQuantity.getStyleClass().add("muted");
        HBox headroomHead = new HBox(heading("Headroom"), gap, atQuantity);
        Region resultGap = new Region();
        HBox.setHgrow(resultGap, Priority.ALWAYS);
        dayResult.getStyleClass().add("result");
        Region netGap = new Region();
        HBox.setHgrow(netGap, Priority.ALWAYS);
        net.setId("net");
        net.getStyleClass().add("muted");
        HBox positionHead = new HBox(heading("Position"), netGap, net);
        HBox todayHead = new HBox(heading("Today"), resultGap, dayResult);
        state.getStyleClass().add("state");
        state.setId("state");
        state.setWrapText(true);
        state.setMinHeight(Region.USE_PREF_SIZE);
        state.setMaxWidth(Double.MAX_VALUE);
        VBox.setVgrow(today, Priority.ALWAYS);
        today.setMinHeight(44);
        VBox box = new VBox(8, positionHead, position, hand, headroomHead, headroom, heading("Interlocks"), state,
                interlocks, todayHead, today);
        box.getStyleClass().add("side-panel");
        // with a position of the person's own it is more than a low window holds
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setPrefWidth(304);
        scroll.setMinWidth(304);
        scroll.setMinHeight(0);
        scroll.getStyleClass().add("cards");
        return scroll;
    }

    private static Label heading(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("heading");
        return label;
    }

    private void select(int index) {
        if (index != selected) {
            selected = index;
            chosenLanes = Optional.empty();
            viewport.follow();
            showAll();
        }
    }

    /** Shows what a replay, or a live day, has reached. */
    public void show(RunView shown) {
        view = shown;
        showAll();
    }

    /** Something over the chart; empty: nothing. */
    public void over(Optional<Region> shown) {
        over.getChildren().removeIf(one -> one != chart && one != ticket && one != stopQuestion);
        shown.ifPresent(one -> {
            over.getChildren().add(one);
            StackPane.setAlignment(one, Pos.TOP_LEFT);
            StackPane.setMargin(one, new Insets(8, 0, 0, 14));
        });
        if (shown.isEmpty()) {
            chart.requestFocus();
        }
    }

    /** Something in the place of the chart and of what stands beside it, about one strategy; empty: as always. */
    public void instead(Optional<Region> shown, int about) {
        setCenter(shown.orElse(middle));
        setRight(shown.isPresent() ? null : beside);
        for (int i = 0; i < cards.size(); i++) {
            cards.get(i).setDisable(shown.isPresent() && i != about);
        }
        journal.setDisable(shown.isPresent());
    }

    private void showAll() {
        Snapshot snapshot = view.snapshot();
        Sentences words = new Sentences(contract.calendar().zone(), snapshot.time());
        for (int i = 0; i < cards.size(); i++) {
            cards.get(i).show(snapshot.strategies().get(i), words, i == selected);
        }
        Snapshot.StrategyView strategy = snapshot.strategies().get(selected);
        journal.show(snapshot);
        boolean handBusy = snapshot.hand().position().isPresent() || !snapshot.hand().orders().isEmpty();
        position.show(strategy, handBusy);
        hand.show(snapshot);
        net.setText(net(snapshot));
        if (over.getChildren().contains(ticket)) {
            ticket.show(snapshot);
        }
        headroom.show(strategy.headroom(), snapshot.account().equity() - snapshot.account().dayResult());
        int quantity = strategy.position().map(Snapshot.PositionView::open)
                .orElse(Strategy.largest(strategy.strategy().sides(), strategy.strategy().entry()));
        atQuantity.setText("at " + quantity + (quantity == 1 ? " contract" : " contracts"));
        interlocks.show(strategy.interlocks(), strategy.mode(), words);
        state.setText(words.state(strategy.strategy().name(), strategy.state()));
        today.show(snapshot.account());
        dayResult.setText(Format.signedMoney(snapshot.account().dayResult()));
        ribbon.show(snapshot, strategy, view.clock());
        showChart();
    }

    /** Who holds what, where several do: {@code net +1: Ebb fade +2, mine −1}. */
    private static String net(Snapshot snapshot) {
        List<String> who = new ArrayList<>();
        int net = 0;
        for (Snapshot.StrategyView strategy : snapshot.strategies()) {
            if (strategy.position().isPresent()) {
                int held = strategy.position().get().side().sign() * strategy.position().get().open();
                net += held;
                who.add(strategy.strategy().name() + " " + Format.signed(held));
            }
        }
        if (snapshot.hand().position().isPresent()) {
            int held = snapshot.hand().position().get().side().sign() * snapshot.hand().position().get().open();
            net += held;
            who.add("mine " + Format.signed(held));
        }
        return who.size() < 2 ? "" : "net " + Format.signed(net) + ": " + String.join(", ", who);
    }

    private void showChart() {
        ChartModel model = ChartModel.of(inputs, view.snapshot(), selected);
        ChartModel.StrategyLayer layer = model.strategy().orElseThrow();
        chart.show(model);
        Side side = chosenLanes.or(() -> layer.view().position().map(Snapshot.PositionView::side))
                .or(() -> layer.decisions().isEmpty() ? Optional.empty() : layer.decisions().getLast().side())
                .orElse(layer.view().lanes().containsKey(Side.LONG) ? Side.LONG : Side.SHORT);
        longLanes.setSelected(side == Side.LONG);
        shortLanes.setSelected(side == Side.SHORT);
        lanesTitle.setText("Why — " + layer.view().strategy().name() + ", " + side.word());
        lanes.show(layer.view().lanes().getOrDefault(side, List.of()), side, chart.cursorBar(), Optional.empty());
        title.setText(contract.symbol() + "  " + layer.view().strategy().signals().bars().type().words());
        figures.setText(Readout.figures(chart, model));
        studies.setText(Readout.studies(chart, model));
    }
}
