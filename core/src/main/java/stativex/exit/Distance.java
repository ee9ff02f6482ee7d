package stativex.exit;

import java.math.BigDecimal;
import java.util.Optional;
import stativex.market.Money;

/**
 * How far from a trade's average something stands, in one of the units that a plan knows; or the level of a study, wherever that is.
 * Source: SEMANTICS, "Exit plans".
 */
public sealed interface Distance {
    /** Whole ticks. */
    record Ticks(long ticks) implements Distance {}

    /** In the contract's price units. */
    record Price(BigDecimal price) implements Distance {}

    /** Money for one contract, ten-thousandths. */
    record PerContract(long money) implements Distance {}

    /** Money for the whole position, ten-thousandths. */
    record WholePosition(long money) implements Distance {}

    /** Percent of the average's absolute value. */
    record Percent(BigDecimal percent) implements Distance {}

    /** Times the initial stop's distance. */
    record Risks(BigDecimal times) implements Distance {}

    /** Times a study that is a distance, such as an average true range, by its text in the rule language. */
    record Times(BigDecimal times, String study) implements Distance {}

    /** Where a price of the rule language stands; a level, no distance. */
    record Level(String study) implements Distance {}

    /** What of the rule language it takes; empty if nothing. */
    default Optional<String> takes() {
        return switch (this) {
            case Times t -> Optional.of(t.study());
            case Level l -> Optional.of(l.study());
            default -> Optional.empty();
        };
    }

    /** In words: {@code 24 t}, {@code 1.5 × reach}, {@code mean.lower}. */
    default String words() {
        return switch (this) {
            case Ticks t -> (t.ticks() < 0 ? "−" + -t.ticks() : t.ticks()) + " t";
            case Price p -> p.price().toPlainString() + " in price";
            case PerContract m -> Money.text(m.money()) + " a contract";
            case WholePosition m -> Money.text(m.money()) + " in all";
            case Percent p -> p.percent().toPlainString() + " %";
            case Risks r -> r.times().toPlainString() + " R";
            case Times t -> t.times().toPlainString() + " × " + t.study();
            case Level l -> l.study();
        };
    }
}
