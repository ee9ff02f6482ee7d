package stativex.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.files.SealBook;
import stativex.files.TrialFolder;
import stativex.market.Money;

/** The trials that were kept, as the window lists them. */
@Command(name = "trials", mixinStandardHelpOptions = true, sortOptions = false, description = "Lists the trials that are kept in the data folder, the newest first: number, strategies, contract, days, trades, net after costs, and the folder that `trial --again` repeats.")
final class TrialsCommand implements Callable<Integer> {
    @Option(names = "--strategy", paramLabel = "NAME", description = "only those whose first strategy has this name")
    private String strategy;

    @Option(names = "--contract", paramLabel = "SYMBOL", description = "only those of this contract")
    private String contract;

    @Option(names = "--in", paramLabel = "FOLDER", description = "another folder of trials than the data folder's")
    private Path folder;

    @Spec
    private CommandSpec spec;

    TrialsCommand() {}

    @Override
    public Integer call() {
        TrialFolder trials = folder == null ? TrialFolder.own() : new TrialFolder(folder);
        List<TrialFolder.Kept> kept = trials.list().stream()
                .filter(one -> strategy == null || one.strategy().equals(strategy)
                        || one.strategy().startsWith(strategy + " and "))
                .filter(one -> contract == null || one.contract().equals(contract)).toList();
        for (TrialFolder.Kept one : kept) {
            String days = one.from().map(from -> from + " to " + one.to().orElse(from)).orElse("no day");
            spec.commandLine().getOut().println(one.number() + ": " + one.strategy() + ", " + one.contract() + ", "
                    + (hidden(one)
                            ? "looks at sealed dates"
                            : days + ", " + one.trades() + " trades, net "
                                    + Money.text(one.net()))
                    + ", " + one.folder());
        }
        if (kept.isEmpty()) {
            spec.commandLine().getOut().println("No such trial is kept.");
        }
        return 0;
    }

    /** Whether it was made before dates were sealed that its versions have not opened. */
    private static boolean hidden(TrialFolder.Kept one) {
        SealBook book = SealBook.own();
        return book.of(one.contract()).filter(seal -> book.hides(seal, one)).isPresent();
    }
}
