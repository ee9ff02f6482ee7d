package stativex.engine;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.account.ForThePerson;
import stativex.account.Headroom;
import stativex.account.Line;
import stativex.exit.PlanRun;
import stativex.interlock.Interlocks;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.order.Order;

/** Takes an immutable picture of an engine. */
final class SnapshotMaker {
    private final Engine engine;
    private final MarketRun market;

    SnapshotMaker(Engine engine) {
        this.engine = engine;
        this.market = engine.market();
    }

    Snapshot make() {
        boolean begun = market.now != Long.MIN_VALUE;
        long time = begun ? market.now : 0;
        List<Snapshot.StrategyView> strategies = new ArrayList<>();
        for (StrategyRun run : engine.runs()) {
            strategies.add(strategy(run, time));
        }
        List<Snapshot.OrderView> orders = engine.markets().stream().flatMap(of -> of.exchange.working().stream())
                .map(SnapshotMaker::order).toList();
        DayBook days = engine.days();
        Snapshot.AccountView account = new Snapshot.AccountView(engine.account().name(), engine.equity(),
                engine.ledger().balance(), engine.equity() - engine.watch().dayStart(), engine.watch().lock(),
                engine.watch().broken(), engine.locks(),
                days.curve(), days.curveTimes(), days.dayCurve());
        return new Snapshot(market.lastPrint, time,
                market.lastPrice == Tape.NONE ? Optional.empty() : Optional.of(market.lastPrice),
                market.clock.session(),
                market.clock.inSession(), account, List.copyOf(strategies), hand(time), engine.log().decisions(),
                engine.log().fills(), orders, engine.log().trades());
    }

    private static Snapshot.OrderView order(Order order) {
        return new Snapshot.OrderView(order.number(), order.owner(), order.buy(), order.type(), order.rest(),
                order.price() == Tape.NONE ? Optional.empty() : Optional.of(order.price()), order.state(),
                order.reason(), order.role());
    }

    private Snapshot.HandView hand(long time) {
        HandRun hand = market.hand;
        Optional<Trade> trade = hand.trade.map(t -> t.view(hand.closedBars(), time, market.lastPrint));
        return new Snapshot.HandView(hand.trade.map(t -> position(hand, t, trade.orElseThrow())), trade,
                hand.guide().map(guide -> OptionalInt.of(guide.index)).orElse(OptionalInt.empty()),
                hand.entries().stream().filter(o -> o.state().live()).map(SnapshotMaker::order).toList(),
                engine.runs().stream().map(this::planned).toList(), engine.manners());
    }

    private Map<Side, Long> planned(StrategyRun run) {
        Map<Side, Long> planned = new EnumMap<>(Side.class);
        if (run.market.lastPrice != Tape.NONE) {
            for (Side side : Side.values()) {
                Exposure.planned(run, side, run.market.lastPrice, run.strategy.entry(side).quantity(),
                        run.signals.judged() - 1).ifPresent(ticks -> planned.put(side, ticks));
            }
        }
        return planned;
    }

    private Snapshot.StrategyView strategy(StrategyRun run, long time) {
        List<Snapshot.StudyView> studies = Snapshot.StudyView.shown(run.signals.program.studies(""),
                run.signals.judged());
        Map<Side, List<Snapshot.Lane>> lanes = new EnumMap<>(Side.class);
        boolean forming = engine.evaluator().preview(run);
        run.sides.forEach((side, rule) -> lanes.put(side, lanes(run, rule, forming)));
        int closed = run.signals.closed();
        Optional<Trade> trade = run.trade.map(t -> t.view(closed, time, run.market.lastPrint));
        Standpoint standpoint = engine.standpoint(run);
        return new Snapshot.StrategyView(run.index, run.strategy,
                new Snapshot.StrategyView.Switches(run.mode, run.isOn(Side.LONG), run.isOn(Side.SHORT), run.once),
                new Snapshot.StrategyView.Picture(run.series().view(closed),
                        run.signals.forming(run.market.lastPrint, time), studies,
                        Snapshot.MarkView.shown(run.signals.program.marks(), run.signals.judged(), forming), lanes),
                new Snapshot.StrategyView.Standing(Interlocks.views(standpoint, standpoint.proposals()),
                        standpoint.state(), run.history),
                today(run), trade, run.trade.map(t -> position(run, t, trade.orElseThrow())), headroom(run),
                occurrences(run), engine.log().decisions(run.owner), engine.log().trades(run.owner));
    }

    private static List<Snapshot.Lane> lanes(StrategyRun run, StrategyRun.SideRun rule, boolean forming) {
        int rows = run.signals.judged();
        List<SideRules.Lane> lanes = rule.rules.lanes();
        List<Snapshot.Lane> shown = new ArrayList<>();
        for (SideRules.Lane lane : lanes) {
            boolean whole = lane == lanes.getLast();
            shown.add(new Snapshot.Lane(lane.name(), lane.condition().column().view(rows),
                    whole && run.everyTrade() ? Optional.of(rule.provisional.prefix()) : Optional.empty(),
                    whole && rule.raised,
                    forming ? OptionalInt.of(lane.condition().at(rows)) : OptionalInt.empty()));
        }
        return shown;
    }

    private Snapshot.PositionView position(OwnerRun run, TradeRun open, Trade trade) {
        Bracket bracket = run.bracket;
        return new Snapshot.PositionView(open.side(), bracket.open(), open.plan().average().sum(),
                open.plan().average().quantity(), run.position.openResult(),
                open.plan().heldHere().isPresent()
                        ? Optional.of(open.plan().heldHere().getAsLong())
                        : bracket.stop().filter(s -> s.state().live()).map(Order::price),
                open.plan().heldHere().isPresent()
                        ? bracket.stop().filter(s -> s.state().live()).map(Order::price)
                        : Optional.empty(),
                open.plan().stop().map(PlanRun.Stop::origin),
                bracket.targets().stream().filter(t -> t.state().live()).map(SnapshotMaker::order).toList(),
                trade.mfe(),
                trade.mae(), trade.bars(), bracket.leaving());
    }

    private List<Headroom> headroom(StrategyRun run) {
        long quantity = run.bracket.open() > 0
                ? run.bracket.open()
                : Strategy.largest(run.strategy.sides(), run.strategy.entry());
        Optional<Long> stopOut = plannedStop(run, Math.toIntExact(quantity))
                .map(ticks -> run.market.contract.money(ticks + run.market.contract.slippage(), 1)
                        + 2 * run.market.fee);
        ForThePerson.Near near = engine.account().own().person().near();
        List<Headroom> headroom = new ArrayList<>();
        for (Line line : engine.watch().lines(engine.equity())) {
            headroom.add(Headroom.of(line, engine.equity(), run.market.contract.tickValue(), quantity, stopOut,
                    near));
        }
        for (Line line : run.market.limits.lines()) {
            headroom.add(Headroom.of(line, run.market.holding.result(), run.market.contract.tickValue(), quantity,
                    stopOut, near));
        }
        List<Line> own = new ArrayList<>(run.limits.lines());
        own.addAll(run.windowLimits.lines(run.market.now));
        for (Line line : own) {
            headroom.add(Headroom.of(line, run.position.result(), run.market.contract.tickValue(), quantity, stopOut,
                    near));
        }
        return List.copyOf(headroom);
    }

    /** Ticks of a full stop-out at the last price: of the open trade's side, else of the side that would lose more. */
    private Optional<Long> plannedStop(StrategyRun run, int quantity) {
        if (run.market.lastPrice == Tape.NONE) {
            return Optional.empty();
        }
        int bar = run.signals.judged() - 1;
        return (run.bracket.open() > 0 ? List.of(run.bracket.side()) : List.copyOf(run.sides.keySet())).stream()
                .flatMap(side -> Exposure.planned(run, side, run.market.lastPrice, quantity, bar).stream())
                .max(Long::compare);
    }

    private Snapshot.StrategyView.Today today(StrategyRun run) {
        int taken = 0;
        int declined = 0;
        int wouldBe = 0;
        List<Decision> decisions = engine.log().decisions(run.owner);
        long from = dayBegin(run);
        for (int i = decisions.size() - 1; i >= 0 && decisions.get(i).time() >= from; i--) {
            switch (decisions.get(i).kind()) {
                case TAKEN -> taken++;
                case DECLINED, REJECTED -> declined++;
                case WOULD_BE -> wouldBe++;
                case LOCKED, CANCELLED, BY_HAND -> {
                    // a lock is the account's, an act the person's; what was cancelled has been taken before
                }
            }
        }
        return new Snapshot.StrategyView.Today(taken, declined, wouldBe,
                run.market.lastPrice == Tape.NONE ? 0 : run.resultToday());
    }

    private static long dayBegin(StrategyRun run) {
        return run.market.clock.session()
                .map(s -> run.market.contract.calendar().sessions(s.tradingDate()).getFirst().open())
                .orElse(Long.MIN_VALUE);
    }

    private static List<WindowSchedule.Occurrence> occurrences(StrategyRun run) {
        return run.market.clock.session().map(Session::tradingDate).map(date -> {
            long from = run.market.contract.calendar().sessions(date).getFirst().open();
            long to = run.market.contract.calendar().dayAfter(date).map(Session::open)
                    .orElse(from + 86_400 * TapeTime.SECOND);
            return run.schedule.occurrences(from, Math.min(to, from + 86_400 * TapeTime.SECOND));
        }).orElse(List.of());
    }
}
