package stativex.desk;

import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.files.StrategyDraft;
import stativex.files.StrategyFolder;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.FurtherTapes;
import stativex.link.Replay;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Rolls;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** What a window works on: documents, a tape, and the replay under way with the file that records it. */
public final class Workspace implements AutoCloseable {
    private SessionFile.Set documents;
    private Inputs inputs;
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
     * A tape of the person's own with the strategies of its contract, from the first open of its last trading day on, or of the
     * first day that is evaluated.
     *
     * @param rolls of a joined tape
     * @param days that are evaluated
     * @param account the one to trade with
     * @throws IllegalArgumentException when the account states no fee for the contract, or has another currency
     */
    public static Workspace own(String reference, Documents.Read<Contract> contract, Tape tape, Rolls rolls,
            Days days, Documents.Read<Account> account, FurtherTapes further, Optional<Path> sessions) {
        return made(reference, contract, tape, rolls, days, account, ownStrategies(contract.value(), further), further,
                ZoneId.systemDefault(), sessions);
    }

    private static Workspace made(String reference, Documents.Read<Contract> contract, Tape tape, Rolls rolls,
            Days days,
            Documents.Read<Account> account, List<Documents.Read<Strategy>> strategies, FurtherTapes further,
            ZoneId own,
            Optional<Path> sessions) {
        account.value().fee(contract.value().symbol());
        List<FurtherTape> others = strategies.stream()
                .flatMap(one -> one.value().signals().others(contract.value()).stream()).distinct()
                .flatMap(symbol -> further.open(symbol).stream()).toList();
        SessionFile.Set documents = new SessionFile.Set(contract, account, strategies, others);
        Inputs inputs = documents.inputs(tape, Terms.DEFAULT).over(days).rolling(rolls);
        if (inputs.prints() == 0) {
            throw new IllegalArgumentException("the tape has no print of the days that are chosen");
        }
        long first = days.begin(contract.value().calendar())
                .or(() -> contract.value().calendar().tradingDate(tape.time(inputs.prints() - 1))
                        .map(date -> contract.value().calendar().sessions(date).getFirst().open()))
                .orElse(tape.time(0));
        boolean story = reference.equals(Demo.TAPE) && days.equals(Days.ALL);
        return new Workspace(documents, inputs, reference, further, own,
                story ? Demo.begin(contract.value()) : first, sessions);
    }

    /** Complete strategies of a contract in the person's folder; those that look at contracts without a tape are left out. */
    private static List<Documents.Read<Strategy>> ownStrategies(Contract contract, FurtherTapes further) {
        return StrategyFolder.own().list().strategies().stream()
                .filter(draft -> draft.contract().equals(contract.symbol()))
                .filter(draft -> draft.signals()
                        .map(plan -> draft.problems(contract, further.of(plan, contract).values()
                                .stream().map(ContractTape::contract).toList()).isEmpty())
                        .orElse(false))
                .map(StrategyDraft::strategy)
                .filter(one -> one.value().signals().others(contract).stream()
                        .allMatch(s -> further.open(s).isPresent()))
                .toList();
    }

    /**
     * Another tape with the same account: with the strategies at hand if it is of their contract, else with the person's own of that
     * contract.
     *
     * @throws IllegalArgumentException when the account states no fee for the contract, or has another currency
     */
    public Workspace on(String reference, Documents.Read<Contract> contract, Tape other, Rolls rolls, Days days) {
        Contract mine = inputs.contract();
        boolean same = contract.value().symbol().equals(mine.symbol())
                && contract.value().tickSize().compareTo(mine.tickSize()) == 0;
        return made(reference, same ? documents.contract() : contract, other, rolls, days, documents.account(),
                same ? documents.strategies() : ownStrategies(contract.value(), further), further, own, sessions);
    }

    /** The same with another account, from the beginning. @throws IllegalArgumentException as {@link #on} */
    public Workspace with(Documents.Read<Account> account) {
        return made(tape, documents.contract(), inputs.tape(), inputs.rolls(), inputs.days(), account,
                documents.strategies(), further,
                own, sessions);
    }

    /**
     * The same with another strategy in the first place; one of its name gives way.
     *
     * @throws IllegalArgumentException when it looks at a contract that there is no tape of
     */
    public Workspace withFirst(Documents.Read<Strategy> strategy) {
        List<Documents.Read<Strategy>> all = new ArrayList<>(List.of(strategy));
        documents.strategies().stream().filter(s -> !s.value().name().equals(strategy.value().name()))
                .forEach(all::add);
        SessionFile.Set next = new SessionFile.Set(documents.contract(), documents.account(), all,
                all.stream().flatMap(one -> one.value().signals().others(inputs.contract()).stream()).distinct()
                        .map(this::opened).toList());
        return new Workspace(next,
                next.inputs(inputs.tape(), inputs.terms()).over(inputs.days()).rolling(inputs.rolls()), tape, further,
                own,
                begin, sessions);
    }

    private FurtherTape opened(String symbol) {
        return further.open(symbol).orElseThrow(() -> new IllegalArgumentException("there is no tape of " + symbol
                + " here: bring one in in the Tape stage"));
    }

    /**
     * A session that an earlier start left unfinished, from where it had come to: what is locked stays locked, every strategy takes no
     * entries, an open trade keeps its plan. It is recorded anew from its beginning on.
     *
     * @throws IllegalArgumentException when its documents do not fit one another any more
     */
    static Workspace resumed(SessionFile.Session session, FurtherTapes further, Optional<Path> sessions) {
        return new Workspace(session.documents(), session.inputs(), session.tapeReference(), further,
                ZoneId.systemDefault(), session, sessions);
    }

    private Workspace(SessionFile.Set documents, Inputs inputs, String tape, FurtherTapes further, ZoneId own,
            SessionFile.Session session, Optional<Path> sessions) {
        this.further = further;
        this.documents = documents;
        this.inputs = inputs;
        this.tape = tape;
        this.own = own;
        this.sessions = sessions;
        Run run = session.resumed();
        this.begin = run.engine().lastTime();
        file = sessions.map(folder -> SessionFile.fresh(folder));
        Optional<SessionFile.Recorder> recorder = file
                .map(path -> new SessionFile.Recorder(path, tape, documents, inputs));
        recorder.ifPresent(r -> session.commands().forEach(placed -> r.command(placed.place(), placed.command())));
        for (int i = 0; i < inputs.strategies().size(); i++) {
            Command off = new Command.SetMode(i, Mode.OFF);
            recorder.ifPresent(r -> r.command(run.place(), off));
            run.command(off);
        }
        this.replay = new Replay(run, recorder.map(r -> r)).start();
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

    /** The account has other own limits: the replay goes on with what is tighter at once, and with what is looser from the next day. */
    void limits(Documents.Read<Account> account) {
        replay.command(new Command.ChangeLimits(account.value().own()));
        documents = new SessionFile.Set(documents.contract(), account, documents.strategies(), documents.others());
        inputs = documents.inputs(inputs.tape(), inputs.terms()).over(inputs.days()).rolling(inputs.rolls());
    }

    /** Goes to where the story begins, everything off. */
    public void toBeginning() {
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

    /** The trading day that is replayed first. */
    java.time.LocalDate firstDay() {
        return inputs.contract().calendar().tradingDate(begin)
                .orElseGet(() -> inputs.contract().calendar().current(begin).orElseThrow().tradingDate());
    }
}
