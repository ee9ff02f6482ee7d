package stativex.desk.draw;

import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;

/**
 * Work that is done once with the next frame of the window that shows a node, however often it is asked for until then: a mouse tells
 * of itself far more often than a screen shows anything. While no window shows the node it waits.
 */
public final class NextFrame {
    private final Node node;
    private final Runnable work;
    private final Runnable listener = this::run;
    private Optional<Scene> asked = Optional.empty();
    private boolean due;

    /** @param work done on the window's thread before it is laid out */
    public NextFrame(Node node, Runnable work) {
        this.node = node;
        this.work = work;
        node.sceneProperty().addListener((shown, before, now) -> {
            if (due) {
                await(Optional.ofNullable(now));
            }
        });
    }

    /** Asks for the work to be done. */
    public void ask() {
        if (!due) {
            due = true;
            await(Optional.ofNullable(node.getScene()));
        }
    }

    private void await(Optional<Scene> scene) {
        asked.ifPresent(left -> left.removePreLayoutPulseListener(listener));
        asked = scene;
        scene.ifPresent(shown -> {
            shown.addPreLayoutPulseListener(listener);
            Platform.requestNextPulse();
        });
    }

    private void run() {
        due = false;
        await(Optional.empty());
        work.run();
    }
}
