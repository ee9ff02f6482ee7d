package stativex.desk.chart;

import java.util.List;
import java.util.Optional;
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
 * @param lastPrice marked on the price axis
 * @param strategy what a strategy has done on these bars
 * @param marks where a strategy would enter
 */
public record ChartModel(ChartBars bars, List<Snapshot.StudyView> studies, Optional<Long> lastPrice,
        Optional<StrategyLayer> strategy, List<Mark> marks) {

    /** A bar at whose close a side's rule held. */
    public record Mark(int bar, Side side) {}

    /** A chart without marks. */
    public ChartModel(ChartBars bars, List<Snapshot.StudyView> studies, Optional<Long> lastPrice,
            Optional<StrategyLayer> strategy) {
        this(bars, studies, lastPrice, strategy, List.of());
    }

    /** A strategy's trades and decisions. */
    public record StrategyLayer(Snapshot.StrategyView view, List<Trade> trades, List<Decision> decisions,
            List<Snapshot.OrderView> entries) {}

    /** The chart of strategy {@code index} as it stands in a snapshot. */
    public static ChartModel of(Inputs inputs, Snapshot snapshot, int index) {
        Snapshot.StrategyView strategy = snapshot.strategies().get(index);
        return new ChartModel(
                ChartBars.live(inputs.contract(), inputs.tape(), strategy.bars(), strategy.forming()),
                strategy.studies(), snapshot.lastPrice(), Optional.of(new StrategyLayer(strategy,
                        strategy.trades(), strategy.decisions(), entries(snapshot, index))));
    }

    /** Entries of a strategy that may still be filled. */
    private static List<Snapshot.OrderView> entries(Snapshot snapshot, int index) {
        return snapshot.orders().stream()
                .filter(order -> order.state().live() && order.reason() instanceof FillReason.Entry
                        && order.owner().equals(new Owner.Strategy(index)))
                .toList();
    }

    /** Entries that rest. */
    List<Snapshot.OrderView> entries() {
        return strategy.map(StrategyLayer::entries).orElse(List.of());
    }

    /** The position the strategy has. */
    Optional<Snapshot.PositionView> position() {
        return strategy.flatMap(s -> s.view().position());
    }

    /** The trade that is open. */
    Optional<Trade> openTrade() {
        return strategy.flatMap(s -> s.view().trade());
    }
}
