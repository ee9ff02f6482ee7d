package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.AccountState;
import stativex.account.AccountWatch;
import stativex.account.Ledger;
import stativex.account.LockReason;
import stativex.exit.PlanRun;
import stativex.market.Join;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.InsideBars;
import stativex.order.LeaveReason;
import stativex.order.Order;

/**
 * The deterministic step: a print, a heartbeat or a command of the person goes in; decisions, orders and fills come out.
 * No clock, thread, randomness or file inside; time comes only from inputs. One print is worked in the order that
 * SEMANTICS gives: what is timed before it, changes now due, orders, bars and strategies, stops, account. Prints may also be given
 * in stretches, which come to the same: those at which nothing can happen are taken at once ({@link QuietStretch}). Not safe for
 * several threads; a print at which nothing happens allocates nothing.
 */
public final class Engine {
    /** Its side, as every decision names it. */
    private static final Optional<Side> LONG = Optional.of(Side.LONG);
    private static final Optional<Side> SHORT = Optional.of(Side.SHORT);

    private final Setup setup;
    private final Account account;
    private final Ledger ledger;
    private final AccountWatch watch;
    private final DayBook days;
    private final Log log = new Log();
    private final Evaluator evaluator = new Evaluator(this);
    private final Booking booking = new Booking(this);
    private final ByHand byHand = new ByHand(this);
    private final List<StrategyRun> runs = new ArrayList<>();
    private final List<Standpoint> standpoints = new ArrayList<>();
    private final MarketRun market;
    private final QuietStretch quiet;
    /** Equity may have changed since it was last judged. */
    private boolean dirty;

    /**
     * @param setup tape, documents and terms
     * @param state of the account as it stands before the first event
     * @throws IllegalArgumentException when a strategy is for another contract, its rules do not read, or the account
     *         states no fee
     */
    public Engine(Setup setup, AccountState state) {
        this.account = setup.account();
        if (!account.currency().equals(setup.contract().currency())) {
            throw new IllegalArgumentException("account is in " + account.currency() + ", contract in "
                    + setup.contract().currency() + ": expected the same currency");
        }
        this.ledger = new Ledger(state.balance());
        this.watch = new AccountWatch(account, state);
        this.days = new DayBook(state.balance());
        this.setup = setup;
        this.market = new MarketRun(setup, account.fee(setup.contract().symbol()), ledger, new ByTheClock(this));
        for (Strategy strategy : setup.strategies()) {
            if (!strategy.contract().equals(setup.contract().symbol())) {
                throw new IllegalArgumentException("strategy \"" + strategy.name() + "\" trades " + strategy.contract()
                        + ", the tape is " + setup.contract().symbol());
            }
            try {
                add(setup, strategy);
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("strategy \"" + strategy.name() + "\": " + e.getMessage(), e);
            }
        }
        this.quiet = new QuietStretch(this, market);
    }

    private void add(Setup setup, Strategy strategy) {
        History history = History.of(strategy.historyDays(), setup.firstDay(), setup.contract().calendar(),
                setup.tape());
        StrategyRun run = new StrategyRun(runs.size(), strategy, market,
                setup.signals(strategy, history, setup.seen()), history);
        runs.add(run);
        market.add(run);
        standpoints.add(new Standpoint(this, run));
    }

    // ------------------------------------------------------------------ inputs

    /** Works the next print of the tape; prints are given in order, none left out. */
    public void print(int print) {
        long time = market.tape.time(print);
        arrive(print, time);
        if (!market.clock.inSession()) {
            market.outsideSessions++;
            return;
        }
        long price = market.tape.price(print);
        if (market.clock.untouched()) {
            market.clock.firstPrint(setup.began(print));
        }
        market.exchange.print(print);
        reports(market);
        market.lastPrice = price;
        market.worked = print;
        market.holding.mark(price);
        for (int i = 0; i < runs.size(); i++) {
            takePrint(runs.get(i), print);
        }
        if (market.hand.trade.isPresent() && market.hand.trade.get().entryPrint() == print) {
            market.hand.trade.get().enteredIn(market.hand.guide().map(g -> g.signals.barHolding(print)).orElse(0));
        }
        for (int i = 0; i < runs.size(); i++) {
            evaluator.evaluateClosed(runs.get(i), false);
            if (runs.get(i).everyTrade()) {
                evaluator.look(runs.get(i), time);
            }
        }
        for (int i = 0; i < market.owners.size(); i++) {
            if (market.owners.get(i).trade.isPresent()) {
                manage(market.owners.get(i), market.owners.get(i).trade.get(), print, price);
            }
        }
        if (dirty) {
            judge();
        }
        market.lastInside = print;
    }

    /**
     * Works the prints {@code from} to {@code to}, the last one not included, like {@link #print} one after the other. Where bars
     * and rules of the whole tape are known, prints at which nothing can happen are taken at once.
     */
    public void prints(int from, int to) {
        int print = from;
        while (print < to) {
            print = quiet.take(print, to);
            if (print < to) {
                print(print);
                print++;
            }
        }
    }

    /**
     * Begins inside a tape, with everything off so far: before the first input, in place of all prints up to {@code print}, that one
     * included. Some of them lay in a session of an earlier trading day. Days and equity curve begin there, too.
     *
     * @return whether it did: not where rules ask for facts of the position, or bars are made as prints come; then nothing happened
     */
    public boolean beginWith(int print) {
        for (StrategyRun run : runs) {
            if (!(run.signals instanceof KnownSignals known && known.canSkip())) {
                return false;
            }
        }
        for (StrategyRun run : runs) {
            if (run.signals instanceof KnownSignals known) {
                known.skip(print, market.tape.time(print));
            }
        }
        market.clock.goesOn();
        print(print);
        return true;
    }

    private void takePrint(StrategyRun run, int print) {
        run.signals.print(print);
        if (run.timeBars) {
            market.clock.expectBar(run);
        }
        if (run.endedPrint == print) {
            run.endedBar = run.signals.barHolding(print);
        }
        if (run.trade.isPresent() && run.trade.get().entryPrint() == print) {
            run.trade.get().enteredIn(run.signals.barHolding(print));
        }
    }

    /** Tape time has reached {@code time} without a print: what ends at or before it ends. */
    public void heartbeat(long time) {
        long at = Math.max(market.now, time);
        market.event = at;
        advance(at);
    }

    /** (0) What is timed before a print that arrives; telling it twice of the same print changes nothing. */
    void arrive(int print, long time) {
        market.lastPrint = print;
        market.event = time;
        market.arriving = true;
        advance(time);
        market.arriving = false;
    }

    private void advance(long time) {
        quiet.catchUp(time);
        market.clock.advance(time);
        quiet.catchUp(time);
        market.now = time;
    }

    /** Carries out what the person asks. It acts on what has been worked so far and meets the next print. */
    public void command(Command command) {
        byHand.carryOut(command);
    }

    /** Everything leaves and the day is locked, as the person asks. */
    void flatAndLock() {
        if (watch.lockByHand()) {
            decideLock(LockReason.BY_HAND, false);
        }
        market.owners.forEach(run -> flatten(run, LeaveReason.BY_HAND));
    }

    /** Another month has come into force: its own prints and prices count from now on. */
    void rolls(Join.Leg month, long at) {
        for (StrategyRun run : runs) {
            run.rolls(setup.signals(run.strategy, run.history, month.seen()), market.lastPrint(), at);
        }
        market.rollsTo(month.before());
    }

    /** The next print is the last of the range: entries end, and what is open meets that print at the market. */
    public void rangeEnds() {
        for (OwnerRun run : market.owners) {
            dropReverse(run);
            market.orders.endEntries(run.bracket);
            run.pair.ifPresent(market.orders::endEntries);
            run.settle();
            run.flattening = LeaveReason.RANGE_END;
            if (run.bracket.open() > 0) {
                market.orders.leave(run.bracket, LeaveReason.RANGE_END, market.because());
            }
        }
    }

    /** The inputs end: what is open is closed at the last price. Call once. */
    public void finish() {
        for (OwnerRun run : market.owners) {
            if (market.clock.inSession() && run.bracket.leaveSent() && flatReason(run) != null) {
                market.exchange.assume(run.bracket, market.clock.session().orElseThrow().close());
                reports(market);
            }
            if (run.bracket.open() > 0) {
                Order leave = market.orders.leave(run.bracket, LeaveReason.OPEN_AT_END, market.because());
                market.exchange.closeAtEnd(leave, market.now);
                reports(market);
            }
        }
        if (market.lastPrice != Tape.NONE) {
            days.equity(market.now, equity());
        }
        days.end(market.now, ledger.balance());
    }

    // ------------------------------------------------------------------ (4) stops of open trades

    private void manage(OwnerRun run, TradeRun trade, int print, long price) {
        if (trade.entryPrint() < print) {
            carryOut(trade.print(print, price), trade);
            carryOut(trade.meets(market.tape, print, price), trade);
        }
        if (!run.bracket.leaveSent()) {
            LeaveReason reason = flatReason(run);
            if (reason != null || run.flattening != null) {
                flatten(run, reason != null ? reason : run.flattening);
            }
        }
    }

    void carryOut(PlanRun.Wishes wishes, TradeRun trade) {
        if (wishes != PlanRun.Wishes.NONE) {
            market.orders.carryOut(wishes, trade.bracket(), market.because());
        }
    }

    /** Everything that is open leaves at the market, entries stay; once. */
    void leave(OwnerRun run, LeaveReason reason) {
        if (run.bracket.open() > 0 && !run.bracket.leaving()) {
            market.orders.leave(run.bracket, reason, market.because());
        }
    }

    // ------------------------------------------------------------------ (5) the account

    private void judge() {
        long equity = equity();
        days.equity(market.now, equity);
        Optional<AccountWatch.Verdict> verdict = watch.judge(equity, market.closing());
        if (verdict.isPresent()) {
            decideLock(verdict.get().line().lock(), verdict.get().guarded());
            market.owners.forEach(run -> flatten(run, verdict.get().line().leave()));
        }
        dirty = !ledger.flat();
    }

    /** Why an owner must be flat now; null when nothing asks for it. */
    LeaveReason flatReason(OwnerRun run) {
        Optional<LockReason> why = watch.flatReason();
        if (why.isPresent()) {
            return switch (why.get()) {
                case DAY_LOSS -> LeaveReason.DAY_LOSS;
                case DAY_PROFIT -> LeaveReason.DAY_PROFIT;
                case DRAWDOWN_FLOOR -> LeaveReason.DRAWDOWN_FLOOR;
                case BY_HAND -> LeaveReason.BY_HAND;
            };
        }
        if (market.rolls.rolling()) {
            return LeaveReason.ROLL;
        }
        return run instanceof StrategyRun strategy && strategy.windowFlat ? LeaveReason.WINDOW_END : null;
    }

    /** What waited for an exit to be turned round is not sent any more. */
    void dropReverse(OwnerRun run) {
        if (run instanceof StrategyRun strategy && strategy.reverse.isPresent()) {
            StrategyRun.Reverse waiting = strategy.reverse.get();
            strategy.reverse = Optional.empty();
            decide(run, waiting.side(), waiting.bar(),
                    waiting.price() == Tape.NONE ? market.lastPrice : waiting.price(), new Decision.ReverseDropped());
        }
    }

    void flatten(OwnerRun run, LeaveReason reason) {
        dropReverse(run);
        cancelEntries(run);
        run.flattening = reason;
        if (run.bracket.open() > 0 && !run.bracket.leaveSent()) {
            market.orders.leave(run.bracket, reason, market.because());
        }
    }

    void cancelEntries(OwnerRun run) {
        if (run.entering()) {
            market.orders.cancelEntries(run.bracket, market.because());
            run.pair.ifPresent(other -> market.orders.cancelEntries(other, market.because()));
        }
    }

    // ------------------------------------------------------------------ what is decided

    /** Takes every report that an exchange has, one after the other. */
    void reports(MarketRun of) {
        booking.take(of);
    }

    void decide(OwnerRun run, Side side, int bar, long price, Decision.Outcome outcome) {
        log.add(new Decision(market.timeSaid(), market.lastPrint, bar, run.named, side == Side.LONG ? LONG : SHORT,
                price, outcome));
    }

    private void decideLock(LockReason reason, boolean guarded) {
        log.add(new Decision(market.timeSaid(), market.lastPrint, -1, Optional.empty(), Optional.empty(),
                market.lastPrice, new Decision.Locked(reason, guarded)));
    }

    // ------------------------------------------------------------------ what stands

    /** Prints that lay in no session so far: they moved the clock and had no other effect. */
    public int printsOutsideSessions() {
        return market.outsideSessions;
    }

    /** Market and triggered stop orders so far that were larger than the print they met. */
    public int ordersLargerThanTheirPrint() {
        return market.exchange.largerThanPrint();
    }

    /** What was assumed inside bars; empty in tick mode. */
    public Optional<InsideBars> insideBars() {
        return market.exchange.insideBars();
    }

    /** Contracts of all owners together, below 0 when short. */
    public long net() {
        return market.holding.net();
    }

    /** Whether the last input lay in a session. */
    public boolean inSession() {
        return market.clock.inSession();
    }

    /** Equity at the last price. */
    public long equity() {
        return ledger.equity();
    }

    /** What is remembered of the account. */
    public AccountState accountState() {
        return watch.state(ledger.balance());
    }

    public Log log() {
        return log;
    }

    /** Equity, drawdown and results by day. */
    public DayBook days() {
        return days;
    }

    /** Where each strategy's history begins, by index. */
    public List<History> histories() {
        return runs.stream().map(run -> run.history).toList();
    }

    /** Time of the last input; {@link Long#MIN_VALUE} before the first. */
    public long lastTime() {
        return market.now;
    }

    /** Everything the screen shows, as an immutable picture of this moment. */
    public Snapshot snapshot() {
        return new SnapshotMaker(this).make();
    }

    Account account() {
        return account;
    }

    Ledger ledger() {
        return ledger;
    }

    AccountWatch watch() {
        return watch;
    }

    List<StrategyRun> runs() {
        return runs;
    }

    Standpoint standpoint(StrategyRun run) {
        return standpoints.get(run.index);
    }

    MarketRun market() {
        return market;
    }

    Evaluator evaluator() {
        return evaluator;
    }

    /** Equity must be judged with the next print, whether or not anything is filled. */
    void judgeNext() {
        dirty = true;
    }

    /** Whether the next print must be judged even if nothing is filled, since it was not judged how things stand. */
    boolean isDirty() {
        return dirty;
    }
}
