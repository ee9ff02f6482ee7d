package stativex.engine;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.account.Ledger;
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
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;

/** One strategy at work: its signals, its switches, its windows, its orders and its trade. */
final class StrategyRun {
    /** One side at work. */
    static final class SideRun {
        final SideRules rules;
        /** Its side, as every decision names it. */
        final Optional<Side> named;
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
            this.named = Optional.of(rules.side());
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
    /** Its index, as every decision names it. */
    final OptionalInt named;
    final Strategy strategy;
    final MarketRun market;
    final Owner owner;
    final Signals signals;
    final History history;
    final Ledger.Position position;
    /** Whether its bars end by the clock inside the session. */
    final boolean timeBars;
    private final boolean wholeSession;
    final Map<Side, SideRun> sides = new EnumMap<>(Side.class);
    final WindowSchedule schedule;
    Mode mode = Mode.OFF;
    boolean once;
    Optional<WindowSchedule.Stretch> stretch = Optional.empty();
    /** When the windows next ask for something: a beginning, the last entry, the end. */
    long windowClock = TapeTime.NEVER;
    /** When a clock next says to leave, if the plan has one. */
    long leaveClock = TapeTime.NEVER;
    /** A window ended with a flatten; holds until the next one begins. */
    boolean windowFlat;
    /** Why everything was asked to leave; what still enters before its entries have ended leaves, too. Null: nothing was. */
    LeaveReason flattening;
    Bracket bracket;
    /** The other half of a two-sided entry, as long as both rest. */
    Optional<Bracket> pair = Optional.empty();
    Optional<TradeRun> trade = Optional.empty();
    int tradesToday;
    /** Its result when the trading day began, money. */
    private long dayStart;
    private int daysBegun;
    /** Monday of the trading week. */
    private Optional<LocalDate> week = Optional.empty();
    private boolean evaluates;
    /** An entry that waits for the exit of the other side's position. */
    record Reverse(Side side, long price, int bar, int quantity) {}

    Optional<Reverse> reverse = Optional.empty();
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
        this.index = index;
        this.named = OptionalInt.of(index);
        this.strategy = strategy;
        this.market = market;
        this.owner = new Owner.Strategy(index);
        this.signals = signals;
        this.history = history;
        this.position = market.holding.position(owner);
        this.once = strategy.once();
        this.timeBars = strategy.signals().bars().type() instanceof BarType.Time;
        this.wholeSession = needsWholeSession(strategy, market.contract);
        this.schedule = new WindowSchedule(strategy.windows());
        strategy.plan().check(market.contract);
        signals.sides.forEach((side, rules) -> sides.put(side, new SideRun(rules)));
        this.bracket = new Bracket(owner, Side.LONG);
    }

    private static boolean needsWholeSession(Strategy strategy, Contract contract) {
        return strategy.signals().bars().type().needsEveryPrint() || strategy.signals().series().stream()
                .filter(series -> series.contract().filter(symbol -> !symbol.equals(contract.symbol())).isEmpty())
                .anyMatch(series -> series.bars().type().needsEveryPrint());
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

    /** Whether an entry is still working. */
    boolean entering() {
        return bracket.entering() > 0 || pair.isPresent();
    }

    /** Every entry that may still fill or has filled, of both halves of a two-sided one. */
    List<Order> entries() {
        if (pair.isEmpty()) {
            return bracket.entries();
        }
        List<Order> both = new ArrayList<>(bracket.entries());
        both.addAll(pair.get().entries());
        return both;
    }

    /** The bracket of a side at which something is open or working. */
    Optional<Bracket> atWork(Side side) {
        return !bracket.idle() && bracket.side() == side
                ? Optional.of(bracket)
                : pair.filter(other -> other.side() == side);
    }

    /** Contracts of a side that are open or that resting entries may open. */
    int held(Side side) {
        return atWork(side).map(of -> of.open() + of.entering()).orElse(0);
    }

    /** After anything became of an order: of a two-sided entry what still rests goes on alone. */
    void settle() {
        if (pair.isPresent() && bracket.idle()) {
            bracket = pair.get();
            pair = Optional.empty();
        }
        pair = pair.filter(other -> !other.idle());
    }

    /** Of a two-sided entry this half has filled: it is the trade's. Returns the other, which ends. */
    Optional<Bracket> fills(Bracket half) {
        Optional<Bracket> other = half == bracket ? pair : pair.isPresent() ? Optional.of(bracket) : Optional.empty();
        bracket = half;
        pair = Optional.empty();
        return other;
    }

    /** A trading day begins. */
    void dayBegins(Optional<LocalDate> date) {
        tradesToday = 0;
        dayStart = position.result();
        countAnew(SignalPeriod.DAY);
        Optional<LocalDate> monday = date.map(day -> day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY)));
        if (!monday.equals(week)) {
            week = monday;
            countAnew(SignalPeriod.WEEK);
        }
        daysBegun++;
        evaluates = history.evaluates(date, daysBegun);
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
        if (trade.isPresent() && trade.get().plan().needsBars()) {
            return signals.judged();
        }
        int expiry = expiry(bracket);
        return pair.isEmpty() ? expiry : Math.min(expiry, expiry(pair.get()));
    }

    private int expiry(Bracket of) {
        if (of.entering() > 0 && strategy.entry(of.side()).reprice()) {
            return signals.judged();
        }
        int expiry = Integer.MAX_VALUE;
        if (strategy.entry(of.side()).goodFor() instanceof Strategy.GoodFor.Bars(int n)) {
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
        Optional<Integer> after = strategy.entry(entry.bracket().side()).marketAfterSeconds();
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

    /** The plan of the trade, or of the entry, that is at work. */
    ExitTerms terms() {
        return strategy.plan().terms(bracket.side());
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

    /** Whether the open trade's plan leaves at this moment of the clock. */
    boolean leavesAt(long moment) {
        for (Leave leave : terms().leaves()) {
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
        nextWindowClock(time);
    }

    /** The next moment after {@code time} at which a window begins, the stretch takes its last entry or ends. */
    void nextWindowClock(long time) {
        windowClock = stretch.map(s -> s.nextMoment(time)).orElse(TapeTime.NEVER);
    }

    /** A window begins, be it inside a stretch that others began. */
    boolean windowBegins(long at) {
        return stretch.isPresent() && stretch.get().of().stream().anyMatch(window -> window.from() == at);
    }
}
