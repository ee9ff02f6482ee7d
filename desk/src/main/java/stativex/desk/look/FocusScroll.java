package stativex.desk.look;

import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/** Scrolls what has the keyboard into view: a person who goes through fields by Tab must see where they are. */
public final class FocusScroll {
    private static final double MARGIN = 12;

    private FocusScroll() {}

    /** Lets a pane follow the focus from now on. */
    public static void follow(ScrollPane pane) {
        pane.sceneProperty().addListener((o, before, scene) -> {
            if (scene != null) {
                scene.focusOwnerProperty().addListener((p, old, owner) -> {
                    if (owner != null && pane.getScene() == scene && inside(pane.getContent(), owner)) {
                        show(pane, owner);
                    }
                });
            }
        });
    }

    private static boolean inside(Node content, Node node) {
        for (Node at = node; at != null; at = at.getParent()) {
            if (at == content) {
                return true;
            }
        }
        return false;
    }

    private static void show(ScrollPane pane, Node node) {
        Node content = pane.getContent();
        Bounds place = content.sceneToLocal(node.localToScene(node.getBoundsInLocal()));
        double height = content.getBoundsInLocal().getHeight();
        double view = pane.getViewportBounds().getHeight();
        if (height <= view) {
            return;
        }
        double top = pane.getVvalue() * (height - view);
        if (place.getMinY() < top) {
            pane.setVvalue(Math.max(0, place.getMinY() - MARGIN) / (height - view));
        } else if (place.getMaxY() > top + view) {
            pane.setVvalue(Math.min(height - view, place.getMaxY() + MARGIN - view) / (height - view));
        }
    }
}
