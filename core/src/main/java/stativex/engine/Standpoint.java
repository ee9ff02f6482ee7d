package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import stativex.account.AccountWatch;
import stativex.account.Line;
import stativex.exit.PlanRun;
import stativex.interlock.CoolDown;
import stativex.interlock.InterlockKind;
import stativex.interlock.InterlockView;
import stativex.interlock.Interlocks;
import stativex.interlock.Lacking;
import stativex.interlock.LineCheck;
import stativex.interlock.Proposal;
import stativex.interlock.Situation;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.order.Order;

/** How one strategy stands in its engine, for the interlocks. */
final class Standpoint implements Situation {
    private final Engine engine;
    private final StrategyRun run;

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
            proposals.add(new Proposal(side, price, bar, false, false));
        });
        return proposals;
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
    public Optional<LocalDate> lastTradingDay() {
        return run.market.contract.lastTradingDay();
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
    public Optional<Integer> tradesADay() {
        return run.strategy.tradesADay();
    }

    @Override
    public int tradesToday() {
        return run.tradesToday;
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
    public int quantity(Side side) {
        return run.strategy.entry(side).quantity();
    }

    @Override
    public int maximumPosition() {
        return run.strategy.maximumPosition();
    }

    @Override
    public boolean warmsUp() {
        return run.sides.keySet().stream().anyMatch(
                side -> run.strategy.entry(side).priced() || run.signals.plans.get(side).asksForStudies());
    }

    @Override
    public boolean warmingUp(Proposal proposal) {
        return run.strategy.entry(proposal.side()).priced() && proposal.price() == Tape.NONE
                || !run.signals.plans.get(proposal.side()).complete(proposal.bar());
    }

    @Override
    public Optional<Line> crossed(Proposal proposal) {
        if (run.market.lastPrice == Tape.NONE) {
            return Optional.empty();
        }
        long equity = engine.equity();
        LineCheck check = new LineCheck();
        for (StrategyRun other : engine.runs()) {
            other.reverse.ifPresent(waiting -> {
                Strategy.Entry waits = other.strategy.entry(waiting.side());
                check.risk(waits.quantity(),
                        planned(other, waiting.side(), expected(other, waiting.side(), waits, waiting.price()),
                                waits.quantity(), waiting.bar()),
                        other.market.contract.tickValue(), other.market.closingEach() + other.market.fee);
            });
            // what is turned round counts as gone
            if (other != run || !proposal.turns()) {
                atRisk(check, other);
            }
        }
        long each = Math.addExact(run.market.closingEach(), run.market.fee);
        Strategy.Entry entry = run.strategy.entry(proposal.side());
        Optional<Long> distance = proposal.turns()
                ? planned(run, proposal.side(), expected(run, proposal.side(), entry, proposal.price()),
                        entry.quantity(), proposal.bar())
                : entryRisk(run, proposal.side(), entry, proposal.price(), proposal.bar());
        check.risk(entry.quantity(), distance,
                run.market.contract.tickValue(),
                each);
        return check.crossed(equity, engine.watch().lines(equity));
    }

    /** What a strategy's position and resting entries may lose until their stops. */
    private static void atRisk(LineCheck check, StrategyRun run) {
        MarketRun market = run.market;
        Bracket bracket = run.bracket;
        for (Order entry : bracket.entries()) {
            if (entry.state().live()) {
                check.risk(entry.rest(), entryRisk(run, bracket.side(),
                        new Strategy.Entry(entry.type(), entry.quantity(), new Strategy.GoodFor.Day()), entry.price(),
                        entry.closesBefore() - 1), market.contract.tickValue(),
                        market.closingEach() + market.fee);
            }
        }
        if (bracket.open() > 0) {
            Optional<Long> distance = bracket.stop()
                    .map(stop -> bracket.side().sign() * (market.lastPrice - stop.price()));
            check.risk(bracket.open(), distance, market.contract.tickValue(), market.closingEach());
        }
    }

    /**
     * Ticks from an entry's worst price to the stop that the broker will hold for it: the planned one, or, when it joins an open
     * trade, that trade's (an add never moves it away).
     *
     * @param bar whose signal it is
     */
    private static Optional<Long> entryRisk(StrategyRun run, Side side, Strategy.Entry entry, long price, int bar) {
        long worst = expected(run, side, entry, price);
        return run.bracket.open() == 0 || run.bracket.stop().isEmpty()
                ? planned(run, side, worst, entry.quantity(), bar)
                : Optional.of(side.sign() * (worst - run.bracket.stop().get().price()));
    }

    /** The line check's entry price: a limit's own, a stop's with slippage, at the market the far quote, else the last price. */
    private static long expected(StrategyRun run, Side side, Strategy.Entry entry, long price) {
        int print = run.market.worked;
        long far = print < 0
                ? Tape.NONE
                : side == Side.LONG ? run.market.tape.ask(print) : run.market.tape.bid(print);
        long slippage = (long) side.sign() * run.market.contract.slippage();
        long last = run.market.lastPrice;
        return switch (entry.type()) {
            case LIMIT -> price == Tape.NONE ? last : price;
            case STOP -> (price == Tape.NONE ? last : price) + slippage;
            case MARKET -> (far == Tape.NONE ? last : far) + slippage;
        };
    }

    /** Ticks from an entry to the broker's stop that its plan would give it; empty without a stop, or while a study warms up. */
    static Optional<Long> planned(StrategyRun run, Side side, long price, int quantity, int bar) {
        PlanRules plan = run.signals.plans.get(side);
        return plan.complete(bar)
                ? PlanRun.risk(plan.terms(), side, run.market.contract, price, quantity, plan.at(bar))
                : Optional.empty();
    }
}
