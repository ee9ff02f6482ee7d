package stativex.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.function.BooleanSupplier;
import stativex.demo.Demo;
import stativex.evidence.LuckOfTheBest;
import stativex.evidence.Odds;
import stativex.files.Documents;
import stativex.files.SearchFolder;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.search.Method;
import stativex.search.Score;
import stativex.trial.Days;

/**
 * A search over five million prints: 1 000 variants of exits over one rule, the same number of threads against one, entries against
 * exits by variant, and the chance that the best is luck over 1 000 variants. Only ratios may fail.
 */
final class SearchTimes {
    private static final int PRINTS = 5_000_000;

    private SearchTimes() {}

    public static void main(String[] arguments) throws IOException {
        var contract = Demo.documents().contract();
        Tape tape = Demo.tape(contract.value(), PRINTS);
        var strategy = Documents.strategy(TrialAgainstBareLoop.quiet("tick 400"), "quiet", other -> other);
        var account = Documents.account(TrialAgainstBareLoop.ACCOUNT, "account", other -> other);
        SearchSpec exits = spec(contract, account, strategy,
                List.of(SearchFolder.setting("/exit/stop/ticks", "8", "47", "1"),
                        SearchFolder.setting("/exit/targets/0/ticks", "4", "52", "2")));
        SearchSpec few = spec(contract, account, strategy,
                List.of(SearchFolder.setting("/exit/stop/ticks", "8", "27", "1"),
                        SearchFolder.setting("/exit/targets/0/ticks", "4", "22", "2")));
        run(few, tape, 2);
        double one = run(few, tape, 1);
        double two = run(few, tape, 2);
        System.out.printf("two threads are %.2f times one (asked 1.8)%n", one / two);
        double all = run(exits, tape, 2);
        System.out.printf("1000 variants of exits over %,d prints: %.1f s on 2 threads (asked 20)%n", PRINTS, all);
        luck();
        System.exit(one / two >= 1.8 ? 0 : 1);
    }

    private static SearchSpec spec(Documents.Read<stativex.market.Contract> contract,
            Documents.Read<stativex.account.Account> account, Documents.Read<stativex.engine.Strategy> strategy,
            List<SearchSpec.Setting> settings) {
        return new SearchSpec("bench", contract, account, strategy.document(),
                new SearchSpec.Trial("bench", Terms.DEFAULT, Days.ALL), settings, new Method.Grid(),
                new SearchSpec.Ranked(Score.NET_PER_TRADE, 30, 16));
    }

    /** Seconds. */
    private static double run(SearchSpec spec, Tape tape, int threads) throws IOException {
        Path folder = Files.createTempDirectory("search");
        SearchRun run = new SearchRun(spec, tape, threads, folder.resolve("search.journal"));
        long begin = System.nanoTime();
        List<Integer> trades = new ArrayList<>();
        run.run(new SearchRun.Watcher() {
            @Override
            public void done(int variants, int of, int left) {
                // nobody looks
            }

            @Override
            public BooleanSupplier cancelled() {
                return () -> false;
            }
        }).orElseThrow().entries().forEach(entry -> trades.add(entry.tried().trades()));
        double seconds = (System.nanoTime() - begin) / 1e9;
        System.out.printf("%d variants on %d threads: %.1f s, %.1f ms each, %d to %d trades%n", trades.size(), threads,
                seconds, 1000 * seconds / trades.size(), trades.stream().mapToInt(n -> n).min().orElse(0),
                trades.stream().mapToInt(n -> n).max().orElse(0));
        return seconds;
    }

    private static void luck() {
        SplittableRandom dice = new SplittableRandom(1);
        long[][] results = new long[1000][750];
        for (long[] variant : results) {
            for (int d = 0; d < variant.length; d++) {
                variant[d] = Math.round(dice.nextGaussian() * 2_000_000);
            }
        }
        for (int turn = 0; turn < 2; turn++) {
            long begin = System.nanoTime();
            double chance = LuckOfTheBest.of(results, new int[1000], LuckOfTheBest.BLOCKS, Odds.Progress.NONE)
                    .orElseThrow().chance();
            System.out.printf("chance that the best is luck, 1000 variants of 750 days: %.1f s, %.2f (asked 5 s)%n",
                    (System.nanoTime() - begin) / 1e9, chance);
        }
    }
}
