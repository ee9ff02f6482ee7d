package stativex.order;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.market.Side;

/**
 * The orders of one trade that belong together: its entries, one stop for all that is open, one limit per target leg, and leaves
 * at the market. What is open is known here and nowhere else. {@link Orders} keeps it; everyone else reads it.
 */
public final class Bracket {
    private Owner owner;
    private final Side side;
    private final List<Order> entries = new ArrayList<>(1);
    private final List<Order> targets = new ArrayList<>(2);
    private final List<Order> leaves = new ArrayList<>(1);
    private Optional<Order> stop = Optional.empty();
    private Optional<Bracket> pair = Optional.empty();
    private int open;
    /** Contracts of them that the broker does not have: somebody traded elsewhere. */
    private int missing;
    /** A leave of everything was refused, and is sent again after a while. */
    private boolean leavesAgain;
    private int freshPrint = -1;
    private int fresh;

    public Bracket(Owner owner, Side side) {
        this.owner = owner;
        this.side = side;
    }

    public Owner owner() {
        return owner;
    }

    /** Everything in it belongs to another from now on. */
    public void handTo(Owner taker) {
        owner = taker;
    }

    /** The other half of a two-sided entry: when one fills, the other's entries end. */
    public void pairWith(Bracket other) {
        pair = Optional.of(other);
    }

    /** The half that was there before, if it is the second one of a two-sided entry. */
    Optional<Bracket> pair() {
        return pair;
    }

    public Side side() {
        return side;
    }

    /** Contracts open. */
    public int open() {
        return open;
    }

    /** Contracts that exits may leave: those that are open, less what the broker does not have. */
    public int covered() {
        return open - missing;
    }

    void missing(int contracts) {
        missing = Math.min(contracts, open);
    }

    public Optional<Order> stop() {
        return stop;
    }

    /** Limits in the order in which they were offered; the runner has none. */
    public List<Order> targets() {
        return Collections.unmodifiableList(targets);
    }

    /** The live limit of a leg, if there is one. */
    public Optional<Order> target(int leg) {
        return targets.stream().filter(t -> t.state().live() && t.reason().equals(new FillReason.Target(leg)))
                .findFirst();
    }

    /** Entries that may still fill, or have filled. */
    public List<Order> entries() {
        return Collections.unmodifiableList(entries);
    }

    public List<Order> leaves() {
        return Collections.unmodifiableList(leaves);
    }

    /** Contracts that entries may still open. */
    public int entering() {
        int rest = 0;
        for (int i = 0; i < entries.size(); i++) {
            rest += entries.get(i).state().live() ? entries.get(i).rest() : 0;
        }
        return rest;
    }

    /** Whether nothing is open and nothing may open any more. */
    public boolean idle() {
        return open == 0 && entering() == 0;
    }

    /** Whether an order is on its way that leaves everything at the market, or will be sent again after it was refused. */
    public boolean leaveSent() {
        return leavesAgain || leave(true);
    }

    void leavesAgain(boolean soon) {
        leavesAgain = soon;
    }

    /** Whether an order at the market is on its way that takes a part off. */
    public boolean takingOff() {
        return leave(false);
    }

    private boolean leave(boolean everything) {
        for (int i = 0; i < leaves.size(); i++) {
            if (leaves.get(i).everything() == everything && leaves.get(i).state().live()) {
                return true;
            }
        }
        return false;
    }

    /** Whether everything is being left: by a leave, or by a stop that has triggered. */
    public boolean leaving() {
        return leaveSent() || stop.isPresent() && stop.get().triggered() && stop.get().state().live();
    }

    /** Contracts that may leave on {@code print}: those that did not enter on it. */
    int free(int print) {
        return freshPrint == print ? open - fresh : open;
    }

    void add(Order order) {
        switch (order.role()) {
            case ENTRY -> {
                // what ended without a fill has no say in anything any more
                entries.removeIf(entry -> !entry.state().live() && entry.filled() == 0);
                entries.add(order);
            }
            case STOP -> stop = Optional.of(order);
            case TARGET -> targets.add(order);
            case LEAVE -> leaves.add(order);
        }
    }

    void entered(int contracts, int print) {
        fresh = freshPrint == print ? fresh + contracts : contracts;
        freshPrint = print;
        open += contracts;
    }

    void left(int contracts) {
        open -= contracts;
        missing = Math.min(missing, open);
    }

    /** Contracts that live targets offer. */
    int offered() {
        int offered = 0;
        for (int i = 0; i < targets.size(); i++) {
            offered += targets.get(i).state().live() ? targets.get(i).rest() : 0;
        }
        return offered;
    }

    /** The place of the last live target in the list. */
    OptionalInt lastTarget() {
        for (int i = targets.size() - 1; i >= 0; i--) {
            if (targets.get(i).state().live()) {
                return OptionalInt.of(i);
            }
        }
        return OptionalInt.empty();
    }
}
