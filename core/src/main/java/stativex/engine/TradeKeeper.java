package stativex.engine;

import java.util.Optional;
import stativex.exit.ExitPlan;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Fill;
import stativex.order.Order;
import stativex.order.SimulatedExchange;

/** Keeps the exchange's orders of an open trade where its plan wants them: the stop, the targets, the leave. */
final class TradeKeeper {
    private final Tape tape;
    private final Contract contract;
    private final SimulatedExchange exchange;

    TradeKeeper(Tape tape, Contract contract, SimulatedExchange exchange) {
        this.tape = tape;
        this.contract = contract;
        this.exchange = exchange;
    }

    /** Opens the trade that an entry's first fill makes. */
    OpenTrade open(int number, StrategyRun run, Fill first) {
        return new OpenTrade(number, contract, run.bracket, run.strategy.plan(), first, run.series().count());
    }

    /** An entry fill: the bracket is attached or enlarged, and follows when the average moved. */
    void entered(OpenTrade trade, Fill fill) {
        Bracket bracket = trade.bracket();
        Optional<Long> before = bracket.stop().isPresent() ? trade.path().level() : Optional.empty();
        boolean moved = trade.enter(fill);
        if (trade.path().hasLevel()) {
            boolean attached = bracket.stop().isPresent();
            exchange.attachStop(bracket, trade.path().levelTicks(), trade.path().origin().word());
            if (attached && moved && bracket.stop().get().price() != trade.path().levelTicks()) {
                exchange.change(bracket.stop().get(), trade.path().levelTicks(), trade.path().origin().word());
            }
            long beyond = bracket.side().sign() * (trade.path().levelTicks() - tape.price(fill.print()));
            if (!before.equals(trade.path().level()) && beyond > 0 && !bracket.leaving()) {
                exchange.leave(bracket, "stop at market");
            }
        }
        offerTargets(trade, bracket, fill.quantity(), moved);
    }

    private void offerTargets(OpenTrade trade, Bracket bracket, int contracts, boolean moved) {
        ExitPlan plan = trade.plan();
        int[] given = trade.allot(contracts);
        for (int leg = 0; leg < given.length; leg++) {
            Optional<Long> ticks = plan.targets().get(leg).ticks();
            if (ticks.isEmpty()) {
                continue;
            }
            long price = trade.path().target(ticks.get());
            if (given[leg] > 0) {
                exchange.attachTarget(bracket, leg + 1, given[leg], price);
            }
            if (moved) {
                String reason = "target " + (leg + 1);
                for (Order target : bracket.targets()) {
                    if (target.reason().equals(reason) && target.price() != price) {
                        exchange.change(target, price, reason);
                    }
                }
            }
        }
    }

    /** A print after the one that made the first entry fill. */
    void print(OpenTrade trade, int print, long price) {
        if (trade.print(print, price)) {
            moveStop(trade, price);
        }
    }

    /** The person moves the stop to the average, if that tightens it and the market has not passed it. */
    void breakeven(OpenTrade trade, int lastPrint, long lastPrice) {
        // a stop the market has passed already would be a flatten in disguise: that has its own command
        if (!trade.side().reached(trade.path().atDistance(0), lastPrice) && trade.path().byHand(0)) {
            trade.point(lastPrint);
            moveStop(trade, lastPrice);
        }
    }

    /** Sends the stop where its path now stands; a level already reached leaves at the market. */
    private void moveStop(OpenTrade trade, long price) {
        Bracket bracket = trade.bracket();
        long level = trade.path().levelTicks();
        if (trade.side().reached(level, price)) {
            if (!bracket.leaving()) {
                exchange.leave(bracket, "stop at market");
            }
        } else {
            bracket.stop().ifPresent(stop -> exchange.change(stop, level, trade.path().origin().word()));
        }
    }
}
