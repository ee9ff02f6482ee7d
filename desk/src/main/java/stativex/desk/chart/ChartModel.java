package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.market.Side;
import stativex.order.FillReason;
import stativex.order.Owner;
import stativex.trial.Inputs;

/**
 * What a chart shows.
 *
 * @param studies on closed bars
 * @param drawn marks of studies
 * @param lastPrice marked on the price axis
 * @param strategy what a strategy has done on these bars
 * @param marks where a strategy would enter
 * @param running what strategies on bars of their own are doing on this tape
 * @param hand what the person has at work, and every order of theirs and the strategy's that has a price
 */
public record ChartModel(ChartBars bars, List<Snapshot.StudyView> studies, List<Snapshot.MarkView> drawn,
        Optional<Long> lastPrice, Optional<StrategyLayer> strategy, List<Mark> marks, List<StrategyLayer> running,
        HandLayer hand) {

    /** @param movable orders that the person may move */
    public record HandLayer(Optional<Snapshot.HandView> view, List<Snapshot.OrderView> movable) {
        static final HandLayer NONE = new HandLayer(Optional.empty(), List.of());

        static HandLayer of(Snapshot snapshot, int index) {
            return new HandLayer(Optional.of(snapshot.hand()), snapshot.orders().stream()
                    .filter(o -> o.state().live() && o.price().isPresent() && (o.owner().equals(Owner.PERSON)
                            || o.owner().equals(new Owner.Strategy(index))))
                    .toList());
        }
    }

    /** Someone's open position, as it is drawn. */
    record Held(Snapshot.PositionView position, Optional<Trade> trade, String whose) {}

    /** A bar at whose close a side's rule held. */
    public record Mark(int bar, Side side) {}

    /** A chart on whose tape nothing runs. */
    public ChartModel(ChartBars bars, List<Snapshot.StudyView> studies, Optional<Long> lastPrice,
            Optional<StrategyLayer> strategy, List<Mark> marks) {
        this(bars, studies, List.of(), lastPrice, strategy, marks, List.of(), HandLayer.NONE);
    }

    /** A chart without marks. */
    public ChartModel(ChartBars bars, List<Snapshot.StudyView> studies, Optional<Long> lastPrice,
            Optional<StrategyLayer> strategy) {
        this(bars, studies, lastPrice, strategy, List.of());
    }

    /** A strategy's trades and decisions, and its entries at rest. */
    public record StrategyLayer(Snapshot.StrategyView view, List<Trade> trades, List<Decision> decisions,
            List<Snapshot.OrderView> entries) {

        static StrategyLayer of(Snapshot snapshot, int index) {
            Snapshot.StrategyView strategy = snapshot.strategies().get(index);
            return new StrategyLayer(strategy, strategy.trades(), strategy.decisions(),
                    ChartModel.entries(snapshot, index));
        }

        /** Whether nothing that is drawn differs. */
        boolean looksLike(StrategyLayer other) {
            return trades.size() == other.trades.size() && decisions.size() == other.decisions.size()
                    && entries.equals(other.entries) && view.position().equals(other.view.position())
                    && view.trade().equals(other.view.trade());
        }
    }

    /** The chart of strategy {@code index} as it stands in a snapshot. */
    public static ChartModel of(Inputs inputs, Snapshot snapshot, int index) {
        Snapshot.StrategyView strategy = snapshot.strategies().get(index);
        return new ChartModel(
                ChartBars.live(inputs.contract(), inputs.tape(), strategy.bars(), strategy.forming()),
                strategy.studies(), snapshot.lastPrice(), Optional.of(StrategyLayer.of(snapshot, index)))
                .drawing(strategy.picture().marks()).hand(HandLayer.of(snapshot, index));
    }

    /** What every strategy does, for charts of other bars of the same tape. */
    public static List<StrategyLayer> running(Snapshot snapshot) {
        return IntStream.range(0, snapshot.strategies().size()).mapToObj(i -> StrategyLayer.of(snapshot, i)).toList();
    }

    /** The same chart with what studies have marked. */
    public ChartModel drawing(List<Snapshot.MarkView> marked) {
        return new ChartModel(bars, studies, marked, lastPrice, strategy, marks, running, hand);
    }

    private ChartModel hand(HandLayer layer) {
        return new ChartModel(bars, studies, drawn, lastPrice, strategy, marks, running, layer);
    }

    /** The same chart while other things are going on on its tape. */
    ChartModel with(List<StrategyLayer> now) {
        return new ChartModel(bars, studies, drawn, lastPrice, strategy, marks, now, hand);
    }

    boolean looksLike(List<StrategyLayer> now) {
        return running.size() == now.size()
                && IntStream.range(0, now.size()).allMatch(i -> running.get(i).looksLike(now.get(i)));
    }

    /** Entries of a strategy that may still be filled. */
    private static List<Snapshot.OrderView> entries(Snapshot snapshot, int index) {
        return snapshot.orders().stream()
                .filter(order -> order.state().live() && order.reason() instanceof FillReason.Entry
                        && order.owner().equals(new Owner.Strategy(index)))
                .toList();
    }

    private Stream<StrategyLayer> layers() {
        return Stream.concat(strategy.stream(), running.stream());
    }

    /** Entries that rest, the person's too. */
    List<Snapshot.OrderView> entries() {
        return Stream.concat(layers().flatMap(layer -> layer.entries().stream()),
                hand.view().stream().flatMap(view -> view.orders().stream())).toList();
    }

    /** Positions that are open, the person's last. */
    List<Held> positions() {
        List<Held> held = new ArrayList<>();
        layers().map(StrategyLayer::view).forEach(view -> view.position()
                .ifPresent(position -> held.add(new Held(position, view.trade(), ""))));
        hand.view().ifPresent(view -> view.position()
                .ifPresent(position -> held.add(new Held(position, view.trade(), "MINE "))));
        return held;
    }
}
