package stativex.account;

/** What closing everything that is open would cost: money, changed in place, since it is asked with every print. */
public final class Closing {
    /** Nothing is open. */
    public static final Closing NOTHING = new Closing(0, 0);

    private long money;
    private long perTick;

    /**
     * @param money slippage and fees; 0 with nothing open
     * @param perTick money that a tick against all of it costs
     */
    public Closing(long money, long perTick) {
        this.money = money;
        this.perTick = perTick;
    }

    /** Other figures from now on; not for {@link #NOTHING}. */
    public Closing set(long nowMoney, long nowPerTick) {
        money = nowMoney;
        perTick = nowPerTick;
        return this;
    }

    long money() {
        return money;
    }

    long perTick() {
        return perTick;
    }

    boolean nothing() {
        return perTick == 0;
    }
}
