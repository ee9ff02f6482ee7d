package stativex.account;

/** The rulebook's day loss: met at start-of-day balance, or equity, − amount; it locks the day or breaks the account. */
record BookDayLossJudge(Rulebook.DayLoss rule) implements Judge {
    @Override
    public LineKind kind() {
        return LineKind.BOOK_DAY_LOSS;
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
    public boolean breaks() {
        return rule.breaks();
    }

    @Override
    public long at(Heights s) {
        return (rule.from() == Rulebook.From.BALANCE ? s.dayBalance : s.dayStart) - rule.amount();
    }
}
