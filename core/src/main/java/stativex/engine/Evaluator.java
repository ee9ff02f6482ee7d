package stativex.engine;

import java.util.List;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Order;
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

    /** Evaluates every signal bar that has closed, oldest first; what expires with any of them has expired before. */
    void evaluateClosed(StrategyRun run, boolean sessionCloses) {
        if (run.program.rows() < run.series().count()) {
            expireEntries(run);
        }
        for (int bar = run.program.rows(); bar < run.series().count(); bar++) {
            engine.days().bar(engine.now(), engine.equity(), run.index);
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
    void look(StrategyRun run, long time) {
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
        return !run.series().isRenko() && takeForming(run, engine.now());
    }

    private void tellPosition(StrategyRun run, int row, int closed) {
        if (run.program.asksForPosition()) {
            run.trade.ifPresentOrElse(trade -> {
                run.program.tell(Program.Fact.BARS_SINCE_ENTRY, row, trade.bars(closed));
                run.program.tell(Program.Fact.OPEN_RESULT, row, trade.openTicks(engine.lastPrice()));
                run.program.tell(Program.Fact.BEST_EXCURSION, row,
                        trade.bestTicks(engine.lastPrint(), engine.lastPrice()));
                run.program.tell(Program.Fact.WORST_EXCURSION, row,
                        trade.worstTicks(engine.lastPrint(), engine.lastPrice()));
                // what was told of a trade that has ended since, inside the same bar, is not true any more
            }, () -> run.program.tellNoPosition(row));
        }
    }

    /** Signals of day and longer bars are sent as of the next session's open. */
    void sendWaiting(StrategyRun run) {
        List<StrategyRun.Waiting> due = List.copyOf(run.waiting);
        run.waiting.clear();
        for (StrategyRun.Waiting signal : due) {
            if (run.mode != Mode.OFF) {
                signal(run, run.sides.get(signal.side()), signal.bar(), false);
            }
        }
    }

    private void expireEntries(StrategyRun run) {
        if (run.strategy.entry().goodFor() instanceof Strategy.GoodFor.Bars(int n)) {
            for (Order entry : run.bracket.entries()) {
                if (entry.state().live() && run.series().count() - entry.closesBefore() >= n) {
                    engine.exchange().expire(entry);
                }
            }
        }
    }

    private void signal(StrategyRun run, StrategyRun.SideRun rule, int bar, boolean sessionCloses) {
        Side side = rule.rules.side();
        long price = entryPrice(run, rule, bar);
        EntryGate.Refusal refusal = engine.gate().refusal(run, side, price, sessionCloses);
        if (refusal != null) {
            engine.decide(run, side, bar, Decision.Kind.DECLINED, refusal.reason().word(), refusal.detail(),
                    engine.lastPrice());
            return;
        }
        if (run.mode == Mode.WATCHING) {
            engine.decide(run, side, bar, Decision.Kind.WOULD_BE, "", "every interlock was clear", engine.lastPrice());
            return;
        }
        long shown = run.strategy.entry().type() == Order.Type.MARKET ? engine.lastPrice() : price;
        engine.decide(run, side, bar, Decision.Kind.TAKEN, "", run.strategy.entry().type().word() + " "
                + run.strategy.entry().quantity() + rule.rules.grade(bar).map(grade -> ", grade " + grade).orElse(""),
                shown);
        rule.sent++;
        if (run.idle()) {
            run.bracket = new Bracket(run.index, side);
            run.flattening = Optional.empty();
        }
        engine.exchange().enter(run.bracket, run.strategy.entry().type(), run.strategy.entry().quantity(), price,
                run.strategy.entry().goodFor() instanceof Strategy.GoodFor.Day, run.series().count());
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
}
