package stativex.account;

/**
 * A drawdown floor as it stands: it trails the peak of equity at every print, after its fills, and is then judged; broken
 * when equity ≤ floor. Source: SEMANTICS, "Account rulebooks".
 */
public final class Floor {
    private final Rulebook.DrawdownFloor rule;
    private long peak;

    /**
     * @param start the account's starting balance
     * @throws IllegalArgumentException when the lock level lies below start − allowance
     */
    public Floor(Rulebook.DrawdownFloor rule, long start) {
        this.rule = rule;
        this.peak = start;
        if (rule.lock().isPresent() && rule.lock().get() < start - rule.allowance()) {
            throw new IllegalArgumentException("expected a lock level of start − allowance or more");
        }
    }

    /** Takes the equity after a print's fills. Returns whether the floor is broken. */
    public boolean judge(long equity) {
        peak = Math.max(peak, equity);
        return equity <= level();
    }

    public long peak() {
        return peak;
    }

    public long allowance() {
        return rule.allowance();
    }

    /** The floor as it stands, money. */
    public long level() {
        return levelFor(peak);
    }

    /** The floor as it would stand with {@code equity} taken in. */
    public long levelWith(long equity) {
        return levelFor(Math.max(peak, equity));
    }

    private long levelFor(long top) {
        long trailing = Math.subtractExact(top, rule.allowance());
        return rule.lock().isPresent() ? Math.min(trailing, rule.lock().get()) : trailing;
    }
}
