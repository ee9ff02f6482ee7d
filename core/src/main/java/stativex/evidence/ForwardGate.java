package stativex.evidence;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.SplittableRandom;
import stativex.trial.Run;
import stativex.trial.TradeFacts;

/**
 * Whether a version goes on as its trial said it would, judged on days that it had not been made for: at the close of days 10, 20, 30, 60
 * and 90. Source: SEMANTICS, "Searches and evidence" (forward gate). Money in ten-thousandths.
 *
 * <p>Caveats: resamples draw whole days of the trial until as many trades are there as went forward, so sums of as many trades are
 * compared and no average is rounded. A day on which the account was broken ends it at once: nothing can follow.
 */
public final class ForwardGate {
    /** Days at whose close it is judged. */
    public static final List<Integer> DAYS = List.of(10, 20, 30, 60, 90);
    /** Days from which on it may pass. */
    static final int PASS_DAYS = 30;
    /** Trades from which on it may fail by its average; likewise to pass. */
    static final int FAIL_TRADES = 10;
    static final int PASS_TRADES = 20;

    private ForwardGate() {}

    /**
     * A whole trading day forward.
     *
     * @param nets of the trades entered on it, in the order of their entries
     * @param broke whether the account was broken on it
     */
    public record Day(LocalDate date, List<Long> nets, boolean broke) {
        public Day {
            nets = List.copyOf(nets);
        }
    }

    /** What it comes to. */
    public enum Verdict {
        NOT_YET, PASS, FAIL
    }

    /**
     * The band that the trial says so many trades lie in.
     *
     * @param fail sum of so many trades at the 1st percentile of the resamples: below it fails
     * @param pass at the 5th: at or above it passes
     * @param worthless share of the resamples that would have passed, each trade less the trial's average
     */
    public record Band(int trades, long fail, long pass, double worthless) {}

    /**
     * A close at which it was judged.
     *
     * @param day how many days by then
     * @param net of the {@code trades} by then
     * @param band empty without a trade, forward or in the trial
     */
    public record Judgement(int day, LocalDate date, int trades, long net, Optional<Band> band, Verdict verdict) {
        /** Net ÷ trades. */
        public OptionalDouble average() {
            return trades == 0 ? OptionalDouble.empty() : OptionalDouble.of((double) net / trades);
        }
    }

    /**
     * How it stands.
     *
     * @param judgements in their order, up to the one that stands for good
     * @param days that counted
     */
    public record Standing(List<Judgement> judgements, int days, Verdict verdict) {
        public Standing {
            judgements = List.copyOf(judgements);
        }

        /** Of a pass, how often a worthless version would have passed as well. */
        public OptionalDouble worthless() {
            return verdict == Verdict.PASS
                    ? judgements.getLast().band().map(band -> OptionalDouble.of(band.worthless()))
                            .orElse(OptionalDouble.empty())
                    : OptionalDouble.empty();
        }

        /** The day of the next judgement; empty when none follows. */
        public OptionalLong next() {
            return verdict == Verdict.NOT_YET
                    ? DAYS.stream().filter(day -> day > days).mapToLong(Integer::longValue).findFirst()
                    : OptionalLong.empty();
        }
    }

    /** The nets of each trading day of a trial, those without a trade included: what a band is drawn from. */
    public static List<List<Long>> days(Run run) {
        List<TradeFacts> trades = new ArrayList<>(TradeFacts.of(run));
        // in the order of entries; of one instant as they ended
        trades.sort((a, b) -> Long.compare(a.trade().entryTime(), b.trade().entryTime()));
        return run.engine().days().days().stream().map(day -> trades.stream()
                .filter(facts -> run.inputs().accountCalendar().tradingDate(facts.trade().entryTime())
                        .orElseGet(facts::tradingDay).equals(day.date()))
                .map(facts -> facts.trade().net()).toList()).toList();
    }

    /**
     * Judges.
     *
     * @param trial nets of each of its days: of the unseen range if that was opened, else of the fit range
     * @param forward whole days, in order
     */
    public static Standing judge(List<List<Long>> trial, List<Day> forward, Intervals.Settings settings) {
        List<Judgement> judgements = new ArrayList<>();
        int trades = 0;
        long net = 0;
        for (int d = 1; d <= forward.size(); d++) {
            Day day = forward.get(d - 1);
            trades += day.nets().size();
            net = Math.addExact(net, day.nets().stream().mapToLong(Long::longValue).sum());
            if (!day.broke() && !DAYS.contains(d)) {
                continue;
            }
            Optional<Band> band = trades == 0 ? Optional.empty() : band(trial, trades, settings);
            Verdict verdict = day.broke() ? Verdict.FAIL : verdict(d, trades, net, band);
            judgements.add(new Judgement(d, day.date(), trades, net, band, verdict));
            if (verdict != Verdict.NOT_YET) {
                return new Standing(judgements, d, verdict);
            }
        }
        return new Standing(judgements, forward.size(), Verdict.NOT_YET);
    }

    private static Verdict verdict(int day, int trades, long net, Optional<Band> band) {
        if (band.isEmpty()) {
            return Verdict.NOT_YET;
        }
        if (trades >= FAIL_TRADES && net < band.get().fail()) {
            return Verdict.FAIL;
        }
        return day >= PASS_DAYS && trades >= PASS_TRADES && net >= band.get().pass() && net > 0
                ? Verdict.PASS
                : Verdict.NOT_YET;
    }

    /** The band of so many trades; empty where the trial has none. */
    public static Optional<Band> band(List<List<Long>> trial, int trades, Intervals.Settings settings) {
        long[][] days = trial.stream().map(day -> day.stream().mapToLong(Long::longValue).toArray())
                .toArray(long[][]::new);
        long all = Arrays.stream(days).mapToLong(day -> Arrays.stream(day).sum()).sum();
        int count = Arrays.stream(days).mapToInt(day -> day.length).sum();
        if (count == 0) {
            return Optional.empty();
        }
        long[] sums = new long[settings.resamples()];
        SplittableRandom master = DayDraws.master(settings.seed());
        for (int r = 0; r < sums.length; r++) {
            sums[r] = sum(days, trades, new DayDraws(new SplittableRandom(master.nextLong()), days.length,
                    settings.meanBlock()));
        }
        long pass = Percentiles.of(sums, 5);
        int worthless = 0;
        for (long sum : sums) {
            // each trade less the average: sum − trades · all ÷ count, in whole numbers times count
            long shifted = Math.subtractExact(Math.multiplyExact(sum, count),
                    Math.multiplyExact((long) trades, all));
            if (shifted >= Math.multiplyExact(pass, count) && shifted > 0) {
                worthless++;
            }
        }
        return Optional.of(new Band(trades, Percentiles.of(sums, 1), pass, (double) worthless / sums.length));
    }

    /** The sum of so many trades, whole days until they are there, the last one cut. */
    private static long sum(long[][] days, int trades, DayDraws draws) {
        long sum = 0;
        int left = trades;
        while (left > 0) {
            long[] day = days[draws.next()];
            for (int t = 0; t < day.length && left > 0; t++) {
                sum += day[t];
                left--;
            }
        }
        return sum;
    }
}
