package stativex.account;

import java.util.Arrays;

/**
 * Balance and positions of one account in one contract, by owner. Money in ten-thousandths. Realised result is by
 * average cost, rounded down to a ten-thousandth, the remainder staying with the open part, so that balance plus open
 * result is always exact. Source: SEMANTICS, "Account rulebooks".
 */
public final class Ledger {
    private final long tickValue;
    private long balance;
    private final long[] realised;
    private final long[] fees;
    /** Contracts by owner, negative when short. */
    private final long[] position;
    /** Money paid for what is open, by owner, negative when short. */
    private final long[] cost;
    private long net;
    private long netCost;

    /** @param owners how many owners there are */
    public Ledger(long start, long tickValue, int owners) {
        this.balance = start;
        this.tickValue = tickValue;
        this.realised = new long[owners];
        this.fees = new long[owners];
        this.position = new long[owners];
        this.cost = new long[owners];
    }

    /** Books a fill of {@code quantity} contracts at {@code price} ticks with {@code fee} in all. */
    public void fill(int owner, boolean buy, long quantity, long price, long fee) {
        long held = position[owner];
        long signed = buy ? quantity : -quantity;
        long closing = held != 0 && (held > 0) != buy ? Math.min(quantity, Math.abs(held)) : 0;
        long value = Math.multiplyExact(price, tickValue);
        if (closing > 0) {
            // proceeds − cost share, the share rounded up so that the result rounds down
            long direction = held > 0 ? 1 : -1;
            long proceeds = Math.multiplyExact(Math.multiplyExact(value, closing), direction);
            long share = -Math.floorDiv(Math.multiplyExact(-cost[owner], closing), Math.abs(held));
            realised[owner] = Math.addExact(realised[owner], Math.subtractExact(proceeds, share));
            balance = Math.addExact(balance, Math.subtractExact(proceeds, share));
            cost[owner] = Math.subtractExact(cost[owner], share);
            netCost = Math.subtractExact(netCost, share);
        }
        long opening = quantity - closing;
        if (opening > 0) {
            long paid = Math.multiplyExact(value, buy ? opening : -opening);
            cost[owner] = Math.addExact(cost[owner], paid);
            netCost = Math.addExact(netCost, paid);
        }
        position[owner] = Math.addExact(held, signed);
        net += signed;
        balance = Math.subtractExact(balance, fee);
        fees[owner] = Math.addExact(fees[owner], fee);
    }

    public long balance() {
        return balance;
    }

    /** Contracts an owner holds, negative when short. */
    public long position(int owner) {
        return position[owner];
    }

    /** Contracts of the account, negative when short; opposite owners net out. */
    public long net() {
        return net;
    }

    public boolean flat() {
        for (long held : position) {
            if (held != 0) {
                return false;
            }
        }
        return true;
    }

    /** Contracts that would have to be traded to close every owner's position. */
    public long contractsOpen() {
        return Arrays.stream(position).map(Math::abs).sum();
    }

    /** Open result of an owner at a price in ticks. */
    public long openResult(int owner, long price) {
        return Math.subtractExact(Math.multiplyExact(Math.multiplyExact(position[owner], price), tickValue),
                cost[owner]);
    }

    /** Result of an owner since the start, open result included, after fees. */
    public long result(int owner, long price) {
        return Math.subtractExact(Math.addExact(realised[owner], openResult(owner, price)), fees[owner]);
    }

    /** Balance plus open result at a price in ticks. */
    public long equity(long price) {
        return Math.addExact(balance,
                Math.subtractExact(Math.multiplyExact(Math.multiplyExact(net, price), tickValue), netCost));
    }
}
