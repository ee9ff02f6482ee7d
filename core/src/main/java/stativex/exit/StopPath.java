package stativex.exit;

import java.util.Optional;
import stativex.market.Side;

/**
 * Where the stop of one trade stands: the tightest so far of the initial stop, the breakeven move and the active trail
 * step. It never loosens by itself. All arithmetic is exact; levels that fall off the grid round away from the market.
 * Source: SEMANTICS, "Exit plans".
 */
public final class StopPath {
    /** What set the level; the reason of a fill at it. */
    public enum Origin {
        STOP("stop"), BREAKEVEN("breakeven"), TRAIL("trail");

        private final String word;

        Origin(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    private final ExitPlan plan;
    private final Side side;
    private final long initialDistance;
    private Average average;
    private long bestPrice;
    private boolean breakevenSet;
    private boolean hasLevel;
    private long level;
    private Origin origin = Origin.STOP;

    /** @param initialDistance ticks from the average to the initial stop; 0 for a plan without a stop */
    public StopPath(ExitPlan plan, Side side, long initialDistance, Average average) {
        this.plan = plan;
        this.side = side;
        this.initialDistance = initialDistance;
        this.average = average;
        this.bestPrice = side == Side.LONG ? Long.MIN_VALUE : Long.MAX_VALUE;
        if (initialDistance > 0) {
            tighten(atDistance(-initialDistance), Origin.STOP);
        }
        refresh();
    }

    public Average average() {
        return average;
    }

    public Optional<Long> level() {
        return hasLevel ? Optional.of(level) : Optional.empty();
    }

    public boolean hasLevel() {
        return hasLevel;
    }

    /** The level in ticks; meaningful only while {@link #hasLevel()}. */
    public long levelTicks() {
        return level;
    }

    public Origin origin() {
        return origin;
    }

    /** Best excursion so far in whole ticks, rounded down, at least 0. */
    public long best() {
        return Math.max(0, excursion(1, 0));
    }

    /** Grid price of a distance in favour of the average, rounded away from the market for a stop. */
    public long atDistance(long ticks) {
        return side == Side.LONG ? average.floor(ticks) : average.ceil(-ticks);
    }

    /** Grid price of a target {@code ticks} away, rounded away from the market. */
    public long target(long ticks) {
        return side == Side.LONG ? average.ceil(ticks) : average.floor(-ticks);
    }

    /** A later fill moved the average. Returns whether the level moved (it only ever tightens). */
    public boolean moveAverage(Average moved) {
        average = moved;
        boolean changed = initialDistance > 0 && tighten(atDistance(-initialDistance), Origin.STOP);
        return refresh() || changed;
    }

    /**
     * A print after the one that made the first entry fill. Returns whether the level moved.
     *
     * @param price ticks
     */
    public boolean print(long price) {
        boolean further = side == Side.LONG ? price > bestPrice : price < bestPrice;
        if (!further) {
            return false;
        }
        bestPrice = price;
        return refresh();
    }

    /** The person moves the stop to breakeven: the average + {@code offset}. Returns whether the level moved. */
    public boolean byHand(long offset) {
        return tighten(atDistance(offset), Origin.BREAKEVEN);
    }

    private boolean refresh() {
        boolean moved = false;
        if (plan.breakeven().isPresent()) {
            ExitPlan.Breakeven breakeven = plan.breakeven().get();
            if (breakevenSet || excursion(1, breakeven.after()) >= 0) {
                breakevenSet = true;
                moved = tighten(atDistance(breakeven.offset()), Origin.BREAKEVEN);
            }
        }
        ExitPlan.TrailStep active = null;
        for (int i = 0; i < plan.trail().size(); i++) {
            ExitPlan.TrailStep step = plan.trail().get(i);
            if (step.activate() == 0 || excursion(1, step.activate()) >= 0) {
                active = step;
            }
        }
        if (active != null) {
            long steps = Math.max(0, excursion(active.step(), active.activate()));
            long distance = active.activate() - active.distance() + active.step() * steps;
            moved |= tighten(atDistance(distance), Origin.TRAIL);
        }
        return moved;
    }

    /** floor((best − from) / step), exact; best is the furthest print, which may lie against the trade. */
    private long excursion(long step, long from) {
        if (bestPrice == Long.MIN_VALUE || bestPrice == Long.MAX_VALUE) {
            return Math.floorDiv(-from, step);
        }
        long q = average.quantity();
        long favour = Math.multiplyExact(side.sign(),
                Math.subtractExact(Math.multiplyExact(bestPrice, q), average.sum()));
        return Math.floorDiv(Math.subtractExact(favour, Math.multiplyExact(from, q)), Math.multiplyExact(step, q));
    }

    private boolean tighten(long price, Origin by) {
        if (hasLevel && side.tighter(level, price) == level) {
            return false;
        }
        level = price;
        origin = by;
        hasLevel = true;
        return true;
    }
}
