package stativex.interlock;

import java.util.Optional;

/**
 * Something that every entry must pass. Each interlock is one class and stands once in {@link Interlocks}; the gate asks it, the
 * screen shows it, the sentence of state reads it.
 */
interface Interlock {
    InterlockKind kind();

    /** Whether a strategy has anything to do with it. */
    default boolean applies(Situation s) {
        return true;
    }

    /** Whether {@link #applies} depends on what the strategy has set alone, and where it does not apply nothing is ever refused. */
    default boolean bySetting() {
        return false;
    }

    /** Why an entry does not pass; empty when it does. */
    Optional<Refusal> refusal(Situation s, Proposal p);

    /** Where entries may be cut: the largest quantity below a refused one that would pass; 0 when none would. */
    default int fitting(Situation s, Proposal p) {
        return 0;
    }

    /** What the person sees of it while it is clear. */
    default InterlockView.Fact fact(Situation s) {
        return new InterlockView.Nothing();
    }
}
