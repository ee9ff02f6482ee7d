package stativex.desk;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.files.ResultWords;
import stativex.link.RunView;
import stativex.market.Contract;

/** The dark bar: name, stages that exist, clock with zone, account, and the button that is always there. */
final class TopBar extends HBox {
    private final Optional<Contract> contract;
    private final Label clock = new Label();
    private final MenuButton account = new MenuButton();

    private final ToggleButton tape = new ToggleButton("1  Tape");
    private final ToggleButton rules = new ToggleButton("2  Rules");
    private final ToggleButton exits = new ToggleButton("3  Exits");
    private final ToggleButton limits = new ToggleButton("4  Limits");
    private final ToggleButton trials = new ToggleButton("5  Trials");
    private final ToggleButton run = new ToggleButton("6  Run");

    /**
     * @param contract that is traded; empty while there is no tape
     * @param stage told the number of the stage that was chosen
     * @param accounts fills the account's menu when it is opened
     * @param sound menu of the sounds
     */
    TopBar(Optional<Contract> contract, Consumer<Command> send, IntConsumer stage, Supplier<List<MenuItem>> accounts,
            MenuButton sound) {
        this.contract = contract;
        getStyleClass().add("top-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(14);
        Label name = new Label("Stativex");
        name.getStyleClass().add("name");
        tape.setId("stage-tape");
        tape.setTooltip(new Tooltip("Tape (Ctrl+1)"));
        tape.setOnAction(e -> stage.accept(1));
        rules.setId("stage-rules");
        rules.setTooltip(new Tooltip("Rules (Ctrl+2)"));
        rules.setOnAction(e -> stage.accept(2));
        exits.setId("stage-exits");
        exits.setTooltip(new Tooltip("Exits (Ctrl+3)"));
        exits.setOnAction(e -> stage.accept(3));
        limits.setId("stage-limits");
        limits.setTooltip(new Tooltip("Limits (Ctrl+4)"));
        limits.setOnAction(e -> stage.accept(4));
        trials.setId("stage-trials");
        trials.setTooltip(new Tooltip("Trials (Ctrl+5); Ctrl+Enter tries the open strategy"));
        trials.setOnAction(e -> stage.accept(5));
        run.setId("stage-run");
        run.setTooltip(new Tooltip("Run (Ctrl+6)"));
        run.setOnAction(e -> stage.accept(6));
        clock.getStyleClass().add("clock");
        clock.setMinWidth(Region.USE_PREF_SIZE);
        account.setId("account");
        account.setAccessibleText("Account");
        account.setOnShowing(e -> account.getItems().setAll(accounts.get()));
        // a menu without an item is never shown, and so never filled
        account.getItems().setAll(accounts.get());
        account.setVisible(contract.isPresent());
        rules.setDisable(contract.isEmpty());
        exits.setDisable(contract.isEmpty());
        limits.setDisable(contract.isEmpty());
        trials.setDisable(contract.isEmpty());
        run.setDisable(contract.isEmpty());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HoldButton lock = new HoldButton("Flat & lock day",
                "Leaves every position at the market, cancels every entry and locks the account until the next trading day;"
                        + " nobody can lift that.",
                () -> send.accept(new Command.FlatAndLock()));
        lock.setId("flat-and-lock");
        lock.getStyleClass().add("lock");
        lock.setVisible(contract.isPresent());
        getChildren().addAll(name, new HBox(tape, rules, exits, limits, trials, run), gap, clock, sound, account, lock);
    }

    /**
     * @param what is shown: a replay, or a live day
     * @param orders where they go
     */
    void show(RunView view, String what, String orders) {
        ZoneId zone = contract.orElseThrow().calendar().zone();
        clock.setText(what + " " + Format.clock(view.clock(), zone) + " " + Format.city(zone));
        Snapshot.AccountView a = view.snapshot().account();
        account.getStyleClass().remove("tripped");
        String state = a.broken() ? " · broken" : a.lock().map(why -> " · locked, " + ResultWords.of(why)).orElse("");
        if (!state.isEmpty()) {
            account.getStyleClass().add("tripped");
        }
        account.setText(a.name() + " " + orders + state);
    }

    /** Marks the stage that is shown. */
    void stage(int number) {
        tape.setSelected(number == 1);
        rules.setSelected(number == 2);
        exits.setSelected(number == 3);
        limits.setSelected(number == 4);
        trials.setSelected(number == 5);
        run.setSelected(number == 6);
    }
}
