package stativex.account;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Holds an account to its lines: the rules of its rulebook and its own day limits, each a {@link Judge}. Its {@link AccountState} goes
 * in and out; in between it is this class's alone.
 */
public final class AccountWatch {
    /**
     * A line was reached: everything is left for it.
     *
     * @param guarded only the guard acted: closing would have ended beyond the line
     */
    public record Verdict(LineKind line, boolean guarded) {}

    /** In place of the distance to a line where there is none. */
    public static final long NO_LINE = Long.MAX_VALUE;

    private static final Comparator<Line> BY_KIND = Comparator.comparing(Line::kind);

    private final Judge[] judges;
    /** Of each judge: whether its line lies below, holds for the day, trails the peak. Asked with every stretch of prints. */
    private final boolean[] below;
    private final boolean[] ofTheDay;
    private final boolean[] trails;
    private long peak;
    private long dayStart;
    private boolean begun;
    private Optional<LockReason> lock;
    private boolean broken;

    /** @throws IllegalArgumentException when the floor's lock level lies below start − allowance */
    public AccountWatch(Account account, AccountState state) {
        this(judges(account), state);
    }

    /** @param judges in the order in which they are asked */
    AccountWatch(List<Judge> judges, AccountState state) {
        this.judges = judges.toArray(Judge[]::new);
        this.below = new boolean[this.judges.length];
        this.ofTheDay = new boolean[below.length];
        this.trails = new boolean[below.length];
        for (int i = 0; i < below.length; i++) {
            below[i] = this.judges[i].kind().below();
            ofTheDay[i] = this.judges[i].kind().ofTheDay();
            trails[i] = this.judges[i].trails();
        }
        this.peak = state.peak();
        this.dayStart = state.dayStart();
        this.begun = state.begun();
        this.lock = state.lock();
        this.broken = state.broken();
    }

    /** Every rule that an account is held to, one line each: what breaks it first, then what locks the day. */
    static List<Judge> judges(Account account) {
        List<Judge> judges = new ArrayList<>();
        account.rulebook().floor().ifPresent(rule -> judges.add(new FloorJudge(rule, account.start())));
        account.dayLoss().ifPresent(rule -> judges.add(new DayLossJudge(rule)));
        account.dayProfit().ifPresent(amount -> judges.add(new DayProfitJudge(amount)));
        return judges;
    }

    /** What is remembered of the account, with its balance. */
    public AccountState state(long balance) {
        return new AccountState(balance, peak, dayStart, begun, lock, broken);
    }

    /**
     * A trading day begins: its result counts from {@code equity}, and a lock of the day before ends. One that the
     * person set before the first day began is a lock of that day.
     */
    public void beginDay(long equity) {
        dayStart = equity;
        lock = begun || !lock.equals(Optional.of(LockReason.BY_HAND)) ? Optional.empty() : lock;
        begun = true;
    }

    /** Whether a rule still has something to say: a day's rule not once the day is locked, none once the account is broken. */
    private boolean asks(int judge) {
        return !broken && (lock.isEmpty() || !ofTheDay[judge]);
    }

    /**
     * Takes the equity after a print's fills: the peak, then every rule in its order; the first line that is reached counts.
     *
     * @param closing what closing everything would cost: slippage and fees
     */
    public Optional<Verdict> judge(long equity, long closing) {
        peak = Math.max(peak, equity);
        for (int i = 0; i < judges.length; i++) {
            Judge judge = judges[i];
            if (asks(i) && judge.reached(equity, peak, dayStart, closing)) {
                if (judge.kind().ofTheDay()) {
                    lock = Optional.of(judge.kind().lock());
                } else {
                    broken = true;
                }
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

    /** The lines as they stand with {@code equity} taken in, in the order of their kinds. */
    public List<Line> lines(long equity) {
        long top = Math.max(peak, equity);
        Line[] lines = new Line[judges.length];
        for (int i = 0; i < lines.length; i++) {
            lines[i] = judges[i].line(top, dayStart);
        }
        Arrays.sort(lines, BY_KIND);
        return List.of(lines);
    }

    /** The smallest distance from equity down to a loss line, money; {@link #NO_LINE} without one. */
    public long nearest(long equity) {
        return lines(equity).stream().filter(Line::below).mapToLong(line -> equity - line.money()).min()
                .orElse(NO_LINE);
    }

    /**
     * The equity at or above which a print must be judged while nothing is filled; {@link Long#MAX_VALUE} if there is none. Where
     * a loss line trails the peak it is drawn so near that the line cannot come up to {@link #quietBelow} before.
     */
    public long quietAbove(long equity, long closing) {
        long up = Long.MAX_VALUE;
        long top = Math.max(peak, equity);
        for (int i = 0; i < judges.length; i++) {
            Judge judge = judges[i];
            if (asks(i)) {
                long at = judge.reachedAt(top, dayStart, closing);
                if (!below[i]) {
                    up = Math.min(up, at);
                } else if (trails[i]) {
                    // half of what lies between the line and equity may be gained on the peak
                    up = Math.min(up, top + (equity - at) / 2 + 1);
                }
            }
        }
        return up;
    }

    /** Likewise the equity at or below which a print must be judged, as long as it stays below {@code above}. */
    public long quietBelow(long equity, long closing, long above) {
        long down = Long.MIN_VALUE;
        long top = Math.max(peak, equity);
        for (int i = 0; i < judges.length; i++) {
            Judge judge = judges[i];
            if (asks(i) && below[i]) {
                long highest = trails[i] ? Math.max(top, above - 1) : top;
                down = Math.max(down, judge.reachedAt(highest, dayStart, closing));
            }
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
