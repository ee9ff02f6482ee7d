package stativex.study;

import java.util.Map;

/**
 * A study takes each closed bar once, in order, and adds one value to each of its outputs. Live and whole-history values
 * are therefore the same operations in the same order. Values are doubles, in ticks where they mean a price.
 */
public sealed interface Study permits Ema, Atr, SessionVwap {
    /** Takes the closed bar {@code bar}; called once for each bar, in order. */
    void take(int bar);

    /** The outputs by name; the main one has the empty name. */
    Map<String, OutputColumn> outputs();

    /** A session opens: studies anchored to the session start afresh, others run on. */
    default void sessionOpens() {}
}
