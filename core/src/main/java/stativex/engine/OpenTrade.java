package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.exit.Average;
import stativex.exit.ExitPlan;
import stativex.exit.StopPath;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Bracket;
import stativex.order.Fill;

/** A trade while it is open: what was paid, how far it went, where its stop stands. */
final class OpenTrade {
    private final int number;
    private final Contract contract;
    private final Bracket bracket;
    private final ExitPlan plan;
    private final StopPath path;
    private final Optional<Long> initialStop;
    private final int[] allotted;
    private int entryBar;
    private final long entryTime;
    private final int entryPrint;
    private final List<Trade.StopPoint> stops = new ArrayList<>();
    private int entered;
    private int left;
    private long entrySum;
    private long exitSum;
    private long fees;
    private long slippageTicks;
    private long gapTicks;
    /** Of the prints since the average last moved. */
    private long highest = Long.MIN_VALUE;
    private long lowest = Long.MAX_VALUE;
    /** Of what lies before, against the average as it stood then; exit fills are in them at once. */
    private long mfe;
    private long mae;
    private long exitTime;
    private int exitPrint;
    private String exitReason = "";

    /** Opens with the first entry fill. */
    OpenTrade(int number, Contract contract, Bracket bracket, ExitPlan plan, Fill first, int entryBar) {
        this.number = number;
        this.contract = contract;
        this.bracket = bracket;
        this.plan = plan;
        this.initialStop = plan.initialStop(contract);
        this.path = new StopPath(plan, bracket.side(), contract, new Average(first.price(), 1));
        this.allotted = new int[plan.targets().size()];
        this.entryBar = entryBar;
        this.entryTime = first.time();
        this.entryPrint = first.print();
        point(first.print());
    }

    Bracket bracket() {
        return bracket;
    }

    ExitPlan plan() {
        return plan;
    }

    StopPath path() {
        return path;
    }

    Side side() {
        return bracket.side();
    }

    int entryPrint() {
        return entryPrint;
    }

    int number() {
        return number;
    }

    /** The bar that holds the first fill, known once the bars have taken its print: bar 0. */
    void enteredIn(int bar) {
        entryBar = bar;
    }

    /** The bar that formed has been given up; if it was bar 0, the first close of all makes bar 1. */
    void formingBarDiscarded(int closed) {
        entryBar = Math.min(entryBar, closed - 1);
    }

    /** Bars since entry once {@code closed} bars of the signal series have closed. */
    int bars(int closed) {
        return Math.max(0, closed - entryBar - 1);
    }

    /** Books an entry fill. Returns whether it moved the average of what was open before. */
    boolean enter(Fill fill) {
        int openBefore = bracket.open() - fill.quantity();
        entered += fill.quantity();
        entrySum = Math.addExact(entrySum, Math.multiplyExact(fill.price(), fill.quantity()));
        cost(fill);
        if (openBefore == 0) {
            return false;
        }
        Average before = path.average();
        foldExcursions();
        path.moveAverage(before.with(openBefore, fill.quantity(), fill.price()));
        point(fill.print());
        return !path.average().equals(before);
    }

    /**
     * Gives newly entered contracts to the legs in listed order; what exceeds all targets goes to the runner, without a
     * runner to the last target. Returns the contracts by leg.
     */
    int[] allot(int contracts) {
        int[] given = new int[allotted.length];
        int last = -1;
        for (int leg = 0; leg < allotted.length; leg++) {
            int take = Math.min(contracts, plan.targets().get(leg).quantity() - allotted[leg]);
            given[leg] = Math.max(0, take);
            contracts -= given[leg];
            if (last < 0 || plan.targets().get(last).ticks().isPresent()) {
                last = leg;
            }
        }
        if (contracts > 0 && last >= 0) {
            given[last] += contracts;
        }
        for (int leg = 0; leg < allotted.length; leg++) {
            allotted[leg] += given[leg];
        }
        return given;
    }

    /** Books an exit fill. */
    void exit(Fill fill) {
        left += fill.quantity();
        exitSum = Math.addExact(exitSum, Math.multiplyExact(fill.price(), fill.quantity()));
        takeExcursions(fill.price(), fill.price());
        exitTime = fill.time();
        exitPrint = fill.print();
        exitReason = fill.reason();
        cost(fill);
    }

    private void cost(Fill fill) {
        fees = Math.addExact(fees, fill.fee());
        slippageTicks += fill.slippage() * fill.quantity();
        gapTicks += fill.gap() * fill.quantity();
    }

    /** A print after the entry's: best and worst, and the stop. Returns whether the stop's level moved. */
    boolean print(int print, long price) {
        highest = Math.max(highest, price);
        lowest = Math.min(lowest, price);
        if (!path.print(price)) {
            return false;
        }
        point(print);
        return true;
    }

    /** Ticks in favour of the average at {@code price}, below 0 against. */
    double openTicks(long price) {
        Average average = path.average();
        return side().sign() * ((double) price - (double) average.sum() / average.quantity());
    }

    /** Most ticks in favour so far, the last print included, at least 0, rounded down; 0 on the entry's own print. */
    double bestTicks(int lastPrint, long lastPrice) {
        return lastPrint == entryPrint ? 0 : favour(Math.max(highest, lastPrice), Math.min(lowest, lastPrice));
    }

    /** Most ticks against so far, likewise, rounded up. */
    double worstTicks(int lastPrint, long lastPrice) {
        return lastPrint == entryPrint ? 0 : against(Math.max(highest, lastPrice), Math.min(lowest, lastPrice));
    }

    /** The prints so far count from the average as it stands. */
    private void foldExcursions() {
        if (highest >= lowest) {
            takeExcursions(highest, lowest);
        }
        highest = Long.MIN_VALUE;
        lowest = Long.MAX_VALUE;
    }

    private void takeExcursions(long high, long low) {
        mfe = favour(high, low);
        mae = against(high, low);
    }

    /** Most ticks in favour with prices up to {@code high} and down to {@code low} taken in, rounded down. */
    private long favour(long high, long low) {
        Average average = path.average();
        return Math.max(mfe, side() == Side.LONG ? high - average.ceil(0) : average.floor(0) - low);
    }

    /** Most ticks against, likewise, rounded up. */
    private long against(long high, long low) {
        Average average = path.average();
        return Math.max(mae, side() == Side.LONG ? average.ceil(0) - low : high - average.floor(0));
    }

    /** Notes where the stop stands now. */
    void point(int print) {
        if (path.hasLevel() && (stops.isEmpty() || stops.getLast().level() != path.levelTicks())) {
            stops.add(new Trade.StopPoint(print, path.levelTicks(), path.origin().word()));
        }
    }

    /** The trade as it stands. */
    Trade view(int closedBars, long lastTime, int lastPrint) {
        boolean seen = highest >= lowest;
        long gross = contract.money(side().sign() * (exitSum - closedEntrySum()), 1);
        boolean done = bracket.open() == 0;
        return new Trade(number, bracket.owner(), side(), entryTime, done ? exitTime : lastTime, entryPrint,
                done ? exitPrint : lastPrint, entered, entrySum, exitSum, left, gross, fees,
                seen ? against(highest, lowest) : mae,
                seen ? favour(highest, lowest) : mfe, bars(closedBars), exitReason, initialStop,
                contract.money(slippageTicks, 1),
                contract.money(gapTicks, 1), List.copyOf(stops));
    }

    /** Entry cost of what has left; exact when everything has. */
    private long closedEntrySum() {
        return left == entered ? entrySum : Math.floorDiv(Math.multiplyExact(entrySum, left), entered);
    }
}
