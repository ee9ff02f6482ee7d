package stativex.rule;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.study.Unit;

/**
 * Why a condition was what it was at one bar: its words, its truth, the numbers it compared, by how much it missed, and
 * the conditions it is made of.
 *
 * @param terms values it looked at, left and right first
 * @param missed by how much it did not hold; empty if it held, was absent, or no number says so
 * @param bar the bar at which it held or came nearest, where it looks at several
 * @param note in words, such as why a value is absent; empty if there is nothing to say
 */
public record Explanation(String text, int truth, List<Term> terms, Optional<Amount> missed, OptionalInt bar,
        String note, List<Explanation> parts) {

    /**
     * A number with what it means; NaN is absent.
     *
     * @param contract whose prices or ticks it counts; empty: the one that is traded
     */
    public record Amount(double value, Unit unit, Optional<String> contract) {}

    /** A value under the words it was written with. */
    public record Term(String text, Amount amount) {}

    public Explanation {
        terms = List.copyOf(terms);
        parts = List.copyOf(parts);
    }

    static Explanation of(String text, int truth, List<Explanation> parts) {
        return new Explanation(text, truth, List.of(), Optional.empty(), OptionalInt.empty(), "", parts);
    }

    Explanation at(int where) {
        return new Explanation(text, truth, terms, missed, OptionalInt.of(where), note, parts);
    }

    Explanation as(String words, int judged) {
        return new Explanation(words, judged, terms, judged == Truth.FALSE ? missed : Optional.empty(), bar, note,
                parts);
    }

    Explanation noting(String words) {
        return new Explanation(text, truth, terms, missed, bar, words, parts);
    }

    /** Conditions at the ends of the tree that failed or were absent: what "here should be one" names. */
    public List<Explanation> failed() {
        if (truth == Truth.TRUE) {
            return List.of();
        }
        List<Explanation> failed = parts.stream().flatMap(part -> part.failed().stream()).toList();
        return failed.isEmpty() ? List.of(this) : failed;
    }
}
