package stativex.market;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.zone.ZoneOffsetTransition;

/** Time on a tape: nanoseconds since 1970 UTC as a {@code long}. */
public final class TapeTime {
    public static final long SECOND = 1_000_000_000L;
    /** Later than every time on a tape. */
    public static final long NEVER = Long.MAX_VALUE;

    /** Dates and times of other years are refused: nothing is traded in them, and reckoning with them could leave the range. */
    public static final int FIRST_YEAR = 1700;
    public static final int LAST_YEAR = 2250;

    private static final long FIRST = Instant.parse("1700-01-01T00:00:00Z").getEpochSecond() * SECOND;
    private static final long LAST = Instant.parse("2251-01-01T00:00:00Z").getEpochSecond() * SECOND;

    private TapeTime() {}

    /** A date of the years that are reckoned with. @throws java.time.DateTimeException when it is none */
    public static LocalDate date(String text) {
        LocalDate date = LocalDate.parse(text);
        if (date.getYear() < FIRST_YEAR || date.getYear() > LAST_YEAR) {
            throw new DateTimeException("expected a date of the years " + FIRST_YEAR + " to " + LAST_YEAR);
        }
        return date;
    }

    /** Whether a time lies in the years that are reckoned with. */
    public static boolean inRange(long nanos) {
        return nanos >= FIRST && nanos < LAST;
    }

    /** @throws ArithmeticException outside the years 1677 to 2262 */
    public static long nanos(Instant instant) {
        return Math.addExact(Math.multiplyExact(instant.getEpochSecond(), SECOND), instant.getNano());
    }

    public static Instant instant(long nanos) {
        return Instant.ofEpochSecond(Math.floorDiv(nanos, SECOND), Math.floorMod(nanos, SECOND));
    }

    public static ZonedDateTime in(ZoneId zone, long nanos) {
        return instant(nanos).atZone(zone);
    }

    /**
     * The first instant at which the zone's clock shows {@code local} or a later time. In a missing hour that is the
     * end of the gap (java.time would shift by the gap's length instead); in a repeated hour the first showing.
     */
    public static long first(LocalDateTime local, ZoneId zone) {
        ZoneOffsetTransition change = zone.getRules().getTransition(local);
        if (change != null && change.isGap()) {
            return nanos(change.getInstant());
        }
        var offset = change != null ? change.getOffsetBefore() : zone.getRules().getOffset(local);
        return nanos(local.toInstant(offset));
    }
}
