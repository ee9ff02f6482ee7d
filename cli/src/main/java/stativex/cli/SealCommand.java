package stativex.cli;

import java.io.PrintWriter;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.files.BadInput;
import stativex.files.SealBook;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.trial.Days;

/** Seals dates of a stored tape's contract, so that nothing looks at them until they are opened for one version. */
@Command(name = "seal", mixinStandardHelpOptions = true, sortOptions = false, description = "Seals trading dates of a stored tape's contract for good: trials, searches and marks leave them out until trial --unseen opens them for one version of a strategy, which is counted. Without a tape: lists seals.")
final class SealCommand implements Callable<Integer> {
    @Parameters(index = "0", arity = "0..1", paramLabel = "TAPE", description = "a stored tape")
    private String tape;

    @Option(names = "--from", paramLabel = "DATE", description = "first sealed trading day; the last third of the tape's days if left out")
    private LocalDate from;

    @Option(names = "--to", paramLabel = "DATE", description = "last sealed trading day; the tape's last if left out")
    private LocalDate to;

    @Spec
    private CommandSpec spec;

    SealCommand() {}

    @Override
    public Integer call() {
        PrintWriter print = spec.commandLine().getOut();
        SealBook book = SealBook.own();
        if (tape == null) {
            book.all().forEach(seal -> print.println(seal.contract() + "  " + seal.from() + " to " + seal.to()
                    + "  opened " + book.openings(seal) + " times"));
            return 0;
        }
        if (!TapeReference.isStored(TapeStore.own(), tape)) {
            throw new BadInput(tape + ": expected a stored tape; files and the demo are never sealed");
        }
        TapeReference.Found found = Demo.open(tape, Optional.empty(), false);
        List<LocalDate> dates = Days.dates(found.tape(), found.contract().calendar());
        SealBook.Seal offered = SealBook.offered(found.contract().symbol(), dates)
                .orElseThrow(() -> new BadInput(tape + ": expected at least 3 trading days, found " + dates.size()));
        SealBook.Seal seal;
        try {
            seal = new SealBook.Seal(offered.contract(), from == null ? offered.from() : from,
                    to == null ? offered.to() : to);
        } catch (IllegalArgumentException e) {
            throw new BadInput("--to: " + e.getMessage(), e);
        }
        if (!seal.from().isAfter(dates.getFirst())) {
            throw new BadInput("--from: expected a fit range before the seal, found none before " + seal.from());
        }
        book.seal(seal);
        print.println("sealed " + seal.contract() + " from " + seal.from() + " to " + seal.to());
        return 0;
    }
}
