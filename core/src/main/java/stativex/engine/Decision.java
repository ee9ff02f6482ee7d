package stativex.engine;

import java.util.Optional;
import stativex.account.LockReason;
import stativex.interlock.Reason;
import stativex.interlock.Refusal;
import stativex.market.Side;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.RejectReason;

/**
 * What was decided about a signal or an order of the person's, or a lock.
 *
 * @param print the last print that had arrived
 * @param bar the signal bar; −1 for a lock and for the person
 * @param owner whose signal or order it is; empty for a lock of the account
 * @param side empty when locked
 * @param price ticks: the order's as sent, else the last print's
 * @param market which contract of the run it is about, of a lock the one whose print brought it; 0 in a run of one
 */
public record Decision(long time, int print, int bar, Optional<Owner> owner, Optional<Side> side, long price,
        Outcome outcome, int market) {

    /** In a run of one contract. */
    public Decision(long time, int print, int bar, Optional<Owner> owner, Optional<Side> side, long price,
            Outcome outcome) {
        this(time, print, bar, owner, side, price, outcome, 0);
    }

    public enum Kind {
        TAKEN, DECLINED, WOULD_BE, REJECTED, LOCKED, CANCELLED,
        /** An act of the person, not about a signal. */
        BY_HAND
    }

    /** What the person did to a position or an order. */
    public enum Act {
        BREAKEVEN, PART_OFF, FLATTENED, STOP_MOVED, STOP_LOOSENED, TARGET_MOVED, ENTRY_MOVED, CANCELLED, PLAN_ATTACHED, PLAN_CHANGED, HANDED_OVER, ADOPTED
    }

    /** What came of it, with its reason and numbers. */
    public sealed interface Outcome {}

    /**
     * An order was sent.
     *
     * @param asked contracts, of which {@code quantity} were granted
     * @param grade of the signal, if its rule has grades
     */
    public record Taken(Order.Type type, int asked, int quantity, Optional<String> grade) implements Outcome {}

    public record Declined(Refusal refusal) implements Outcome {}

    /** Every interlock was clear, but the strategy only watches. */
    public record WouldBe() implements Outcome {}

    public record Rejected(RejectReason why) implements Outcome {}

    /** @param guarded only the guard of the line acted: closing would have ended beyond it */
    public record Locked(LockReason why, boolean guarded) implements Outcome {}

    /** A reverse was to be sent after its exit; something came in between. */
    public record ReverseDropped() implements Outcome {}

    /** @param quantity contracts that it is about */
    public record ByHand(Act act, int quantity) implements Outcome {}

    /** An order of the person's went past an interlock that was not clear and only warns, or about which they had been asked. */
    public record Passed(Refusal refusal) implements Outcome {}

    public Kind kind() {
        return switch (outcome) {
            case Taken ignored -> Kind.TAKEN;
            case Declined ignored -> Kind.DECLINED;
            case WouldBe ignored -> Kind.WOULD_BE;
            case Rejected ignored -> Kind.REJECTED;
            case Locked ignored -> Kind.LOCKED;
            case ReverseDropped ignored -> Kind.CANCELLED;
            case ByHand ignored -> Kind.BY_HAND;
            case Passed ignored -> Kind.BY_HAND;
        };
    }

    /** Whether it was declined for a reason. */
    public boolean declinedFor(Reason reason) {
        return outcome instanceof Declined declined && declined.refusal().reason() == reason;
    }

    /** Whether it is a lock for a reason. */
    public boolean lockedFor(LockReason reason) {
        return outcome instanceof Locked locked && locked.why() == reason;
    }
}
