package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.engine.Mode;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.LiveJournal;
import stativex.files.ResultFiles;
import stativex.files.SessionFile;
import stativex.files.tape.TickCsv;
import stativex.link.Addresses;
import stativex.link.LiveDay;
import stativex.market.Money;
import stativex.trial.LiveRun;

/** A live day at a venue without a window. */
@Command(name = "run", mixinStandardHelpOptions = true, sortOptions = false, description = "Runs strategies at a venue that speaks FIX 4.4, such as the one that `exchange` starts, until it has nothing more to tell. Everything that comes in is kept in a journal before it leads to anything; with a journal that is there the day goes on.")
final class RunCommand implements Callable<Integer> {
    @Option(names = "--link", paramLabel = "HOST:PORT", required = true, description = "where the venue listens")
    private String link;

    @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document")
    private Path contract;

    @Option(names = "--account", paramLabel = "FILE.json", required = true, description = "account document")
    private Path account;

    @Option(names = "--strategy", paramLabel = "FILE.json", required = true, description = "strategy document; several may be given")
    private List<Path> strategies;

    @Option(names = "--engage", description = "engages the strategies; without it they watch")
    private boolean engage;

    @Option(names = "--confirmed", description = "balance and floor were compared with what the firm shows today: an account that is held to a rulebook enters nothing on a trading day of which nobody says so")
    private boolean confirmed;

    @Option(names = "--lockstep", description = "asks the venue for one thing after the other: for one that was started so")
    private boolean lockstep;

    @Option(names = "--journal", paramLabel = "FILE", required = true, description = "where everything that comes in is kept")
    private Path journal;

    @Option(names = "--alarm", paramLabel = "PROGRAM", description = "a program of your own that is run with the words of each alarm as its one argument")
    private Path alarm;

    @Option(names = "--out", paramLabel = "DIR", required = true, description = "folder for the results and the ticks that were received")
    private Path out;

    @Spec
    private CommandSpec spec;

    RunCommand() {}

    @Override
    public Integer call() throws InterruptedException {
        SessionFile.Set documents = new SessionFile.Set(Documents.contract(contract), Documents.account(account),
                strategies.stream().map(Documents::strategy).toList());
        TrialCommand.complete(documents);
        LiveDay.Setup setup = new LiveDay.Setup(documents, Addresses.read("--link", link), lockstep, journal,
                Optional.ofNullable(alarm));
        LiveRun run;
        try (LiveDay day = new LiveDay(setup, this::say)) {
            run = day.run();
            if (day.before() > 0) {
                spec.commandLine().getOut().println("goes on after " + day.before()
                        + " inputs, entries off until they are engaged again");
            }
            if (confirmed) {
                day.confirm();
            }
            for (int i = 0; i < documents.strategies().size(); i++) {
                day.command(new stativex.engine.Command.SetMode(i, engage ? Mode.ENGAGED : Mode.WATCHING));
            }
            day.work();
        }
        results(documents, run);
        return 0;
    }

    private void say(String sentence) {
        spec.commandLine().getErr().println("stativex: " + sentence);
        spec.commandLine().getErr().flush();
    }

    private void results(SessionFile.Set documents, LiveRun run) {
        ResultFiles.write(out, LiveJournal.result(documents, run));
        TickCsv.write(out.resolve("received.ticks.csv"), run.received(), documents.contract().value());
        PrintWriter print = spec.commandLine().getOut();
        print.println(run.tape().count() + " prints received, " + run.engine().log().trades().size() + " trades, net "
                + Money.text(run.engine().equity() - documents.account().value().start()) + ". Results in " + out);
        run.contradictions().forEach(one -> print.println("the venue contradicts what stands: " + one));
    }
}
