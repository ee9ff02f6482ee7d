package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import stativex.exit.ExitTerms;
import stativex.exit.PlanRun;
import stativex.exit.StopMap;

/**
 * What a plan means in money for one entry. Money in ten-thousandths.
 *
 * @param quantity contracts of the entry
 * @param ticks to the level that the bracket is attached with; empty without a stop, or while a study is missing
 * @param risk what the contracts lose there
 * @param stopOut the same with slippage once and the fees of both ways
 * @param rewards of each target in R, in the plan's order; the runner has none
 * @param needs share of trades that have to win so that nothing is lost, if a trade either leaves whole at the first target or is
 *        stopped out; empty without a target, or when the target does not pay the fees
 */
public record PlanMeaning(int quantity, OptionalLong ticks, OptionalLong risk, OptionalLong stopOut,
        List<OptionalDouble> rewards, OptionalDouble needs) {

    public PlanMeaning {
        rewards = List.copyOf(rewards);
    }

    /** @param fee money per contract and side */
    public static PlanMeaning of(ExitTerms terms, StopMap.Entry entry, long fee) {
        Optional<StopMap> map = StopMap.of(terms, entry);
        int quantity = entry.quantity();
        if (map.isEmpty() || terms.stop().isEmpty()) {
            return new PlanMeaning(quantity, OptionalLong.empty(), OptionalLong.empty(), OptionalLong.empty(),
                    terms.targets().stream().map(ignored -> OptionalDouble.empty()).toList(),
                    OptionalDouble.empty());
        }
        long ticks = PlanRun.risk(terms, entry.side(), entry.contract(), entry.price(), quantity, entry.readings())
                .orElseThrow();
        long initial = -map.get().at(0).orElseThrow();
        long stopOut = entry.contract().money(ticks + entry.contract().slippage(), quantity) + 2 * fee * quantity;
        List<OptionalDouble> rewards = new ArrayList<>();
        OptionalDouble needs = OptionalDouble.empty();
        for (int i = 0; i < terms.targets().size(); i++) {
            OptionalLong distance = distance(map.get(), i);
            rewards.add(distance.isPresent() && initial > 0
                    ? OptionalDouble.of((double) distance.getAsLong() / initial)
                    : OptionalDouble.empty());
            if (needs.isEmpty() && distance.isPresent()) {
                long win = entry.contract().money(distance.getAsLong(), quantity) - 2 * fee * quantity;
                needs = win > 0 && stopOut > 0
                        ? OptionalDouble.of((double) stopOut / (stopOut + win))
                        : OptionalDouble.empty();
            }
        }
        return new PlanMeaning(quantity, OptionalLong.of(ticks),
                OptionalLong.of(entry.contract().money(ticks, quantity)), OptionalLong.of(stopOut), rewards, needs);
    }

    private static OptionalLong distance(StopMap map, int target) {
        return map.handles().stream().filter(h -> h.kind() == StopMap.Kind.TARGET && h.index() == target)
                .mapToLong(StopMap.Handle::best).findFirst();
    }

    /** How many stop-outs an amount is, in tenths, rounded down; empty without a stop. */
    public OptionalLong tenthsOfStopOuts(long money) {
        return stopOut.isPresent() && stopOut.getAsLong() > 0
                ? OptionalLong.of(Math.floorDiv(10 * money, stopOut.getAsLong()))
                : OptionalLong.empty();
    }
}
