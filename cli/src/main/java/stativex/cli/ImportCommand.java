package stativex.cli;

import java.io.PrintWriter;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.tape.Column;
import stativex.files.tape.Finding;
import stativex.files.tape.Findings;
import stativex.files.tape.LayoutGuess;
import stativex.files.tape.TapeImport;
import stativex.files.tape.TapeInfo;
import stativex.files.tape.TickLayout;
import stativex.files.tape.TimeForm;
import stativex.files.tape.Words;
import stativex.market.Contract;
import stativex.market.Decimals;
import stativex.market.Tape;
import stativex.market.TapeTime;

/** Brings a tick file into the store. */
@Command(name = "import", mixinStandardHelpOptions = true, sortOptions = false, description = "Brings a tick file (CSV of any layout, or Parquet) into the tape store and says what is odd in it.")
final class ImportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "ticks, .csv or .parquet")
    private Path file;

    @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document of this month")
    private Path contract;

    @Option(names = "--name", paramLabel = "NAME", description = "what to call the tape; the file's name if left out")
    private String name;

    @Option(names = "--columns", paramLabel = "COLUMN=NAME", split = ",", description = "which column of the file holds what, such as time=Stamp,price=Last; the rest is guessed. Columns: time, date, clock, price, size, bid, ask, bid_size, ask_size, aggressor")
    private Map<String, String> columns = new LinkedHashMap<>();

    @Option(names = "--times", paramLabel = "FORM", description = "how times are written: year_first, day_first, month_first, seconds, milliseconds, microseconds, nanoseconds; guessed if left out")
    private String times;

    @Option(names = "--zone", paramLabel = "ZONE", description = "IANA zone of times without an offset; the contract's if left out")
    private String zone;

    @Option(names = "--gap", paramLabel = "MINUTES", defaultValue = "5", description = "minutes without a print inside a session that count as a gap (${DEFAULT-VALUE})")
    private String gap;

    @Option(names = "--leave-out", description = "leave out lines that cannot be taken, and keep the rest")
    private boolean leaveOut;

    @Option(names = "--incomplete", paramLabel = "gaps|DATE/SESSION", split = ",", description = "sessions that lack prints, such as 2026-09-24/Day, or the word gaps for all that were found to: signals in them are declined")
    private List<String> incomplete = List.of();

    @Option(names = "--look", description = "only say what is found; keep nothing")
    private boolean look;

    @Spec
    private CommandSpec spec;

    ImportCommand() {}

    @Override
    public Integer call() {
        StoredTapes tapes = new StoredTapes(spec);
        Documents.Read<Contract> read = Documents.contract(contract);
        PrintWriter out = spec.commandLine().getOut();
        Optional<TickLayout> layout = TapeImport.isParquet(file) ? Optional.empty() : Optional.of(layout(read.value()));
        layout.ifPresent(l -> say(l, out));
        try (TapeImport job = TapeImport.read(tapes.store(), file, read, layout, gap(),
                tapes.progress("reading"))) {
            say(job, read.value(), out);
            if (look) {
                return 0;
            }
            String kept = name == null ? stem() : name;
            job.keep(kept, leaveOut, incomplete(job.findings()));
            out.println("Kept as " + kept + (job.findings().bad() > 0
                    ? ", " + job.findings().bad() + " lines left out, listed in " + tapes.store().leftOut(kept)
                    : "") + ". Bars of it: ./stativex bars --tape \"" + kept
                    + "\" --type tick --size 400 --out FILE.csv");
            return 0;
        } catch (BadInput e) {
            if (e.getMessage().contains("lines cannot be taken")) {
                throw new BadInput(e.getMessage() + ". Nothing was kept; --leave-out keeps the rest", e);
            }
            throw e;
        }
    }

    private String stem() {
        String whole = file.getFileName().toString();
        int dot = whole.lastIndexOf('.');
        return dot > 0 ? whole.substring(0, dot) : whole;
    }

    private TickLayout layout(Contract of) {
        ZoneId assumed;
        try {
            assumed = zone == null ? of.calendar().zone() : ZoneId.of(zone);
        } catch (DateTimeException e) {
            throw wrong("--zone", "an IANA zone such as Pacific/Auckland", zone);
        }
        LayoutGuess guess = LayoutGuess.of(file, assumed);
        TickLayout layout = guess.layout();
        List<Column> mapping = new ArrayList<>(layout.columns());
        columns.forEach((column, named) -> {
            int place = layout.names().indexOf(named);
            if (place < 0) {
                throw wrong("--columns", "one of the file's columns " + String.join(", ", layout.names()), named);
            }
            try {
                Column wanted = Column.named(column);
                mapping.replaceAll(c -> c == wanted ? Column.LEFT_OUT : c);
                mapping.set(place, wanted);
            } catch (IllegalArgumentException e) {
                throw new ParameterException(spec.commandLine(), "--columns: " + e.getMessage(), e);
            }
        });
        TickLayout mapped = mapping.equals(layout.columns()) ? layout : guess.with(mapping);
        if (times != null) {
            mapped = mapped.with(Arrays.stream(TimeForm.values())
                    .filter(form -> form.name().toLowerCase(Locale.ROOT).equals(times)).findFirst()
                    .orElseThrow(() -> wrong("--times", String.join(", ", Arrays.stream(TimeForm.values())
                            .map(form -> form.name().toLowerCase(Locale.ROOT)).toList()), times)));
            if (mapped.zone().isEmpty()) {
                mapped = mapped.in(assumed);
            }
        } else {
            guess.doubts().forEach(doubt -> spec.commandLine().getErr().println("stativex: note: " + doubt));
        }
        return mapped;
    }

    private static void say(TickLayout layout, PrintWriter out) {
        out.println("Read as: " + layout.words());
        for (int i = 0; i < layout.names().size(); i++) {
            out.println("  " + layout.names().get(i) + ": " + layout.columns().get(i).word());
        }
    }

    private static void say(TapeImport job, Contract contract, PrintWriter out) {
        out.println(job.prints() + " prints from " + Words.at(job.firstTime(), contract.calendar().zone()) + " to "
                + Words.at(job.lastTime(), contract.calendar().zone()));
        Findings findings = job.findings();
        for (Finding kind : Finding.values()) {
            if (findings.count(kind) > 0) {
                out.println(kind.words() + ": " + findings.count(kind) + (kind.bad() ? " (bad lines)" : ""));
                findings.places(kind).stream().limit(5)
                        .forEach(place -> out.println("  line " + place.line() + ": " + place.words()));
            }
        }
    }

    private Set<Tape.SessionName> incomplete(Findings findings) {
        Set<Tape.SessionName> sessions = new TreeSet<>();
        for (String text : incomplete) {
            if (text.equals("gaps")) {
                sessions.addAll(findings.lacking());
            } else {
                try {
                    sessions.add(TapeInfo.sessionName(text));
                } catch (IllegalArgumentException e) {
                    throw new ParameterException(spec.commandLine(), "--incomplete: " + e.getMessage(), e);
                }
            }
        }
        return sessions;
    }

    private long gap() {
        try {
            return Decimals.plain(gap).multiply(BigDecimal.valueOf(60 * TapeTime.SECOND)).longValueExact();
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw wrong("--gap", "minutes such as 5", gap);
        }
    }

    private ParameterException wrong(String option, String expected, String found) {
        return new ParameterException(spec.commandLine(), option + ": expected " + expected + ", found " + found);
    }
}
