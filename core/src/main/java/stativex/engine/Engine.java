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
import stativex.market.BarSeries;
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
import stativex.rule.Program;

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
                evaluateClosed(run, false);
            }
            if (run.everyTrade()) {
                look(run, time);
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
                sendWaiting(run, session.open());
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
                evaluateClosed(run, true);
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
            evaluateClosed(run, false);
        }

        @Override
        public void windowMoment(StrategyRun run, long at) {
            now = at;
            WindowSchedule.Stretch stretch = run.stretch.orElseThrow();
            if (stretch.from() == at) {
                run.windowFlat = false;
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
            } else {
                run.nextWindowClock(at);
            }
        }
    }

    // ------------------------------------------------------------------ (3) bars close, strategies evaluate

    /** Evaluates every signal bar that has closed, oldest first. */
    private void evaluateClosed(StrategyRun run, boolean sessionCloses) {
        for (int bar = run.program.rows(); bar < run.series().count(); bar++) {
            expireEntries(run, bar);
            days.bar(now, equity(), run.index);
            tellPosition(run, bar, bar + 1);
            run.program.takeNext();
            for (Side side : Side.values()) {
                StrategyRun.SideRun rule = run.sides.get(side);
                if (rule != null) {
                    judge(run, rule, bar, sessionCloses);
                }
            }
        }
    }

    /** A signal is provisional at most once per bar; at the close it is confirmed or withdrawn. */
    private void judge(StrategyRun run, StrategyRun.SideRun rule, int bar, boolean sessionCloses) {
        boolean fires = StrategyRun.fires(rule.at(bar));
        boolean acted = rule.raised;
        rule.provisional.add(fires || acted ? 1 : 0);
        rule.raised = false;
        if (!fires || acted || run.mode == Mode.OFF || !run.historyLoaded()) {
            return;
        }
        if (sessionCloses && run.longBars()) {
            run.waiting.add(new StrategyRun.Waiting(rule.rules.side(), bar));
        } else {
            signal(run, rule, bar, sessionCloses);
        }
    }

    /** On every trade: acts on a signal the first time it is true in the bar that forms. */
    private void look(StrategyRun run, long time) {
        if (!takeForming(run, time)) {
            return;
        }
        int row = run.program.rows();
        for (Side side : Side.values()) {
            StrategyRun.SideRun rule = run.sides.get(side);
            if (rule != null && !rule.raised && StrategyRun.fires(rule.at(row))) {
                rule.raised = true;
                if (run.mode != Mode.OFF && run.historyLoaded()) {
                    signal(run, rule, row, false);
                }
            }
        }
    }

    /** Lets rules see the bar that forms. Returns whether there is one. */
    private boolean takeForming(StrategyRun run, long time) {
        Optional<BarSeries.Forming> forming = run.builder.forming();
        forming.ifPresent(bar -> {
            tellPosition(run, run.program.rows(), run.program.rows());
            run.program.takeForming(bar, time);
        });
        return forming.isPresent();
    }

    /**
     * The same for the screen: nothing is decided, counted or logged by it. A brick has no prices of its own before it
     * closes.
     */
    boolean preview(StrategyRun run) {
        return !run.series().isRenko() && takeForming(run, now);
    }

    private void tellPosition(StrategyRun run, int row, int closed) {
        if (run.program.asksForPosition()) {
            run.trade.ifPresentOrElse(trade -> {
                run.program.tell(Program.Fact.BARS_SINCE_ENTRY, row, trade.bars(closed));
                run.program.tell(Program.Fact.OPEN_RESULT, row, trade.openTicks(lastPrice));
                run.program.tell(Program.Fact.BEST_EXCURSION, row, trade.bestTicks(lastPrint, lastPrice));
                run.program.tell(Program.Fact.WORST_EXCURSION, row, trade.worstTicks(lastPrint, lastPrice));
                // what was told of a trade that has ended since, inside the same bar, is not true any more
            }, () -> run.program.tellNoPosition(row));
        }
    }

    /** Signals of day and longer bars are sent as of the next session's open and meet its first print. */
    private void sendWaiting(StrategyRun run, long open) {
        if (run.waiting.isEmpty()) {
            return;
        }
        List<StrategyRun.Waiting> due = List.copyOf(run.waiting);
        run.waiting.clear();
        // the print that brought the clock here, if one did, is the first of the session and may be met
        exchange.because(working ? lastPrint - 1 : lastPrint, open);
        for (StrategyRun.Waiting signal : due) {
            if (run.mode != Mode.OFF) {
                signal(run, run.sides.get(signal.side()), signal.bar(), false);
            }
        }
        exchange.because(lastPrint, arrived);
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

    private void signal(StrategyRun run, StrategyRun.SideRun rule, int bar, boolean sessionCloses) {
        Side side = rule.rules.side();
        long price = entryPrice(run, rule, bar);
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
                + run.strategy.entry().quantity() + rule.rules.grade(bar).map(grade -> ", grade " + grade).orElse(""),
                shown);
        rule.sent++;
        if (run.idle()) {
            run.bracket = new Bracket(run.index, side);
        }
        exchange.enter(run.bracket, run.strategy.entry().type(), run.strategy.entry().quantity(), price,
                run.strategy.entry().goodFor() instanceof Strategy.GoodFor.Day, bar);
    }

    /** The entry's price on the grid, rounded away from the market; absent ({@link Tape#NONE}) while warming up. */
    private long entryPrice(StrategyRun run, StrategyRun.SideRun rule, int bar) {
        if (rule.rules.price().isEmpty()) {
            return Tape.NONE;
        }
        double value = rule.rules.price().get().at(bar);
        if (Double.isNaN(value) || Math.abs(value) > 1e15) {
            return Tape.NONE;
        }
        boolean down = (rule.rules.side() == Side.LONG) == (run.strategy.entry().type() == Order.Type.LIMIT);
        return (long) (down ? Math.floor(value) : Math.ceil(value));
    }

    // ------------------------------------------------------------------ (4) stops of open trades

    private void manage(StrategyRun run, OpenTrade trade, int print, long price) {
        if (trade.entryPrint() < print) {
            keeper.print(trade, print, price);
        }
        if (!run.bracket.leaveSent()) {
            flatReason(run).ifPresent(reason -> flatten(run, reason));
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

    private void decide(StrategyRun run, Side side, int bar, Decision.Kind kind, String reason, String detail,
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

    SessionClock clock() {
        return clock;
    }
}
