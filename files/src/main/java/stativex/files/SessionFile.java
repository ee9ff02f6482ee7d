package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import stativex.account.Account;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.tape.FurtherTape;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/**
 * A session file: every input of a replay, an {@link InputJournal}. The first line holds tape reference, heartbeats, terms and
 * documents; each further line is one command of the person with its place (inputs worked before it); a last one holds
 * the place where the session ended. A line is written and forced to disk before its command acts, so a killed session
 * loses nothing; a torn last line is left out.
 */
public final class SessionFile {
    /** Where a session's tapes come from: {@code demo}, or a CSV file. */
    public interface TapeSource {
        /** @throws BadInput when there is no such tape */
        Tape tape(String reference, Contract contract);
    }

    /**
     * Documents as read.
     *
     * @param others tapes of the further contracts that strategies look at
     */
    public record Set(Documents.Read<Contract> contract, Documents.Read<Account> account,
            List<Documents.Read<Strategy>> strategies, List<FurtherTape> others) {
        public Set {
            strategies = List.copyOf(strategies);
            others = List.copyOf(others);
        }

        /** Documents of strategies that look at no other contract. */
        public Set(Documents.Read<Contract> contract, Documents.Read<Account> account,
                List<Documents.Read<Strategy>> strategies) {
            this(contract, account, strategies, List.of());
        }

        /** Inputs with these documents. */
        public Inputs inputs(Tape tape, Terms terms) {
            return Inputs.of(tape, contract.value(), tapes(), account.value(), values(), terms);
        }

        private List<Strategy> values() {
            return strategies.stream().map(Documents.Read::value).toList();
        }

        private Map<String, ContractTape> tapes() {
            return others.stream().collect(Collectors.toMap(FurtherTape::symbol, FurtherTape::contractTape));
        }
    }

    /** Since version 2 each line carries its length and checksum. */
    private static final int VERSION = 2;

    private SessionFile() {}

    /** A name in {@code folder} that no file has yet, telling when the session was begun. */
    public static Path fresh(Path folder) {
        String begun = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss").format(LocalDateTime.now());
        Path file = folder.resolve(begun + ".session.jsonl");
        for (int i = 2; Files.exists(file); i++) {
            file = folder.resolve(begun + "-" + i + ".session.jsonl");
        }
        return file;
    }

    /** Records a session while it runs. Not safe for several threads. */
    public static final class Recorder implements SessionRecord {
        private final Path file;
        private final InputJournal.Writer journal;
        private final List<String> names;

        /** Begins a new file. */
        public Recorder(Path file, String tapeReference, Set documents, Inputs inputs) {
            this.file = file;
            this.names = inputs.strategies().stream().map(Strategy::name).toList();
            Map<String, Object> header = new LinkedHashMap<>();
            header.put("document", "session");
            header.put("version", VERSION);
            header.put("engine", ResultFiles.engineVersion());
            put(header, tapeReference, inputs.tape());
            List<String> beats = new ArrayList<>();
            for (long time : inputs.heartbeats()) {
                beats.add(TapeTime.instant(time).toString());
            }
            header.put("heartbeats", beats);
            header.put("realism", inputs.terms().realism().word());
            header.put("latencyNanos", inputs.terms().latency());
            inputs.firstDay().ifPresent(day -> header.put("firstDay", day.toString()));
            header.put("contract", documents.contract().document());
            if (!documents.others().isEmpty()) {
                header.put("others", documents.others().stream().map(other -> {
                    Map<String, Object> one = new LinkedHashMap<>();
                    put(one, other.reference(), other.tape());
                    one.put("contract", other.contract().document());
                    return one;
                }).toList());
            }
            header.put("account", documents.account().document());
            header.put("strategies", documents.strategies().stream().map(Documents.Read::document).toList());
            journal = new InputJournal.Writer(file);
            journal.append(header);
        }

        private static void put(Map<String, Object> header, String reference, Tape tape) {
            header.put("tape", reference);
            header.put("prints", tape.count());
            header.put("checksum", Long.toHexString(tape.checksum()));
        }

        public Path file() {
            return file;
        }

        @Override
        public void command(int place, Command command) {
            Map<String, Object> line = new LinkedHashMap<>();
            line.put("place", place);
            line.put("command", word(command));
            switch (command) {
                case Command.SetMode c -> {
                    line.put("strategy", names.get(c.strategy()));
                    line.put("to", c.mode().word());
                }
                case Command.SetSide c -> {
                    line.put("strategy", names.get(c.strategy()));
                    line.put("side", c.side().word());
                    line.put("to", c.on() ? "on" : "off");
                }
                case Command.SetOnce c -> {
                    line.put("strategy", names.get(c.strategy()));
                    line.put("to", c.once() ? "on" : "off");
                }
                case Command.Breakeven c -> line.put("strategy", names.get(c.strategy()));
                case Command.HalfOff c -> line.put("strategy", names.get(c.strategy()));
                case Command.Flatten c -> line.put("strategy", names.get(c.strategy()));
                case Command.FlatAndLock ignored -> {
                }
            }
            journal.append(line);
        }

        @Override
        public void end(int place) {
            journal.append(Map.of("end", place));
        }

        @Override
        public void close() {
            journal.close();
        }
    }

    /** A command and its place. */
    public record Placed(int place, Command command) {}

    /**
     * A session as read.
     *
     * @param engine version of engine and zone data that recorded it
     * @param end where it ended; empty when it was cut off, then it is run to the tape's end
     */
    public record Session(String engine, Set documents, Inputs inputs, String tapeReference, List<Placed> commands,
            OptionalInt end) {
        /** Runs it again: the same inputs give the same fills. */
        public Run run() {
            Run run = new Run(inputs);
            for (Placed placed : commands) {
                run.toPlace(placed.place());
                run.command(placed.command());
            }
            run.toPlace(end.orElse(run.length()));
            run.finish();
            return run;
        }
    }

    /** @throws BadInput naming the line that is wrong, or saying that the tape is another one */
    public static Session read(Path file, TapeSource tapes) {
        List<String> lines = InputJournal.read(file);
        if (lines.isEmpty()) {
            throw new BadInput(file + ", line 1: expected a session's first line, found an empty file");
        }
        String first = file + ", line 1";
        JsonNode header = Json.parse(lines.getFirst(), first);
        expect(header, first, "document", "version", "engine", "tape", "prints", "checksum", "heartbeats", "realism",
                "latencyNanos", "contract", "account", "strategies");
        if (!header.get("document").asString().equals("session")
                || !List.of(1, VERSION).contains(header.get("version").asInt())) {
            throw new BadInput(first + ": expected a session of version 1 or " + VERSION);
        }
        Set documents = documents(header, first, tapes);
        Tape tape = tape(header, documents.contract().value(), first, tapes);
        Inputs inputs;
        try {
            inputs = inputs(header, documents, tape);
        } catch (IllegalArgumentException | DateTimeException | ArithmeticException | JacksonException e) {
            throw new BadInput(first + ": expected times, realism and latency of a session: " + e.getMessage(), e);
        }
        List<Placed> commands = new ArrayList<>();
        OptionalInt end = OptionalInt.empty();
        for (int i = 1; i < lines.size(); i++) {
            String place = file + ", line " + (i + 1);
            JsonNode line = Json.parse(lines.get(i), place);
            if (line.has("end")) {
                end = OptionalInt.of(line.get("end").asInt());
            } else {
                commands.add(placed(line, place, inputs));
            }
        }
        return new Session(header.get("engine").asString(), documents, inputs, header.get("tape").asString(),
                List.copyOf(commands), end);
    }

    private static void expect(JsonNode header, String place, String... names) {
        for (String name : names) {
            if (!header.has(name)) {
                throw new BadInput(place + ": expected the field \"" + name + "\" of a session, found none");
            }
        }
    }

    /** The tape that a header names, if it is the same as when it was recorded. */
    private static Tape tape(JsonNode header, Contract contract, String place, TapeSource tapes) {
        Tape tape = tapes.tape(header.get("tape").asString(), contract);
        if (tape.count() != header.get("prints").asInt()
                || !Long.toHexString(tape.checksum()).equals(header.get("checksum").asString())) {
            throw new BadInput(place + ": expected the tape \"" + header.get("tape").asString() + "\" with "
                    + header.get("prints") + " prints and checksum " + header.get("checksum").asString() + ", found "
                    + tape.count() + " prints and " + Long.toHexString(tape.checksum()));
        }
        return tape;
    }

    private static Inputs inputs(JsonNode header, Set documents, Tape tape) {
        long[] heartbeats = header.get("heartbeats").valueStream()
                .mapToLong(beat -> TapeTime.nanos(Instant.parse(beat.asString()))).toArray();
        Terms terms = new Terms(Realism.valueOf(header.get("realism").asString().toUpperCase(Locale.ROOT)),
                header.get("latencyNanos").asLong());
        return new Inputs(tape, documents.contract().value(), documents.tapes(), documents.account().value(),
                documents.values(), terms,
                header.has("firstDay")
                        ? Optional.of(LocalDate.parse(header.get("firstDay").asString()))
                        : Optional.empty(),
                heartbeats);
    }

    private static Set documents(JsonNode header, String place, TapeSource tapes) {
        List<Documents.Read<Strategy>> strategies = new ArrayList<>();
        for (JsonNode document : header.get("strategies")) {
            strategies.add(Documents.strategy(document, place, SessionFile::noFile));
        }
        List<FurtherTape> others = new ArrayList<>();
        for (JsonNode other : header.path("others")) {
            expect(other, place, "tape", "prints", "checksum", "contract");
            Documents.Read<Contract> contract = Documents.contract(other.get("contract"), place);
            others.add(new FurtherTape(other.get("tape").asString(), contract,
                    tape(other, contract.value(), place, tapes)));
        }
        return new Set(Documents.contract(header.get("contract"), place),
                Documents.account(header.get("account"), place, SessionFile::noFile), strategies, others);
    }

    private static JsonNode noFile(String name) {
        throw new BadInput("expected a session to hold the document " + name + " itself");
    }

    private static Placed placed(JsonNode line, String place, Inputs inputs) {
        try {
            return new Placed(Integer.parseInt(text(line, "place")), command(line, inputs));
        } catch (IllegalArgumentException e) {
            throw new BadInput(place + ": expected a command with its place, found " + line, e);
        }
    }

    private static String text(JsonNode line, String name) {
        if (!line.has(name)) {
            throw new IllegalArgumentException("no field " + name);
        }
        return line.get(name).asString();
    }

    private static Command command(JsonNode line, Inputs inputs) {
        String word = text(line, "command");
        if (word.equals("flat and lock")) {
            return new Command.FlatAndLock();
        }
        String name = text(line, "strategy");
        int strategy = inputs.strategies().stream().map(Strategy::name).toList().indexOf(name);
        if (strategy < 0) {
            throw new IllegalArgumentException("no strategy " + name);
        }
        return switch (word) {
            case "mode" -> new Command.SetMode(strategy, Mode.valueOf(text(line, "to").toUpperCase(Locale.ROOT)));
            case "side" -> new Command.SetSide(strategy,
                    Side.valueOf(text(line, "side").toUpperCase(Locale.ROOT)),
                    text(line, "to").equals("on"));
            case "once" -> new Command.SetOnce(strategy, text(line, "to").equals("on"));
            case "breakeven" -> new Command.Breakeven(strategy);
            case "half off" -> new Command.HalfOff(strategy);
            case "flatten" -> new Command.Flatten(strategy);
            default -> throw new IllegalArgumentException("no command " + word);
        };
    }

    private static String word(Command command) {
        return switch (command) {
            case Command.SetMode ignored -> "mode";
            case Command.SetSide ignored -> "side";
            case Command.SetOnce ignored -> "once";
            case Command.Breakeven ignored -> "breakeven";
            case Command.HalfOff ignored -> "half off";
            case Command.Flatten ignored -> "flatten";
            case Command.FlatAndLock ignored -> "flat and lock";
        };
    }
}
