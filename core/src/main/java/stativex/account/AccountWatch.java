package stativex.account;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.ToLongFunction;

/**
 * Holds an account to its lines: the rules of its rulebook and its own day limits, each a {@link Judge}. Its {@link AccountState} goes
 * in and out; in between it is this class's alone. What breaks the account is asked first, then what locks the day, the rulebook's
 * lines before the account's own, losses before profit.
 */
public final class AccountWatch {
    /**
     * A line was reached: everything is left for it.
     *
     * @param guarded only the guard acted: closing would have ended beyond the line
     * @param at the line itself, as a result of the day (of a window: since its beginning), money
     * @param base equity, or result of the part, from which that result counts
     */
    public record Verdict(LineKind line, boolean guarded, long at, long base) {}

    /** In place of the distance to a line where there is none. */
    public static final long NO_LINE = Long.MAX_VALUE;

    private static final Comparator<Line> BY_KIND = Comparator.comparing(Line::kind);

    private Judge[] judges;
    private final Heights heights;
    /** For looking ahead. */
    private final Heights scratch;
    private final Heights raised;
    private boolean begun;
    private Optional<LockReason> lock;
    private Optional<LockReason> broken;
    private Optional<LosingRun> losingRun;
    private Losses losses;
    private Optional<LocalDate> day;

    /** @throws IllegalArgumentException when the floor's lock level lies below start − allowance */
    public AccountWatch(Account account, AccountState state) {
        this(judges(account), account.own().losingRun(), state);
    }

    /** @param judges in the order in which they are asked */
    AccountWatch(List<Judge> judges, Optional<LosingRun> losingRun, AccountState state) {
        this.losingRun = losingRun;
        this.losses = state.losses();
        this.judges = judges.toArray(Judge[]::new);
        this.heights = new Heights(state.standing());
        this.scratch = new Heights(state.standing());
        this.raised = new Heights(state.standing());
        this.begun = state.begun();
        this.lock = state.lock();
        this.broken = state.broken();
        this.day = state.day();
    }

    /** Every rule that an account is held to, one line each: what breaks it first, then what locks the day. */
    static List<Judge> judges(Account account) {
        List<Judge> judges = new ArrayList<>();
        account.rulebook().of(Rulebook.DrawdownFloor.class)
                .forEach(rule -> judges.add(new FloorJudge(rule, account.start())));
        account.rulebook().of(Rulebook.DayLoss.class).forEach(rule -> judges.add(new BookDayLossJudge(rule)));
        account.own().dayLoss().ifPresent(rule -> judges.add(new DayLossJudge(rule)));
        account.own().giveBack().ifPresent(rule -> judges.add(new GiveBackJudge(rule)));
        account.own().dayProfit().ifPresent(amount -> judges.add(new DayProfitJudge(amount)));
        return judges;
    }

    /** Trading date that has begun last; empty: none has, or nobody knows. */
    public Optional<LocalDate> tradingDate() {
        return day;
    }

    /** What is remembered of the account, with its balance. */
    public AccountState state(long balance) {
        return new AccountState(balance, heights.kept(), begun, lock, broken, losses, day);
    }

    /**
     * A trading day begins: its result counts from {@code equity}, and a lock of the day before ends. One that the
     * person set before the first day began is a lock of that day.
     */
    public void beginDay(long equity, long balance) {
        beginDay(equity, balance, Optional.empty());
    }

    /** The same of a date: where that has begun already, before this run, its result and its locks go on. */
    public void beginDay(long equity, long balance, Optional<LocalDate> date) {
        if (date.isPresent() && date.equals(day)) {
            return;
        }
        day = date;
        heights.dayBegins(equity, balance, begun);
        lock = begun || !lock.equals(Optional.of(LockReason.BY_HAND)) ? Optional.empty() : lock;
        losses = losses.dayBegins();
        begun = true;
    }

    /**
     * A trade of anyone on the account has ended.
     *
     * @param time of its last exit, nanoseconds
     */
    public void ended(long net, long time) {
        if (losingRun.isPresent()) {
            losses = losses.ended(losingRun.get(), net, time);
        }
    }

    /** Until when a losing run holds entries back, nanoseconds, {@link Losses#NEXT_DAY} for the rest of the day; empty: it does not. */
    public OptionalLong pausedAt(long time) {
        return losses.pausedAt(time);
    }

    /** Whether a rule still has something to say: none once the account is broken, what only locks not once the day is. */
    private boolean asks(Judge judge) {
        return broken.isEmpty() && (lock.isEmpty() || judge.breaks());
    }

    /**
     * Takes the equity after a print's fills: peaks, then every rule in its order; the first line that is reached counts.
     *
     * @param closing what closing everything would cost
     */
    public Optional<Verdict> judge(long equity, Closing closing) {
        heights.take(equity);
        if (broken.isPresent()) {
            return Optional.empty();
        }
        for (int i = 0; i < judges.length; i++) {
            if (judges[i].breaks() && judges[i].reached(equity, heights)) {
                broken = Optional.of(judges[i].kind().lock());
                return Optional.of(verdict(judges[i], false));
            }
        }
        for (int i = 0; lock.isEmpty() && i < judges.length; i++) {
            Judge judge = judges[i];
            boolean reached = !judge.breaks() && judge.reached(equity, heights);
            if (reached || guarded(judge, equity, closing)) {
                lock = Optional.of(judge.kind().lock());
                return Optional.of(verdict(judge, !reached));
            }
        }
        return Optional.empty();
    }

    private Verdict verdict(Judge judge, boolean guarded) {
        return new Verdict(judge.kind(), guarded, judge.at(heights) - heights.dayStart, heights.dayStart);
    }

    /** Other own limits from now on; what is locked or broken stays so. */
    public void become(Account account) {
        judges = judges(account).toArray(Judge[]::new);
        losingRun = account.own().losingRun();
    }

    private boolean guarded(Judge judge, long equity, Closing closing) {
        if (!judge.guard().on() || closing.nothing()) {
            return false;
        }
        long at = judge.at(heights);
        return at != Judge.NO_LOSS_LINE && equity - closing.money() <= at + judge.guard().margin(closing.perTick());
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
        return lines(equity, judge -> 0);
    }

    /**
     * The lines as an entry has to stay above them: where a guard is on, with its margin.
     *
     * @param perTick money that a tick against everything that is open costs
     */
    public List<Line> guarded(long equity, long perTick) {
        return lines(equity, judge -> judge.guard().margin(perTick));
    }

    private List<Line> lines(long equity, ToLongFunction<Judge> margin) {
        Heights s = scratch.of(heights, equity);
        List<Line> lines = new ArrayList<>(judges.length);
        for (Judge judge : judges) {
            long at = judge.at(s);
            if (at != Judge.NO_LOSS_LINE) {
                lines.add(new Line(judge.kind(), at + margin.applyAsLong(judge), judge.allowance()));
            }
        }
        lines.sort(BY_KIND);
        return List.copyOf(lines);
    }

    /** The smallest distance from equity down to a loss line, money; {@link #NO_LINE} without one. */
    public long nearest(long equity, long perTick) {
        return guarded(equity, perTick).stream().filter(Line::below).mapToLong(line -> equity - line.money()).min()
                .orElse(NO_LINE);
    }

    /** How far above a line a print must be judged, now that the day may be locked already. */
    private long ahead(Judge judge, Closing closing) {
        return judge.guard().on() && lock.isEmpty() && !closing.nothing()
                ? Math.addExact(closing.money(), judge.guard().margin(closing.perTick()))
                : 0;
    }

    /**
     * The equity at or above which a print must be judged while nothing is filled; {@link Long#MAX_VALUE} if there is none. Where
     * a loss line rises it is drawn so near that the line cannot come up to {@link #quietBelow} before.
     */
    public long quietAbove(long equity, Closing closing) {
        long up = Long.MAX_VALUE;
        Heights s = scratch.of(heights, equity);
        for (int i = 0; i < judges.length; i++) {
            Judge judge = judges[i];
            if (asks(judge)) {
                long at = judge.at(s);
                if (!judge.kind().below()) {
                    up = Math.min(up, at);
                } else if (at == Judge.NO_LOSS_LINE) {
                    up = Math.min(up, judge.beginsAt(s));
                } else if (judge.rises(s) != Judge.Rises.NOT) {
                    // half of what lies between the line and equity may be gained on what it rises with
                    up = Math.min(up, top(judge, s) + (equity - at - ahead(judge, closing)) / 2 + 1);
                }
            }
        }
        return up;
    }

    private static long top(Judge judge, Heights s) {
        return judge.rises(s) == Judge.Rises.WITH_THE_PEAK ? s.peak : s.dayBest;
    }

    /** Likewise the equity at or below which a print must be judged, as long as it stays below {@code above}. */
    public long quietBelow(long equity, Closing closing, long above) {
        long down = Long.MIN_VALUE;
        Heights now = scratch.of(heights, equity);
        for (int i = 0; i < judges.length; i++) {
            Judge judge = judges[i];
            if (asks(judge) && judge.kind().below() && judge.at(now) != Judge.NO_LOSS_LINE) {
                boolean stays = judge.rises(now) == Judge.Rises.NOT || above == Long.MAX_VALUE;
                long at = judge.at(stays ? now : raised.of(now, above - 1));
                down = Math.max(down, at + ahead(judge, closing));
            }
        }
        return down;
    }

    /** Takes in the highest equity of prints at which no line was reached. */
    public void quietPeak(long highest) {
        heights.take(highest);
    }

    /** Why everything must be flat, if it must. */
    public Optional<LockReason> flatReason() {
        return broken.isPresent() ? broken : lock;
    }

    /** Why the day is locked, if it is. */
    public Optional<LockReason> lock() {
        return lock;
    }

    /** Whether the account has been broken. */
    public boolean broken() {
        return broken.isPresent();
    }

    /** By what it was broken, if it was. */
    public Optional<LockReason> brokenBy() {
        return broken;
    }

    public long dayStart() {
        return heights.dayStart;
    }

    /** The balance at the trading day's first instant. */
    public long dayBalance() {
        return heights.dayBalance;
    }
}
