package stativex.cli;

import java.io.PrintWriter;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import stativex.files.tape.BarCsv;
import stativex.files.tape.BarParquet;
import stativex.files.tape.TapeImport;
import stativex.files.tape.TapeReference;
import stativex.files.Documents;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Decimals;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.rule.Blueprint;
import stativex.rule.Program;
import stativex.trial.Days;
import stativex.study.Studies;
import stativex.study.StudyDefinition;

/** Makes bars of a tape. */
@Command(name = "bars", mixinStandardHelpOptions = true, sortOptions = false, description = "Makes bars of a tape and writes them as CSV. The bar that is still forming at the tape's end is not written.")
final class BarsCommand implements Callable<Integer> {
    @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "ticks: a CSV or Parquet file, the name of a stored tape or join, or the word demo")
    private String tape;

    @Option(names = "--contract", paramLabel = "FILE.json", description = "contract document; a stored tape has its own")
    private Path contract;

    @Option(names = "--back-adjust", description = "of a join: earlier months moved to the newest one by the difference at each roll")
    private boolean backAdjust;

    @Option(names = "--type", paramLabel = "TYPE", required = true, description = "tick, volume, range, seconds, renko, day, week or month")
    private String type;

    @Option(names = "--size", paramLabel = "SIZE", description = "trades, contracts, ticks, seconds, or a brick's step in ticks; none for day, week and month")
    private String size;

    @Option(names = "--turn", paramLabel = "TICKS", description = "renko: ticks against the last brick that turn")
    private String turn;

    @Option(names = "--sessions", paramLabel = "NAME", split = ",", description = "only these sessions of the calendar make bars; all if left out")
    private List<String> sessions = List.of();

    @Option(names = "--restart", paramLabel = "session|day|week|never", defaultValue = "session", description = "where bars begin anew (${DEFAULT-VALUE})")
    private String restart;

    @Option(names = "--anchor", paramLabel = "DATE", description = "with --restart never: the trading date that the series begins with")
    private String anchor;

    @Option(names = "--from", paramLabel = "DATE", description = "first trading day; the tape's first if left out")
    private LocalDate from;

    @Option(names = "--to", paramLabel = "DATE", description = "last trading day; the tape's last if left out")
    private LocalDate to;

    @Option(names = "--heikin-ashi", description = "prices of the Heikin-Ashi view")
    private boolean heikinAshi;

    @Option(names = "--study", paramLabel = "'NAME = EXPRESSION'", description = "a column for each output of a study, such as 'drift = ema 21 of close' or 'edge = high - low'; may be repeated")
    private List<String> studies = List.of();

    @Option(names = "--out", paramLabel = "FILE", required = true, description = "where to write the bars: .csv, or .parquet")
    private Path out;

    @Spec
    private CommandSpec spec;

    BarsCommand() {}

    @Override
    public Integer call() {
        BarSettings settings = settings();
        return new StoredTapes(spec).with(tape,
                Optional.ofNullable(contract).map(file -> Documents.contract(file).value()), backAdjust,
                found -> write(found, settings));
    }

    private int write(TapeReference.Found found, BarSettings settings) {
        Contract read = found.contract();
        for (String name : sessions) {
            if (!read.calendar().sessionNames().contains(name)) {
                throw wrong("--sessions", "one of " + String.join(", ", read.calendar().sessionNames()), name);
            }
        }
        Tape ticks = found.tape();
        Days days = TrialCommand.days(from, to, read);
        int until = days.prints(ticks, read.calendar());
        BarSeries bars = SeriesBuilder.some(ticks, read.calendar(), settings,
                days.begin(read.calendar()).orElse(Long.MIN_VALUE), until, print -> {
                });
        BarCsv rows = new BarCsv(bars, settings.type(), read, heikinAshi, studies(bars, read));
        if (TapeImport.isParquet(out)) {
            BarParquet.write(out, rows, read, heikinAshi);
        } else {
            rows.write(out);
        }
        PrintWriter print = spec.commandLine().getOut();
        print.println(bars.count() + " bars of " + (until - bars.begin()) + " prints in " + out);
        return 0;
    }

    private List<BarCsv.StudyColumn> studies(BarSeries bars, Contract of) {
        List<StudyDefinition> definitions = new ArrayList<>();
        for (String text : studies) {
            try {
                definitions.add(Studies.read(text));
            } catch (IllegalArgumentException e) {
                throw new ParameterException(spec.commandLine(), "--study: " + e.getMessage(), e);
            }
        }
        Program program = new Program(new Blueprint(of.tickSize(), of.calendar(), List.of(), definitions, List.of(),
                Map.of()), bars);
        List<Program.StudyOutput> outputs = program.studies("");
        program.take();
        return outputs.stream().map(study -> new BarCsv.StudyColumn(study.name(), study.column())).toList();
    }

    private BarSettings settings() {
        BarType made = type();
        if (turn != null && !(made instanceof BarType.Renko)) {
            throw new ParameterException(spec.commandLine(), "--turn: only renko bars turn");
        }
        BarSettings.Restart where = choice("--restart", restart, BarSettings.Restart.values());
        try {
            Optional<LocalDate> begin = Optional.ofNullable(anchor).map(LocalDate::parse);
            return new BarSettings(made, where, begin, Set.copyOf(sessions));
        } catch (DateTimeException e) {
            throw wrong("--anchor", "a date such as 2026-09-24", anchor);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), "--anchor: " + e.getMessage(), e);
        }
    }

    private BarType type() {
        List<String> periods = List.of("day", "week", "month");
        if (periods.contains(type)) {
            if (size != null) {
                throw new ParameterException(spec.commandLine(), "--size: " + type + " bars have none");
            }
            return choice("--type", type, BarType.Period.values());
        }
        if (size == null) {
            throw new ParameterException(spec.commandLine(),
                    "--size: expected a size for " + type + " bars, found none");
        }
        try {
            return switch (type) {
                case "tick" -> new BarType.Ticks(Math.toIntExact(whole("--size", size)));
                case "volume" -> new BarType.Volume(whole("--size", size));
                case "range" -> new BarType.Range(whole("--size", size));
                case "seconds" -> new BarType.Time(nanos());
                case "renko" -> new BarType.Renko(whole("--size", size),
                        whole("--turn", turn == null ? "" : turn));
                default -> throw wrong("--type", "tick, volume, range, seconds, renko, day, week or month", type);
            };
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw new ParameterException(spec.commandLine(), "--size: " + e.getMessage(), e);
        }
    }

    private long nanos() {
        try {
            return Decimals.plain(size).movePointRight(9).longValueExact();
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw wrong("--size", "seconds such as 150 or 0.5", size);
        }
    }

    private long whole(String option, String text) {
        try {
            return new BigDecimal(Decimals.plain(text).toBigIntegerExact()).longValueExact();
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw wrong(option, "a whole number", text.isEmpty() ? "none" : text);
        }
    }

    private <T extends Enum<T>> T choice(String option, String text, T[] values) {
        for (T value : values) {
            if (value.name().toLowerCase(Locale.ROOT).equals(text)) {
                return value;
            }
        }
        throw wrong(option, String.join(", ", java.util.Arrays.stream(values).map(Enum::name)
                .map(name -> name.toLowerCase(Locale.ROOT)).toList()), text);
    }

    private ParameterException wrong(String option, String expected, String found) {
        return new ParameterException(spec.commandLine(), option + ": expected " + expected + ", found " + found);
    }
}
