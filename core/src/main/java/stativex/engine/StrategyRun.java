package stativex.engine;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.Line;
import stativex.account.LockReason;
import stativex.account.Part;
import stativex.account.PartWatch;
import stativex.exit.ExitTerms;
import stativex.exit.Leave;
import stativex.interlock.Refusal;
import stativex.interlock.SignalPeriod;
import stativex.interlock.WindowSchedule;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.LongColumn;
import stativex.market.Side;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.order.Order;
import stativex.order.Owner;

/** One strategy at work: its signals, its switches, its windows, its orders and its trade. */
final class StrategyRun extends OwnerRun {
    /** One side at work. */
    static final class SideRun {
        SideRules rules;
        /** Of a strategy judged on every trade: whether its signal was true at some moment of each closed bar. */
        final LongColumn provisional = new LongColumn();
        boolean on = true;
        /** Its signal has been true in the bar that forms. */
        boolean raised;
        /** Signals that sent an order in the period that is counted. */
        int sent;
        /** What its last signal was declined with: one record for as long as it is declined for the same. */
        private Decision.Declined declined;

        SideRun(SideRules rules) {
            this.rules = rules;
        }

        Decision.Declined declined(Refusal refusal) {
            if (declined == null || !declined.refusal().equals(refusal)) {
                declined = new Decision.Declined(refusal);
            }
            return declined;
        }
    }

    /** A signal whose entry is sent as of the next session's open. */
    record Waiting(Side side, int bar) {}

    final int index;
    /** Its exit plan may be changed by the person. */
    Strategy strategy;
    Signals signals;
    final History history;
    /** Whether its bars end by the clock inside the session. */
    final boolean timeBars;
    private final Strategy.Entry longEntry;
    private final Strategy.Entry shortEntry;
    private final boolean wholeSession;
    final Map<Side, SideRun> sides = new EnumMap<>(Side.class);
    final WindowSchedule schedule;
    /** What a trading day may bring it; and what each of its windows may. */
    final PartWatch limits;
    final WindowLimits windowLimits;
    Mode mode = Mode.OFF;
    boolean once;
    Optional<WindowSchedule.Stretch> stretch = Optional.empty();
    /** When the windows next ask for something: a beginning, the last entry, the end. */
    long windowClock = TapeTime.NEVER;
    /** When a clock next says to leave, if the plan has one. */
    long leaveClock = TapeTime.NEVER;
    /** A window ended with a flatten; holds until the next one begins. */
    boolean windowFlat;
    /** Its result when the trading day began, money. */
    private long dayStart;
    private int daysBegun;
    /** Monday of the trading week. */
    private Optional<LocalDate> week = Optional.empty();
    private boolean evaluates;
    /** An entry that waits for the exit of the other side's position. */
    record Reverse(Side side, long price, int bar, int quantity, Optional<String> grade) {}

    Optional<Reverse> reverse = Optional.empty();
    /** Grades of the signals that sent entries, by order number; none without grades. */
    final Map<Integer, String> grades = new HashMap<>();
    /** Of the fill that ended the last trade: its print, the bar that holds it once that is known, its time; −1 before the first. */
    int endedPrint = -1;
    int endedBar;
    long endedTime;
    long endedNet;
    boolean hasEnded;
    /** When the next resting entry turns to the market, nanoseconds. */
    long turnClock = TapeTime.NEVER;

    /** Signals of day and longer bars, which wait for the next session's open. */
    final List<Waiting> waiting = new ArrayList<>();

    /** @throws IllegalArgumentException when it asks for what trials and replays cannot do, or its stop is under a tick */
    StrategyRun(int index, Strategy strategy, MarketRun market, Signals signals, History history) {
        super(new Owner.Strategy(index), market);
        this.index = index;
        this.strategy = strategy;
        this.signals = signals;
        this.history = history;
        this.once = strategy.once();
        this.longEntry = strategy.entry(Side.LONG);
        this.shortEntry = strategy.entry(Side.SHORT);
        this.timeBars = strategy.signals().bars().type() instanceof BarType.Time;
        this.wholeSession = needsWholeSession(strategy, market.contract);
        this.schedule = new WindowSchedule(strategy.windows());
        this.limits = new PartWatch(Part.STRATEGY, strategy.limits().day());
        this.windowLimits = new WindowLimits(strategy.windows());
        strategy.plan().check(market.contract);
        signals.sides.forEach((side, rules) -> sides.put(side, new SideRun(rules)));
    }

    private static boolean needsWholeSession(Strategy strategy, Contract contract) {
        return strategy.signals().bars().type().needsEveryPrint() || strategy.signals().series().stream()
                .filter(series -> series.contract().filter(symbol -> !symbol.equals(contract.symbol())).isEmpty())
                .anyMatch(series -> series.bars().type().needsEveryPrint());
    }

    @Override
    Optional<StrategyRun> guide() {
        return Optional.of(this);
    }

    @Override
    PlanRules plan(Side side) {
        return signals.plans.get(side);
    }

    /** Another month has come into force: what studies see of earlier ones is moved to its prices. */
    void rolls(Signals next, int lastPrint, long at) {
        next.standAs(signals, lastPrint, at);
        signals = next;
        sides.forEach((side, run) -> run.rules = next.sides.get(side));
    }

    /** The person gives it another exit plan: its bars and studies are worked once more, with those that the plan takes. */
    void planned(Strategy with, Signals next, int lastPrint, long at) {
        strategy = with;
        rolls(next, lastPrint, at);
        nextLeaveClock(at);
    }

    /** How a side enters. */
    Strategy.Entry entry(Side side) {
        return side == Side.LONG ? longEntry : shortEntry;
    }

    BarSeries series() {
        return signals.series();
    }

    /** Whether its bars are whole trading dates. */
    boolean longBars() {
        return strategy.signals().bars().type() instanceof BarType.Period;
    }

    /** Whether its bars, or those of a further series of its contract, depend on every print of the session. */
    boolean needsWholeSession() {
        return wholeSession;
    }

    boolean everyTrade() {
        return strategy.signals().evaluate() == SignalPlan.Evaluate.EVERY_TRADE;
    }

    /** A period begins in which signals are counted anew. */
    void countAnew(SignalPeriod period) {
        if (strategy.signals().most().filter(most -> most.period() == period).isPresent()) {
            sides.values().forEach(side -> side.sent = 0);
        }
    }

    boolean isOn(Side side) {
        return sides.containsKey(side) && sides.get(side).on;
    }

    /** A trading day begins. */
    void dayBegins(Optional<LocalDate> date) {
        tradesToday = 0;
        dayStart = position.result();
        limits.begins(dayStart);
        windowLimits.dayBegins();
        countAnew(SignalPeriod.DAY);
        Optional<LocalDate> monday = date.map(day -> day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY)));
        if (!monday.equals(week)) {
            week = monday;
            countAnew(SignalPeriod.WEEK);
        }
        daysBegun++;
        evaluates = history.evaluates(date, daysBegun);
    }

    /** Why it is locked on its own, by its day or by a window of it. */
    Optional<LockReason> lock() {
        return limits.lock().isPresent() ? limits.lock() : windowLimits.lock(market.now);
    }

    /** Its own lines and those of its open windows, guards taken in, as amounts of its result. */
    List<Line> ownLines() {
        List<Line> lines = new ArrayList<>(windowLimits.lines(market.now));
        limits.guardedLine(perTick()).ifPresent(lines::addFirst);
        return lines;
    }

    /** Money that a tick against what it holds costs. */
    long perTick() {
        return Math.multiplyExact(Math.abs(position.contracts()), market.contract.tickValue());
    }

    /** Money that closing what it holds would cost. */
    long closing() {
        return Math.multiplyExact(Math.abs(position.contracts()), market.closingEach());
    }

    /** What this trading day has brought it, open result included, after fees. */
    long resultToday() {
        return position.result() - dayStart;
    }

    /** Whether the trading day counts for evaluation, or only feeds the studies. */
    boolean evaluates() {
        return evaluates;
    }

    /**
     * The next bar that matters beside its signals: with whose close an entry ends that is good for some bars, or any while the plan
     * of an open trade looks at bars; {@link Integer#MAX_VALUE} without one.
     */
    int expiry() {
        if (managed(this) || managed(market.hand)) {
            return signals.judged();
        }
        int expiry = expiry(bracket);
        return pair.isEmpty() ? expiry : Math.min(expiry, expiry(pair.get()));
    }

    /** Whether the plan of an open trade looks at the bars of this strategy. */
    private boolean managed(OwnerRun of) {
        return of.trade.isPresent() && of.trade.get().plan().needsBars() && of.guide().orElse(null) == this;
    }

    private int expiry(Bracket of) {
        if (of.entering() == 0) {
            return Integer.MAX_VALUE;
        }
        if (entry(of.side()).reprice()) {
            return signals.judged();
        }
        int expiry = Integer.MAX_VALUE;
        if (entry(of.side()).goodFor() instanceof Strategy.GoodFor.Bars(int n)) {
            for (int i = 0; i < of.entries().size(); i++) {
                if (of.entries().get(i).state().live()) {
                    expiry = Math.min(expiry, of.entries().get(i).closesBefore() + n - 1);
                }
            }
        }
        return expiry;
    }

    /** When a resting entry is to turn to the market; {@link TapeTime#NEVER} if it never does, or is about to. */
    long turns(Order entry) {
        Optional<Integer> after = entry(entry.bracket().side()).marketAfterSeconds();
        return after.isEmpty() || !entry.state().live() || entry.turning() || entry.type() == Order.Type.MARKET
                ? TapeTime.NEVER
                : Math.addExact(entry.cause().time(), after.get() * TapeTime.SECOND);
    }

    /** Finds the next of these moments. */
    void nextTurn() {
        turnClock = TapeTime.NEVER;
        for (Order entry : entries()) {
            turnClock = Math.min(turnClock, turns(entry));
        }
    }

    /** The next moment after {@code time} at which a clock says to leave. */
    void nextLeaveClock(long time) {
        leaveClock = TapeTime.NEVER;
        for (Side side : Side.values()) {
            for (Leave leave : strategy.plan().terms(side).leaves()) {
                if (leave instanceof Leave.ClockTime(LocalTime clock, ZoneId zone)) {
                    LocalDate date = TapeTime.in(zone, time).toLocalDate();
                    long at = TapeTime.first(date.atTime(clock), zone);
                    leaveClock = Math.min(leaveClock,
                            at > time ? at : TapeTime.first(date.plusDays(1).atTime(clock), zone));
                }
            }
        }
    }

    /** Whether a plan leaves at this moment of the clock. */
    static boolean leavesAt(ExitTerms terms, long moment) {
        for (Leave leave : terms.leaves()) {
            if (leave instanceof Leave.ClockTime(LocalTime clock, ZoneId zone)
                    && TapeTime.first(TapeTime.in(zone, moment).toLocalDate().atTime(clock), zone) == moment) {
                return true;
            }
        }
        return false;
    }

    /** Finds the stretch of windows that counts from {@code time} on. */
    void windowsFrom(long time) {
        stretch = schedule.at(time);
        if (windowLimits.any()) {
            stretch.ifPresent(of -> of.of().stream().filter(window -> window.from() <= time && time < window.to())
                    .forEach(window -> windowLimits.begins(window, position.result())));
        }
        nextWindowClock(time);
    }

    /** The next moment after {@code time} at which a window begins, the stretch takes its last entry or ends. */
    void nextWindowClock(long time) {
        windowClock = stretch.map(s -> s.nextMoment(time)).orElse(TapeTime.NEVER);
    }

    /** A window begins, be it inside a stretch that others began. */
    boolean windowBegins(long at) {
        if (windowLimits.any()) {
            stretch.ifPresent(of -> of.of().stream().filter(window -> window.from() == at)
                    .forEach(window -> windowLimits.begins(window, position.result())));
        }
        return stretch.isPresent() && stretch.get().of().stream().anyMatch(window -> window.from() == at);
    }
}
