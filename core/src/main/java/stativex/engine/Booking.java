package stativex.engine;

import java.util.Optional;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Report;

/** Takes what an exchange reports: orders change, fills are booked, trades open and end, their plans are asked. */
final class Booking {
    private static final FillReason ASSUMED = new FillReason.Left(LeaveReason.ASSUMED_AT_SESSION_END);
    private static final FillReason OPEN_AT_END = new FillReason.Left(LeaveReason.OPEN_AT_END);

    private final Engine engine;
    private final OddFills odd;

    Booking(Engine engine) {
        this.engine = engine;
        this.odd = new OddFills(engine, this);
    }

    OddFills odd() {
        return odd;
    }

    /** Takes every report that the exchange has, one after the other. */
    void take(MarketRun of) {
        for (Optional<Report> report = of.exchange.next(); report.isPresent(); report = of.exchange.next()) {
            OwnerRun owner = of.of(report.get().order().owner());
            if (report.get() instanceof Report.Filled filled && !odd.fits(of, filled)) {
                odd.take(of, filled);
                continue;
            }
            of.orders.apply(report.get());
            switch (report.get()) {
                case Report.Filled filled -> book(of, filled, of.fee);
                case Report.Undone undone -> odd.undo(of, undone);
                case Report.Rejected rejected -> {
                    rejected(of, rejected);
                    of.refused.take(owner, rejected.order());
                }
                case Report.Accepted ignored -> {
                    // the order says so itself; likewise the others
                }
                case Report.Changed ignored -> {
                }
                case Report.Triggered ignored -> {
                }
                case Report.Turned ignored -> {
                }
                case Report.Ended ended -> {
                    if (!of.exchange.endsAtOnce() && (ended.order().role() == Order.Role.STOP
                            || ended.order().role() == Order.Role.LEAVE)) {
                        // nobody here asks for the end of a stop or a leave whose position is open
                        of.refused.take(owner, ended.order());
                    }
                }
            }
            owner.settle();
        }
    }

    /** Books a fill that its order knows of already. @param fee money per contract and side */
    void book(MarketRun of, Report.Filled filled, long fee) {
        Fill fill = Fill.of(filled, fee);
        if (engine.ledger().flat() && fill.print() != of.lastFilled && of.lastInside >= 0) {
            // nothing was held since equity was last noted: until the print before it was what it was
            engine.days().stillAt(of.tape.time(of.lastInside), engine.equity());
        }
        of.lastFilled = fill.print();
        of.holding.fill(fill.owner(), fill.buy(), fill.quantity(), fill.price(), fill.fee());
        engine.log().add(fill);
        of.dirty = true;
        OwnerRun run = of.of(fill.owner());
        if (fill.role() == Order.Role.ENTRY) {
            entered(run, filled.order(), fill);
        } else {
            TradeRun trade = run.trade.orElseThrow();
            trade.left(fill);
            if (trade.bracket().open() == 0) {
                Trade done = trade.view(run.closedBars(), fill.time(), fill.print());
                engine.log().add(done);
                engine.watch().ended(done.net(), fill.time());
                run.trade = Optional.empty();
                if (run instanceof StrategyRun strategy) {
                    ended(strategy, fill, done);
                }
            }
        }
    }

    /** A trade has ended: what cools down begins to, and what was to be turned round is sent. */
    private void ended(StrategyRun run, Fill fill, Trade trade) {
        boolean assumed = fill.reason().equals(ASSUMED);
        run.hasEnded = true;
        run.endedPrint = assumed ? -1 : fill.print();
        run.endedBar = run.market.lastInside < 0 ? 0 : run.signals.barHolding(run.market.lastInside);
        run.endedTime = fill.time();
        run.endedNet = trade.net();
        if (!fill.reason().equals(OPEN_AT_END)) {
            run.reverse.ifPresent(waiting -> {
                run.reverse = Optional.empty();
                engine.evaluator().enter(run, waiting.side(), waiting.price(), waiting.quantity(), waiting.grade(),
                        run.market.because());
            });
        }
    }

    private void entered(OwnerRun run, Order order, Fill fill) {
        Bracket bracket = order.bracket();
        run.fills(bracket)
                .ifPresent(other -> run.market.orders.endEntries(other, run.market.because()));
        if (run instanceof StrategyRun strategy && strategy.once) {
            strategy.sides.get(bracket.side()).on = false;
        }
        if (run.trade.isEmpty()) {
            run.tradesToday++;
            engine.countsTrade();
            run.trade = Optional.of(new TradeRun(run.tradesToday, run, fill, order));
        }
        run.market.orders.carryOut(run.trade.get().entered(fill, run.market.tape.price(fill.print()),
                run.judgedBar()), bracket,
                run.market.because());
    }

    private void rejected(MarketRun of, Report.Rejected rejected) {
        Order order = rejected.order();
        OwnerRun run = of.of(order.owner());
        engine.decide(run, order.bracket().side(), run.closedBars() - 1,
                order.price() == Tape.NONE ? of.lastPrice : order.price(), new Decision.Rejected(rejected.why()));
    }
}
