package stativex.link;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The alarms that stand. Each is told when it is raised and when it is over; one that matters every minute is told again. */
final class Alarms {
    private static final long MINUTE = 60_000_000_000L;

    private final Map<Alarm.Kind, Standing> standing = new EnumMap<>(Alarm.Kind.class);

    /** @param told when it was told last */
    private record Standing(Alarm alarm, long told) {}

    /**
     * How one stands now.
     *
     * @param words what is wrong; empty: nothing is
     * @return what is to be told: it is raised, is told again, or (without words) is over
     */
    Optional<Told> set(Alarm.Kind kind, Optional<String> words, long now) {
        Standing before = standing.get(kind);
        if (words.isEmpty()) {
            standing.remove(kind);
            return Optional.ofNullable(before).map(one -> new Told(one.alarm(), false));
        }
        Alarm alarm = new Alarm(kind, words.get());
        boolean again = before != null && kind == Alarm.Kind.FLATTEN_WAITS && now - before.told() >= MINUTE;
        boolean tell = before == null || again;
        standing.put(kind, new Standing(alarm, tell ? now : before.told()));
        return tell ? Optional.of(new Told(alarm, true)) : Optional.empty();
    }

    /** @param raised or over */
    record Told(Alarm alarm, boolean raised) {}

    /** Those that stand, the most urgent first. */
    List<Alarm> standing() {
        List<Alarm> all = new ArrayList<>();
        standing.values().forEach(one -> all.add(one.alarm()));
        return List.copyOf(all);
    }
}
