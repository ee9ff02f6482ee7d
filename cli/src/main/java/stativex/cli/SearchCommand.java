package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.concurrent.Callable;
import java.util.function.BooleanSupplier;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.evidence.Odds;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.SealBook;
import stativex.files.SearchElsewhere;
import stativex.files.SearchFiles;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.files.SearchUnseen;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.search.Ranking;
import stativex.search.Tried;

/** Searches over numbers and choices of a strategy, and says what the best of so many is worth. */
@Command(name = "search", mixinStandardHelpOptions = true, sortOptions = false, description = "Tries variants of a strategy and ranks them by their neighbours; writes variants.csv, variant-days.csv and search.json. Stopped or killed, the same command goes on where it was.")
final class SearchCommand implements Callable<Integer> {
    @Option(names = "--spec", paramLabel = "FILE.json", required = true, description = "search document: contract, account and strategy beside it, ranges, method, score")
    private Path specFile;

    @Option(names = "--out", paramLabel = "DIR", required = true, description = "where to write the results, and what is done so far")
    private Path out;

    @Option(names = "--threads", paramLabel = "N", description = "variants that are tried at once; as many as there are cores if left out")
    private Integer threads;

    @Option(names = "--on", paramLabel = "spark://HOST:PORT", description = "tries the variants on a cluster of Apache Spark instead, with the same result")
    private String master;

    @Option(names = "--parquet", description = "writes variants and their days as Parquet as well, typed")
    private boolean parquet;

    @Option(names = "--quiet", description = "says nothing while it goes")
    private boolean quiet;

    @Spec
    private CommandSpec spec;

    SearchCommand() {}

    @Override
    public Integer call() {
        SearchSpec read = SearchSpec.read(specFile);
        int at = threads == null ? Runtime.getRuntime().availableProcessors() : threads;
        if (at < 1) {
            throw new BadInput("--threads: expected 1 or more, found " + at);
        }
        String named = read.trial().tape();
        Tape tape = Demo.open(named.equals(Demo.TAPE) || !beside(read).toFile().exists()
                ? named
                : beside(read).toString(), Optional.of(read.contract().value()), false).tape();
        SearchSpec search = read.over(Seals.fit(named, read.contract().value(), read.trial().days()));
        if (master == null) {
            return searched(search, tape, new SearchRun(search, tape, at, out.resolve("search.journal")));
        }
        SearchElsewhere elsewhere = ServiceLoader.load(SearchElsewhere.class).findFirst().orElseThrow(
                () -> new BadInput(
                        "--on: expected the part that knows Apache Spark, found none: start it by ./stativex"));
        try (SearchElsewhere.Machines machines = elsewhere.open(master, search, tape)) {
            return searched(search, tape, new SearchRun(search, tape, machines, out.resolve("search.journal")));
        }
    }

    private int searched(SearchSpec search, Tape tape, SearchRun run) {
        String named = search.trial().tape();
        PrintWriter print = spec.commandLine().getOut();
        PrintWriter progress = spec.commandLine().getErr();
        long begun = System.nanoTime();
        SearchRun.Watcher watcher = new SearchRun.Watcher() {
            private long said = begun;

            @Override
            public void done(int variants, int of, int left) {
                long now = System.nanoTime();
                if (!quiet && now - said > 2_000_000_000L) {
                    said = now;
                    progress.printf("%d of %d variants%s, %d s left in this round%n", variants, of,
                            left > 0 ? ", " + left + " rounds after it" : "",
                            Math.round((now - begun) / 1e9 / variants * (of - variants)));
                    progress.flush();
                }
            }

            @Override
            public BooleanSupplier cancelled() {
                return () -> false;
            }
        };
        SearchRun.Found found = run.run(watcher).orElseThrow();
        // attempts on a stored tape are kept and counted; of a file nobody knows what was tried on it before
        SearchRun.Judged judged = TapeReference.isStored(TapeStore.own(), named)
                ? run.judge(found, run.count(found, AttemptBook.own()), Odds.Progress.NONE)
                : run.judge(found, Odds.Progress.NONE);
        Optional<SearchUnseen> unseen = Seals.over(named, search.contract().value())
                .map(seal -> SearchUnseen.of(search, tape, seal, SealBook.own(), judged.ranked()));
        SearchFiles.write(out, search, found, judged, unseen);
        if (parquet) {
            SearchFiles.parquet(out, search, found, judged);
        }
        print.println(found.variants().size() + " variants, " + judged.attempts() + " attempts, "
                + found.days().size() + " days; " + Seals.words(search.trial().tape(), search.contract().value())
                + ". Results in " + out);
        judged.luck().ifPresent(luck -> print.printf(java.util.Locale.ROOT,
                "chance that the best is luck: %.3f (without any skill %.3f)%n", luck.chance(), luck.withoutSkill()));
        search.ranked().walk().ifPresent(walk -> walk(run, walk, found, watcher));
        judged.ranked().stream().limit(5).forEach(one -> print.println(line(run, one)
                + unseen.flatMap(of -> of.of(one)).map(SearchCommand::unseen).orElse("")));
        return 0;
    }

    private void walk(SearchRun run, SearchSpec.Walk walk, SearchRun.Found found, SearchRun.Watcher watcher) {
        int of = run.steps(walk);
        if (of == 0) {
            throw new BadInput("walkForward: expected more than " + walk.fit() + " days, found " + found.days().size());
        }
        List<SearchRun.Step> steps = run.walk(walk, watcher, step -> {
            if (!quiet) {
                spec.commandLine().getErr().println("walked " + step + " of " + of + " steps");
            }
        }).orElseThrow();
        SearchFiles.write(out, run, steps, found.days());
        long net = steps.stream().mapToLong(step -> step.tried().map(t -> t.net()).orElse(0L)).sum();
        spec.commandLine().getOut().println("walked forward over " + of + " steps: net " + Money.text(net)
                + " on days that none of them was fitted on");
    }

    private Path beside(SearchSpec search) {
        return Optional.ofNullable(specFile.toAbsolutePath().getParent()).orElse(Path.of("/"))
                .resolve(search.trial().tape());
    }

    private static String unseen(Tried tried) {
        return "; unseen " + tried.trades() + " trades, net " + Money.text(tried.net());
    }

    private static String line(SearchRun run, Ranking.Ranked one) {
        String neighbours = SearchFiles.text(one.neighbours());
        return "variant " + one.entry().number() + ": " + run.space().words(run.space().places(one.entry().grid()))
                + ": neighbours' score " + (neighbours.isEmpty() ? "absent" : neighbours) + ", own "
                + (SearchFiles.text(one.score()).isEmpty() ? "absent" : SearchFiles.text(one.score())) + ", "
                + one.entry().tried().trades() + " trades"
                + (one.entry().tried().hasStop() ? "" : ", without a stop");
    }
}
