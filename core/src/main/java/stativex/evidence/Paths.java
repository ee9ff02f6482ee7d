package stativex.evidence;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import stativex.account.Account;
import stativex.trial.Run;

/** The days of a finished run, reduced to what the lines of an account need. */
public final class Paths implements DayWalk.Points {
    private final int[] ticks;
    private final List<DayPath> days = new ArrayList<>();
    private DayPath.Maker day;

    private Paths(int[] ticks) {
        this.ticks = ticks;
    }

    /**
     * @param account whose lines are to be looked up
     * @throws IllegalArgumentException when something is held overnight
     */
    public static List<DayPath> of(Run run, Account account) {
        Paths paths = new Paths(new DayJudge(account).ticks());
        DayWalk.walk(run, paths);
        return paths.made();
    }

    /** Paths of points that somebody else tells. */
    static Paths collector(Account account) {
        return new Paths(new DayJudge(account).ticks());
    }

    @Override
    public void day(LocalDate date) {
        ends();
        day = new DayPath.Maker(date, ticks);
    }

    @Override
    public void point(long time, long result, long closing, long perTick, boolean filled) {
        day.point(time, result, closing, perTick, filled);
    }

    private void ends() {
        if (day != null) {
            days.add(day.made());
            day = null;
        }
    }

    List<DayPath> made() {
        ends();
        return List.copyOf(days);
    }
}
