package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import stativex.order.Fill;

/** What happened in a run, in order; only ever added to. The lists it gives are what there was when they were asked for. */
public final class Log {
    private final Kept<Decision> decisions = new Kept<>();
    private final Kept<Fill> fills = new Kept<>();
    private final Kept<Trade> trades = new Kept<>();

    private final List<Kept<Decision>> decisionsByStrategy = new ArrayList<>();
    private final List<Kept<Trade>> tradesByStrategy = new ArrayList<>();

    Log() {}

    private static <T> Kept<T> of(List<Kept<T>> kept, int strategy) {
        while (kept.size() <= strategy) {
            kept.add(new Kept<>());
        }
        return kept.get(strategy);
    }

    void add(Decision decision) {
        decisions.add(decision);
        decision.strategy().ifPresent(strategy -> of(decisionsByStrategy, strategy).add(decision));
    }

    void add(Fill fill) {
        fills.add(fill);
    }

    void add(Trade trade) {
        trades.add(trade);
        of(tradesByStrategy, trade.strategy()).add(trade);
    }

    /** Those of one strategy, by index. */
    public List<Decision> decisions(int strategy) {
        return of(decisionsByStrategy, strategy).view();
    }

    /** Finished trades of one strategy. */
    public List<Trade> trades(int strategy) {
        return of(tradesByStrategy, strategy).view();
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
