package stativex.evidence;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SplittableRandom;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import stativex.account.Account;
import stativex.account.LineKind;

/**
 * What becomes of an account whose days are drawn from those of a trial, again and again. Source: SEMANTICS, "Searches and evidence"
 * (odds); Politis, Romano 1994 (stationary bootstrap), Wilson 1927 (interval of a share).
 *
 * @param passed share of accounts that met the target first, with the interval of the drawing alone
 * @param honest the 5th and 95th percentile of that share when the trial's days themselves are drawn anew; empty where it was not asked
 *     for
 * @param broken accounts by the line that broke them; {@code noRoom} those that came so near a guarded line that nothing could be traded
 * @param open accounts of which none of this happened
 * @param daysToPass median days of those that passed; empty without any; likewise {@code daysToBreak}
 */
public record Odds(int accounts, Share passed, Optional<Share> honest, Map<LineKind, Integer> broken, int noRoom,
        int open, OptionalInt daysToPass, OptionalInt daysToBreak) {

    /**
     * @param accounts 1 or more
     * @param mostDays of one account, 1 or more
     * @param meanBlock days that follow one another on average, 1 or more
     * @param resamples of the trial's days for the honest interval, each with {@code each} accounts; 0: none
     */
    public record Settings(int accounts, int mostDays, double meanBlock, long seed, int resamples, int each) {
        /** As SEMANTICS has them. */
        public static final Settings DEFAULT = new Settings(10_000, 60, 5, 1, 200, 500);

        public Settings {
            if (accounts < 1 || mostDays < 1 || meanBlock < 1 || resamples < 0 || each < 1) {
                throw new IllegalArgumentException("expected 1 account, 1 day and blocks of 1 day or more");
            }
        }

        /** The same with another seed. */
        public Settings withSeed(long other) {
            return new Settings(accounts, mostDays, meanBlock, other, resamples, each);
        }
    }

    /** The line that broke most accounts; empty when none was broken. */
    public Optional<LineKind> breaksMost() {
        return broken.entrySet().stream().max(Map.Entry.<LineKind, Integer>comparingByValue()
                .thenComparing(entry -> -entry.getKey().ordinal())).map(Map.Entry::getKey);
    }

    /** How much has been done, and whether to go on. */
    public record Progress(DoubleConsumer done, BooleanSupplier cancelled) {
        /** Nobody looks. */
        public static final Progress NONE = new Progress(share -> {
        }, () -> false);
    }

    /**
     * Draws the days of many accounts.
     *
     * @param days of the trial, at least one, made by {@link Paths#of} for this account
     * @return empty when it was cancelled
     */
    public static Optional<Odds> of(Account account, List<DayPath> days, Settings settings, Progress progress) {
        if (days.isEmpty()) {
            throw new IllegalArgumentException("expected a trial of at least one day, found none");
        }
        DayPath[] all = days.toArray(DayPath[]::new);
        Drawing main = new Drawing(account, settings);
        double work = settings.accounts() + (double) settings.resamples() * settings.each();
        SplittableRandom master = DayDraws.master(settings.seed());
        for (int i = 0; i < settings.accounts(); i++) {
            main.account(all, new SplittableRandom(master.nextLong()));
            if (i % 512 == 0) {
                progress.done().accept(i / work);
                if (progress.cancelled().getAsBoolean()) {
                    return Optional.empty();
                }
            }
        }
        double[] shares = new double[settings.resamples()];
        SplittableRandom outer = DayDraws.master(settings.seed());
        for (int r = 0; r < shares.length; r++) {
            SplittableRandom random = new SplittableRandom(outer.nextLong());
            DayDraws draws = new DayDraws(random, all.length, settings.meanBlock());
            DayPath[] drawn = new DayPath[all.length];
            for (int d = 0; d < drawn.length; d++) {
                drawn[d] = all[draws.next()];
            }
            Drawing inner = new Drawing(account, settings);
            for (int i = 0; i < settings.each(); i++) {
                inner.account(drawn, new SplittableRandom(random.nextLong()));
            }
            shares[r] = (double) inner.daysToPass.size() / settings.each();
            progress.done().accept((settings.accounts() + (double) (r + 1) * settings.each()) / work);
            if (progress.cancelled().getAsBoolean()) {
                return Optional.empty();
            }
        }
        return Optional.of(main.odds(shares));
    }

    /** Accounts drawn one after the other. */
    private static final class Drawing {
        private final Settings settings;
        private final DayJudge judge;
        private final Map<LineKind, Integer> broken = new EnumMap<>(LineKind.class);
        private final List<Integer> daysToPass = new ArrayList<>();
        private final List<Integer> daysToBreak = new ArrayList<>();
        private int noRoom;
        private int open;

        Drawing(Account account, Settings settings) {
            this.settings = settings;
            this.judge = new DayJudge(account);
        }

        void account(DayPath[] days, SplittableRandom random) {
            DayDraws draws = new DayDraws(random, days.length, settings.meanBlock());
            judge.begins();
            for (int day = 1; day <= settings.mostDays(); day++) {
                judge.judge(days[draws.next()]);
                switch (judge.end) {
                    case PASSED -> {
                        daysToPass.add(day);
                        return;
                    }
                    case BROKEN -> {
                        daysToBreak.add(day);
                        broken.merge(judge.line, 1, Integer::sum);
                        return;
                    }
                    case NO_ROOM -> {
                        noRoom++;
                        return;
                    }
                    case WHOLE, LOCKED -> {
                        // the next day comes
                    }
                }
            }
            open++;
        }

        Odds odds(double[] shares) {
            Share passed = Share.wilson(daysToPass.size(), settings.accounts());
            Optional<Share> honest = shares.length == 0
                    ? Optional.empty()
                    : Optional.of(new Share(passed.share(), Percentiles.of(shares, 5), Percentiles.of(shares, 95)));
            return new Odds(settings.accounts(), passed, honest, Map.copyOf(broken), noRoom, open, median(daysToPass),
                    median(daysToBreak));
        }

        private static OptionalInt median(List<Integer> days) {
            return days.isEmpty()
                    ? OptionalInt.empty()
                    : OptionalInt.of(Percentiles.median(days.stream().mapToInt(Integer::intValue).toArray()));
        }
    }
}
