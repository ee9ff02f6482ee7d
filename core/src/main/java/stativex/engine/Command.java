package stativex.engine;

import stativex.market.Side;

/** What the person may do; an input of the engine like any print. Strategies by index. */
public sealed interface Command {
    record SetMode(int strategy, Mode mode) implements Command {}

    record SetSide(int strategy, Side side, boolean on) implements Command {}

    record SetOnce(int strategy, boolean once) implements Command {}

    /** Moves the stop of the open trade to its average entry price, if that tightens it. */
    record Breakeven(int strategy) implements Command {}

    /** Takes half of the open contracts off at the market, at least one. */
    record HalfOff(int strategy) implements Command {}

    record Flatten(int strategy) implements Command {}

    /** Leaves everything and locks the account until the next trading day; nobody can lift that. */
    record FlatAndLock() implements Command {}
}
