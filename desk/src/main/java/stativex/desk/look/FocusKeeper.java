package stativex.desk.look;

import javafx.scene.Node;
import javafx.scene.Parent;

/** Makes fields anew without taking the keyboard away from the person: the field of the same id gets it back. */
public final class FocusKeeper {
    private FocusKeeper() {}

    /** Rebuilds what lies in a parent. */
    public static void rebuild(Parent parent, Runnable rebuild) {
        Node owner = parent.getScene() == null ? null : parent.getScene().getFocusOwner();
        String id = null;
        boolean inside = false;
        for (Node at = owner; at != null && !inside; at = at.getParent()) {
            id = id == null ? at.getId() : id;
            inside = at == parent;
        }
        rebuild.run();
        if (inside && id != null) {
            Node again = parent.lookup("#" + id);
            if (again != null) {
                again.requestFocus();
            }
        }
    }
}
