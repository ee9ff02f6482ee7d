package stativex.files.tape;

import stativex.files.BadInput;

/** A stored tape that is no longer what was written. */
public final class Damaged extends BadInput {
    private static final long serialVersionUID = 1;

    Damaged(String message) {
        super(message);
    }
}
