package stativex.exit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * A plan's distances as ticks, fixed with a trade's first fill and staying so for later entries: targets exact, breakeven and trail in
 * whole ticks, rounded up. What follows the average (a stop in percent, or in money for the whole position) is worked anew with each
 * entry fill. Source: SEMANTICS, "Exit plans".
 */
final class PlanFigures {
    /** In place of a level that there is not. */
    static final long NO_LEVEL = Long.MIN_VALUE;

    /** A trail step in whole ticks. */
    record Trail(long activate, long distance, long step) {}

    private final ExitTerms terms;
    private final Side side;
    private final Contract contract;
    private final long price;
    private final int quantity;
    private final int open;
    private final Readings readings;
    /** Ticks from the fill to the level that the bracket is attached with; below 0 when that lies beyond it. */
    final long initial;
    /** Ticks that one R is. */
    final long risk;
    final List<Trail> trail;
    final long breakevenAfter;
    final long breakevenOffset;
    private final Optional<Ratio> stop;
    private final long stopLevel;
    private final List<Optional<Ratio>> targets = new ArrayList<>();

    /**
     * @param price of the fill, or that an entry is expected to have, ticks
     * @param quantity of the order that made it
     * @param open contracts that it opened
     * @param readings at the last signal bar closed before that order was sent
     */
    PlanFigures(ExitTerms terms, Side side, Contract contract, long price, int quantity, int open,
            Readings readings) {
        this.terms = terms;
        this.side = side;
        this.contract = contract;
        this.price = price;
        this.quantity = quantity;
        this.open = open;
        this.readings = readings;
        Optional<Distance> stated = terms.stop().map(ExitTerms.Stop::distance);
        this.stopLevel = stated.flatMap(d -> d instanceof Distance.Level(String study)
                ? Optional.of(stopLevel(side, readings.at(study)))
                : Optional.empty()).orElse(NO_LEVEL);
        this.stop = stated.filter(d -> !(d instanceof Distance.Level)).map(d -> exact(d, 0));
        // R counts the stop, and what of the trail does not count R itself
        this.risk = stated.isPresent() ? side.sign() * (price - attached(trail(0, false))) : 0;
        this.trail = trail(risk, true);
        this.initial = stated.isPresent() ? side.sign() * (price - attached(trail)) : 0;
        for (ExitTerms.Target target : terms.targets()) {
            targets.add(target.distance().filter(d -> !(d instanceof Distance.Level)).map(d -> exact(d, risk)));
        }
        Optional<Distance> after = terms.breakeven().flatMap(ExitTerms.Breakeven::after)
                .filter(d -> !(d instanceof Distance.Level));
        this.breakevenAfter = after.map(d -> Math.max(1, exact(d, risk).ceil())).orElse(Long.MAX_VALUE);
        long offset = terms.breakeven().map(ExitTerms.Breakeven::offset)
                .filter(d -> !(d instanceof Distance.Level)).map(d -> exact(d, risk).ceil()).orElse(0L);
        this.breakevenOffset = after.isPresent() ? Math.min(offset, breakevenAfter - 1) : offset;
    }

    /** Whether every study that a distance needs is there. */
    static boolean complete(ExitTerms terms, Readings readings) {
        return terms.distances().allMatch(d -> d.takes().map(text -> !Double.isNaN(readings.at(text))).orElse(true));
    }

    /** A distance in whole ticks, rounded up; not for a study's level. */
    long ticks(Distance distance) {
        return exact(distance, risk).ceil();
    }

    private Ratio exact(Distance distance, long risk) {
        return switch (distance) {
            case Distance.Ticks t -> Ratio.of(t.ticks());
            case Distance.Price p -> Ratio.of(p.price()).over(Ratio.of(contract.tickSize()));
            case Distance.PerContract m -> Ratio.of(m.money(), contract.tickValue());
            case Distance.WholePosition m -> Ratio.of(m.money(), Math.multiplyExact(contract.tickValue(), quantity));
            case Distance.Percent p -> percent(p, Ratio.of(price));
            case Distance.Risks r -> Ratio.of(r.times()).times(Ratio.of(risk));
            case Distance.Times t -> Ratio.of(new BigDecimal(t.times().doubleValue() * readings.at(t.study())));
            case Distance.Level l -> throw new IllegalStateException(l.study() + " is a level, no distance");
        };
    }

    private static Ratio percent(Distance.Percent p, Ratio of) {
        return Ratio.of(p.percent()).times(Ratio.of(1, 100)).times(of.magnitude());
    }

    /** Where the plan's own stop stands for an average, so many contracts being open. */
    long stop(Average average, int open) {
        Distance distance = terms.stop().orElseThrow().distance();
        Ratio ticks = switch (distance) {
            case Distance.Level ignored -> null;
            case Distance.Percent p -> atLeastATick(percent(p, average.exact()));
            case Distance.WholePosition m ->
                atLeastATick(Ratio.of(m.money(), Math.multiplyExact(contract.tickValue(), open)));
            default -> stop.orElseThrow();
        };
        if (ticks == null) {
            return stopLevel;
        }
        // money and percent are never further than asked, all else goes away from the market
        boolean nearer = distance instanceof Distance.PerContract || distance instanceof Distance.WholePosition
                || distance instanceof Distance.Percent;
        Ratio at = average.exact().plus(side == Side.LONG ? ticks.negated() : ticks);
        return (side == Side.LONG) == nearer ? at.ceil() : at.floor();
    }

    private static Ratio atLeastATick(Ratio ticks) {
        return ticks.isBelow(Ratio.ONE) ? Ratio.ONE : ticks;
    }

    /** The level that the bracket is attached with: the tightest of the plan's stop and of trail steps from 0. */
    private long attached(List<Trail> steps) {
        long level = stop(new Average(price, 1), open);
        for (Trail step : steps) {
            if (step.activate() == 0) {
                level = side.tighter(level, price - side.sign() * step.distance());
            }
        }
        return level;
    }

    /** By activation; of equal ones the nearer distance counts. */
    private List<Trail> trail(long risk, boolean all) {
        List<Trail> steps = new ArrayList<>();
        for (ExitTerms.TrailStep step : terms.trail()) {
            boolean counts = step.activate() instanceof Distance.Risks || step.distance() instanceof Distance.Risks
                    || step.step() instanceof Distance.Risks;
            if (all || !counts) {
                Trail next = new Trail(Math.max(0, exact(step.activate(), risk).ceil()),
                        Math.max(1, exact(step.distance(), risk).ceil()), Math.max(1, exact(step.step(), risk).ceil()));
                if (steps.stream()
                        .noneMatch(t -> t.activate() == next.activate() && t.distance() <= next.distance())) {
                    steps.removeIf(t -> t.activate() == next.activate());
                    steps.add(next);
                }
            }
        }
        steps.sort(Comparator.comparingLong(Trail::activate));
        return List.copyOf(steps);
    }

    /** Where a target stands for an average; by a study's level where it has one. */
    long target(int leg, Average average, Readings now) {
        if (terms.targets().get(leg).distance().orElseThrow() instanceof Distance.Level(String study)) {
            double level = now.at(study);
            return targetLevel(side, Double.isNaN(level) ? readings.at(study) : level);
        }
        Ratio ticks = targets.get(leg).orElseThrow();
        return side == Side.LONG ? average.exact().plus(ticks).ceil() : average.exact().plus(ticks.negated()).floor();
    }

    /** A study's level as a stop's price, rounded away from the market. */
    static long stopLevel(Side side, double level) {
        return whole(side == Side.LONG ? Math.floor(level) : Math.ceil(level));
    }

    /** The same as a target's. */
    static long targetLevel(Side side, double level) {
        return whole(side == Side.LONG ? Math.ceil(level) : Math.floor(level));
    }

    private static long whole(double level) {
        if (Double.isNaN(level) || Math.abs(level) > 1e15) {
            throw new IllegalStateException("no level: " + level);
        }
        return (long) level;
    }
}
