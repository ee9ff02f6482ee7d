package stativex.exit;

import java.util.Optional;
import java.util.OptionalLong;
import stativex.market.Side;

/**
 * Where the stop of one trade stands: the tightest so far of the initial stop, the breakeven move, the active trail
 * step and what it follows. It never loosens by itself. All arithmetic is exact; levels that fall off the grid round away from the
 * market. Source: SEMANTICS, "Exit plans".
 */
public final class StopPath {
    private final ExitTerms terms;
    private final PlanFigures figures;
    private final Side side;
    private final boolean atClose;
    private Average average;
    private long bestPrice;
    private boolean breakevenSet;
    /** Where breakeven puts the stop by a study's level, once it is set; {@link PlanFigures#NO_LEVEL}: by its offset. */
    private long breakevenLevel = PlanFigures.NO_LEVEL;
    /** What the studies that breakeven asks for say at the last bar; NaN: nothing. */
    private double trigger = Double.NaN;
    private double offsetLevel = Double.NaN;
    /** The average, or what studies say, has moved since the best was judged. */
    private boolean judge;
    private boolean hasLevel;
    private long level;
    /** The tightest that automation has asked for; after the person has put the stop elsewhere it moves only beyond that. */
    private boolean hasAsked;
    private long asked;
    private StopOrigin origin = StopOrigin.STOP;
    private boolean moveKnown;
    private long move;

    /**
     * @param average of the first entry fill
     * @param open contracts that it opened
     */
    StopPath(ExitTerms terms, PlanFigures figures, Side side, Average average, int open) {
        this.terms = terms;
        this.figures = figures;
        this.side = side;
        this.atClose = terms.judged() == ExitTerms.Judged.BAR_CLOSE;
        this.average = average;
        this.bestPrice = side == Side.LONG ? Long.MIN_VALUE : Long.MAX_VALUE;
        planned(open);
        trail();
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

    /**
     * A later entry fill. What the best now reaches is judged with the next {@link #print}. Returns whether the level moved (it only
     * ever tightens).
     *
     * @param moved the average now; {@code open} contracts
     */
    boolean entered(Average moved, int open) {
        moveKnown = false;
        judge |= !moved.equals(average);
        average = moved;
        boolean changed = planned(open);
        return breakevenSet && tighten(breakeven(), StopOrigin.BREAKEVEN) || changed;
    }

    private boolean planned(int open) {
        return terms.stop().isPresent() && tighten(figures.stop(average, open), StopOrigin.STOP);
    }

    /** What studies say at the last closed bar: breakeven may ask for them. */
    void read(Readings now) {
        moveKnown = false;
        terms.breakeven().ifPresent(b -> {
            if (b.after().orElse(null) instanceof Distance.Level(String study)) {
                trigger = now.at(study);
                judge = true;
            }
            if (b.offset() instanceof Distance.Level(String study)) {
                offsetLevel = now.at(study);
            }
        });
    }

    /**
     * A print after the one that made the first entry fill. Returns whether the level moved.
     *
     * @param price ticks
     * @param filled the target that breakeven waits for is filled
     */
    boolean print(long price, boolean filled) {
        boolean further = take(price);
        if (atClose || !further && !judge && !filled) {
            return false;
        }
        judge = false;
        return refresh(filled);
    }

    private boolean take(long price) {
        moveKnown = false;
        boolean further = side == Side.LONG ? price > bestPrice : price < bestPrice;
        bestPrice = further ? price : bestPrice;
        return further;
    }

    /**
     * A signal bar has closed; {@link #read} has been told of it. Returns whether the level moved.
     *
     * @param belongs the price of the last print, when it belongs to that bar and came after the entry's; empty: it does not
     * @param since bars since the entry
     * @param filled the target that breakeven waits for is filled
     */
    boolean barClosed(long close, OptionalLong belongs, int since, Readings now, boolean filled) {
        if (atClose) {
            // else the print itself is judged, after the bar
            belongs.ifPresent(this::take);
        }
        boolean moved = false;
        if (terms.follow().isPresent()) {
            double followed = now.at(terms.follow().get());
            moved = !Double.isNaN(followed) && tighten(PlanFigures.stopLevel(side, followed), StopOrigin.FOLLOW);
        }
        boolean waited = terms.breakeven()
                .filter(b -> b.bars().isPresent() && since >= b.bars().getAsInt() && beyond(close)).isPresent();
        if (waited) {
            moved |= setBreakeven();
        }
        return atClose && refresh(filled) || moved;
    }

    /** Whether a close lies beyond the level of breakeven in favour. */
    private boolean beyond(long close) {
        if (terms.breakeven().orElseThrow().offset() instanceof Distance.Level) {
            return side.sign() * (close - offsetLevel) > 0;
        }
        return inProfit(Math.subtractExact(close, side.sign() * figures.breakevenOffset));
    }

    /** Whether a price lies beyond the average in favour. */
    boolean inProfit(long price) {
        return side.sign() * Math.subtractExact(Math.multiplyExact(price, average.quantity()), average.sum()) > 0;
    }

    /** The average has moved: the next print is judged wherever it lies. */
    boolean restless() {
        return judge;
    }

    /** See {@link PlanRun#nextMove}. Prints that come nowhere near it do not change it: it is worked once until anything happens. */
    long nextMove() {
        if (!moveKnown) {
            move = workNextMove();
            moveKnown = true;
        }
        return move;
    }

    private long workNextMove() {
        long never = side == Side.LONG ? Long.MAX_VALUE : Long.MIN_VALUE;
        if (atClose) {
            return never;
        }
        // a best that lies against the trade is still 0: nothing moves before it is passed
        long next = never;
        if (!breakevenSet && terms.breakeven().isPresent()) {
            if (figures.breakevenAfter != Long.MAX_VALUE) {
                next = nearer(next, reaches(figures.breakevenAfter));
            }
            if (!Double.isNaN(trigger)) {
                next = nearer(next, (long) (side == Side.LONG ? Math.ceil(trigger) : Math.floor(trigger)));
            }
        }
        PlanFigures.Trail active = active();
        for (int i = 0; i < figures.trail.size(); i++) {
            PlanFigures.Trail step = figures.trail.get(i);
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

    /** The person puts the stop somewhere. */
    void put(long price) {
        level = price;
        origin = StopOrigin.STOP;
        hasLevel = true;
    }

    /** Another plan led the trade before: its best, and its level as long as that is the tighter one. */
    void goesOn(StopPath before) {
        bestPrice = before.bestPrice;
        moveKnown = false;
        if (before.hasLevel) {
            tighten(before.level, before.origin);
        }
        if (!atClose && bestPrice != Long.MIN_VALUE && bestPrice != Long.MAX_VALUE) {
            refresh(false);
        }
    }

    private boolean refresh(boolean filled) {
        boolean moved = false;
        if (breakevenSet || filled || terms.breakeven().isPresent() && far()) {
            moved = setBreakeven();
        }
        return trail() || moved;
    }

    /** Whether the best has reached what breakeven waits for. */
    private boolean far() {
        if (figures.breakevenAfter != Long.MAX_VALUE) {
            return excursion(1, figures.breakevenAfter) >= 0;
        }
        // the best as a price: the average, or beyond it
        double best = side == Side.LONG
                ? Math.max(average.asDouble(), bestPrice)
                : Math.min(average.asDouble(), bestPrice);
        return !Double.isNaN(trigger) && side.sign() * (best - trigger) >= 0;
    }

    /** Once set it stays; by a study's level it waits until there is one. */
    private boolean setBreakeven() {
        moveKnown = false;
        if (!breakevenSet && terms.breakeven().orElseThrow().offset() instanceof Distance.Level) {
            if (Double.isNaN(offsetLevel)) {
                return false;
            }
            breakevenLevel = PlanFigures.stopLevel(side, offsetLevel);
        }
        breakevenSet = true;
        return tighten(breakeven(), StopOrigin.BREAKEVEN);
    }

    private long breakeven() {
        return breakevenLevel != PlanFigures.NO_LEVEL ? breakevenLevel : atDistance(figures.breakevenOffset);
    }

    private boolean trail() {
        PlanFigures.Trail active = active();
        if (active == null) {
            return false;
        }
        long steps = Math.max(0, excursion(active.step(), active.activate()));
        return tighten(atDistance(active.activate() - active.distance() + active.step() * steps), StopOrigin.TRAIL);
    }

    /** The trail step with the largest activation that the best has reached; null when there is none. */
    private PlanFigures.Trail active() {
        PlanFigures.Trail active = null;
        for (int i = 0; i < figures.trail.size(); i++) {
            PlanFigures.Trail step = figures.trail.get(i);
            if (step.activate() == 0 || excursion(1, step.activate()) >= 0) {
                active = step;
            }
        }
        return active;
    }

    /** Whether breakeven may still be set. */
    boolean waitsForBreakeven() {
        return terms.breakeven().isPresent() && !breakevenSet;
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
        if (hasAsked && side.tighter(asked, price) == asked) {
            return false;
        }
        asked = price;
        hasAsked = true;
        if (hasLevel && side.tighter(level, price) == level) {
            return false;
        }
        level = price;
        origin = by;
        hasLevel = true;
        return true;
    }
}
