package stativex.exit;

import java.time.LocalTime;
import java.time.ZoneId;
import java.util.OptionalInt;

/** Why a trade is left at the market by its plan, beside stop and targets. */
public sealed interface Leave {
    /**
     * At the close of the N-th bar after the one that holds the entry.
     *
     * @param onlyInProfit from then on, at the first close in profit
     */
    record AfterBars(int bars, boolean onlyInProfit) implements Leave {
        public AfterBars {
            if (bars < 1) {
                throw new IllegalArgumentException("expected to leave after 1 bar or more, found " + bars);
            }
        }
    }

    /** At the first bar close in profit after the bar that holds the entry. */
    record FirstCloseInProfit() implements Leave {}

    /** When the other side's rule fires. */
    record OppositeSignal() implements Leave {}

    /**
     * When a rule is true.
     *
     * @param rule condition in the rule language
     * @param quantity contracts, once in a trade; empty: everything
     */
    record Rule(String rule, OptionalInt quantity) implements Leave {
        public Rule {
            if (quantity.isPresent() && quantity.getAsInt() < 1) {
                throw new IllegalArgumentException(
                        "expected a rule to take 1 contract or more off, found " + quantity.getAsInt());
            }
        }
    }

    /** When the strategy's session window ends. */
    record WindowEnd() implements Leave {}

    /** When a clock shows a time of day. */
    record ClockTime(LocalTime time, ZoneId zone) implements Leave {}

    /** In words: {@code out after 20 bars if in profit}. */
    default String words() {
        return switch (this) {
            case AfterBars a ->
                "out after " + a.bars() + (a.bars() == 1 ? " bar" : " bars")
                        + (a.onlyInProfit() ? " if in profit" : "");
            case FirstCloseInProfit ignored -> "out at the first close in profit";
            case OppositeSignal ignored -> "out on the opposite signal";
            case Rule r -> (r.quantity().isPresent() ? r.quantity().getAsInt() + " out" : "out") + " when " + r.rule();
            case WindowEnd ignored -> "out at the window's end";
            case ClockTime c -> "out at " + c.time() + " " + c.zone().getId();
        };
    }
}
