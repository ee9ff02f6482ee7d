package stativex.exit;

import java.util.Optional;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * Where the stop of one trade stands: the tightest so far of the initial stop, the breakeven move and the active trail
 * step. It never loosens by itself. All arithmetic is exact; levels that fall off the grid round away from the market.
 * Source: SEMANTICS, "Exit plans".
 */
public final class StopPath {
    private final ExitPlan plan;
    private final Side side;
    private final Contract contract;
    private Average average;
    private long bestPrice;
    private boolean breakevenSet;
    /** The average has moved since the best was judged. */
    private boolean judge;
    private boolean hasLevel;
    private long level;
    private StopOrigin origin = StopOrigin.STOP;

    /** @param average of the first entry fill */
    public StopPath(ExitPlan plan, Side side, Contract contract, Average average) {
        this.plan = plan;
        this.side = side;
        this.contract = contract;
        this.average = average;
        this.bestPrice = side == Side.LONG ? Long.MIN_VALUE : Long.MAX_VALUE;
        planned();
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

    public StopOrigin origin() {
        return origin;
    }

    /** Best excursion so far in whole ticks, rounded down, at least 0. */
    public long best() {
        return Math.max(0, excursion(1, 0));
    }

    /** Grid price of a distance in favour of the average, rounded away from the market for a stop. */
    public long atDistance(long ticks) {
        return average.away(side, ticks);
    }

    /** Grid price of a target {@code ticks} away, rounded away from the market. */
    public long target(long ticks) {
        return side == Side.LONG ? average.ceil(ticks) : average.floor(-ticks);
    }

    /**
     * A later fill moved the average. What the best now reaches is judged with the next {@link #print}. Returns whether the
     * level moved (it only ever tightens).
     */
    public boolean moveAverage(Average moved) {
        average = moved;
        judge = true;
        boolean changed = planned();
        return breakevenSet && tighten(atDistance(plan.breakeven().orElseThrow().offset()), StopOrigin.BREAKEVEN)
                || changed;
    }

    private boolean planned() {
        return plan.stop().isPresent() && tighten(plan.stop().get().level(average, side, contract), StopOrigin.STOP);
    }

    /**
     * A print after the one that made the first entry fill. Returns whether the level moved.
     *
     * @param price ticks
     */
    public boolean print(long price) {
        boolean further = side == Side.LONG ? price > bestPrice : price < bestPrice;
        if (!further && !judge) {
            return false;
        }
        judge = false;
        bestPrice = further ? price : bestPrice;
        return refresh();
    }

    /** The average has moved: the next print is judged wherever it lies. */
    boolean restless() {
        return judge;
    }

    /** See {@link PlanRun#nextMove}. */
    long nextMove() {
        long never = side == Side.LONG ? Long.MAX_VALUE : Long.MIN_VALUE;
        // a best that lies against the trade is still 0: nothing moves before it is passed
        long next = never;
        if (plan.breakeven().isPresent() && !breakevenSet) {
            next = nearer(next, reaches(plan.breakeven().get().after()));
        }
        ExitPlan.TrailStep active = active();
        for (int i = 0; i < plan.trail().size(); i++) {
            ExitPlan.TrailStep step = plan.trail().get(i);
            if (step != active && (active == null || step.activate() > active.activate())) {
                next = nearer(next, reaches(step.activate()));
            }
        }
        if (active != null) {
            long steps = Math.max(0, excursion(active.step(), active.activate()));
            next = nearer(next, reaches(active.activate() + active.step() * (steps + 1)));
        }
        return next;
    }

    /** The first price at which the excursion is {@code ticks} or more. */
    private long reaches(long ticks) {
        return side == Side.LONG ? average.ceil(ticks) : average.floor(-ticks);
    }

    private long nearer(long a, long b) {
        return side == Side.LONG ? Math.min(a, b) : Math.max(a, b);
    }

    /** Takes prints that move nothing: the furthest in favour of them. */
    void quiet(long furthest) {
        bestPrice = side == Side.LONG ? Math.max(bestPrice, furthest) : Math.min(bestPrice, furthest);
    }

    /** The person moves the stop to breakeven: the average + {@code offset}. Returns whether the level moved. */
    public boolean byHand(long offset) {
        return tighten(atDistance(offset), StopOrigin.BREAKEVEN);
    }

    private boolean refresh() {
        boolean moved = false;
        if (plan.breakeven().isPresent()) {
            ExitPlan.Breakeven breakeven = plan.breakeven().get();
            if (breakevenSet || excursion(1, breakeven.after()) >= 0) {
                breakevenSet = true;
                moved = tighten(atDistance(breakeven.offset()), StopOrigin.BREAKEVEN);
            }
        }
        ExitPlan.TrailStep active = active();
        if (active != null) {
            long steps = Math.max(0, excursion(active.step(), active.activate()));
            long distance = active.activate() - active.distance() + active.step() * steps;
            moved |= tighten(atDistance(distance), StopOrigin.TRAIL);
        }
        return moved;
    }

    /** The trail step with the largest activation that the best has reached; null when there is none. */
    private ExitPlan.TrailStep active() {
        ExitPlan.TrailStep active = null;
        for (int i = 0; i < plan.trail().size(); i++) {
            ExitPlan.TrailStep step = plan.trail().get(i);
            if (step.activate() == 0 || excursion(1, step.activate()) >= 0) {
                active = step;
            }
        }
        return active;
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

    private boolean tighten(long price, StopOrigin by) {
        if (hasLevel && side.tighter(level, price) == level) {
            return false;
        }
        level = price;
        origin = by;
        hasLevel = true;
        return true;
    }
}
