package stativex.interlock;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Set;

/**
 * Hours in which a strategy may enter. <em>From</em> is inside, <em>to</em> is outside; to ≤ from means that <em>to</em>
 * is on the next day.
 *
 * @param days of <em>from</em>, in {@code zone}
 * @param lead nanoseconds before the end at which a flatten acts
 */
public record SessionWindow(String name, Set<DayOfWeek> days, LocalTime from, LocalTime to, ZoneId zone, End end,
        long lead) {

    /** What happens at the end, from the weakest to the strongest. */
    public enum End {
        STOP_ENTERING("stop entering"), CANCEL("cancel"), FLATTEN("flatten");

        private final String word;

        End(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public SessionWindow {
        days = Set.copyOf(days);
        if (days.isEmpty()) {
            throw new IllegalArgumentException("window \"" + name + "\": expected at least one day");
        }
        if (lead < 0) {
            throw new IllegalArgumentException("window \"" + name + "\": expected a lead of 0 s or more");
        }
    }
}
