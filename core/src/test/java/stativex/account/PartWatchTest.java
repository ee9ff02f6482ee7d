package stativex.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/** Own limits of a part of an account to the ten-thousandth, and sizes with tiers and micros. */
public class PartWatchTest {
    private static final Closing OPEN = new Closing(7, 5);

    private static PartWatch watch(long loss, long profit, Guard guard) {
        return new PartWatch(Part.STRATEGY, new DayLimits(
                loss > 0 ? Optional.of(new Account.DayLoss(loss, guard)) : Optional.empty(),
                profit > 0 ? Optional.of(profit) : Optional.empty()));
    }

    @Test
    public void linesAreMetAtTheirVeryAmount() {
        PartWatch watch = watch(100, 50, Guard.OFF);
        watch.begins(1000);
        assertEquals(watch.judge(901, OPEN), Optional.empty(), "a hair above");
        assertEquals(watch.judge(1049, OPEN), Optional.empty(), "a hair below");
        assertEquals(watch.judge(900, OPEN),
                Optional.of(new AccountWatch.Verdict(LineKind.STRATEGY_DAY_LOSS, false, -100, 1000)));
        assertEquals(watch.lock(), Optional.of(LockReason.STRATEGY_DAY_LOSS));
        assertEquals(watch.judge(800, OPEN), Optional.empty(), "a lock that stands says nothing more");
        watch.begins(900);
        assertEquals(watch.lock(), Optional.empty());
        assertEquals(watch.judge(950, OPEN),
                Optional.of(new AccountWatch.Verdict(LineKind.STRATEGY_DAY_PROFIT, false, 50, 900)));
    }

    @Test
    public void aGuardActsWhenClosingWouldEndAtItsMargin() {
        PartWatch watch = watch(100, 0, new Guard(true, 3, 2));
        watch.begins(0);
        // closing 7, margin 3 + 2 ticks of 5
        assertEquals(watch.judge(-79, OPEN), Optional.empty());
        assertEquals(watch.judge(-80, Closing.NOTHING), Optional.empty(), "with nothing open it does not lock");
        assertEquals(watch.judge(-80, OPEN),
                Optional.of(new AccountWatch.Verdict(LineKind.STRATEGY_DAY_LOSS, true, -100, 0)));
        PartWatch room = watch(100, 0, new Guard(true, 3, 2));
        room.begins(10);
        assertEquals(room.room(5, 5), 5 - 10 + 100 - 13);
        assertEquals(room.quietBelow(OPEN), 10 - 100 + 7 + 13);
        assertEquals(room.guardedLine(5).orElseThrow().money(), 10 - 100 + 13);
        assertEquals(watch(0, 0, Guard.OFF).room(5, 5), AccountWatch.NO_LINE);
        assertFalse(watch(0, 0, Guard.OFF).any());
        assertEquals(room.lines().stream().map(Line::money).toList(), List.of(-90L));
    }

    @Test
    public void sizesGoByTheProfitAndCountMicrosExactly() {
        Rulebook.Size size = new Rulebook.Size(2,
                List.of(new Rulebook.Size.Tier(1000, 3), new Rulebook.Size.Tier(2000, 5)),
                Map.of("MTD", new Rulebook.Share(1, 8), "MNH", new Rulebook.Share(1, 3)));
        assertEquals(List.of(size.at(-500), size.at(999), size.at(1000), size.at(1999), size.at(2000)),
                List.of(2, 2, 3, 3, 5));
        assertTrue(size.fits(Map.of("TDL", 1L, "MTD", 8L), 2), "1 + 8 eighths");
        assertFalse(size.fits(Map.of("TDL", 1L, "MTD", 9L), 2));
        assertTrue(size.fits(Map.of("MTD", 8L, "MNH", 3L), 2), "eighths and thirds are added exactly");
        assertFalse(size.fits(Map.of("MTD", 8L, "MNH", 4L), 2));
        assertThrows(IllegalArgumentException.class, () -> new Rulebook.Size(2,
                List.of(new Rulebook.Size.Tier(1000, 3), new Rulebook.Size.Tier(1000, 4)), Map.of()));
        assertThrows(IllegalArgumentException.class, () -> new Rulebook.Size(0, List.of(), Map.of()));
        assertThrows(IllegalArgumentException.class, () -> new Rulebook.Share(1, 0));
    }
}
