package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.account.Line;
import stativex.exit.ExitPlan;
import stativex.exit.PlanRun;
import stativex.interlock.Interlocks;
import stativex.interlock.Proposal;
import stativex.interlock.Refusal;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Orders;

/**
 * What the person does while the machine runs. Every act is logged; what cannot be done any more when it is carried out (the order has
 * filled, the position has gone) does nothing. Source: SEMANTICS, "Strategies, positions, ownership".
 */
final class ByHand {
    private final Engine engine;

    ByHand(Engine engine) {
        this.engine = engine;
    }

    private MarketRun market() {
        return engine.market();
    }

    void carryOut(Command command) {
        switch (command) {
            case Command.SetMode c -> mode(engine.runs().get(c.strategy()), c.mode());
            case Command.SetSide c -> side(engine.runs().get(c.strategy()), c.side(), c.on());
            case Command.SetOnce c -> engine.runs().get(c.strategy()).once = c.once();
            case Command.Breakeven c -> breakeven(market().of(c.owner()));
            case Command.HalfOff c -> halfOff(market().of(c.owner()));
            case Command.Flatten c -> flatten(market().of(c.owner()));
            case Command.FlatAndLock ignored -> engine.flatAndLock();
            case Command.Enter c -> enter(c);
            case Command.Cancel c -> order(c.order()).ifPresent(this::cancel);
            case Command.Move c -> order(c.order()).ifPresent(order -> move(order, c.price()));
            case Command.HandOver c -> handOver(market().of(c.from()), market().of(c.to()));
            case Command.ChangePlan c -> change(engine.runs().get(c.strategy()), c.plan(), c.open());
            case Command.ChangeLimits c -> engine.change(c.own());
            case Command.Adopt c -> adopt(c.contracts(), c.price());
            case Command.AttachPlan c -> attach(engine.runs().get(c.strategy()));
        }
    }

    private void mode(StrategyRun run, Mode mode) {
        run.mode = mode;
        if (mode != Mode.ENGAGED) {
            engine.dropReverse(run);
            engine.cancelEntries(run);
        }
    }

    private void side(StrategyRun run, Side side, boolean on) {
        Optional.ofNullable(run.sides.get(side)).ifPresent(of -> of.on = on);
        if (!on) {
            run.atWork(side).ifPresent(of -> market().orders.cancelEntries(of, market().because()));
            if (run.reverse.filter(waiting -> waiting.side() == side).isPresent()) {
                engine.dropReverse(run);
            }
        }
    }

    private void done(OwnerRun run, Side side, Decision.Act act, int quantity, long price) {
        engine.decide(run, side, -1, price, new Decision.ByHand(act, quantity));
    }

    private void breakeven(OwnerRun run) {
        run.trade.ifPresent(trade -> {
            PlanRun.Wishes wishes = trade.breakeven(market().lastPrint, market().lastPrice);
            if (wishes != PlanRun.Wishes.NONE) {
                market().orders.carryOut(wishes, trade.bracket(), market().because());
                done(run, trade.side(), Decision.Act.BREAKEVEN, run.bracket.open(),
                        trade.plan().stop().orElseThrow().level());
            }
        });
    }

    private void halfOff(OwnerRun run) {
        Bracket bracket = run.bracket;
        if (bracket.open() > 0 && !bracket.leaving() && !bracket.takingOff()) {
            int half = Math.max(1, bracket.open() / 2);
            done(run, bracket.side(), Decision.Act.PART_OFF, half, market().lastPrice);
            market().orders.leave(bracket, half, LeaveReason.BY_HAND, market().because());
        }
    }

    private void flatten(OwnerRun run) {
        if (run.bracket.open() > 0 || run.entering()) {
            done(run, run.bracket.side(), Decision.Act.FLATTENED, run.bracket.open(), market().lastPrice);
        }
        engine.flatten(run, LeaveReason.BY_HAND);
    }

    // ------------------------------------------------------------------ orders

    /** A stop, a target or a resting entry of anyone that is alive. */
    private Optional<Order> order(int number) {
        for (OwnerRun run : market().owners) {
            for (Order entry : run.entries()) {
                if (entry.number() == number && entry.state().live()) {
                    return Optional.of(entry);
                }
            }
            Optional<Order> exit = run.bracket.stop().filter(o -> o.number() == number && o.state().live());
            exit = exit.isPresent()
                    ? exit
                    : run.bracket.targets().stream().filter(o -> o.number() == number && o.state().live()).findFirst();
            if (exit.isPresent()) {
                return exit;
            }
        }
        return Optional.empty();
    }

    private void cancel(Order order) {
        if (order.role() == Order.Role.ENTRY || order.role() == Order.Role.TARGET) {
            done(market().of(order.owner()), order.bracket().side(), Decision.Act.CANCELLED, order.rest(),
                    order.price());
            market().orders.cancel(order, market().because());
        }
    }

    private void move(Order order, long price) {
        OwnerRun run = market().of(order.owner());
        if (order.role() == Order.Role.STOP) {
            moveStop(run, price);
        } else if (order.type() != Order.Type.MARKET && !order.turning() && price != order.wanted()) {
            Decision.Act act = order.role() == Order.Role.ENTRY ? Decision.Act.ENTRY_MOVED : Decision.Act.TARGET_MOVED;
            done(run, order.bracket().side(), act, order.rest(), price);
            order.keepsItsPrice();
            market().orders.change(order, price, order.reason(), market().because());
        }
    }

    /** Where the plan's stop is to stand; one that the market has reached already would be a flatten, which has a command of its own. */
    private void moveStop(OwnerRun run, long price) {
        if (run.trade.isEmpty() || run.bracket.leaving()) {
            return;
        }
        TradeRun trade = run.trade.get();
        long level = price + trade.plan().disasterTicks() * trade.side().sign();
        if (trade.side().reached(level, market().lastPrice)
                || trade.plan().stop().filter(stop -> stop.level() == level).isPresent()) {
            return;
        }
        Optional<PlanRun.Stop> now = trade.plan().stop();
        boolean looser = now.isPresent() && trade.side().tighter(now.get().level(), level) == now.get().level();
        if (looser) {
            Optional<Line> line = Exposure.crossed(engine, run, Optional.empty(), OptionalLong.of(price),
                    any -> true);
            if (line.isPresent()) {
                engine.decide(run, trade.side(), -1, level,
                        new Decision.Declined(new Refusal.CrossesLine(line.get().kind())));
                return;
            }
        }
        done(run, trade.side(), looser ? Decision.Act.STOP_LOOSENED : Decision.Act.STOP_MOVED, run.bracket.open(),
                level);
        market().orders.carryOut(trade.putStop(level, market().lastPrint, market().lastPrice), trade.bracket(),
                market().because());
    }

    // ------------------------------------------------------------------ the person's own position

    private void enter(Command.Enter c) {
        HandRun hand = market().hand;
        if (hand.bracket.idle()) {
            hand.guidedBy(c.plan().isPresent()
                    ? Optional.of(engine.runs().get(c.plan().getAsInt()))
                    : Optional.empty());
        }
        HandStandpoint standpoint = new HandStandpoint(engine, hand, c);
        Proposal proposal = new Proposal(c.side(), c.price(), hand.judgedBar(), false, Proposal.Joins.BESIDE,
                c.quantity());
        Optional<Refusal> refusal = Interlocks.refusal(standpoint, proposal);
        standpoint.passed().forEach(passed -> engine.decide(hand, c.side(), -1, market().lastPrice,
                new Decision.Passed(passed)));
        if (refusal.isPresent()) {
            engine.decide(hand, c.side(), -1, c.price() == Tape.NONE ? market().lastPrice : c.price(),
                    new Decision.Declined(refusal.get()));
            return;
        }
        engine.decide(hand, c.side(), -1, c.price() == Tape.NONE ? market().lastPrice : c.price(),
                new Decision.Taken(c.type(), c.quantity(), c.quantity(), Optional.empty()));
        if (hand.bracket.idle()) {
            hand.bracket = new Bracket(hand.owner, c.side());
            hand.flattening = null;
        }
        market().orders.enter(hand.bracket, new Orders.Entry(c.type(), c.quantity(), c.price(), beyond(c),
                Order.GoodFor.DAY), hand.closedBars(), market().because());
        engine.reports(market());
    }

    /** Ticks from the stop of a stop-limit to its limit; below 0 when the limit is the tighter, which the exchange refuses. */
    static int beyond(Command.Enter c) {
        return c.type() == Order.Type.STOP_LIMIT
                ? Math.toIntExact(Math.multiplyExact(c.side().sign(), Math.subtractExact(c.limit(), c.price())))
                : 0;
    }

    /** What was traded elsewhere: first it closes what the person has on the other side, the rest is theirs. */
    private void adopt(int contracts, long price) {
        MarketRun market = market();
        HandRun hand = market.hand;
        if (market.exchange.endsAtOnce() || market.lastPrint < 0) {
            return;
        }
        Side side = contracts > 0 ? Side.LONG : Side.SHORT;
        int rest = Math.abs(contracts);
        if (hand.bracket.open() > 0 && hand.bracket.side() != side) {
            int off = Math.min(rest, hand.bracket.open());
            market.orders.cut(hand.bracket, off, market.because());
            book(market.orders.book(hand.bracket, Order.Role.LEAVE, off,
                    new FillReason.Left(LeaveReason.BROKERS_CORRECTION), hand.closedBars(), market.because()),
                    price);
            rest -= off;
        }
        if (rest > 0 && hand.bracket.idle()) {
            hand.guidedBy(Optional.empty());
            hand.bracket = new Bracket(hand.owner, side);
            hand.flattening = null;
        }
        if (rest > 0 && hand.bracket.side() == side) {
            book(market.orders.book(hand.bracket, Order.Role.ENTRY, rest, new FillReason.Entry(), hand.closedBars(),
                    market.because()), price);
        }
        done(hand, side, Decision.Act.ADOPTED, Math.abs(contracts), price);
    }

    private void book(Order order, long price) {
        market().exchange.book(order, price, market().timeSaid());
        engine.reports(market());
    }

    private void attach(StrategyRun strategy) {
        HandRun hand = market().hand;
        Side side = hand.bracket.side();
        if (hand.trade.isEmpty() || hand.bracket.leaving() || strategy.sides.isEmpty()) {
            return;
        }
        if (!strategy.plan(side).complete(strategy.signals.judged() - 1)) {
            engine.decide(hand, side, -1, market().lastPrice, new Decision.Declined(new Refusal.WarmingUp()));
            return;
        }
        hand.guidedBy(Optional.of(strategy));
        done(hand, side, Decision.Act.PLAN_ATTACHED, hand.bracket.open(), market().lastPrice);
        attach(hand);
    }

    // ------------------------------------------------------------------ another plan

    /** From the next trade on, or at once for the open one, too. What rests unfilled ends if a line would not hold with the new stop. */
    private void change(StrategyRun run, ExitPlan plan, boolean open) {
        if (!(run.signals instanceof LiveSignals)) {
            throw new IllegalStateException("a plan is changed only where bars are made as prints come");
        }
        MarketRun market = run.market;
        Strategy with = run.strategy.with(plan);
        plan.check(market.contract);
        Signals next = market.signals(with, run.history);
        List<Runnable> keep = new ArrayList<>();
        for (OwnerRun owner : market.guidedBy(run)) {
            owner.trade.ifPresent(trade -> {
                PlanRules same = trade.rules().on(next.program, trade.side());
                keep.add(() -> trade.reads(same));
            });
        }
        run.planned(with, next, market.lastPrint, market.now);
        keep.forEach(Runnable::run);
        market.clock.expect(run.leaveClock);
        done(run, run.bracket.side(), Decision.Act.PLAN_CHANGED, run.bracket.open(), market.lastPrice);
        if (open && run.trade.isPresent() && !run.bracket.leaving()) {
            apply(run, run.trade.get());
        }
        if (run.entering()) {
            Optional<Line> line = Exposure.crossed(engine, run, Optional.empty(), OptionalLong.empty(), any -> true);
            if (line.isPresent()) {
                engine.decide(run, run.bracket.side(), -1, market.lastPrice,
                        new Decision.Declined(new Refusal.CrossesLine(line.get().kind())));
                engine.cancelEntries(run);
            }
        }
    }

    private void apply(StrategyRun run, TradeRun trade) {
        if (!run.plan(trade.side()).complete(run.judgedBar())) {
            engine.decide(run, trade.side(), -1, run.market.lastPrice,
                    new Decision.Declined(new Refusal.WarmingUp()));
            return;
        }
        done(run, trade.side(), Decision.Act.PLAN_ATTACHED, run.bracket.open(), run.market.lastPrice);
        run.market.orders.endTargets(run.bracket, run.market.because());
        run.market.orders.carryOut(trade.changes(run, run.market.lastPrint, run.market.lastPrice), run.bracket,
                run.market.because());
    }

    private void attach(OwnerRun run) {
        TradeRun trade = run.trade.orElseThrow();
        market().orders.endTargets(run.bracket, market().because());
        market().orders.carryOut(trade.attach(run, market().lastPrint, market().lastPrice), run.bracket,
                market().because());
    }

    // ------------------------------------------------------------------ from one to the other

    /** What is open goes over with its stop and targets; entries of the giver end. The taker must have nothing at work. */
    private void handOver(OwnerRun from, OwnerRun to) {
        if (from == to || from.trade.isEmpty() || from.bracket.leaving() || !to.bracket.idle()) {
            return;
        }
        Side side = from.bracket.side();
        boolean takesOwnPlan = to instanceof StrategyRun;
        if (takesOwnPlan && !to.plan(side).complete(to.judgedBar())) {
            engine.decide(to, side, -1, market().lastPrice, new Decision.Declined(new Refusal.WarmingUp()));
            return;
        }
        engine.dropReverse(from);
        market().orders.endEntries(from.bracket, market().because());
        done(from, side, Decision.Act.HANDED_OVER, from.bracket.open(), market().lastPrice);
        if (to instanceof HandRun hand) {
            hand.guidedBy(from.guide());
        }
        TradeRun given = from.trade.get();
        market().holding.handOver(from.owner, to.owner, market().lastPrice);
        engine.log()
                .add(given.handedOver(market().lastPrice, from.closedBars(), market().timeSaid(), market().lastPrint));
        to.bracket = from.bracket;
        to.bracket.handTo(to.owner);
        to.flattening = null;
        from.bracket = new Bracket(from.owner, side);
        from.trade = Optional.empty();
        to.tradesToday++;
        to.trade = Optional.of(new TradeRun(to.tradesToday, to, given, market().lastPrice, market().timeSaid(),
                market().lastPrint));
        if (takesOwnPlan) {
            attach(to);
        }
    }
}
