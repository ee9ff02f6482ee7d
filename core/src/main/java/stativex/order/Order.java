package stativex.order;

import stativex.market.Tape;

/**
 * One order of one owner. Made and moved along by the exchange only; everyone else reads it. Prices in ticks, times in
 * nanoseconds.
 */
public final class Order {
    public enum Type {
        MARKET("market"), LIMIT("limit"), STOP("stop");

        private final String word;

        Type(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public enum State {
        PENDING("pending"), WORKING("working"), PARTLY_FILLED("partly filled"), FILLED("filled"), CANCELLED(
                "cancelled"), REJECTED("rejected");

        private final String word;

        State(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        public boolean live() {
            return this == PENDING || this == WORKING || this == PARTLY_FILLED;
        }
    }

    /** What the order is for. */
    public enum Role {
        ENTRY, STOP, TARGET, LEAVE
    }

    private final int number;
    private final Bracket bracket;
    private final Role role;
    private final Type type;
    private final boolean buy;
    private final long sent;
    private final long reference;
    private final int closesBefore;
    int quantity;
    int filled;
    long price;
    String reason;
    /** The last print worked when it was sent: it meets the next one at the earliest. */
    final int sentAfter;
    long accepted;
    long expires;
    State state = State.PENDING;
    /** A resting limit that has met a print already; before that the market may have passed it. */
    boolean met;
    /** A stop that has triggered and leaves the rest on the next print. */
    boolean triggered;
    /** A leave of everything that is open, whatever joins meanwhile. */
    boolean everything;

    Order(int number, Bracket bracket, Role role, Type type, boolean buy, int quantity, long price, String reason,
            int sentAfter, long sent, long accepted, long expires, long reference, int closesBefore) {
        this.number = number;
        this.bracket = bracket;
        this.role = role;
        this.type = type;
        this.buy = buy;
        this.quantity = quantity;
        this.price = price;
        this.reason = reason;
        this.sentAfter = sentAfter;
        this.sent = sent;
        this.accepted = accepted;
        this.expires = expires;
        this.reference = reference;
        this.closesBefore = closesBefore;
    }

    /** Runs in order of sending, from 1. */
    public int number() {
        return number;
    }

    public Bracket bracket() {
        return bracket;
    }

    public int owner() {
        return bracket.owner();
    }

    public Role role() {
        return role;
    }

    public Type type() {
        return type;
    }

    public boolean buy() {
        return buy;
    }

    public int quantity() {
        return quantity;
    }

    public int filled() {
        return filled;
    }

    /** Contracts not yet filled. */
    public int rest() {
        return quantity - filled;
    }

    /** Limit or stop price in ticks; {@link Tape#NONE} for a market order. */
    public long price() {
        return price;
    }

    /** The word its fills carry: {@code entry}, {@code stop}, {@code target 1} … */
    public String reason() {
        return reason;
    }

    /** Signal bars that had closed when an entry was sent; −1 for other orders. */
    public int closesBefore() {
        return closesBefore;
    }

    public long sent() {
        return sent;
    }

    public long accepted() {
        return accepted;
    }

    public State state() {
        return state;
    }

    /** The price that slippage is measured from: the stop's own, or the last print's when a market order was sent. */
    long reference() {
        return type == Type.STOP ? price : reference;
    }
}
