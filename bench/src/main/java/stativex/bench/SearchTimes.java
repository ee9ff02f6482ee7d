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
        // warm: the compiler's own threads would take a core from two workers, and none from one
        run(few, tape, 2);
        double all = run(exits, tape, 2);
        System.out.printf("1000 variants of exits over %,d prints: %.1f s on 2 threads (asked 20)%n", PRINTS, all);
        // the quickest of alternating runs each: others on the machine only ever make one slower
        double one = Double.MAX_VALUE;
        double two = Double.MAX_VALUE;
        for (int i = 0; i < 5; i++) {
            one = Math.min(one, run(few, tape, 1));
            two = Math.min(two, run(few, tape, 2));
        }
        double gained = one / two;
        System.out.printf("two threads are %.2f times one (asked 1.8), the quickest of five runs each%n", gained);
        SearchSpec entries = entries(contract, account);
        double thresholds = run(entries, tape, 2);
        double ratio = thresholds / entries.space().count() / (all / 1000);
        System.out.printf("%d variants of entries (five thresholds each of three studies): %.1f s, %.2f times an exit"
                + " variant (asked 3)%n", entries.space().count(), thresholds, ratio);
        memory(exits, tape);
        luck();
        System.exit(gained >= 1.8 && ratio <= 3 ? 0 : 1);
    }

    /** Three studies, a threshold of each varied in the rules of both sides. */
    private static SearchSpec entries(Documents.Read<stativex.market.Contract> contract,
            Documents.Read<stativex.account.Account> account) {
        String text = TrialAgainstBareLoop.quiet("tick 400");
        var quiet = (tools.jackson.databind.node.ObjectNode) Documents.strategy(text, "entries", other -> other)
                .document();
        quiet.set("studies", tools.jackson.databind.json.JsonMapper.shared().readTree(
                "[{\"name\":\"push\",\"study\":\"rsi\",\"length\":14},{\"name\":\"reach\",\"study\":\"atr\",\"length\":14},"
                        + "{\"name\":\"drift\",\"study\":\"ema\",\"of\":\"close\",\"length\":21}]"));
        quiet.putObject("long").put("rule", "push < 30 and reach > 3 ticks and close < drift - 2 ticks");
        quiet.putObject("short").put("rule", "push > 70 and reach > 3 ticks and close > drift + 2 ticks");
        var strategy = Documents.strategy(quiet.toString(), "entries", other -> other);
        return spec(contract, account, strategy,
                List.of(SearchFolder.setting(strategy.document(), "/long/rule#0", "22", "38", "4"),
                        SearchFolder.setting(strategy.document(), "/long/rule#1 /short/rule#1", "1", "5", "1"),
                        SearchFolder.setting(strategy.document(), "/long/rule#2 /short/rule#2", "1", "5", "1")));
    }

    /** What a search keeps: bars, the studies of two variants a thread, and the day results of each variant. */
    private static void memory(SearchSpec spec, Tape tape) throws IOException {
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        long before = runtime.totalMemory() - runtime.freeMemory();
        SearchRun run = new SearchRun(spec, tape, 2, Files.createTempDirectory("search").resolve("search.journal"));
        long[] at = new long[2];
        SearchRun.Found found = run.run(new SearchRun.Watcher() {
            @Override
            public void done(int variants, int of, int left) {
                if (variants == 100 || variants == of) {
                    System.gc();
                    at[variants == of ? 1 : 0] = runtime.totalMemory() - runtime.freeMemory() - before;
                }
            }

            @Override
            public BooleanSupplier cancelled() {
                return () -> false;
            }
        }).orElseThrow();
        System.out.printf(
                "memory beside the tape: %.1f MB after 100 variants, %.1f MB after %d: %.1f kB a variant (8 bytes"
                        + " a day of it, %d days)%n",
                at[0] / 1e6, at[1] / 1e6, found.variants().size(),
                (at[1] - at[0]) / 1e3 / (found.variants().size() - 100), found.days().size());
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
