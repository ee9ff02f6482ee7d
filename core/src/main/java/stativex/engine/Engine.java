package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import stativex.account.Account;
import stativex.account.AccountState;
import stativex.account.AccountWatch;
import stativex.account.Closing;
import stativex.account.ForThePerson;
import stativex.account.Ledger;
import stativex.account.LockReason;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;
import stativex.exit.PlanRun;
import stativex.interlock.OutOfStep;
import stativex.market.Contract;
import stativex.market.Join;
import stativex.market.SessionCalendar;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.FromBroker;
import stativex.order.InsideBars;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;

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
    private Account account;
    private final Ledger ledger;
    private final AccountWatch watch;
    private final DayBook days;
    private final Locks locks = new Locks();
    /** Own limits that hold from the account's next trading day. */
    private Optional<OwnLimits> tomorrow = Optional.empty();
    private final Log log = new Log();
    private final Evaluator evaluator = new Evaluator(this);
    private final Booking booking = new Booking(this);
    private int locked;
    private final ByHand byHand = new ByHand(this);
    private final List<StrategyRun> runs = new ArrayList<>();
    private final List<Standpoint> standpoints = new ArrayList<>();
    /** Contracts, the one that the run is of first. */
    private final List<MarketRun> markets = new ArrayList<>();
    private final List<QuietStretch> quiet = new ArrayList<>();
    /** Everyone who may have something at work: the strategies in their order, then the person on each contract. */
    private final List<OwnerRun> owners = new ArrayList<>();
    /** The contract whose event is worked, or was worked last. */
    private MarketRun current;
    private final Closing whatClosingCosts = new Closing(0, 0);
    private final Closing whatClosingAPartCosts = new Closing(0, 0);
    private Optional<OutOfStep> outOfStep = Optional.empty();
    private int orders;
    /** Trades opened by anyone since the account's trading day began. */
    private int tradesToday;

    /**
     * @param setup tape, documents and terms
     * @param state of the account as it stands before the first event
     * @throws IllegalArgumentException when a strategy is for another contract, its rules do not read, or the account
     *         states no fee
     */
    public Engine(Setup setup, AccountState state) {
        this.account = setup.account();
        this.ledger = new Ledger(state.balance());
        this.watch = new AccountWatch(account, state);
        this.days = new DayBook(state.balance(), setup.firstDay());
        this.setup = setup;
        List<Setup> parts = setup.parts();
        MarketRun.Shared shared = new MarketRun.Shared(ledger, new AccountDays(calendar(parts)), runs, markets,
                () -> ++orders);
        for (Setup part : parts) {
            if (!account.currency().equals(part.contract().currency())) {
                throw new IllegalArgumentException("account is in " + account.currency() + ", contract in "
                        + part.contract().currency() + ": expected the same currency");
            }
            markets.add(new MarketRun(part, shared, of -> new ByTheClock(this, of)));
        }
        this.current = markets.getFirst();
        for (Strategy strategy : setup.strategies()) {
            int at = IntStream.range(0, parts.size())
                    .filter(i -> parts.get(i).contract().symbol().equals(strategy.contract())).findFirst()
                    .orElseThrow(() -> notHere(strategy));
            try {
                add(parts.get(at), markets.get(at), strategy);
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("strategy \"" + strategy.name() + "\": " + e.getMessage(), e);
            }
        }
        owners.addAll(runs);
        for (MarketRun market : markets) {
            owners.add(market.hand);
            quiet.add(new QuietStretch(this, market));
        }
    }

    private IllegalArgumentException notHere(Strategy strategy) {
        if (setup.others().containsKey(strategy.contract())) {
            account.fee(strategy.contract());
        }
        return new IllegalArgumentException("strategy \"" + strategy.name() + "\" trades " + strategy.contract()
                + ", the tape is " + setup.contract().symbol());
    }

    /** The account's own: that of the contract it lists first, of those that are traded. */
    private SessionCalendar calendar(List<Setup> parts) {
        return account.fees().keySet().stream()
                .flatMap(symbol -> parts.stream().filter(part -> part.contract().symbol().equals(symbol))).findFirst()
                .map(part -> part.contract().calendar()).orElse(setup.contract().calendar());
    }

    private void add(Setup part, MarketRun market, Strategy strategy) {
        History history = History.of(strategy.historyDays(), part.firstDay(), part.contract().calendar(),
                part.tape());
        StrategyRun run = new StrategyRun(runs.size(), strategy, market,
                part.signals(strategy, history, part.seen()), history);
        runs.add(run);
        market.add(run);
        standpoints.add(new Standpoint(this, run));
    }

    // ------------------------------------------------------------------ inputs

    /** Works the next print of the run's own contract; prints are given in order, none left out. */
    public void print(int print) {
        print(0, print);
    }

    /** The same of any contract. @param of its place in {@link #contracts} */
    public void print(int of, int print) {
        MarketRun market = markets.get(of);
        // the clock may have come further than a print that was on its way: what is worked never goes back
        long time = Math.max(market.now, market.tape.time(print));
        arrive(market, print, time);
        if (!market.clock.inSession()) {
            market.outsideSessions++;
            return;
        }
        long price = market.tape.price(print);
        if (market.clock.untouched()) {
            market.clock.firstPrint(market.began(print));
        }
        market.exchange.print(print);
        reports(market);
        market.lastPrice = price;
        market.worked = print;
        market.holding.mark(price);
        List<StrategyRun> runs = market.runs;
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
        market.refused.look();
        if (market.dirty) {
            judge(market);
        }
        market.lastInside = print;
    }

    /**
     * Works the prints {@code from} to {@code to}, the last one not included, like {@link #print} one after the other. Where bars
     * and rules of the whole tape are known, prints at which nothing can happen are taken at once.
     */
    public void prints(int from, int to) {
        prints(0, from, to);
    }

    /** The same of any contract, no other's event between them. @param of its place in {@link #contracts} */
    public void prints(int of, int from, int to) {
        QuietStretch stretch = quiet.get(of);
        int print = from;
        while (print < to) {
            print = stretch.take(print, to);
            if (print < to) {
                print(of, print);
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
        if (markets.size() > 1) {
            return false;
        }
        MarketRun market = markets.getFirst();
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
            run.market.clock.expectBar(run);
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
        heartbeat(0, time);
    }

    /** The same of any contract. @param of its place in {@link #contracts} */
    public void heartbeat(int of, long time) {
        MarketRun market = markets.get(of);
        long at = Math.max(market.now, time);
        comes(market, at);
        advance(market, at);
        market.refused.look();
    }

    /** What a broker has told is taken at a moment of its own, between prints. @param of the contract's place in {@link #contracts} */
    public void told(int of, long time) {
        heartbeat(of, time);
        MarketRun market = markets.get(of);
        reports(market);
        market.refused.look();
        if (market.dirty && market.lastPrice != Tape.NONE) {
            judge(market);
        }
    }

    /**
     * Somebody traded on the account elsewhere: it is the person's.
     *
     * @param of the contract's place in {@link #contracts}
     * @param corrects it takes a fill back, or says what one was in truth: no fee is paid for it
     * @return whether it was booked: before the first print nothing can be
     */
    public boolean elsewhere(int of, FromBroker.Elsewhere told, boolean corrects) {
        MarketRun market = markets.get(of);
        if (market.lastPrint < 0) {
            return false;
        }
        booking.odd().elsewhere(market, told, corrects);
        decide(market.hand, told.buy() ? Side.LONG : Side.SHORT, -1, told.price(),
                new Decision.ByHand(Decision.Act.ADOPTED, told.quantity()));
        return true;
    }

    /**
     * Feed and broker have come into step, or fallen out of it.
     *
     * @param why they are not; empty: they are
     * @param cancels entries that rest, because it lasted
     */
    public void linked(Optional<OutOfStep> why, boolean cancels) {
        outOfStep = why;
        if (cancels) {
            owners.forEach(this::cancelEntries);
        }
    }

    /**
     * What the broker holds of the run's own contract, once that is sure: exits that would enlarge a difference are cut by that many
     * contracts, the person's first, then the newest trade's.
     *
     * @param contracts below 0 when short
     */
    public void holds(long contracts) {
        MarketRun market = market();
        long apart = contracts - net();
        int left = (int) Math.abs(apart);
        Side cut = apart < 0 ? Side.LONG : Side.SHORT;
        List<OwnerRun> newest = new ArrayList<>(market.owners.stream().filter(run -> run.trade.isPresent())
                .sorted(Comparator.<OwnerRun>comparingInt(run -> run == market.hand ? 1 : 0)
                        .thenComparingInt(run -> run.trade.orElseThrow().entryPrint()))
                .toList().reversed());
        for (OwnerRun run : newest) {
            int off = run.bracket.side() == cut ? Math.min(left, run.bracket.open()) : 0;
            left -= off;
            market.orders.missing(run.bracket, off, market.because());
            run.bracket.stop().filter(stop -> !stop.state().live() && run.bracket.covered() > 0)
                    .ifPresent(stop -> market.refused.take(run, stop));
        }
        market.refused.look();
    }

    Optional<OutOfStep> outOfStep() {
        return outOfStep;
    }

    /** An event of a contract: what is sent because of it, on whatever contract, is sent at its time. */
    void comes(MarketRun market, long time) {
        current = market;
        for (int i = 0; i < markets.size(); i++) {
            markets.get(i).event = time;
        }
    }

    /** (0) What is timed before a print that arrives; telling it twice of the same print changes nothing. */
    void arrive(MarketRun market, int print, long time) {
        market.lastPrint = print;
        comes(market, time);
        market.arriving = true;
        advance(market, time);
        market.arriving = false;
    }

    private void advance(MarketRun market, long time) {
        QuietStretch stretch = quiet.get(market.index);
        stretch.catchUp(time);
        market.clock.advance(time);
        stretch.catchUp(time);
        market.now = time;
    }

    /** Carries out what the person asks. It acts on what has been worked so far and meets the next print. */
    public void command(Command command) {
        byHand.carryOut(command);
    }

    /** Everything leaves and the day is locked, as the person asks. */
    void flatAndLock() {
        if (watch.lockByHand()) {
            decideLock(current, Optional.empty(), LockReason.BY_HAND, false);
        }
        owners.forEach(run -> flatten(run, LeaveReason.BY_HAND));
    }

    /** Another month has come into force: its own prints and prices count from now on. */
    void rolls(MarketRun market, Join.Leg month, long at) {
        market.rollsTo(month);
        for (StrategyRun run : market.runs) {
            run.rolls(market.signals(run.strategy, run.history), market.lastPrint(), at);
        }
    }

    /** The next print is the last of the range: entries end, and what is open meets that print at the market. */
    public void rangeEnds() {
        rangeEnds(0);
    }

    /** The same of any contract. @param of its place in {@link #contracts} */
    public void rangeEnds(int of) {
        MarketRun market = markets.get(of);
        for (OwnerRun run : market.owners) {
            dropReverse(run);
            market.orders.endEntries(run.bracket, market.because());
            run.pair.ifPresent(other -> market.orders.endEntries(other, market.because()));
            run.settle();
            run.flattening = LeaveReason.RANGE_END;
            if (run.bracket.open() > 0) {
                market.orders.leave(run.bracket, LeaveReason.RANGE_END, market.because());
            }
        }
    }

    /** The inputs end: what is open is closed at the last price. Call once. */
    public void finish() {
        for (OwnerRun run : owners) {
            MarketRun market = run.market;
            current = market;
            if (market.clock.inSession() && run.bracket.leaveSent() && flatIsDue(run)) {
                market.exchange.assume(run.bracket, market.clock.session().orElseThrow().close());
                reports(market);
            }
            if (run.bracket.open() > 0) {
                Order leave = market.orders.leave(run.bracket, LeaveReason.OPEN_AT_END, market.because());
                market.exchange.closeAtEnd(leave, market.now);
                reports(market);
            }
        }
        locks.take();
        long end = end();
        if (markets.stream().anyMatch(market -> market.lastPrice != Tape.NONE)) {
            days.equity(end, equity());
        }
        days.end(end, ledger.balance());
    }

    /** The last moment of the contracts that were traded: a further tape on which nothing happens ends nothing. */
    private long end() {
        boolean traded = markets.stream().anyMatch(market -> market.lastFilled >= 0);
        return markets.stream().filter(market -> !traded || market.lastFilled >= 0).mapToLong(market -> market.now)
                .max().orElseThrow();
    }

    // ------------------------------------------------------------------ (4) stops of open trades

    private void manage(OwnerRun run, TradeRun trade, int print, long price) {
        MarketRun market = run.market;
        if (trade.entryPrint() < print) {
            carryOut(market, trade.print(print, price), trade);
            carryOut(market, trade.meets(market.tape, print, price), trade);
        }
        if (!run.bracket.leaveSent()) {
            LeaveReason reason = flatReason(run);
            if (reason != null || run.flattening != null) {
                flatten(run, reason != null ? reason : run.flattening);
            }
        }
    }

    void carryOut(MarketRun market, PlanRun.Wishes wishes, TradeRun trade) {
        if (wishes != PlanRun.Wishes.NONE) {
            market.orders.carryOut(wishes, trade.bracket(), market.because());
        }
    }

    /** Everything that is open leaves at the market, entries stay; once. */
    void leave(OwnerRun run, LeaveReason reason) {
        if (run.bracket.open() > 0 && !run.bracket.leaving()) {
            run.market.orders.leaveCovered(run.bracket, reason, run.market.because());
        }
    }

    // ------------------------------------------------------------------ (5) the account

    /** After a print of a contract that is held, or on which something was filled; others cannot have changed equity. */
    private void judge(MarketRun market) {
        long equity = equity();
        days.equity(market.now, equity);
        locks.lift();
        Optional<AccountWatch.Verdict> verdict = watch.judge(equity, closing());
        if (verdict.isPresent()) {
            decideLock(market, Optional.empty(), verdict.get().line().lock(), verdict.get().guarded());
            locks.add(market, Optional.empty(), verdict.get(), this::equity, () -> watch.flatReason().isPresent());
            owners.forEach(run -> flatten(run, verdict.get().line().leave()));
        }
        if (market.limits.any()) {
            Optional<AccountWatch.Verdict> here = market.limits.judge(market.holding.result(), closing(market));
            if (here.isPresent()) {
                decideLock(market, Optional.empty(), here.get().line().lock(), here.get().guarded());
                locks.add(market, Optional.empty(), here.get(), market.holding::result,
                        () -> market.limits.lock().isPresent());
                market.owners.forEach(run -> flatten(run, here.get().line().leave()));
            }
        }
        for (int i = 0; i < market.runs.size(); i++) {
            judge(market.runs.get(i));
        }
        locks.take();
        market.dirty = market.holding.open() > 0;
    }

    /** A strategy's own lines, then those of its windows. */
    private void judge(StrategyRun run) {
        if (run.limits.any()) {
            run.limits.judge(run.position.result(), closing(run)).ifPresent(verdict -> leaves(run, verdict));
        }
        if (run.windowLimits.any()) {
            run.windowLimits.judge(run.market.now, run.position.result(), verdict -> leaves(run, verdict));
        }
    }

    private void leaves(StrategyRun run, AccountWatch.Verdict verdict) {
        decideLock(run.market, run.named, verdict.line().lock(), verdict.guarded());
        locks.add(run.market, run.named, verdict, run.position::result, () -> run.lock().isPresent());
        flattenStrategy(run, verdict.line().leave());
    }

    /** What closing a strategy's position would cost. */
    Closing closing(StrategyRun run) {
        return whatClosingAPartCosts.set(run.closing(), run.perTick());
    }

    /** What closing everything of a contract would cost. */
    Closing closing(MarketRun market) {
        return whatClosingAPartCosts.set(market.closing(), market.perTick());
    }

    /** What closing everything that is open would cost. */
    Closing closing() {
        long closing = 0;
        for (int i = 0; i < markets.size(); i++) {
            closing = Math.addExact(closing, markets.get(i).closing());
        }
        return whatClosingCosts.set(closing, perTick());
    }

    /** Money that a tick against everything that is open costs. */
    long perTick() {
        long perTick = 0;
        for (int i = 0; i < markets.size(); i++) {
            perTick = Math.addExact(perTick, markets.get(i).perTick());
        }
        return perTick;
    }

    /** Why an owner must be flat now; null when nothing asks for it. */
    LeaveReason flatReason(OwnerRun run) {
        Optional<LockReason> why = watch.flatReason();
        if (why.isPresent()) {
            return why.get().leave();
        }
        Optional<LockReason> part = partLock(run);
        if (part.isPresent()) {
            return part.get().leave();
        }
        if (run.market.rolls.rolling()) {
            return LeaveReason.ROLL;
        }
        if (run.market.rules.flatBy().isPresent()) {
            return LeaveReason.FLAT_BY;
        }
        if (run.market.rules.quietFlat(run.market.now)) {
            return LeaveReason.QUIET_TIME;
        }
        return run instanceof StrategyRun strategy && strategy.windowFlat ? LeaveReason.WINDOW_END : null;
    }

    /** Why only a contract, or one owner on it, is locked. */
    Optional<LockReason> partLock(OwnerRun run) {
        Optional<LockReason> contract = run.market.limits.lock();
        return contract.isPresent() || !(run instanceof StrategyRun strategy) ? contract : strategy.lock();
    }

    /** Whether what is leaving was to be flat before its session ends: a quiet time, or a window, may be over by then. */
    boolean flatIsDue(OwnerRun run) {
        return flatReason(run) != null || run.flattening == LeaveReason.QUIET_TIME
                || run.flattening == LeaveReason.WINDOW_DAY_LOSS || run.flattening == LeaveReason.WINDOW_DAY_PROFIT;
    }

    /** What waited for an exit to be turned round is not sent any more. */
    void dropReverse(OwnerRun run) {
        if (run instanceof StrategyRun strategy && strategy.reverse.isPresent()) {
            StrategyRun.Reverse waiting = strategy.reverse.get();
            strategy.reverse = Optional.empty();
            decide(run, waiting.side(), waiting.bar(),
                    waiting.price() == Tape.NONE ? run.market.lastPrice : waiting.price(),
                    new Decision.ReverseDropped());
        }
    }

    void flatten(OwnerRun run, LeaveReason reason) {
        dropReverse(run);
        cancelEntries(run);
        run.flattening = reason;
        if (run.bracket.open() > 0 && !run.bracket.leaveSent()) {
            run.market.orders.leaveCovered(run.bracket, reason, run.market.because());
        }
    }

    /** A strategy leaves for its own or a window's sake; the person's position on that contract goes along where that is set. */
    void flattenStrategy(StrategyRun run, LeaveReason reason) {
        flatten(run, reason);
        if (account.own().person().along()) {
            flatten(run.market.hand, reason);
        }
    }

    void cancelEntries(OwnerRun run) {
        MarketRun market = run.market;
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
        log.add(new Decision(current.timeSaid(), run.market.lastPrint, bar, run.named,
                side == Side.LONG ? LONG : SHORT, price, outcome, run.market.index));
    }

    private void decideLock(MarketRun market, Optional<Owner> of, LockReason reason, boolean guarded) {
        locked++;
        log.add(new Decision(current.timeSaid(), market.lastPrint, -1, of, Optional.empty(),
                market.lastPrice, new Decision.Locked(reason, guarded), market.index));
    }

    // ------------------------------------------------------------------ what stands

    /** Trading date of the account that has begun last; empty: none has. */
    public Optional<LocalDate> tradingDate() {
        return watch.tradingDate();
    }

    /** How often anything was locked so far. */
    public int timesLocked() {
        return locked;
    }

    /** Prints that lay in no session so far: they moved the clock and had no other effect. */
    public int printsOutsideSessions() {
        return markets.getFirst().outsideSessions;
    }

    /** Market and triggered stop orders so far that were larger than the print they met. */
    public int ordersLargerThanTheirPrint() {
        return markets.stream().mapToInt(market -> market.exchange.largerThanPrint()).sum();
    }

    /** What was assumed inside bars; empty in tick mode. */
    public Optional<InsideBars> insideBars() {
        return markets.getFirst().exchange.insideBars();
    }

    /** Trades opened by anyone since the account's trading day began. */
    int tradesToday() {
        return tradesToday;
    }

    /** Someone has opened a trade. */
    void countsTrade() {
        tradesToday++;
    }

    /** The account's trading day begins. */
    void accountDayBegins(Optional<LocalDate> date) {
        tomorrow.ifPresent(this::become);
        tomorrow = Optional.empty();
        watch.beginDay(equity(), ledger.balance(), date);
        tradesToday = 0;
    }

    /** Other own limits of the account: what is tighter holds at once, what is looser from its next trading day. */
    void change(OwnLimits next) {
        OwnLimits today = account.own().tightenedBy(next).with(account.own().quietTimes());
        become(today);
        OwnLimits then = next.with(today.quietTimes());
        tomorrow = today.equals(then) ? Optional.empty() : Optional.of(then);
    }

    private void become(OwnLimits limits) {
        account = account.with(limits);
        watch.become(account);
        markets.forEach(market -> market.limits.become(account.limits(market.contract.symbol()).day()));
        standpoints.forEach(Standpoint::anew);
    }

    /** What interlocks do with the person's own orders; quiet times of the rulebook always stop. */
    ForThePerson manners() {
        ForThePerson own = account.own().person();
        return account.rulebook().of(Rulebook.Quiet.class).findAny().isPresent()
                ? own.with(ForThePerson.Of.QUIET_TIME, ForThePerson.Response.STOP)
                : own;
    }

    /** What each line that was reached has come to. */
    public List<Lock> locks() {
        return locks.view();
    }

    /** The contracts of the run, its own first. */
    public List<Contract> contracts() {
        return markets.stream().map(market -> market.contract).toList();
    }

    /** How many of the run's own contract all owners hold together, below 0 when short. */
    public long net() {
        return markets.getFirst().holding.net();
    }

    /** Whether a stop that should be at the broker is not. */
    public boolean stopMissing() {
        return markets.stream().anyMatch(market -> market.refused.stopMissing());
    }

    /** Whether something is on its way out at the market that a broker has not filled. */
    public boolean leaving() {
        return owners.stream().anyMatch(run -> run.bracket.open() > 0 && run.bracket.leaveSent());
    }

    /** Whether the last input lay in a session. */
    public boolean inSession() {
        return markets.getFirst().clock.inSession();
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
        return current.now;
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

    /** The run's own contract. */
    MarketRun market() {
        return markets.getFirst();
    }

    List<MarketRun> markets() {
        return markets;
    }

    List<OwnerRun> owners() {
        return owners;
    }

    Evaluator evaluator() {
        return evaluator;
    }

}
