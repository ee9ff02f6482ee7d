package stativex.desk;

import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.scene.Parent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import stativex.desk.chart.ChartLink;
import stativex.desk.look.FilePicker;
import stativex.desk.rules.RulesStage;
import stativex.desk.run.RunStage;
import stativex.desk.tape.Shown;
import stativex.desk.tape.TapeStage;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.StrategyDraft;
import stativex.files.StrategyFolder;
import stativex.files.tape.TapeStore;
import stativex.link.Replay;
import stativex.market.Contract;

/**
 * The window's content. Once a frame it takes the latest picture of the replay and shows it if it is a new one; the
 * engine never waits for it.
 */
public final class DeskWindow {
    private static final KeyCombination TAPE = new KeyCodeCombination(KeyCode.DIGIT1, KeyCombination.SHORTCUT_DOWN);
    private static final KeyCombination RULES = new KeyCodeCombination(KeyCode.DIGIT2, KeyCombination.SHORTCUT_DOWN);
    private static final KeyCombination RUN = new KeyCodeCombination(KeyCode.DIGIT6, KeyCombination.SHORTCUT_DOWN);

    private final BorderPane root = new BorderPane();
    private final FilePicker picker;
    private final ChartLink link = new ChartLink();
    private final TapeStage tape;
    private final StrategyFolder folder = StrategyFolder.own();
    private Workspace workspace;
    private TopBar topBar;
    private RunStage run;
    private Optional<RulesStage> rules = Optional.empty();
    private Optional<Replay.View> shown = Optional.empty();
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            refresh();
        }
    };

    /** Shows a workspace; {@link #start()} keeps it fresh. */
    public DeskWindow(Workspace workspace) {
        this(workspace, FilePicker.system());
    }

    /** @param picker asks for files */
    DeskWindow(Workspace workspace, FilePicker picker) {
        this.picker = picker;
        Documents.Read<Contract> contract = workspace.documents().contract();
        tape = new TapeStage(TapeStore.own(),
                Shown.made(workspace.tape(), contract.value(), workspace.inputs().tape()), contract, workspace.own(),
                this.picker, link, this::openInRun);
        root.getStyleClass().add("desk");
        root.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (TAPE.match(e) || RULES.match(e) || RUN.match(e)) {
                stage(TAPE.match(e) ? 1 : RULES.match(e) ? 2 : 6);
                e.consume();
            }
        });
        work(workspace);
    }

    /** Takes a workspace into the Run stage. */
    private void work(Workspace next) {
        workspace = next;
        topBar = new TopBar(workspace.inputs().contract(), this::send, this::stage);
        if (run != null) {
            run.leave();
        }
        run = new RunStage(workspace.inputs(), workspace.own(), workspace.replay().latest(), link, this::send,
                this::jump);
        root.setTop(topBar);
        shown = Optional.empty();
        stage(6);
        refresh();
    }

    /** Shows a stage by its number. */
    public void stage(int number) {
        topBar.stage(number);
        if (number == 1) {
            root.setCenter(tape);
            if (tape.pane().title().isEmpty()) {
                tape.select(workspace.tape());
            }
        } else if (number == 2) {
            root.setCenter(rulesStage());
            rulesStage().focus();
        } else {
            root.setCenter(run);
            run.requestFocus();
        }
    }

    /** The Rules stage, made when first asked for. */
    RulesStage rulesStage() {
        if (rules.isEmpty()) {
            rules = Optional.of(new RulesStage(workspace.inputs().contract(), workspace.inputs().tape(),
                    workspace.further(),
                    workspace.documents().strategies().stream().map(s -> StrategyDraft.of(s.document())).toList(),
                    folder, link, this::takeToRun, this::isTrading));
        }
        return rules.get();
    }

    /** Whether a strategy is engaged in the replay, or has a position. */
    private boolean isTrading() {
        return workspace.replay().latest().snapshot().strategies().stream()
                .anyMatch(s -> s.mode() == Mode.ENGAGED || s.position().isPresent());
    }

    /** Replays the tape at hand with a strategy first. */
    private void takeToRun(StrategyDraft draft) {
        try {
            Documents.Read<Strategy> strategy = draft.strategy();
            Workspace next = workspace.with(strategy);
            folder.keepVersion(draft, strategy.value().version());
            workspace.close();
            work(next);
            next.toBeginning();
        } catch (IllegalArgumentException | BadInput e) {
            rulesStage().say(e.getMessage());
        }
    }

    /** The Tape stage. */
    TapeStage tapeStage() {
        return tape;
    }

    /** Replays a tape with the strategies at hand, from its last trading day on. */
    private void openInRun(Shown chosen) {
        try {
            Workspace next = workspace.on(chosen.reference(), chosen.contract(), chosen.tape());
            workspace.close();
            rules.ifPresent(RulesStage::leave);
            rules = Optional.empty();
            work(next);
            next.toBeginning();
        } catch (IllegalArgumentException e) {
            tape.say(e.getMessage());
        }
    }

    /** What is replayed now. */
    public Workspace workspace() {
        return workspace;
    }

    public Parent root() {
        return root;
    }

    public void start() {
        timer.start();
    }

    public void stop() {
        timer.stop();
    }

    /** Shows the latest picture if it is a new one. Returns whether it was. */
    public boolean refresh() {
        Replay.View view = workspace.replay().latest();
        if (shown.isPresent() && shown.get() == view) {
            return false;
        }
        shown = Optional.of(view);
        topBar.show(view);
        run.show(workspace.replay(), view);
        return true;
    }

    private void send(Command command) {
        workspace.replay().command(command);
    }

    private void jump(long time) {
        if (time < workspace.replay().latest().clock()) {
            workspace.restart();
        }
        workspace.replay().jumpTo(time);
    }
}
