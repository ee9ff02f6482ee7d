package stativex.engine;

import java.util.OptionalLong;
import stativex.account.Closing;
import stativex.market.Bounds;
import stativex.market.Extremes;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * The fast way over prints at which nothing can happen: clock, exchange, bars, plans and account each say how far that is, and all
 * of them take the stretch at once. The print that ends it is worked by the clear path. A test holds results equal to working every
 * print by that path.
 */
final class QuietStretch {
    private final Engine engine;
    private final MarketRun market;
    private final Tape tape;
    private final Bounds bounds = new Bounds();
    private final Extremes extremes = new Extremes();
    private final boolean possible;
    /** {@link Tape#firstAt} of the clock's next moment, kept as long as that stays. */
    private long momentAsked = Long.MIN_VALUE;
    private int momentPrint;
    private final Signals.ClosedBars curve = this::barClosed;
    /** Whether the strategy whose bars close draws the equity curve. */
    private boolean draws;

    QuietStretch(Engine engine, MarketRun market) {
        this.engine = engine;
        this.market = market;
        this.tape = market.tape;
        this.possible = market.runs.stream().noneMatch(run -> run.signals instanceof LiveSignals);
    }

    /**
     * Takes the prints from {@code from} on at which nothing happens, at most up to {@code to}; returns the first one that must be
     * worked by the clear path, else {@code to}.
     */
    int take(int from, int to) {
        if (!possible || market.clock.untouched()) {
            return from;
        }
        int print = from;
        while (print < to) {
            if (clockPrint(print) <= print) {
                engine.arrive(market, print, tape.time(print));
            }
            int until = Math.min(to, clockPrint(print));
            if (market.clock.inSession()) {
                int next = quietUntil(print, until);
                if (next > print) {
                    inside(print, next);
                }
                if (next < until) {
                    return next;
                }
            } else {
                outside(print, until);
            }
            print = until;
        }
        return to;
    }

    private int clockPrint(int from) {
        if (market.clock.next() != momentAsked) {
            momentAsked = market.clock.next();
            momentPrint = printAt(momentAsked, from);
        }
        return momentPrint;
    }

    private int printAt(long moment, int from) {
        for (int i = 0; i < market.runs.size(); i++) {
            StrategyRun run = market.runs.get(i);
            if (run.timeBars && moment != TapeTime.NEVER && run.signals.nextClock(run.expiry()) == moment) {
                return Math.max(from, run.signals.printAtNextClock(run.expiry()));
            }
        }
        return tape.firstAt(moment, from);
    }

    private void outside(int from, int to) {
        market.outsideSessions += to - from;
        arrived(to - 1);
    }

    private void arrived(int print) {
        market.lastPrint = print;
        engine.comes(market, tape.time(print));
        market.now = market.event;
    }

    private int quietUntil(int from, int to) {
        bounds.clear(to);
        market.exchange.bound(bounds);
        for (int i = 0; i < market.runs.size(); i++) {
            bounds.print(market.runs.get(i).signals.nextPrintThatMatters(market.runs.get(i).expiry()));
        }
        for (int i = 0; i < market.owners.size(); i++) {
            bound(market.owners.get(i));
        }
        if (market.dirty) {
            boundAccount();
        }
        return bounds.print() <= from || bounds.noPrice()
                ? from
                : tape.reaches(from, bounds.print(), bounds.down(), bounds.up());
    }

    private void bound(OwnerRun run) {
        if (run.trade.isPresent()) {
            TradeRun trade = run.trade.get();
            boolean isLong = trade.side() == Side.LONG;
            if (trade.plan().restless() || run.flattening != null) {
                bounds.print(0);
            } else if (isLong) {
                bounds.up(trade.plan().nextMove());
            } else {
                bounds.down(trade.plan().nextMove());
            }
            OptionalLong held = trade.plan().heldHere();
            if (held.isPresent() && isLong) {
                bounds.down(held.getAsLong());
            } else if (held.isPresent()) {
                bounds.up(held.getAsLong());
            }
        }
    }

    private void boundAccount() {
        if (market.holding.open() == 0) {
            bounds.print(0);
            return;
        }
        long equity = engine.equity();
        Closing closing = engine.closing();
        long above = engine.watch().quietAbove(equity, closing);
        market.holding.bound(engine.watch().quietBelow(equity, closing, above), above, bounds);
        if (market.limits.any()) {
            market.holding.boundResult(market.limits.quietBelow(engine.closing(market)), market.limits.quietAbove(),
                    bounds);
        }
        for (int i = 0; i < market.runs.size(); i++) {
            boundParts(market.runs.get(i));
        }
    }

    private void boundParts(StrategyRun run) {
        if (run.position.contracts() == 0) {
            return;
        }
        if (run.limits.any()) {
            run.position.bound(run.limits.quietBelow(engine.closing(run)), run.limits.quietAbove(), bounds);
        }
        if (run.windowLimits.any()) {
            run.position.bound(run.windowLimits.quietBelow(market.now), run.windowLimits.quietAbove(market.now),
                    bounds);
        }
    }

    private void inside(int from, int to) {
        arrived(to - 1);
        if (market.dirty) {
            tape.extremes(from, to, extremes);
            for (int i = 0; i < market.owners.size(); i++) {
                if (market.owners.get(i).trade.isPresent()) {
                    market.owners.get(i).trade.get().quiet(extremes.highest(), extremes.lowest());
                }
            }
            equities(from, to);
        }
        for (int i = 0; i < market.runs.size(); i++) {
            draws = market.runs.get(i).index == 0;
            market.runs.get(i).signals.quiet(to - 1, market.now, curve);
        }
        long price = tape.price(to - 1);
        market.lastInside = to - 1;
        market.worked = to - 1;
        market.exchange.quiet(to - 1);
        market.lastPrice = price;
        market.holding.mark(price);
    }

    private void equities(int from, int to) {
        long perTick = market.holding.perTick();
        long atZero = market.holding.equityAtZero();
        engine.days().equities(tape, from, to, extremes, perTick, atZero);
        long best = perTick >= 0 ? extremes.highest() : extremes.lowest();
        engine.watch().quietPeak(Math.addExact(atZero, Math.multiplyExact(perTick, best)));
    }

    /** The equity curve has a point for each bar of the first strategy. */
    private void barClosed(long time, long price) {
        if (draws) {
            long equity = Math.addExact(market.holding.equityAtZero(),
                    Math.multiplyExact(market.holding.perTick(), price));
            engine.days().bar(time, equity, 0);
        }
    }

    /** Bars that matter to nobody and have closed by the clock are taken before anything happens after them. */
    void catchUp(long time) {
        if (market.clock.inSession()) {
            long until = Math.min(time, market.clock.session().orElseThrow().close() - 1);
            for (int i = 0; i < market.runs.size(); i++) {
                StrategyRun run = market.runs.get(i);
                if (run.timeBars) {
                    draws = run.index == 0;
                    run.signals.catchUp(until, run.expiry(), curve);
                }
            }
        }
    }
}
