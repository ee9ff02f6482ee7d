package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.NumberField;
import stativex.engine.Sizing;
import stativex.engine.Strategy;
import stativex.files.EntrySetup;
import stativex.files.StrategyDraft;
import stativex.market.Money;
import stativex.market.Side;

/** How many contracts an entry takes: fixed or by what a stop-out may cost, with a cap, and whether too many are cut. */
final class SizeFields extends VBox {
    private static final BigDecimal CENT = new BigDecimal("0.01");

    private final Consumer<UnaryOperator<StrategyDraft>> change;
    private final NumberField quantity = new NumberField("1", 3, "Contracts of one entry, at most", BigDecimal.ONE);
    private final NumberField most = new NumberField("1", 3, "Most contracts, open and resting", BigDecimal.ONE);
    private final ComboBox<String> sizing = Form.choice("entry-sizing", "How the quantity is found", "fixed",
            "by money at risk", "by % to the line");
    private final NumberField atRisk = new NumberField("200", 4, "What a stop-out may cost", CENT);
    private final CheckBox capped = new CheckBox("at most");
    private final NumberField cap = new NumberField("300", 4, "Money that a stop-out costs at most", CENT);
    private final CheckBox cuts = new CheckBox("cut it to what fits");
    private final Label unit = Form.muted("");
    private StrategyDraft draft;
    private Side side = Side.LONG;

    SizeFields(Consumer<UnaryOperator<StrategyDraft>> change) {
        super(5);
        this.change = change;
        quantity.setId("entry-quantity");
        most.setId("entry-most");
        atRisk.setId("entry-at-risk");
        capped.setId("entry-capped");
        cap.setId("entry-cap");
        cuts.setId("entry-cuts");
        sizing.setTooltip(
                new Tooltip("The largest quantity, at most the one stated, whose stop-out costs no more: the way to"
                        + " the initial stop, slippage and the fees of both sides. % is of what is left to the nearest line"));
        capped.setTooltip(new Tooltip("An entry whose stop-out costs more is declined, or cut"));
        cuts.setTooltip(new Tooltip(
                "Too large for the position limit, the risk cap or the line check: cut instead of declined"));
        getChildren().addAll(Form.line("Quantity", quantity, Form.muted("up to"), most), Form.line("", sizing),
                Form.line("", atRisk, unit), Form.line("Stop-out", capped, cap), Form.line("Too large", cuts));
        quantity.onChanged(() -> whole(quantity).ifPresent(n -> tell(d -> d.withQuantity(side, n))));
        most.onChanged(() -> whole(most).ifPresent(n -> tell(d -> d.withMaximumPosition(
                EntrySetup.cuts(d) ? n : Math.max(n, d.quantity())))));
        sizing.setOnAction(e -> {
            // money and percent are no measure of each other: each begins with a figure of its own
            if (draft != null) {
                atRisk.setText(sizing.getSelectionModel().getSelectedIndex() == 2 ? "10" : "200");
            }
            keepRisk();
        });
        atRisk.onChanged(this::keepRisk);
        capped.setOnAction(e -> keepRisk());
        cap.onChanged(this::keepRisk);
        cuts.setOnAction(e -> tell(d -> EntrySetup.withCuts(d, cuts.isSelected())));
    }

    private void tell(UnaryOperator<StrategyDraft> with) {
        change.accept(with);
    }

    private static Optional<Integer> whole(NumberField field) {
        return field.number().filter(n -> n.signum() > 0 && n.stripTrailingZeros().scale() <= 0
                && n.compareTo(BigDecimal.valueOf(100_000)) <= 0).map(BigDecimal::intValue);
    }

    private void keepRisk() {
        if (draft == null) {
            return;
        }
        Side of = side;
        try {
            Optional<Sizing> by = switch (sizing.getSelectionModel().getSelectedIndex()) {
                case 1 -> Optional.of(new Sizing.Amount(money(atRisk)));
                case 2 -> Optional.of(new Sizing.Percent(atRisk.number().orElseThrow(IllegalArgumentException::new)));
                default -> Optional.empty();
            };
            Optional<Long> most = capped.isSelected() ? Optional.of(money(cap)) : Optional.empty();
            Strategy.Risk risk = new Strategy.Risk(by, most);
            if (!risk.equals(EntrySetup.risk(draft, of))) {
                tell(d -> EntrySetup.withRisk(d, of, risk));
            }
        } catch (IllegalArgumentException e) {
            // what stands there is no such number: the field goes back to what holds
            show(draft, side);
        }
    }

    private static long money(NumberField field) {
        return Money.parse(field.getText().strip());
    }

    void show(StrategyDraft shown, Side of) {
        draft = null;
        side = of;
        quantity.setText(Integer.toString(shown.quantity(of)));
        most.setText(Integer.toString(shown.maximumPosition()));
        Strategy.Risk risk = EntrySetup.risk(shown, of);
        sizing.getSelectionModel().select(risk.sizing().map(s -> s instanceof Sizing.Amount ? 1 : 2).orElse(0));
        risk.sizing().ifPresent(by -> {
            switch (by) {
                case Sizing.Amount amount -> atRisk.setText(Money.text(amount.money()));
                case Sizing.Percent percent -> atRisk.setText(percent.percent().toPlainString());
            }
        });
        unit.setText(risk.sizing().map(s -> s instanceof Sizing.Percent ? "% of the way to the line" : "a stop-out")
                .orElse(""));
        Form.show(atRisk.getParent(), risk.sizing().isPresent());
        capped.setSelected(risk.cap().isPresent());
        risk.cap().ifPresent(money -> cap.setText(Money.text(money)));
        cap.setDisable(risk.cap().isEmpty());
        cuts.setSelected(EntrySetup.cuts(shown));
        draft = shown;
    }

    /** {@code 2}, or {@code up to 8, so many that a stop-out costs at most 200.00,}. */
    static String words(StrategyDraft draft, Side side) {
        int quantity = draft.quantity(side);
        return EntrySetup.risk(draft, side).sizing().map(sizing -> "up to " + quantity
                + ", so many that a stop-out costs at most " + switch (sizing) {
                    case Sizing.Amount amount -> Money.text(amount.money());
                    case Sizing.Percent percent ->
                        percent.percent().toPlainString() + " % of the way to the nearest line";
                } + ",").orElse(Integer.toString(quantity));
    }

    /** What becomes of an entry that is too large. */
    static String cap(StrategyDraft draft, Side side) {
        String cut = EntrySetup.cuts(draft) ? "cut to what fits." : "declined.";
        return EntrySetup.risk(draft, side).cap()
                .map(cap -> " A stop-out of more than " + Money.text(cap) + " is " + cut)
                .orElse(EntrySetup.cuts(draft) ? " What is too large is cut to what fits." : "");
    }
}
