package stativex.market;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;

/**
 * A series of bars as it is asked for.
 *
 * @param restart where bars begin anew; day and longer bars never restart inside
 * @param anchor with {@link Restart#NEVER} the trading date it begins with; else empty
 * @param sessions names of the sessions whose prints make bars; empty: all
 */
public record BarSettings(BarType type, Restart restart, Optional<LocalDate> anchor, Set<String> sessions) {
    /** Where bars begin anew. */
    public enum Restart {
        SESSION, DAY, WEEK, NEVER
    }

    public BarSettings {
        sessions = Set.copyOf(sessions);
        if (anchor.isPresent() != (restart == Restart.NEVER)) {
            throw new IllegalArgumentException(restart == Restart.NEVER
                    ? "bars that never restart need an anchor: the trading date they begin with"
                    : "only bars that never restart have an anchor");
        }
    }

    /** All sessions, restarting at each session's open. */
    public static BarSettings of(BarType type) {
        return new BarSettings(type, Restart.SESSION, Optional.empty(), Set.of());
    }

    /** Whether a session is one of those whose prints make bars, by its name. */
    boolean names(Session session) {
        return sessions.isEmpty() || sessions.contains(session.name());
    }

    /** The same, and it does not lie before the anchor. */
    boolean uses(Session session) {
        return names(session) && (anchor.isEmpty() || !session.tradingDate().isBefore(anchor.get()));
    }
}
