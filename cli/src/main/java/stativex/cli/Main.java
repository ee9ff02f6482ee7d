package stativex.cli;

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
