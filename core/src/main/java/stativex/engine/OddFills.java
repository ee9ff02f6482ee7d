package stativex.engine;

import java.util.Optional;
import stativex.market.Side;
import stativex.order.Bracket;
import stativex.order.FillReason;
import stativex.order.FromBroker;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Report;

/**
 * Fills that a broker tells of and that do not fit what stands: of an entry that counts as over while its owner is at something else, of
 * exits for more than was open, of orders that nobody here sent, and those that are taken back. Whatever the broker says is held: an
 * owner's contracts are closed by what fills against them, what adds to them joins their trade and its plan, and what no strategy can own
 * is the person's. In a trial there are none. Source: SEMANTICS, "Live".
 */
final class OddFills {
    private static final FillReason CORRECTION = new FillReason.Left(LeaveReason.BROKERS_CORRECTION);

    private final Engine engine;
    private final Booking booking;

    OddFills(Engine engine, Booking booking) {
        this.engine = engine;
        this.booking = booking;
    }

    /** What was filled. @param free no fee is paid for it: nothing was traded */
    private record Traded(boolean buy, int quantity, long price, long time, boolean free) {
        Traded rest(int less) {
            return new Traded(buy, quantity - less, price, time, free);
        }
    }

    /** Whether a fill can be booked as that of its order, as nearly all are. */
    boolean fits(MarketRun of, Report.Filled filled) {
        if (of.exchange.endsAtOnce()) {
            return true;
        }
        Bracket bracket = filled.order().bracket();
        OwnerRun run = of.of(filled.order().owner());
        if (filled.order().role() == Order.Role.ENTRY) {
            return run.bracket == bracket || run.pair.filter(half -> half == bracket).isPresent()
                    || run.bracket.idle() && run.pair.isEmpty();
        }
        return isOfTheTrade(run, bracket) && filled.execution().quantity() <= bracket.open();
    }

    private static boolean isOfTheTrade(OwnerRun run, Bracket bracket) {
        return run.bracket == bracket && run.trade.isPresent();
    }

    /** Books one that does not fit. */
    void take(MarketRun of, Report.Filled filled) {
        Order order = filled.order();
        Report.Execution done = filled.execution();
        OwnerRun run = of.of(order.owner());
        if (order.role() == Order.Role.ENTRY) {
            of.orders.bookedElsewhere(order, done.quantity());
            trade(run, order.bracket(), traded(order.buy(), done, false), filled.reason());
            return;
        }
        int fitting = isOfTheTrade(run, order.bracket()) ? order.bracket().open() : 0;
        if (fitting > 0) {
            Report.Filled part = new Report.Filled(order, new Report.Execution(done.time(), done.print(), fitting,
                    done.price(), done.slippage(), done.fromStatus()), filled.reason());
            of.orders.apply(part);
            booking.book(of, part, of.fee);
            run.settle();
        }
        of.orders.bookedElsewhere(order, done.quantity() - fitting);
        trade(of.hand, of.hand.bracket, traded(order.buy(), done, false).rest(fitting), CORRECTION);
    }

    private static Traded traded(boolean buy, Report.Execution done, boolean free) {
        return new Traded(buy, done.quantity(), done.price(), done.time(), free);
    }

    /** Takes a fill back; of an entry what was filled in truth comes first, so that its position is guarded all the time. */
    void undo(MarketRun of, Report.Undone undone) {
        Order order = undone.order();
        Traded back = traded(!order.buy(), undone.undone(), true);
        Optional<Traded> instead = undone.instead().map(done -> traded(order.buy(), done, true));
        boolean entry = order.role() == Order.Role.ENTRY;
        if (entry) {
            instead.ifPresent(one -> trade(of.of(order.owner()), order.bracket(), one, CORRECTION));
        }
        trade(of.of(order.owner()), order.bracket(), back, CORRECTION);
        if (!entry) {
            instead.ifPresent(one -> trade(of.of(order.owner()), order.bracket(), one, CORRECTION));
        }
    }

    /** Somebody traded on the account elsewhere: it is the person's. */
    void elsewhere(MarketRun of, FromBroker.Elsewhere told, boolean corrects) {
        trade(of.hand, of.hand.bracket, new Traded(told.buy(), told.quantity(), told.price(), told.time(), corrects),
                corrects ? CORRECTION : new FillReason.Entry());
    }

    /**
     * @param of the bracket whose order was filled
     * @param entry the reason of what opens or adds
     */
    private void trade(OwnerRun run, Bracket of, Traded traded, FillReason entry) {
        MarketRun market = run.market;
        Side side = traded.buy() ? Side.LONG : Side.SHORT;
        int off = run.bracket.side() == side ? 0 : Math.min(traded.quantity(), run.bracket.open());
        if (off > 0) {
            market.orders.cutFor(run.bracket, off, market.because());
            book(run, Order.Role.LEAVE, traded.rest(traded.quantity() - off), CORRECTION);
        }
        Traded rest = traded.rest(off);
        if (rest.quantity() == 0) {
            return;
        }
        boolean another = run.bracket.open() > 0 && run.bracket != of;
        if (run != market.hand && (off > 0 || another)) {
            // no strategy is turned round by what fills too much, and the broker's group of another trade knows nothing of it
            trade(market.hand, market.hand.bracket, rest, entry);
            return;
        }
        if (run.bracket.open() == 0) {
            begin(run, side);
        }
        book(run, Order.Role.ENTRY, rest, entry);
    }

    /** Whatever rests of an owner that has nothing open ends; a trade of this side begins. */
    private static void begin(OwnerRun run, Side side) {
        MarketRun market = run.market;
        market.orders.endEntries(run.bracket, market.because());
        run.pair.ifPresent(half -> market.orders.endEntries(half, market.because()));
        run.pair = Optional.empty();
        if (run == market.hand) {
            market.hand.guidedBy(Optional.empty());
            run.flattening = null;
        }
        run.bracket = new Bracket(run.owner, side);
    }

    private void book(OwnerRun run, Order.Role role, Traded traded, FillReason reason) {
        MarketRun market = run.market;
        boolean adds = role == Order.Role.ENTRY && run.bracket.open() > 0;
        Order order = market.orders.book(run.bracket, role, traded.quantity(), reason, run.closedBars(),
                market.because());
        Report.Filled filled = new Report.Filled(order, new Report.Execution(traded.time(), market.lastPrint,
                traded.quantity(), traded.price(), 0), reason);
        market.orders.apply(filled);
        booking.book(market, filled, traded.free() ? 0 : market.fee);
        if (adds) {
            market.orders.guard(run.bracket, market.because());
        }
        run.settle();
    }
}
