package stativex.account;

/** Own day loss: reached at day result ≤ −amount, with a guard already when closing would end there. */
record DayLossJudge(Account.DayLoss rule) implements Judge {
    @Override
    public LineKind kind() {
        return LineKind.DAY_LOSS;
    }

    @Override
    public long allowance() {
        return rule.amount();
    }

    @Override
    public long reachedAt(long peak, long dayStart, long closing) {
        return dayStart - rule.amount() + (rule.guard() ? closing : 0);
    }
}
