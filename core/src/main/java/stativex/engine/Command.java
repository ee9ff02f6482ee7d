package stativex.engine;

import java.util.OptionalInt;
import stativex.account.OwnLimits;
import stativex.exit.ExitPlan;
import stativex.market.Side;
import stativex.order.Order;
import stativex.order.Owner;

/** What the person may do; an input of the engine like any print. Strategies by index, prices in ticks. */
public sealed interface Command {
    record SetMode(int strategy, Mode mode) implements Command {}

    record SetSide(int strategy, Side side, boolean on) implements Command {}

    record SetOnce(int strategy, boolean once) implements Command {}

    /** Moves the stop of the open trade to its average entry price, if that tightens it. */
    record Breakeven(Owner owner) implements Command {
        public Breakeven(int strategy) {
            this(new Owner.Strategy(strategy));
        }
    }

    /** Takes half of the open contracts off at the market, at least one. */
    record HalfOff(Owner owner) implements Command {
        public HalfOff(int strategy) {
            this(new Owner.Strategy(strategy));
        }
    }

    record Flatten(Owner owner) implements Command {
        public Flatten(int strategy) {
            this(new Owner.Strategy(strategy));
        }
    }

    /** Leaves everything and locks the account until the next trading day; nobody can lift that. */
    record FlatAndLock() implements Command {}

    /**
     * An entry of the person's own, good for the day.
     *
     * @param price limit or stop; {@link stativex.market.Tape#NONE} at the market
     * @param limit of a stop-limit, else {@link stativex.market.Tape#NONE}
     * @param plan the strategy whose exit plan its trade takes; empty: none. What joins an open position of theirs keeps its plan
     * @param anyway the person has been told which interlock is not clear (see {@link stativex.account.ForThePerson}), and sends it all
     *     the same
     */
    record Enter(Side side, Order.Type type, int quantity, long price, long limit, OptionalInt plan, boolean anyway)
            implements
                Command {
        public Enter {
            if (quantity < 1) {
                throw new IllegalArgumentException("expected a quantity of 1 or more, found " + quantity);
            }
        }
    }

    /** Ends an entry or a target that rests; takes latency. */
    record Cancel(int order) implements Command {}

    /**
     * Another price for an order that rests. A stop may be loosened: the person has been asked, and the line check must pass.
     *
     * @param order its number
     */
    record Move(int order, long price) implements Command {}

    /** The position of one owner goes to another, as it stands, without a fill. A strategy attaches its own plan. */
    record HandOver(Owner from, Owner to) implements Command {}

    /**
     * A strategy has another exit plan from its next trade on.
     *
     * @param open the trade that is open takes it, too: its best so far counts, and its stop never becomes looser by it
     */
    record ChangePlan(int strategy, ExitPlan plan, boolean open) implements Command {}

    /** The account has other own limits: looser ones hold from its next trading day on. Quiet times stay as the run began with them. */
    record ChangeLimits(OwnLimits own) implements Command {}

    /**
     * What the broker holds beyond what is counted here becomes the person's, or is taken from what they have, without an order: it was
     * traded elsewhere. Only where a broker carries orders out.
     *
     * @param contracts below 0 when the broker holds fewer, or is short
     * @param price that it counts at, ticks
     */
    record Adopt(int contracts, long price) implements Command {
        public Adopt {
            if (contracts == 0) {
                throw new IllegalArgumentException("expected a number of contracts other than 0");
            }
        }
    }

    /** The person's position takes the exit plan of a strategy, counted from its real average. */
    record AttachPlan(int strategy) implements Command {}
}
