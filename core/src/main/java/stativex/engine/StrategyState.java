package stativex.engine;

import java.util.List;
import java.util.Set;
import stativex.interlock.Refusal;
import stativex.market.Side;

/** What a strategy is doing, or why it does nothing: what the one sentence of state says. */
public sealed interface StrategyState {
    /** @param mode it goes on when it is not engaged any more */
    record InTrade(Side side, int open, Mode mode) implements StrategyState {}

    record Leaving(Side side, int open) implements StrategyState {}

    record Off() implements StrategyState {}

    /** The trading day only feeds the studies. */
    record FeedingStudies(int days) implements StrategyState {}

    /** No side may enter. @param why of each side what it would meet first */
    record NotTrading(List<Refusal> why) implements StrategyState {
        public NotTrading {
            why = List.copyOf(why);
        }
    }

    /** Signals are logged, nothing is sent. */
    record Watching() implements StrategyState {}

    /** An entry is working. */
    record Entering() implements StrategyState {}

    /** It waits for a signal of these sides. */
    record Waiting(Set<Side> sides) implements StrategyState {
        public Waiting {
            sides = Set.copyOf(sides);
        }
    }
}
