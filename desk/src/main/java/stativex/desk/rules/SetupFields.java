package stativex.desk.rules;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.desk.limits.WindowFields;
import stativex.desk.look.Form;
import stativex.desk.look.NumberField;
import stativex.desk.exits.PlanFields;
import stativex.exit.ExitPlan;
import stativex.files.StrategyDraft;
import stativex.files.StrategySetup;
import stativex.interlock.CoolDown;
import stativex.market.BarSettings;
import stativex.market.Contract;
import stativex.market.TapeTime;

/** What makes a strategy whole beside its rules and entry: exit plan, hours, day, history, how its bars begin anew, and a note. */
final class SetupFields extends VBox {
    private final Consumer<UnaryOperator<StrategyDraft>> change;
    private final Button makePlan = button("plan-make", "Make an exit plan",
            () -> edit(StrategySetup::withFirstPlan));
    private final MenuButton choosePlan = new MenuButton("Choose…");
    private final PlanFields plan;
    private final WindowFields windows;
    private final CheckBox limited = new CheckBox("at most");
    private final NumberField trades = new NumberField("3", 3, "Most trades a day", BigDecimal.ONE);
    private final CheckBox cools = new CheckBox("none for");
    private final NumberField cool = new NumberField("5", 3, "How long no trade follows a trade", BigDecimal.ONE);
    private final ComboBox<String> coolUnit = new ComboBox<>();
    private final CheckBox coolLosses = new CheckBox("only after losses");
    private final CheckBox spreads = new CheckBox("at most");
    private final NumberField spread = new NumberField("2", 3, "Largest spread at a signal, ticks", BigDecimal.ZERO);
    private final NumberField history = new NumberField("1", 3, "Trading days loaded before the first evaluated one",
            BigDecimal.ZERO);
    private final ComboBox<String> restart = new ComboBox<>();
    private final TextField anchor = new TextField();
    private final HBox anchorLine;
    private final List<CheckBox> sessions = new ArrayList<>();
    private final Label barsSaid = new Label();
    private final TextArea note = new TextArea();
    private StrategyDraft shown;
    private boolean showing;

    /** @param change takes a change of the strategy */
    SetupFields(Contract contract, Consumer<UnaryOperator<StrategyDraft>> change) {
        super(5);
        this.change = change;
        plan = new PlanFields(contract.calendar().zone(), made -> edit(d -> StrategySetup.withPlan(d, made)));
        windows = new WindowFields(contract.calendar().zone(), made -> edit(d -> StrategySetup.withWindows(d, made)));
        choosePlan.setId("plan-choose");
        choosePlan.setTooltip(new Tooltip("The exit plan of another strategy, by its name"));
        choosePlan.getStyleClass().addAll("small", "link");
        choosePlan.setMinWidth(USE_PREF_SIZE);
        limited.setId("trades-limited");
        trades.setId("trades-a-day");
        cools.setId("cool-down");
        cools.setTooltip(new Tooltip("No entry for a while after a trade has ended"));
        cool.setId("cool-down-length");
        coolUnit.setId("cool-down-unit");
        coolUnit.setAccessibleText("Unit of the cool-down");
        coolUnit.getItems().setAll("bars", "minutes");
        coolUnit.setValue("bars");
        coolLosses.setId("cool-down-losses");
        spreads.setId("spread-limited");
        spreads.setTooltip(new Tooltip("No entry while bid and ask are further apart at the signal's print"));
        spread.setId("spread-ticks");
        history.setId("history-days");
        restart.setId("bars-restart");
        restart.setAccessibleText("Where bars begin anew");
        for (BarSettings.Restart one : BarSettings.Restart.values()) {
            restart.getItems().add(one.name().toLowerCase(Locale.ROOT));
        }
        anchor.setId("bars-anchor");
        anchor.setAccessibleText("Trading date that bars begin with");
        anchor.setPrefColumnCount(8);
        anchorLine = Form.line("", Form.muted("from"), anchor);
        VBox names = new VBox(3);
        contract.calendar().sessionNames().stream().sorted().forEach(name -> {
            CheckBox box = new CheckBox(name);
            box.setId("bars-session-" + sessions.size());
            box.setOnAction(e -> keepBars());
            sessions.add(box);
            names.getChildren().add(box);
        });
        barsSaid.getStyleClass().add("problem");
        barsSaid.setWrapText(true);
        barsSaid.managedProperty().bind(barsSaid.textProperty().isNotEmpty());
        note.setId("strategy-note");
        note.setAccessibleText("A note of your own");
        note.setPrefRowCount(2);
        note.setWrapText(true);
        getChildren().addAll(heading("Exit plan"), Form.row(makePlan, choosePlan), plan, heading("Hours"), windows,
                heading("Day and history"),
                Form.line("Trades", limited, trades, Form.muted("a day")),
                Form.line("Cool-down", cools, cool, coolUnit), Form.line("", coolLosses),
                Form.line("Spread", spreads, spread, Form.muted("t")),
                Form.line("History", history, Form.muted("trading days before")),
                heading("Bars"), Form.line("Anew", Form.muted("at each"), restart), anchorLine,
                Form.line("Sessions", names), barsSaid,
                heading("Note"), note);
        limited.setOnAction(e -> keepTrades());
        trades.onChanged(this::keepTrades);
        for (CheckBox box : List.of(cools, coolLosses)) {
            box.setOnAction(e -> keepCoolDown());
        }
        cool.onChanged(this::keepCoolDown);
        coolUnit.setOnAction(e -> keepCoolDown());
        spreads.setOnAction(e -> keepSpread());
        spread.onChanged(this::keepSpread);
        history.onChanged(() -> whole(history, 0).ifPresent(n -> edit(d -> StrategySetup.withHistoryDays(d, n))));
        restart.setOnAction(e -> keepBars());
        anchor.setOnAction(e -> keepBars());
        note.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                edit(d -> StrategySetup.withNote(d, note.getText()));
            }
        });
    }

    private static Label heading(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("heading");
        return label;
    }

    static Button button(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().addAll("small", words.length() > 1 ? "link" : "quiet");
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(e -> act.run());
        return button;
    }

    private static Optional<Integer> whole(NumberField field, int least) {
        return field.number()
                .filter(n -> n.stripTrailingZeros().scale() <= 0 && n.compareTo(BigDecimal.valueOf(least)) >= 0
                        && n.compareTo(BigDecimal.valueOf(100_000)) <= 0)
                .map(BigDecimal::intValue);
    }

    private void edit(UnaryOperator<StrategyDraft> with) {
        if (!showing) {
            change.accept(with);
        }
    }

    private void keepTrades() {
        edit(d -> StrategySetup.withTradesADay(d,
                limited.isSelected() ? whole(trades, 1).or(() -> Optional.of(1)) : Optional.empty()));
    }

    private void keepCoolDown() {
        int length = whole(cool, 1).orElse(1);
        boolean bars = "bars".equals(coolUnit.getValue());
        edit(d -> StrategySetup.withCoolDown(d, cools.isSelected()
                ? Optional.of(new CoolDown(bars ? OptionalInt.of(length) : OptionalInt.empty(),
                        bars ? OptionalInt.empty() : OptionalInt.of(length), coolLosses.isSelected()))
                : Optional.empty()));
    }

    private void keepSpread() {
        edit(d -> StrategySetup.withLargestSpread(d,
                spreads.isSelected() ? whole(spread, 0).or(() -> Optional.of(0)) : Optional.empty()));
    }

    private void keepBars() {
        if (showing || shown == null) {
            return;
        }
        Set<String> chosen = sessions.stream().filter(CheckBox::isSelected).map(CheckBox::getText)
                .collect(Collectors.toSet());
        BarSettings.Restart anew = BarSettings.Restart.valueOf(restart.getValue().toUpperCase(Locale.ROOT));
        show(anchorLine, anew == BarSettings.Restart.NEVER);
        try {
            if (chosen.isEmpty()) {
                throw new IllegalArgumentException("expected at least one session");
            }
            Optional<LocalDate> date = anew == BarSettings.Restart.NEVER ? Optional.of(date()) : Optional.empty();
            shown.bars().ifPresent(now -> {
                BarSettings next = new BarSettings(now.type(), anew, date,
                        chosen.size() == sessions.size() ? Set.of() : chosen);
                barsSaid.setText("");
                edit(d -> StrategySetup.withBars(d, next));
            });
        } catch (IllegalArgumentException e) {
            barsSaid.setText(e.getMessage());
        }
    }

    private LocalDate date() {
        try {
            return TapeTime.date(anchor.getText().strip());
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "bars that never begin anew start with a trading date such as 2026-09-21", e);
        }
    }

    private static void show(Node node, boolean visible) {
        node.setVisible(visible);
        node.setManaged(visible);
    }

    /** Exit plans that can be chosen by their names. */
    void plans(List<ExitPlan> known) {
        choosePlan.getItems().setAll(known.stream().map(one -> {
            MenuItem item = new MenuItem(one.name() + ": " + one.words());
            item.setOnAction(e -> edit(d -> StrategySetup.withPlan(d, one)));
            return item;
        }).toList());
        choosePlan.setDisable(known.isEmpty());
    }

    /** Shows a strategy's fields. */
    void show(StrategyDraft draft) {
        showing = true;
        boolean other = shown == null || !shown.name().equals(draft.name());
        shown = draft;
        Optional<ExitPlan> there = StrategySetup.plan(draft);
        show(makePlan, draft.exitPlan().isEmpty());
        show(plan, there.isPresent());
        there.ifPresent(plan::show);
        windows.show(StrategySetup.windows(draft));
        Optional<Integer> most = StrategySetup.tradesADay(draft);
        limited.setSelected(most.isPresent());
        most.ifPresent(n -> trades.setText(Integer.toString(n)));
        Optional<CoolDown> wait = StrategySetup.coolDown(draft);
        cools.setSelected(wait.isPresent());
        coolLosses.setDisable(wait.isEmpty());
        wait.ifPresent(w -> {
            coolUnit.setValue(w.bars().isPresent() ? "bars" : "minutes");
            cool.setText(Integer.toString(w.bars().isPresent() ? w.bars().getAsInt() : w.minutes().getAsInt()));
            coolLosses.setSelected(w.onlyAfterLosses());
        });
        Optional<Integer> widest = StrategySetup.largestSpread(draft);
        spreads.setSelected(widest.isPresent());
        widest.ifPresent(n -> spread.setText(Integer.toString(n)));
        history.setText(Integer.toString(StrategySetup.historyDays(draft)));
        draft.bars().ifPresent(bars -> {
            restart.setValue(bars.restart().name().toLowerCase(Locale.ROOT));
            show(anchorLine, bars.restart() == BarSettings.Restart.NEVER);
            bars.anchor().ifPresent(date -> anchor.setText(date.toString()));
            sessions.forEach(
                    box -> box.setSelected(bars.sessions().isEmpty() || bars.sessions().contains(box.getText())));
            barsSaid.setText("");
        });
        if (other || !note.isFocused()) {
            note.setText(StrategySetup.note(draft));
        }
        showing = false;
    }
}
