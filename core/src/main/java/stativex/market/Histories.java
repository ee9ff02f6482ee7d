package stativex.market;

import java.util.HashMap;
import java.util.Map;

/**
 * Bars of whole tapes, made once and shared by whoever asks for the same: strategies of a run, variants of a search. Safe for
 * several threads; a series that is asked for twice at once may be made twice.
 */
public final class Histories {
    private final Map<Key, BarSeries> made = new HashMap<>();

    /** A tape and a calendar are themselves, not what is equal to them. */
    private record Key(Tape tape, SessionCalendar calendar, BarSettings settings, long since, long until) {}

    /** Nothing yet. */
    public Histories() {}

    /**
     * The bars that have closed when tape time has reached {@code until}.
     *
     * @param since prints before this time are left out, nanoseconds
     * @param until nanoseconds; {@link Long#MIN_VALUE} where tape time has not begun
     * @throws IllegalArgumentException when one print would close more than 100 000 bars
     */
    public BarSeries of(Tape tape, SessionCalendar calendar, BarSettings settings, long since, long until) {
        Key key = new Key(tape, calendar, settings, since, until);
        synchronized (made) {
            BarSeries known = made.get(key);
            if (known != null) {
                return known;
            }
        }
        SeriesBuilder builder = new SeriesBuilder(tape, calendar, settings, since);
        builder.prints(0, tape.count());
        if (until != Long.MIN_VALUE) {
            builder.heartbeat(until);
        }
        synchronized (made) {
            return made.computeIfAbsent(key, k -> builder.ended());
        }
    }
}
