package stativex.demo;

import java.util.SplittableRandom;

/**
 * Seeded random numbers that are the same on every machine: SplittableRandom (SplitMix64, Steele, Lea and Flood 2014)
 * for the bits, StrictMath for the rest, Marsaglia's polar method for normal values.
 */
final class Chance {
    private final SplittableRandom bits;
    private double spare = Double.NaN;

    Chance(long seed) {
        bits = new SplittableRandom(seed);
    }

    /** Uniform in (0, 1]. */
    double uniform() {
        return ((bits.nextLong() >>> 11) + 1) * 0x1.0p-53;
    }

    boolean chance(double probability) {
        return uniform() <= probability;
    }

    /** Exponential with the given mean. */
    double exponential(double mean) {
        return -mean * StrictMath.log(uniform());
    }

    /** Standard normal. */
    double normal() {
        if (!Double.isNaN(spare)) {
            double value = spare;
            spare = Double.NaN;
            return value;
        }
        while (true) {
            double u = 2 * uniform() - 1;
            double v = 2 * uniform() - 1;
            double s = u * u + v * v;
            if (s > 0 && s < 1) {
                double factor = StrictMath.sqrt(-2 * StrictMath.log(s) / s);
                spare = v * factor;
                return u * factor;
            }
        }
    }
}
