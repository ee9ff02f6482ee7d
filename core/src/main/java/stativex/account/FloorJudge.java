package stativex.account;

/** A drawdown floor, judged after the fills of every print; broken when equity ≤ floor. Source: SEMANTICS, "Account rulebooks". */
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
    public Guard guard() {
        return rule.guard();
    }

    @Override
    public boolean breaks() {
        return true;
    }

    @Override
    public Rises rises(Heights s) {
        boolean locked = rule.lock().isPresent() && s.peak - rule.allowance() >= rule.lock().get();
        return rule.trails() == Rulebook.Trails.INTRADAY && !locked ? Rises.WITH_THE_PEAK : Rises.NOT;
    }

    @Override
    public long at(Heights s) {
        long from = switch (rule.trails()) {
            case STATIC -> start;
            case END_OF_DAY -> s.closedPeak;
            case INTRADAY -> s.peak;
        };
        long floor = Math.subtractExact(from, rule.allowance());
        return rule.lock().isPresent() ? Math.min(floor, rule.lock().get()) : floor;
    }
}
