package stativex.order;

import java.util.Locale;

/** What a trial walks. SEMANTICS, "Orders and the simulated exchange". */
public enum TrialMode {
    /** The prints, one by one. */
    TICK,
    /** The bars of the signal series, each in steps of a tick: fast, and coarse. */
    BAR;

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
