package stativex.link.fix;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import stativex.market.TapeTime;

/** Times as FIX writes them, in UTC. */
final class Stamp {
    private static final DateTimeFormatter MILLIS = DateTimeFormatter.ofPattern("yyyyMMdd-HH:mm:ss.SSS");
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("yyyyMMdd");
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss.SSSSSSSSS");
    private static final DateTimeFormatter ANY = DateTimeFormatter
            .ofPattern("yyyyMMdd-HH:mm:ss[.SSSSSSSSS][.SSSSSS][.SSS]");

    private Stamp() {}

    private static LocalDateTime utc(long nanos) {
        return LocalDateTime.ofInstant(TapeTime.instant(nanos), ZoneOffset.UTC);
    }

    /** To the millisecond, as the standard has it. */
    static String millis(long nanos) {
        return MILLIS.format(utc(nanos));
    }

    static String date(long nanos) {
        return DATE.format(utc(nanos));
    }

    /** Of the day, to the nanosecond. */
    static String time(long nanos) {
        return TIME.format(utc(nanos));
    }

    /** Nanoseconds of a date with a time. */
    static long nanos(String stamp) throws BadMessage {
        try {
            Instant instant = LocalDateTime.parse(stamp, ANY).toInstant(ZoneOffset.UTC);
            return TapeTime.nanos(instant);
        } catch (DateTimeException | ArithmeticException e) {
            throw new BadMessage("expected a time such as 20260924-09:45:00.000, found " + stamp);
        }
    }
}
