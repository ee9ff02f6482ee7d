package stativex.engine;

import java.math.BigDecimal;

/** How many contracts an entry may put at risk: the largest quantity, at most the fixed one, whose stop-out stays within some money. */
public sealed interface Sizing {
    /** @param money at most so much, ten-thousandths of the account's currency, above 0 */
    record Amount(long money) implements Sizing {
        public Amount {
            if (money <= 0) {
                throw new IllegalArgumentException("expected money at risk above 0, found none");
            }
        }
    }

    /** @param percent of the smallest distance to the lines that the line check asks, above 0 and at most 100 */
    record Percent(BigDecimal percent) implements Sizing {
        public Percent {
            if (percent.signum() <= 0 || percent.compareTo(BigDecimal.valueOf(100)) > 0) {
                throw new IllegalArgumentException("expected a percent at risk above 0 and at most 100, found "
                        + percent.toPlainString());
            }
        }

        /** Whether a cost is within that share of a distance, money both. */
        boolean holds(long cost, long distance) {
            return BigDecimal.valueOf(cost).movePointRight(2)
                    .compareTo(percent.multiply(BigDecimal.valueOf(distance))) <= 0;
        }
    }
}
