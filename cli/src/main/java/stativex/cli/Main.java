package stativex.cli;

import java.util.List;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import stativex.files.BadInput;
import stativex.files.ResultFiles;

/** The command {@code stativex}. Exit codes: 0, 1 (bad input, said on stderr), 2 (usage). */
@Command(name = "stativex", mixinStandardHelpOptions = true, version = "Stativex " + ResultFiles.ENGINE, subcommands = {
        TrialCommand.class, ImportCommand.class, TapesCommand.class, ExportCommand.class, BarsCommand.class,
        CheckCommand.class,
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
        System.exit(run(arguments));
    }

    /** Runs a command line and returns its exit code. */
    public static int run(String... arguments) {
        CommandLine line = new CommandLine(new Main());
        line.setExecutionExceptionHandler((e, command, parsed) -> {
            if (e instanceof BadInput || e instanceof IllegalArgumentException) {
                command.getErr().println("stativex: " + e.getMessage());
                return 1;
            }
            throw e;
        });
        if (arguments.length == 0) {
            line.usage(line.getErr());
            return 2;
        }
        return line.execute(arguments);
    }
}
