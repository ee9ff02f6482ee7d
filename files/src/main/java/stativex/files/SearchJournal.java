package stativex.files;

import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import stativex.files.VariantTrials.Outcome;
import stativex.files.VariantTrials.Task;
import stativex.market.Tape;
import stativex.search.Tried;

/** What is done of a search, a line for each variant that was tried, so that it goes on where it was. */
final class SearchJournal {
    private final Path file;
    private final String fingerprint;
    private final int days;

    /** @param days of the fit range */
    SearchJournal(Path file, SearchSpec spec, Tape tape, int days) {
        this.file = file;
        this.days = days;
        Map<String, Object> what = new LinkedHashMap<>();
        what.put("engine", ResultFiles.engineVersion());
        what.put("tape", Long.toHexString(tape.checksum()));
        what.put("contract", spec.contract().document());
        what.put("account", spec.account().document());
        what.put("strategy", spec.strategy());
        what.put("settings", spec.settings().stream()
                .map(setting -> List.of(setting.range().toString(), setting.writes().toString())).toList());
        what.put("trial", spec.trial().toString());
        what.put("method", spec.method().toString());
        what.put("ranked", List.of(spec.ranked().score().word(), spec.ranked().least(), spec.ranked().blocks()));
        this.fingerprint = Documents.fingerprint(Json.MAPPER.valueToTree(what));
    }

    /** What is done, and what comes to it. */
    final class Book implements AutoCloseable {
        private final Map<Task, Outcome> known;
        private final InputJournal.Writer writer;

        private Book() {
            boolean begun = Files.exists(file) && !InputJournal.read(file).isEmpty();
            known = read();
            writer = InputJournal.Writer.onto(file);
            if (!begun) {
                writer.append(Map.of("search", fingerprint));
            }
        }

        Optional<Outcome> known(Task task) {
            return Optional.ofNullable(known.get(task));
        }

        void add(Task task, Outcome outcome) {
            writer.append(entry(task, outcome));
            known.put(task, outcome);
        }

        @Override
        public void close() {
            writer.close();
        }
    }

    /** @throws BadInput when the file holds another search, or is damaged */
    Book open() {
        return new Book();
    }

    private static Map<String, Object> entry(Task task, Outcome outcome) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("variant", task.number());
        entry.put("grid", task.grid());
        entry.put("from", task.from());
        entry.put("to", task.to());
        outcome.tried().ifPresentOrElse(tried -> {
            entry.put("trades", tried.trades());
            entry.put("net", tried.net());
            tried.profitFactor().ifPresent(factor -> entry.put("profitFactor", bits(factor)));
            entry.put("deepest", tried.deepestDrawdown());
            tried.expectancyR().ifPresent(r -> entry.put("expectancyR", bits(r)));
            entry.put("stop", tried.hasStop());
            entry.put("days", packed(tried.days()));
        }, () -> entry.put("problem", outcome.problem()));
        return entry;
    }

    /** A double as it is, bit for bit. */
    private static String bits(double value) {
        return Long.toHexString(Double.doubleToRawLongBits(value));
    }

    private static String packed(long[] days) {
        ByteBuffer bytes = ByteBuffer.allocate(8 * days.length);
        for (long day : days) {
            bytes.putLong(day);
        }
        return Base64.getEncoder().encodeToString(bytes.array());
    }

    private Map<Task, Outcome> read() {
        Map<Task, Outcome> known = new HashMap<>();
        if (!Files.exists(file)) {
            return known;
        }
        List<String> lines = InputJournal.read(file);
        for (int i = 0; i < lines.size(); i++) {
            String place = file + ", line " + (i + 1);
            Field line = Field.root(place, Json.parse(lines.get(i), place));
            if (i == 0) {
                if (!line.has("search") || !line.at("search").text().equals(fingerprint)) {
                    throw new BadInput(place + ": expected what was done of this very search (same documents, tape and"
                            + " engine), found another one: choose another folder");
                }
                continue;
            }
            Task task = new Task(line.at("variant").integer(), line.at("grid").longInteger(0, Long.MAX_VALUE),
                    line.at("from").integer(), line.at("to").integer());
            known.put(task, new Outcome(task.number(), task.grid(), task.from() == 0 && task.to() == days - 1,
                    line.has("problem") ? Optional.empty() : Optional.of(tried(line)),
                    line.has("problem") ? line.at("problem").text() : ""));
        }
        return known;
    }

    private static Tried tried(Field line) {
        ByteBuffer bytes = ByteBuffer.wrap(Base64.getDecoder().decode(line.at("days").text()));
        long[] days = new long[bytes.remaining() / 8];
        for (int i = 0; i < days.length; i++) {
            days[i] = bytes.getLong();
        }
        return new Tried(line.at("trades").integer(), line.at("net").longInteger(Long.MIN_VALUE, Long.MAX_VALUE),
                real(line, "profitFactor"), line.at("deepest").longInteger(0, Long.MAX_VALUE),
                real(line, "expectancyR"), days, line.at("stop").flag());
    }

    private static OptionalDouble real(Field line, String name) {
        return line.has(name)
                ? OptionalDouble.of(Double.longBitsToDouble(Long.parseUnsignedLong(line.at(name).text(), 16)))
                : OptionalDouble.empty();
    }
}
