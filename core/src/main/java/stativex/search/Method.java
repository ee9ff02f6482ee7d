package stativex.search;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.LongStream;

/** How the variants of a search are chosen. Source: SEMANTICS, "Searches and evidence" (search methods). */
public sealed interface Method {
    /** Of random search and halving the missing neighbours of so many of the best are evaluated at last. */
    int BEST = 20;

    /** Every variant, in the order of the grid. */
    record Grid() implements Method {}

    /**
     * Drawn ones, none twice, numbered in the order in which they were drawn.
     *
     * @param variants 1 or more, at most those of the grid
     */
    record Random(long variants, long seed) implements Method {}

    /** Every variant over few days, the best third over three times as many, and so on. */
    record Halving() implements Method {}

    /** The grid numbers that are tried first, in the order of their numbers. */
    static LongStream first(Method method, Space space) {
        return switch (method) {
            case Grid ignored -> LongStream.range(0, space.count());
            case Halving ignored -> LongStream.range(0, space.count());
            case Random random -> drawn(space.count(), random).stream().mapToLong(n -> n);
        };
    }

    private static List<Long> drawn(long count, Random random) {
        if (random.variants() < 1 || random.variants() > count) {
            throw new IllegalArgumentException("expected 1 to " + count + " variants, found " + random.variants());
        }
        SplittableRandom dice = new SplittableRandom(random.seed());
        Set<Long> taken = new HashSet<>();
        List<Long> drawn = new ArrayList<>();
        while (drawn.size() < random.variants()) {
            long number = (long) Math.floor((dice.nextLong() >>> 11) * 0x1.0p-53 * count);
            if (taken.add(number)) {
                drawn.add(number);
            }
        }
        return drawn;
    }

    /** The largest R of halving for which ⌈days ÷ 3^R⌉ is 20 or more; as a third is rounded up, a variant is always left. */
    static int rounds(int days) {
        int rounds = 0;
        long power = 3;
        while (Math.ceilDiv(days, power) >= 20) {
            rounds++;
            power *= 3;
        }
        return rounds;
    }

    /** Days of round r of halving, counted down to 0. */
    static int days(int all, int round) {
        return (int) Math.ceilDiv(all, (long) Math.pow(3, round));
    }

    /** Least number of trades in a round of so many days: in proportion, rounded up. */
    static int least(int trades, int days, int all) {
        return (int) Math.ceilDiv((long) trades * days, all);
    }
}
