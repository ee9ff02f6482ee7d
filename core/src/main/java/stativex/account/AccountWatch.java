package stativex.account;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Holds an account to its lines: own day loss and profit with their lock, and the drawdown floor. Its {@link AccountState} goes in
 * and out; in between it is this class's alone.
 */
public final class AccountWatch {
    /**
     * A line was reached: everything is left for it.
     *
     * @param guarded only the guard acted: closing would have ended beyond the line
     */
    public record Verdict(LineKind line, boolean guarded) {}

    private final Optional<FloorJudge> floor;
    private final List<Judge> dayLimits;
    private long peak;
    private long dayStart;
    private boolean begun;
    private Optional<LockReason> lock;
    private boolean broken;

    /** @throws IllegalArgumentException when the floor's lock level lies below start − allowance */
    public AccountWatch(Account account, AccountState state) {
        this.floor = account.rulebook().floor().map(rule -> new FloorJudge(rule, account.start()));
        List<Judge> limits = new ArrayList<>(2);
        account.dayLoss().ifPresent(rule -> limits.add(new DayLossJudge(rule)));
        account.dayProfit().ifPresent(amount -> limits.add(new DayProfitJudge(amount)));
        this.dayLimits = List.copyOf(limits);
        this.peak = state.peak();
        this.dayStart = state.dayStart();
        this.begun = state.begun();
        this.lock = state.lock();
        this.broken = state.broken();
    }

    /** What is remembered of the account, with its balance. */
    public AccountState state(long balance) {
        return new AccountState(balance, peak, dayStart, begun, lock, broken);
    }

    /**
     * A trading day begins: its result counts from {@code equity}, and a lock of the day before ends. A lock set before
     * the first day began is a lock of that day.
     */
    public void beginDay(long equity) {
        dayStart = equity;
        lock = begun ? Optional.empty() : lock;
        begun = true;
    }

    /**
     * Takes the equity after a print's fills: peak and floor first, then the day limits.
     *
     * @param closing what closing everything would cost: slippage and fees
     */
    public Optional<Verdict> judge(long equity, long closing) {
        peak = Math.max(peak, equity);
        if (broken) {
            return Optional.empty();
        }
        if (floor.isPresent() && floor.get().reached(equity, peak, dayStart, closing)) {
            broken = true;
            return Optional.of(new Verdict(LineKind.DRAWDOWN_FLOOR, false));
        }
        if (lock.isPresent()) {
            return Optional.empty();
        }
        for (int i = 0; i < dayLimits.size(); i++) {
            Judge judge = dayLimits.get(i);
            if (judge.reached(equity, peak, dayStart, closing)) {
                lock = Optional.of(judge.kind().lock());
                return Optional.of(new Verdict(judge.kind(), !judge.reached(equity, peak, dayStart, 0)));
            }
        }
        return Optional.empty();
    }

    /** The person locks the day. Returns whether it was open before. */
    public boolean lockByHand() {
        if (lock.isPresent()) {
            return false;
        }
        lock = Optional.of(LockReason.BY_HAND);
        return true;
    }

    /** The lines as they stand with {@code equity} taken in: own day loss, floor, own day profit. */
    public List<Line> lines(long equity) {
        long top = Math.max(peak, equity);
        List<Line> lines = new ArrayList<>(3);
        dayLimits.stream().map(judge -> judge.line(top, dayStart)).filter(Line::below).forEach(lines::add);
        floor.ifPresent(judge -> lines.add(judge.line(top, dayStart)));
        dayLimits.stream().map(judge -> judge.line(top, dayStart)).filter(line -> !line.below()).forEach(lines::add);
        return lines;
    }

    /**
     * The equity at or above which a print must be judged while nothing is filled; {@link Long#MAX_VALUE} if there is none. Where
     * the floor trails it is drawn so near that the floor cannot come up to {@link #quietBelow} before.
     */
    public long quietAbove(long equity, long closing) {
        long up = Long.MAX_VALUE;
        if (broken) {
            return up;
        }
        long top = Math.max(peak, equity);
        for (int i = 0; lock.isEmpty() && i < dayLimits.size(); i++) {
            Judge judge = dayLimits.get(i);
            up = judge.kind().below() ? up : Math.min(up, judge.reachedAt(top, dayStart, closing));
        }
        if (floor.isPresent()) {
            // half of what lies between the floor and equity may be gained on the peak
            up = Math.min(up, top + (equity - floor.get().reachedAt(top, dayStart, closing)) / 2 + 1);
        }
        return up;
    }

    /** Likewise the equity at or below which a print must be judged, as long as it stays below {@code above}. */
    public long quietBelow(long equity, long closing, long above) {
        long down = Long.MIN_VALUE;
        if (broken) {
            return down;
        }
        long top = Math.max(peak, equity);
        for (int i = 0; lock.isEmpty() && i < dayLimits.size(); i++) {
            Judge judge = dayLimits.get(i);
            down = judge.kind().below() ? Math.max(down, judge.reachedAt(top, dayStart, closing)) : down;
        }
        if (floor.isPresent()) {
            down = Math.max(down, floor.get().reachedAt(Math.max(top, above - 1), dayStart, closing));
        }
        return down;
    }

    /** Takes in the highest equity of prints at which no line was reached. */
    public void quietPeak(long highest) {
        peak = Math.max(peak, highest);
    }

    /** Why everything must be flat, if it must. */
    public Optional<LockReason> flatReason() {
        return broken ? Optional.of(LockReason.DRAWDOWN_FLOOR) : lock;
    }

    /** Why the day is locked, if it is. */
    public Optional<LockReason> lock() {
        return lock;
    }

    /** Whether the account has reached its floor. */
    public boolean broken() {
        return broken;
    }

    public long dayStart() {
        return dayStart;
    }
}
