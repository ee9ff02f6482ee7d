package stativex.link;

import java.util.Optional;
import stativex.engine.Snapshot;

/** What a watcher sees of a replay or of a live day. */
public interface RunView {
    /** The engine after the last input worked. */
    Snapshot snapshot();

    /** Time that has been reached on the tape or at the venue, nanoseconds. */
    long clock();

    /** Why it stopped, if it failed. */
    Optional<String> problem();
}
