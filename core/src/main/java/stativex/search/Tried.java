package stativex.search;

import java.util.Arrays;
import java.util.OptionalDouble;
import stativex.engine.DayBook;
import stativex.evidence.DayStatistics;
import stativex.trial.Run;
import stativex.trial.Summary;

/**
 * What a search keeps of a variant that was tried. Money in ten-thousandths.
 *
 * @param days results of the days that were evaluated, zeros included
 * @param hasStop whether every side that it has has a stop
 */
public record Tried(int trades, long net, OptionalDouble profitFactor, long deepestDrawdown, OptionalDouble expectancyR,
        long[] days, boolean hasStop) {
    public Tried {
        days = days.clone();
    }

    @Override
    public long[] days() {
        return days.clone();
    }

    /** Of a finished run. */
    public static Tried of(Run run) {
        Summary s = Summary.of(run);
        boolean stops = run.inputs().strategies().stream()
                .allMatch(strategy -> (strategy.sides().longSide().isEmpty()
                        || strategy.plan().longTerms().stop().isPresent())
                        && (strategy.sides().shortSide().isEmpty()
                                || strategy.plan().shortTerms().stop().isPresent()));
        return new Tried(s.trades(), s.net(), s.profitFactor(), s.deepestDrawdown(), s.expectancyR(),
                s.days().stream().mapToLong(DayBook.Day::result).toArray(), stops);
    }

    /** The Sharpe ratio of a day; empty with fewer than two days or without deviation. */
    public OptionalDouble sharpe() {
        return DayStatistics.of(days).sharpe();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Tried t && trades == t.trades && net == t.net && profitFactor.equals(t.profitFactor)
                && deepestDrawdown == t.deepestDrawdown && expectancyR.equals(t.expectancyR)
                && Arrays.equals(days, t.days) && hasStop == t.hasStop;
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(days) * 31 + trades;
    }
}
