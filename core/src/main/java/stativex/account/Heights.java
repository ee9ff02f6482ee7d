package stativex.account;

/** What an account's lines hang from while it runs: {@link Standing}, changed in place, since it may change with every print. */
final class Heights {
    long peak;
    long closedPeak;
    long dayStart;
    long dayBalance;
    long dayBest;

    Heights(Standing s) {
        peak = s.peak();
        closedPeak = s.closedPeak();
        dayStart = s.dayStart();
        dayBalance = s.dayBalance();
        dayBest = s.dayBest();
    }

    Standing kept() {
        return new Standing(peak, closedPeak, dayStart, dayBalance, dayBest);
    }

    /** The same as others, with an equity taken in. */
    Heights of(Heights others, long equity) {
        peak = others.peak;
        closedPeak = others.closedPeak;
        dayStart = others.dayStart;
        dayBalance = others.dayBalance;
        dayBest = others.dayBest;
        take(equity);
        return this;
    }

    void take(long equity) {
        peak = Math.max(peak, equity);
        dayBest = Math.max(dayBest, equity);
    }

    /** @param closes whether a trading day ends with it */
    void dayBegins(long equity, long balance, boolean closes) {
        closedPeak = closes ? Math.max(closedPeak, balance) : closedPeak;
        dayStart = equity;
        dayBalance = balance;
        dayBest = equity;
    }
}
