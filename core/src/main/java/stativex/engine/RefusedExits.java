package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.order.LeaveReason;
import stativex.order.Order;

/**
 * Exits that a broker has refused, or has lost, while their position is open. A stop is sent again at once, and again after 1, 2, 4 … s; if
 * its level is reached, or it does not work after 5 s, the position leaves at the market. Targets and leaves are tried again after 1, 2, 4
 * … 30 s while a session is open. In a trial nothing is ever refused. Source: SEMANTICS, "Live".
 */
final class RefusedExits {
    private static final long STOP = 5 * TapeTime.SECOND;
    private static final long LONGEST = 30 * TapeTime.SECOND;

    private final MarketRun market;
    private final List<Lost> lost = new ArrayList<>();

    /** One exit that is missing. */
    private static final class Lost {
        final OwnerRun run;
        final Bracket bracket;
        final Order order;
        final long since;
        long next;
        /** From the next attempt to the one after it. */
        long wait;

        Lost(OwnerRun run, Order order, long now) {
            this.run = run;
            this.bracket = order.bracket();
            this.order = order;
            this.since = now;
            boolean atOnce = order.role() == Order.Role.STOP;
            this.next = atOnce ? now : now + TapeTime.SECOND;
            this.wait = atOnce ? TapeTime.SECOND : 2 * TapeTime.SECOND;
        }

        boolean isOf(Order other) {
            return bracket == other.bracket() && order.role() == other.role()
                    && (order.role() != Order.Role.TARGET || order.reason().equals(other.reason()));
        }
    }

    RefusedExits(MarketRun market) {
        this.market = market;
    }

    /** An order was refused, or has ended without being filled. */
    void take(OwnerRun run, Order order) {
        boolean exit = order.role() != Order.Role.ENTRY && run.bracket == order.bracket() && run.trade.isPresent()
                && order.bracket().covered() > 0;
        if (exit && lost.stream().noneMatch(one -> one.isOf(order))) {
            lost.add(new Lost(run, order, market.now));
            if (order.everything()) {
                market.orders.leavesAgain(order.bracket(), true);
            }
        }
    }

    /** After every event: whatever is due is sent again. */
    void look() {
        if (!lost.isEmpty()) {
            lost.removeIf(this::ends);
            for (int i = 0; i < lost.size(); i++) {
                again(lost.get(i));
            }
        }
    }

    private boolean ends(Lost one) {
        boolean over = isOver(one);
        if (over && one.order.everything()) {
            market.orders.leavesAgain(one.bracket, false);
        }
        return over;
    }

    /** Whether nothing is open that it could leave, or one in its place works. */
    private static boolean isOver(Lost one) {
        return one.run.bracket != one.bracket || one.bracket.covered() == 0 || one.run.trade.isEmpty()
                || standing(one).filter(order -> order.state() != Order.State.PENDING).isPresent();
    }

    /** The order in its place that is alive. */
    private static Optional<Order> standing(Lost one) {
        return switch (one.order.role()) {
            case STOP -> one.bracket.stop().filter(stop -> stop.state().live());
            case TARGET -> one.bracket.targets().stream().filter(order -> order.state().live() && one.isOf(order))
                    .findFirst();
            default -> one.bracket.leaves().stream().filter(order -> order.state().live()).findFirst();
        };
    }

    private void again(Lost one) {
        boolean leave = one.order.role() == Order.Role.LEAVE;
        if (!market.clock.inSession() || !leave && one.bracket.leaveSent()) {
            return;
        }
        if (one.order.role() == Order.Role.STOP && instead(one)) {
            market.orders.afresh(one.bracket, market.because());
            market.orders.leaveCovered(one.bracket, LeaveReason.STOP_MISSING, market.because());
            return;
        }
        if (one.next > market.now || standing(one).isPresent()) {
            return;
        }
        if (leave || one.bracket.targets().stream().noneMatch(target -> target.state().live())) {
            market.orders.afresh(one.bracket, market.because());
        }
        switch (one.order.role()) {
            case STOP -> market.orders.carryOut(one.run.trade.orElseThrow().plan().stopAgain(), one.bracket,
                    market.because());
            case TARGET -> market.orders.offerAgain(one.order, market.because());
            default -> market.orders.leaveAgain(one.order, market.because());
        }
        one.next = market.now + one.wait;
        one.wait = Math.min(LONGEST, 2 * one.wait);
    }

    /** Whether the position is to leave in the place of a stop. */
    private boolean instead(Lost one) {
        TradeRun trade = one.run.trade.orElseThrow();
        return market.now - one.since >= STOP || trade.plan().stop()
                .filter(stop -> trade.side().reached(stop.level(), market.lastPrice)).isPresent();
    }

    /** Whether a stop that should be at the broker is not. */
    boolean stopMissing() {
        return lost.stream().anyMatch(one -> one.order.role() == Order.Role.STOP && !isOver(one));
    }
}
