package stativex.search;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import stativex.evidence.Odds;

/** Rules from examples against a plain twin that looks at every conjunction, bar by bar, written from SEMANTICS. */
public class ExamplesTest {
    private record Line(List<Integer> conditions, int hits, int misses, int alarms) {}

    private static List<Line> twin(boolean[][] truths, boolean[] right, boolean[] wrong, int from, boolean beside,
            int tenths) {
        List<Line> all = new ArrayList<>();
        int n = truths.length;
        for (int a = 0; a < n; a++) {
            for (int b = a; b < n; b++) {
                for (int c = b; c < n; c++) {
                    if (a == b && b != c) {
                        // one, two (a, b = c) or three of them, each once
                        continue;
                    }
                    List<Integer> of = List.of(a, b, c).stream().distinct().toList();
                    boolean[] holds = new boolean[right.length];
                    boolean never = false;
                    for (int bar = 0; bar < holds.length; bar++) {
                        holds[bar] = truths[a][bar] && truths[b][bar] && truths[c][bar];
                        never |= holds[bar] && wrong[bar];
                    }
                    int hits = 0;
                    int marked = 0;
                    int alarms = 0;
                    for (int bar = 0; bar < holds.length; bar++) {
                        if (right[bar]) {
                            marked++;
                            hits += around(holds, bar, beside) ? 1 : 0;
                        }
                        alarms += bar >= from && holds[bar] && !around(right, bar, beside) ? 1 : 0;
                    }
                    if (hits > 0 && !never) {
                        all.add(new Line(of, hits, marked - hits, alarms));
                    }
                }
            }
        }
        all.sort(Comparator.comparingInt((Line l) -> -(10 * l.hits() - tenths * l.alarms()))
                .thenComparingInt(l -> l.conditions().size()).thenComparingInt(Line::alarms)
                .thenComparing(l -> l.conditions().get(0))
                .thenComparing(l -> l.conditions().size() > 1 ? l.conditions().get(1) : 0)
                .thenComparing(l -> l.conditions().size() > 2 ? l.conditions().get(2) : 0));
        return all;
    }

    private static boolean around(boolean[] of, int bar, boolean beside) {
        return of[bar] || beside && (bar > 0 && of[bar - 1] || bar + 1 < of.length && of[bar + 1]);
    }

    private static BitSet bits(boolean[] of, int from) {
        BitSet bits = new BitSet();
        for (int bar = from; bar < of.length; bar++) {
            bits.set(bar, of[bar]);
        }
        return bits;
    }

    @Test
    public void equalsATwinThatLooksAtEveryConjunction() {
        Random random = new Random(14);
        long pruned = 0;
        for (int i = 0; i < 300; i++) {
            int bars = 20 + random.nextInt(150);
            int from = random.nextInt(8);
            boolean[][] truths = new boolean[2 + random.nextInt(13)][bars];
            int often = 2 + random.nextInt(5);
            for (boolean[] truth : truths) {
                for (int bar = from; bar < bars; bar++) {
                    truth[bar] = random.nextInt(often) != 0;
                }
            }
            boolean[] right = new boolean[bars];
            boolean[] wrong = new boolean[bars];
            for (int m = 0; m < 1 + random.nextInt(6); m++) {
                right[from + random.nextInt(bars - from)] = true;
            }
            for (int m = random.nextInt(3); m > 0; m--) {
                int bar = from + random.nextInt(bars - from);
                wrong[bar] = !right[bar];
            }
            boolean beside = random.nextBoolean();
            int tenths = random.nextInt(6);
            Examples.Result found = Examples.search(
                    java.util.Arrays.stream(truths).map(truth -> bits(truth, 0)).toList(),
                    new Examples.Marks(bits(right, 0), bits(wrong, 0), from, bars, beside),
                    BigDecimal.valueOf(tenths, 1), 7, Odds.Progress.NONE).orElseThrow();
            List<Line> all = twin(truths, right, wrong, from, beside, tenths);
            assertEquals(found.best().stream().map(f -> new Line(f.conditions(), f.hits(), f.misses(),
                    f.falseAlarms())).toList(), all.subList(0, Math.min(7, all.size())), "case " + i);
            long n = truths.length;
            long every = n + n * (n - 1) / 2 + n * (n - 1) * (n - 2) / 6;
            assertTrue(found.scored() <= every);
            pruned += every - found.scored();
        }
        assertTrue(pruned > 1000, "what cannot be among the best is not looked at: " + pruned);
    }

    @Test
    public void marksAreOneOrTheOther() {
        BitSet one = new BitSet();
        one.set(3);
        assertThrows(IllegalArgumentException.class, () -> new Examples.Marks(one, one, 0, 9, false));
        assertThrows(IllegalArgumentException.class, () -> new Examples.Marks(new BitSet(), one, 0, 9, false));
    }
}
