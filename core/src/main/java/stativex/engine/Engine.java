package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.Ledger;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
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
    private final Tape tape;
    private final Contract contract;
    private final Account account;
    private final long fee;
    private final SimulatedExchange exchange;
    private final Ledger ledger;
    private final AccountWatch watch;
    private final EntryGate gate;
    private final Evaluator evaluator = new Evaluator(this);
    private final List<StrategyRun> runs = new ArrayList<>();
    private final Log log = new Log();
    private final DayBook days;
    private final SessionClock clock;
    private final TradeKeeper keeper;

    private int lastPrint = -1;
    /** The moment that is worked: an input's time, before it what ends by the clock at its own. */
    private long now = Long.MIN_VALUE;
    /** Time of the input that is worked. */
    private long arrived = Long.MIN_VALUE;
    private long lastPrice = Tape.NONE;
    private boolean dirty;
    /** The clock moves because a print arrived. */
    private boolean working;
    private int outsideSessions;

    /**
     * @param others further contracts that strategies look at, by symbol
     * @throws IllegalArgumentException when a strategy is for another contract, its rules do not read, or the account
     *         states no fee
     */
    public Engine(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
            List<Strategy> strategies, Terms terms) {
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
        this.clock = new SessionClock(tape, contract.calendar(), runs, new ByTheClock());
        this.keeper = new TradeKeeper(tape, contract, exchange);
        for (Strategy strategy : strategies) {
            if (!strategy.contract().equals(contract.symbol())) {
                throw new IllegalArgumentException("strategy \"" + strategy.name() + "\" trades " + strategy.contract()
                        + ", the tape is " + contract.symbol());
            }
            try {
                runs.add(new StrategyRun(runs.size(), strategy, contract, tape, others));
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
        exchange.because(print, time);
        working = true;
        advance(time);
        working = false;
        if (!clock.inSession()) {
            outsideSessions++;
            return;
        }
        long price = tape.price(print);
        clock.printInSession(time);
        exchange.print(print);
        lastPrice = price;
        for (int i = 0; i < runs.size(); i++) {
            StrategyRun run = runs.get(i);
            run.builder.print(print);
            if (run.timeBars) {
                clock.expectBar(run);
            }
            if (run.trade.isPresent() && run.trade.get().entryPrint() == print) {
                run.trade.get().enteredIn(run.barHolding(print));
            }
        }
        for (int i = 0; i < runs.size(); i++) {
            StrategyRun run = runs.get(i);
            if (run.series().count() > run.program.rows()) {
                evaluator.evaluateClosed(run, false);
            }
            if (run.everyTrade()) {
                evaluator.look(run, time);
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
        long at = Math.max(now, time);
        exchange.because(lastPrint, at);
        advance(at);
    }

    private void advance(long time) {
        arrived = time;
        clock.advance(time);
        now = time;
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
            case Command.Breakeven c -> runs.get(c.strategy()).trade
                    .ifPresent(trade -> keeper.breakeven(trade, lastPrint, lastPrice));
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
            if (clock.inSession() && run.bracket.leaveSent() && flatReason(run).isPresent()) {
                exchange.assume(run.bracket, clock.session().orElseThrow().close(), "assumed at session end");
            }
            exchange.closeAtEnd(run.bracket, "open at end");
        }
        if (lastPrice != Tape.NONE) {
            judgeResult(lastPrice);
        }
        days.end(now, ledger.balance());
    }

    // ------------------------------------------------------------------ (0) what is timed before the input

    private final class ByTheClock implements SessionClock.Moments {
        @Override
        public void sessionOpens(Session session) {
            now = session.open();
            for (StrategyRun run : runs) {
                run.builder.heartbeat(session.open());
                run.countAnew(SignalPlan.Within.SESSION);
                if (!run.waiting.isEmpty()) {
                    // the print that brought the clock here, if one did, is the first of the session and may be met
                    exchange.because(working ? lastPrint - 1 : lastPrint, session.open());
                    evaluator.sendWaiting(run);
                    exchange.because(lastPrint, arrived);
                }
            }
        }

        @Override
        public void sessionEnds(Session ended) {
            now = ended.close();
            for (StrategyRun run : runs) {
                if (run.bracket.leaveSent() && flatReason(run).isPresent()) {
                    exchange.assume(run.bracket, ended.close(), "assumed at session end");
                }
            }
            for (StrategyRun run : runs) {
                run.builder.heartbeat(ended.close());
                if (run.series().isRenko() && run.builder.begunAnew()) {
                    run.trade.ifPresent(trade -> trade.formingBarDiscarded(run.series().count()));
                }
                evaluator.evaluateClosed(run, true);
            }
            if (ended.last()) {
                exchange.closeDay(ended.close());
            }
            if (dirty && lastPrice != Tape.NONE) {
                judgeResult(lastPrice);
            }
        }

        @Override
        public void dayBegins(long at, Optional<LocalDate> date) {
            now = at;
            watch.beginDay(equity());
            days.begin(at, date, equity());
            dirty = true;
            for (StrategyRun run : runs) {
                run.tradesToday = 0;
                run.countAnew(SignalPlan.Within.DAY);
                run.daysSeen++;
            }
        }

        @Override
        public void barMoment(StrategyRun run, long at) {
            now = at;
            run.builder.heartbeat(at);
            // what only an event at or after the session's close brings is too late for an entry in it
            evaluator.evaluateClosed(run, arrived >= clock.session().orElseThrow().close());
        }

        @Override
        public void windowMoment(StrategyRun run, long at) {
            now = at;
            WindowSchedule.Stretch stretch = run.stretch.orElseThrow();
            if (stretch.from() == at) {
                run.windowFlat = false;
            }
            if (run.windowBegins(at)) {
                run.countAnew(SignalPlan.Within.WINDOW);
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
                if (run.windowBegins(at)) {
                    run.windowFlat = false;
                    run.countAnew(SignalPlan.Within.WINDOW);
                }
            } else {
                run.nextWindowClock(at);
            }
        }
    }

    // ------------------------------------------------------------------ (4) stops of open trades

    private void manage(StrategyRun run, OpenTrade trade, int print, long price) {
        if (trade.entryPrint() < print) {
            keeper.print(trade, print, price);
        }
        if (!run.bracket.leaveSent()) {
            flatReason(run).or(() -> run.flattening).ifPresent(reason -> flatten(run, reason));
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
        run.flattening = Optional.of(reason);
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
                log.add(trade.view(run.series().count(), fill.time(), fill.print()));
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
            run.trade = Optional.of(keeper.open(run.tradesToday, run, fill));
        }
        keeper.entered(run.trade.get(), fill);
    }

    @Override
    public void rejected(Order order, String why) {
        StrategyRun run = runs.get(order.owner());
        decide(run, order.bracket().side(), run.series().count() - 1, Decision.Kind.REJECTED, why, why,
                order.price() == Tape.NONE ? lastPrice : order.price());
    }

    @Override
    public void ended(Order order) {
        // an entry's end needs nothing: what is working is asked from the bracket
    }

    void decide(StrategyRun run, Side side, int bar, Decision.Kind kind, String reason, String detail,
            long price) {
        log.add(new Decision(timeSaid(), lastPrint, bar, run.index, Optional.of(side), kind, reason, detail, price));
    }

    private void decideLock(String reason, String detail) {
        log.add(new Decision(timeSaid(), lastPrint, -1, -1, Optional.empty(), Decision.Kind.LOCKED, reason, detail,
                lastPrice));
    }

    /** Prints that lay in no session so far: they moved the clock and had no other effect. */
    public int printsOutsideSessions() {
        return outsideSessions;
    }

    /** Market and triggered stop orders so far that were larger than the print they met. */
    public int ordersLargerThanTheirPrint() {
        return exchange.largerThanPrint();
    }

    /** Whether the last input lay in a session. */
    public boolean inSession() {
        return clock.inSession();
    }

    /** Time of the last input; before the first, the tape's beginning. */
    private long timeSaid() {
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

    Evaluator evaluator() {
        return evaluator;
    }

    SessionClock clock() {
        return clock;
    }
}
