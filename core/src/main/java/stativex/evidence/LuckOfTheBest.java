package stativex.evidence;

import java.math.BigInteger;
import java.util.Optional;

/**
 * The chance that the best of a search is luck: for every choice of half of the blocks of days, the variant that is best in them is
 * ranked in the other half. Source: SEMANTICS, "Searches and evidence"; Bailey, Borwein, López de Prado, Zhu, "The probability of
 * backtest overfitting", Journal of Computational Finance 20 (2017). Ratios are compared exactly: by doubles where their error allows
 * it, else in whole numbers.
 *
 * @param chance share of choices in which the best ranks in the lower half of the rest
 * @param withoutSkill what it would be without any skill
 * @param variants that were compared; {@code choices} of blocks
 * @param days of a block; {@code leftOut} at the start
 */
public record LuckOfTheBest(double chance, double withoutSkill, int variants, int choices, int days, int leftOut) {
    /** Blocks where nothing else is asked for. */
    public static final int BLOCKS = 16;
    /** A block has at least so many days. */
    private static final int FEWEST_DAYS = 5;

    /**
     * Works it out.
     *
     * @param results of every variant by day, money; all of one length
     * @param trades of every variant in the fit range
     * @param blocks an even number, 2 to 20
     * @return empty with fewer than two variants or fewer than five days a block, or when it was cancelled
     */
    public static Optional<LuckOfTheBest> of(long[][] results, int[] trades, int blocks, Odds.Progress progress) {
        if (blocks < 2 || blocks > 20 || blocks % 2 != 0) {
            throw new IllegalArgumentException("expected an even number of 2 to 20 blocks, found " + blocks);
        }
        int variants = results.length;
        int length = variants == 0 ? 0 : results[0].length / blocks;
        if (variants < 2 || length < FEWEST_DAYS) {
            return Optional.empty();
        }
        int leftOut = results[0].length - length * blocks;
        Halves halves = new Halves(results, trades, blocks, length, leftOut);
        int choices = 0;
        int lower = 0;
        int all = choices(blocks);
        for (int chosen = (1 << blocks / 2) - 1; chosen < 1 << blocks; chosen = next(chosen)) {
            lower += halves.lower(chosen) ? 1 : 0;
            choices++;
            if (choices % 64 == 0) {
                progress.done().accept((double) choices / all);
                if (progress.cancelled().getAsBoolean()) {
                    return Optional.empty();
                }
            }
        }
        return Optional.of(new LuckOfTheBest((double) lower / choices,
                variants % 2 == 0 ? 0.5 : (variants + 1) / (2.0 * variants), variants, choices, length, leftOut));
    }

    private static int choices(int blocks) {
        long choices = 1;
        for (int i = 1; i <= blocks / 2; i++) {
            choices = choices * (blocks - blocks / 2 + i) / i;
        }
        return Math.toIntExact(choices);
    }

    /** The next larger number with as many bits (Gosper). */
    private static int next(int bits) {
        int lowest = bits & -bits;
        int ripple = bits + lowest;
        return (ripple ^ bits) / lowest >>> 2 | ripple;
    }

    /** Sums of every variant by block, and ratios of any choice of them. */
    private static final class Halves {
        /** 2⁻⁴⁸: more than what summing up to twenty rounded squares and one product can be off by, relative to their sizes. */
        private static final double ERROR = 0x1.0p-48;

        private final long[][] sums;
        private final double[][] squares;
        private final BigInteger[][] exact;
        private final int[] trades;
        private final int blocks;
        private final long days;
        /** S·|S| ÷ spread of every variant, as near as a double comes, and how far off that may be. */
        private final double[] key;
        private final double[] error;

        Halves(long[][] results, int[] trades, int blocks, int length, int leftOut) {
            this.trades = trades;
            this.blocks = blocks;
            this.days = (long) length * (blocks / 2);
            int variants = results.length;
            sums = new long[variants][blocks];
            squares = new double[variants][blocks];
            exact = new BigInteger[variants][blocks];
            key = new double[variants];
            error = new double[variants];
            Sums sum = new Sums();
            for (int v = 0; v < variants; v++) {
                for (int b = 0; b < blocks; b++) {
                    sum.clear();
                    for (int d = 0; d < length; d++) {
                        sum.add(results[v][leftOut + b * length + d]);
                    }
                    sums[v][b] = sum.sum();
                    exact[v][b] = sum.squares();
                    squares[v][b] = exact[v][b].doubleValue();
                }
            }
        }

        /** Whether the best of the chosen blocks ranks in the lower half of the others. */
        boolean lower(int chosen) {
            keys(chosen);
            int best = 0;
            for (int v = 1; v < key.length; v++) {
                int order = compare(v, best, chosen);
                if (order > 0 || order == 0 && trades[v] > trades[best]) {
                    best = v;
                }
            }
            int others = ~chosen & (1 << blocks) - 1;
            keys(others);
            int less = 0;
            int equal = 0;
            for (int v = 0; v < key.length; v++) {
                int order = v == best ? 0 : compare(v, best, others);
                less += order < 0 ? 1 : 0;
                equal += order == 0 ? 1 : 0;
            }
            // twice the mean rank against twice half of N + 1
            return 2 * less + equal + 1 <= key.length + 1;
        }

        private void keys(int chosen) {
            for (int v = 0; v < key.length; v++) {
                long[] s = sums[v];
                double[] q = squares[v];
                long sum = 0;
                double square = 0;
                for (int rest = chosen; rest != 0; rest &= rest - 1) {
                    int b = Integer.numberOfTrailingZeros(rest);
                    sum += s[b];
                    square += q[b];
                }
                double product = (double) sum * sum;
                double spread = days * square - product;
                double off = (days * square + product) * ERROR;
                if (spread > 2 * off) {
                    key[v] = Math.signum((double) sum) * product / spread;
                    error[v] = Math.abs(key[v]) * (2 * off / spread + ERROR);
                } else {
                    // hardly any deviation: only whole numbers tell
                    key[v] = 0;
                    error[v] = Double.POSITIVE_INFINITY;
                }
            }
        }

        /** Compares two variants over some blocks. */
        private int compare(int a, int b, int chosen) {
            double apart = key[a] - key[b];
            return Math.abs(apart) > error[a] + error[b] ? (apart > 0 ? 1 : -1) : exactly(a, b, chosen);
        }

        private int exactly(int a, int b, int chosen) {
            BigInteger[] one = fraction(a, chosen);
            BigInteger[] other = fraction(b, chosen);
            return one[0].multiply(other[1]).compareTo(other[0].multiply(one[1]));
        }

        /** S·|S| and n Σx² − S²; 0 and 1 without deviation. */
        private BigInteger[] fraction(int v, int chosen) {
            long sum = 0;
            BigInteger square = BigInteger.ZERO;
            for (int rest = chosen; rest != 0; rest &= rest - 1) {
                int b = Integer.numberOfTrailingZeros(rest);
                sum += sums[v][b];
                square = square.add(exact[v][b]);
            }
            BigInteger s = BigInteger.valueOf(sum);
            BigInteger spread = square.multiply(BigInteger.valueOf(days)).subtract(s.multiply(s));
            return spread.signum() == 0
                    ? new BigInteger[]{BigInteger.ZERO, BigInteger.ONE}
                    : new BigInteger[]{s.multiply(s.abs()), spread};
        }
    }
}
