package stativex.order;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import stativex.market.Side;

/**
 * The orders of one trade that belong together: its entries, one stop for all that is open, one limit per target leg,
 * and leaves at the market. The exchange keeps their quantities in step (one cancels another).
 */
public final class Bracket {
    private final int owner;
    private final Side side;
    final List<Order> entries = new ArrayList<>(1);
    final List<Order> targets = new ArrayList<>(2);
    final List<Order> leaves = new ArrayList<>(1);
    Optional<Order> stop = Optional.empty();
    int open;
    int freshPrint = -1;
    int fresh;
    int metPrint = -1;

    /** @param owner index of the strategy that owns it */
    public Bracket(int owner, Side side) {
        this.owner = owner;
        this.side = side;
    }

    public int owner() {
        return owner;
    }

    public Side side() {
        return side;
    }

    /** Contracts open. */
    public int open() {
        return open;
    }

    public Optional<Order> stop() {
        return stop;
    }

    /** Working limits in the order of the plan's legs; a leg without an order (the runner) is left out. */
    public List<Order> targets() {
        return targets;
    }

    public List<Order> entries() {
        return entries;
    }

    public List<Order> leaves() {
        return leaves;
    }

    /** Contracts that entries may still open. */
    public int entering() {
        int rest = 0;
        for (int i = 0; i < entries.size(); i++) {
            Order entry = entries.get(i);
            rest += entry.state.live() ? entry.rest() : 0;
        }
        return rest;
    }

    /** Whether an order is on its way that leaves everything at the market. */
    public boolean leaveSent() {
        for (int i = 0; i < leaves.size(); i++) {
            Order leave = leaves.get(i);
            if (leave.everything && leave.state.live()) {
                return true;
            }
        }
        return false;
    }

    /** Whether everything is being left: by a leave, or by a stop that has triggered. */
    public boolean leaving() {
        return leaveSent() || stop.isPresent() && stop.get().triggered && stop.get().state.live();
    }

    /** Whether an order at the market is on its way that takes a part off. */
    public boolean takingOff() {
        for (int i = 0; i < leaves.size(); i++) {
            Order leave = leaves.get(i);
            if (!leave.everything && leave.state.live()) {
                return true;
            }
        }
        return false;
    }

    /** Contracts that may leave on {@code print}: those that did not enter on it. */
    int free(int print) {
        return freshPrint == print ? open - fresh : open;
    }

    void entered(int contracts, int print) {
        fresh = freshPrint == print ? fresh + contracts : contracts;
        freshPrint = print;
        open += contracts;
    }

    /** Reductions after an exit's fill, the exchange's own; they take no latency. {@code end} ends an order. */
    void keepInStep(Order exit, Consumer<Order> end) {
        stop.filter(stop -> stop != exit).ifPresent(stop -> stop.quantity = stop.filled + open);
        if (exit.role() != Order.Role.TARGET) {
            int offered = 0;
            for (Order target : targets) {
                offered += target.state.live() ? target.rest() : 0;
            }
            for (int i = targets.size() - 1; i >= 0 && offered > open; i--) {
                Order target = targets.get(i);
                if (target.state.live()) {
                    int less = Math.min(target.rest(), offered - open);
                    target.quantity -= less;
                    offered -= less;
                    if (target.rest() == 0) {
                        end.accept(target);
                    }
                }
            }
        }
        if (open == 0) {
            stop.ifPresent(end);
            targets.forEach(end);
            leaves.forEach(end);
        }
        if (open == 0 || exit.role() == Order.Role.STOP || exit.everything) {
            entries.forEach(end);
        }
    }
}
