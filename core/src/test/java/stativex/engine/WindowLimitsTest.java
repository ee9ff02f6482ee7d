package stativex.engine;

import static org.testng.Assert.assertEquals;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.Test;
import stativex.account.LineKind;
import stativex.account.LockReason;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;

/** A window's own limits: from its beginning on, until its very end, or for the rest of the day. */
public class WindowLimitsTest {
    private static SessionWindow window(boolean wholeDay) {
        return new SessionWindow("Morning", EnumSet.allOf(DayOfWeek.class), LocalTime.of(9, 0), LocalTime.of(10, 0),
                ZoneOffset.UTC, SessionWindow.End.STOP_ENTERING, 0,
                new SessionWindow.Limits(Optional.of(100L), Optional.of(50L), wholeDay));
    }

    private static WindowLimits begun(SessionWindow window, long result) {
        WindowLimits limits = new WindowLimits(List.of(window));
        limits.begins(new WindowSchedule.Occurrence(window, 900, 1000), result);
        return limits;
    }

    private static List<LineKind> judged(WindowLimits limits, long now, long result) {
        List<LineKind> reached = new ArrayList<>();
        limits.judge(now, result, verdict -> reached.add(verdict.line()));
        return reached;
    }

    @Test
    public void itLocksUntilItsEndAndNoLonger() {
        SessionWindow window = window(false);
        WindowLimits limits = begun(window, 30);
        assertEquals(judged(limits, 899, -1000), List.of(), "before it begins");
        assertEquals(judged(limits, 900, -69), List.of(), "a hair above, counted from its beginning");
        assertEquals(limits.quietBelow(900), 30 - 100);
        assertEquals(limits.quietAbove(900), 30 + 50);
        assertEquals(judged(limits, 950, -70), List.of(LineKind.WINDOW_DAY_LOSS));
        assertEquals(limits.lock(999), Optional.of(LockReason.WINDOW_DAY_LOSS));
        assertEquals(limits.lock(1000), Optional.empty(), "to is outside");
        assertEquals(judged(limits, 1000, 500), List.of());
        assertEquals(limits.lines(1000), List.of());
        assertEquals(limits.quietBelow(1000), Long.MIN_VALUE);
        limits.begins(new WindowSchedule.Occurrence(window, 2000, 2100), -70);
        assertEquals(limits.lock(2000), Optional.empty(), "the next occurrence begins anew");
    }

    @Test
    public void itMayLockTheWholeDay() {
        SessionWindow window = window(true);
        WindowLimits limits = begun(window, 0);
        assertEquals(judged(limits, 950, 50), List.of(LineKind.WINDOW_DAY_PROFIT));
        assertEquals(limits.lock(5000), Optional.of(LockReason.WINDOW_DAY_PROFIT));
        limits.dayBegins();
        assertEquals(limits.lock(5000), Optional.empty());
        assertEquals(limits.lock(999), Optional.of(LockReason.WINDOW_DAY_PROFIT), "while it is open it stays locked");
        limits.begins(new WindowSchedule.Occurrence(window, 2000, 2100), 50);
        assertEquals(limits.lock(2000), Optional.empty(), "anew with its next occurrence");
    }
}
