package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;

/** Writes the demo's tape and documents to a folder. */
@Command(name = "demo", mixinStandardHelpOptions = true, description = "Writes the demo's tape and documents to a folder, to start from.")
final class DemoCommand implements Callable<Integer> {
    @Option(names = "--export", required = true, paramLabel = "DIR", description = "where to write")
    private Path folder;

    @Spec
    private CommandSpec spec;

    DemoCommand() {}

    @Override
    public Integer call() {
        Demo.export(folder);
        PrintWriter out = spec.commandLine().getOut();
        out.println("Demo written to " + folder + ". Try it:");
        out.println("  ./stativex trial --tape " + folder.resolve("tdl.ticks.csv") + " --contract "
                + folder.resolve("tdl.contract.json") + " --strategy " + folder.resolve("ebb-fade.strategy.json")
                + " --account " + folder.resolve("gannet-row-40k.account.json") + " --out " + folder.resolve("trial"));
        return 0;
    }
}
