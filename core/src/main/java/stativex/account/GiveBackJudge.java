package stativex.account;

/** The day's result fell too far from its best, once that was good enough. */
record GiveBackJudge(GiveBack rule) implements Judge {
    @Override
    public LineKind kind() {
        return LineKind.GIVE_BACK;
    }

    @Override
    public long allowance() {
        return rule.fall();
    }

    @Override
    public Guard guard() {
        return rule.guard();
    }

    @Override
    public Rises rises(Heights s) {
        return Rises.WITH_THE_DAYS_BEST;
    }

    private boolean stands(Heights s) {
        return s.dayBest - s.dayStart >= rule.after();
    }

    @Override
    public long at(Heights s) {
        return stands(s) ? s.dayBest - rule.fall() : NO_LOSS_LINE;
    }

    @Override
    public long beginsAt(Heights s) {
        return stands(s) ? Long.MAX_VALUE : s.dayStart + rule.after();
    }
}
