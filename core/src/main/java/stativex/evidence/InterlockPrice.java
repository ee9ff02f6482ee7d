package stativex.evidence;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import stativex.engine.Decision;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.interlock.Reason;
import stativex.market.ContractTape;
import stativex.order.Owner;
import stativex.trial.PastTrades;
import stativex.trial.Run;

/**
 * What an interlock saved or cost: the signals that it declined in a run, each followed as a would-be trade. Money. Source: SEMANTICS,
 * "Interlocks" (would-be trades).
 *
 * @param declined signals
 * @param trades of them that would have been entered
 * @param net of these; what the interlock saved is the same with the other sign
 */
public record InterlockPrice(Reason reason, int declined, int trades, long net) {
    /** What it saved, below 0 where it cost. */
    public long saved() {
        return -net;
    }

    /**
     * Every interlock that declined something in a finished run, in the order in which they are asked. Signals of strategies that are
     * judged on every trade have no bar to be followed from and are left out.
     *
     * @param past of the run's own contract and terms
     * @param stop asked between trades whether to give up
     * @return empty when it said so
     */
    public static Optional<List<InterlockPrice>> of(Run run, PastTrades past, BooleanSupplier stop) {
        Map<Reason, InterlockPrice> prices = new EnumMap<>(Reason.class);
        Map<String, ContractTape> others = run.inputs().others();
        for (Decision decision : run.engine().log().decisions()) {
            if (stop.getAsBoolean()) {
                return Optional.empty();
            }
            if (decision.outcome() instanceof Decision.Declined(var refusal) && decision.bar() >= 0
                    && decision.market() == 0 && decision.owner().orElse(null) instanceof Owner.Strategy(int index)
                    && decision.side().isPresent()) {
                Strategy strategy = run.inputs().strategies().get(index);
                if (strategy.signals().evaluate() == SignalPlan.Evaluate.BAR_CLOSE) {
                    Optional<Trade> trade = past.wouldBe(strategy, others, decision.side().get(), decision.bar())
                            .trade();
                    prices.merge(refusal.reason(), new InterlockPrice(refusal.reason(), 1, trade.isPresent() ? 1 : 0,
                            trade.map(Trade::net).orElse(0L)), InterlockPrice::plus);
                }
            }
        }
        return Optional.of(new ArrayList<>(prices.values()));
    }

    private InterlockPrice plus(InterlockPrice other) {
        return new InterlockPrice(reason, declined + other.declined, trades + other.trades,
                Math.addExact(net, other.net));
    }
}
