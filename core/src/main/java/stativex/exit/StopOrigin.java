package stativex.exit;

/** What set the level of a trade's stop. */
public enum StopOrigin {
    /** The plan's stop. */
    STOP,
    /** The breakeven move, by the plan or by hand. */
    BREAKEVEN,
    /** A trail step. */
    TRAIL,
    /** A study that the stop follows. */
    FOLLOW,
    /** The stop that the broker holds beyond one that is held here. */
    DISASTER
}
