package stativex.cli;

import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.TypeConversionException;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.FaultLog;
import stativex.files.ResultFiles;
import stativex.market.TapeTime;

/** The command {@code stativex}. Exit codes: 0, 1 (bad input, said on stderr), 2 (usage). */
@Command(name = "stativex", mixinStandardHelpOptions = true, version = "Stativex " + ResultFiles.ENGINE, subcommands = {
        TrialCommand.class, TrialsCommand.class, PastCommand.class, BookCommand.class, OddsCommand.class,
        GateCommand.class,
        SearchCommand.class, ExamplesCommand.class,
        SealCommand.class,
        ImportCommand.class,
        TapesCommand.class, ExportCommand.class,
        BarsCommand.class,
        CheckCommand.class,
        ExchangeCommand.class, RunCommand.class,
        DemoCommand.class}, description = "Tries trading rules on real ticks, exactly and without a screen.", footer = {
                "", "Without --export, `demo` opens the application on the demo's tape."})
public final class Main {
    private Main() {}

    /** @throws BadInput when an option names one contract several times */
    static void eachOnce(String option, List<String> symbols) {
        for (int i = 0; i < symbols.size(); i++) {
            if (symbols.indexOf(symbols.get(i)) < i) {
                throw new BadInput(option + ": expected each contract once, found " + symbols.get(i) + " again");
            }
        }
    }

    public static void main(String[] arguments) {
        Locale.setDefault(Locale.ROOT);
        System.exit(run(arguments));
    }

    /** Runs a command line and returns its exit code. */
    public static int run(String... arguments) {
        CommandLine line = new CommandLine(new Main());
        line.registerConverter(Path.class, text -> {
            try {
                return Path.of(text);
            } catch (InvalidPathException e) {
                throw new TypeConversionException("expected the name of a file, found " + Causes.found(text));
            }
        });
        line.registerConverter(LocalDate.class, text -> {
            try {
                return TapeTime.date(text);
            } catch (DateTimeException e) {
                throw new TypeConversionException("expected a date such as 2026-09-24, found " + Causes.found(text));
            }
        });
        line.setExecutionExceptionHandler((e, command, parsed) -> {
            command.getErr().println("stativex: " + (e instanceof BadInput || e instanceof IllegalArgumentException
                    ? Causes.brief(e.getMessage())
                    : FaultLog.keep(e)));
            return 1;
        });
        if (arguments.length == 0) {
            line.usage(line.getErr());
            return 2;
        }
        try {
            return line.execute(arguments);
        } catch (StackOverflowError | OutOfMemoryError e) {
            line.getErr().println("stativex: " + FaultLog.keep(e));
            return 1;
        }
    }
}
