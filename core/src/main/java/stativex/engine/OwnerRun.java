package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Ledger;
import stativex.exit.ExitTerms;
import stativex.market.Side;
import stativex.order.Bracket;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;

/** What one owner, a strategy or the person, has at work on one contract: orders, a trade, a position of its own. */
abstract class OwnerRun {
    final MarketRun market;
    final Owner owner;
    /** As every decision names it. */
    final Optional<Owner> named;
    final Ledger.Position position;
    Bracket bracket;
    /** The other half of a two-sided entry, as long as both rest. */
    Optional<Bracket> pair = Optional.empty();
    Optional<TradeRun> trade = Optional.empty();
    int tradesToday;
    /** Why everything was asked to leave; what still enters before its entries have ended leaves, too. Null: nothing was. */
    LeaveReason flattening;

    OwnerRun(Owner owner, MarketRun market) {
        this.owner = owner;
        this.named = Optional.of(owner);
        this.market = market;
        this.position = market.holding.position(owner);
        this.bracket = new Bracket(owner, Side.LONG);
    }

    /** The strategy whose bars and studies its plan reads; empty for a position without a plan. */
    abstract Optional<StrategyRun> guide();

    /** Its exit plan for trades of a side. */
    abstract PlanRules plan(Side side);

    /** The plan's terms for the trade, or for the entry, that is at work. */
    ExitTerms terms() {
        return plan(bracket.side()).terms();
    }

    /** Bars of the guide that have closed; 0 without one. */
    int closedBars() {
        return guide().map(guide -> guide.signals.closed()).orElse(0);
    }

    /** The last bar of the guide that was judged; −1 without one. */
    int judgedBar() {
        return guide().map(guide -> guide.signals.judged() - 1).orElse(-1);
    }

    /** Whether an entry is still working. */
    boolean entering() {
        return bracket.entering() > 0 || pair.isPresent();
    }

    /** Every entry that may still fill or has filled, of both halves of a two-sided one. */
    List<Order> entries() {
        if (pair.isEmpty()) {
            return bracket.entries();
        }
        List<Order> both = new ArrayList<>(bracket.entries());
        both.addAll(pair.get().entries());
        return both;
    }

    /** The bracket of a side at which something is open or working. */
    Optional<Bracket> atWork(Side side) {
        return !bracket.idle() && bracket.side() == side
                ? Optional.of(bracket)
                : pair.filter(other -> other.side() == side);
    }

    /** Contracts of a side that are open or that resting entries may open. */
    int held(Side side) {
        int held = bracket.side() == side ? bracket.open() + bracket.entering() : 0;
        return pair.isPresent() && pair.get().side() == side ? held + pair.get().entering() : held;
    }

    /** After anything became of an order: of a two-sided entry what still rests goes on alone. */
    void settle() {
        if (pair.isPresent() && bracket.idle()) {
            bracket = pair.get();
            pair = Optional.empty();
        }
        pair = pair.filter(other -> !other.idle());
    }

    /** Of a two-sided entry this half has filled: it is the trade's. Returns the other, which ends. */
    Optional<Bracket> fills(Bracket half) {
        Optional<Bracket> other = half == bracket ? pair : pair.isPresent() ? Optional.of(bracket) : Optional.empty();
        bracket = half;
        pair = Optional.empty();
        return other;
    }
}
