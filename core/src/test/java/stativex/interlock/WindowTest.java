package stativex.interlock;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;
import stativex.market.TapeTime;
import stativex.trial.Given;

public class WindowTest {
    private static final SessionWindow.End FLATTEN = SessionWindow.End.FLATTEN;

    @Test
    public void fromIsInsideAndToIsOutside() {
        WindowSchedule schedule = new WindowSchedule(
                List.of(Given.window("Morning", "09:45", "11:30", SessionWindow.End.STOP_ENTERING, 0)));
        var stretch = schedule.at(Given.at(0, "09:00")).orElseThrow();
        assertEquals(stretch.from(), Given.at(0, "09:45"));
        assertFalse(stretch.allows(Given.at(0, "09:45") - 1));
        assertTrue(stretch.allows(Given.at(0, "09:45")));
        assertTrue(stretch.allows(Given.at(0, "11:30") - 1));
        assertFalse(stretch.allows(Given.at(0, "11:30")));
    }

    @Test
    public void aFlattenEndsEntriesALeadBefore() {
        WindowSchedule schedule = new WindowSchedule(List.of(Given.window("Morning", "09:45", "11:30", FLATTEN, 30)));
        var stretch = schedule.at(Given.at(0, "10:00")).orElseThrow();
        assertEquals(stretch.lastEntry(), Given.at(0, "11:29:30"));
        assertFalse(stretch.allows(Given.at(0, "11:29:30")));
    }

    @Test
    public void touchingWindowsAreOneAndTheStrongestEndCounts() {
        WindowSchedule schedule = new WindowSchedule(List.of(Given.window("A", "09:00", "10:00", FLATTEN, 60),
                Given.window("B", "10:00", "11:00", SessionWindow.End.CANCEL, 0)));
        var stretch = schedule.at(Given.at(0, "09:30")).orElseThrow();
        assertEquals(stretch.name(), "A + B");
        assertEquals(stretch.to(), Given.at(0, "11:00"));
        assertEquals(stretch.end(), FLATTEN);
        assertEquals(stretch.lastEntry(), Given.at(0, "10:59"), "only at the end of the last is there a lead");
    }

    @Test
    public void aWindowMayCrossMidnightAndBelongsToTheDayItBeginsOn() {
        SessionWindow night = new SessionWindow("Night", Set.of(DayOfWeek.MONDAY), LocalTime.of(22, 0),
                LocalTime.of(2, 0), ZoneId.of("UTC"), FLATTEN, 0);
        WindowSchedule schedule = new WindowSchedule(List.of(night));
        assertTrue(schedule.at(Given.at(1, "01:00")).orElseThrow().allows(Given.at(1, "01:00")));
        assertFalse(schedule.at(Given.at(0, "01:00")).orElseThrow().allows(Given.at(0, "01:00")),
                "Sunday's night does not exist");
    }

    @Test
    public void aWindowInsideTheMissingHourDoesNotTakePlace() {
        // Helsinki skips 03:00–04:00 on Sunday 29 March 2026 (IANA rules)
        ZoneId helsinki = ZoneId.of("Europe/Helsinki");
        SessionWindow early = new SessionWindow("Early", Set.of(DayOfWeek.SUNDAY), LocalTime.of(3, 10),
                LocalTime.of(3, 50), helsinki, FLATTEN, 0);
        long before = TapeTime.first(LocalDateTime.parse("2026-03-29T00:00"), helsinki);
        var next = new WindowSchedule(List.of(early)).at(before).orElseThrow();
        assertEquals(next.from(), TapeTime.first(LocalDateTime.parse("2026-04-05T03:10"), helsinki));
    }
}
