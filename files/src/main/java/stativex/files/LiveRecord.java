package stativex.files;

import java.util.List;
import stativex.trial.LiveInput;

/** Where everything that a live day takes in is written down before it leads to anything. */
public interface LiveRecord extends AutoCloseable {
    /** Writes an input behind the others. */
    void input(LiveInput input);

    /** The same of several, as one: all of them, or none. */
    default void inputs(List<LiveInput> inputs) {
        inputs.forEach(this::input);
    }

    /** Gives up what was reserved for when the disk is full. Returns whether that may help. */
    default boolean relieve() {
        return false;
    }

    /** Whether there is little room left for it. */
    default boolean isNearlyFull() {
        return false;
    }

    /** Returns when everything written so far would survive a kill and a power cut. */
    void force();

    @Override
    void close();

    /** Keeps nothing. */
    LiveRecord NONE = new LiveRecord() {
        @Override
        public void input(LiveInput input) {
            // kept nowhere
        }

        @Override
        public void force() {
            // nothing to keep
        }

        @Override
        public void close() {
            // nothing is open
        }
    };
}
