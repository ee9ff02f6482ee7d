package stativex.evidence;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.account.Account;
import stativex.account.GiveBack;
import stativex.account.Guard;
import stativex.account.LineKind;
import stativex.account.Rulebook;

/**
 * One account held to its lines over whole days that are known beforehand: what judging every print of them would come to, found by
 * look-ups in each {@link DayPath}. Lines that a day's path cannot show are left aside. Money in ten-thousandths; changed in place.
 * Source: SEMANTICS, "Account rulebooks" and "Searches and evidence" (odds).
 */
final class DayJudge {
    /** What became of a day. */
    enum End {
        /** It went its way. */
        WHOLE,
        /** A line was reached, or its guard acted: everything left, and nothing was traded any more. */
        LOCKED,
        /** The account was broken. */
        BROKEN,
        /** The target was met: it may have been another end as well, later. */
        PASSED,
        /** A guarded line lay so near from the start that nothing could be traded. */
        NO_ROOM
    }

    /** A line in the order in which lines are asked. */
    private abstract static class Asked {
        final LineKind kind;
        final boolean breaks;
        final Guard guard;
        /** What its guard looks at. */
        final int view;

        Asked(LineKind kind, boolean breaks, Guard guard, int view) {
            this.kind = kind;
            this.breaks = breaks;
            this.guard = guard;
            this.view = view;
        }

        /** Result of the day at the line while its highest so far is {@code high}; {@link Long#MIN_VALUE}: it does not stand. */
        abstract long at(long high);
    }

    private final Account account;
    private final List<Asked> losses = new ArrayList<>();
    private final long profit;
    private long target;
    private final int fewestDays;
    private final Optional<Rulebook.Consistency> consistency;
    private final int[] ticks;

    long balance;
    long peak;
    long closedPeak;
    long bestDay;
    int tradedDays;

    /** The point found first at which anything is reached, and the result with which the day then ends. */
    private int first;
    private long after;

    /** Of the day judged last. */
    End end;
    LineKind line;
    boolean guarded;
    /** Result with which the day ended, and when it ended before its time or was passed; else the last moment of time. */
    long dayResult;
    long time;
    /** The highest result until then. */
    long high;

    DayJudge(Account account) {
        this.account = account;
        List<Integer> guards = new ArrayList<>();
        Rulebook book = account.rulebook();
        book.of(Rulebook.DrawdownFloor.class).forEach(rule -> losses.add(new Asked(LineKind.DRAWDOWN_FLOOR, true,
                rule.guard(), view(guards, rule.guard())) {
            private final long lock = rule.lock().orElse(Long.MAX_VALUE);

            @Override
            long at(long high) {
                return floor(rule, lock, high) - balance;
            }
        }));
        book.of(Rulebook.DayLoss.class).forEach(rule -> constant(LineKind.BOOK_DAY_LOSS, rule.breaks(), rule.guard(),
                rule.amount(), guards));
        account.own().dayLoss().ifPresent(
                rule -> constant(LineKind.DAY_LOSS, false, rule.guard(), rule.amount(), guards));
        account.own().giveBack().ifPresent(rule -> losses.add(giveBack(rule, guards)));
        this.profit = account.own().dayProfit().orElse(Long.MAX_VALUE);
        this.target = book.of(Rulebook.ProfitTarget.class).findFirst().map(Rulebook.ProfitTarget::amount)
                .orElse(Long.MAX_VALUE);
        this.fewestDays = book.of(Rulebook.FewestDays.class).mapToInt(Rulebook.FewestDays::days).max().orElse(0);
        this.consistency = book.of(Rulebook.Consistency.class).findFirst();
        this.ticks = guards.stream().mapToInt(Integer::intValue).toArray();
        begins();
    }

    private void constant(LineKind kind, boolean breaks, Guard guard, long amount, List<Integer> guards) {
        losses.add(new Asked(kind, breaks, guard, view(guards, guard)) {
            @Override
            long at(long high) {
                return -amount;
            }
        });
    }

    private static Asked giveBack(GiveBack rule, List<Integer> guards) {
        return new Asked(LineKind.GIVE_BACK, false, rule.guard(), view(guards, rule.guard())) {
            @Override
            long at(long high) {
                return high >= rule.after() ? high - rule.fall() : Long.MIN_VALUE;
            }
        };
    }

    private static int view(List<Integer> guards, Guard guard) {
        if (guard.on() && !guards.contains(guard.ticks())) {
            guards.add(guard.ticks());
        }
        return guard.on() ? guards.indexOf(guard.ticks()) + 1 : 0;
    }

    /** The target has been met: it is looked for no more. */
    void targetIsMet() {
        target = Long.MAX_VALUE;
    }

    /** The floor, as equity, while the day's highest result so far is {@code high}; empty without one. */
    OptionalLong floor(long high) {
        return account.rulebook().floor()
                .map(rule -> OptionalLong.of(floor(rule, rule.lock().orElse(Long.MAX_VALUE), high)))
                .orElse(OptionalLong.empty());
    }

    /** The lowest result of the day judged last, until it ended. */
    long lowest(DayPath day) {
        long lowest = 0;
        DayPath.View plain = day.views[0];
        for (int k = 0; k < plain.at.length && plain.at[k] <= first; k++) {
            lowest = Math.min(lowest, plain.results[k]);
        }
        return lowest;
    }

    /** Ticks of the guards that the paths it judges have to be made for. */
    int[] ticks() {
        return ticks.clone();
    }

    /** A new state of the account. */
    void begins() {
        balance = account.start();
        peak = balance;
        closedPeak = balance;
        bestDay = 0;
        tradedDays = 0;
    }

    /** The floor, as equity, while the day's highest result so far is {@code high}. */
    long floor(Rulebook.DrawdownFloor rule, long lock, long high) {
        long from = switch (rule.trails()) {
            case STATIC -> account.start();
            case END_OF_DAY -> closedPeak;
            case INTRADAY -> Math.max(peak, balance + high);
        };
        return Math.min(from - rule.allowance(), lock);
    }

    /** Judges the next day. */
    void judge(DayPath day) {
        end = End.WHOLE;
        line = null;
        guarded = false;
        time = Long.MAX_VALUE;
        if (withoutRoom()) {
            end = End.NO_ROOM;
            dayResult = 0;
            high = 0;
            first = -1;
            return;
        }
        first = DayPath.NEVER;
        after = day.result;
        // what breaks is asked first of all, then the rest in its order: of the same point the earlier asked one counts
        for (int i = 0; i < losses.size(); i++) {
            if (losses.get(i).breaks) {
                reaches(losses.get(i), false, day);
            }
        }
        for (int i = 0; i < losses.size(); i++) {
            if (!losses.get(i).breaks) {
                reaches(losses.get(i), false, day);
            }
            if (losses.get(i).guard.on()) {
                reaches(losses.get(i), true, day);
            }
        }
        int won = day.firstHigh(profit);
        if (won >= 0 && day.highAt[won] < first) {
            first = day.highAt[won];
            after = day.highs[won] - day.highClosing[won];
            set(LineKind.DAY_PROFIT, false, false, day.highTimes[won]);
        }
        // what breaks the account at a point comes before what that point would have met
        if (meets(day, end == End.LOCKED ? first + 1 : first)) {
            end = End.PASSED;
            line = null;
            return;
        }
        high = end == End.WHOLE ? day.highest() : highBefore(day, first);
        if (end == End.LOCKED) {
            closedEarly();
        }
        if (end != End.PASSED) {
            takes(day.traded);
        }
    }

    /** Looks up whether a line, or its guard, is reached before everything found so far. */
    private void reaches(Asked asked, boolean byGuard, DayPath day) {
        DayPath.View view = day.views[byGuard ? asked.view : 0];
        int k = from(asked, view, day, byGuard ? asked.guard.money() : 0);
        if (k >= 0) {
            boolean breaks = asked.breaks && !byGuard;
            first = view.at[k];
            after = breaks ? view.results[k] : view.results[k] - view.closing[k];
            set(asked.kind, byGuard, breaks, view.times[k]);
        }
    }

    private void set(LineKind kind, boolean byGuard, boolean breaks, long at) {
        line = kind;
        guarded = byGuard;
        end = breaks ? End.BROKEN : End.LOCKED;
        time = at;
    }

    /** What left at a locked day's end is judged once more: it may have ended beyond what breaks the account, or at the target. */
    private void closedEarly() {
        for (Asked asked : losses) {
            if (asked.breaks && after <= asked.at(high)) {
                end = End.BROKEN;
                line = asked.kind;
                guarded = false;
                return;
            }
        }
        if (meetsTarget(after, true)) {
            end = End.PASSED;
            dayResult = after;
        }
    }

    private void takes(boolean traded) {
        dayResult = after;
        peak = Math.max(peak, balance + high);
        balance += after;
        closedPeak = Math.max(closedPeak, balance);
        bestDay = Math.max(bestDay, after);
        tradedDays += traded ? 1 : 0;
    }

    private boolean withoutRoom() {
        for (int i = 0; i < losses.size(); i++) {
            Asked asked = losses.get(i);
            if (asked.guard.on() && asked.at(0) != Long.MIN_VALUE && 0 <= asked.at(0) + asked.guard.money()) {
                line = asked.kind;
                return true;
            }
        }
        return false;
    }

    /** The first point, before those found so far, at which a view is at or below a line and a margin; −1: none. */
    private int from(Asked asked, DayPath.View of, DayPath day, long margin) {
        long last = asked.at(day.highest());
        if (last == Long.MIN_VALUE || of.lowest > last + margin) {
            return -1;
        }
        for (int high = 0; high < day.highs.length && day.highAt[high] < first; high++) {
            long at = asked.at(day.highs[high]);
            if (at != Long.MIN_VALUE) {
                int k = of.first(high, at + margin);
                if (k >= 0) {
                    return of.at[k] < first ? k : -1;
                }
            }
        }
        return -1;
    }

    /** The highest result up to a point, that one included. */
    private static long highBefore(DayPath day, int point) {
        int high = 0;
        while (high + 1 < day.highs.length && day.highAt[high + 1] <= point) {
            high++;
        }
        return day.highs[high];
    }

    /** Whether the target is met at a point before {@code before} at which nothing is held. */
    private boolean meets(DayPath day, int before) {
        if (target == Long.MAX_VALUE || balance + day.highest() - account.start() < target) {
            return false;
        }
        for (int i = 0; i < day.flats.length && day.flatAt[i] < before; i++) {
            if (meetsTarget(day.flats[i], true)) {
                dayResult = day.flats[i];
                time = day.flatTimes[i];
                return true;
            }
        }
        return false;
    }

    /** @param today net of the day, which counts as one of the days */
    private boolean meetsTarget(long today, boolean filled) {
        long net = balance + today - account.start();
        return target != Long.MAX_VALUE && net >= target && tradedDays + (filled ? 1 : 0) >= fewestDays
                && (consistency.isEmpty() || consistency.get().holds(Math.max(bestDay, today), net));
    }
}
