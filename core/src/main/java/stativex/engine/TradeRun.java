package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.exit.Average;
import stativex.exit.PlanRun;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;

/** A trade while it is open: its plan at work, what was paid, how far it went, where its stop stood. */
final class TradeRun {
    private final int number;
    private final Owner owner;
    private final Contract contract;
    private final Bracket bracket;
    private PlanRun plan;
    private PlanRules rules;
    private final long entryTime;
    private final int entryPrint;
    private final List<Trade.StopPoint> stops = new ArrayList<>();
    private int entryBar;
    private int entered;
    private int left;
    private long entrySum;
    private long exitSum;
    private long fees;
    private long slippageTicks;
    private long gapTicks;
    /** Of the prints since the average last moved; none while highest lies below lowest. */
    private long highest = Long.MIN_VALUE;
    private long lowest = Long.MAX_VALUE;
    /** Of what lies before, against the average as it stood then; exit fills are in them at once. */
    private long mfe;
    private long mae;
    private long exitTime;
    private int exitPrint;
    private Optional<FillReason> exitReason = Optional.empty();
    private final Optional<String> grade;

    /** Opens with the first entry fill, of {@code order}; {@link #entered} is told of it, too. */
    TradeRun(int number, OwnerRun run, Fill first, Order order) {
        this.number = number;
        this.owner = run.owner;
        this.contract = run.market.contract;
        this.bracket = run.bracket;
        this.rules = run.plan(bracket.side());
        this.plan = new PlanRun(rules.terms(), rules.needsBars, bracket.side(), contract, first.price(),
                order.quantity(),
                first.quantity(), rules.at(order.closesBefore() - 1));
        this.grade = run instanceof StrategyRun strategy
                ? Optional.ofNullable(strategy.grades.get(order.number()))
                : Optional.empty();
        this.entryBar = run.closedBars();
        this.entryTime = first.time();
        this.entryPrint = first.print();
        point(first.print());
    }

    /** Goes on with what another owner had open, from the price at which it was handed over; its plan goes on, too. */
    TradeRun(int number, OwnerRun run, TradeRun given, long price, long time, int print) {
        this.number = number;
        this.owner = run.owner;
        this.contract = given.contract;
        this.bracket = given.bracket;
        this.rules = given.rules;
        this.plan = given.plan;
        this.grade = given.grade;
        this.entryBar = run.closedBars();
        this.entryTime = time;
        this.entryPrint = print;
        this.entered = bracket.open();
        this.entrySum = Math.multiplyExact(price, entered);
        point(print);
    }

    /** The trade of the giver: what was open ends at a price, without a fill and its fee. */
    Trade handedOver(long price, int closedBars, long time, int print) {
        int open = bracket.open();
        left += open;
        exitSum = Math.addExact(exitSum, Math.multiplyExact(price, open));
        takeExcursions(price, price);
        exitTime = time;
        exitPrint = print;
        exitReason = Optional.of(new FillReason.Left(LeaveReason.HANDED_OVER));
        return view(closedBars, time, print);
    }

    /** Takes its owner's plan anew, counted from the real average. */
    PlanRun.Wishes attach(OwnerRun run, int print, long lastPrice) {
        rules = run.plan(side());
        plan = new PlanRun(rules.terms(), side(), contract, plan.average(), bracket.open(), rules.at(run.judgedBar()));
        PlanRun.Wishes wishes = plan.attached(bracket.open(), lastPrice, rules.at(run.judgedBar()));
        entryBar = run.closedBars();
        point(print);
        return wishes;
    }

    /** Its plan goes on with the studies of another program over the same bars. */
    void reads(PlanRules same) {
        rules = same;
    }

    /** Takes its owner's changed plan: the best so far counts, the stop never becomes looser. */
    PlanRun.Wishes changes(OwnerRun run, int print, long lastPrice) {
        rules = run.plan(side());
        plan = new PlanRun(rules.terms(), contract, plan, bracket.open(), rules.at(run.judgedBar()));
        PlanRun.Wishes wishes = plan.attached(bracket.open(), lastPrice, rules.at(run.judgedBar()));
        point(print);
        return wishes;
    }

    /** The person puts the stop somewhere. */
    PlanRun.Wishes putStop(long level, int print, long lastPrice) {
        PlanRun.Wishes wishes = plan.putStop(level, lastPrice);
        point(print);
        return wishes;
    }

    Bracket bracket() {
        return bracket;
    }

    PlanRun plan() {
        return plan;
    }

    Side side() {
        return bracket.side();
    }

    int entryPrint() {
        return entryPrint;
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

    /**
     * Books an entry fill, which the bracket counts already.
     *
     * @param print price of the print that made it, ticks
     * @param bar the last one that was judged
     */
    PlanRun.Wishes entered(Fill fill, long print, int bar) {
        int openBefore = bracket.open() - fill.quantity();
        entered += fill.quantity();
        entrySum = Math.addExact(entrySum, Math.multiplyExact(fill.price(), fill.quantity()));
        cost(fill);
        if (openBefore > 0) {
            foldExcursions();
        }
        PlanRun.Wishes wishes = plan.entered(openBefore, fill.quantity(), fill.price(), print, rules.at(bar));
        point(fill.print());
        return wishes;
    }

    /** Books an exit fill. */
    void left(Fill fill) {
        left += fill.quantity();
        exitSum = Math.addExact(exitSum, Math.multiplyExact(fill.price(), fill.quantity()));
        takeExcursions(fill.price(), fill.price());
        exitTime = fill.time();
        exitPrint = fill.print();
        exitReason = Optional.of(fill.reason());
        cost(fill);
        if (fill.reason() instanceof FillReason.Target(int leg)) {
            plan.filled(leg, fill.quantity());
        }
    }

    private void cost(Fill fill) {
        fees = Math.addExact(fees, fill.fee());
        slippageTicks += fill.slippage() * fill.quantity();
        gapTicks += fill.gap() * fill.quantity();
    }

    /** A print after the entry's: best and worst, and what the plan makes of it. */
    PlanRun.Wishes print(int print, long price) {
        highest = Math.max(highest, price);
        lowest = Math.min(lowest, price);
        plan.entering(bracket.entering() > 0);
        PlanRun.Wishes wishes = plan.print(price);
        if (wishes != PlanRun.Wishes.NONE) {
            point(print);
        }
        return wishes;
    }

    /** The same print meets a stop that is held here. */
    PlanRun.Wishes meets(Tape tape, int print, long price) {
        if (plan.terms().local().isEmpty()) {
            return PlanRun.Wishes.NONE;
        }
        Aggressor own = side() == Side.LONG ? Aggressor.BUYER : Aggressor.SELLER;
        return plan.meets(price, tape.aggressor(print) == own ? 0 : tape.size(print));
    }

    /** Whether a bar is the one that holds the entry, or a later one. */
    boolean began(int bar) {
        return bar >= entryBar;
    }

    /** A bar from before the trade has closed with the print that opened it: its studies count from now on. */
    void read(int bar) {
        plan.read(rules.at(bar));
    }

    /**
     * A signal bar has closed.
     *
     * @param last print that has been taken, with its price
     */
    PlanRun.Wishes barClosed(PlanRun.BarClose bar, int row, int last, long lastPrice) {
        plan.entering(bracket.entering() > 0);
        PlanRun.Wishes wishes = plan.barClosed(bar, lastPrice, rules.at(row));
        if (wishes != PlanRun.Wishes.NONE) {
            point(last);
        }
        return wishes;
    }

    PlanRules rules() {
        return rules;
    }

    /** Prints at which its plan had nothing to do: the highest and the lowest of them. */
    void quiet(long high, long low) {
        highest = Math.max(highest, high);
        lowest = Math.min(lowest, low);
        plan.quiet(side() == Side.LONG ? high : low);
    }

    /** The person moves the stop to the average. */
    PlanRun.Wishes breakeven(int lastPrint, long lastPrice) {
        PlanRun.Wishes wishes = plan.breakeven(lastPrice);
        point(lastPrint);
        return wishes;
    }

    /** Ticks in favour of the average at {@code price}, below 0 against. */
    double openTicks(long price) {
        Average average = plan.average();
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
        Average average = plan.average();
        return Math.max(mfe, side() == Side.LONG ? high - average.ceil(0) : average.floor(0) - low);
    }

    /** Most ticks against, likewise, rounded up. */
    private long against(long high, long low) {
        Average average = plan.average();
        return Math.max(mae, side() == Side.LONG ? average.ceil(0) - low : high - average.floor(0));
    }

    /** Notes where the stop stands now. */
    private void point(int print) {
        plan.stop().filter(stop -> stops.isEmpty() || stops.getLast().level() != stop.level())
                .ifPresent(stop -> stops.add(new Trade.StopPoint(print, stop.level(), stop.origin())));
    }

    /** The trade as it stands. */
    Trade view(int closedBars, long lastTime, int lastPrint) {
        boolean seen = highest >= lowest;
        boolean done = bracket.open() == 0 || left == entered;
        long gross = contract.money(side().sign() * (exitSum - closedEntrySum()), 1);
        return new Trade(number, owner, side(),
                new Trade.Span(entryTime, done ? exitTime : lastTime, entryPrint, done ? exitPrint : lastPrint,
                        bars(closedBars)),
                new Trade.Amounts(entered, entrySum, exitSum, left, gross, fees, contract.money(slippageTicks, 1),
                        contract.money(gapTicks, 1)),
                seen ? against(highest, lowest) : mae, seen ? favour(highest, lowest) : mfe, exitReason,
                new Trade.Entry(plan.initialStop(), grade), List.copyOf(stops));
    }

    /** Entry cost of what has left; exact when everything has. */
    private long closedEntrySum() {
        return left == entered ? entrySum : Math.floorDiv(Math.multiplyExact(entrySum, left), entered);
    }
}
