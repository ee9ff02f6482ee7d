package stativex.exit;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * How a trade is left: one stop, targets with quantities, a breakeven move and trail steps. Distances are in ticks from
 * the trade's average entry price.
 *
 * @param version a fingerprint of its document, carried by every result
 * @param stop empty: no stop, and every entry fails the line check while any line is on
 * @param targets in listed order; contracts go to them in that order
 * @param trail no two with the same activation
 */
public record ExitPlan(String name, String version, Optional<Stop> stop, List<Target> targets,
        Optional<Breakeven> breakeven,
        List<TrailStep> trail) {

    /** The initial stop's distance. */
    public sealed interface Stop {
        /** @param ticks at least 1 */
        record Ticks(long ticks) implements Stop {}

        /** @param money per contract, ten-thousandths; never further than asked */
        record PerContract(long money) implements Stop {}

        /**
         * The stop's price for a trade at {@code average}, on the grid: ticks are counted away from the market, money is never
         * further than asked.
         */
        default long level(Average average, Side side, Contract contract) {
            return switch (this) {
                case Ticks t -> average.away(side, -t.ticks());
                case PerContract m -> average.within(side, m.money(), contract.tickValue());
            };
        }

        /**
         * Whole ticks from an average on the grid.
         *
         * @throws IllegalArgumentException when it is under a tick
         */
        default long distance(Contract contract) {
            return switch (this) {
                case Ticks t -> atLeastOne(t.ticks(), "stop");
                case PerContract m -> atLeastOne(contract.ticksFor(m.money()), "stop in money");
            };
        }
    }

    /**
     * @param quantity contracts, at least 1
     * @param ticks distance; empty for the runner, which has no target
     */
    public record Target(int quantity, Optional<Long> ticks) {
        public Target {
            atLeastOne(quantity, "target quantity");
            ticks.ifPresent(t -> atLeastOne(t, "target distance"));
        }
    }

    /**
     * Once the best excursion is {@code after} ticks or more, the stop stands at entry + {@code offset}.
     *
     * @param offset below {@code after}
     */
    public record Breakeven(long after, long offset) {
        public Breakeven {
            atLeastOne(after, "breakeven trigger");
            if (offset >= after) {
                throw new IllegalArgumentException(
                        "expected a breakeven offset below its trigger of " + after + " ticks, found " + offset);
            }
        }
    }

    /**
     * Once the best excursion is {@code activate} or more, the stop follows {@code distance} behind, moving by whole
     * {@code step}s.
     */
    public record TrailStep(long activate, long distance, long step) {
        public TrailStep {
            if (activate < 0) {
                throw new IllegalArgumentException("expected a trail activation of 0 ticks or more, found " + activate);
            }
            atLeastOne(distance, "trail distance");
            atLeastOne(step, "trail step");
        }
    }

    public ExitPlan {
        targets = List.copyOf(targets);
        trail = trail.stream().sorted((a, b) -> Long.compare(a.activate(), b.activate())).toList();
        Set<Long> seen = new HashSet<>();
        for (TrailStep step : trail) {
            if (!seen.add(step.activate())) {
                throw new IllegalArgumentException("two trail steps activate at " + step.activate() + " ticks");
            }
        }
        if (targets.stream().filter(t -> t.ticks().isEmpty()).count() > 1) {
            throw new IllegalArgumentException("expected at most one target without a distance (the runner)");
        }
        if (stop.isEmpty() && (breakeven.isPresent() || !trail.isEmpty())) {
            throw new IllegalArgumentException(
                    "expected a stop for the breakeven move and the trail to move, found none");
        }
        if (stop.isEmpty() && targets.stream().noneMatch(t -> t.ticks().isPresent())) {
            throw new IllegalArgumentException("expected a stop or a target, found neither");
        }
    }

    /**
     * Ticks from an average on the grid to the level that the bracket is attached with: the tighter of the plan's stop and of a
     * trail step that is active from the start. Empty without a stop.
     */
    public Optional<Long> initialStop(Contract contract) {
        return stop.map(s -> trail.stream().filter(step -> step.activate() == 0).map(TrailStep::distance)
                .reduce(s.distance(contract), Math::min));
    }

    /** In words: {@code stop 24 t · 1 at 28 t, 1 at 60 t · breakeven after 20 t, +1 · trail from 30 t, 20 behind, every 5}. */
    public String words() {
        StringBuilder words = new StringBuilder(switch (stop.orElse(null)) {
            case null -> "no stop";
            case Stop.Ticks t -> "stop " + t.ticks() + " t";
            case Stop.PerContract m -> "stop " + stativex.market.Money.text(m.money()) + " a contract";
        });
        for (int i = 0; i < targets.size(); i++) {
            Target target = targets.get(i);
            words.append(i == 0 ? " · " : ", ").append(target.quantity())
                    .append(target.ticks().map(t -> " at " + t + " t").orElse(" running"));
        }
        breakeven.ifPresent(
                b -> words.append(" · breakeven after ").append(b.after()).append(" t, ").append(signed(b.offset())));
        for (TrailStep t : trail) {
            words.append(" · trail from ").append(t.activate()).append(" t, ").append(t.distance()).append(" behind");
            if (t.step() > 1) {
                words.append(", every ").append(t.step());
            }
        }
        return words.toString();
    }

    private static String signed(long value) {
        return value < 0 ? "−" + -value : "+" + value;
    }

    private static long atLeastOne(long value, String what) {
        if (value < 1) {
            throw new IllegalArgumentException("expected a " + what + " of 1 or more, found " + value);
        }
        return value;
    }
}
