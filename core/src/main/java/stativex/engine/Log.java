package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import stativex.order.Fill;

/** What happened in a run, in order; only ever added to. */
public final class Log {
    private final List<Decision> decisions = new ArrayList<>();
    private final List<Fill> fills = new ArrayList<>();
    private final List<Trade> trades = new ArrayList<>();

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
        return decisions;
    }

    public List<Fill> fills() {
        return fills;
    }

    /** Finished trades in order of their ends. */
    public List<Trade> trades() {
        return trades;
    }
}
