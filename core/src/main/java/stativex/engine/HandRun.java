package stativex.engine;

import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import stativex.market.Side;
import stativex.order.Owner;

/** What the person has at work on one contract: orders sent by hand, and a position that they opened or that was handed over. */
final class HandRun extends OwnerRun {
    private final Map<Side, PlanRules> none = new EnumMap<>(Side.class);
    /** Whose plan, bars and studies the position is managed by. */
    private Optional<StrategyRun> guide = Optional.empty();

    HandRun(MarketRun market) {
        super(Owner.PERSON, market);
        for (Side side : Side.values()) {
            none.put(side, PlanRules.none());
        }
    }

    @Override
    Optional<StrategyRun> guide() {
        return guide;
    }

    /** The position, or the order that is to open it, takes the plan of a strategy; empty: none. */
    void guidedBy(Optional<StrategyRun> strategy) {
        guide = strategy;
    }

    @Override
    PlanRules plan(Side side) {
        return guide.map(strategy -> strategy.plan(side)).orElse(none.get(side));
    }
}
