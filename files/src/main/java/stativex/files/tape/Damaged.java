package stativex.files.tape;

import java.nio.file.Path;
import stativex.files.BadInput;

/** A stored tape that is no longer what was written. */
public final class Damaged extends BadInput {
    private static final long serialVersionUID = 1;

    private final String tape;

    Damaged(Path file, String what) {
        super(file + ": " + what);
        String name = file.getFileName().toString();
        tape = name.endsWith(TapeStore.SUFFIX) ? name.substring(0, name.length() - TapeStore.SUFFIX.length()) : name;
    }

    /** Its name in the store. */
    public String tape() {
        return tape;
    }
}
