package stativex.account;

/**
 * An intraday drawdown floor: it trails the peak of equity at every print, after its fills, and is then judged; broken when
 * equity ≤ floor. Source: SEMANTICS, "Account rulebooks".
 */
record FloorJudge(Rulebook.DrawdownFloor rule, long start) implements Judge {
    /** @throws IllegalArgumentException when the lock level lies below start − allowance */
    FloorJudge {
        if (rule.lock().isPresent() && rule.lock().get() < start - rule.allowance()) {
            throw new IllegalArgumentException("expected a lock level of start − allowance or more");
        }
    }

    @Override
    public LineKind kind() {
        return LineKind.DRAWDOWN_FLOOR;
    }

    @Override
    public long allowance() {
        return rule.allowance();
    }

    @Override
    public boolean trails() {
        return true;
    }

    @Override
    public long reachedAt(long peak, long dayStart, long closing) {
        long trailing = Math.subtractExact(peak, rule.allowance());
        return rule.lock().isPresent() ? Math.min(trailing, rule.lock().get()) : trailing;
    }
}
