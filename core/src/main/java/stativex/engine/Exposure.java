package stativex.engine;

import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import stativex.account.AccountWatch;
import stativex.account.Line;
import stativex.exit.PlanRun;
import stativex.interlock.LineCheck;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Order;

/** What everything at work may lose until its stops, every owner's: the sums of the line check. Source: SEMANTICS, "Interlocks". */
final class Exposure {
    /**
     * An entry that wants to pass.
     *
     * @param worst the line check's entry price, ticks
     * @param bar whose studies its plan counts with
     * @param turns it turns an open position of the other side round, which counts as gone
     */
    record Proposed(Side side, long worst, int quantity, int bar, boolean turns) {}

    private Exposure() {}

    /**
     * The first line that a stop-out of everything would cross.
     *
     * @param of the owner who proposes something
     * @param entry proposed; empty: nothing
     * @param stop where the broker's stop of that owner's position is to stand; empty: where it stands
     * @param counts lines that are asked
     */
    static Optional<Line> crossed(Engine engine, OwnerRun of, Optional<Proposed> entry, OptionalLong stop,
            Predicate<Line> counts) {
        if (of.market.lastPrice == Tape.NONE) {
            return Optional.empty();
        }
        long equity = engine.equity();
        LineCheck all = new LineCheck();
        LineCheck here = new LineCheck();
        LineCheck own = new LineCheck();
        for (OwnerRun owner : engine.owners()) {
            LineCheck check = new LineCheck();
            boolean mine = owner == of;
            reverse(check, owner);
            atRisk(check, owner, mine ? entry : Optional.empty(), mine ? stop : OptionalLong.empty());
            all.plus(check);
            if (owner.market == of.market) {
                here.plus(check);
            }
            if (mine) {
                own.plus(check);
            }
        }
        return all.crossed(equity, engine.watch().guarded(equity, engine.perTick()).stream().filter(counts).toList())
                .or(() -> here.crossed(of.market.holding.result(),
                        of.market.limits.guardedLine(of.market.perTick()).stream().filter(counts).toList()))
                .or(() -> of instanceof StrategyRun run
                        ? own.crossed(run.position.result(), run.ownLines().stream().filter(counts).toList())
                        : Optional.empty());
    }

    /** The smallest distance to any line that the check asks, money; {@link AccountWatch#NO_LINE} without one. */
    static long nearest(Engine engine, StrategyRun run) {
        long account = engine.watch().nearest(engine.equity(), engine.perTick());
        long contract = run.market.limits.room(run.market.holding.result(), run.market.perTick());
        long own = run.ownLines().stream().filter(Line::below)
                .mapToLong(line -> run.position.result() - line.money()).min().orElse(AccountWatch.NO_LINE);
        return Math.min(account, Math.min(contract, own));
    }

    private static void reverse(LineCheck check, OwnerRun owner) {
        if (owner instanceof StrategyRun run && run.reverse.isPresent()) {
            StrategyRun.Reverse waiting = run.reverse.get();
            long worst = run.market.expected(waiting.side(), run.strategy.entry(waiting.side()), waiting.price());
            check.risk(waiting.quantity(), planned(run, waiting.side(), worst, waiting.quantity(), waiting.bar()),
                    run.market.contract.tickValue(), run.market.closingEach() + run.market.fee);
        }
    }

    /** What a position, resting entries and a proposed one may lose; of a two-sided entry the worse side. */
    private static void atRisk(LineCheck check, OwnerRun run, Optional<Proposed> proposed, OptionalLong stop) {
        MarketRun market = run.market;
        long each = Math.addExact(market.closingEach(), market.fee);
        // what is turned round counts as gone
        boolean gone = proposed.filter(Proposed::turns).isPresent();
        Bracket bracket = run.bracket;
        if (bracket.open() > 0 && !gone) {
            Optional<Long> level = stop.isPresent() ? Optional.of(stop.getAsLong()) : bracket.stop().map(Order::price);
            check.risk(bracket.open(), level.map(at -> bracket.side().sign() * (market.lastPrice - at)),
                    market.contract.tickValue(), market.closingEach());
        }
        LineCheck longs = new LineCheck();
        LineCheck shorts = new LineCheck();
        for (Order entry : run.entries()) {
            if (entry.state().live() && !gone) {
                Side side = entry.bracket().side();
                long worst = market.expected(side, entry.type(), entry.limit());
                (side == Side.LONG ? longs : shorts).risk(entry.rest(),
                        entryRisk(run, side, worst, entry.quantity(), lastRead(run, entry)),
                        market.contract.tickValue(), each);
            }
        }
        // a size within its money may be none at all
        proposed.filter(p -> p.quantity() > 0)
                .ifPresent(p -> (p.side() == Side.LONG ? longs : shorts).risk(p.quantity(), p.turns()
                        ? planned(run, p.side(), p.worst(), p.quantity(), p.bar())
                        : entryRisk(run, p.side(), p.worst(), p.quantity(), p.bar()), market.contract.tickValue(),
                        each));
        check.worse(longs, shorts);
    }

    /** The bar whose studies an entry's plan counts with; of bars that close together those that have been judged so far. */
    private static int lastRead(OwnerRun run, Order entry) {
        return Math.min(entry.closesBefore() - 1, run.judgedBar());
    }

    /**
     * Ticks from an entry's worst price to the stop that the broker will hold for it: the planned one, or, when it joins an open
     * trade, that trade's (an add never moves it away).
     *
     * @param bar whose signal it is
     */
    private static Optional<Long> entryRisk(OwnerRun run, Side side, long worst, int quantity, int bar) {
        return run.bracket.open() == 0 || run.bracket.stop().isEmpty()
                ? planned(run, side, worst, quantity, bar)
                : Optional.of(side.sign() * (worst - run.bracket.stop().get().price()));
    }

    /** Ticks from an entry to the broker's stop that its plan would give it; empty without a stop, or while a study warms up. */
    static Optional<Long> planned(OwnerRun run, Side side, long price, int quantity, int bar) {
        PlanRules plan = run.plan(side);
        return plan.complete(bar)
                ? PlanRun.risk(plan.terms(), side, run.market.contract, price, quantity, plan.at(bar))
                : Optional.empty();
    }
}
