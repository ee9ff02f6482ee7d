package stativex.account;

import java.util.List;
import java.util.Optional;

/** The rules an account is held to, as data. */
public record Rulebook(String name, List<Rule> rules) {
    public Rulebook {
        rules = List.copyOf(rules);
    }

    public sealed interface Rule {}

    /**
     * An intraday trailing drawdown floor: peak of equity at every print − allowance, or the lock level once that is
     * higher than it.
     *
     * @param allowance money, above 0
     * @param lock the floor never rises above this; at least start − allowance
     */
    public record DrawdownFloor(long allowance, Optional<Long> lock) implements Rule {
        public DrawdownFloor {
            if (allowance <= 0) {
                throw new IllegalArgumentException("expected an allowance above 0");
            }
        }
    }

    /** The floor rule, if there is one. */
    public Optional<DrawdownFloor> floor() {
        return rules.stream().filter(DrawdownFloor.class::isInstance).map(DrawdownFloor.class::cast).findFirst();
    }
}
