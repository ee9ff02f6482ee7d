package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.stream.IntStream;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.engine.Flickers;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.evidence.EquityCurve;
import stativex.evidence.Intervals;
import stativex.evidence.Odds;
import stativex.evidence.TrialReport;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.ReportPage;
import stativex.files.ReportPdf;
import stativex.files.LiveJournal;
import stativex.files.ResultFiles;
import stativex.files.ResultWords;
import stativex.files.Sentences;
import stativex.files.SealBook;
import stativex.files.SessionFile;
import stativex.files.TrialFolder;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.Decimals;
import stativex.market.Money;
import stativex.market.Rolls;
import stativex.market.TapeTime;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.order.TrialMode;
import stativex.rule.Truth;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Summary;

/** Runs strategies over a tape, or a recorded session again, and writes what came of it. */
@Command(name = "trial", mixinStandardHelpOptions = true, sortOptions = false, description = "Runs a strategy over a tape, or a recorded session again; writes fills.csv, trades.csv, decisions.csv, days.csv, summary.json and report.json.")
final class TrialCommand implements Callable<Integer> {
    /** Where the inputs come from: files, or a session. */
    static final class Source {
        @ArgGroup(exclusive = false, multiplicity = "1")
        private Files files;

        @Option(names = "--session", paramLabel = "FILE", required = true, description = "a recorded session, or the journal of a live day: gives the same fills again")
        private Path session;

        @Option(names = "--again", paramLabel = "FILE", required = true, description = "a kept trial (trial.session or its folder): runs it again and says whether every byte is the same, else where it differs; exit code 1 if it does")
        private Path again;
    }

    /** Files of a plain trial. */
    static final class Files {
        @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "ticks: a CSV or Parquet file, the name of a stored tape, or the word demo")
        private String tape;

        @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document")
        private Path contract;

        @Option(names = "--strategy", paramLabel = "FILE.json", required = true, description = "strategy document; several may be given")
        private List<Path> strategies;

        @Option(names = "--account", paramLabel = "FILE.json", required = true, description = "account document")
        private Path account;

        @Option(names = "--mode", paramLabel = "tick|bar", defaultValue = "tick", description = "walks the prints, or the bars of the strategy's series in steps of a tick: fast, coarse; how often it had to assume something is in summary.json (${DEFAULT-VALUE})")
        private String mode;

        @Option(names = "--unseen", description = "opens the sealed range of a stored tape's contract for these versions, which is counted, and runs over it alone")
        private boolean unseen;

        @Option(names = "--realism", paramLabel = "through|queue|touch", defaultValue = "through", description = "when resting limits fill (${DEFAULT-VALUE})")
        private String realism;

        @Option(names = "--assumed-ahead", paramLabel = "CONTRACTS", defaultValue = "0", description = "with queue realism: contracts ahead of a limit where the tape does not say (${DEFAULT-VALUE})")
        private long assumedAhead;

        @Option(names = "--latency", paramLabel = "MILLISECONDS", defaultValue = "0", description = "from sending to acceptance (${DEFAULT-VALUE})")
        private String latency;

        @Option(names = "--roll-lead", paramLabel = "MINUTES", defaultValue = "5", description = "of a joined tape: how long before the close of a month's last session positions leave for the roll (${DEFAULT-VALUE})")
        private long rollLead;

        @Option(names = "--from", paramLabel = "DATE", description = "first evaluated trading day; each strategy's history is counted back from it. As early as the tape allows if left out")
        private LocalDate from;

        @Option(names = "--to", paramLabel = "DATE", description = "last evaluated trading day; what is open is left on its last print. To the tape's end if left out")
        private LocalDate to;

        @ArgGroup(exclusive = false, multiplicity = "0..*")
        private List<Further> further = new ArrayList<>();
    }

    /** A contract that strategies look at beside the one they trade. */
    static final class Further {
        @Option(names = "--further-tape", paramLabel = "FILE|NAME", required = true, description = "ticks of a contract that series of a strategy name, or that a strategy trades beside the others; several may be given")
        private String tape;

        @Option(names = "--further-contract", paramLabel = "FILE.json", description = "its contract document; a stored tape has its own")
        private Path contract;

        /** Opens them. @throws BadInput when a contract comes twice */
        static List<FurtherTape> open(List<Further> given) {
            List<FurtherTape> others = given.stream().map(Further::open).toList();
            Main.eachOnce("--further-tape", others.stream().map(FurtherTape::symbol).toList());
            return others;
        }

        private FurtherTape open() {
            Optional<Documents.Read<stativex.market.Contract>> given = Optional.ofNullable(contract)
                    .map(Documents::contract);
            return Demo.openFurther(tape, given);
        }
    }

    @ArgGroup(multiplicity = "1")
    private Source source;

    @Option(names = "--out", paramLabel = "DIR", description = "where to write the results")
    private Path out;

    @Option(names = "--count-flickers", description = "looks at every print and says how many signals a strategy would have raised inside bars and withdrawn at their close")
    private boolean countFlickers;

    private String seal = "not sealed";

    /** What was read for a trial of files. */
    private SessionFile.Set documents;

    @Option(names = "--path", description = "writes path.csv as well: equity, balance, contracts open and what closing would cost at every print at which they change, since each day's first instant; tick mode only")
    private boolean path;

    @Option(names = "--keep", description = "keeps the trial in the data folder as well, with all that repeats it")
    private boolean keep;

    @Option(names = "--html", description = "writes report.html as well: one file to hand to somebody")
    private boolean html;

    @Option(names = "--pdf", description = "writes report.pdf as well, to print")
    private boolean pdf;

    @Option(names = "--parquet", description = "writes every CSV file as Parquet as well, typed")
    private boolean parquet;

    @Option(names = "--resamples", paramLabel = "N", defaultValue = "2000", description = "drawings of the trial's days for the intervals of report.json (${DEFAULT-VALUE})")
    private int resamples;

    @Option(names = "--mean-block", paramLabel = "DAYS", defaultValue = "5", description = "days that follow one another in a drawing, on average (${DEFAULT-VALUE})")
    private double meanBlock;

    @Option(names = "--seed", paramLabel = "N", defaultValue = "1", description = "of the drawings (${DEFAULT-VALUE})")
    private long seed;

    @Spec
    private CommandSpec spec;

    TrialCommand() {}

    @Override
    public Integer call() {
        if (source.again != null) {
            return repeated();
        }
        if (out == null) {
            throw new ParameterException(spec.commandLine(), "Missing required option: '--out=DIR'");
        }
        Run run = new StoredTapes(spec)
                .mending(() -> source.session != null ? again(source.session) : plain(source.files));
        ResultFiles.write(out, run, new ResultFiles.Extras(path,
                Optional.of(new Intervals.Settings(resamples, meanBlock, seed)), seal));
        // attempts on a stored tape are kept and counted; of a file nobody knows what was tried on it before
        if (source.files != null && !source.files.unseen
                && TapeReference.isStored(TapeStore.own(), source.files.tape)) {
            AttemptBook.own().add(run, documents);
        }
        if (parquet) {
            ResultFiles.parquet(out, run, path);
        }
        if (html || pdf) {
            page(run);
        }
        if (keep) {
            keep(run);
        }
        Summary summary = Summary.of(run);
        PrintWriter print = spec.commandLine().getOut();
        print.println(summary.trades() + " trades, net " + Money.text(summary.net()) + " "
                + run.inputs().contract().currency() + " after fees of " + Money.text(summary.fees())
                + ", deepest drawdown " + Money.text(summary.deepestDrawdown()) + "; "
                + run.inputs().terms().mode().word() + " mode, "
                + run.inputs().terms().realism().word() + ", " + run.inputs().prints() + " prints; " + seal
                + ". Results in "
                + out);
        List<String> traded = run.engine().contracts().stream().map(stativex.market.Contract::symbol).toList();
        new TreeMap<>(run.inputs().others()).forEach((symbol, other) -> print.println(
                (traded.contains(symbol) ? "traded " : "looked at ") + symbol + " too: "
                        + other.tape().count() + " prints" + (other.tape().count() == 0
                                ? ""
                                : ", " + TapeTime.instant(other.tape().time(0)) + " to "
                                        + TapeTime.instant(other.tape().time(other.tape().count() - 1)))));
        run.engine().locks().forEach(lock -> print.println("locked by " + ResultWords.of(lock.line().lock()) + " at "
                + TapeTime.instant(lock.time()) + (lock.guarded() ? ", its guard" : "") + ": " + Sentences.lock(lock)));
        neverJudged(run);
        historyShort(run);
        run.assumed().ifPresent(assumed -> print.println("assumed inside bars: the stop before the target in "
                + assumed.stopsCounted() + " bars, the way in " + assumed.equalExtremes()
                + " bars with equal extremes, through for " + assumed.queueFills() + " fills in a queue, the volume of "
                + assumed.localStops() + " local stops"));
        if (countFlickers) {
            flickers(run.inputs(), print);
        }
        return 0;
    }

    /** A condition that was absent on every bar has never said no: that is said. */
    private void neverJudged(Run run) {
        for (Snapshot.StrategyView strategy : run.engine().snapshot().strategies()) {
            strategy.lanes().forEach((side, lanes) -> lanes.stream().limit(Math.max(1, lanes.size() - 1))
                    .filter(lane -> lane.truth().count() > 0 && IntStream.range(0, lane.truth().count())
                            .allMatch(bar -> lane.truth().get(bar) == Truth.ABSENT))
                    .forEach(lane -> spec.commandLine().getErr().println("stativex: note: strategy \""
                            + strategy.strategy().name() + "\", " + side.word() + ": " + lane.text()
                            + " was absent on every one of " + lane.truth().count()
                            + " bars: it looks back further than the tape, or divides by zero")));
        }
    }

    /** Studies with a long memory have other values after a short history: that is said. */
    private void historyShort(Run run) {
        for (int i = 0; i < run.engine().histories().size(); i++) {
            if (run.engine().histories().get(i).isShort()) {
                spec.commandLine().getErr().println("stativex: note: strategy \""
                        + run.inputs().strategies().get(i).name() + "\": history short: the tape begins after the "
                        + run.engine().histories().get(i).days()
                        + " trading days that it wants before the first evaluated one");
            }
        }
    }

    private static void flickers(Inputs inputs, PrintWriter print) {
        for (Strategy strategy : inputs.strategies()) {
            Flickers.of(strategy, inputs.contract(), inputs.tape(), inputs.others())
                    .forEach((side, found) -> print.println(strategy.name() + ", " + side.word() + ": "
                            + (found.confirmed() + found.withdrawn()) + " provisional signals, " + found.confirmed()
                            + " confirmed, " + found.withdrawn() + " withdrawn"
                            + (found.provisional() ? "; the last bar's is open" : "")));
        }
    }

    private void keep(Run run) {
        if (documents == null || run.assumed().isPresent()) {
            throw new BadInput("--keep: expected a trial of files in tick mode: a session is its own record");
        }
        TrialFolder.Kept kept = TrialFolder.own().keep(run, documents, source.files.tape,
                new Intervals.Settings(resamples, meanBlock, seed), seal);
        spec.commandLine().getOut().println("kept as trial " + kept.number());
    }

    private void page(Run run) {
        TrialReport report = TrialReport.of(run, new Intervals.Settings(resamples, meanBlock, seed), Odds.Progress.NONE)
                .orElseThrow();
        List<EquityCurve.Day> curve = run.assumed().isPresent()
                ? List.of()
                : EquityCurve.of(run, 300 * TapeTime.SECOND);
        if (html) {
            ReportPage.write(out.resolve("report.html"), run, report, curve, seal);
        }
        if (pdf) {
            ReportPdf.write(out.resolve("report.pdf"), run, report, curve, seal);
        }
    }

    /** A kept trial once more. */
    private int repeated() {
        TrialFolder.Repeated repeated = new StoredTapes(spec)
                .mending(() -> TrialFolder.again(source.again, Demo::tape, Seals::check));
        PrintWriter print = spec.commandLine().getOut();
        repeated.differences().forEach(print::println);
        if (repeated.same()) {
            print.println("the same, byte for byte: " + repeated.run().engine().log().fills().size() + " fills, "
                    + repeated.run().engine().log().trades().size() + " trades");
        }
        if (out != null) {
            ResultFiles.write(out, repeated.run());
        }
        return repeated.same() ? 0 : 1;
    }

    private Run again(Path file) {
        if (LiveJournal.is(file)) {
            LiveJournal.Recorded live = LiveJournal.read(file);
            note(live.engine());
            return live.result();
        }
        SessionFile.Session session = SessionFile.read(file, Demo::tape);
        note(session.engine());
        Seals.check(session);
        return session.run();
    }

    private void note(String engine) {
        if (!engine.equals(ResultFiles.engineVersion())) {
            spec.commandLine().getErr().println("stativex: note: recorded with engine " + engine + ", run again with "
                    + ResultFiles.engineVersion() + ": fills may differ");
        }
    }

    private Run plain(Files files) {
        Terms terms = terms(files);
        Documents.Read<stativex.market.Contract> contract = Documents.contract(files.contract);
        documents = new SessionFile.Set(contract, Documents.account(files.account),
                files.strategies.stream().map(Documents::strategy).toList(), Further.open(files.further));
        complete(documents);
        TapeReference.Found found = Demo.open(files.tape, Optional.of(contract.value()), false);
        if (countFlickers && documents.strategies().stream()
                .anyMatch(strategy -> !strategy.value().contract().equals(contract.value().symbol()))) {
            throw new BadInput("--count-flickers looks at the contract of --tape: expected strategies that trade "
                    + contract.value().symbol());
        }
        if (countFlickers && found.join().isPresent()) {
            throw new BadInput("tape " + files.tape + " is a join: --count-flickers looks at one month's tape");
        }
        return Run.trial(documents.inputs(found.tape(), terms).over(days(files, documents))
                .rolling(rolls(files, found)));
    }

    /** @throws BadInput when a strategy looks at a contract that no tape was given of */
    static void complete(SessionFile.Set documents) {
        documents.strategies().forEach(strategy -> strategy.value().signals().others(documents.contract().value())
                .stream()
                .filter(symbol -> documents.others().stream().noneMatch(other -> other.symbol().equals(symbol)))
                .forEach(symbol -> {
                    throw new BadInput("strategy \"" + strategy.value().name() + "\" looks at " + symbol
                            + ": expected its ticks as a --further-tape, found none");
                }));
    }

    /** The fit range; with {@code --unseen} the sealed one, which is an opening. */
    private Days days(Files files, SessionFile.Set documents) {
        stativex.market.Contract contract = documents.contract().value();
        Days asked = days(files.from, files.to, contract);
        if (!files.unseen) {
            seal = Seals.words(files.tape, contract);
            return Seals.fit(files.tape, documents, asked);
        }
        SealBook.Seal sealed = Seals.over(files.tape, contract).orElseThrow(
                () -> new BadInput("--unseen: expected a stored tape of a sealed contract, found none: see seal"));
        if (!asked.equals(Days.ALL)) {
            throw new BadInput("--unseen opens the sealed range as a whole: expected no --from and no --to");
        }
        documents.others().forEach(other -> Seals.over(other.reference(), other.contract().value()).ifPresent(over -> {
            throw new BadInput(
                    "--unseen opens the dates of one contract: expected no further one that is sealed, found "
                            + other.symbol());
        }));
        documents.strategies().forEach(strategy -> SealBook.own().open(sealed, strategy.value().name(),
                strategy.value().version()));
        seal = "opened: " + Seals.words(files.tape, contract);
        return sealed.unseen();
    }

    /** The months of a join, which is traded over its rolls. */
    private Rolls rolls(Files files, TapeReference.Found found) {
        if (found.join().isEmpty()) {
            return Rolls.NONE;
        }
        try {
            return new Rolls(found.join().get().legs(), Math.multiplyExact(files.rollLead, 60 * TapeTime.SECOND));
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw new BadInput("tape " + files.tape + ": " + e.getMessage(), e);
        }
    }

    /** The days between two options, either of which may be left out. @throws BadInput when one of them is none of the contract's */
    static Days days(LocalDate from, LocalDate to, stativex.market.Contract contract) {
        Optional<LocalDate> first = tradingDay("--from", from, contract);
        Optional<LocalDate> last = tradingDay("--to", to, contract);
        try {
            return new Days(first, last);
        } catch (IllegalArgumentException e) {
            throw new BadInput("--to: " + e.getMessage(), e);
        }
    }

    private static Optional<LocalDate> tradingDay(String option, LocalDate given, stativex.market.Contract contract) {
        if (given != null && contract.calendar().sessions(given).isEmpty()) {
            throw new BadInput(option + ": expected a trading day of " + contract.symbol() + ", found " + given
                    + ", which has no session");
        }
        return Optional.ofNullable(given);
    }

    private Terms terms(Files files) {
        TrialMode mode = Arrays.stream(TrialMode.values()).filter(word -> word.word().equals(files.mode)).findFirst()
                .orElseThrow(() -> wrong("--mode: expected tick or bar, found " + files.mode, null));
        Realism realism = Arrays.stream(Realism.values()).filter(word -> word.word().equals(files.realism)).findFirst()
                .orElseThrow(() -> wrong("--realism: expected through, queue or touch, found " + files.realism, null));
        long nanos;
        try {
            nanos = Decimals.plain(files.latency).movePointRight(6).longValueExact();
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw wrong("--latency: expected milliseconds of 0 or more, found " + files.latency, e);
        }
        if (nanos < 0) {
            throw wrong("--latency: expected milliseconds of 0 or more, found " + files.latency, null);
        }
        try {
            return new Terms(realism, nanos, files.assumedAhead, mode);
        } catch (IllegalArgumentException e) {
            throw wrong("--assumed-ahead: " + e.getMessage(), e);
        }
    }

    private ParameterException wrong(String what, Exception cause) {
        return new ParameterException(spec.commandLine(), what, cause);
    }
}
