package stativex.files.tape;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import stativex.market.Tape;

/** What was found in a tick file: counts by kind, the first places of each, and the sessions that lack prints. */
public final class Findings {
    /** Places kept of each kind. */
    public static final int PLACES = 20;

    /**
     * @param line physical line, or row of a Parquet file
     * @param words what was found there
     */
    public record Place(long line, String words) {}

    private final long[] counts = new long[Finding.values().length];
    private final Map<Finding, List<Place>> places = new EnumMap<>(Finding.class);
    private final Set<Tape.SessionName> lacking = new TreeSet<>();

    Findings() {}

    /** Whether the words of one more place would be kept. */
    boolean wants(Finding kind) {
        return !places.containsKey(kind) || places.get(kind).size() < PLACES;
    }

    void add(Finding kind, long line, String words) {
        count(kind, 1);
        if (wants(kind)) {
            places.computeIfAbsent(kind, k -> new ArrayList<>()).add(new Place(line, words));
        }
    }

    /** Counts without keeping a place. */
    void count(Finding kind, long more) {
        counts[kind.ordinal()] += more;
    }

    void lacks(Tape.SessionName session) {
        lacking.add(session);
    }

    public long count(Finding kind) {
        return counts[kind.ordinal()];
    }

    /** The first places, at most {@value #PLACES}. */
    public List<Place> places(Finding kind) {
        return List.copyOf(places.getOrDefault(kind, List.of()));
    }

    /** Lines that cannot be taken. */
    public long bad() {
        return Arrays.stream(Finding.values()).filter(Finding::bad).mapToLong(this::count).sum();
    }

    /** Sessions with a gap, without a print, or begun late. */
    public Set<Tape.SessionName> lacking() {
        return Set.copyOf(lacking);
    }
}
