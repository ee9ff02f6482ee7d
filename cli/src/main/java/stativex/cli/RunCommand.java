package stativex.cli;

import java.io.PrintWriter;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.List;
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
import stativex.link.LiveSession;
import stativex.link.fix.FixLink;
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

    @Option(names = "--lockstep", description = "asks the venue for one thing after the other: for one that was started so")
    private boolean lockstep;

    @Option(names = "--journal", paramLabel = "FILE", required = true, description = "where everything that comes in is kept")
    private Path journal;

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
        InetSocketAddress venue = venue();
        boolean goesOn = Files.exists(journal);
        LiveJournal.Recorded before = goesOn ? same(LiveJournal.read(journal), documents) : null;
        String name = goesOn ? before.run() : fresh();
        LiveJournal.Worked worked = goesOn
                ? before.again()
                : new LiveJournal.Worked(new LiveRun(LiveJournal.start(documents, name)), List.of());
        LiveRun run = worked.run();
        LiveSession.Going going = LiveSession.Going.on(lockstep);
        try (LiveJournal record = goesOn ? LiveJournal.onto(before) : LiveJournal.begin(journal, documents, name);
                FixLink to = new FixLink(documents.contract().value(), venue, worked.sent())) {
            LiveSession session = new LiveSession(run, to, record,
                    goesOn ? going.after(before.reports(), before.steps()) : going, this::say);
            if (goesOn) {
                spec.commandLine().getOut().println("goes on after " + before.inputs().size()
                        + " inputs, entries off until they are engaged again");
            }
            for (int i = 0; i < documents.strategies().size(); i++) {
                session.command(new stativex.engine.Command.SetMode(i, engage ? Mode.ENGAGED : Mode.WATCHING));
            }
            session.run();
        }
        results(documents, run);
        return 0;
    }

    private void say(String sentence) {
        spec.commandLine().getErr().println("stativex: " + sentence);
        spec.commandLine().getErr().flush();
    }

    private LiveJournal.Recorded same(LiveJournal.Recorded before, SessionFile.Set documents) {
        boolean same = before.documents().contract().document().equals(documents.contract().document())
                && before.documents().account().document().equals(documents.account().document())
                && before.documents().strategies().stream().map(Documents.Read::document).toList()
                        .equals(documents.strategies().stream().map(Documents.Read::document).toList());
        if (!same) {
            throw new BadInput(
                    journal + ": expected a journal of the same documents, found one of others: choose another"
                            + " file, or give the documents that it holds");
        }
        return before;
    }

    private InetSocketAddress venue() {
        int colon = link.lastIndexOf(':');
        try {
            int port = Integer.parseInt(link.substring(colon + 1));
            if (colon > 0 && port > 0 && port < 65_536) {
                InetSocketAddress address = new InetSocketAddress(link.substring(0, colon), port);
                if (!address.isUnresolved()) {
                    return address;
                }
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new BadInput("--link: expected a host and a port such as 127.0.0.1:4404, found " + link);
    }

    /** 128 random bits: no other run's messages have such names. */
    private static String fresh() {
        byte[] bits = new byte[16];
        new SecureRandom().nextBytes(bits);
        return HexFormat.of().formatHex(bits);
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
