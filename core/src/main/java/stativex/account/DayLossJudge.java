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
    public Guard guard() {
        return rule.guard();
    }

    @Override
    public long at(Heights s) {
        return s.dayStart - rule.amount();
    }
}
