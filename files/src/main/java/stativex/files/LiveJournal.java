package stativex.files;

import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.AccountState;
import stativex.engine.Strategy;
import stativex.interlock.OutOfStep;
import stativex.market.Aggressor;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.FromBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;
import stativex.trial.Inputs;
import stativex.trial.LiveInput;
import stativex.trial.LiveRun;
import stativex.trial.Run;
import tools.jackson.databind.JsonNode;

/**
 * The input journal of a live day: its documents, then everything that went in, in order. With it a day goes on after a kill, and can be
 * run again; what is torn at the end was worked by nobody.
 */
public final class LiveJournal implements LiveRecord {
    private static final int VERSION = 1;
    private static final String IN_STEP = "IN_STEP";

    private final InputJournal.Writer journal;
    private final List<String> names;
    private final Path file;
    private Optional<DiskReserve> reserve = Optional.empty();

    private LiveJournal(Path file, InputJournal.Writer journal, List<Documents.Read<Strategy>> strategies) {
        this.file = file;
        this.journal = journal;
        this.names = strategies.stream().map(Documents.Read::value).map(Strategy::name).toList();
    }

    /**
     * Begins a new one.
     *
     * @param run what the names of its messages begin with
     * @throws BadInput when it cannot be written, or there is one already
     */
    public static LiveJournal begin(Path file, SessionFile.Set documents, String run) {
        return begin(file, documents, run, AccountState.fresh(documents.account().value()));
    }

    /** The same of an account that was traded before. @param state as it was left */
    public static LiveJournal begin(Path file, SessionFile.Set documents, String run, AccountState state) {
        Map<String, Object> header = new LinkedHashMap<>();
        header.put("document", "live day");
        header.put("version", VERSION);
        header.put("engine", ResultFiles.engineVersion());
        header.put("run", run);
        header.put("contract", documents.contract().document());
        header.put("account", documents.account().document());
        header.put("state", AccountStateJson.write(state));
        header.put("strategies", documents.strategies().stream().map(Documents.Read::document).toList());
        LiveJournal made = new LiveJournal(file, new InputJournal.Writer(file), documents.strategies());
        made.journal.append(header);
        return made;
    }

    /** Goes on with one behind its last whole entry. @throws BadInput when it cannot be written */
    public static LiveJournal onto(Recorded recorded) {
        return new LiveJournal(recorded.file(), InputJournal.Writer.onto(recorded.file()),
                recorded.documents().strategies());
    }

    /** Has room reserved for when the disk is full. */
    public LiveJournal reserving(DiskReserve room) {
        reserve = Optional.of(room);
        return this;
    }

    @Override
    public boolean relieve() {
        return reserve.filter(DiskReserve::free).isPresent();
    }

    @Override
    public boolean isNearlyFull() {
        return reserve.filter(DiskReserve::isLittle).isPresent();
    }

    /** Where it is. */
    public Path file() {
        return file;
    }

    // ------------------------------------------------------------------ writing

    @Override
    public void input(LiveInput input) {
        journal.write(line(input));
    }

    @Override
    public void inputs(List<LiveInput> inputs) {
        journal.writeAll(inputs.stream().<Object>map(this::line).toList());
    }

    private Map<String, Object> line(LiveInput input) {
        Map<String, Object> line = new LinkedHashMap<>();
        switch (input) {
            case LiveInput.Print print -> {
                line.put("print", Arrays.asList(print.time(), print.price(), print.size(), some(print.bid()),
                        some(print.ask()), some(print.bidSize()), some(print.askSize()),
                        print.aggressor().map(Aggressor::ordinal).orElse(null)));
                told(print.told(), line);
            }
            case LiveInput.Heartbeat beat -> {
                line.put("beat", beat.time());
                told(beat.told(), line);
            }
            case LiveInput.Told told -> {
                line.put("at", told.time());
                told(told.told(), line);
            }
            case LiveInput.Again again -> line.put("again", again.time());
            case LiveInput.Linked linked -> {
                line.put("linked", linked.why().map(OutOfStep::name).orElse(IN_STEP));
                line.put("cancels", linked.cancels());
            }
            case LiveInput.Gap gap -> line.put("gap", gap.time());
            case LiveInput.Holds holds -> line.put("holds", holds.contracts());
            case LiveInput.Asked asked -> CommandLine.write(asked.command(), names, line);
        }
        return line;
    }

    private static Long some(long value) {
        return value == Tape.NONE ? null : Long.valueOf(value);
    }

    private static void told(List<FromBroker> told, Map<String, Object> line) {
        if (!told.isEmpty()) {
            line.put("told", told.stream().map(LiveJournal::one).toList());
        }
    }

    private static Map<String, Object> one(FromBroker told) {
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("order", told.order());
        switch (told) {
            case FromBroker.Received received -> {
                one.put("is", "received");
                one.put("request", received.request());
            }
            case FromBroker.Working ignored -> one.put("is", "working");
            case FromBroker.Triggered ignored -> one.put("is", "triggered");
            case FromBroker.Ended ignored -> one.put("is", "ended");
            case FromBroker.Known ignored -> one.put("is", "known");
            case FromBroker.NeverAccepted ignored -> one.put("is", "never accepted");
            case FromBroker.Status status -> {
                one.put("is", "status");
                one.put("cumulative", status.cumulative());
                one.put("sum", status.sum());
                one.put("done", status.over());
            }
            case FromBroker.Corrected corrected -> {
                one.put("is", "corrected");
                one.put("execution", corrected.execution());
                one.put("of", corrected.of());
                one.put("quantity", corrected.quantity());
                one.put("price", corrected.quantity() == 0 ? null : Long.valueOf(corrected.price()));
                one.put("cumulative", corrected.cumulative());
                one.put("sum", corrected.sum());
                one.put("time", corrected.time());
            }
            case FromBroker.Elsewhere elsewhere -> {
                one.put("is", "filled elsewhere");
                one.put("execution", elsewhere.execution());
                one.put("buy", elsewhere.buy());
                one.put("quantity", elsewhere.quantity());
                one.put("price", elsewhere.price());
                one.put("done", elsewhere.done());
                one.put("time", elsewhere.time());
            }
            case FromBroker.Foreign foreign -> {
                one.put("is", "somebody else's");
                one.put("words", foreign.words());
                one.put("over", foreign.over());
                one.put("listed", foreign.listed());
            }
            case FromBroker.Repriced repriced -> {
                one.put("is", "repriced");
                one.put("request", repriced.request());
                one.put("price", repriced.price());
            }
            case FromBroker.Turned turned -> {
                one.put("is", "turned");
                one.put("request", turned.request());
            }
            case FromBroker.Refused refused -> {
                one.put("is", "refused");
                one.put("why", refused.why());
            }
            case FromBroker.NotChanged not -> {
                one.put("is", "not changed");
                one.put("request", not.request());
                one.put("why", not.why());
            }
            case FromBroker.Filled filled -> {
                one.put("is", "filled");
                one.put("execution", filled.execution());
                one.put("quantity", filled.quantity());
                one.put("price", filled.price());
                one.put("cumulative", filled.cumulative());
                one.put("done", filled.done());
                one.put("slippage", filled.slippage());
                one.put("time", filled.time());
            }
        }
        return one;
    }

    @Override
    public void force() {
        journal.force();
    }

    @Override
    public void close() {
        journal.close();
    }

    // ------------------------------------------------------------------ reading

    /**
     * A day as it was written down.
     *
     * @param engine version of engine and zone data that recorded it
     */
    public record Recorded(Path file, String engine, SessionFile.Set documents, String run, AccountState state,
            List<LiveInput> inputs) {
        public Recorded {
            inputs = List.copyOf(inputs);
        }

        /** What the day began with. */
        public LiveRun.Start start() {
            return LiveJournal.start(documents, run, state);
        }

        /** How many reports of the broker it holds. */
        public int reports() {
            return inputs.stream().mapToInt(input -> switch (input) {
                case LiveInput.Print print -> reports(print.told());
                case LiveInput.Heartbeat beat -> reports(beat.told());
                case LiveInput.Told told -> reports(told.told());
                case LiveInput.Again ignored -> 0;
                case LiveInput.Linked ignored -> 0;
                case LiveInput.Holds ignored -> 0;
                case LiveInput.Gap ignored -> 0;
                case LiveInput.Asked ignored -> 0;
            }).sum();
        }

        /** Answers to what was asked are none of the broker's own reports. */
        private static int reports(List<FromBroker> told) {
            return (int) told.stream().filter(one -> !(one instanceof FromBroker.Known
                    || one instanceof FromBroker.NeverAccepted || one instanceof FromBroker.Status
                    || one instanceof FromBroker.Foreign foreign && foreign.listed())).count();
        }

        /** How many prints and moments it holds. */
        public int steps() {
            return (int) inputs.stream()
                    .filter(input -> input instanceof LiveInput.Print || input instanceof LiveInput.Heartbeat).count();
        }

        /** Works everything that went in once more: the same state, and the same names of the same messages. */
        public Worked again() {
            LiveRun again = new LiveRun(start());
            List<ToBroker> sent = new ArrayList<>();
            inputs.forEach(input -> sent.addAll(again.take(input)));
            return new Worked(again, sent);
        }

        /** What the day has come to, as a run that is over: what is open is closed at the last price. */
        public Run result() {
            return LiveJournal.result(documents, again().run());
        }
    }

    /** A day worked once more. @param sent messages that it led to; the last of them may never have left */
    public record Worked(LiveRun run, List<ToBroker> sent) {
        public Worked {
            sent = List.copyOf(sent);
        }
    }

    /** A day as a run that is over: what is open is closed at the last price. */
    public static Run result(SessionFile.Set documents, LiveRun day) {
        day.engine().finish();
        return Run.worked(documents.inputs(day.tape(), Terms.DEFAULT), day.engine());
    }

    /** Whether a file is one of these. */
    public static boolean is(Path file) {
        List<String> lines = InputJournal.read(file);
        return !lines.isEmpty() && lines.getFirst().contains("\"live day\"");
    }

    /** Whether a file is a day of these documents, as far as its first line says. */
    static boolean isOf(Path file, SessionFile.Set documents) {
        try {
            String first = InputJournal.first(file);
            Field header = Field.root(String.valueOf(file), Json.parse(first, String.valueOf(file)));
            return header.at("document").text().equals("live day")
                    && header.at("contract").node().equals(documents.contract().document())
                    && header.at("account").node().equals(documents.account().document())
                    && header.list("strategies").stream().map(Field::node).toList()
                            .equals(documents.strategies().stream().map(Documents.Read::document).toList());
        } catch (BadInput e) {
            return false;
        }
    }

    /** What a new day begins with. @param run what the names of its messages begin with */
    public static LiveRun.Start start(SessionFile.Set documents, String run) {
        return start(documents, run, AccountState.fresh(documents.account().value()));
    }

    /** The same of an account that was traded before. @param state as it was left */
    public static LiveRun.Start start(SessionFile.Set documents, String run, AccountState state) {
        return new LiveRun.Start(documents.contract().value(), documents.account().value(),
                documents.strategies().stream().map(Documents.Read::value).toList(), new TapeBuilder(1).build(),
                Optional.<LocalDate>empty(), state, run);
    }

    /** @throws BadInput naming the line that is wrong */
    public static Recorded read(Path file) {
        List<String> lines = InputJournal.read(file);
        if (lines.isEmpty()) {
            throw new BadInput(file + ", line 1: expected a live day's first line, found an empty file");
        }
        String first = file + ", line 1";
        Field header = Field.root(first, Json.parse(lines.getFirst(), first));
        if (!header.at("document").text().equals("live day") || header.at("version").integer() != VERSION) {
            throw new BadInput(first + ": expected a live day of version " + VERSION);
        }
        List<Documents.Read<Strategy>> strategies = header.list("strategies").stream()
                .map(document -> Documents.strategy(document.node(), header.file(), LiveJournal::noFile)).toList();
        SessionFile.Set documents = new SessionFile.Set(
                Documents.contract(header.at("contract").node(), header.file()),
                Documents.account(header.at("account").node(), header.file(), LiveJournal::noFile), strategies);
        Inputs words = documents.inputs(new TapeBuilder(1).build(), Terms.DEFAULT);
        List<LiveInput> inputs = new ArrayList<>(lines.size());
        for (int i = 1; i < lines.size(); i++) {
            String place = file + ", line " + (i + 1);
            inputs.add(input(Field.root(place, Json.parse(lines.get(i), place)), words));
        }
        return new Recorded(file, header.at("engine").text(), documents, header.at("run").text(),
                header.maybe("state").map(AccountStateJson::read)
                        .orElseGet(() -> AccountState.fresh(documents.account().value())),
                inputs);
    }

    private static JsonNode noFile(String name) {
        throw new BadInput("expected a live day to hold the document " + Causes.found(name) + " itself");
    }

    private static LiveInput input(Field line, Inputs words) {
        if (line.has("print")) {
            List<Field> of = line.list("print");
            if (of.size() != 8) {
                throw line.at("print").problem("expected eight values of a print, found " + of.size());
            }
            return new LiveInput.Print(whole(of.get(0)), whole(of.get(1)), whole(of.get(2)), maybe(of.get(3)),
                    maybe(of.get(4)), maybe(of.get(5)), maybe(of.get(6)),
                    of.get(7).node().isNull()
                            ? Optional.empty()
                            : Optional.of(Aggressor.values()[(int) of.get(7).longInteger(0, 2)]),
                    told(line));
        }
        if (line.has("beat")) {
            return new LiveInput.Heartbeat(whole(line.at("beat")), told(line));
        }
        if (line.has("at")) {
            return new LiveInput.Told(whole(line.at("at")), told(line));
        }
        if (line.has("linked")) {
            String word = line.at("linked").text();
            Optional<OutOfStep> why = Arrays.stream(OutOfStep.values()).filter(one -> one.name().equals(word))
                    .findFirst();
            if (why.isEmpty() && !word.equals(IN_STEP)) {
                throw line.at("linked").problem("expected how the link stands, found " + Causes.found(word));
            }
            return new LiveInput.Linked(why, line.at("cancels").flag());
        }
        if (line.has("gap")) {
            return new LiveInput.Gap(whole(line.at("gap")));
        }
        if (line.has("holds")) {
            return new LiveInput.Holds(whole(line.at("holds")));
        }
        if (line.has("again")) {
            return new LiveInput.Again(whole(line.at("again")));
        }
        return new LiveInput.Asked(CommandLine.read(line, words));
    }

    private static long whole(Field field) {
        return field.longInteger(Long.MIN_VALUE + 1, Long.MAX_VALUE);
    }

    private static long maybe(Field field) {
        return field.node().isNull() ? Tape.NONE : whole(field);
    }

    private static List<FromBroker> told(Field line) {
        return line.has("told") ? line.list("told").stream().map(LiveJournal::one).toList() : List.of();
    }

    private static FromBroker one(Field of) {
        String order = of.at("order").text();
        return switch (of.at("is").text()) {
            case "received" -> new FromBroker.Received(order, of.at("request").text());
            case "working" -> new FromBroker.Working(order);
            case "triggered" -> new FromBroker.Triggered(order);
            case "ended" -> new FromBroker.Ended(order);
            case "known" -> new FromBroker.Known(order);
            case "never accepted" -> new FromBroker.NeverAccepted(order);
            case "status" -> new FromBroker.Status(order, of.at("cumulative").integer(), whole(of.at("sum")),
                    of.at("done").flag());
            case "corrected" -> new FromBroker.Corrected(order, of.at("execution").text(), of.at("of").text(),
                    of.at("quantity").integer(), maybe(of.at("price")), of.at("cumulative").integer(),
                    whole(of.at("sum")),
                    whole(of.at("time")));
            case "filled elsewhere" -> new FromBroker.Elsewhere(order, of.at("execution").text(),
                    of.at("buy").flag(), of.at("quantity").integer(), whole(of.at("price")),
                    of.at("done").flag(), whole(of.at("time")));
            case "somebody else's" -> new FromBroker.Foreign(order, of.at("words").text(), of.at("over").flag(),
                    of.at("listed").flag());
            case "repriced" -> new FromBroker.Repriced(order, of.at("request").text(), whole(of.at("price")));
            case "turned" -> new FromBroker.Turned(order, of.at("request").text());
            case "refused" -> new FromBroker.Refused(order, of.at("why").text());
            case "not changed" -> new FromBroker.NotChanged(order, of.at("request").text(), of.at("why").text());
            case "filled" -> new FromBroker.Filled(order, of.at("execution").text(), of.at("quantity").integer(),
                    whole(of.at("price")), of.at("cumulative").integer(), of.at("done").flag(),
                    whole(of.at("slippage")), whole(of.at("time")));
            default -> throw of.at("is").problem("expected what became of an order, found "
                    + Causes.found(of.at("is").text()));
        };
    }
}
