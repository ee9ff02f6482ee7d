package stativex.exit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * An exit plan at work on one trade. It takes entry fills and prints and answers with {@link Wishes}; it knows no order and no
 * engine, so that a trade that might have been is managed by the same class. Source: SEMANTICS, "Exit plans".
 */
public final class PlanRun {
    /**
     * What the plan wants of the trade's orders.
     *
     * @param stop where the stop is to stand, if it is to be attached or moved; empty: as it stands, or nowhere
     * @param targets limits to be offered or moved
     * @param leave the stop is reached already: everything leaves at the market
     */
    public record Wishes(Optional<Stop> stop, List<Target> targets, boolean leave) {
        /** Nothing is to be done. */
        public static final Wishes NONE = new Wishes(Optional.empty(), List.of(), false);

        public Wishes {
            targets = List.copyOf(targets);
        }
    }

    /** @param level ticks */
    public record Stop(long level, StopOrigin origin) {}

    /**
     * @param leg from 1, in the plan's order
     * @param added contracts newly offered
     * @param price ticks
     * @param moved what the leg offers already is to be moved there
     */
    public record Target(int leg, int added, long price, boolean moved) {}

    private final ExitPlan plan;
    private final Side side;
    private final StopPath path;
    private final int[] allotted;
    /** Where each leg's limit was last wished to stand. */
    private final long[] offered;

    /** A trade's first entry fill, in ticks; {@link #entered} is told of it, too. */
    public PlanRun(ExitPlan plan, Side side, Contract contract, long price) {
        this.plan = plan;
        this.side = side;
        this.path = new StopPath(plan, side, contract, new Average(price, 1));
        this.allotted = new int[plan.targets().size()];
        this.offered = new long[allotted.length];
    }

    public ExitPlan plan() {
        return plan;
    }

    public Average average() {
        return path.average();
    }

    /** Where the stop stands; empty without one. */
    public Optional<Stop> stop() {
        return path.hasLevel() ? Optional.of(new Stop(path.levelTicks(), path.origin())) : Optional.empty();
    }

    /**
     * Contracts entered. The bracket is to be attached or enlarged, and to follow where the average moved; a stop that this fill
     * set or moved strictly beyond the print is reached.
     *
     * @param openBefore contracts open before; 0 with the trade's first fill
     * @param price of the fill; {@code print} that of the print that filled it, ticks
     */
    public Wishes entered(int openBefore, int contracts, long price, long print) {
        boolean moved = openBefore == 0
                || path.moveAverage(path.average().with(openBefore, contracts, price));
        boolean beyond = path.hasLevel() && moved && side.sign() * (path.levelTicks() - print) > 0;
        return new Wishes(moved ? stop() : Optional.empty(), targets(contracts), beyond);
    }

    private List<Target> targets(int contracts) {
        int[] given = allot(contracts);
        List<Target> wished = new ArrayList<>();
        for (int leg = 0; leg < given.length; leg++) {
            Optional<Long> ticks = plan.targets().get(leg).ticks();
            if (ticks.isPresent() && allotted[leg] > 0) {
                long price = path.target(ticks.get());
                boolean moved = allotted[leg] > given[leg] && price != offered[leg];
                if (given[leg] > 0 || moved) {
                    wished.add(new Target(leg + 1, given[leg], price, moved));
                }
                offered[leg] = price;
            }
        }
        return wished;
    }

    /** To the legs in listed order; what exceeds all targets goes to the runner, without a runner to the last target. */
    private int[] allot(int contracts) {
        int[] given = new int[allotted.length];
        int left = contracts;
        int last = -1;
        for (int leg = 0; leg < allotted.length; leg++) {
            given[leg] = Math.max(0, Math.min(left, plan.targets().get(leg).quantity() - allotted[leg]));
            left -= given[leg];
            if (last < 0 || plan.targets().get(last).ticks().isPresent()) {
                last = leg;
            }
        }
        if (left > 0 && last >= 0) {
            given[last] += left;
        }
        Arrays.setAll(allotted, leg -> allotted[leg] + given[leg]);
        return given;
    }

    /** A print after the one that made the first entry fill, in its step (4). */
    public Wishes print(long price) {
        return path.print(price) ? moved(price) : Wishes.NONE;
    }

    /**
     * The person moves the stop to the average, if that tightens it. Where the market has passed it already nothing happens: that
     * would be a flatten in disguise, which has a command of its own.
     */
    public Wishes breakeven(long lastPrice) {
        boolean passed = side.reached(path.atDistance(0), lastPrice);
        return !passed && path.byHand(0) ? moved(lastPrice) : Wishes.NONE;
    }

    private Wishes moved(long price) {
        boolean reached = side.reached(path.levelTicks(), price);
        return new Wishes(reached ? Optional.empty() : stop(), List.of(), reached);
    }

    /**
     * The nearest price in favour at which, or beyond which, {@link #print} may move the stop; the price furthest in favour that
     * there is when none does.
     */
    public long nextMove() {
        return path.nextMove();
    }

    /** Whether the next print may move the stop wherever it lies, since the average has moved. */
    public boolean restless() {
        return path.restless();
    }

    /** Takes prints between which nothing moves: the furthest in favour of them, ticks. */
    public void quiet(long furthest) {
        path.quiet(furthest);
    }
}
