package stativex.desk;

import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.scene.Parent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import stativex.desk.run.RunStage;
import stativex.engine.Command;
import stativex.link.Replay;

/**
 * The window's content. Once a frame it takes the latest picture of the replay and shows it if it is a new one; the
 * engine never waits for it.
 */
public final class DeskWindow {
    private static final KeyCombination RUN = new KeyCodeCombination(KeyCode.DIGIT6, KeyCombination.SHORTCUT_DOWN);

    private final Workspace workspace;
    private final BorderPane root = new BorderPane();
    private final TopBar topBar;
    private final RunStage run;
    private Optional<Replay.View> shown = Optional.empty();
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            refresh();
        }
    };

    /** Shows a workspace; {@link #start()} keeps it fresh. */
    public DeskWindow(Workspace workspace) {
        this.workspace = workspace;
        topBar = new TopBar(workspace.inputs().contract(), this::send);
        run = new RunStage(workspace.inputs(), workspace.own(), workspace.replay().latest(), this::send, this::jump);
        root.getStyleClass().add("desk");
        root.setTop(topBar);
        root.setCenter(run);
        root.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (RUN.match(e)) {
                run.requestFocus();
                e.consume();
            }
        });
        refresh();
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
