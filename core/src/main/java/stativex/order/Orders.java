package stativex.order;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.IntSupplier;
import stativex.exit.PlanRun;
import stativex.market.Tape;

/**
 * Every order of a run as one state machine. It is asked by methods that make a {@link Request} of the venue, and changes by
 * {@link Report}s alone. Brackets are kept in step here, as the exchange's own doing: a target's fill reduces the stop, a stop's
 * or leave's fill reduces the targets from the last to the first, what goes flat ends its entries. Source: SEMANTICS, "Orders and
 * the simulated exchange".
 */
public final class Orders {
    private final Venue venue;
    private final IntSupplier numbers;

    /** @param numbers the next number: those of a run go up in order of sending, over all of its venues */
    public Orders(Venue venue, IntSupplier numbers) {
        this.venue = venue;
        this.numbers = numbers;
    }

    /**
     * What an entry is to be.
     *
     * @param price ticks; {@link Tape#NONE} for a market order
     * @param beyond of a stop-limit: ticks from its stop to its limit
     */
    public record Entry(Order.Type type, int quantity, long price, int beyond, Order.GoodFor goodFor) {}

    /**
     * Sends an entry.
     *
     * @param closesBefore signal bars that have closed
     */
    public Order enter(Bracket bracket, Entry entry, int closesBefore, Cause cause) {
        return send(bracket, new Order.Asked(Order.Role.ENTRY, entry.type(), entry.quantity(), entry.price(),
                new FillReason.Entry(), entry.goodFor(), entry.beyond()), cause, closesBefore, false);
    }

    /** Sends a market order that leaves everything that is open when it meets a print. */
    public Order leave(Bracket bracket, LeaveReason why, Cause cause) {
        return send(bracket, leave(bracket.open(), why), cause, -1, true);
    }

    /** The same of what the broker has, where it has not everything: nothing, if that is on its way already. */
    public void leaveCovered(Bracket bracket, LeaveReason why, Cause cause) {
        if (bracket.covered() == bracket.open()) {
            leave(bracket, why, cause);
        } else if (bracket.covered() > 0 && !bracket.takingOff()) {
            leave(bracket, bracket.covered(), why, cause);
        }
    }

    /** Sends a market order that leaves {@code quantity} contracts. */
    public Order leave(Bracket bracket, int quantity, LeaveReason why, Cause cause) {
        return send(bracket, leave(quantity, why), cause, -1, false);
    }

    private static Order.Asked leave(int quantity, LeaveReason why) {
        return new Order.Asked(Order.Role.LEAVE, Order.Type.MARKET, quantity, Tape.NONE, new FillReason.Left(why),
                Order.GoodFor.UNTIL_CANCELLED);
    }

    /** Does what a trade's plan wishes: stop first, then a leave, then targets in listed order. */
    public void carryOut(PlanRun.Wishes wishes, Bracket bracket, Cause cause) {
        wishes.stop().ifPresent(stop -> stop(bracket, stop, cause));
        wishes.departure().ifPresent(departure -> carryOut(departure, bracket, cause));
        for (PlanRun.Target target : wishes.targets()) {
            target(bracket, target, cause);
        }
    }

    /** Leaves as a plan wishes, unless everything is being left already. */
    public void carryOut(PlanRun.Departure departure, Bracket bracket, Cause cause) {
        if (bracket.leaving()) {
            return;
        }
        LeaveReason why = switch (departure.why()) {
            case STOP_AT_MARKET -> LeaveReason.STOP_AT_MARKET;
            case LOCAL_STOP -> LeaveReason.LOCAL_STOP;
            case AFTER_BARS -> LeaveReason.AFTER_BARS;
            case FIRST_CLOSE_IN_PROFIT -> LeaveReason.FIRST_CLOSE_IN_PROFIT;
            case RULE -> LeaveReason.RULE;
        };
        if (departure.quantity().isPresent()) {
            leave(bracket, departure.quantity().getAsInt(), why, cause);
        } else {
            leaveCovered(bracket, why, cause);
        }
    }

    private void stop(Bracket bracket, PlanRun.Stop wished, Cause cause) {
        FillReason reason = new FillReason.AtStop(wished.origin());
        if (bracket.stop().filter(stop -> stop.state().live()).isPresent()) {
            change(bracket.stop().get(), wished.level(), reason, cause);
        } else if (bracket.covered() > 0) {
            send(bracket, new Order.Asked(Order.Role.STOP, Order.Type.STOP, bracket.covered(), wished.level(), reason,
                    Order.GoodFor.UNTIL_CANCELLED), cause, -1, false);
        }
    }

    private void target(Bracket bracket, PlanRun.Target wished, Cause cause) {
        FillReason reason = new FillReason.Target(wished.leg());
        Order standing = bracket.target(wished.leg()).orElse(null);
        if (standing != null) {
            if (wished.added() > 0) {
                standing.quantity += wished.added();
                venue.take(new Request.Resize(standing, standing.quantity, cause));
            }
            if (wished.moved() && !standing.movedByHand() && standing.wanted() != wished.price()) {
                change(standing, wished.price(), reason, cause);
            }
        } else if (wished.added() > 0) {
            send(bracket, new Order.Asked(Order.Role.TARGET, Order.Type.LIMIT, wished.added(), wished.price(), reason,
                    Order.GoodFor.UNTIL_CANCELLED), cause, -1, false);
        }
    }

    /** Offers a target that was refused once more, for no more than is open and not on offer. */
    public void offerAgain(Order refused, Cause cause) {
        Bracket bracket = refused.bracket();
        int quantity = Math.min(refused.rest(), bracket.covered() - bracket.offered());
        if (quantity > 0) {
            send(bracket, new Order.Asked(Order.Role.TARGET, Order.Type.LIMIT, quantity, refused.wanted(),
                    refused.reason(), Order.GoodFor.UNTIL_CANCELLED), cause, -1, false);
        }
    }

    /** A leave of everything was refused: it is sent again after a while, and nothing else leaves meanwhile; or that is over. */
    public void leavesAgain(Bracket bracket, boolean soon) {
        bracket.leavesAgain(soon);
    }

    /**
     * Exits are sent again that the broker has ended by itself: its group of them may be over, though contracts are open. Unless a stop
     * still works there, what is left of it ends, and a group is begun anew.
     */
    public void afresh(Bracket bracket, Cause cause) {
        if (!venue.endsAtOnce() && bracket.stop().filter(stop -> stop.state().live()).isEmpty()) {
            endTargets(bracket, cause);
            endEntries(bracket, cause);
            venue.afresh(bracket);
        }
    }

    /** Sends a leave that was refused once more, for no more than is open. */
    public void leaveAgain(Order refused, Cause cause) {
        Bracket bracket = refused.bracket();
        int quantity = refused.everything() ? bracket.open() : Math.min(refused.rest(), bracket.covered());
        if (quantity == 0) {
            return;
        }
        send(bracket, new Order.Asked(Order.Role.LEAVE, Order.Type.MARKET, quantity, Tape.NONE, refused.reason(),
                Order.GoodFor.UNTIL_CANCELLED), cause, -1, refused.everything());
    }

    /**
     * The broker does not have so many of the contracts that are open: no exit is left there for more than the rest, targets are cut before
     * the stop, the newest first. With 0 the stop is for everything again; targets stay as they are.
     */
    public void missing(Bracket bracket, int contracts, Cause cause) {
        int before = bracket.covered();
        bracket.missing(contracts);
        if (bracket.covered() < before) {
            cut(bracket, cause);
        } else if (bracket.covered() > before) {
            stopFor(bracket, cause);
        }
    }

    /** Contracts of a bracket go elsewhere: what is left at the broker is for no more than the rest. */
    public void cut(Bracket bracket, int gone, Cause cause) {
        bracket.missing(gone);
        cut(bracket, cause);
    }

    /** Contracts of a bracket are about to be booked as gone: what is left at the broker is for no more than the rest. */
    public void cutFor(Bracket bracket, int leaving, Cause cause) {
        int before = bracket.open() - bracket.covered();
        bracket.missing(before + leaving);
        cut(bracket, cause);
        bracket.missing(before);
    }

    /** Contracts of an order were filled that are booked as another's. */
    public void bookedElsewhere(Order order, int quantity) {
        order.filled += quantity;
        if (order.state.live()) {
            order.state = order.rest() == 0 ? Order.State.FILLED : Order.State.PARTLY_FILLED;
        }
    }

    private void cut(Bracket bracket, Cause cause) {
        for (Order target : bracket.targets().reversed()) {
            int over = Math.min(target.rest(), bracket.offered() - bracket.covered());
            if (target.state().live() && over > 0) {
                target.quantity -= over;
                venue.take(target.rest() == 0
                        ? new Request.Cancel(target, true, cause)
                        : new Request.Resize(target, target.quantity, cause));
            }
        }
        stopFor(bracket, cause);
    }

    /** Contracts were booked that the broker's own group knows nothing of: the stop is for them, too. */
    public void guard(Bracket bracket, Cause cause) {
        stopFor(bracket, cause);
    }

    /** The stop is for all that is covered; the broker's own group may think otherwise. */
    private void stopFor(Bracket bracket, Cause cause) {
        bracket.stop().filter(stop -> stop.state().live()).ifPresent(stop -> {
            stop.quantity = stop.filled + bracket.covered();
            venue.take(bracket.covered() == 0
                    ? new Request.Cancel(stop, true, cause)
                    : new Request.Resize(stop, stop.quantity, cause));
        });
    }

    /**
     * An order at the market that was carried out elsewhere: nothing is sent.
     *
     * @param closesBefore signal bars of its owner that have closed
     */
    public Order book(Bracket bracket, Order.Role role, int quantity, FillReason reason, int closesBefore,
            Cause cause) {
        Order order = new Order(numbers.getAsInt(), bracket, new Order.Asked(role, Order.Type.MARKET, quantity,
                Tape.NONE, reason, Order.GoodFor.UNTIL_CANCELLED), cause, Tape.NONE, closesBefore, false);
        bracket.add(order);
        return order;
    }

    /** Takes an order as it is given. */
    Order place(Bracket bracket, Order.Asked asked, Cause cause, boolean everything) {
        return send(bracket, asked, cause, -1, everything);
    }

    /**
     * An exit that was on its way while contracts left or came: a stop is for all that is open, no exit for more, and none stays where
     * nothing is open.
     */
    void fit(Order exit) {
        Bracket bracket = exit.bracket();
        if (bracket.open() == 0) {
            end(exit);
        } else if (exit.role() == Order.Role.STOP) {
            exit.quantity = exit.filled + bracket.open();
        } else if (exit.role() == Order.Role.TARGET) {
            reduceTargets(bracket);
        }
    }

    private Order send(Bracket bracket, Order.Asked asked, Cause cause, int closesBefore, boolean everything) {
        Order order = new Order(numbers.getAsInt(), bracket, asked, cause, venue.lastPrice(), closesBefore, everything);
        bracket.add(order);
        venue.take(new Request.New(order, cause));
        return order;
    }

    /** Asks to cancel; takes latency like an order. */
    public void cancel(Order order, Cause cause) {
        if (order.state.live()) {
            venue.take(new Request.Cancel(order, false, cause));
        }
    }

    /** Asks to cancel every entry of a bracket. */
    public void cancelEntries(Bracket bracket, Cause cause) {
        bracket.entries().forEach(entry -> cancel(entry, cause));
    }

    /** Every entry of a bracket ends at once, the exchange's own doing. */
    public void endEntries(Bracket bracket, Cause cause) {
        bracket.entries().forEach(entry -> endAtOnce(entry, cause));
    }

    /** Every target of a bracket ends at once: another plan is attached. */
    public void endTargets(Bracket bracket, Cause cause) {
        bracket.targets().forEach(target -> endAtOnce(target, cause));
    }

    private void endAtOnce(Order order, Cause cause) {
        if (order.state.live()) {
            if (venue.endsAtOnce()) {
                end(order);
            }
            venue.take(new Request.Cancel(order, true, cause));
        }
    }

    /** Asks for another price; takes latency, until then the old one works. */
    public void change(Order order, long price, FillReason reason, Cause cause) {
        if (order.state.live()) {
            order.want(price);
            venue.take(new Request.Change(order, price, reason, cause));
        }
    }

    /** Asks a resting order to turn to the market; takes latency, until then it works as it is. */
    public void toMarket(Order order, Cause cause) {
        if (order.state.live() && !order.turning()) {
            order.wantMarket();
            venue.take(new Request.ToMarket(order, cause));
        }
    }

    /** Takes what became of an order. The only place where orders change. */
    public void apply(Report report) {
        Order order = report.order();
        switch (report) {
            case Report.Turned ignored -> order.turn();
            case Report.Accepted ignored -> order.state = Order.State.WORKING;
            case Report.Triggered ignored -> {
                if (order.type() == Order.Type.STOP_LIMIT) {
                    order.reach();
                } else {
                    order.triggered = true;
                }
            }
            case Report.Changed changed -> {
                order.price = changed.price();
                order.reason = changed.reason();
            }
            case Report.Filled filled -> fill(order, filled.execution());
            case Report.Undone ignored -> {
                // the order stays as it is: what was filled is booked against it
            }
            case Report.Ended ignored -> end(order);
            case Report.Rejected ignored -> order.state = Order.State.REJECTED;
        }
    }

    private void fill(Order order, Report.Execution done) {
        Bracket bracket = order.bracket();
        if (order.everything()) {
            order.quantity = order.filled + bracket.open();
        }
        order.filled += done.quantity();
        order.state = order.rest() == 0 ? Order.State.FILLED : Order.State.PARTLY_FILLED;
        if (order.role() == Order.Role.ENTRY) {
            bracket.entered(done.quantity(), done.print());
            bracket.stop().ifPresent(stop -> stop.quantity = stop.filled + bracket.covered());
        } else {
            bracket.left(done.quantity());
            keepInStep(bracket, order, done);
        }
        if (bracket.open() > bracket.covered()) {
            // the broker's own group knows nothing of what was traded elsewhere
            cut(bracket, new Cause(done.print(), done.time()));
        }
    }

    /** Reductions after an exit's fill, the exchange's own; they take no latency. */
    private void keepInStep(Bracket bracket, Order exit, Report.Execution done) {
        bracket.stop().filter(stop -> stop != exit)
                .ifPresent(stop -> stop.quantity = stop.filled + bracket.covered());
        if (exit.role() != Order.Role.TARGET) {
            reduceTargets(bracket);
        }
        if (bracket.open() == 0) {
            bracket.stop().ifPresent(Orders::end);
            bracket.targets().forEach(Orders::end);
            bracket.leaves().forEach(Orders::end);
        }
        if (bracket.open() == 0 || exit.role() == Order.Role.STOP || exit.everything()) {
            Cause cause = new Cause(done.print(), done.time());
            bracket.entries().forEach(entry -> endAtOnce(entry, cause));
        }
    }

    /** From the last to the first until no more is on offer than is open. */
    private static void reduceTargets(Bracket bracket) {
        for (int over = bracket.offered() - bracket.open(); over > 0; over = bracket.offered() - bracket.open()) {
            OptionalInt last = bracket.lastTarget();
            Order target = bracket.targets().get(last.orElseThrow());
            target.quantity -= Math.min(target.rest(), over);
            if (target.rest() == 0) {
                end(target);
            }
        }
    }

    private static void end(Order order) {
        if (order.state.live()) {
            order.state = Order.State.CANCELLED;
        }
    }
}
