package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.Random;
import org.testng.annotations.Test;

/** The forward gate against a plain twin written from SEMANTICS, and by hand. */
public class ForwardGateTest {
    private static final Intervals.Settings FEW = new Intervals.Settings(200, 5, 7);

    private static List<Long> drawn(List<List<Long>> trial, int n, Intervals.Settings how, int r) {
        SplitMix master = new SplitMix(how.seed());
        long seed = 0;
        for (int i = 0; i <= r; i++) {
            seed = master.next();
        }
        SplitMix random = new SplitMix(seed);
        List<Long> nets = new ArrayList<>();
        int day = (int) Math.floor(random.unit() * trial.size());
        while (true) {
            for (long net : trial.get(day)) {
                if (nets.size() == n) {
                    return nets;
                }
                nets.add(net);
            }
            if (nets.size() == n) {
                return nets;
            }
            day = random.unit() < 1 / how.meanBlock()
                    ? (int) Math.floor(random.unit() * trial.size())
                    : (day + 1) % trial.size();
        }
    }

    private static String twin(List<List<Long>> trial, List<ForwardGate.Day> forward, Intervals.Settings how) {
        String said = "";
        List<Long> nets = new ArrayList<>();
        for (int d = 1; d <= forward.size(); d++) {
            nets.addAll(forward.get(d - 1).nets());
            boolean broke = forward.get(d - 1).broke();
            if (!broke && d != 10 && d != 20 && d != 30 && d != 60 && d != 90) {
                continue;
            }
            int n = nets.size();
            double average = nets.stream().mapToDouble(v -> v).sum() / n;
            List<Double> averages = new ArrayList<>();
            double all = trial.stream().flatMap(List::stream).mapToDouble(v -> v).average().orElse(Double.NaN);
            String verdict = "NOT_YET";
            if (n > 0 && !Double.isNaN(all)) {
                for (int r = 0; r < how.resamples(); r++) {
                    averages.add(drawn(trial, n, how, r).stream().mapToDouble(v -> v).sum() / n);
                }
                List<Double> sorted = new ArrayList<>(averages);
                Collections.sort(sorted);
                double first = sorted.get((int) Math.ceil(how.resamples() / 100.0) - 1);
                double fifth = sorted.get((int) Math.ceil(5 * how.resamples() / 100.0) - 1);
                if (n >= 10 && average < first) {
                    verdict = "FAIL";
                } else if (d >= 30 && n >= 20 && average >= fifth && average > 0) {
                    verdict = "PASS " + averages.stream().filter(a -> a - all >= fifth && a - all > 0).count();
                }
            }
            if (broke) {
                verdict = "FAIL";
            }
            said += d + " " + n + " " + verdict + "; ";
            if (!verdict.equals("NOT_YET")) {
                break;
            }
        }
        return said;
    }

    private static String said(ForwardGate.Standing standing, int resamples) {
        String said = "";
        for (ForwardGate.Judgement one : standing.judgements()) {
            said += one.day() + " " + one.trades() + " " + one.verdict() + (one.verdict() == ForwardGate.Verdict.PASS
                    ? " " + Math.round(one.band().orElseThrow().worthless() * resamples)
                    : "") + "; ";
        }
        return said;
    }

    private static List<Long> day(Random random, int most, int drift) {
        List<Long> nets = new ArrayList<>();
        for (int t = random.nextInt(most + 1); t > 0; t--) {
            // odd sums, so that no average lies at another's by chance of rounding
            nets.add(10_000L * (random.nextInt(401) - 200 + drift) + random.nextInt(9));
        }
        return nets;
    }

    @Test
    public void equalsItsTwin() {
        Random random = new Random(20261201);
        int[] seen = new int[3];
        for (int i = 0; i < 300; i++) {
            int drift = random.nextInt(60) - 10;
            List<List<Long>> trial = new ArrayList<>();
            for (int d = 1 + random.nextInt(40); d > 0; d--) {
                trial.add(day(random, 3, drift));
            }
            List<ForwardGate.Day> forward = new ArrayList<>();
            int later = drift - random.nextInt(60) + 20;
            for (int d = random.nextInt(95); d > 0; d--) {
                forward.add(new ForwardGate.Day(LocalDate.EPOCH.plusDays(forward.size()), day(random, 2, later),
                        random.nextInt(400) == 0));
            }
            ForwardGate.Standing standing = ForwardGate.judge(trial, forward, FEW);
            assertEquals(said(standing, FEW.resamples()), twin(trial, forward, FEW), "case " + i);
            seen[standing.verdict().ordinal()]++;
        }
        assertTrue(seen[0] > 40 && seen[1] > 40 && seen[2] > 40, "each is met: " + seen[0] + " " + seen[1] + " "
                + seen[2]);
    }

    private static List<ForwardGate.Day> days(int count, long net, int broke) {
        List<ForwardGate.Day> days = new ArrayList<>();
        for (int d = 1; d <= count; d++) {
            days.add(new ForwardGate.Day(LocalDate.EPOCH.plusDays(d), List.of(net), d == broke));
        }
        return days;
    }

    @Test
    public void byHand() {
        List<List<Long>> trial = List.of(List.of(100L, -50L), List.of(), List.of(40L));
        ForwardGate.Standing none = ForwardGate.judge(trial, days(9, 50, 0), FEW);
        assertEquals(none.verdict(), ForwardGate.Verdict.NOT_YET);
        assertEquals(none.next(), OptionalLong.of(10));
        assertEquals(none.worthless(), OptionalDouble.empty());
        ForwardGate.Standing passed = ForwardGate.judge(trial, days(95, 50, 0), FEW);
        assertEquals(passed.days(), 30, "a pass stands");
        assertEquals(passed.judgements().size(), 3);
        assertEquals(passed.verdict(), ForwardGate.Verdict.PASS);
        assertEquals(passed.judgements().getLast().average(), OptionalDouble.of(50));
        assertTrue(passed.worthless().getAsDouble() < 0.6, "a worthless one passes more seldom");
        assertEquals(ForwardGate.judge(trial, days(95, -50, 0), FEW).days(), 10, "worse than anything drawn");
        assertEquals(ForwardGate.judge(trial, days(95, 50, 4), FEW).days(), 4, "a broken account ends it at once");
        assertEquals(ForwardGate.judge(List.of(List.of()), days(95, 50, 0), FEW).verdict(),
                ForwardGate.Verdict.NOT_YET, "a trial without trades says nothing");
        // a band of equal trades has no width: as good as it passes, a little worse fails
        List<List<Long>> equal = List.of(List.of(10L));
        assertEquals(ForwardGate.band(equal, 20, FEW), Optional.of(new ForwardGate.Band(20, 200, 200, 0)));
        assertEquals(ForwardGate.judge(equal, days(30, 10, 0), FEW).verdict(), ForwardGate.Verdict.PASS);
        assertEquals(ForwardGate.judge(equal, days(30, 9, 0), FEW).days(), 10);
        List<ForwardGate.Day> seldom = new ArrayList<>(days(30, 10, 0));
        seldom.replaceAll(d -> d.date().toEpochDay() > 19
                ? new ForwardGate.Day(d.date(), List.of(), false)
                : d);
        ForwardGate.Standing few = ForwardGate.judge(equal, seldom, FEW);
        assertEquals(few.verdict() + " " + few.judgements().getLast().trades(), "NOT_YET 19", "twenty trades to pass");
        assertEquals(ForwardGate.judge(List.of(List.of(-10L)), days(90, -10, 0), FEW).verdict(),
                ForwardGate.Verdict.NOT_YET, "what does not gain never passes");
    }
}
