package stativex.interlock;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Optional;
import java.util.Set;

/**
 * Hours in which a strategy may enter. <em>From</em> is inside, <em>to</em> is outside; to ≤ from means that <em>to</em>
 * is on the next day.
 *
 * @param days of <em>from</em>, in {@code zone}
 * @param lead nanoseconds before the end at which a flatten acts
 * @param limits of what is traded inside it
 */
public record SessionWindow(String name, Set<DayOfWeek> days, LocalTime from, LocalTime to, ZoneId zone, End end,
        long lead, Limits limits) {

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

    /**
     * Own limits of a window: of the result since its beginning. At the line everything leaves, and nothing is entered until it ends.
     *
     * @param loss money, above 0; empty: off; {@code profit} likewise
     * @param wholeDay nothing is entered until the next trading day, in no window
     */
    public record Limits(Optional<Long> loss, Optional<Long> profit, boolean wholeDay) {
        public static final Limits NONE = new Limits(Optional.empty(), Optional.empty(), false);

        public Limits {
            if (loss.filter(amount -> amount <= 0).isPresent() || profit.filter(amount -> amount <= 0).isPresent()) {
                throw new IllegalArgumentException("expected a window's loss and profit above 0");
            }
        }

        /** Whether there is any. */
        public boolean any() {
            return loss.isPresent() || profit.isPresent();
        }
    }

    /** The same without limits of its own. */
    public SessionWindow withoutLimits() {
        return new SessionWindow(name, days, from, to, zone, end, lead);
    }

    /** A window without limits of its own. */
    public SessionWindow(String name, Set<DayOfWeek> days, LocalTime from, LocalTime to, ZoneId zone, End end,
            long lead) {
        this(name, days, from, to, zone, end, lead, Limits.NONE);
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
