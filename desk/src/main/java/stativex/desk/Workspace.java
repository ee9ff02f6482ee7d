package stativex.desk;

import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.FurtherTapes;
import stativex.link.Replay;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** What a window works on: documents, a tape, and the replay under way with the file that records it. */
public final class Workspace implements AutoCloseable {
    private final SessionFile.Set documents;
    private final Inputs inputs;
    private final String tape;
    private final FurtherTapes further;
    private final ZoneId own;
    private final long begin;
    private final Optional<Path> sessions;
    private Optional<Path> file = Optional.empty();
    private Replay replay;

    private Workspace(SessionFile.Set documents, Inputs inputs, String tape, FurtherTapes further, ZoneId own,
            long begin, Optional<Path> sessions) {
        this.further = further;
        this.documents = documents;
        this.inputs = inputs;
        this.tape = tape;
        this.own = own;
        this.begin = begin;
        this.sessions = sessions;
        this.replay = open();
    }

    /** The demo, before its first print; {@code sessions} is the folder that records it, empty records nothing. */
    public static Workspace demo(Optional<Path> sessions) {
        SessionFile.Set documents = Demo.documents();
        var contract = documents.contract().value();
        Inputs inputs = documents.inputs(Demo.tape(contract), Terms.DEFAULT);
        return new Workspace(documents, inputs, Demo.TAPE, Demo.furtherTapes(), Demo.HOME, Demo.begin(contract),
                sessions);
    }

    /**
     * The same documents on another tape of the same contract, from the first open of its last trading day on.
     *
     * @throws IllegalArgumentException when no strategy here trades that contract
     */
    public Workspace on(String reference, Contract contract, Tape other) {
        Contract mine = inputs.contract();
        if (!contract.symbol().equals(mine.symbol()) || contract.tickSize().compareTo(mine.tickSize()) != 0) {
            throw new IllegalArgumentException("the strategies at hand trade " + mine.symbol() + " in ticks of "
                    + mine.tickSize().toPlainString() + ", this tape is " + contract.symbol() + " in ticks of "
                    + contract.tickSize().toPlainString());
        }
        long first = contract.calendar().tradingDate(other.time(other.count() - 1))
                .map(date -> contract.calendar().sessions(date).getFirst().open()).orElse(other.time(0));
        return new Workspace(documents, documents.inputs(other, inputs.terms()), reference, further, own,
                reference.equals(Demo.TAPE) ? Demo.begin(contract) : first, sessions);
    }

    /**
     * The same with another strategy in the first place; one of its name gives way.
     *
     * @throws IllegalArgumentException when it looks at a contract that there is no tape of
     */
    public Workspace with(Documents.Read<Strategy> strategy) {
        List<Documents.Read<Strategy>> all = new ArrayList<>(List.of(strategy));
        documents.strategies().stream().filter(s -> !s.value().name().equals(strategy.value().name()))
                .forEach(all::add);
        SessionFile.Set next = new SessionFile.Set(documents.contract(), documents.account(), all,
                all.stream().flatMap(one -> one.value().signals().others(inputs.contract()).stream()).distinct()
                        .map(this::opened).toList());
        return new Workspace(next, next.inputs(inputs.tape(), inputs.terms()), tape, further, own, begin, sessions);
    }

    private FurtherTape opened(String symbol) {
        return further.open(symbol).orElseThrow(() -> new IllegalArgumentException("there is no tape of " + symbol
                + " here: bring one in in the Tape stage"));
    }

    private Replay open() {
        file = sessions.map(folder -> SessionFile.fresh(folder));
        return new Replay(new Run(inputs),
                file.map(path -> new SessionFile.Recorder(path, tape, documents, inputs))).start();
    }

    /** Starts again from the first print with everything off; the session so far stays recorded in its own file. */
    public void restart() {
        double speed = replay.latest().speed();
        replay.close();
        replay = open();
        replay.speed(speed);
    }

    /** Goes to where the story begins, the first strategy watching. */
    public void toBeginning() {
        replay.command(new Command.SetMode(0, Mode.WATCHING));
        replay.jumpTo(begin);
    }

    public Inputs inputs() {
        return inputs;
    }

    public Replay replay() {
        return replay;
    }

    /** The documents at hand. */
    public SessionFile.Set documents() {
        return documents;
    }

    /** How the tape is named. */
    public String tape() {
        return tape;
    }

    /** Tapes of contracts that strategies may look at beside the one they trade. */
    public FurtherTapes further() {
        return further;
    }

    /** The person's own zone. */
    public ZoneId own() {
        return own;
    }

    /** When the story begins, nanoseconds. */
    public long begin() {
        return begin;
    }

    /** The file that records this session. */
    public Optional<Path> file() {
        return file;
    }

    @Override
    public void close() {
        replay.close();
    }
}
