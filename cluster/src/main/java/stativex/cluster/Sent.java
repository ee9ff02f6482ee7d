package stativex.cluster;

import java.io.Serializable;
import java.util.Optional;
import java.util.OptionalDouble;
import stativex.files.VariantTrials;
import stativex.search.Tried;

/**
 * What came of a variant, as it goes back. NaN stands for a figure that is absent.
 *
 * @param place of its task among those that were asked for
 * @param problem why its document is refused; empty: it is not
 */
record Sent(int place, boolean whole, int trades, long net, double profitFactor, long deepest, double expectancyR,
        long[] days, boolean hasStop, String problem) implements Serializable {

    static Sent of(int place, VariantTrials.Outcome outcome) {
        return outcome.tried().map(t -> new Sent(place, outcome.whole(), t.trades(), t.net(),
                t.profitFactor().orElse(Double.NaN), t.deepestDrawdown(), t.expectancyR().orElse(Double.NaN), t.days(),
                t.hasStop(), "")).orElseGet(() -> new Sent(place, outcome.whole(), 0, 0, Double.NaN, 0, Double.NaN,
                        new long[0], false, outcome.problem()));
    }

    VariantTrials.Outcome outcome(VariantTrials.Task task) {
        return new VariantTrials.Outcome(task.number(), task.grid(), whole,
                problem.isEmpty()
                        ? Optional.of(new Tried(trades, net, absent(profitFactor), deepest, absent(expectancyR), days,
                                hasStop))
                        : Optional.empty(),
                problem);
    }

    private static OptionalDouble absent(double value) {
        return Double.isNaN(value) ? OptionalDouble.empty() : OptionalDouble.of(value);
    }
}
