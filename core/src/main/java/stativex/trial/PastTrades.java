package stativex.trial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import stativex.account.Account;
import stativex.account.DayLimits;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.engine.PlanRules;
import stativex.engine.SideRules;
import stativex.engine.SignalPlan;
import stativex.engine.Sizing;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.exit.ExitTerms;
import stativex.exit.Leave;
import stativex.exit.Readings;
import stativex.interlock.SessionWindow;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Histories;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Fill;
import stativex.order.Order;
import stativex.order.Terms;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.rule.Worked;

/**
 * Trades that might have been: an entry at the market with the close of any bar of a tape, left by a strategy's exit plan, on the
 * prints that came, by the engine and exchange of every run. The strategy's rules, limits and hours and the account's lines are left
 * aside; of its rules only what the plan leaves on stays. Bars and studies are made once. Used by one thread at a time.
 */
public final class PastTrades {
    private static final String ALWAYS = "close = close";
    private static final int STRETCH = 2_000;

    private final Tape tape;
    private final Contract contract;
    private final Account account;
    private final Terms terms;
    private final Histories histories = new Histories();
    private final Worked worked = new Worked();

    /**
     * What came of one.
     *
     * @param trade empty when the entry was never filled
     * @param fills of the trade, the entry's first
     * @param declined why the entry was not sent, if that is what became of it
     */
    public record Outcome(Optional<Trade> trade, List<Fill> fills, Optional<Decision> declined) {
        public Outcome {
            fills = List.copyOf(fills);
        }
    }

    /**
     * @param account its fees count, its lines do not
     * @throws IllegalArgumentException when it states no fee for the contract
     */
    public PastTrades(Tape tape, Contract contract, Account account, Terms terms) {
        account.fee(contract.symbol());
        this.tape = tape;
        this.contract = contract;
        this.account = account.with(OwnLimits.NONE).with(new Rulebook(account.rulebook().name(), List.of()));
        this.terms = terms;
    }

    /** The signal bars of a strategy over the whole tape. */
    public BarSeries bars(Strategy strategy) {
        return histories.of(tape, contract.calendar(), strategy.signals().bars(), Long.MIN_VALUE,
                inputs(strategy, Map.of()).end());
    }

    private Inputs inputs(Strategy strategy, Map<String, ContractTape> others) {
        return Inputs.of(tape, contract, others, account, List.of(strategy), terms);
    }

    /**
     * What the studies that the distances of a strategy's plan take say at a bar; of other texts nothing.
     *
     * @param others contracts that it looks at, by symbol
     */
    public Readings readings(Strategy strategy, Map<String, ContractTape> others, Side side, int bar) {
        ExitTerms terms = strategy.plan().terms(side);
        Program program = new Program(strategy.signals().blueprint(contract, others), bars(strategy), worked);
        PlanRules rules = new PlanRules(program, side, terms);
        if (program.asksForPosition()) {
            return text -> Double.NaN;
        }
        program.take();
        worked.keep(program);
        Map<String, Double> values = new HashMap<>();
        Stream.of(terms.levels(), terms.widths()).flatMap(Set::stream)
                .forEach(text -> values.put(text, rules.at(bar).at(text)));
        return text -> values.getOrDefault(text, Double.NaN);
    }

    /** Bars at which a side's rules, without limits and hours, would have the strategy enter; none without a rule. */
    public List<Integer> signals(Strategy strategy, Map<String, ContractTape> others, Side side) {
        if (strategy.side(side).isEmpty()) {
            return List.of();
        }
        Program program = new Program(strategy.signals().blueprint(contract, others), bars(strategy), worked);
        SideRules rules = new SideRules(program, side, strategy.side(side).get(), strategy.signals(),
                strategy.entry(side).priced());
        if (program.asksForPosition()) {
            return List.of();
        }
        program.take();
        worked.keep(program);
        return IntStream.range(0, program.rows()).filter(bar -> rules.whole().at(bar) == Truth.TRUE).boxed().toList();
    }

    /**
     * An entry with the close of a bar.
     *
     * @param others contracts that the strategy looks at, by symbol
     * @param bar of {@link #bars}
     * @throws IllegalArgumentException when the plan does not read
     */
    public Outcome at(Strategy strategy, Map<String, ContractTape> others, Side side, int bar) {
        return at(inputs(alone(strategy, side), others), bars(strategy), side, bar);
    }

    /**
     * An entry at a price, sent with the close of a bar and good for that day: a limit where the price lies on the side of the market
     * where it waits, else a stop.
     *
     * @param price ticks
     */
    public Outcome at(Strategy strategy, Map<String, ContractTape> others, Side side, int bar, long price) {
        BarSeries bars = bars(strategy);
        Run run = begun(inputs(alone(strategy, side), others), bars, bar);
        int before = run.engine().log().decisions().size();
        Order.Type type = side.sign() * (price - bars.close(bar)) <= 0 ? Order.Type.LIMIT : Order.Type.STOP;
        run.command(new Command.Enter(side, type, strategy.entry(side).quantity(), price, Tape.NONE, OptionalInt.of(0),
                true));
        long close = contract.calendar().current(bars.end(bar))
                .map(session -> contract.calendar().sessions(session.tradingDate()).getLast().close()).orElse(0L);
        while (!run.atEnd() && run.engine().log().trades().isEmpty()
                && (!run.engine().log().fills().isEmpty() || run.nextTime() <= close)) {
            run.toPlace(run.place() + STRETCH);
        }
        return outcome(run, before);
    }

    private Run begun(Inputs alone, BarSeries bars, int bar) {
        Run run = new Run(alone, histories, worked);
        int print = bars.closedAt(bar) == Tape.NONE ? bars.closingPrint(bar) : bars.last(bar) + 1;
        run.beginAt(print);
        return run;
    }

    private Outcome at(Inputs alone, BarSeries bars, Side side, int bar) {
        Run run = begun(alone, bars, bar);
        int before = run.engine().log().decisions().size();
        run.command(new Command.SetSide(0, side.opposite(), false));
        run.command(new Command.SetOnce(0, true));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        while (!run.atEnd() && run.engine().log().trades().isEmpty()) {
            if (run.engine().log().fills().isEmpty()) {
                run.step();
                if (declined(run, before).isPresent()) {
                    run.command(new Command.SetMode(0, Mode.OFF));
                    break;
                }
            } else {
                run.toPlace(run.place() + STRETCH);
            }
        }
        return outcome(run, before);
    }

    /**
     * A would-be trade: the signal of a bar run alone, flat before it, with the strategy's own kind of entry, quantity, plan and
     * realism; no interlock counts but the session's end. Source: SEMANTICS, "Interlocks".
     */
    public Outcome wouldBe(Strategy strategy, Map<String, ContractTape> others, Side side, int bar) {
        BarSeries bars = bars(strategy);
        Strategy alone = wouldBe(strategy, side);
        Run run = begun(inputs(alone, others), bars, bar);
        int before = run.engine().log().decisions().size();
        run.command(new Command.SetSide(0, side.opposite(), false));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        long close = alone.entry(side).goodFor() instanceof Strategy.GoodFor.Day
                ? contract.calendar().current(bars.end(bar))
                        .map(session -> contract.calendar().sessions(session.tradingDate()).getLast().close())
                        .orElse(Long.MAX_VALUE)
                : Long.MAX_VALUE;
        while (!run.atEnd() && run.engine().log().trades().isEmpty()) {
            if (!run.engine().log().fills().isEmpty()) {
                run.toPlace(run.place() + STRETCH);
            } else if (run.nextTime() > close || declined(run, before).isPresent() || sentAgain(run, before)) {
                return new Outcome(Optional.empty(), List.of(), declined(run, before));
            } else {
                run.step();
            }
        }
        return outcome(run, before);
    }

    /** What was sent has ended without a fill, and the next bar has sent another entry. */
    private static boolean sentAgain(Run run, int before) {
        List<Decision> all = run.engine().log().decisions();
        return all.subList(before, all.size()).stream().filter(d -> d.outcome() instanceof Decision.Taken).count() > 1;
    }

    /** The strategy with a rule that is always true on one side, entered in its own way, and nothing that holds it back. */
    private static Strategy wouldBe(Strategy of, Side side) {
        Strategy bare = alone(of, side);
        Strategy.Entry entry = of.entry(side);
        Optional<Sizing> sizing = entry.risk().sizing().filter(Sizing.Amount.class::isInstance);
        Strategy.Entry own = new Strategy.Entry(entry.type(), entry.quantity(), entry.goodFor(), entry.reprice(),
                entry.marketAfterSeconds(), entry.towardMarket(), entry.limitBeyond(),
                new Strategy.Risk(sizing, Optional.empty()));
        Strategy.SideRule rule = new Strategy.SideRule(ALWAYS, of.side(side).flatMap(Strategy.SideRule::price));
        Strategy.Sides sides = side == Side.LONG
                ? new Strategy.Sides(Optional.of(rule), bare.shortSide())
                : new Strategy.Sides(bare.longSide(), Optional.of(rule));
        return new Strategy(bare.name(), bare.version(), bare.contract(), bare.signals(), sides, own, bare.limits(),
                bare.plan(), bare.historyDays());
    }

    private static Outcome outcome(Run run, int before) {
        run.finish();
        Optional<Trade> trade = run.engine().log().trades().stream().findFirst();
        return new Outcome(trade, run.engine().log().fills().stream()
                .filter(fill -> trade.filter(t -> fill.print() <= t.exitPrint()).isPresent()).toList(),
                trade.isPresent() ? Optional.empty() : declined(run, before));
    }

    /**
     * A trade from every signal of either side's rules, in order of time, each as if it were alone: they may overlap.
     *
     * @param others contracts that the strategy looks at, by symbol
     * @param stop asked between trades whether to give up
     * @return empty when it said so
     */
    public Optional<List<Trade>> everySignal(Strategy strategy, Map<String, ContractTape> others,
            BooleanSupplier stop) {
        List<Trade> trades = new ArrayList<>();
        for (Side side : Side.values()) {
            Inputs alone = inputs(alone(strategy, side), others);
            BarSeries bars = bars(strategy);
            for (int bar : signals(strategy, others, side)) {
                if (stop.getAsBoolean()) {
                    return Optional.empty();
                }
                at(alone, bars, side, bar).trade().ifPresent(trades::add);
            }
        }
        trades.sort(Comparator.comparingInt(Trade::entryPrint));
        return Optional.of(trades);
    }

    private static Optional<Decision> declined(Run run, int before) {
        List<Decision> all = run.engine().log().decisions();
        // once it is sent, what comes after is declined because it was
        return all.subList(before, all.size()).stream().findFirst()
                .filter(decision -> !(decision.outcome() instanceof Decision.Taken));
    }

    /** The strategy with a rule that is always true on one side, and nothing that holds an entry back. */
    private static Strategy alone(Strategy of, Side side) {
        SignalPlan plan = of.signals();
        SignalPlan signals = new SignalPlan(plan.bars(), plan.series(), plan.studies(), plan.drawings(), List.of(),
                Optional.empty(), SignalPlan.Evaluate.BAR_CLOSE, Optional.empty());
        Strategy.SideRule always = new Strategy.SideRule(ALWAYS, Optional.empty());
        // the other side's rule may be what the plan leaves on
        Optional<Strategy.SideRule> other = of.plan().terms(side).leavesOnOppositeSignal()
                ? of.side(side.opposite()).map(rule -> new Strategy.SideRule(rule.rule(), Optional.empty()))
                : Optional.empty();
        int quantity = of.entry(side).quantity();
        boolean hours = of.plan().terms(side).leaves().stream().anyMatch(Leave.WindowEnd.class::isInstance);
        return new Strategy(of.name(), of.version(), of.contract(), signals,
                side == Side.LONG
                        ? new Strategy.Sides(Optional.of(always), other)
                        : new Strategy.Sides(other, Optional.of(always)),
                new Strategy.Entry(Order.Type.MARKET, quantity, new Strategy.GoodFor.Day()),
                new Strategy.Limits(quantity, new Strategy.Joins(false, false, false, false),
                        hours ? of.windows().stream().map(SessionWindow::withoutLimits).toList() : List.of(),
                        Optional.empty(), true, Optional.empty(), Optional.empty(), DayLimits.NONE),
                of.plan(), 0);
    }
}
