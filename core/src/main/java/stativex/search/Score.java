package stativex.search;

import stativex.market.Money;

/** What variants are ranked by. Source: SEMANTICS, "Searches and evidence". */
public enum Score {
    NET("net"), NET_PER_TRADE("net per trade"), PROFIT_FACTOR("profit factor"), NET_OVER_DRAWDOWN(
            "net over drawdown"), EXPECTANCY_R("expectancy in R");

    /** A score that is absent: worse than every number. */
    public static final double ABSENT = Double.NEGATIVE_INFINITY;
    /** Without losses, or without a drawdown at a gain: above every number, shown as none. */
    public static final double NONE = Double.POSITIVE_INFINITY;

    private final String word;

    Score(String word) {
        this.word = word;
    }

    /** As documents write it. */
    public String word() {
        return word;
    }

    /**
     * The score of a variant: money in units, ratios as they are.
     *
     * @param least trades below which there is none
     * @return {@link #ABSENT} or {@link #NONE} where there is no number
     */
    public double of(Tried tried, int least) {
        if (tried.trades() < least) {
            return ABSENT;
        }
        return switch (this) {
            case NET -> (double) tried.net() / Money.UNIT;
            case NET_PER_TRADE -> tried.trades() == 0 ? ABSENT : (double) tried.net() / tried.trades() / Money.UNIT;
            case PROFIT_FACTOR -> tried.profitFactor().isPresent()
                    ? tried.profitFactor().getAsDouble()
                    : tried.trades() == 0 ? ABSENT : NONE;
            case NET_OVER_DRAWDOWN -> tried.deepestDrawdown() > 0
                    ? (double) tried.net() / tried.deepestDrawdown()
                    : tried.net() > 0 ? NONE : ABSENT;
            case EXPECTANCY_R -> tried.expectancyR().orElse(ABSENT);
        };
    }
}
