package stativex.account;

import stativex.order.LeaveReason;

/** The lines an account is held to. */
public enum LineKind {
    /** The account's own day loss. */
    DAY_LOSS(LeaveReason.DAY_LOSS, LockReason.DAY_LOSS, true, true, false),
    /** What the account may give back of the day's best. */
    GIVE_BACK(LeaveReason.GIVE_BACK, LockReason.GIVE_BACK, true, true, false),
    /** The day loss of its rulebook. */
    BOOK_DAY_LOSS(LeaveReason.DAY_LOSS, LockReason.DAY_LOSS, true, true, true),
    /** The drawdown floor of its rulebook. */
    DRAWDOWN_FLOOR(LeaveReason.DRAWDOWN_FLOOR, LockReason.DRAWDOWN_FLOOR, true, false, true),
    /** The account's own day profit. */
    DAY_PROFIT(LeaveReason.DAY_PROFIT, LockReason.DAY_PROFIT, false, true, false),
    /** Those of one contract, of one strategy, and of one window of hours: lines of that part's own result. */
    CONTRACT_DAY_LOSS(LeaveReason.CONTRACT_DAY_LOSS, LockReason.CONTRACT_DAY_LOSS, true, true,
            false), CONTRACT_DAY_PROFIT(LeaveReason.CONTRACT_DAY_PROFIT, LockReason.CONTRACT_DAY_PROFIT, false, true,
                    false), STRATEGY_DAY_LOSS(LeaveReason.STRATEGY_DAY_LOSS, LockReason.STRATEGY_DAY_LOSS, true, true,
                            false), STRATEGY_DAY_PROFIT(LeaveReason.STRATEGY_DAY_PROFIT,
                                    LockReason.STRATEGY_DAY_PROFIT, false, true,
                                    false), WINDOW_DAY_LOSS(LeaveReason.WINDOW_DAY_LOSS, LockReason.WINDOW_DAY_LOSS,
                                            true, false, false), WINDOW_DAY_PROFIT(LeaveReason.WINDOW_DAY_PROFIT,
                                                    LockReason.WINDOW_DAY_PROFIT, false, false, false);

    private final LeaveReason leave;
    private final LockReason lock;
    private final boolean below;
    private final boolean ofTheDay;
    private final boolean ofTheBook;

    LineKind(LeaveReason leave, LockReason lock, boolean below, boolean ofTheDay, boolean ofTheBook) {
        this.leave = leave;
        this.lock = lock;
        this.below = below;
        this.ofTheDay = ofTheDay;
        this.ofTheBook = ofTheBook;
    }

    /** Why positions leave when it is reached. */
    public LeaveReason leave() {
        return leave;
    }

    public LockReason lock() {
        return lock;
    }

    /** Whether it lies below equity (a loss line); else it is a profit line. */
    public boolean below() {
        return below;
    }

    /** Whether it counts from the trading day's beginning. */
    public boolean ofTheDay() {
        return ofTheDay;
    }

    /** Whether it is a line of the result of a contract, a strategy or a window alone. */
    public boolean ofAPart() {
        return compareTo(DAY_PROFIT) > 0;
    }

    /** Whether it holds for everyone's positions: of the account or a contract, not of one strategy or its windows. */
    public boolean ofEveryone() {
        return compareTo(STRATEGY_DAY_LOSS) < 0;
    }

    /** Whether it is the rulebook's, which nobody may cross; else it is the account's own. */
    public boolean ofTheBook() {
        return ofTheBook;
    }
}
