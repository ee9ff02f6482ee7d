package stativex.account;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Holds a part of an account, a strategy, a contract or a window of hours, to its own limits: lines of the result of that part alone.
 * They are static from one beginning to the next. Money.
 */
public final class PartWatch {
    private final Part part;
    private DayLimits limits;
    private long loss;
    private long profit;
    private Guard guard;
    private long base;
    private Optional<LockReason> lock = Optional.empty();

    public PartWatch(Part part, DayLimits limits) {
        this.part = part;
        become(limits);
    }

    /** Other limits from now on; what is locked stays so. */
    public void become(DayLimits others) {
        limits = others;
        loss = limits.loss().map(Account.DayLoss::amount).orElse(0L);
        profit = limits.profit().orElse(0L);
        guard = limits.loss().map(Account.DayLoss::guard).orElse(Guard.OFF);
    }

    /** Whether it has anything to say at all. */
    public boolean any() {
        return limits.any();
    }

    /** A day or a window begins: the result counts from here, and a lock ends. */
    public void begins(long result) {
        base = result;
        lock = Optional.empty();
    }

    /** Why it is locked, if it is. */
    public Optional<LockReason> lock() {
        return lock;
    }

    /** Takes the result after a print's fills; a lock that stands says nothing more. */
    public Optional<AccountWatch.Verdict> judge(long result, Closing closing) {
        if (lock.isPresent()) {
            return Optional.empty();
        }
        boolean lost = loss > 0 && result - base <= -loss;
        if (lost || guarded(result, closing)) {
            return locked(part.loss(), !lost);
        }
        return profit > 0 && result - base >= profit ? locked(part.profit(), false) : Optional.empty();
    }

    private boolean guarded(long result, Closing closing) {
        return guard.on() && !closing.nothing()
                && result - closing.money() - base <= -loss + guard.margin(closing.perTick());
    }

    private Optional<AccountWatch.Verdict> locked(LineKind line, boolean guarded) {
        lock = Optional.of(line.lock());
        return Optional.of(new AccountWatch.Verdict(line, guarded, line.below() ? -loss : profit, base));
    }

    /** The result at or below which a print must be judged while nothing is filled; {@link Long#MIN_VALUE} if there is none. */
    public long quietBelow(Closing closing) {
        if (loss == 0 || lock.isPresent()) {
            return Long.MIN_VALUE;
        }
        long ahead = guard.on() && !closing.nothing() ? closing.money() + guard.margin(closing.perTick()) : 0;
        return base - loss + ahead;
    }

    /** Likewise at or above which. */
    public long quietAbove() {
        return profit == 0 || lock.isPresent() ? Long.MAX_VALUE : base + profit;
    }

    /**
     * How far a result lies above the loss line as an entry has to stay above it; {@link AccountWatch#NO_LINE} without one.
     *
     * @param perTick money that a tick against everything that this part holds costs
     */
    public long room(long result, long perTick) {
        return loss == 0 ? AccountWatch.NO_LINE : result - base + loss - guard.margin(perTick);
    }

    /** The loss line as an amount of the result; empty without one. */
    public Optional<Line> guardedLine(long perTick) {
        return limits.loss().map(rule -> new Line(part.loss(), base - loss + guard.margin(perTick), loss));
    }

    /** Its lines as amounts of the result. */
    public List<Line> lines() {
        List<Line> lines = new ArrayList<>(2);
        if (loss > 0) {
            lines.add(new Line(part.loss(), base - loss, loss));
        }
        if (profit > 0) {
            lines.add(new Line(part.profit(), base + profit, profit));
        }
        return lines;
    }
}
