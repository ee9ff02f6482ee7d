package stativex.account;

/** Own day profit: reached at day result ≥ amount. */
record DayProfitJudge(long amount) implements Judge {
    @Override
    public LineKind kind() {
        return LineKind.DAY_PROFIT;
    }

    @Override
    public long allowance() {
        return amount;
    }

    @Override
    public long at(Heights s) {
        return s.dayStart + amount;
    }
}
