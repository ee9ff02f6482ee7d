package stativex.search;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import stativex.evidence.Odds;

/**
 * Rules from examples: conjunctions of conditions that hold on the bars somebody marked and seldom elsewhere. Source: SEMANTICS,
 * "Searches and evidence" (rules from examples).
 *
 * <p>A rule that holds on a bar that was marked as wrong is not offered: that is our own meaning, no source. Extensions that cannot come
 * among the best, even without a false alarm, are not looked at; every conjunction that was is counted.
 */
public final class Examples {
    /** Conditions of a rule at most. */
    public static final int MOST = 3;

    /**
     * What was marked.
     *
     * @param right bars on which an entry was right; {@code wrong} bars on which none may be
     * @param bars how many there are; those before {@code from} are not looked at
     * @param beside whether a rule may hold one bar before or after a marked one
     */
    public record Marks(BitSet right, BitSet wrong, int from, int bars, boolean beside) {
        public Marks {
            right = (BitSet) right.clone();
            wrong = (BitSet) wrong.clone();
            if (right.isEmpty()) {
                throw new IllegalArgumentException("expected a bar on which an entry was right, found none");
            }
            if (right.intersects(wrong)) {
                throw new IllegalArgumentException("expected a bar to be right or wrong, found one that is both");
            }
        }
    }

    /**
     * A conjunction.
     *
     * @param conditions their places in the list, ascending
     * @param hits marked bars on which it is true; {@code misses} the others
     * @param falseAlarms true bars that are neither marked nor within the setting of one
     */
    public record Found(List<Integer> conditions, int hits, int misses, int falseAlarms) {
        public Found {
            conditions = List.copyOf(conditions);
        }
    }

    /** @param best first, {@code scored} how many conjunctions were looked at: attempts */
    public record Result(List<Found> best, long scored) {
        public Result {
            best = List.copyOf(best);
        }
    }

    private final List<BitSet> conditions;
    private final Marks marks;
    private final BigDecimal weight;
    private final int keep;
    private final BitSet far;
    private final Comparator<Found> order;
    private final TreeSet<Found> best;
    private long scored;

    private Examples(List<BitSet> conditions, Marks marks, BigDecimal weight, int keep) {
        this.conditions = conditions;
        this.marks = marks;
        this.weight = weight;
        this.keep = keep;
        this.far = new BitSet();
        far.set(marks.from(), marks.bars());
        far.andNot(marks.beside() ? beside(marks.right()) : marks.right());
        this.order = Comparator.comparing((Found one) -> value(one.hits(), one.falseAlarms())).reversed()
                .thenComparingInt(one -> one.conditions().size()).thenComparingInt(Found::falseAlarms)
                .thenComparing(Examples::places);
        this.best = new TreeSet<>(order);
    }

    private static String places(Found one) {
        StringBuilder places = new StringBuilder();
        one.conditions().forEach(place -> places.append((char) place.intValue()));
        return places.toString();
    }

    private BigDecimal value(int hits, int falseAlarms) {
        return BigDecimal.valueOf(hits).subtract(weight.multiply(BigDecimal.valueOf(falseAlarms)));
    }

    /**
     * Searches.
     *
     * @param conditions the bars on which each is true, at most 65 535
     * @param weight of a false alarm against a hit, 0 or more
     * @param keep how many of the best
     * @return empty when it was cancelled
     */
    public static Optional<Result> search(List<BitSet> conditions, Marks marks, BigDecimal weight, int keep,
            Odds.Progress progress) {
        if (weight.signum() < 0 || keep < 1 || conditions.size() > Character.MAX_VALUE) {
            throw new IllegalArgumentException("expected a weight of 0 or more, and a rule or more to keep");
        }
        Examples search = new Examples(conditions, marks, weight, keep);
        for (int first = 0; first < conditions.size(); first++) {
            progress.done().accept((double) first / conditions.size());
            if (progress.cancelled().getAsBoolean()) {
                return Optional.empty();
            }
            search.score(List.of(first), conditions.get(first));
        }
        return Optional.of(new Result(List.copyOf(search.best), search.scored));
    }

    private void score(List<Integer> places, BitSet holds) {
        scored++;
        BitSet hit = marks.beside() ? beside(holds) : (BitSet) holds.clone();
        hit.and(marks.right());
        int hits = hit.cardinality();
        if (hits == 0) {
            return;
        }
        BitSet alarms = (BitSet) holds.clone();
        alarms.and(far);
        if (!holds.intersects(marks.wrong())) {
            offer(new Found(places, hits, marks.right().cardinality() - hits, alarms.cardinality()));
        }
        // what it could become at best: as many hits without a false alarm, by one condition more
        List<Integer> dearest = new ArrayList<>(places);
        dearest.add(0);
        if (places.size() == MOST || best.size() == keep
                && order.compare(new Found(dearest, hits, 0, 0), best.last()) >= 0) {
            return;
        }
        for (int next = places.getLast() + 1; next < conditions.size(); next++) {
            BitSet both = (BitSet) holds.clone();
            both.and(conditions.get(next));
            List<Integer> more = new ArrayList<>(places);
            more.add(next);
            score(more, both);
        }
    }

    private void offer(Found found) {
        best.add(found);
        if (best.size() > keep) {
            best.pollLast();
        }
    }

    /** The bars, and those one before and after. */
    private static BitSet beside(BitSet bars) {
        BitSet wide = (BitSet) bars.clone();
        for (int bar = bars.nextSetBit(0); bar >= 0; bar = bars.nextSetBit(bar + 1)) {
            wide.set(bar + 1);
            if (bar > 0) {
                wide.set(bar - 1);
            }
        }
        return wide;
    }
}
