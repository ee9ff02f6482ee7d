package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.AccountWatch;
import stativex.account.Closing;
import stativex.account.DayLimits;
import stativex.account.Guard;
import stativex.account.Line;
import stativex.account.LockReason;
import stativex.account.Part;
import stativex.account.PartWatch;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.TapeTime;

/** Own limits of a strategy's windows: each counts the result since its own beginning, as long as it is open. */
final class WindowLimits {
    private final List<Watched> watched = new ArrayList<>();

    private static final class Watched {
        final SessionWindow window;
        final PartWatch watch;
        long from = TapeTime.NEVER;
        long to = TapeTime.NEVER;
        /** Why nothing is entered until the next trading day, in no window. */
        Optional<LockReason> forTheDay = Optional.empty();

        Watched(SessionWindow window) {
            this.window = window;
            this.watch = new PartWatch(Part.WINDOW, new DayLimits(
                    window.limits().loss().map(amount -> new Account.DayLoss(amount, Guard.OFF)),
                    window.limits().profit()));
        }

        boolean open(long now) {
            return from <= now && now < to;
        }
    }

    WindowLimits(List<SessionWindow> windows) {
        windows.stream().filter(window -> window.limits().any()).forEach(window -> watched.add(new Watched(window)));
    }

    boolean any() {
        return !watched.isEmpty();
    }

    /** An occurrence of a window begins, or has begun before the first event: the result counts from here. */
    void begins(WindowSchedule.Occurrence occurrence, long result) {
        for (Watched one : watched) {
            if (one.window == occurrence.window()) {
                one.from = occurrence.from();
                one.to = occurrence.to();
                one.watch.begins(result);
            }
        }
    }

    /** A trading day begins: what was locked for the rest of the day before is free, an open window stays locked until it ends. */
    void dayBegins() {
        watched.forEach(one -> one.forTheDay = Optional.empty());
    }

    /** Told of every line that is reached. */
    interface Reached {
        void line(AccountWatch.Verdict verdict);
    }

    /** Takes the result after a print's fills. */
    void judge(long now, long result, Reached reached) {
        for (int i = 0; i < watched.size(); i++) {
            Watched one = watched.get(i);
            if (one.open(now)) {
                Optional<AccountWatch.Verdict> verdict = one.watch.judge(result, Closing.NOTHING);
                if (verdict.isPresent()) {
                    one.forTheDay = one.window.limits().wholeDay() ? one.watch.lock() : Optional.empty();
                    reached.line(verdict.get());
                }
            }
        }
    }

    /** Why nothing may be entered and everything is flat, if a window says so. */
    Optional<LockReason> lock(long now) {
        for (int i = 0; i < watched.size(); i++) {
            if (watched.get(i).open(now) && watched.get(i).watch.lock().isPresent()) {
                return watched.get(i).watch.lock();
            }
        }
        for (int i = 0; i < watched.size(); i++) {
            if (watched.get(i).forTheDay.isPresent()) {
                return watched.get(i).forTheDay;
            }
        }
        return Optional.empty();
    }

    /** The result at or below which a print must be judged; {@link Long#MIN_VALUE} if there is none. */
    long quietBelow(long now) {
        long below = Long.MIN_VALUE;
        for (int i = 0; i < watched.size(); i++) {
            if (watched.get(i).open(now)) {
                below = Math.max(below, watched.get(i).watch.quietBelow(Closing.NOTHING));
            }
        }
        return below;
    }

    /** Likewise at or above which; {@link Long#MAX_VALUE} if there is none. */
    long quietAbove(long now) {
        long above = Long.MAX_VALUE;
        for (int i = 0; i < watched.size(); i++) {
            if (watched.get(i).open(now)) {
                above = Math.min(above, watched.get(i).watch.quietAbove());
            }
        }
        return above;
    }

    /** Lines of the windows that are open, as amounts of the strategy's result. */
    List<Line> lines(long now) {
        return watched.stream().filter(one -> one.open(now)).flatMap(one -> one.watch.lines().stream()).toList();
    }
}
