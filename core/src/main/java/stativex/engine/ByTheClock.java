package stativex.engine;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import stativex.account.QuietTimes;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.order.Cause;
import stativex.order.LeaveReason;
import stativex.order.Order;

/** Step (0): what the clock of a market brings, sessions and days, bars that end by it, windows. */
final class ByTheClock implements SessionClock.Moments {
    private final Engine engine;
    private final MarketRun market;

    ByTheClock(Engine engine, MarketRun market) {
        this.engine = engine;
        this.market = market;
    }

    @Override
    public void sessionOpens(Session session) {
        market.now = session.open();
        for (StrategyRun run : market.runs) {
            run.signals.heartbeat(session.open());
            run.countAnew(SignalPeriod.SESSION);
            if (!run.waiting.isEmpty()) {
                // the print that brought the clock here, if one did, is the first of the session and may be met
                int before = market.arriving ? market.lastPrint - 1 : market.lastPrint;
                engine.evaluator().sendWaiting(run, new Cause(before, session.open()));
            }
        }
    }

    @Override
    public void sessionEnds(Session ended) {
        market.now = ended.close();
        for (OwnerRun run : market.owners) {
            if (run.bracket.leaveSent() && engine.flatIsDue(run)) {
                market.exchange.assume(run.bracket, ended.close());
                engine.reports(market);
            }
        }
        for (StrategyRun run : market.runs) {
            run.signals.heartbeat(ended.close());
            if (run.series().isRenko() && run.signals.givesUpForming()) {
                market.guidedBy(run).forEach(owner -> owner.trade
                        .ifPresent(trade -> trade.formingBarDiscarded(run.signals.closed())));
                run.endedBar = Math.min(run.endedBar, run.signals.closed() - 1);
            }
            engine.evaluator().evaluateClosed(run, true);
        }
        if (ended.last()) {
            market.exchange.closeDay(ended.close());
            engine.reports(market);
        }
    }

    @Override
    public void accountDayBegins(long at, Optional<LocalDate> date) {
        market.now = at;
        engine.accountDayBegins(date);
        engine.days().begin(at, date, engine.equity());
    }

    @Override
    public void dayBegins(long at, Optional<LocalDate> date) {
        market.now = at;
        date.flatMap(market.rolls::due).ifPresent(month -> engine.rolls(market, month, at));
        market.limits.begins(market.holding.result());
        market.runs.forEach(run -> run.dayBegins(date));
        market.hand.tradesToday = 0;
    }

    @Override
    public void barMoment(StrategyRun run, long at) {
        market.now = at;
        run.signals.heartbeat(at);
        // what only an event at or after the session's close brings is too late for an entry in it
        engine.evaluator().evaluateClosed(run,
                market.event >= market.clock.session().orElseThrow().close());
    }

    @Override
    public void windowMoment(StrategyRun run, long at) {
        market.now = at;
        WindowSchedule.Stretch stretch = run.stretch.orElseThrow();
        begin(run, stretch, at);
        if (stretch.end() == SessionWindow.End.FLATTEN && stretch.lastEntry() == at) {
            run.windowFlat = true;
            engine.flattenStrategy(run, LeaveReason.WINDOW_END);
        }
        if (stretch.to() != at) {
            run.nextWindowClock(at);
            return;
        }
        market.guidedBy(run).forEach(owner -> {
            if (owner.terms().leavesAtWindowEnd()) {
                engine.leave(owner, LeaveReason.WINDOW_END);
            }
        });
        engine.dropReverse(run);
        if (stretch.end() == SessionWindow.End.CANCEL) {
            engine.cancelEntries(run);
        }
        run.windowsFrom(at);
        run.stretch.ifPresent(next -> begin(run, next, at));
    }

    @Override
    public void ruleMoment(long at) {
        market.now = at;
        if (market.rules.flatBegins(at)) {
            market.owners.forEach(owner -> engine.flatten(owner, LeaveReason.FLAT_BY));
        }
        Optional<QuietTimes.Action> action = market.rules.quietBegins(at);
        if (action.isPresent()) {
            for (OwnerRun owner : market.owners) {
                if (action.get() == QuietTimes.Action.FLATTEN) {
                    engine.flatten(owner, LeaveReason.QUIET_TIME);
                } else {
                    engine.cancelEntries(owner);
                }
            }
        }
    }

    @Override
    public void rollMoment(long at) {
        market.now = at;
        market.rolls.begins();
        market.owners.forEach(owner -> engine.flatten(owner, LeaveReason.ROLL));
    }

    @Override
    public void leaveMoment(StrategyRun run, long at) {
        market.now = at;
        market.guidedBy(run).forEach(owner -> {
            if (StrategyRun.leavesAt(owner.terms(), at)) {
                engine.leave(owner, LeaveReason.CLOCK_TIME);
            }
        });
        run.nextLeaveClock(at);
    }

    @Override
    public void turnMoment(StrategyRun run, long at) {
        market.now = at;
        for (Order entry : List.copyOf(run.entries())) {
            if (run.turns(entry) <= at) {
                market.orders.toMarket(entry, market.because());
            }
        }
        run.nextTurn();
    }

    private void begin(StrategyRun run, WindowSchedule.Stretch stretch, long at) {
        if (stretch.from() == at) {
            run.windowFlat = false;
        }
        if (run.windowBegins(at)) {
            run.countAnew(SignalPeriod.WINDOW);
        }
    }
}
