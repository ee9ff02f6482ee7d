package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import java.util.function.IntSupplier;
import stativex.account.Ledger;
import stativex.account.Part;
import stativex.account.PartWatch;
import stativex.market.Contract;
import stativex.market.Join;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Cause;
import stativex.order.Counterpart;
import stativex.order.InsideBars;
import stativex.order.Order;
import stativex.order.Orders;
import stativex.order.Owner;
import stativex.order.SimulatedExchange;

/** One contract's market in a run: its tape as far as it has come, its clock, its exchange, and the strategies that trade it. */
final class MarketRun {
    /** Its place among the contracts of the run. */
    final int index;
    final Tape tape;
    final Contract contract;
    /** Money per contract and side. */
    final long fee;
    final Counterpart exchange;
    final Orders orders;
    final Ledger.Holding holding;
    final List<StrategyRun> runs = new ArrayList<>();
    /** The strategies of every contract, by their index in the run. */
    private final List<StrategyRun> all;
    private final Setup setup;
    /** The tape as studies see it. */
    private Tape seen;
    /** What the person has at work. */
    final HandRun hand;
    /** Everyone who may have something at work: the strategies in their order, then the person. */
    final List<OwnerRun> owners = new ArrayList<>();
    /** What this contract may lose and win in a trading day. */
    final PartWatch limits;
    final SessionClock clock;
    final RollClock rolls;
    final RuleClock rules;

    /** The last print that has arrived; −1 before the first. */
    int lastPrint = -1;
    /** The last print that lay in a session; −1 before the first. */
    int lastInside = -1;
    /** Price of that print in ticks, once orders have met it. */
    long lastPrice = Tape.NONE;
    /** Exits that are to be sent again: only where a broker carries orders out. */
    final RefusedExits refused = new RefusedExits(this);
    /** The last print that orders have met; −1 before the first. */
    int worked = -1;
    /** The moment that is worked: an event's time, before it what ends by the clock at its own. */
    long now = Long.MIN_VALUE;
    /** Time of the event that is worked, or was worked last. */
    long event = Long.MIN_VALUE;
    /** A print is arriving, and orders have not met it yet. */
    boolean arriving;
    /** Prints that lay in no session. */
    int outsideSessions;
    /** Equity may have changed with this contract since it was last judged. */
    boolean dirty;
    /** The print of the last fill; −1 before the first. */
    int lastFilled = -1;

    /**
     * @param setup of this contract alone
     * @param shared what all contracts of the run have in common
     */
    MarketRun(Setup setup, Shared shared, Function<MarketRun, SessionClock.Moments> moments) {
        this.index = shared.markets().size();
        this.all = shared.strategies();
        this.setup = setup;
        this.seen = setup.seen();
        this.tape = setup.walked();
        this.contract = setup.contract();
        this.rules = new RuleClock(setup.account(), contract.calendar());
        this.rolls = new RollClock(setup.rolls(), contract.calendar());
        this.fee = setup.account().fee(contract.symbol());
        this.exchange = setup.brokers().containsKey(contract.symbol())
                ? setup.brokers().get(contract.symbol())
                : new SimulatedExchange(tape, contract, setup.terms(),
                        setup.steps().map(steps -> new InsideBars(steps, this::stopAsItStands)));
        this.orders = new Orders(exchange, shared.numbers());
        this.holding = shared.ledger().holding(contract.tickValue());
        this.limits = new PartWatch(Part.CONTRACT, setup.account().limits(contract.symbol()).day());
        this.hand = new HandRun(this);
        owners.add(hand);
        this.clock = new SessionClock(setup.tape(), contract.calendar(), runs,
                new SessionClock.Days(shared.days(), rolls, rules),
                moments.apply(this));
    }

    /**
     * What the contracts of a run have in common.
     *
     * @param strategies of all of them, by index; {@code markets} so far
     * @param numbers of orders, in order of sending
     */
    record Shared(Ledger ledger, AccountDays days, List<StrategyRun> strategies, List<MarketRun> markets,
            IntSupplier numbers) {}

    /** What a strategy of this contract sees: with {@code months} in force its earlier ones are at its prices. */
    Signals signals(Strategy strategy, History history) {
        return setup.signals(strategy, history, seen);
    }

    /** See {@link Setup#began}. */
    long began(int print) {
        return setup.began(print);
    }

    /** Where the stop of a trade stands, be it held here or at the broker; {@link Tape#NONE} without one. */
    private long stopAsItStands(Bracket bracket) {
        OptionalLong here = of(bracket.owner()).trade.map(trade -> trade.plan().heldHere())
                .orElse(OptionalLong.empty());
        return here.orElseGet(() -> bracket.stop().filter(stop -> stop.state().live() && !stop.triggered())
                .map(Order::price).orElse(Tape.NONE));
    }

    /** The last print that was worked before one that is arriving now. */
    int lastPrint() {
        return arriving ? lastPrint - 1 : lastPrint;
    }

    /** A new month: the price of its last print before counts, and no quote of the old one. */
    void rollsTo(Join.Leg month) {
        long before = month.before();
        seen = month.seen();
        lastPrice = before;
        worked = -1;
        exchange.rollsTo(before);
        holding.mark(before);
    }

    /** Adds a strategy; the person stays the last. */
    void add(StrategyRun run) {
        runs.add(run);
        owners.add(owners.size() - 1, run);
    }

    /** Whose trades the bars, studies and clock of a strategy lead: its own, and the person's where they have its plan. */
    List<OwnerRun> guidedBy(StrategyRun run) {
        return hand.guide().orElse(null) == run ? List.of(run, hand) : List.of(run);
    }

    /** Someone with orders on this contract. */
    OwnerRun of(Owner owner) {
        return switch (owner) {
            case Owner.Strategy strategy -> all.get(strategy.index());
            case Owner.Person ignored -> hand;
        };
    }

    /** From which day on nothing is entered: that of the month in force, while it rolls already the day before the next one's. */
    Optional<LocalDate> lastTradingDay() {
        return rolls.rolling()
                ? clock.session().map(Session::tradingDate)
                : rolls.lastTradingDay(contract.lastTradingDay());
    }

    /** What is asked now is asked because of this event. */
    Cause because() {
        return new Cause(lastPrint, event);
    }

    /** The line check's entry price of an entry of a strategy. */
    long expected(Side side, Strategy.Entry entry, long price) {
        boolean beyond = entry.type() == Order.Type.STOP_LIMIT && price != Tape.NONE;
        return expected(side, entry.type(), beyond ? price + (long) side.sign() * entry.limitBeyond() : price);
    }

    /**
     * The line check's entry price: a limit's own, a stop's with slippage, a stop-limit's limit, at the market the far quote, else
     * the last price, with slippage.
     *
     * @param price limit or stop, the limit of a stop-limit; {@link Tape#NONE} at the market, or while nobody knows it
     */
    long expected(Side side, Order.Type type, long price) {
        long far = worked < 0 ? Tape.NONE : side == Side.LONG ? tape.ask(worked) : tape.bid(worked);
        long slippage = (long) side.sign() * contract.slippage();
        return switch (type) {
            case LIMIT, STOP_LIMIT -> price == Tape.NONE ? lastPrice : price;
            case STOP -> (price == Tape.NONE ? lastPrice : price) + slippage;
            case MARKET -> (far == Tape.NONE ? lastPrice : far) + slippage;
        };
    }

    /** Money that closing one contract costs: slippage and fee. */
    long closingEach() {
        return Math.addExact(contract.money(contract.slippage(), 1), fee);
    }

    /** Money that a tick against everything that is open costs. */
    long perTick() {
        return Math.multiplyExact(holding.open(), contract.tickValue());
    }

    /** Money that closing everything that is open would cost. */
    long closing() {
        return Math.multiplyExact(holding.open(), closingEach());
    }

    /** What is said of a moment before the first event: the tape's beginning. */
    long timeSaid() {
        return now != Long.MIN_VALUE ? now : tape.count() > 0 ? tape.time(0) : 0;
    }
}
