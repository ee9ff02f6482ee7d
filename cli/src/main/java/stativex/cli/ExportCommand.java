package stativex.cli;

import java.nio.file.Path;
import java.time.LocalDate;
import java.time.DateTimeException;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.tape.ParquetTicks;
import stativex.files.tape.Progress;
import stativex.files.tape.TapeImport;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TickCsv;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;

/** Writes the ticks of a tape. */
@Command(name = "export", mixinStandardHelpOptions = true, sortOptions = false, description = "Writes the ticks of a tape or join as CSV or Parquet. Bars are written by the command bars.")
final class ExportCommand implements Callable<Integer> {
    @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "a stored tape or join, a CSV or Parquet file, or the word demo")
    private String tape;

    @Option(names = "--contract", paramLabel = "FILE.json", description = "contract document of a file; a stored tape has its own")
    private Path contract;

    @Option(names = "--back-adjust", description = "of a join: earlier months moved to the newest one by the difference at each roll")
    private boolean backAdjust;

    @Option(names = "--from", paramLabel = "DATE", description = "first trading date; the tape's first if left out")
    private String from;

    @Option(names = "--to", paramLabel = "DATE", description = "last trading date; the tape's last if left out")
    private String to;

    @Option(names = "--out", paramLabel = "FILE", required = true, description = "where to write: .csv, or .parquet")
    private Path out;

    @Spec
    private CommandSpec spec;

    ExportCommand() {}

    @Override
    public Integer call() {
        Optional<LocalDate> first = date("--from", from);
        Optional<LocalDate> last = date("--to", to);
        StoredTapes tapes = new StoredTapes(spec);
        return tapes.with(tape, Optional.ofNullable(contract).map(file -> Documents.contract(file).value()), backAdjust,
                found -> write(found, first, last, tapes.progress("writing")));
    }

    private int write(TapeReference.Found found, Optional<LocalDate> first, Optional<LocalDate> last,
            Progress progress) {
        SessionCalendar calendar = found.contract().calendar();
        // a trading day begins with its first open: the day before the first one ends there
        int begin = first.map(date -> calendar.dayAfter(date.minusDays(1)).map(s -> found.tape().firstAt(s.open()))
                .orElse(found.tape().count())).orElse(0);
        int end = last.map(date -> calendar.dayAfter(date).map(s -> found.tape().firstAt(s.open()))
                .orElse(found.tape().count())).orElse(found.tape().count());
        if (begin >= end) {
            throw new BadInput("tape " + tape + " has no print in those trading dates");
        }
        if (TapeImport.isParquet(out)) {
            ParquetTicks.write(out, found.tape(), found.contract(), begin, end, progress);
        } else {
            TickCsv.write(out, found.tape(), found.contract(), begin, end, progress);
        }
        spec.commandLine().getOut().println(end - begin + " prints in " + out);
        return 0;
    }

    private Optional<LocalDate> date(String option, String text) {
        try {
            return Optional.ofNullable(text).map(TapeTime::date);
        } catch (DateTimeException e) {
            throw new ParameterException(spec.commandLine(),
                    option + ": expected a date such as 2026-09-24, found " + text, e);
        }
    }
}
