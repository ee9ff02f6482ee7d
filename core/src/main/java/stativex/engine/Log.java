package stativex.engine;

import java.util.List;
import stativex.order.Fill;

/** What happened in a run, in order; only ever added to. The lists it gives are what there was when they were asked for. */
public final class Log {
    private final Kept<Decision> decisions = new Kept<>();
    private final Kept<Fill> fills = new Kept<>();
    private final Kept<Trade> trades = new Kept<>();

    Log() {}

    void add(Decision decision) {
        decisions.add(decision);
    }

    void add(Fill fill) {
        fills.add(fill);
    }

    void add(Trade trade) {
        trades.add(trade);
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
