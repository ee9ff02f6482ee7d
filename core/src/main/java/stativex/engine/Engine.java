package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.Floor;
import stativex.account.Ledger;
import stativex.account.Line;
import stativex.exit.ExitPlan;
import stativex.interlock.LineCheck;
import stativex.interlock.Reason;
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
    private final Optional<Floor> floor;
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
    private long dayStart;
    private Optional<String> lock = Optional.empty();
    private boolean broken;
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
        this.floor = account.rulebook().floor().map(rule -> new Floor(rule, account.start()));
        this.dayStart = account.start();
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
            case Command.SetMode c -> runs.get(c.strategy()).mode = c.mode();
            case Command.SetSide c -> Optional.ofNullable(runs.get(c.strategy()).sides.get(c.side()))
                    .ifPresent(side -> side.on = c.on());
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
                if (bracket.open() > 0 && !bracket.leaving()) {
                    exchange.leave(bracket, Math.max(1, bracket.open() / 2), "by hand");
                }
            }
            case Command.Flatten c -> flatten(runs.get(c.strategy()), "by hand");
            case Command.FlatAndLock ignored -> lockDay("by hand", "locked by hand until the next trading day");
        }
    }

    /** The inputs end: what is open is closed at the last price. Call once. */
    public void finish() {
        exchange.because(lastPrint, now);
        for (StrategyRun run : runs) {
            if (inSession && run.bracket.leaving() && flatReason(run).isPresent()) {
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
            beginDay(nextDay);
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
            if (run.bracket.leaving() && flatReason(run).isPresent()) {
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
        dayStart = lastPrice == Tape.NONE ? ledger.balance() : ledger.equity(lastPrice);
        days.begin(at, session.map(Session::tradingDate), dayStart);
        lock = Optional.empty();
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
        days.bar(now, lastPrice == Tape.NONE ? ledger.balance() : ledger.equity(lastPrice), run.index);
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
                if (entry.state().live() && bar - run.entrySentAt >= n) {
                    exchange.expire(entry);
                }
            }
        }
    }

    private void signal(StrategyRun run, Side side, StrategyRun.SideRun rule, int bar, boolean sessionCloses) {
        long price = entryPrice(run, side, rule, bar);
        Refusal refusal = refusal(run, side, price, sessionCloses);
        if (refusal != null) {
            decide(run, side, bar, Decision.Kind.DECLINED, refusal.reason().word(), refusal.detail(), lastPrice);
            return;
        }
        long shown = run.strategy.entry().type() == Order.Type.MARKET ? lastPrice : price;
        if (run.mode == Mode.WATCHING) {
            decide(run, side, bar, Decision.Kind.WOULD_BE, "", "watching: every interlock was clear", shown);
            return;
        }
        decide(run, side, bar, Decision.Kind.TAKEN, "", run.strategy.entry().type().word() + " "
                + run.strategy.entry().quantity(), shown);
        if (run.idle()) {
            run.bracket = new Bracket(run.index, side);
        }
        run.entrySentAt = bar;
        exchange.enter(run.bracket, run.strategy.entry().type(), run.strategy.entry().quantity(), price,
                run.strategy.entry().goodFor() instanceof Strategy.GoodFor.Day);
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

    private record Refusal(Reason reason, String detail) {}

    /** The first interlock that is not clear, in the order of SEMANTICS; null when every one is. */
    private Refusal refusal(StrategyRun run, Side side, long price, boolean sessionCloses) {
        Strategy strategy = run.strategy;
        if (!run.isOn(side)) {
            return new Refusal(Reason.SIDE_OFF, side.word() + " is switched off");
        }
        if (incomplete) {
            return new Refusal(Reason.SESSION_INCOMPLETE, "the tape joined this session late");
        }
        if (sessionCloses || !inSession) {
            return new Refusal(Reason.SESSION_CLOSED, "the session closed with this bar");
        }
        if (lock.isPresent()) {
            return new Refusal(Reason.LOCKED, "locked until the next trading day: " + lock.get());
        }
        if (broken) {
            return new Refusal(Reason.BROKEN, "the drawdown floor was reached");
        }
        if (!run.windowAllows(now)) {
            return new Refusal(Reason.OUTSIDE_WINDOW, Standing.windowWords(run, now));
        }
        if (contract.lastTradingDay().isPresent()
                && !session.orElseThrow().tradingDate().isBefore(contract.lastTradingDay().get())) {
            return new Refusal(Reason.LAST_TRADING_DAY, "last trading day " + contract.lastTradingDay().get());
        }
        boolean opens = run.trade.isEmpty();
        if (opens && strategy.tradesADay().isPresent()
                && run.tradesToday + (run.entering() ? 1 : 0) >= strategy.tradesADay().get()) {
            return new Refusal(Reason.TRADES_A_DAY, strategy.tradesADay().get() + " trades today");
        }
        if (!run.idle()) {
            if (run.bracket.side() != side) {
                return new Refusal(Reason.OPPOSITE_POSITION, "already " + run.bracket.side().word());
            }
            if (run.bracket.leaving()) {
                return new Refusal(Reason.LEAVING, "the position is being left");
            }
            if (!strategy.adds()) {
                return new Refusal(Reason.ADDS_NOT_ALLOWED, "already " + side.word() + ", adds are off");
            }
        }
        int held = run.idle() ? 0 : run.bracket.open() + run.bracket.entering();
        if (held + strategy.entry().quantity() > strategy.maximumPosition()) {
            return new Refusal(Reason.POSITION_LIMIT, "at most " + strategy.maximumPosition() + " contracts");
        }
        if (strategy.entry().type() != Order.Type.MARKET && price == Tape.NONE) {
            return new Refusal(Reason.WARMING_UP, "the entry price is not known yet");
        }
        Optional<Line> crossed = lineCheck(run).crossed(ledger.equity(lastPrice), lines());
        return crossed
                .map(line -> new Refusal(Reason.LINE_CHECK, "a stop-out would cross the line: " + line.name()))
                .orElse(null);
    }

    /** The line that a stop-out of one more entry of {@code run} would cross, if any. */
    Optional<Line> lineCheckFor(StrategyRun run) {
        return lastPrice == Tape.NONE ? Optional.empty() : lineCheck(run).crossed(equity(), lines());
    }

    /** What stops may still cost, the proposed entry of {@code run} included. */
    private LineCheck lineCheck(StrategyRun proposing) {
        LineCheck check = new LineCheck();
        long exitCost = Math.addExact(contract.money(contract.slippage(), 1), fee);
        for (StrategyRun run : runs) {
            Optional<Long> planned = run.strategy.plan().stop().map(stop -> stop.distance(contract));
            int entering = run.bracket.entering() + (run == proposing ? run.strategy.entry().quantity() : 0);
            if (entering > 0) {
                check.risk(entering, planned, contract.tickValue(), exitCost + fee);
            }
            if (run.bracket.open() > 0) {
                Optional<Long> distance = run.bracket.stop()
                        .map(stop -> run.bracket.side().sign() * (lastPrice - stop.price()));
                check.risk(run.bracket.open(), distance, contract.tickValue(), exitCost);
            }
        }
        return check;
    }

    // ------------------------------------------------------------------ (4) stops of open trades

    private void manage(StrategyRun run, OpenTrade trade, int print, long price) {
        if (trade.entryPrint() < print && trade.print(print, price)) {
            moveStop(trade, price);
        }
        if (!run.bracket.leaving()) {
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
        long equity = judgeResult(price);
        if (floor.isPresent() && floor.get().judge(equity) && !broken) {
            broken = true;
            decideLock("drawdown floor", "equity reached the trailing floor");
            runs.forEach(run -> flatten(run, "drawdown floor"));
        }
        if (lock.isEmpty() && !broken) {
            long result = equity - dayStart;
            if (account.dayLoss().isPresent()) {
                Account.DayLoss loss = account.dayLoss().get();
                long closing = loss.guard() ? closingCost() : 0;
                if (result - closing <= -loss.amount()) {
                    lockDay("day loss", result <= -loss.amount()
                            ? "the day loss was reached"
                            : "the guard acted: closing would have crossed the day loss");
                }
            }
            if (lock.isEmpty() && account.dayProfit().isPresent() && result >= account.dayProfit().get()) {
                lockDay("day profit", "the day profit was reached");
            }
        }
        dirty = !ledger.flat();
    }

    private long judgeResult(long price) {
        long equity = ledger.equity(price);
        days.equity(now, equity);
        return equity;
    }

    private long closingCost() {
        return Math.multiplyExact(ledger.contractsOpen(), Math.addExact(contract.money(contract.slippage(), 1), fee));
    }

    private void lockDay(String reason, String detail) {
        if (lock.isEmpty()) {
            lock = Optional.of(reason);
            decideLock(reason, detail);
        }
        runs.forEach(run -> flatten(run, reason));
    }

    /** Why a strategy must be flat now, if it must. */
    private Optional<String> flatReason(StrategyRun run) {
        if (broken) {
            return Optional.of("drawdown floor");
        }
        return lock.isPresent() ? lock : run.windowFlat ? Optional.of("window end") : Optional.empty();
    }

    private void flatten(StrategyRun run, String reason) {
        cancelEntries(run);
        if (run.bracket.open() > 0 && !run.bracket.leaving()) {
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
        log.add(new Decision(now, lastPrint, bar, run.index, Optional.of(side), kind, reason, detail, price));
    }

    private void decideLock(String reason, String detail) {
        log.add(new Decision(now, lastPrint, -1, -1, Optional.empty(), Decision.Kind.LOCKED, reason, detail,
                lastPrice));
    }

    // ------------------------------------------------------------------ what stands

    /** The lines the account is held to, as they stand with the equity at the last price taken in. */
    List<Line> lines() {
        List<Line> lines = new ArrayList<>(3);
        account.dayLoss().ifPresent(
                loss -> lines.add(new Line("Own day loss", dayStart - loss.amount(), loss.amount(), true)));
        floor.ifPresent(
                f -> lines.add(new Line("Trailing floor", f.levelWith(equity()), f.allowance(), true)));
        account.dayProfit().ifPresent(profit -> lines.add(new Line("Profit lock", dayStart + profit, profit, false)));
        return lines;
    }

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

    Optional<Floor> floor() {
        return floor;
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

    long dayStart() {
        return dayStart;
    }

    Optional<String> lock() {
        return lock;
    }

    boolean broken() {
        return broken;
    }
}
