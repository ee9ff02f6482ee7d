package stativex.account;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import stativex.market.Bounds;
import stativex.order.Owner;

/**
 * Balance and positions of one account, by contract and owner. Money in ten-thousandths. Realised result is by average cost,
 * rounded down to a ten-thousandth, the remainder staying with the open part, so that balance plus open result is always exact.
 * Source: SEMANTICS, "Account rulebooks".
 */
public final class Ledger {
    private long balance;
    private final List<Holding> holdings = new ArrayList<>(1);

    public Ledger(long balance) {
        this.balance = balance;
    }

    /** Begins to keep a contract. @param tickValue money a tick of it is worth */
    public Holding holding(long tickValue) {
        Holding holding = new Holding(tickValue);
        holdings.add(holding);
        return holding;
    }

    public long balance() {
        return balance;
    }

    /** Balance plus open result, each contract at the price it was last marked with. */
    public long equity() {
        long equity = balance;
        for (int i = 0; i < holdings.size(); i++) {
            equity = Math.addExact(equity, holdings.get(i).openResult());
        }
        return equity;
    }

    /** Whether no owner holds anything. */
    public boolean flat() {
        for (int i = 0; i < holdings.size(); i++) {
            if (holdings.get(i).open > 0) {
                return false;
            }
        }
        return true;
    }

    /** What one owner holds of one contract. Contracts and cost are negative when short. */
    public static final class Position {
        private final Holding holding;
        private long contracts;
        private long cost;
        private long realised;
        private long fees;

        private Position(Holding holding) {
            this.holding = holding;
        }

        public long contracts() {
            return contracts;
        }

        /** Open result at the contract's price, money. */
        public long openResult() {
            return holding.worth(contracts, cost);
        }

        /** Result since the start, open result included, after fees. */
        public long result() {
            return Math.subtractExact(Math.addExact(realised, openResult()), fees);
        }

        /** Draws bounds to the prices between which its result stays strictly between two amounts. */
        public void bound(long low, long high, Bounds bounds) {
            long perTick = Math.multiplyExact(contracts, holding.tickValue);
            draw(perTick, result() - Math.multiplyExact(perTick, holding.price), low, high, bounds);
        }
    }

    /**
     * Draws bounds to the prices between which an amount stays strictly between two.
     *
     * @param perTick what it changes by with a tick; {@code atZero} what it is at price 0
     */
    private static void draw(long perTick, long atZero, long low, long high, Bounds bounds) {
        if (perTick == 0) {
            return;
        }
        long each = Math.abs(perTick);
        boolean rises = perTick > 0;
        if (low != Long.MIN_VALUE) {
            long ticks = Math.floorDiv(Math.subtractExact(low, atZero), each);
            if (rises) {
                bounds.down(ticks);
            } else {
                bounds.up(-ticks);
            }
        }
        if (high != Long.MAX_VALUE) {
            long ticks = -Math.floorDiv(-Math.subtractExact(high, atZero), each);
            if (rises) {
                bounds.up(ticks);
            } else {
                bounds.down(-ticks);
            }
        }
    }

    /** One contract: every owner's position, their net, and the price they are worth. */
    public final class Holding {
        private final long tickValue;
        private final Map<Owner, Position> positions = new LinkedHashMap<>();
        private long net;
        private long netCost;
        private long open;
        private long price;

        private Holding(long tickValue) {
            this.tickValue = tickValue;
        }

        /** What is held is worth this from now on, ticks. */
        public void mark(long last) {
            price = last;
        }

        public Position position(Owner owner) {
            return positions.computeIfAbsent(owner, o -> new Position(this));
        }

        /** Contracts of the account, negative when short; opposite owners net out. */
        public long net() {
            return net;
        }

        /** Contracts that would have to be traded to close every owner's position. */
        public long open() {
            return open;
        }

        public long openResult() {
            return worth(net, netCost);
        }

        private long worth(long contracts, long cost) {
            return contracts == 0
                    ? -cost
                    : Math.subtractExact(Math.multiplyExact(Math.multiplyExact(contracts, price), tickValue), cost);
        }

        /** Books a fill of {@code quantity} contracts at {@code at} ticks with {@code fee} in all. */
        public void fill(Owner owner, boolean buy, long quantity, long at, long fee) {
            Position held = position(owner);
            long before = Math.abs(held.contracts);
            long closing = held.contracts != 0 && held.contracts > 0 != buy ? Math.min(quantity, before) : 0;
            long value = Math.multiplyExact(at, tickValue);
            if (closing > 0) {
                // proceeds − cost share, the share rounded up so that the result rounds down
                long direction = held.contracts > 0 ? 1 : -1;
                long proceeds = Math.multiplyExact(Math.multiplyExact(value, closing), direction);
                long share = -Math.floorDiv(Math.multiplyExact(-held.cost, closing), before);
                long result = Math.subtractExact(proceeds, share);
                held.realised = Math.addExact(held.realised, result);
                balance = Math.addExact(balance, result);
                held.cost = Math.subtractExact(held.cost, share);
                netCost = Math.subtractExact(netCost, share);
            }
            long opening = quantity - closing;
            if (opening > 0) {
                long paid = Math.multiplyExact(value, buy ? opening : -opening);
                held.cost = Math.addExact(held.cost, paid);
                netCost = Math.addExact(netCost, paid);
            }
            long signed = buy ? quantity : -quantity;
            held.contracts = Math.addExact(held.contracts, signed);
            net = Math.addExact(net, signed);
            open += Math.abs(held.contracts) - before;
            balance = Math.subtractExact(balance, fee);
            held.fees = Math.addExact(held.fees, fee);
        }

        /**
         * One owner's position goes to another, who holds none, at a price: the giver's result ends there and the taker's begins. The
         * account's balance and its average stay, nothing was traded.
         */
        public void handOver(Owner from, Owner to, long at) {
            Position giver = position(from);
            Position taker = position(to);
            long worth = Math.subtractExact(Math.multiplyExact(Math.multiplyExact(giver.contracts, at), tickValue),
                    giver.cost);
            giver.realised = Math.addExact(giver.realised, worth);
            taker.realised = Math.subtractExact(taker.realised, worth);
            taker.contracts = Math.addExact(taker.contracts, giver.contracts);
            taker.cost = Math.addExact(taker.cost, giver.cost);
            giver.contracts = 0;
            giver.cost = 0;
        }

        /** What equity changes by with a tick, other contracts standing still; money, negative when net short. */
        public long perTick() {
            return Math.multiplyExact(net, tickValue);
        }

        /** Equity were this contract's price 0. */
        public long equityAtZero() {
            return Math.subtractExact(Math.subtractExact(equity(), openResult()), netCost);
        }

        /** Result of everyone since the start, open result included, after fees. */
        public long result() {
            long result = 0;
            for (Position position : positions.values()) {
                result = Math.addExact(result, position.result());
            }
            return result;
        }

        /** Draws bounds to the prices between which that result stays strictly between two amounts. */
        public void boundResult(long low, long high, Bounds bounds) {
            draw(perTick(), result() - Math.multiplyExact(perTick(), price), low, high, bounds);
        }

        /** Draws bounds to the prices between which equity stays strictly between two amounts. */
        public void bound(long lowEquity, long highEquity, Bounds bounds) {
            draw(perTick(), equityAtZero(), lowEquity, highEquity, bounds);
        }
    }
}
