package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

/** The chance that the best is luck: on noise, on skill, against a plain twin in whole numbers, and at its edges. */
public class LuckOfTheBestTest {
    private static long[][] noise(SplittableRandom dice, int variants, int days) {
        long[][] results = new long[variants][days];
        for (long[] variant : results) {
            for (int d = 0; d < days; d++) {
                variant[d] = Math.round(dice.nextGaussian() * 1_000_000);
            }
        }
        return results;
    }

    private static double chance(long[][] results, int blocks) {
        return LuckOfTheBest.of(results, new int[results.length], blocks, Odds.Progress.NONE).orElseThrow().chance();
    }

    /** Bailey, Borwein, López de Prado, Zhu: without skill the chance is about a half; skill is seen. */
    @Test
    public void onNoiseItIsAHalfAndWithSkillNearNothing() {
        SplittableRandom dice = new SplittableRandom(41);
        double noise = 0;
        double skill = 0;
        for (int round = 0; round < 40; round++) {
            long[][] results = noise(dice.split(), 100, 750);
            noise += chance(results, LuckOfTheBest.BLOCKS) / 40;
            for (int d = 0; d < 750; d++) {
                results[17][d] += 300_000;
            }
            skill += chance(results, LuckOfTheBest.BLOCKS) / 40;
        }
        assertTrue(noise > 0.44 && noise < 0.56, "mean over noise " + noise);
        assertTrue(skill < 0.02, "mean over skill " + skill);
    }

    // ------------------------------------------------------------------ a plain twin

    private static BigDecimal ratio(long[] results, List<Integer> days) {
        BigInteger s = BigInteger.ZERO;
        BigInteger q = BigInteger.ZERO;
        for (int d : days) {
            s = s.add(BigInteger.valueOf(results[d]));
            q = q.add(BigInteger.valueOf(results[d]).pow(2));
        }
        BigInteger below = q.multiply(BigInteger.valueOf(days.size())).subtract(s.pow(2));
        return below.signum() == 0
                ? BigDecimal.ZERO
                : new BigDecimal(s.multiply(s.abs())).divide(new BigDecimal(below), new MathContext(120));
    }

    private static double twin(long[][] results, int[] trades, int blocks) {
        int length = results[0].length / blocks;
        int out = results[0].length % blocks;
        int lower = 0;
        int choices = 0;
        for (int bits = 0; bits < 1 << blocks; bits++) {
            if (Integer.bitCount(bits) != blocks / 2) {
                continue;
            }
            List<Integer> in = new ArrayList<>();
            List<Integer> rest = new ArrayList<>();
            for (int d = out; d < results[0].length; d++) {
                ((bits >> (d - out) / length & 1) == 1 ? in : rest).add(d);
            }
            int best = 0;
            for (int v = 1; v < results.length; v++) {
                int order = ratio(results[v], in).compareTo(ratio(results[best], in));
                if (order > 0 || order == 0 && trades[v] > trades[best]) {
                    best = v;
                }
            }
            int below = 0;
            int alike = 0;
            for (long[] variant : results) {
                int order = ratio(variant, rest).compareTo(ratio(results[best], rest));
                below += order < 0 ? 1 : 0;
                alike += order == 0 ? 1 : 0;
            }
            double rank = below + (alike + 1) / 2.0;
            lower += rank / (results.length + 1) <= 0.5 ? 1 : 0;
            choices++;
        }
        return (double) lower / choices;
    }

    @Test
    public void aPlainTwinComesToTheSame() {
        SplittableRandom dice = new SplittableRandom(11);
        for (int round = 0; round < 150; round++) {
            int variants = dice.nextInt(2, 9);
            int blocks = 2 * dice.nextInt(1, 4);
            int days = blocks * dice.nextInt(5, 8) + dice.nextInt(0, blocks);
            // few values: ties, and variants without any deviation
            int values = dice.nextInt(1, 4);
            long scale = dice.nextBoolean() ? 1 : 3_000_000_000L;
            long[][] results = new long[variants][days];
            int[] trades = new int[variants];
            for (int v = 0; v < variants; v++) {
                trades[v] = dice.nextInt(0, 3);
                long constant = dice.nextInt(-2, 3);
                boolean flat = dice.nextInt(4) == 0;
                for (int d = 0; d < days; d++) {
                    results[v][d] = scale * (flat ? constant : dice.nextInt(-values, values + 1));
                }
            }
            assertEquals(LuckOfTheBest.of(results, trades, blocks, Odds.Progress.NONE).orElseThrow().chance(),
                    twin(results, trades, blocks), "round " + round);
        }
    }

    @Test
    public void whatIsTooLittleIsAbsent() {
        assertEquals(LuckOfTheBest.of(new long[1][80], new int[1], 16, Odds.Progress.NONE), Optional.empty());
        assertEquals(LuckOfTheBest.of(new long[3][79], new int[3], 16, Odds.Progress.NONE), Optional.empty(),
                "below five days a block");
        LuckOfTheBest alike = LuckOfTheBest.of(new long[3][85], new int[3], 16, Odds.Progress.NONE).orElseThrow();
        assertEquals(alike.days(), 5);
        assertEquals(alike.leftOut(), 5);
        assertEquals(alike.choices(), 12_870);
        assertEquals(alike.chance(), 1.0, "all alike: the mean rank is the middle one");
        assertEquals(alike.withoutSkill(), 4 / 6.0);
        expectThrows(IllegalArgumentException.class,
                () -> LuckOfTheBest.of(new long[3][85], new int[3], 7, Odds.Progress.NONE));
    }
}
