package stativex.exit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * An exit plan at work on one trade. It takes entry fills, filled targets, prints and bar closes and answers with {@link Wishes}; it
 * knows no order and no engine, so that a trade that might have been is managed by the same class. Source: SEMANTICS, "Exit plans".
 */
public final class PlanRun {
    /**
     * What the plan wants of the trade's orders.
     *
     * @param stop where the broker's stop is to stand, if it is to be attached or moved; empty: as it stands, or nowhere
     * @param targets limits to be offered or moved
     * @param departure leaves at the market
     */
    public record Wishes(Optional<Stop> stop, List<Target> targets, Optional<Departure> departure) {
        /** Nothing is to be done. */
        public static final Wishes NONE = new Wishes(Optional.empty(), List.of(), Optional.empty());

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
     * @param moved what the leg offers already is to stand there, too
     */
    public record Target(int leg, int added, long price, boolean moved) {}

    /** Everything leaves, or a part. */
    public record Departure(Why why, OptionalInt quantity) {
        static final Departure STOP_AT_MARKET = new Departure(Why.STOP_AT_MARKET, OptionalInt.empty());

        Departure(Why why) {
            this(why, OptionalInt.empty());
        }
    }

    /** Why a plan leaves at the market by what prints and bars say. */
    public enum Why {
        STOP_AT_MARKET, LOCAL_STOP, AFTER_BARS, FIRST_CLOSE_IN_PROFIT, RULE
    }

    /** @param last the newest print's price when it belongs to the bar and came after the entry's; empty: it does not */
    public record BarClose(long close, int since, OptionalLong last) {}

    private final ExitTerms terms;
    /** Asked at every bar that closes: known from the beginning. */
    private final boolean needsBars;
    /** The target that breakeven waits for, if it waits for one. */
    private final OptionalInt breakevenLeg;
    private final Side side;
    private final PlanFigures figures;
    private final StopPath path;
    private final int[] allotted;
    private final int[] filled;
    private final List<Leave.Rule> taken = new ArrayList<>();
    /** A rest of the entry is still working. */
    private boolean entering;
    /** A stop that is held here has been reached, and contracts at or beyond it are counted. */
    private boolean reached;
    private long counted;
    /** The level has moved with the print that is worked: only the next one meets it. */
    private boolean movedNow;

    /**
     * A trade's first entry fill; {@link #entered} is told of it, too.
     *
     * @param price ticks
     * @param quantity of the order that made it, {@code open} contracts that it opened
     * @param sent studies at the last signal bar closed before that order was sent
     */
    public PlanRun(ExitTerms terms, Side side, Contract contract, long price, int quantity, int open, Readings sent) {
        this(terms, terms.needsBars(), side, contract, price, quantity, open, sent);
    }

    /** The same where {@link ExitTerms#needsBars} is known: finding it out goes through the whole plan. */
    public PlanRun(ExitTerms terms, boolean needsBars, Side side, Contract contract, long price, int quantity, int open,
            Readings sent) {
        this.terms = terms;
        this.needsBars = needsBars;
        this.breakevenLeg = breakevenLeg(terms);
        this.side = side;
        this.figures = new PlanFigures(terms, side, contract, price, quantity, open, sent);
        this.path = new StopPath(terms, figures, side, new Average(price, 1), open);
        this.allotted = new int[terms.targets().size()];
        this.filled = new int[allotted.length];
    }

    /**
     * A plan for a position that is open already: distances count from its real average, the best from now on.
     *
     * @param now studies at the last signal bar closed
     */
    public PlanRun(ExitTerms terms, Side side, Contract contract, Average average, int open, Readings now) {
        this.terms = terms;
        this.needsBars = terms.needsBars();
        this.breakevenLeg = breakevenLeg(terms);
        this.side = side;
        this.figures = new PlanFigures(terms, side, contract, average.away(side, 0), open, open, now);
        this.path = new StopPath(terms, figures, side, average, open);
        this.allotted = new int[terms.targets().size()];
        this.filled = new int[allotted.length];
    }

    /**
     * Another plan for a position that had one: distances count from its real average, the best so far counts, and the stop stands where
     * it stood unless the new plan has it tighter.
     */
    public PlanRun(ExitTerms terms, Contract contract, PlanRun before, int open, Readings now) {
        this(terms, before.side, contract, before.average(), open, now);
        path.read(now);
        path.goesOn(before.path);
    }

    /** What such a plan wants of the orders that are there: its stop and targets; a stop that the price has reached leaves at once. */
    public Wishes attached(int open, long lastPrice, Readings now) {
        path.read(now);
        List<Target> offered = targets(open, false, now);
        if (!path.hasLevel()) {
            return new Wishes(Optional.empty(), offered, Optional.empty());
        }
        boolean at = side.reached(path.levelTicks(), lastPrice);
        return new Wishes(broker(), offered, at ? already() : Optional.empty());
    }

    /**
     * Ticks from an entry to the level that the broker's stop would be attached with; below 0 when that lies beyond it. Empty
     * without a stop.
     *
     * @param price that the entry is expected to have, ticks
     * @param now studies at the bar whose signal it is
     */
    public static Optional<Long> risk(ExitTerms terms, Side side, Contract contract, long price, int quantity,
            Readings now) {
        return initialStop(terms, side, contract, price, quantity, now)
                .map(initial -> Math.addExact(initial, terms.stop().orElseThrow().local()
                        .map(ExitTerms.Local::disaster).orElse(0L)));
    }

    /** The same to the level that the plan's stop itself will have, be it held here or at the broker. */
    public static Optional<Long> initialStop(ExitTerms terms, Side side, Contract contract, long price, int quantity,
            Readings now) {
        return terms.stop()
                .map(stop -> new PlanFigures(terms, side, contract, price, quantity, quantity, now).initial);
    }

    /** Whether every study that an entry's plan needs is there. */
    public static boolean complete(ExitTerms terms, Readings now) {
        return PlanFigures.complete(terms, now);
    }

    public ExitTerms terms() {
        return terms;
    }

    /** Whether the close of a bar may change anything of the trade, or end it. */
    public boolean needsBars() {
        return needsBars;
    }

    public Average average() {
        return path.average();
    }

    /** Where the plan's stop stands, be it held here or at the broker; empty without one. */
    public Optional<Stop> stop() {
        return path.hasLevel() ? Optional.of(new Stop(path.levelTicks(), path.origin())) : Optional.empty();
    }

    /** Ticks from the first fill to the level that the plan's stop had then; empty without one. */
    public Optional<Long> initialStop() {
        return terms.stop().map(ignored -> figures.initial);
    }

    /** The broker has lost its stop: it is to stand where it stood. */
    public Wishes stopAgain() {
        return path.hasLevel() ? new Wishes(broker(), List.of(), Optional.empty()) : Wishes.NONE;
    }

    private Optional<Stop> broker() {
        return terms.local().isPresent()
                ? stop().map(
                        s -> new Stop(s.level() - side.sign() * terms.local().get().disaster(), StopOrigin.DISASTER))
                : stop();
    }

    /**
     * Contracts entered. The bracket is to be attached or enlarged, and to follow where the average moved; a stop that this fill
     * set or moved strictly beyond the print is reached.
     *
     * @param openBefore contracts open before; 0 with the trade's first fill
     * @param price of the fill; {@code print} that of the print that filled it, ticks
     * @param now studies at the last closed bar
     */
    public Wishes entered(int openBefore, int contracts, long price, long print, Readings now) {
        if (openBefore == 0) {
            path.read(now);
        }
        Average before = path.average();
        boolean moved = openBefore == 0
                || path.entered(before.with(openBefore, contracts, price), openBefore + contracts);
        boolean beyond = path.hasLevel() && moved && side.sign() * (path.levelTicks() - print) > 0;
        if (moved) {
            anew();
        }
        return new Wishes(moved ? broker() : Optional.empty(), targets(contracts, !path.average().equals(before), now),
                beyond ? already() : Optional.empty());
    }

    /** What studies say at the last closed bar. */
    public void read(Readings now) {
        path.read(now);
    }

    private void anew() {
        reached = false;
        counted = 0;
    }

    /** A level that is set where the market is already; a stop that counts contracts begins to. */
    private Optional<Departure> already() {
        if (counts()) {
            reached = true;
            return Optional.empty();
        }
        return Optional.of(Departure.STOP_AT_MARKET);
    }

    private boolean counts() {
        return terms.local().filter(local -> local.volume() > 0).isPresent();
    }

    private List<Target> targets(int contracts, boolean averageMoved, Readings now) {
        int[] given = allot(contracts);
        List<Target> wished = new ArrayList<>();
        for (int leg = 0; leg < given.length; leg++) {
            if (hasTarget(leg) && allotted[leg] > 0) {
                // what stands already is set anew where the average moved, and else only at bar closes
                boolean moved = allotted[leg] > given[leg] && averageMoved;
                if (given[leg] > 0 || moved) {
                    wished.add(new Target(leg + 1, given[leg], figures.target(leg, path.average(), now), moved));
                }
            }
        }
        return wished;
    }

    private boolean hasTarget(int leg) {
        return terms.targets().get(leg).distance().isPresent();
    }

    /** To the legs in listed order; what exceeds all targets goes to the runner, without a runner to the last target. */
    private int[] allot(int contracts) {
        int[] given = new int[allotted.length];
        int left = contracts;
        int last = -1;
        for (int leg = 0; leg < allotted.length; leg++) {
            given[leg] = Math.max(0, Math.min(left, terms.targets().get(leg).quantity() - allotted[leg]));
            left -= given[leg];
            if (last < 0 || hasTarget(last)) {
                last = leg;
            }
        }
        if (left > 0 && last >= 0) {
            given[last] += left;
        }
        Arrays.setAll(allotted, leg -> allotted[leg] + given[leg]);
        return given;
    }

    /** Contracts of a target have been filled. @param leg from 1 */
    public void filled(int leg, int contracts) {
        filled[leg - 1] += contracts;
    }

    /** Whether a rest of the entry still works; breakeven with a filled target waits for its end. */
    public void entering(boolean still) {
        entering = still;
    }

    private static OptionalInt breakevenLeg(ExitTerms terms) {
        return terms.breakeven().map(ExitTerms.Breakeven::leg).orElse(OptionalInt.empty());
    }

    private boolean legFilled() {
        OptionalInt leg = breakevenLeg;
        return leg.isPresent() && !entering && path.waitsForBreakeven() && allotted[leg.getAsInt() - 1] > 0
                && filled[leg.getAsInt() - 1] == allotted[leg.getAsInt() - 1];
    }

    /** A print after the one that made the first entry fill, in its step (4). */
    public Wishes print(long price) {
        movedNow = path.print(price, legFilled());
        return movedNow ? moved(price) : Wishes.NONE;
    }

    /**
     * The same print meets a stop that is held here, after {@link #print}.
     *
     * @param contracts of it that count: sellers' for a long trade, buyers' for a short one, unknown ones for both
     */
    public Wishes meets(long price, long contracts) {
        if (movedNow || terms.local().isEmpty() || !path.hasLevel()) {
            return Wishes.NONE;
        }
        boolean beyond = side.reached(path.levelTicks(), price);
        reached |= beyond;
        counted += beyond ? contracts : 0;
        boolean goes = counts() ? reached && counted >= terms.local().get().volume() : beyond;
        return goes ? leaves(new Departure(Why.LOCAL_STOP)) : Wishes.NONE;
    }

    private static Wishes leaves(Departure departure) {
        return new Wishes(Optional.empty(), List.of(), Optional.of(departure));
    }

    /** A signal bar has closed at or after the one that holds the entry: the stop and targets that studies lead. */
    public Wishes barClosed(BarClose bar, long lastPrice, Readings now) {
        path.read(now);
        Wishes stop = path.barClosed(bar.close(), bar.last(), bar.since(), now, legFilled())
                ? moved(lastPrice)
                : Wishes.NONE;
        List<Target> targets = new ArrayList<>();
        for (int leg = 0; leg < allotted.length; leg++) {
            if (terms.targets().get(leg).distance().orElse(null) instanceof Distance.Level(String study)
                    && allotted[leg] > 0 && !Double.isNaN(now.at(study))) {
                targets.add(new Target(leg + 1, 0, PlanFigures.targetLevel(side, now.at(study)), true));
            }
        }
        return targets.isEmpty() ? stop : new Wishes(stop.stop(), targets, stop.departure());
    }

    /** Whether bars or a profit say that it is time to go, after {@link #barClosed} of the same bar. */
    public Optional<Departure> departure(BarClose bar) {
        boolean profit = path.inProfit(bar.close());
        for (Leave leave : terms.leaves()) {
            if (leave instanceof Leave.AfterBars(int bars, boolean onlyInProfit) && bar.since() >= bars
                    && (profit || !onlyInProfit)) {
                return Optional.of(new Departure(Why.AFTER_BARS));
            }
        }
        boolean first = terms.leaves().stream().anyMatch(Leave.FirstCloseInProfit.class::isInstance);
        return first && profit && bar.since() >= 1
                ? Optional.of(new Departure(Why.FIRST_CLOSE_IN_PROFIT))
                : Optional.empty();
    }

    /** Whether a rule that is true may still take contracts off: each that takes a part does so once. */
    public boolean waitsFor(Leave.Rule rule) {
        return !taken.contains(rule);
    }

    /** A rule is true. @param open contracts; as much, or more, is everything */
    public Departure rule(Leave.Rule rule, int open) {
        if (rule.quantity().isEmpty() || rule.quantity().getAsInt() >= open) {
            return new Departure(Why.RULE);
        }
        taken.add(rule);
        return new Departure(Why.RULE, rule.quantity());
    }

    /**
     * The person moves the stop to the average, if that tightens it. Where the market has passed it already nothing happens: that
     * would be a flatten in disguise, which has a command of its own.
     */
    public Wishes breakeven(long lastPrice) {
        boolean passed = side.reached(path.atDistance(0), lastPrice);
        return !passed && path.byHand(0) ? moved(lastPrice) : Wishes.NONE;
    }

    /** The person puts the stop somewhere, be it tighter or looser; not where the last price has reached it already. */
    public Wishes putStop(long level, long lastPrice) {
        path.put(level);
        return moved(lastPrice);
    }

    /** Ticks from the level of the plan's stop out to where the broker holds one; 0 where that is the same. */
    public long disasterTicks() {
        return terms.local().map(ExitTerms.Local::disaster).orElse(0L);
    }

    private Wishes moved(long price) {
        anew();
        boolean at = side.reached(path.levelTicks(), price);
        Optional<Departure> departure = at ? already() : Optional.empty();
        return new Wishes(departure.isPresent() ? Optional.empty() : broker(), List.of(), departure);
    }

    /**
     * The nearest price in favour at which, or beyond which, {@link #print} may move the stop; the price furthest in favour that
     * there is when none does.
     */
    public long nextMove() {
        return path.nextMove();
    }

    /** The price at which, or beyond which against the trade, a print meets a stop that is held here; empty without one. */
    public OptionalLong heldHere() {
        return terms.local().isPresent() && path.hasLevel()
                ? OptionalLong.of(path.levelTicks())
                : OptionalLong.empty();
    }

    /** Whether the next print may move the stop wherever it lies. */
    public boolean restless() {
        return path.restless() || legFilled();
    }

    /** Takes prints between which nothing moves: the furthest in favour of them, ticks. */
    public void quiet(long furthest) {
        path.quiet(furthest);
    }
}
