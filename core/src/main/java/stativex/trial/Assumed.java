package stativex.trial;

import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.exit.ExitTerms;
import stativex.order.FillReason;
import stativex.order.InsideBars;
import stativex.order.LeaveReason;
import stativex.order.Owner;
import stativex.order.Realism;

/**
 * How much of a result of bar mode was assumed. SEMANTICS, "Bar mode".
 *
 * @param stopsCounted bars in which a stop counted although a target would have filled before it
 * @param equalExtremes bars whose extremes lay equally far from the open
 * @param queueFills fills of limit orders that were to wait in a queue, and were taken as through
 * @param localStops trades that a stop held here has left, whose contracts were taken to have traded
 */
public record Assumed(int stopsCounted, int equalExtremes, int queueFills, int localStops) {

    static Assumed of(Run run, int ties) {
        InsideBars inside = run.engine().insideBars().orElseThrow();
        boolean queue = run.inputs().terms().realism() == Realism.QUEUE;
        return new Assumed(inside.stopsCounted(), ties, queue ? inside.limitFills() : 0,
                (int) run.engine().log().trades().stream().filter(trade -> countedHere(run, trade)).count());
    }

    private static boolean countedHere(Run run, Trade trade) {
        boolean left = trade.exitReason().filter(new FillReason.Left(LeaveReason.LOCAL_STOP)::equals).isPresent();
        return left && trade.owner() instanceof Owner.Strategy(int index)
                && counts(run.inputs().strategies().get(index), trade);
    }

    private static boolean counts(Strategy strategy, Trade trade) {
        return strategy.plan().terms(trade.side()).stop().flatMap(ExitTerms.Stop::local)
                .filter(local -> local.volume() > 0).isPresent();
    }
}
