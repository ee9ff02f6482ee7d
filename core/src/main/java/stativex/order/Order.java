package stativex.order;

import stativex.market.Side;
import stativex.market.Tape;

/**
 * One order of one owner. {@link Orders} makes it and moves it along by {@link Report}s; everyone else reads it. Prices in ticks,
 * times in nanoseconds.
 */
public final class Order {
    public enum Type {
        MARKET, LIMIT, STOP,
        /** Reached like a stop; from then on a limit. */
        STOP_LIMIT;

        /** Such as {@code stop-limit}. */
        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
        }
    }

    public enum State {
        PENDING, WORKING, PARTLY_FILLED, FILLED, CANCELLED, REJECTED;

        /** Whether it may still be filled. */
        public boolean live() {
            return this == PENDING || this == WORKING || this == PARTLY_FILLED;
        }
    }

    /** What the order is for. */
    public enum Role {
        ENTRY, STOP, TARGET, LEAVE
    }

    /** How long an order stays, as far as the exchange itself ends it. */
    public enum GoodFor {
        /** Until the last session's close of the trading day in which it is accepted. */
        DAY,
        /** Until cancelled. */
        UNTIL_CANCELLED
    }

    /**
     * What is asked for, fixed when it is sent.
     *
     * @param price limit or stop; {@link Tape#NONE} at the market
     * @param beyond of a stop-limit: ticks from its stop to its limit
     */
    record Asked(Role role, Type type, int quantity, long price, FillReason reason, GoodFor goodFor, int beyond) {
        Asked(Role role, Type type, int quantity, long price, FillReason reason, GoodFor goodFor) {
            this(role, type, quantity, price, reason, goodFor, 0);
        }
    }

    private final int number;
    private final Bracket bracket;
    private final Asked asked;
    private final boolean buy;
    private final Cause cause;
    private final long reference;
    private final int closesBefore;
    private final boolean everything;
    int quantity;
    int filled;
    long price;
    FillReason reason;
    State state = State.PENDING;
    boolean triggered;
    private Type type;
    /** Where it was last asked to stand. */
    private long wanted;
    private boolean turning;
    private boolean keepsItsPrice;

    /**
     * @param reference the last print's price when it was sent
     * @param closesBefore signal bars that had closed when it was sent
     * @param everything a leave of all that is open, whatever joins meanwhile
     */
    Order(int number, Bracket bracket, Asked asked, Cause cause, long reference, int closesBefore,
            boolean everything) {
        this.number = number;
        this.bracket = bracket;
        this.asked = asked;
        this.buy = (bracket.side() == Side.LONG) == (asked.role() == Role.ENTRY);
        this.cause = cause;
        this.reference = reference;
        this.closesBefore = closesBefore;
        this.everything = everything;
        this.quantity = asked.quantity();
        this.price = asked.price();
        this.wanted = price;
        this.type = asked.type();
        this.reason = asked.reason();
    }

    /** Runs in order of sending, from 1. */
    public int number() {
        return number;
    }

    public Bracket bracket() {
        return bracket;
    }

    public Owner owner() {
        return bracket.owner();
    }

    public Role role() {
        return asked.role();
    }

    public Type type() {
        return type;
    }

    /** Limit or stop price that it was last asked to have; a change may be on its way. */
    public long wanted() {
        return wanted;
    }

    /** Whether it was asked to turn to the market. */
    public boolean turning() {
        return turning;
    }

    /** The person has moved it: no plan moves it any more. */
    public void keepsItsPrice() {
        keepsItsPrice = true;
    }

    /** Whether the person has moved it. */
    public boolean movedByHand() {
        return keepsItsPrice;
    }

    void want(long other) {
        wanted = other;
    }

    void wantMarket() {
        turning = true;
    }

    /** A stop-limit has been reached: it is a limit. */
    void reach() {
        price = limit();
        wanted = price;
        type = Type.LIMIT;
    }

    /** Whether it is a limit that was a stop-limit before it was reached; its price stays. */
    public boolean reached() {
        return asked.type() == Type.STOP_LIMIT && type == Type.LIMIT;
    }

    /** The price beyond which it never fills, ticks; of a stop-limit the limit that it will have. */
    public long limit() {
        return type != Type.STOP_LIMIT ? price : buy ? price + asked.beyond() : price - asked.beyond();
    }

    /** Of a stop-limit: ticks from its stop to its limit, below 0 when the limit is the tighter. */
    int beyond() {
        return asked.beyond();
    }

    void turn() {
        type = Type.MARKET;
        price = Tape.NONE;
    }

    public GoodFor goodFor() {
        return asked.goodFor();
    }

    public boolean buy() {
        return buy;
    }

    /** Contracts asked for; of a stop and of a leave of everything: filled and still to be filled. */
    public int quantity() {
        return quantity;
    }

    public int filled() {
        return filled;
    }

    /** Contracts not yet filled; a stop and a leave of everything are for all that is open. */
    public int rest() {
        return quantity - filled;
    }

    /** Limit or stop price in ticks; {@link Tape#NONE} for a market order. */
    public long price() {
        return price;
    }

    /** What its fills carry. */
    public FillReason reason() {
        return reason;
    }

    /** Signal bars that had closed when it was sent. */
    public int closesBefore() {
        return closesBefore;
    }

    /** The event because of which it was sent. */
    public Cause cause() {
        return cause;
    }

    public State state() {
        return state;
    }

    /** Whether it leaves everything that is open, whatever joins meanwhile. */
    public boolean everything() {
        return everything;
    }

    /** Whether a stop has been reached. */
    public boolean triggered() {
        return triggered;
    }

    /** The last print's price when it was sent, or {@link Tape#NONE}. */
    long reference() {
        return reference;
    }
}
