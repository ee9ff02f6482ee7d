package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import stativex.order.Fill;
import stativex.order.Owner;

/** What happened in a run, in order; only ever added to. The lists it gives are what there was when they were asked for. */
public final class Log {
    private final Kept<Decision> decisions = new Kept<>();
    private final Kept<Fill> fills = new Kept<>();
    private final Kept<Trade> trades = new Kept<>();

    private final List<Kept<Decision>> decisionsByOwner = new ArrayList<>();
    private final List<Kept<Trade>> tradesByOwner = new ArrayList<>();

    Log() {}

    private static <T> Kept<T> of(List<Kept<T>> kept, Owner owner) {
        // the person first, then the strategies
        return of(kept, owner instanceof Owner.Strategy strategy ? strategy.index() + 1 : 0);
    }

    private static <T> Kept<T> of(List<Kept<T>> kept, int strategy) {
        while (kept.size() <= strategy) {
            kept.add(new Kept<>());
        }
        return kept.get(strategy);
    }

    void add(Decision decision) {
        decisions.add(decision);
        decision.owner().ifPresent(owner -> of(decisionsByOwner, owner).add(decision));
    }

    void add(Fill fill) {
        fills.add(fill);
    }

    void add(Trade trade) {
        trades.add(trade);
        of(tradesByOwner, trade.owner()).add(trade);
    }

    /** Those of one owner. */
    public List<Decision> decisions(Owner owner) {
        return of(decisionsByOwner, owner).view();
    }

    /** Finished trades of one owner. */
    public List<Trade> trades(Owner owner) {
        return of(tradesByOwner, owner).view();
    }

    public List<Decision> decisions() {
        return decisions.view();
    }

    public List<Fill> fills() {
        return fills.view();
    }

    /** Finished trades in order of their ends. */
    public List<Trade> trades() {
        return trades.view();
    }
}
