package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.exit.Leave;
import stativex.exit.PlanRun;
import stativex.interlock.Interlocks;
import stativex.interlock.Proposal;
import stativex.interlock.Refusal;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.order.Cause;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Orders;
import stativex.rule.Program;

/**
 * Step (3) of a print: bars that have closed are evaluated, and a signal that passes every interlock sends its entry.
 * SEMANTICS, "Evaluation moments" and "Interlocks".
 */
final class Evaluator {
    private final Engine engine;

    Evaluator(Engine engine) {
        this.engine = engine;
    }

    /**
     * Evaluates every signal bar that has closed, oldest first; what expires with any of them has expired before.
     *
     * @param withClose at a session's close, or what only that brought
     */
    void evaluateClosed(StrategyRun run, boolean withClose) {
        if (run.signals.judged() < run.signals.closed()) {
            expireEntries(run);
        }
        while (run.signals.judged() < run.signals.closed()) {
            int bar = run.signals.judged();
            engine.days().bar(run.market.now, engine.equity(), run.index);
            tellPosition(run, bar, bar + 1);
            run.signals.judgeNext();
            manage(run, run, bar);
            if (run.market.hand.guide().orElse(null) == run) {
                manage(run.market.hand, run, bar);
            }
            reprice(run, bar);
            boolean pairs = pairs(run, bar);
            for (Side side : Side.values()) {
                StrategyRun.SideRun rule = run.sides.get(side);
                if (rule != null) {
                    judge(run, rule, bar, withClose, pairs);
                }
            }
        }
    }

    /** Whether both sides give a signal at this moment that is to rest as a two-sided entry: nothing of the strategy is at work. */
    private static boolean pairs(StrategyRun run, int row) {
        if (!run.strategy.limits().joins().twoSided() || !run.bracket.idle() || run.sides.size() < 2) {
            return false;
        }
        for (Side side : Side.values()) {
            if (run.sides.get(side).raised || !run.signals.fires(side, row)) {
                return false;
            }
        }
        return true;
    }

    /** What a signal of a side goes together with. @param pairs both sides give one at this moment */
    private static Proposal.Joins joins(StrategyRun run, Side side, boolean pairs) {
        if (turns(run, side)) {
            return Proposal.Joins.TURNS;
        }
        return pairs && side == Side.SHORT && !run.bracket.idle() ? Proposal.Joins.PAIRS : Proposal.Joins.BESIDE;
    }

    /** A signal is provisional at most once per bar; at the close it is confirmed or withdrawn. */
    private void judge(StrategyRun run, StrategyRun.SideRun rule, int bar, boolean withClose, boolean pairs) {
        boolean fires = run.signals.fires(rule.rules.side(), bar);
        boolean acted = rule.raised;
        if (run.everyTrade()) {
            rule.provisional.add(fires || acted ? 1 : 0);
            rule.raised = false;
        }
        if (!fires || acted) {
            return;
        }
        Proposal.Joins joins = joins(run, rule.rules.side(), pairs);
        opposite(run, rule.rules.side(), joins);
        oppositeByHand(run, rule.rules.side());
        if (run.mode == Mode.OFF || !run.evaluates()) {
            return;
        }
        if (withClose && run.longBars()) {
            run.waiting.add(new StrategyRun.Waiting(rule.rules.side(), bar));
        } else {
            signal(run, rule, new Signal(bar, withClose, joins), run.market.because());
        }
    }

    /** What the close of a bar does to an open trade: its stop and targets first, then the leaves in their order. */
    private void manage(OwnerRun run, StrategyRun guide, int bar) {
        if (run.trade.isEmpty() || !run.trade.get().plan().needsBars()) {
            return;
        }
        TradeRun trade = run.trade.get();
        if (!trade.began(bar)) {
            trade.read(bar);
            return;
        }
        MarketRun market = run.market;
        boolean belongs = guide.signals.last(bar) == market.lastPrint && trade.entryPrint() < market.lastPrint;
        PlanRun.BarClose closed = new PlanRun.BarClose(guide.series().close(bar), trade.bars(bar + 1),
                belongs ? OptionalLong.of(market.lastPrice) : OptionalLong.empty());
        engine.carryOut(market, trade.barClosed(closed, bar, market.lastPrint, market.lastPrice), trade);
        if (!run.bracket.leaving()) {
            trade.plan().departure(closed).ifPresentOrElse(
                    departure -> market.orders.carryOut(departure, run.bracket, market.because()),
                    () -> leaveByRule(run, trade, bar));
        }
    }

    private void leaveByRule(OwnerRun run, TradeRun trade, int row) {
        for (Leave.Rule rule : trade.rules().due(row)) {
            if (!run.bracket.leaving() && trade.plan().waitsFor(rule)) {
                run.market.orders.carryOut(trade.plan().rule(rule, run.bracket.open()), run.bracket,
                        run.market.because());
            }
        }
    }

    /** A signal of the other side: the plan may leave on it, and then an entry that has not filled ends, too. */
    private void opposite(StrategyRun run, Side side, Proposal.Joins joins) {
        if (joins == Proposal.Joins.PAIRS || !run.plan(side.opposite()).leavesOnOppositeSignal
                || run.held(side.opposite()) == 0) {
            return;
        }
        Optional<Bracket> other = run.atWork(side.opposite());
        if (other.isPresent()) {
            engine.leave(run, LeaveReason.OPPOSITE_SIGNAL);
            run.market.orders.cancelEntries(other.get(), run.market.because());
        }
    }

    /** The same for a position of the person's that this strategy's plan leads. */
    private void oppositeByHand(StrategyRun run, Side side) {
        HandRun hand = run.market.hand;
        if (hand.guide().orElse(null) == run && hand.bracket.side() != side && hand.terms().leavesOnOppositeSignal()) {
            engine.leave(hand, LeaveReason.OPPOSITE_SIGNAL);
        }
    }

    /** On every trade: acts on a signal the first time it is true in the bar that forms. */
    void look(StrategyRun run, long time) {
        if (!takeForming(run, time)) {
            return;
        }
        int row = run.signals.judged();
        for (OwnerRun owner : run.market.guidedBy(run)) {
            owner.trade.filter(trade -> trade.rules().leavesByRule())
                    .ifPresent(trade -> leaveByRule(owner, trade, row));
        }
        boolean pairs = pairs(run, row);
        for (Side side : Side.values()) {
            StrategyRun.SideRun rule = run.sides.get(side);
            if (rule != null && !rule.raised && run.signals.fires(side, row)) {
                rule.raised = true;
                Proposal.Joins joins = joins(run, side, pairs);
                opposite(run, side, joins);
                oppositeByHand(run, side);
                if (run.mode != Mode.OFF && run.evaluates()) {
                    signal(run, rule, new Signal(row, false, joins), run.market.because());
                }
            }
        }
    }

    /** Lets rules see the bar that forms. Returns whether there is one. */
    private boolean takeForming(StrategyRun run, long time) {
        tellPosition(run, run.signals.judged(), run.signals.judged());
        return run.signals.judgeForming(time);
    }

    /**
     * The same for the screen: nothing is decided, counted or logged by it. A brick has no prices of its own before it
     * closes.
     */
    boolean preview(StrategyRun run) {
        return !run.series().isRenko() && takeForming(run, run.market.now);
    }

    private void tellPosition(StrategyRun run, int row, int closed) {
        Program program = run.signals.program;
        if (program.asksForPosition()) {
            MarketRun market = run.market;
            run.trade.ifPresentOrElse(trade -> {
                program.tell(Program.Fact.BARS_SINCE_ENTRY, row, trade.bars(closed));
                program.tell(Program.Fact.OPEN_RESULT, row, trade.openTicks(market.lastPrice));
                program.tell(Program.Fact.BEST_EXCURSION, row, trade.bestTicks(market.lastPrint, market.lastPrice));
                program.tell(Program.Fact.WORST_EXCURSION, row, trade.worstTicks(market.lastPrint, market.lastPrice));
                // what was told of a trade that has ended since, inside the same bar, is not true any more
            }, () -> program.tellNoPosition(row));
            tellTrades(run, row);
        }
    }

    private void tellTrades(StrategyRun run, int row) {
        Program program = run.signals.program;
        List<Trade> ended = engine.log().trades(run.owner);
        program.tell(Program.Fact.TRADES_TODAY, row, run.tradesToday);
        program.tell(Program.Fact.RESULT_TODAY, row, (double) run.resultToday() / Money.UNIT);
        int losses = 0;
        while (losses < ended.size() && ended.get(ended.size() - 1 - losses).net() < 0) {
            losses++;
        }
        program.tell(Program.Fact.LOSSES_IN_A_ROW, row, losses);
        boolean none = ended.isEmpty();
        program.tell(Program.Fact.BARS_SINCE_EXIT, row,
                none ? Double.NaN : row - barOf(run, ended.getLast().exitPrint(), row));
        program.tell(Program.Fact.MINUTES_SINCE_EXIT, row,
                none ? Double.NaN : (run.market.now - ended.getLast().exitTime()) / (60.0 * TapeTime.SECOND));
        program.tell(Program.Fact.LAST_RESULT, row, none ? Double.NaN : (double) ended.getLast().net() / Money.UNIT);
        program.tell(Program.Fact.LAST_RESULT_IN_R, row, none
                ? Double.NaN
                : ended.getLast().inR(run.market.contract, run.market.fee).orElse(Double.NaN));
    }

    /** The last of the bars up to {@code row} that begins with a print or before it; it holds that print, or ended before it. */
    private static int barOf(StrategyRun run, int print, int row) {
        int bar = Math.min(row, run.series().count() - 1);
        if (bar < 0) {
            return row;
        }
        while (bar > 0 && run.signals.first(bar) > print) {
            bar--;
        }
        // the bar that forms has no row among the closed ones
        return row > bar && bar == run.series().count() - 1 && run.signals.last(bar) < print ? row : bar;
    }

    /** Signals of day and longer bars are sent as of the next session's open, because of {@code opening}. */
    void sendWaiting(StrategyRun run, Cause opening) {
        List<StrategyRun.Waiting> due = List.copyOf(run.waiting);
        run.waiting.clear();
        // both sides of one bar make a two-sided entry
        boolean idle = run.strategy.limits().joins().twoSided() && run.bracket.idle();
        List<Integer> sentWith = new ArrayList<>();
        for (StrategyRun.Waiting signal : due) {
            if (run.mode != Mode.OFF) {
                boolean pairs = !run.bracket.idle() && sentWith.contains(signal.bar());
                signal(run, run.sides.get(signal.side()),
                        new Signal(signal.bar(), false, joins(run, signal.side(), pairs)), opening);
                if (idle && !run.bracket.idle()) {
                    sentWith.add(signal.bar());
                }
            }
        }
    }

    private void expireEntries(StrategyRun run) {
        if (!run.entering()) {
            return;
        }
        for (Order entry : run.entries()) {
            if (entry.state().live() && run.entry(entry.bracket().side())
                    .goodFor() instanceof Strategy.GoodFor.Bars(int n)
                    && run.signals.closed() - entry.closesBefore() >= n) {
                run.market.exchange.expire(entry);
            }
        }
        engine.reports(run.market);
    }

    /**
     * A signal of a side.
     *
     * @param joins what of the strategy's own it goes together with
     */
    private record Signal(int bar, boolean withClose, Proposal.Joins joins) {}

    /** Whether a signal is to turn an open position of the other side round. */
    private static boolean turns(StrategyRun run, Side side) {
        return run.strategy.reverse() && run.bracket.open() > 0 && run.bracket.side() != side
                && !run.bracket.leaving();
    }

    private void signal(StrategyRun run, StrategyRun.SideRun rule, Signal signal, Cause because) {
        Side side = rule.rules.side();
        MarketRun market = run.market;
        int bar = signal.bar();
        long price = entryPrice(run, rule, bar);
        Standpoint standpoint = engine.standpoint(run);
        Proposal proposal = standpoint.proposal(side, price, bar, signal.withClose(), signal.joins());
        Interlocks.Answer answer = standpoint.ask(proposal);
        if (answer.refusal().isPresent()) {
            engine.decide(run, side, bar, market.lastPrice, rule.declined(answer.refusal().get()));
            return;
        }
        if (run.mode == Mode.WATCHING) {
            engine.decide(run, side, bar, market.lastPrice, new Decision.WouldBe());
            return;
        }
        Strategy.Entry entry = run.entry(side);
        Optional<String> grade = rule.rules.grade(bar);
        engine.decide(run, side, bar, entry.type() == Order.Type.MARKET ? market.lastPrice : price,
                new Decision.Taken(entry.type(), proposal.quantity(), answer.granted(), grade));
        rule.sent++;
        if (proposal.turns()) {
            engine.leave(run, LeaveReason.OPPOSITE_SIGNAL);
            engine.cancelEntries(run);
            run.reverse = Optional.of(new StrategyRun.Reverse(side, price, proposal.bar(), answer.granted(),
                    grade));
        } else {
            enter(run, side, price, answer.granted(), grade, because);
            engine.reports(market);
        }
    }

    /** Sends an entry; beside one of the other side that rests it is the second half of a two-sided one. */
    void enter(StrategyRun run, Side side, long price, int quantity, Optional<String> grade, Cause because) {
        Strategy.Entry entry = run.entry(side);
        Bracket bracket = run.bracket;
        if (run.bracket.idle()) {
            bracket = new Bracket(run.owner, side);
            run.bracket = bracket;
            run.flattening = null;
        } else if (run.bracket.side() != side) {
            bracket = new Bracket(run.owner, side);
            bracket.pairWith(run.bracket);
            run.pair = Optional.of(bracket);
        }
        Order.GoodFor goodFor = entry.goodFor() instanceof Strategy.GoodFor.Day
                ? Order.GoodFor.DAY
                : Order.GoodFor.UNTIL_CANCELLED;
        Order order = run.market.orders.enter(bracket,
                new Orders.Entry(entry.type(), quantity, price, entry.limitBeyond(), goodFor), run.signals.closed(),
                because);
        grade.ifPresent(name -> run.grades.put(order.number(), name));
        run.nextTurn();
        run.market.clock.expect(run.turnClock);
    }

    /** Resting entries follow their price at each bar's close; a stop-limit that has been reached stays. */
    private void reprice(StrategyRun run, int bar) {
        if (!run.entering()) {
            return;
        }
        for (Order entry : List.copyOf(run.entries())) {
            Side side = entry.bracket().side();
            if (run.entry(side).reprice() && entry.state().live() && !entry.turning()
                    && entry.type() != Order.Type.MARKET && !entry.reached() && !entry.movedByHand()) {
                long price = entryPrice(run, run.sides.get(side), bar);
                if (price != Tape.NONE && price != entry.wanted()) {
                    run.market.orders.change(entry, price, new FillReason.Entry(), run.market.because());
                }
            }
        }
    }

    /** The entry's price on the grid, rounded away from the market unless it is to go toward it; {@link Tape#NONE} at the market, or while warming up. */
    static long entryPrice(StrategyRun run, StrategyRun.SideRun rule, int bar) {
        if (rule.rules.price().isEmpty()) {
            return Tape.NONE;
        }
        double value = rule.rules.price().get().at(bar);
        if (Double.isNaN(value) || Math.abs(value) > 1e15) {
            return Tape.NONE;
        }
        Strategy.Entry entry = run.entry(rule.rules.side());
        boolean away = (rule.rules.side() == Side.LONG) == (entry.type() == Order.Type.LIMIT);
        boolean down = away != entry.towardMarket();
        return (long) (down ? Math.floor(value) : Math.ceil(value));
    }
}
