package stativex.market;

import static org.testng.Assert.assertEquals;

import java.math.BigInteger;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

/** Sums over contracts against whole numbers of any length. */
public class WeightedSumsTest {
    private static double mean(Tape tape, int from, int to) {
        BigInteger sum = BigInteger.ZERO;
        long contracts = 0;
        for (int print = from; print < to; print++) {
            sum = sum.add(BigInteger.valueOf(tape.price(print)).multiply(BigInteger.valueOf(tape.size(print))));
            contracts += tape.size(print);
        }
        return sum.doubleValue() / contracts;
    }

    private static double deviation(Tape tape, int from, int to) {
        BigInteger distances = BigInteger.ZERO;
        BigInteger squares = BigInteger.ZERO;
        long contracts = 0;
        for (int print = from; print < to; print++) {
            BigInteger away = BigInteger.valueOf(tape.price(print) - tape.price(from));
            BigInteger size = BigInteger.valueOf(tape.size(print));
            distances = distances.add(away.multiply(size));
            squares = squares.add(away.multiply(away).multiply(size));
            contracts += tape.size(print);
        }
        double away = distances.doubleValue() / contracts;
        return Math.sqrt(Math.max(0, squares.doubleValue() / contracts - away * away));
    }

    @Test
    public void sumsAreExactHoweverLarge() {
        for (long seed = 1; seed <= 400; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            int wild = dice.nextInt(31);
            int sizes = dice.nextInt(1, 25);
            int count = dice.nextInt(2, 200);
            TapeBuilder builder = new TapeBuilder(count);
            for (int i = 0; i < count; i++) {
                builder.add(i, dice.nextLong(-(1L << wild), 1L << wild), 1 + dice.nextInt(1 << sizes), Tape.NONE,
                        Tape.NONE);
            }
            Tape tape = builder.build();
            WeightedSums sums = new WeightedSums();
            sums.begin(tape.price(0));
            int cut = dice.nextInt(1, count);
            tape.weigh(0, cut, sums);
            long[] before = {sums.contracts(), sums.distances(), sums.squaresHigh(), sums.squaresLow()};
            for (int print = cut; print < count; print++) {
                sums.add(tape.price(print), tape.size(print));
            }
            assertEquals(sums.mean(), mean(tape, 0, count), 0, "mean, seed " + seed);
            assertEquals(sums.deviation(), deviation(tape, 0, count), 0, "deviation, seed " + seed);
            sums.sinceFrom(before[0], before[1], before[2], before[3], tape.price(cut));
            assertEquals(sums.mean(), mean(tape, cut, count), 0, "mean of the rest, seed " + seed);
            assertEquals(sums.deviation(), deviation(tape, cut, count), 0, "deviation of the rest, seed " + seed);
        }
    }
}
