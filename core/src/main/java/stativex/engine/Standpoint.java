package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import stativex.account.AccountWatch;
import stativex.account.Line;
import stativex.account.LockReason;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.exit.PlanRun;
import stativex.interlock.CoolDown;
import stativex.interlock.InterlockKind;
import stativex.interlock.InterlockView;
import stativex.interlock.Interlocks;
import stativex.interlock.Lacking;
import stativex.interlock.OutOfStep;
import stativex.interlock.Proposal;
import stativex.interlock.Refusal;
import stativex.interlock.Situation;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Bracket;

/** How one strategy stands in its engine, for the interlocks. */
final class Standpoint implements Situation {
    private final Engine engine;
    private final StrategyRun run;
    private Interlocks.Gate gate;

    Standpoint(Engine engine, StrategyRun run) {
        this.engine = engine;
        this.run = run;
    }

    /** What it would propose now, of each side that it has. */
    List<Proposal> proposals() {
        List<Proposal> proposals = new ArrayList<>(2);
        run.sides.forEach((side, rule) -> {
            int bar = run.signals.judged() - 1;
            long price = bar < 0 ? Tape.NONE : Evaluator.entryPrice(run, rule, bar);
            proposals.add(proposal(side, price, bar, false, Proposal.Joins.BESIDE));
        });
        return proposals;
    }

    /**
     * An entry with the quantity that it asks for: the fixed one, or the largest whose stop-out is within what it may cost.
     *
     * @param bar whose signal it is, the one that forms included
     */
    Proposal proposal(Side side, long price, int bar, boolean withClose, Proposal.Joins joins) {
        Strategy.Entry entry = run.entry(side);
        // a plan takes studies of closed bars only
        int closed = Math.min(bar, run.signals.closed() - 1);
        Proposal fixed = new Proposal(side, price, closed, withClose, joins, entry.quantity());
        if (entry.risk().sizing().isEmpty()) {
            return fixed;
        }
        int quantity = warmingUp(fixed) || priceless() ? 0 : fixed.quantity();
        if (quantity > 0) {
            long distance = Exposure.nearest(engine, run);
            while (quantity > 0 && !within(entry.risk().sizing().get(), stopOut(fixed.of(quantity)), distance)) {
                quantity--;
            }
        }
        return fixed.of(quantity);
    }

    /** What the account has set has changed. */
    void anew() {
        gate = null;
    }

    /** Asks every interlock for an entry. */
    Interlocks.Answer ask(Proposal proposal) {
        if (gate == null) {
            gate = new Interlocks.Gate(this);
        }
        return gate.ask(this, proposal);
    }

    private static boolean within(Sizing sizing, Optional<Long> cost, long nearest) {
        return cost.isPresent() && switch (sizing) {
            case Sizing.Amount amount -> cost.get() <= amount.money();
            case Sizing.Percent percent -> nearest != AccountWatch.NO_LINE && percent.holds(cost.get(), nearest);
        };
    }

    /** How a strategy stands, read off the same interlocks that its entries meet. */
    StrategyState state() {
        if (run.trade.isPresent()) {
            Side side = run.bracket.side();
            return run.bracket.leaving()
                    ? new StrategyState.Leaving(side, run.bracket.open())
                    : new StrategyState.InTrade(side, run.bracket.open(), run.mode);
        }
        if (run.mode == Mode.OFF) {
            return new StrategyState.Off();
        }
        if (!run.evaluates()) {
            return new StrategyState.FeedingStudies(run.strategy.historyDays());
        }
        List<Proposal> proposals = proposals();
        if (run.entering()) {
            // that its own entry holds further ones back is no news
            Optional<InterlockView> held = Interlocks.views(this, proposals).stream()
                    .filter(view -> view.every() && view.kind().compareTo(InterlockKind.TRADES) < 0).findFirst();
            return held
                    .<StrategyState>map(
                            view -> new StrategyState.NotTrading(view.refusals().stream().distinct().toList()))
                    .orElseGet(StrategyState.Entering::new);
        }
        List<Proposal> passing = proposals.stream().filter(p -> Interlocks.refusal(this, p).isEmpty()).toList();
        if (passing.isEmpty()) {
            return new StrategyState.NotTrading(proposals.stream().flatMap(p -> Interlocks.refusal(this, p).stream())
                    .distinct().toList());
        }
        return run.mode == Mode.WATCHING
                ? new StrategyState.Watching()
                : new StrategyState.Waiting(Set.copyOf(passing.stream().map(Proposal::side).toList()));
    }

    @Override
    public long now() {
        return run.market.now;
    }

    @Override
    public boolean off() {
        return run.mode == Mode.OFF;
    }

    @Override
    public boolean on(Side side) {
        return run.isOn(side);
    }

    @Override
    public Optional<OutOfStep> outOfStep() {
        return engine.outOfStep();
    }

    @Override
    public Optional<Lacking> lacking() {
        return run.needsWholeSession() ? run.market.clock.lacking() : Optional.empty();
    }

    @Override
    public Optional<Session> session() {
        return run.market.clock.session();
    }

    @Override
    public boolean inSession() {
        return run.market.clock.inSession();
    }

    @Override
    public AccountWatch account() {
        return engine.watch();
    }

    @Override
    public WindowSchedule windows() {
        return run.schedule;
    }

    @Override
    public Optional<WindowSchedule.Stretch> stretch() {
        return run.stretch;
    }

    @Override
    public Optional<Rulebook.FlatBy> flatRule() {
        return run.market.rules.flatRule();
    }

    @Override
    public Optional<QuietTimes.Quiet> nextQuiet() {
        return run.market.rules.nextQuiet();
    }

    @Override
    public Optional<Rulebook.FlatBy> flatBy() {
        return run.market.rules.flatBy();
    }

    @Override
    public boolean hasQuietTimes() {
        return run.market.rules.hasQuiet();
    }

    @Override
    public Optional<QuietTimes.Quiet> quiet() {
        return run.market.rules.quietAt(now());
    }

    @Override
    public Optional<LocalDate> lastTradingDay() {
        return run.market.lastTradingDay();
    }

    @Override
    public Optional<CoolDown> coolDown() {
        return run.strategy.limits().coolDown();
    }

    @Override
    public boolean coolingDown(Proposal proposal) {
        return coolDown().filter(cool -> run.hasEnded && (run.endedNet < 0 || !cool.onlyAfterLosses())
                && (cool.bars().isPresent()
                        ? proposal.bar() < run.endedBar + cool.bars().getAsInt()
                        : now() < run.endedTime + cool.minutes().getAsInt() * 60 * TapeTime.SECOND))
                .isPresent();
    }

    @Override
    public Optional<Integer> largestSpread() {
        return run.strategy.limits().largestSpread();
    }

    @Override
    public OptionalLong spread() {
        int print = run.market.worked;
        boolean quoted = print >= 0 && run.market.tape.bid(print) != Tape.NONE
                && run.market.tape.ask(print) != Tape.NONE;
        return quoted
                ? OptionalLong.of(run.market.tape.ask(print) - run.market.tape.bid(print))
                : OptionalLong.empty();
    }

    @Override
    public Optional<LockReason> partLock() {
        return engine.partLock(run);
    }

    @Override
    public List<TradeCount> tradeCounts(boolean pairs) {
        List<TradeCount> counts = Counts.trades(engine, run, pairs);
        run.strategy.tradesADay().ifPresent(most -> counts.addFirst(new TradeCount(Refusal.Of.STRATEGY, run.tradesToday,
                Counts.mayOpen(run, pairs), most)));
        return counts;
    }

    @Override
    public Optional<Refusal.MostContracts> tooMany(Proposal proposal) {
        return Counts.tooMany(engine, run, proposal);
    }

    @Override
    public boolean sizesContracts() {
        return Counts.sizes(engine, run.market);
    }

    @Override
    public Optional<SignalCount> signals(Side side) {
        return run.strategy.signals().most().filter(most -> run.sides.containsKey(side))
                .map(most -> new SignalCount(run.sides.get(side).sent, most.signals(), most.period()));
    }

    @Override
    public Bracket bracket() {
        return run.bracket;
    }

    @Override
    public boolean inTrade() {
        return run.trade.isPresent();
    }

    @Override
    public boolean adds() {
        return run.strategy.adds();
    }

    @Override
    public int held(Side side) {
        return run.held(side);
    }

    @Override
    public boolean cuts() {
        return run.strategy.limits().joins().cutting();
    }

    @Override
    public boolean weighsRisk() {
        return run.sides.keySet().stream().map(side -> run.entry(side).risk())
                .anyMatch(risk -> risk.sizing().isPresent() || risk.cap().isPresent());
    }

    @Override
    public Optional<Long> riskCap(Side side) {
        return run.entry(side).risk().cap();
    }

    @Override
    public Optional<Long> stopOut(Proposal p) {
        PlanRules plan = run.signals.plans.get(p.side());
        if (!plan.complete(p.bar())) {
            return Optional.empty();
        }
        MarketRun market = run.market;
        Optional<Long> initial = PlanRun.initialStop(plan.terms(), p.side(), market.contract, expected(p), p.quantity(),
                plan.at(p.bar()));
        return initial.map(ticks -> Math.multiplyExact(p.quantity(), Math.addExact(
                Math.multiplyExact(Math.max(0, ticks), market.contract.tickValue()),
                Math.addExact(market.closingEach(), market.fee))));
    }

    @Override
    public int maximumPosition() {
        return run.strategy.maximumPosition();
    }

    @Override
    public boolean warmsUp() {
        return run.sides.keySet().stream().anyMatch(
                side -> run.entry(side).priced() || run.signals.plans.get(side).asksForStudies());
    }

    @Override
    public boolean warmingUp(Proposal proposal) {
        return run.entry(proposal.side()).priced() && proposal.price() == Tape.NONE
                || !run.signals.plans.get(proposal.side()).complete(proposal.bar());
    }

    @Override
    public boolean priceless() {
        return run.market.lastPrice == Tape.NONE;
    }

    @Override
    public Optional<Line> crossed(Proposal proposal) {
        if (priceless()) {
            return Optional.empty();
        }
        return Exposure.crossed(engine, run, Optional.of(new Exposure.Proposed(proposal.side(), expected(proposal),
                proposal.quantity(), proposal.bar(), proposal.turns())), OptionalLong.empty(), line -> true);
    }

    private long expected(Proposal p) {
        return run.market.expected(p.side(), run.entry(p.side()), p.price());
    }
}
