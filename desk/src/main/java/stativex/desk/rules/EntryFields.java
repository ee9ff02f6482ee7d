package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.NumberField;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.files.EntrySetup;
import stativex.files.ResultWords;
import stativex.files.StrategyDraft;
import stativex.interlock.SignalPeriod;
import stativex.market.Side;
import stativex.order.Order;

/** When a strategy judges and what it sends: the fields beside its rules, and what they mean in one sentence. */
final class EntryFields extends VBox {
    private static final String NEVER = "off";

    private final Consumer<UnaryOperator<StrategyDraft>> change;
    private final ComboBox<String> evaluate = Form.choice("entry-evaluate", "When rules are judged", "at bar close",
            "on every trade");
    private final ComboBox<String> order = Form.choice("entry-order", "Order type of the entry", "market", "limit",
            "stop",
            "stop-limit");
    private final CheckBox apart = new CheckBox();
    private final TextField price = new TextField();
    private final ComboBox<String> goodFor = Form.choice("entry-good", "How long a resting entry stays", "the day",
            "until cancelled", "bars");
    private final NumberField bars = new NumberField("3", 3, "Bars that a resting entry stays", BigDecimal.ONE);
    private final SizeFields size;
    private final NumberField beyond = new NumberField("0", 3, "Ticks from the stop to the limit", BigDecimal.ZERO);
    private final ComboBox<String> period = Form.choice("entry-period", "Period in which signals are counted", NEVER,
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
    private final CheckBox twoSided = new CheckBox("rest as a pair, one ends the other");
    private final CheckBox reprice = new CheckBox("follow its price at each bar");
    private final CheckBox toward = new CheckBox("rounded toward the market");
    private final CheckBox toMarket = new CheckBox("to the market after");
    private final NumberField seconds = new NumberField("30", 3, "Seconds until a resting entry turns to the market",
            BigDecimal.ONE);
    private final HBox beyondLine;
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
        size = new SizeFields(this::edit);
        beyond.setId("entry-beyond");
        beyondLine = Form.line("Limit", beyond, Form.muted("ticks beyond the stop"));
        twoSided.setId("entry-two-sided");
        twoSided.setTooltip(new Tooltip(
                "When both sides give a signal at one moment, both entries rest; the first contract filled ends the other"));
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
        priceLine = Form.line("Price", price);
        goodLine = Form.line("Good for", bars, goodFor);
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
        towardLine = Form.line("", toward);
        repriceLine = Form.line("Resting", reprice);
        marketLine = Form.line("", toMarket, seconds, Form.muted("s"));
        getChildren().addAll(heading, Form.line("Evaluate", evaluate), Form.line("Entry", apart),
                Form.line("Order", order), priceLine,
                beyondLine, towardLine, goodLine,
                repriceLine, marketLine,
                size, Form.line("Signals", signals, Form.muted("a side"), period),
                Form.line("Confirm", confirm, confirmBars, Form.muted("bars")), Form.line("Reverse", reverse),
                Form.line("Both sides", twoSided), filters, grades,
                Form.line("Exit plan", exit), sentence);
        evaluate.setOnAction(e -> edit(d -> d.withEvaluate(evaluate.getSelectionModel().getSelectedIndex() == 0
                ? SignalPlan.Evaluate.BAR_CLOSE
                : SignalPlan.Evaluate.EVERY_TRADE)));
        order.setOnAction(
                e -> edit(d -> d.withOrder(side, Order.Type.values()[order.getSelectionModel().getSelectedIndex()])));
        price.setOnAction(e -> keepPrice());
        price.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                keepPrice();
            }
        });
        goodFor.setOnAction(e -> keepGoodFor());
        bars.onChanged(this::keepGoodFor);
        beyond.onChanged(() -> beyond.number().filter(n -> n.signum() >= 0 && n.stripTrailingZeros().scale() <= 0)
                .ifPresent(n -> edit(d -> EntrySetup.withLimitTicks(d, side, n.intValue()))));
        twoSided.setOnAction(e -> edit(d -> EntrySetup.withTwoSided(d, twoSided.isSelected())));
        signals.onChanged(this::keepMost);
        period.setOnAction(e -> keepMost());
        confirm.setOnAction(e -> keepConfirmation());
        confirmBars.onChanged(this::keepConfirmation);
        apart.setOnAction(e -> {
            boolean own = apart.isSelected();
            edit(d -> d.withOwnEntry(side, own));
        });
        reverse.setOnAction(e -> edit(d -> EntrySetup.withReverse(d, reverse.isSelected())));
        reprice.setOnAction(e -> edit(d -> EntrySetup.withReprice(d, side, reprice.isSelected())));
        toward.setOnAction(e -> edit(d -> EntrySetup.withTowardMarket(d, side, toward.isSelected())));
        toMarket.setOnAction(e -> keepToMarket());
        seconds.onChanged(this::keepToMarket);
    }

    private void keepToMarket() {
        edit(d -> EntrySetup.withMarketAfter(d, side,
                toMarket.isSelected() ? Optional.of(whole(seconds).orElse(30)) : Optional.empty()));
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
        Form.show(priceLine, rests);
        Form.show(towardLine, rests);
        Form.show(goodLine, rests);
        Form.show(repriceLine, rests);
        Form.show(marketLine, rests);
        reverse.setSelected(EntrySetup.reverses(shown));
        twoSided.setSelected(EntrySetup.twoSided(shown));
        Form.show(beyondLine, entry.filter(e -> e.type() == Order.Type.STOP_LIMIT).isPresent());
        entry.ifPresent(e -> beyond.setText(Integer.toString(e.limitBeyond())));
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
            Form.show(bars, e.goodFor() instanceof Strategy.GoodFor.Bars);
        });
        apart.setText("apart for " + of.word());
        apart.setSelected(shown.hasOwnEntry(of));
        apart.setDisable(shown.rule(of).isBlank());
        size.show(shown, of);
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
            case STOP_LIMIT -> " at a stop of " + draft.price(side).orElse("a price not written yet")
                    + " with a limit " + ticks(entry.get().limitBeyond()) + " beyond it";
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
        return what + SizeFields.words(draft, side) + how + stays + follows + market + "," + when + confirmed + "."
                + narrowed(draft, side) + (EntrySetup.reverses(draft) ? " Turns an opposite position round." : "")
                + (EntrySetup.twoSided(draft) ? " With a signal of both sides both rest, and one ends the other." : "")
                + SizeFields.cap(draft, side)
                + (draft.adds() ? " May add up to " + draft.maximumPosition() + "." : "")
                + draft.most().map(m -> " At most " + m.signals() + " a " + m.period().word() + ".")
                        .orElse("");
    }

    private static String ticks(int n) {
        return n + (n == 1 ? " tick" : " ticks");
    }
}
