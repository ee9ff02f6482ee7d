package stativex.search;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The variants of a setting of choices, each held against the one that has its first choice, all other settings alike: what a filter
 * changed. Source: SEMANTICS, "Searches and evidence"; that every rule is judged against one without it is common practice, no source.
 *
 * @param with the variant that has another choice; {@code without} its control
 */
public record Control(Ranking.Entry with, Ranking.Entry without) {
    /** Net that the choice brought or cost, money. */
    public long net() {
        return with.tried().net() - without.tried().net();
    }

    /** Trades more, below 0 fewer. */
    public int trades() {
        return with.tried().trades() - without.tried().trades();
    }

    /**
     * Every variant beside its control, in the order of their numbers; those whose control was not tried are left out.
     *
     * @param range place of the setting in the space
     */
    public static List<Control> of(Space space, List<Ranking.Entry> entries, int range) {
        Map<Long, Ranking.Entry> controls = new HashMap<>();
        entries.forEach(entry -> controls.put(entry.grid(), entry));
        List<Control> found = new ArrayList<>();
        for (Ranking.Entry entry : entries) {
            int[] places = space.places(entry.grid());
            if (places[range] != 0) {
                places[range] = 0;
                Ranking.Entry control = controls.get(space.number(places));
                if (control != null) {
                    found.add(new Control(entry, control));
                }
            }
        }
        return found;
    }

    /** The place of a setting by its name; −1 without it. */
    public static int place(Space space, String name) {
        return space.ranges().stream().map(Space.Range::name).toList().indexOf(name);
    }
}
