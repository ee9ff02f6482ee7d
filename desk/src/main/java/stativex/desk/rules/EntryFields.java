package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.NumberField;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.files.ResultWords;
import stativex.files.StrategyDraft;
import stativex.interlock.SignalPeriod;
import stativex.market.Side;
import stativex.order.Order;

/** When a strategy judges and what it sends: the fields beside its rules, and what they mean in one sentence. */
final class EntryFields extends VBox {
    private static final String NEVER = "off";

    private final Consumer<UnaryOperator<StrategyDraft>> change;
    private final ComboBox<String> evaluate = box("entry-evaluate", "When rules are judged", "at bar close",
            "on every trade");
    private final ComboBox<String> order = box("entry-order", "Order type of the entry", "market", "limit", "stop");
    private final CheckBox apart = new CheckBox();
    private final TextField price = new TextField();
    private final ComboBox<String> goodFor = box("entry-good", "How long a resting entry stays", "the day",
            "until cancelled", "bars");
    private final NumberField bars = new NumberField("3", 3, "Bars that a resting entry stays", BigDecimal.ONE);
    private final NumberField quantity = new NumberField("1", 3, "Contracts of one entry", BigDecimal.ONE);
    private final NumberField most = new NumberField("1", 3, "Most contracts with adds", BigDecimal.ONE);
    private final ComboBox<String> period = box("entry-period", "Period in which signals are counted", NEVER,
            "a session", "a trading day", "a trading week", "a window");
    private final NumberField signals = new NumberField("1", 3, "Most signals a side", BigDecimal.ONE);
    private final CheckBox confirm = new CheckBox("within");
    private final NumberField confirmBars = new NumberField("2", 3, "Bars in which a signal is confirmed",
            BigDecimal.ONE);
    private final Label exit = new Label();
    private final Label sentence = new Label();
    private final NamedConditions filters = new NamedConditions("filter",
            "Conditions that must hold as well while they are on", this::keepFilters);
    private final NamedConditions grades = new NamedConditions("grade",
            "Named strengths of this side's signal, the strongest first; those that are on may enter",
            this::keepGrades);
    private final CheckBox reverse = new CheckBox("at the opposite signal");
    private final CheckBox reprice = new CheckBox("follow its price at each bar");
    private final CheckBox toward = new CheckBox("rounded toward the market");
    private final CheckBox toMarket = new CheckBox("to the market after");
    private final NumberField seconds = new NumberField("30", 3, "Seconds until a resting entry turns to the market",
            BigDecimal.ONE);
    private final HBox priceLine;
    private final HBox goodLine;
    private final HBox repriceLine;
    private final HBox marketLine;
    private final HBox towardLine;
    private StrategyDraft draft;
    private Side side = Side.LONG;
    private boolean showing;

    /** @param change takes a change of the strategy */
    EntryFields(Consumer<UnaryOperator<StrategyDraft>> change) {
        super(5);
        this.change = change;
        Label heading = new Label("Entry");
        heading.getStyleClass().add("heading");
        price.setId("entry-price");
        price.setAccessibleText("Price of the entry, in the rule language");
        price.setTooltip(new Tooltip("A price in the rule language, such as close - 2 ticks"));
        HBox.setHgrow(price, Priority.ALWAYS);
        quantity.setId("entry-quantity");
        most.setId("entry-most");
        bars.setId("entry-bars");
        signals.setId("entry-signals");
        confirm.setId("entry-confirm");
        confirm.setTooltip(new Tooltip(
                "A signal counts only when one of the next bars trades beyond the close of its bar"));
        sentence.setId("entry-sentence");
        sentence.setWrapText(true);
        sentence.setMinHeight(USE_PREF_SIZE);
        sentence.getStyleClass().add("state");
        sentence.setMaxWidth(Double.MAX_VALUE);
        priceLine = line("Price", price);
        goodLine = line("Good for", bars, goodFor);
        reverse.setId("entry-reverse");
        apart.setId("entry-apart");
        apart.setTooltip(
                new Tooltip("Order, resting and quantity of this side alone; otherwise both sides have the same"));
        reprice.setId("entry-reprice");
        toMarket.setId("entry-to-market");
        seconds.setId("entry-seconds");
        toward.setId("entry-toward");
        toward.setTooltip(
                new Tooltip("A price between two ticks goes to the one nearer to the market; else away from it"));
        towardLine = line("", toward);
        repriceLine = line("Resting", reprice);
        marketLine = line("", toMarket, seconds, muted("s"));
        getChildren().addAll(heading, line("Evaluate", evaluate), line("Entry", apart), line("Order", order), priceLine,
                towardLine, goodLine,
                repriceLine, marketLine,
                line("Quantity", quantity, muted("up to"), most), line("Signals", signals, muted("a side"), period),
                line("Confirm", confirm, confirmBars, muted("bars")), line("Reverse", reverse), filters, grades,
                line("Exit plan", exit), sentence);
        evaluate.setOnAction(e -> edit(d -> d.withEvaluate(evaluate.getSelectionModel().getSelectedIndex() == 0
                ? SignalPlan.Evaluate.BAR_CLOSE
                : SignalPlan.Evaluate.EVERY_TRADE)));
        order.setOnAction(
                e -> edit(d -> d.withOrder(side, Order.Type.valueOf(order.getValue().toUpperCase(Locale.ROOT)))));
        price.setOnAction(e -> keepPrice());
        price.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                keepPrice();
            }
        });
        goodFor.setOnAction(e -> keepGoodFor());
        bars.onChanged(this::keepGoodFor);
        quantity.onChanged(() -> whole(quantity).ifPresent(n -> edit(d -> d.withQuantity(side, n))));
        most.onChanged(() -> whole(most).ifPresent(n -> edit(d -> d.withMaximumPosition(Math.max(n, d.quantity())))));
        signals.onChanged(this::keepMost);
        period.setOnAction(e -> keepMost());
        confirm.setOnAction(e -> keepConfirmation());
        confirmBars.onChanged(this::keepConfirmation);
        apart.setOnAction(e -> {
            boolean own = apart.isSelected();
            edit(d -> d.withOwnEntry(side, own));
        });
        reverse.setOnAction(e -> edit(d -> d.withReverse(reverse.isSelected())));
        reprice.setOnAction(e -> edit(d -> d.withReprice(side, reprice.isSelected())));
        toward.setOnAction(e -> edit(d -> d.withTowardMarket(side, toward.isSelected())));
        toMarket.setOnAction(e -> keepToMarket());
        seconds.onChanged(this::keepToMarket);
    }

    private void keepToMarket() {
        edit(d -> d.withMarketAfter(side,
                toMarket.isSelected() ? Optional.of(whole(seconds).orElse(30)) : Optional.empty()));
    }

    private static ComboBox<String> box(String id, String words, String... items) {
        ComboBox<String> box = new ComboBox<>();
        box.setId(id);
        box.getItems().setAll(items);
        box.setAccessibleText(words);
        box.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private static Label muted(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("muted");
        label.setMinWidth(USE_PREF_SIZE);
        return label;
    }

    private static HBox line(String name, Node... fields) {
        Label label = muted(name);
        label.setPrefWidth(66);
        label.setMinWidth(66);
        HBox line = new HBox(5, label);
        line.getChildren().addAll(fields);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private static Optional<Integer> whole(NumberField field) {
        return field.number().filter(n -> n.signum() > 0 && n.stripTrailingZeros().scale() <= 0
                && n.compareTo(BigDecimal.valueOf(100_000)) <= 0).map(BigDecimal::intValue);
    }

    private void edit(UnaryOperator<StrategyDraft> with) {
        if (!showing) {
            change.accept(with);
        }
    }

    private void keepPrice() {
        String text = price.getText().strip();
        if (draft != null && !text.equals(draft.price(side).orElse(""))) {
            Side of = side;
            edit(d -> d.withPrice(of, text.isEmpty() ? Optional.empty() : Optional.of(text)));
        }
    }

    private void keepGoodFor() {
        edit(d -> d.withGoodFor(side, switch (goodFor.getSelectionModel().getSelectedIndex()) {
            case 1 -> new Strategy.GoodFor.UntilCancelled();
            case 2 -> new Strategy.GoodFor.Bars(whole(bars).orElse(3));
            default -> new Strategy.GoodFor.Day();
        }));
    }

    private void keepMost() {
        int within = period.getSelectionModel().getSelectedIndex();
        edit(d -> d.withMost(within == 0
                ? Optional.empty()
                : Optional.of(new SignalPlan.Most(whole(signals).orElse(1), SignalPeriod.values()[within - 1]))));
    }

    private void keepConfirmation() {
        edit(d -> d
                .withConfirmation(confirm.isSelected() ? Optional.of(whole(confirmBars).orElse(2)) : Optional.empty()));
    }

    /** Shows a strategy's fields; the price is that of one side. */
    void show(StrategyDraft shown, Side of) {
        showing = true;
        draft = shown;
        side = of;
        Optional<Strategy.Entry> entry = shown.entry(of);
        evaluate.getSelectionModel().select(shown.evaluate() == SignalPlan.Evaluate.EVERY_TRADE ? 1 : 0);
        boolean rests = entry.map(e -> e.type() != Order.Type.MARKET).orElse(false);
        order.setValue(entry.map(e -> ResultWords.of(e.type())).orElse("market"));
        if (!price.isFocused()) {
            price.setText(shown.price(of).orElse(""));
        }
        shown(priceLine, rests);
        shown(towardLine, rests);
        shown(goodLine, rests);
        shown(repriceLine, rests);
        shown(marketLine, rests);
        reverse.setSelected(shown.reverses());
        toward.setSelected(entry.map(Strategy.Entry::towardMarket).orElse(false));
        reprice.setSelected(entry.map(Strategy.Entry::reprice).orElse(false));
        Optional<Integer> after = entry.flatMap(Strategy.Entry::marketAfterSeconds);
        toMarket.setSelected(after.isPresent());
        after.ifPresent(n -> seconds.setText(Integer.toString(n)));
        entry.ifPresent(e -> {
            goodFor.getSelectionModel().select(switch (e.goodFor()) {
                case Strategy.GoodFor.Day ignored -> 0;
                case Strategy.GoodFor.UntilCancelled ignored -> 1;
                case Strategy.GoodFor.Bars(int n) -> {
                    bars.setText(Integer.toString(n));
                    yield 2;
                }
            });
            shown(bars, e.goodFor() instanceof Strategy.GoodFor.Bars);
        });
        apart.setText("apart for " + of.word());
        apart.setSelected(shown.hasOwnEntry(of));
        apart.setDisable(shown.rule(of).isBlank());
        quantity.setText(Integer.toString(shown.quantity(of)));
        most.setText(Integer.toString(shown.maximumPosition()));
        Optional<SignalPlan.Most> limit = shown.most();
        period.getSelectionModel().select(limit.map(m -> m.period().ordinal() + 1).orElse(0));
        limit.ifPresent(m -> signals.setText(Integer.toString(m.signals())));
        Optional<Integer> within = shown.confirmation();
        confirm.setSelected(within.isPresent());
        within.ifPresent(n -> confirmBars.setText(Integer.toString(n)));
        exit.setText(shown.exitPlan().orElse("none chosen"));
        exit.getStyleClass().setAll("label", shown.exitPlan().isPresent() ? "fact" : "warn-text");
        choices(shown, of);
        sentence.setText(words(shown, of));
        showing = false;
    }

    private static void shown(Node node, boolean visible) {
        node.setVisible(visible);
        node.setManaged(visible);
    }

    /** Filters that can be switched off, and the grades of the side that may enter. */
    private void choices(StrategyDraft shown, Side of) {
        List<SignalPlan.Filter> there = shown.filters();
        List<NamedConditions.Item> items = new ArrayList<>();
        for (int i = 0; i < there.size(); i++) {
            items.add(new NamedConditions.Item(i, there.get(i).name(), there.get(i).on(),
                    there.get(i).rule(of).orElse("")));
        }
        filters.show(items);
        List<Strategy.Grade> named = shown.grades(of);
        List<NamedConditions.Item> grade = new ArrayList<>();
        for (int i = 0; i < named.size(); i++) {
            grade.add(new NamedConditions.Item(i, named.get(i).name(),
                    shown.enters(of).contains(named.get(i).name()), named.get(i).rule()));
        }
        grades.show(grade);
        grades.setDisable(shown.rule(of).isBlank());
    }

    /** The other side's condition of a filter stays. */
    private void keepFilters(List<NamedConditions.Item> items) {
        Side of = side;
        edit(d -> {
            List<SignalPlan.Filter> there = d.filters();
            return d.withFilters(items.stream().map(item -> {
                Optional<String> mine = item.rule().isBlank() ? Optional.empty() : Optional.of(item.rule());
                Optional<String> other = item.origin() < 0
                        ? Optional.empty()
                        : there.get(item.origin()).rule(of.opposite());
                return new SignalPlan.Filter(item.name(), item.on(), of == Side.LONG ? mine : other,
                        of == Side.LONG ? other : mine);
            }).toList());
        });
    }

    /** One of the grades has to be able to enter. */
    private void keepGrades(List<NamedConditions.Item> items) {
        Side of = side;
        List<String> entering = items.stream().filter(NamedConditions.Item::on).map(NamedConditions.Item::name)
                .toList();
        edit(d -> d.withGrades(of,
                items.stream().map(item -> new Strategy.Grade(item.name(), item.rule())).toList(),
                entering.isEmpty() && !items.isEmpty() ? List.of(items.getFirst().name()) : entering));
        showAgain();
    }

    private void showAgain() {
        if (draft != null) {
            grades.show(List.of());
            choices(draft, side);
        }
    }

    /** What else decides: filters that are on, and grades that may enter. */
    private static String narrowed(StrategyDraft draft, Side side) {
        List<String> filters = draft.filters().stream()
                .filter(filter -> filter.on() && filter.rule(side).isPresent()).map(SignalPlan.Filter::name).toList();
        List<String> grades = draft.enters(side);
        return (filters.isEmpty()
                ? ""
                : " Only while " + String.join(" and ", filters) + (filters.size() == 1 ? " holds." : " hold."))
                + (grades.isEmpty()
                        ? ""
                        : " Enters on grade " + String.join(" or ", grades) + ".");
    }

    /** {@code Sells 2 at the market when all of it holds at a bar's close.} */
    static String words(StrategyDraft draft, Side side) {
        Optional<Strategy.Entry> entry = draft.entry(side);
        if (draft.rule(side).isBlank()) {
            return "Has no rule for " + side.word() + ": never " + (side == Side.LONG ? "buys." : "sells short.");
        }
        if (entry.isEmpty()) {
            return "The entry is not complete.";
        }
        String what = side == Side.LONG ? "Buys " : "Sells ";
        String how = switch (entry.get().type()) {
            case MARKET -> " at the market";
            case LIMIT -> " at a limit of " + draft.price(side).orElse("a price not written yet");
            case STOP -> " at a stop of " + draft.price(side).orElse("a price not written yet");
        };
        String stays = entry.get().type() == Order.Type.MARKET ? "" : switch (entry.get().goodFor()) {
            case Strategy.GoodFor.Day ignored -> ", good for the day";
            case Strategy.GoodFor.UntilCancelled ignored -> ", good until cancelled";
            case Strategy.GoodFor.Bars(int n) -> ", good for " + n + (n == 1 ? " bar" : " bars");
        };
        String when = draft.evaluate() == SignalPlan.Evaluate.EVERY_TRADE
                ? " the first time in a bar that all of it holds"
                : " when all of it holds at a bar's close";
        String confirmed = draft.confirmation()
                .map(n -> " and one of the next " + n + " bars trades beyond it").orElse("");
        String follows = entry.get().reprice() ? ", following its price at each bar" : "";
        String market = entry.get().marketAfterSeconds()
                .map(n -> ", turned to the market after " + n + (n == 1 ? " second" : " seconds")).orElse("");
        return what + draft.quantity(side) + how + stays + follows + market + "," + when + confirmed + "."
                + narrowed(draft, side) + (draft.reverses() ? " Turns an opposite position round." : "")
                + (draft.adds() ? " May add up to " + draft.maximumPosition() + "." : "")
                + draft.most().map(m -> " At most " + m.signals() + " a " + m.period().word() + ".")
                        .orElse("");
    }
}
