package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.GiveBack;
import stativex.account.Guard;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;

/** Odds by look-ups against accounts that are walked print by print, and against published figures. */
public class OddsTest {
    private static final LocalDate MONDAY = LocalDate.of(2026, 9, 21);

    /** One print: result of the day, cost of closing, money a tick; 0: flat. */
    private record P(long x, long closing, long perTick, boolean filled) {}

    /** A random day: some trades, each a walk. */
    private static List<P> day(SplittableRandom dice) {
        List<P> prints = new ArrayList<>();
        long x = 0;
        for (int trades = dice.nextInt(4); trades > 0; trades--) {
            int contracts = 1 + dice.nextInt(3);
            for (int i = dice.nextInt(1, 30); i > 0; i--) {
                prints.add(new P(x, contracts * 3L, contracts * 2L, false));
                x += dice.nextInt(-9, 10) * contracts;
            }
            prints.add(new P(x, 0, 0, true));
        }
        return prints;
    }

    private static Guard guard(SplittableRandom dice) {
        return new Guard(dice.nextInt(3) == 0, dice.nextInt(3) == 0 ? dice.nextInt(20) : 0, dice.nextInt(3));
    }

    private static Account account(SplittableRandom dice) {
        List<Rulebook.Rule> rules = new ArrayList<>();
        if (dice.nextInt(4) > 0) {
            Rulebook.Trails trails = Rulebook.Trails.values()[dice.nextInt(3)];
            long allowance = dice.nextInt(40, 200);
            rules.add(new Rulebook.DrawdownFloor(trails, allowance,
                    trails == Rulebook.Trails.STATIC || dice.nextBoolean()
                            ? Optional.empty()
                            : Optional.of(1000 - dice.nextLong(allowance)),
                    guard(dice)));
        }
        if (dice.nextBoolean()) {
            rules.add(new Rulebook.DayLoss(dice.nextInt(20, 120), Rulebook.From.values()[dice.nextInt(2)],
                    dice.nextBoolean(), guard(dice)));
        }
        if (dice.nextInt(4) > 0) {
            rules.add(new Rulebook.ProfitTarget(dice.nextInt(30, 200)));
        }
        if (dice.nextBoolean()) {
            rules.add(new Rulebook.FewestDays(dice.nextInt(1, 6)));
        }
        if (dice.nextBoolean()) {
            rules.add(new Rulebook.Consistency(BigDecimal.valueOf(dice.nextInt(20, 100))));
        }
        OwnLimits own = OwnLimits.day(
                dice.nextInt(3) == 0
                        ? Optional.of(new Account.DayLoss(dice.nextInt(20, 120), guard(dice)))
                        : Optional.empty(),
                dice.nextInt(3) == 0 ? Optional.of((long) dice.nextInt(20, 120)) : Optional.empty());
        if (dice.nextInt(3) == 0) {
            own = own.with(new GiveBack(dice.nextInt(10, 60), dice.nextInt(10, 60), guard(dice)));
        }
        return new Account("a", "NZD", 1000, Map.of(), own, new Rulebook("rules", rules));
    }

    private static List<DayPath> paths(Account account, List<List<P>> days) {
        Paths paths = Paths.collector(account);
        for (int d = 0; d < days.size(); d++) {
            paths.day(MONDAY.plusDays(d));
            for (P p : days.get(d)) {
                paths.point(d, p.x, p.closing, p.perTick, p.filled);
            }
        }
        return paths.made();
    }

    /** One account, judged at every print, and what became of it: {@code passed 7}, {@code broken DRAWDOWN_FLOOR 3}, ... */
    private static String live(Account account, List<List<P>> days, SplitMix mix, double block, int most) {
        long balance = 1000;
        long peak = 1000;
        long closes = 1000;
        int traded = 0;
        List<Long> nets = new ArrayList<>();
        int at = -1;
        for (int n = 1; n <= most; n++) {
            at = at < 0 || mix.unit() < 1 / block ? mix.below(days.size()) : (at + 1) % days.size();
            long start = balance;
            long best = 0;
            for (Line line : lines(account, start, peak, closes, 0)) {
                if (line.guard.on() && start <= line.at + line.guard.money()) {
                    return "no room";
                }
            }
            boolean filled = false;
            long ended = Long.MIN_VALUE;
            for (P p : days.get(at)) {
                filled |= p.filled;
                long equity = start + p.x;
                peak = Math.max(peak, equity);
                best = Math.max(best, p.x);
                for (Line line : lines(account, start, peak, closes, best)) {
                    if (line.breaks && equity <= line.at) {
                        return "broken " + line.name + " " + n;
                    }
                }
                if (p.perTick == 0 && met(account, balance + p.x - 1000, p.x, nets, traded + 1)) {
                    return "passed " + n;
                }
                boolean locks = false;
                for (Line line : lines(account, start, peak, closes, best)) {
                    locks |= !line.breaks && equity <= line.at;
                    locks |= line.guard.on() && p.perTick > 0 && equity - p.closing <= line.at + line.guard.money()
                            + line.guard.ticks() * p.perTick;
                }
                locks |= account.own().dayProfit().isPresent() && p.x >= account.own().dayProfit().get();
                if (locks) {
                    ended = p.x - p.closing;
                    break;
                }
            }
            if (ended != Long.MIN_VALUE) {
                for (Line line : lines(account, start, peak, closes, best)) {
                    if (line.breaks && start + ended <= line.at) {
                        return "broken " + line.name + " " + n;
                    }
                }
                if (met(account, start + ended - 1000, ended, nets, traded + 1)) {
                    return "passed " + n;
                }
            }
            long net = ended != Long.MIN_VALUE ? ended : days.get(at).isEmpty() ? 0 : days.get(at).getLast().x;
            nets.add(net);
            traded += days.get(at).stream().anyMatch(P::filled) ? 1 : 0;
            balance += net;
            closes = Math.max(closes, balance);
        }
        return "open";
    }

    private record Line(String name, long at, Guard guard, boolean breaks) {}

    private static List<Line> lines(Account account, long start, long peak, long closes, long best) {
        List<Line> lines = new ArrayList<>();
        account.rulebook().of(Rulebook.DrawdownFloor.class).forEach(f -> {
            long from = f.trails() == Rulebook.Trails.STATIC
                    ? 1000
                    : f.trails() == Rulebook.Trails.END_OF_DAY ? closes : peak;
            lines.add(new Line("DRAWDOWN_FLOOR", Math.min(from - f.allowance(), f.lock().orElse(Long.MAX_VALUE)),
                    f.guard(), true));
        });
        account.rulebook().of(Rulebook.DayLoss.class).forEach(
                l -> lines.add(new Line("BOOK_DAY_LOSS", start - l.amount(), l.guard(), l.breaks())));
        account.own().dayLoss().ifPresent(l -> lines.add(new Line("DAY_LOSS", start - l.amount(), l.guard(), false)));
        account.own().giveBack().filter(g -> best >= g.after())
                .ifPresent(g -> lines.add(new Line("GIVE_BACK", start + best - g.fall(), g.guard(), false)));
        return lines;
    }

    private static boolean met(Account account, long net, long today, List<Long> nets, int traded) {
        long best = Math.max(today, nets.stream().mapToLong(x -> x).max().orElse(0));
        return account.rulebook().of(Rulebook.ProfitTarget.class).anyMatch(t -> net >= t.amount())
                && account.rulebook().of(Rulebook.FewestDays.class).allMatch(f -> traded >= f.days())
                && account.rulebook().of(Rulebook.Consistency.class).allMatch(c -> net <= 0
                        || (double) best / net <= c.percent().doubleValue() / 100 + 1e-12);
    }

    @Test
    public void lookUpsComeToWhatWalkingEveryPrintComesTo() {
        SplittableRandom dice = new SplittableRandom(5);
        Map<String, Integer> seen = new HashMap<>();
        for (int round = 0; round < 600; round++) {
            Account account = account(dice);
            List<List<P>> days = new ArrayList<>();
            for (int d = dice.nextInt(1, 9); d > 0; d--) {
                days.add(day(dice));
            }
            int accounts = 20;
            Odds odds = Odds.of(account, paths(account, days), new Odds.Settings(accounts, 25, 3, round, 0, 1),
                    Odds.Progress.NONE).orElseThrow();
            SplitMix master = new SplitMix(round);
            Map<String, Integer> naive = new HashMap<>();
            List<Integer> passes = new ArrayList<>();
            for (int i = 0; i < accounts; i++) {
                String fate = live(account, days, new SplitMix(master.next()), 3, 25);
                if (fate.startsWith("passed")) {
                    passes.add(Integer.parseInt(fate.substring(7)));
                }
                naive.merge(fate.startsWith("passed") ? "passed" : fate.replaceAll(" \\d+$", ""), 1, Integer::sum);
            }
            Map<String, Integer> found = new HashMap<>();
            odds.broken().forEach((line, n) -> found.put("broken " + line, n));
            put(found, "passed", (int) Math.round(odds.passed().share() * accounts));
            put(found, "no room", odds.noRoom());
            put(found, "open", odds.open());
            assertEquals(found, naive, "round " + round + ", " + account + ", " + days);
            Collections.sort(passes);
            assertEquals(odds.daysToPass().orElse(0), passes.isEmpty() ? 0 : passes.get((passes.size() + 1) / 2 - 1));
            naive.forEach((what, n) -> seen.merge(what, n, Integer::sum));
        }
        for (String what : List.of("passed", "no room", "open", "broken DRAWDOWN_FLOOR", "broken BOOK_DAY_LOSS")) {
            assertTrue(seen.getOrDefault(what, 0) > 100, what + " in " + seen);
        }
    }

    private static void put(Map<String, Integer> found, String what, int n) {
        if (n > 0) {
            found.put(what, n);
        }
    }

    /** The trial's own days are drawn anew: its percentiles are those of a second reading. */
    @Test
    public void theHonestIntervalDrawsTheDaysThemselves() {
        SplittableRandom dice = new SplittableRandom(9);
        Account account = new Account("a", "NZD", 1000, Map.of(), OwnLimits.NONE,
                new Rulebook("rules", List.of(new Rulebook.DrawdownFloor(150, Optional.empty()),
                        new Rulebook.ProfitTarget(120))));
        List<List<P>> days = new ArrayList<>();
        for (int d = 0; d < 30; d++) {
            days.add(day(dice));
        }
        Odds odds = Odds.of(account, paths(account, days), new Odds.Settings(400, 40, 5, 7, 40, 50), Odds.Progress.NONE)
                .orElseThrow();
        SplitMix master = new SplitMix(7);
        double[] shares = new double[40];
        for (int r = 0; r < 40; r++) {
            SplitMix mix = new SplitMix(master.next());
            List<List<P>> drawn = new ArrayList<>();
            int at = -1;
            for (int d = 0; d < 30; d++) {
                at = at < 0 || mix.unit() < 0.2 ? mix.below(30) : (at + 1) % 30;
                drawn.add(days.get(at));
            }
            for (int i = 0; i < 50; i++) {
                shares[r] += live(account, drawn, new SplitMix(mix.next()), 5, 40).startsWith("passed") ? 1 / 50.0 : 0;
            }
        }
        Arrays.sort(shares);
        assertEquals(odds.honest().orElseThrow().low(), shares[1], 1e-9);
        assertEquals(odds.honest().orElseThrow().high(), shares[37], 1e-9);
        assertTrue(odds.honest().orElseThrow().high() - odds.honest().orElseThrow().low() > odds.passed().high()
                - odds.passed().low(), "thirty days say less than four hundred drawn accounts seem to");
        assertThrows(IllegalArgumentException.class,
                () -> Odds.of(account, List.of(), Odds.Settings.DEFAULT, Odds.Progress.NONE));
    }

    @Test
    public void itCanBeCancelledAndSaysHowFarItIs() {
        Account account = account(new SplittableRandom(3));
        List<DayPath> days = paths(account, List.of(day(new SplittableRandom(4))));
        List<Double> done = new ArrayList<>();
        assertTrue(Odds.of(account, days, new Odds.Settings(2000, 5, 5, 1, 3, 10), new Odds.Progress(done::add,
                () -> done.size() > 2)).isEmpty());
        assertEquals(done.size(), 3);
        assertEquals(done, done.stream().sorted().toList());
    }

    /** Outputs of the reference implementation for the seed 1234567 (Vigna 2015, splitmix64.c), from memory. */
    @Test
    public void numbersAreThoseOfThePublishedGenerator() {
        SplittableRandom random = DayDraws.master(1234567);
        assertEquals(Long.toUnsignedString(random.nextLong()), "6457827717110365317");
        assertEquals(Long.toUnsignedString(random.nextLong()), "3203168211198807973");
        assertEquals(Long.toUnsignedString(random.nextLong()), "9817491932198370423");
    }

    /** Newcombe 1998 (Statistics in Medicine 17, table I, method 3), from memory: 81 of 263, 15 of 148, 0 of 20, 1 of 29. */
    @Test
    public void wilsonIntervalsAreThePublishedOnes() {
        assertEquals(rounded(Share.wilson(81, 263)), "0.2553 0.3662");
        assertEquals(rounded(Share.wilson(15, 148)), "0.0624 0.1605");
        assertEquals(rounded(Share.wilson(0, 20)), "0.0000 0.1611");
        assertEquals(rounded(Share.wilson(1, 29)), "0.0061 0.1718");
    }

    private static String rounded(Share share) {
        return String.format(java.util.Locale.ROOT, "%.4f %.4f", share.low(), share.high());
    }

    @Test
    public void percentilesAreOfTheList() {
        double[] figures = {3, 1, 2, 5, 4};
        assertEquals(Percentiles.of(figures, 50), 3.0);
        assertEquals(Percentiles.of(figures, 20), 1.0);
        assertEquals(Percentiles.of(figures, 21), 2.0);
        assertEquals(Percentiles.of(figures, 100), 5.0);
        assertEquals(Percentiles.median(new int[]{4, 1, 3, 2}), 2, "the lower middle");
    }
}
