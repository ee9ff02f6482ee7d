package stativex.rule;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import stativex.market.TapeTime;

/**
 * Hours of every day in a zone: {@code from} is inside, {@code to} is not; to ≤ from means to is on the next day. A local
 * time means the first instant at which the zone's clock shows it or a later one.
 */
final class DailyHours {
    private final LocalTime from;
    private final LocalTime to;
    private final ZoneId zone;
    /** What holds in [{@code since}, {@code until}). */
    private boolean inside;
    private long since = Long.MAX_VALUE;
    private long until = Long.MIN_VALUE;

    DailyHours(LocalTime from, LocalTime to, ZoneId zone) {
        this.from = from;
        this.to = to;
        this.zone = zone;
    }

    boolean contains(long time) {
        if (time < since || time >= until) {
            find(time);
        }
        return inside;
    }

    private void find(long time) {
        LocalDate day = TapeTime.in(zone, time).toLocalDate();
        inside = false;
        since = Long.MIN_VALUE;
        until = Long.MAX_VALUE;
        for (LocalDate date = day.minusDays(2); !date.isAfter(day.plusDays(2)); date = date.plusDays(1)) {
            long begins = TapeTime.first(date.atTime(from), zone);
            long ends = TapeTime.first((to.isAfter(from) ? date : date.plusDays(1)).atTime(to), zone);
            if (begins >= ends) {
                continue;
            }
            if (begins <= time && time < ends) {
                inside = true;
                since = begins;
                until = ends;
                return;
            }
            if (ends <= time) {
                since = Math.max(since, ends);
            } else {
                until = Math.min(until, begins);
            }
        }
    }

    /** Such as {@code 10:14 Auckland, in 09:45–11:30}. */
    String words(long time) {
        String clock = TapeTime.in(zone, time).toLocalTime().withNano(0).toString();
        return clock + (contains(time) ? " in " : " outside ") + from + "–" + to + " " + zone.getId();
    }
}
