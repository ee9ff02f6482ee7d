package stativex.market;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The contract months of a series that is traded over its rolls. No position crosses one: it is flattened a lead before the close of
 * the old month's last session before the roll. Source: SEMANTICS, "Joined series".
 *
 * @param legs in the order in which they come into force; none or one: there is no roll
 * @param lead nanoseconds, 0 or more
 */
public record Rolls(List<Join.Leg> legs, long lead) {
    /** How long before the close a position is flattened, unless something else is said. */
    public static final long LEAD = 300 * TapeTime.SECOND;
    /** One month alone. */
    public static final Rolls NONE = new Rolls(List.of(), LEAD);

    public Rolls {
        legs = List.copyOf(legs);
        if (lead < 0) {
            throw new IllegalArgumentException("expected a lead of 0 or more before a roll, found " + lead);
        }
    }

    /** The months of a join, with the usual lead. */
    public static Rolls of(Join join) {
        return new Rolls(join.legs(), LEAD);
    }

    /**
     * What must be known of a roll to trade a joined tape over it.
     *
     * @param name of the month that comes into force; {@code lastTradingDay} its own
     * @param open first open of the roll day, nanoseconds
     * @param print index of its first print on the joined tape
     * @param adjustment ticks that earlier prices are moved by
     * @param before price of its last print before the open, ticks
     */
    public record Change(String name, LocalDate date, long open, int print, long adjustment, long before,
            Optional<LocalDate> lastTradingDay) {}

    /** The rolls in figures. */
    public List<Change> changes() {
        List<Change> changes = new ArrayList<>();
        for (int month = 1; month < legs.size(); month++) {
            Join.Leg leg = legs.get(month);
            Tape older = legs.get(month - 1).seen();
            int print = older.count();
            changes.add(new Change(leg.name(), leg.date().orElseThrow(), leg.open(), print,
                    leg.seen().price(print - 1) - older.price(print - 1), leg.before(), leg.lastTradingDay()));
        }
        return changes;
    }

    /**
     * The same from figures.
     *
     * @param joined all months at their real prices
     * @param first name of the first month; {@code lastTradingDay} its own
     * @throws IllegalArgumentException when a roll lies outside the tape or before the one above it
     */
    public static Rolls of(Tape joined, String first, Optional<LocalDate> lastTradingDay, List<Change> changes,
            long lead) {
        List<Join.Leg> legs = new ArrayList<>();
        for (int month = 0; month <= changes.size(); month++) {
            int end = month == changes.size() ? joined.count() : changes.get(month).print();
            int begin = month == 0 ? 0 : changes.get(month - 1).print();
            if (end <= begin || end > joined.count()) {
                throw new IllegalArgumentException("expected rolls at prints of the tape, in order, found one at "
                        + end);
            }
            List<Tape.Part> moved = new ArrayList<>();
            long shift = 0;
            int to = end;
            for (int i = month; i >= 0; i--) {
                int from = i == 0 ? 0 : changes.get(i - 1).print();
                moved.addFirst(new Tape.Part(joined, from, to, shift));
                to = from;
                shift = i == 0 ? shift : Math.addExact(shift, changes.get(i - 1).adjustment());
            }
            Optional<Change> by = month == 0 ? Optional.empty() : Optional.of(changes.get(month - 1));
            legs.add(new Join.Leg(by.map(Change::name).orElse(first), by.map(Change::date),
                    by.map(Change::open).orElse(Long.MIN_VALUE), Tape.joined(moved),
                    by.map(Change::before).orElse(Tape.NONE),
                    by.isPresent() ? by.get().lastTradingDay() : lastTradingDay));
        }
        return new Rolls(legs, lead);
    }
}
