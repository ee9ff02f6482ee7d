package stativex.search;

import java.util.ArrayList;
import java.util.List;

/**
 * The variants of a search: every choice of one value from each of its ranges. Places count from 0; the grid's numbers count from 0 too,
 * in the order of the ranges, the last one fastest. Source: SEMANTICS, "Searches and evidence".
 */
public final class Space {
    /**
     * What is varied.
     *
     * @param name of the setting
     * @param values names of its values, in order, at least one
     * @param numeric whether a place lies beside the next one; else each is a choice of its own
     */
    public record Range(String name, List<String> values, boolean numeric) {
        public Range {
            values = List.copyOf(values);
            if (values.isEmpty()) {
                throw new IllegalArgumentException("expected a value of " + name + ", found none");
            }
        }
    }

    private final List<Range> ranges;
    private final long count;

    /** @throws IllegalArgumentException without a range, or with more variants than can be counted */
    public Space(List<Range> ranges) {
        this.ranges = List.copyOf(ranges);
        if (ranges.isEmpty()) {
            throw new IllegalArgumentException("expected a range to search over, found none");
        }
        long all = 1;
        for (Range range : ranges) {
            try {
                all = Math.multiplyExact(all, (long) range.values().size());
            } catch (ArithmeticException e) {
                throw new IllegalArgumentException("more variants than can be counted: "
                        + String.join(" × ", ranges.stream().map(r -> Integer.toString(r.values().size())).toList()),
                        e);
            }
        }
        count = all;
    }

    public List<Range> ranges() {
        return ranges;
    }

    /** Variants of the whole grid. */
    public long count() {
        return count;
    }

    /** The places of a variant of the grid. */
    public int[] places(long number) {
        int[] places = new int[ranges.size()];
        long rest = number;
        for (int i = places.length - 1; i >= 0; i--) {
            int size = ranges.get(i).values().size();
            places[i] = (int) (rest % size);
            rest /= size;
        }
        return places;
    }

    /** The number in the grid. */
    public long number(int[] places) {
        long number = 0;
        for (int i = 0; i < places.length; i++) {
            number = number * ranges.get(i).values().size() + places[i];
        }
        return number;
    }

    /** {@code stop=12; filter=none}. */
    public String words(int[] places) {
        StringBuilder words = new StringBuilder();
        for (int i = 0; i < places.length; i++) {
            words.append(i == 0 ? "" : "; ").append(ranges.get(i).name()).append('=')
                    .append(ranges.get(i).values().get(places[i]));
        }
        return words.toString();
    }

    /**
     * The variant itself and those each of whose numeric settings lies at most one place away and whose choices are the same, in the
     * order of the grid.
     */
    public List<Long> neighbours(long number) {
        List<Long> found = new ArrayList<>();
        int[] middle = places(number);
        gather(middle, middle.clone(), 0, found);
        return found;
    }

    private void gather(int[] middle, int[] places, int range, List<Long> found) {
        if (range == places.length) {
            found.add(number(places));
            return;
        }
        int reach = ranges.get(range).numeric() ? 1 : 0;
        int last = ranges.get(range).values().size() - 1;
        for (int at = Math.max(0, middle[range] - reach); at <= Math.min(last, middle[range] + reach); at++) {
            places[range] = at;
            gather(middle, places, range + 1, found);
        }
        places[range] = middle[range];
    }
}
