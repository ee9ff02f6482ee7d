package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.Ledger;
import stativex.exit.ExitPlan;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.order.Fill;
import stativex.order.Order;
import stativex.order.Reports;
import stativex.order.SimulatedExchange;
import stativex.order.Terms;

/**
 * The deterministic step: a print, a heartbeat or a command of the person goes in; decisions, orders and fills come out.
 * No clock, thread, randomness or file inside; time comes only from inputs. One print is worked in the order that
 * SEMANTICS gives: what is timed before it, changes now due, orders, bars and strategies, stops, account. Not safe for
 * several threads; a quiet print allocates nothing.
 */
public final class Engine implements Reports {
    /** A session whose first print comes later than this is incomplete, if it is the tape's first. */
    private static final long LATE = 60 * TapeTime.SECOND;

    private final Tape tape;
    private final Contract contract;
    private final Account account;
    private final long fee;
    private final SimulatedExchange exchange;
    private final Ledger ledger;
    private final AccountWatch watch;
    private final EntryGate gate;
    private final List<StrategyRun> runs = new ArrayList<>();
    private final Log log = new Log();
    private final DayBook days;

    private int lastPrint = -1;
    private long now = Long.MIN_VALUE;
    private long lastPrice = Tape.NONE;
    private boolean started;
    private Optional<Session> session = Optional.empty();
    private boolean inSession;
    private boolean incomplete;
    private boolean firstInSession = true;
    private long nextDay = TapeTime.NEVER;
    private long nextClock = Long.MIN_VALUE;
    private boolean dirty;

    /**
     * @throws IllegalArgumentException when a strategy is for another contract, its rules do not read, or the account
     *         states no fee
     */
    public Engine(Tape tape, Contract contract, Account account, List<Strategy> strategies, Terms terms) {
        this.tape = tape;
        this.contract = contract;
        this.account = account;
        this.fee = account.fee(contract.symbol());
        if (!account.currency().equals(contract.currency())) {
            throw new IllegalArgumentException("account is in " + account.currency() + ", contract in "
                    + contract.currency() + ": expected the same currency");
        }
        this.exchange = new SimulatedExchange(tape, contract, fee, terms, this);
        this.ledger = new Ledger(account.start(), contract.tickValue(), strategies.size());
        this.watch = new AccountWatch(account, ledger, contract.money(contract.slippage(), 1) + fee);
        this.gate = new EntryGate(this);
        this.days = new DayBook(account.start());
        for (Strategy strategy : strategies) {
            if (!strategy.contract().equals(contract.symbol())) {
                throw new IllegalArgumentException("strategy \"" + strategy.name() + "\" trades " + strategy.contract()
                        + ", the tape is " + contract.symbol());
            }
            try {
                runs.add(new StrategyRun(runs.size(), strategy, contract, tape));
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("strategy \"" + strategy.name() + "\": " + e.getMessage(), e);
            }
        }
    }

    // ------------------------------------------------------------------ inputs

    /** Works the next print of the tape; prints are given in order, none left out. */
    public void print(int print) {
        long time = tape.time(print);
        lastPrint = print;
        now = time;
        exchange.because(print, time);
        if (time >= nextClock) {
            advance(time);
        }
        if (!inSession) {
            return;
        }
        long price = tape.price(print);
        if (firstInSession) {
            firstInSession = false;
            incomplete = time - session.orElseThrow().open() > LATE;
        }
        exchange.print(print);
        lastPrice = price;
        for (int i = 0; i < runs.size(); i++) {
            StrategyRun run = runs.get(i);
            if (run.bars.add(print)) {
                run.studies.take(run.bars.series().count() - 1);
                run.barClosed = true;
            }
        }
        for (int i = 0; i < runs.size(); i++) {
            StrategyRun run = runs.get(i);
            if (run.barClosed) {
                run.barClosed = false;
                evaluate(run, false);
            }
        }
        for (int i = 0; i < runs.size(); i++) {
            StrategyRun run = runs.get(i);
            if (run.trade.isPresent()) {
                manage(run, run.trade.get(), print, price);
            }
        }
        if (dirty) {
            judge(price);
        }
    }

    /** Tape time has reached {@code time} without a print: what ends at or before it ends. */
    public void heartbeat(long time) {
        now = Math.max(now, time);
        exchange.because(lastPrint, now);
        if (now >= nextClock) {
            advance(now);
        }
    }

    /** Carries out what the person asks. It acts on what has been worked so far and meets the next print. */
    public void command(Command command) {
        exchange.because(lastPrint, now);
        switch (command) {
            case Command.SetMode c -> {
                runs.get(c.strategy()).mode = c.mode();
                if (c.mode() != Mode.ENGAGED) {
                    cancelEntries(runs.get(c.strategy()));
                }
            }
            case Command.SetSide c -> {
                StrategyRun run = runs.get(c.strategy());
                Optional.ofNullable(run.sides.get(c.side())).ifPresent(side -> side.on = c.on());
                if (!c.on() && run.bracket.side() == c.side()) {
                    cancelEntries(run);
                }
            }
            case Command.SetOnce c -> runs.get(c.strategy()).once = c.once();
            case Command.Breakeven c -> runs.get(c.strategy()).trade.ifPresent(trade -> {
                // a stop the market has passed already would be a flatten in disguise: that has its own command
                if (!trade.side().reached(trade.path().atDistance(0), lastPrice) && trade.path().byHand(0)) {
                    trade.point(lastPrint);
                    moveStop(trade, lastPrice);
                }
            });
            case Command.HalfOff c -> {
                Bracket bracket = runs.get(c.strategy()).bracket;
                if (bracket.open() > 0 && !bracket.leaving() && !bracket.takingOff()) {
                    exchange.leave(bracket, Math.max(1, bracket.open() / 2), "by hand");
                }
            }
            case Command.Flatten c -> flatten(runs.get(c.strategy()), "by hand");
            case Command.FlatAndLock ignored -> {
                if (watch.lockByHand()) {
                    decideLock("by hand", "locked by hand until the next trading day");
                }
                runs.forEach(run -> flatten(run, "by hand"));
            }
        }
    }

    /** The inputs end: what is open is closed at the last price. Call once. */
    public void finish() {
        exchange.because(lastPrint, now);
        for (StrategyRun run : runs) {
            if (inSession && run.bracket.leaveSent() && flatReason(run).isPresent()) {
                exchange.assume(run.bracket, session.orElseThrow().close(), "assumed at session end");
            }
            exchange.closeAtEnd(run.bracket, "open at end");
        }
        if (lastPrice != Tape.NONE) {
            judgeResult(lastPrice);
        }
        days.end(now, ledger.balance());
    }

    // ------------------------------------------------------------------ (0) what is timed before the input

    private void advance(long time) {
        if (!started) {
            start(time);
        }
        while (nextClock <= time) {
            long at = nextClock;
            if (inSession && session.orElseThrow().close() == at) {
                endSession(at);
            }
            if (nextDay == at) {
                beginDay(at);
            }
            for (int i = 0; i < runs.size(); i++) {
                if (runs.get(i).windowClock == at) {
                    windowEvent(runs.get(i), at);
                }
            }
            if (!inSession && session.isPresent() && session.get().open() == at) {
                openSession();
            }
            findNextClock();
        }
    }

    private void start(long time) {
        started = true;
        session = contract.calendar().current(time);
        // a first event inside a session begins that trading day; else the day begins with the next first open
        nextDay = session.map(s -> contract.calendar().sessions(s.tradingDate()).getFirst().open())
                .orElse(TapeTime.NEVER);
        for (StrategyRun run : runs) {
            run.windowsFrom(time);
        }
        if (nextDay < time) {
            // a lock that the person set before the first print is a lock of this trading day
            boolean lockedBefore = watch.lock().isPresent();
            beginDay(nextDay);
            if (lockedBefore) {
                watch.lockByHand();
            }
        }
        if (session.isPresent() && session.get().open() < time) {
            openSession();
        }
        findNextClock();
    }

    private void findNextClock() {
        nextClock = nextDay;
        if (session.isPresent()) {
            nextClock = Math.min(nextClock, inSession ? session.get().close() : session.get().open());
        }
        for (int i = 0; i < runs.size(); i++) {
            nextClock = Math.min(nextClock, runs.get(i).windowClock);
        }
    }

    private void openSession() {
        inSession = true;
        for (StrategyRun run : runs) {
            run.bars.sessionOpens(session.orElseThrow().tradingDate());
            run.studies.sessionOpens();
        }
    }

    private void endSession(long at) {
        Session ended = session.orElseThrow();
        for (StrategyRun run : runs) {
            if (run.bracket.leaveSent() && flatReason(run).isPresent()) {
                exchange.assume(run.bracket, at, "assumed at session end");
            }
        }
        for (StrategyRun run : runs) {
            if (run.bars.cut()) {
                run.studies.take(run.bars.series().count() - 1);
                evaluate(run, true);
            }
        }
        if (ended.last()) {
            exchange.closeDay(at);
        }
        if (dirty && lastPrice != Tape.NONE) {
            judgeResult(lastPrice);
        }
        inSession = false;
        if (!firstInSession) {
            incomplete = false;
        }
        session = contract.calendar().after(ended);
    }

    private void beginDay(long at) {
        nextDay = session.flatMap(s -> contract.calendar().dayAfter(s.tradingDate())).map(Session::open)
                .orElse(TapeTime.NEVER);
        watch.beginDay(equity());
        days.begin(at, session.map(Session::tradingDate), equity());
        dirty = true;
        for (StrategyRun run : runs) {
            run.tradesToday = 0;
            run.daysSeen++;
        }
    }

    private void windowEvent(StrategyRun run, long at) {
        WindowSchedule.Stretch stretch = run.stretch.orElseThrow();
        if (stretch.from() == at) {
            run.windowFlat = false;
        }
        if (stretch.end() == SessionWindow.End.FLATTEN && stretch.lastEntry() == at) {
            run.windowFlat = true;
            flatten(run, "window end");
        }
        if (stretch.to() == at) {
            if (stretch.end() == SessionWindow.End.CANCEL) {
                cancelEntries(run);
            }
            run.windowsFrom(at);
        } else {
            run.nextWindowClock(at);
        }
    }

    // ------------------------------------------------------------------ (3) bars close, strategies evaluate

    private void evaluate(StrategyRun run, boolean sessionCloses) {
        int bar = run.bars.series().count() - 1;
        expireEntries(run, bar);
        days.bar(now, equity(), run.index);
        for (Side side : Side.values()) {
            StrategyRun.SideRun rule = run.sides.get(side);
            if (rule != null && StrategyRun.fires(rule.evaluate(bar)) && run.mode != Mode.OFF && run.historyLoaded()) {
                signal(run, side, rule, bar, sessionCloses);
            }
        }
    }

    private void expireEntries(StrategyRun run, int bar) {
        if (run.strategy.entry().goodFor() instanceof Strategy.GoodFor.Bars(int n)) {
            for (Order entry : run.bracket.entries()) {
                if (entry.state().live() && bar - entry.signalBar() >= n) {
                    exchange.expire(entry);
                }
            }
        }
    }

    private void signal(StrategyRun run, Side side, StrategyRun.SideRun rule, int bar, boolean sessionCloses) {
        long price = entryPrice(run, side, rule, bar);
        EntryGate.Refusal refusal = gate.refusal(run, side, price, sessionCloses);
        if (refusal != null) {
            decide(run, side, bar, Decision.Kind.DECLINED, refusal.reason().word(), refusal.detail(), lastPrice);
            return;
        }
        if (run.mode == Mode.WATCHING) {
            decide(run, side, bar, Decision.Kind.WOULD_BE, "", "every interlock was clear", lastPrice);
            return;
        }
        long shown = run.strategy.entry().type() == Order.Type.MARKET ? lastPrice : price;
        decide(run, side, bar, Decision.Kind.TAKEN, "", run.strategy.entry().type().word() + " "
                + run.strategy.entry().quantity(), shown);
        if (run.idle()) {
            run.bracket = new Bracket(run.index, side);
        }
        exchange.enter(run.bracket, run.strategy.entry().type(), run.strategy.entry().quantity(), price,
                run.strategy.entry().goodFor() instanceof Strategy.GoodFor.Day, bar);
    }

    /** The entry's price on the grid, rounded away from the market; absent ({@link Tape#NONE}) while warming up. */
    private long entryPrice(StrategyRun run, Side side, StrategyRun.SideRun rule, int bar) {
        if (rule.price.isEmpty()) {
            return Tape.NONE;
        }
        double value = rule.price.get().at(bar);
        if (Double.isNaN(value) || Math.abs(value) > 1e15) {
            return Tape.NONE;
        }
        boolean down = (side == Side.LONG) == (run.strategy.entry().type() == Order.Type.LIMIT);
        return (long) (down ? Math.floor(value) : Math.ceil(value));
    }

    // ------------------------------------------------------------------ (4) stops of open trades

    private void manage(StrategyRun run, OpenTrade trade, int print, long price) {
        if (trade.entryPrint() < print && trade.print(print, price)) {
            moveStop(trade, price);
        }
        if (!run.bracket.leaveSent()) {
            flatReason(run).ifPresent(reason -> flatten(run, reason));
        }
    }

    /** Sends the stop where its path now stands; a level already reached leaves at the market. */
    private void moveStop(OpenTrade trade, long price) {
        Bracket bracket = trade.bracket();
        long level = trade.path().levelTicks();
        if (trade.side().reached(level, price)) {
            if (!bracket.leaving()) {
                exchange.leave(bracket, "stop at market");
            }
        } else {
            bracket.stop().ifPresent(stop -> exchange.change(stop, level, trade.path().origin().word()));
        }
    }

    // ------------------------------------------------------------------ (5) the account

    private void judge(long price) {
        for (AccountWatch.Verdict verdict : watch.judge(judgeResult(price))) {
            decideLock(verdict.reason(), verdict.detail());
            runs.forEach(run -> flatten(run, verdict.reason()));
        }
        dirty = !ledger.flat();
    }

    private long judgeResult(long price) {
        long equity = ledger.equity(price);
        days.equity(now, equity);
        return equity;
    }

    /** Why a strategy must be flat now, if it must. */
    private Optional<String> flatReason(StrategyRun run) {
        Optional<String> account = watch.flatReason();
        return account.isPresent() ? account : run.windowFlat ? Optional.of("window end") : Optional.empty();
    }

    private void flatten(StrategyRun run, String reason) {
        cancelEntries(run);
        if (run.bracket.open() > 0 && !run.bracket.leaveSent()) {
            exchange.leave(run.bracket, reason);
        }
    }

    private void cancelEntries(StrategyRun run) {
        for (Order entry : run.bracket.entries()) {
            exchange.cancel(entry);
        }
    }

    // ------------------------------------------------------------------ reports of the exchange

    @Override
    public void filled(Order order, Fill fill) {
        StrategyRun run = runs.get(order.owner());
        ledger.fill(fill.owner(), fill.buy(), fill.quantity(), fill.price(), fill.fee());
        log.add(fill);
        dirty = true;
        if (order.role() == Order.Role.ENTRY) {
            entered(run, order, fill);
        } else {
            OpenTrade trade = run.trade.orElseThrow();
            trade.exit(fill);
            if (order.bracket().open() == 0) {
                log.add(trade.view(run.bars.series().count(), fill.time(), fill.print()));
                run.trade = Optional.empty();
            }
        }
    }

    private void entered(StrategyRun run, Order order, Fill fill) {
        Bracket bracket = order.bracket();
        if (run.once) {
            run.sides.get(bracket.side()).on = false;
        }
        if (run.trade.isEmpty()) {
            run.tradesToday++;
            run.trade = Optional.of(new OpenTrade(run.tradesToday, contract, bracket, run.strategy.plan(), fill,
                    run.bars.series().count()));
        }
        OpenTrade trade = run.trade.get();
        boolean moved = trade.enter(fill);
        if (trade.path().hasLevel()) {
            boolean attached = bracket.stop().isPresent();
            exchange.attachStop(bracket, trade.path().levelTicks(), trade.path().origin().word());
            if (attached && moved && bracket.stop().get().price() != trade.path().levelTicks()) {
                exchange.change(bracket.stop().get(), trade.path().levelTicks(), trade.path().origin().word());
            }
            long beyond = bracket.side().sign() * (trade.path().levelTicks() - tape.price(fill.print()));
            if (beyond > 0 && !bracket.leaving()) {
                exchange.leave(bracket, "stop at market");
            }
        }
        offerTargets(run.strategy.plan(), trade, bracket, fill.quantity(), moved);
    }

    private void offerTargets(ExitPlan plan, OpenTrade trade, Bracket bracket, int contracts, boolean moved) {
        int[] given = trade.allot(contracts);
        for (int leg = 0; leg < given.length; leg++) {
            Optional<Long> ticks = plan.targets().get(leg).ticks();
            if (ticks.isEmpty()) {
                continue;
            }
            long price = trade.path().target(ticks.get());
            if (given[leg] > 0) {
                exchange.attachTarget(bracket, leg + 1, given[leg], price);
            }
            if (moved) {
                String reason = "target " + (leg + 1);
                for (Order target : bracket.targets()) {
                    if (target.reason().equals(reason) && target.price() != price) {
                        exchange.change(target, price, reason);
                    }
                }
            }
        }
    }

    @Override
    public void rejected(Order order, String why) {
        StrategyRun run = runs.get(order.owner());
        decide(run, order.bracket().side(), run.bars.series().count() - 1, Decision.Kind.REJECTED, why, why,
                order.price() == Tape.NONE ? lastPrice : order.price());
    }

    @Override
    public void ended(Order order) {
        // an entry's end needs nothing: what is working is asked from the bracket
    }

    private void decide(StrategyRun run, Side side, int bar, Decision.Kind kind, String reason, String detail,
            long price) {
        log.add(new Decision(clock(), lastPrint, bar, run.index, Optional.of(side), kind, reason, detail, price));
    }

    private void decideLock(String reason, String detail) {
        log.add(new Decision(clock(), lastPrint, -1, -1, Optional.empty(), Decision.Kind.LOCKED, reason, detail,
                lastPrice));
    }

    /** Time of the last input; before the first, the tape's beginning. */
    private long clock() {
        return now != Long.MIN_VALUE ? now : tape.count() > 0 ? tape.time(0) : 0;
    }

    // ------------------------------------------------------------------ what stands

    /** Equity at the last price. */
    public long equity() {
        return lastPrice == Tape.NONE ? ledger.balance() : ledger.equity(lastPrice);
    }

    public Log log() {
        return log;
    }

    /** Equity, drawdown and results by day. */
    public DayBook days() {
        return days;
    }

    /** Time of the last input; {@link Long#MIN_VALUE} before the first. */
    public long lastTime() {
        return now;
    }

    /** Everything the screen shows, as an immutable picture of this moment. */
    public Snapshot snapshot() {
        return new SnapshotMaker(this).make();
    }

    Tape tape() {
        return tape;
    }

    Contract contract() {
        return contract;
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

    EntryGate gate() {
        return gate;
    }

    List<StrategyRun> runs() {
        return runs;
    }

    SimulatedExchange exchange() {
        return exchange;
    }

    int lastPrint() {
        return lastPrint;
    }

    long now() {
        return now;
    }

    long lastPrice() {
        return lastPrice;
    }

    long fee() {
        return fee;
    }

    Optional<Session> session() {
        return session;
    }

    boolean inSession() {
        return inSession;
    }

    boolean incomplete() {
        return incomplete;
    }
}
