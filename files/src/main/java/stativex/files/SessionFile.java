package stativex.files;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import stativex.account.Account;
import stativex.engine.Command;
import stativex.engine.Strategy;
import stativex.files.tape.FurtherTape;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.Run;
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
    /** Nanoseconds: an hour. */
    private static final long MOST_LATENCY = 3600 * TapeTime.SECOND;

    private SessionFile() {}

    /**
     * Makes an empty file in {@code folder} under a name that tells when the session was begun; copies that ask at once get one each.
     *
     * @throws BadInput when it cannot be made
     */
    public static Path fresh(Path folder) {
        String begun = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss").format(LocalDateTime.now());
        try {
            DataFolder.create(folder);
            for (int i = 1;; i++) {
                Path file = folder.resolve(begun + (i == 1 ? "" : "-" + i) + ".session.jsonl");
                try {
                    DataFolder.newFile(file).close();
                    return file;
                } catch (FileAlreadyExistsException e) {
                    // another copy was there before; the next number is tried
                    continue;
                }
            }
        } catch (IOException e) {
            throw new BadInput(folder + ": cannot be written: " + Causes.of(e), e);
        }
    }

    /** The session that was begun last in a folder; empty without one that reads. */
    public static Optional<Path> last(Path folder) {
        if (!Files.isDirectory(folder)) {
            return Optional.empty();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(file -> file.getFileName().toString().endsWith(".session.jsonl"))
                    .max(Comparator.comparing((Path file) -> file.toFile().lastModified())
                            .thenComparing(Comparator.naturalOrder()));
        } catch (IOException e) {
            return Optional.empty();
        }
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
            RollLines.write(inputs.rolls(), header);
            if (inputs.terms().assumedAhead() > 0) {
                header.put("assumedAhead", inputs.terms().assumedAhead());
            }
            header.put("latencyNanos", inputs.terms().latency());
            inputs.days().first().ifPresent(day -> header.put("firstDay", day.toString()));
            inputs.days().last().ifPresent(day -> header.put("lastDay", day.toString()));
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
            CommandLine.write(command, names, line);
            journal.append(line);
        }

        @Override
        public void reached(int place) {
            journal.append(Map.of("reached", place));
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
     * @param reached how far it is known to have come
     * @param end where it ended; empty when it was cut off, then it is run to the tape's end
     */
    public record Session(String engine, Set documents, Inputs inputs, String tapeReference, List<Placed> commands,
            int reached, OptionalInt end) {
        /** Runs it again: the same inputs give the same fills. */
        public Run run() {
            Run run = worked();
            run.toPlace(end.orElse(run.length()));
            run.finish();
            return run;
        }

        /** Whether there is something of the tape left that it has not come to. */
        public boolean unfinished() {
            return reached < inputs.places();
        }

        /** Whether it came to an instant. @param time nanoseconds */
        public boolean cameTo(long time) {
            return end.orElseGet(inputs::places) > inputs.placesBefore(time);
        }

        /** Runs it again as far as it is known to have come, with everything that is locked by then; it goes on from there. */
        public Run resumed() {
            Run run = worked();
            run.toPlace(reached);
            return run;
        }

        private Run worked() {
            Run run = new Run(inputs);
            for (Placed placed : commands) {
                run.toPlace(placed.place());
                run.command(placed.command());
            }
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
        Field header = Field.root(first, Json.parse(lines.getFirst(), first));
        if (!header.at("document").text().equals("session")
                || !List.of(1, VERSION).contains(header.at("version").integer())) {
            throw new BadInput(first + ": expected a session of version 1 or " + VERSION);
        }
        String engine = header.at("engine").text();
        Set documents = documents(header, tapes);
        Inputs inputs = inputs(header, documents, tape(header, documents.contract().value(), tapes));
        int length = inputs.places();
        List<Placed> commands = new ArrayList<>();
        OptionalInt end = OptionalInt.empty();
        int before = 0;
        for (int i = 1; i < lines.size(); i++) {
            String place = file + ", line " + (i + 1);
            Field line = Field.root(place, Json.parse(lines.get(i), place));
            if (end.isPresent()) {
                throw new BadInput(place + ": expected nothing behind the session's end");
            }
            boolean reached = line.has("reached");
            Field at = line.at(line.has("end") ? "end" : reached ? "reached" : "place");
            int inputsBefore = at.integer();
            if (inputsBefore < before || inputsBefore > length) {
                throw at.problem("expected a place from " + before + ", that of the line above, to " + length
                        + ", all inputs, found " + inputsBefore);
            }
            before = inputsBefore;
            if (line.has("end")) {
                end = OptionalInt.of(inputsBefore);
            } else if (!reached) {
                commands.add(new Placed(inputsBefore, CommandLine.read(line, inputs)));
            }
        }
        return new Session(engine, documents, inputs, header.at("tape").text(), List.copyOf(commands), before, end);
    }

    /** The tape that a header names, if it is the same as when it was recorded. */
    private static Tape tape(Field header, Contract contract, TapeSource tapes) {
        String name = header.at("tape").text();
        int prints = header.at("prints").integer();
        String checksum = header.at("checksum").text();
        Tape tape = tapes.tape(name, contract);
        if (tape.count() != prints || !Long.toHexString(tape.checksum()).equals(checksum)) {
            throw new BadInput(
                    header.file() + ": expected the tape \"" + name + "\" with " + prints + " prints and checksum "
                            + Causes.found(checksum) + ", found " + tape.count() + " prints and "
                            + Long.toHexString(tape.checksum()));
        }
        return tape;
    }

    private static Inputs inputs(Field header, Set documents, Tape tape) {
        List<Field> beats = header.list("heartbeats");
        long[] heartbeats = new long[beats.size()];
        for (int i = 0; i < heartbeats.length; i++) {
            heartbeats[i] = beats.get(i).instant();
            if (i > 0 && heartbeats[i] < heartbeats[i - 1]) {
                throw beats.get(i).problem("expected a time not before the heartbeat above it, found "
                        + beats.get(i).text());
            }
        }
        Terms terms = new Terms(header.at("realism").word(Realism.class),
                header.at("latencyNanos").longInteger(0, MOST_LATENCY),
                header.has("assumedAhead") ? header.at("assumedAhead").longInteger(0, Integer.MAX_VALUE) : 0);
        return header.checked(() -> new Inputs(tape, documents.contract().value(), documents.tapes(),
                documents.account().value(), documents.values(), terms,
                new Days(header.maybe("firstDay").map(Field::date), header.maybe("lastDay").map(Field::date)),
                heartbeats, RollLines.read(header, tape)));
    }

    private static Set documents(Field header, TapeSource tapes) {
        List<Documents.Read<Strategy>> strategies = header.list("strategies").stream()
                .map(document -> Documents.strategy(document.node(), header.file(), SessionFile::noFile)).toList();
        List<FurtherTape> others = new ArrayList<>();
        for (Field other : header.has("others") ? header.list("others") : List.<Field>of()) {
            Documents.Read<Contract> contract = Documents.contract(other.at("contract").node(), header.file());
            others.add(new FurtherTape(other.at("tape").text(), contract, tape(other, contract.value(), tapes)));
        }
        if (others.stream().map(FurtherTape::symbol).distinct().count() < others.size()) {
            throw header.at("others").problem("expected one tape of each contract");
        }
        return new Set(Documents.contract(header.at("contract").node(), header.file()),
                Documents.account(header.at("account").node(), header.file(), SessionFile::noFile), strategies,
                others);
    }

    private static JsonNode noFile(String name) {
        throw new BadInput("expected a session to hold the document " + Causes.found(name) + " itself");
    }
}
