package stativex.cli;

import java.io.PrintWriter;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.evidence.Odds;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.ExampleBook;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.search.ExampleRules;
import stativex.search.Examples;
import stativex.study.StudyDefinition;
import stativex.trial.Days;

/** Offers rules that hold on the bars somebody marked, and seldom elsewhere. */
@Command(name = "examples", mixinStandardHelpOptions = true, sortOptions = false, description = "Looks for rules of up to three conditions that hold on marked bars and seldom elsewhere: hits, misses and false alarms of each on the fit range. Every conjunction that is looked at counts as an attempt.")
final class ExamplesCommand implements Callable<Integer> {
    @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "ticks: a CSV or Parquet file, the name of a stored tape, or the word demo")
    private String tape;

    @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document")
    private Path contract;

    @Option(names = "--strategy", paramLabel = "FILE.json", required = true, description = "strategy document: its bars and studies")
    private Path strategy;

    @Option(names = "--examples", paramLabel = "FILE.json", required = true, description = "marked moments: {\"document\": \"examples\", \"version\": 1, \"strategy\": NAME, \"long\": {\"right\": [TIME, …], \"wrong\": [TIME, …]}, \"short\": …}")
    private Path examples;

    @Option(names = "--side", paramLabel = "long|short", defaultValue = "long", description = "whose entries were marked (${DEFAULT-VALUE})")
    private String side;

    @Option(names = "--beside", description = "a rule may hold one bar before or after a marked one")
    private boolean beside;

    @Option(names = "--weight", paramLabel = "W", defaultValue = "0.2", description = "of a false alarm against a hit (${DEFAULT-VALUE})")
    private BigDecimal weight;

    @Option(names = "--most", paramLabel = "N", defaultValue = "10", description = "rules that are offered (${DEFAULT-VALUE})")
    private int most;

    @Spec
    private CommandSpec spec;

    ExamplesCommand() {}

    @Override
    public Integer call() {
        return new StoredTapes(spec).mending(this::offered);
    }

    private int offered() {
        Side of = Arrays.stream(Side.values()).filter(one -> one.word().equals(side)).findFirst()
                .orElseThrow(() -> new BadInput("--side: expected long or short, found " + side));
        Contract traded = Documents.contract(contract).value();
        Documents.Read<Strategy> read = Documents.strategy(strategy);
        if (!read.value().signals().others(traded).isEmpty()) {
            throw new BadInput("strategy \"" + read.value().name()
                    + "\": expected series of its own contract alone: rules of others are looked for in the window");
        }
        Tape whole = Demo.open(tape, Optional.of(traded), false).tape();
        Tape fit = Seals.fit(tape, traded, Days.ALL).of(whole, traded.calendar());
        BarSeries bars = SeriesBuilder.all(fit, traded.calendar(), read.value().signals().bars());
        Examples.Marks marks = ExampleBook.read(examples).marks(of, bars, beside);
        ExampleRules.Result result;
        try {
            result = ExampleRules.search(read.value().signals(), traded, Map.of(), bars, marks, weight, most,
                    Odds.Progress.NONE).orElseThrow();
        } catch (IllegalArgumentException e) {
            throw new BadInput(e.getMessage(), e);
        }
        if (TapeReference.isStored(TapeStore.own(), tape)) {
            List<LocalDate> dates = Days.dates(fit, traded.calendar());
            AttemptBook.own().addScored(traded.symbol(), read.value().name(), dates.getFirst(), dates.getLast(),
                    result.scored());
        }
        print(result, marks, bars);
        return 0;
    }

    private void print(ExampleRules.Result result, Examples.Marks marks, BarSeries bars) {
        PrintWriter out = spec.commandLine().getOut();
        out.println(marks.right().cardinality() + " bars marked of " + bars.count() + "; " + result.conditions()
                + " conditions, " + result.scored() + " conjunctions looked at, each an attempt");
        for (ExampleRules.Offer offer : result.offers()) {
            out.println(offer.found().hits() + " hits, " + offer.found().misses() + " misses, "
                    + offer.found().falseAlarms() + " false alarms: " + offer.text().replace("\n", " ")
                    + (offer.studies().isEmpty()
                            ? ""
                            : "   with " + String.join("; ", offer.studies().stream().map(ExamplesCommand::words)
                                    .toList())));
        }
    }

    /** {@code ema21 = ema length 21}. */
    private static String words(StudyDefinition study) {
        return study.name() + " = " + study.kind() + String.join("", study.settings().entrySet().stream()
                .map(one -> " " + one.getKey() + " " + one.getValue()).toList());
    }
}
