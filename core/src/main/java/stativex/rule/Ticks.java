package stativex.rule;

import java.util.Optional;

/**
 * Whose ticks a price or a distance counts. Those of two contracts are never mixed: one contract's tick is another amount
 * than the other's, and their prices have nothing to do with each other.
 *
 * @param contract symbol
 */
record Ticks(String contract) {
    /** The contract that the strategy trades. */
    static final Ticks OWN = new Ticks("");
    /** A number as it is written counts those of what stands beside it; what is no price and no distance counts none. */
    static final Ticks ANY = new Ticks("*");

    /** Both together; empty when they are of two contracts. */
    Optional<Ticks> with(Ticks other) {
        return equals(other) || other.equals(ANY)
                ? Optional.of(this)
                : equals(ANY) ? Optional.of(other) : Optional.empty();
    }

    /** Symbol of the contract, unless it is the one that the strategy trades. */
    Optional<String> foreign() {
        return equals(OWN) || equals(ANY) ? Optional.empty() : Optional.of(contract);
    }

    /** As said in messages. */
    String words() {
        return foreign().orElse("the contract that is traded");
    }
}
