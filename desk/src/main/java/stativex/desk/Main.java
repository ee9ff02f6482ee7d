package stativex.desk;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import stativex.files.DataFolder;
import stativex.files.ResultFiles;

/** Starts the application: {@code stativex demo [--picture FILE.png [--stage run]] [--at TIME]}. */
@Command(name = "stativex demo", mixinStandardHelpOptions = true, version = "Stativex "
        + ResultFiles.ENGINE, description = "Opens the Run stage on the demo's tape.", footer = {
                "", "`stativex demo --export DIR` writes the demo's tape and documents to a folder instead."})
public final class Main implements Callable<Integer> {
    @Option(names = "--picture", paramLabel = "FILE.png", description = "write a picture of the window at 1280×800 and exit")
    private Path picture;

    @Option(names = "--stage", paramLabel = "run|tape|flow|contract|rules|exits|limits", defaultValue = "run", description = "stage to show; flow is the Tape stage with flow bars, contract that with the demo's contract (${DEFAULT-VALUE})")
    private String stage;

    @Option(names = "--tape", paramLabel = "NAME", description = "stored tape or join to show in the Tape stage")
    private String tape;

    @Option(names = "--at", paramLabel = "TIME", description = "go to a time of the demo day such as 14:20, or 2026-09-24T14:20, in exchange time")
    private String at;

    @Option(names = "--own", hidden = true, description = "begin with the person's own data, without the demo")
    private boolean own;

    @Option(names = "--first-window", hidden = true, description = "say how long the window and the desk took, and exit")
    private boolean firstWindow;

    @Spec
    private CommandSpec spec;

    private Main() {}

    public static void main(String[] arguments) {
        Locale.setDefault(Locale.ROOT);
        System.exit(new CommandLine(new Main()).execute(arguments));
    }

    @Override
    public Integer call() {
        if (!List
                .of("run", "ticket", "tape", "flow", "contract", "rules", "exits", "limits", "odds", "rulebook", "live",
                        "engage",
                        "trial",
                        "compare", "search", "examples")
                .contains(stage)) {
            throw new ParameterException(spec.commandLine(),
                    "--stage: expected run, ticket, tape, flow, contract, rules, exits, limits, odds, rulebook, trial, compare, search or examples, found "
                            + stage);
        }
        Options options = new Options(Optional.ofNullable(picture), stage, Optional.ofNullable(tape),
                Optional.ofNullable(at),
                picture == null && !firstWindow ? Optional.of(DataFolder.path().resolve("sessions")) : Optional.empty(),
                firstWindow, own);
        try {
            options.localTime();
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage(), e);
        }
        DeskApp.launch(options);
        return 0;
    }
}
