package stativex.desk.limits;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import stativex.account.Account;
import stativex.engine.Strategy;
import stativex.evidence.BookReading;
import stativex.evidence.DayPath;
import stativex.evidence.EquityCurve;
import stativex.evidence.FreeTrial;
import stativex.evidence.InterlockPrice;
import stativex.evidence.Odds;
import stativex.evidence.Paths;
import stativex.evidence.Share;
import stativex.market.TapeTime;
import stativex.trial.Inputs;
import stativex.trial.PastTrades;
import stativex.trial.Run;

/**
 * Holds a strategy's past days to an account: what its lines and book would have said, the odds, and the chance by size. Trials are kept
 * as long as the strategy stays. Used by one thread.
 */
final class PastDays {
    private static final long PIECE = 300 * TapeTime.SECOND;
    /** Times the contracts that are tried. */
    private static final int SIZES = 5;

    private final Inputs inputs;
    private Optional<Strategy> strategy = Optional.empty();
    private final Map<Integer, Run> runs = new HashMap<>();

    /**
     * What is known so far.
     *
     * @param sizes chance to pass by times the contracts
     * @param prices what each interlock saved or cost with the account as it is
     * @param busy what is still being worked, in words; empty: nothing
     */
    record Known(BookReading reading, List<EquityCurve.Day> curve, Optional<Odds> odds, Map<Integer, Share> sizes,
            Optional<List<InterlockPrice>> prices, String busy) {
        private Known with(Map<Integer, Share> bySize, Optional<List<InterlockPrice>> found, String still) {
            return new Known(reading, curve, odds, Map.copyOf(bySize), found, still);
        }
    }

    /** @param inputs tape, contract and terms; account and strategies of theirs do not count */
    PastDays(Inputs inputs) {
        this.inputs = inputs;
    }

    /**
     * Works from the quickest to the slowest.
     *
     * @param told of each state, the last one whole
     */
    void work(Strategy of, Account account, Odds.Settings settings, Consumer<Known> told, BooleanSupplier stop) {
        if (!strategy.equals(Optional.of(of))) {
            runs.clear();
            strategy = Optional.of(of);
        }
        BookReading reading = BookReading.of(run(account, 1), account);
        List<EquityCurve.Day> curve = EquityCurve.of(run(account, 1), PIECE);
        told.accept(new Known(reading, curve, Optional.empty(), Map.of(), Optional.empty(), "drawing accounts …"));
        Map<Integer, Share> sizes = new TreeMap<>();
        Optional<Odds> odds = odds(account, 1, settings, stop,
                share -> told.accept(new Known(reading, curve, Optional.empty(), Map.of(), Optional.empty(),
                        "drawing accounts: " + Math.round(100 * share) + " %")));
        if (odds.isEmpty()) {
            return;
        }
        sizes.put(1, odds.get().passed());
        Known drawn = new Known(reading, curve, odds, Map.of(), Optional.empty(), "");
        told.accept(drawn.with(sizes, Optional.empty(), "following declined signals …"));
        Optional<List<InterlockPrice>> prices = InterlockPrice.of(Run.trial(inputs(account)), trades(account), stop);
        Odds.Settings quick = new Odds.Settings(2000, settings.mostDays(), settings.meanBlock(), settings.seed(), 0, 1);
        for (int size = 2; size <= SIZES && !stop.getAsBoolean(); size++) {
            told.accept(drawn.with(sizes, prices, "trying " + size + " × the contracts …"));
            int times = size;
            odds(account, size, quick, stop, share -> {
            }).ifPresent(found -> sizes.put(times, found.passed()));
        }
        told.accept(drawn.with(sizes, prices, ""));
    }

    private Optional<Odds> odds(Account account, int size, Odds.Settings settings, BooleanSupplier stop,
            Consumer<Double> done) {
        List<DayPath> days = Paths.of(run(account, size), account);
        return days.isEmpty()
                ? Optional.empty()
                : Odds.of(account, days, settings, new Odds.Progress(done::accept, stop));
    }

    private Run run(Account account, int times) {
        return runs.computeIfAbsent(times, n -> FreeTrial.run(inputs(account), n));
    }

    private Inputs inputs(Account account) {
        return new Inputs(inputs.tape(), inputs.contract(), inputs.others(), account, List.of(strategy.orElseThrow()),
                inputs.terms(), inputs.days(), inputs.heartbeats(), inputs.rolls());
    }

    private PastTrades trades(Account account) {
        return new PastTrades(inputs.tape(), inputs.contract(), account, inputs.terms());
    }
}
