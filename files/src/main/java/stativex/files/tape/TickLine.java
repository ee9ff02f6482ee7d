package stativex.files.tape;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import stativex.files.Causes;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Tape;

/**
 * One line of a tick file taken apart. Plain lines are read from their bytes; a line with a quote mark goes through the CSV
 * library first. Not safe for several threads.
 */
final class TickLine {
    static final String ONE_LINE = "expected one line, found a carriage return inside it";
    static final String QUOTED = "expected CSV on one line, found a quote mark that does not close or text behind one that does";
    private static final long QUOTES = EightBytes.all('"');
    private static final long BUYER_WORD = EightBytes.key("buyer");
    private static final long SELLER_WORD = EightBytes.key("seller");
    private static final long UNKNOWN_WORD = EightBytes.key("unknown");
    private static final Optional<Aggressor> BUYER = Optional.of(Aggressor.BUYER);
    private static final Optional<Aggressor> SELLER = Optional.of(Aggressor.SELLER);
    private static final Optional<Aggressor> UNKNOWN = Optional.of(Aggressor.UNKNOWN);

    long time;
    long price;
    long size;
    long bid;
    long ask;
    long bidSize;
    long askSize;
    Optional<Aggressor> aggressor = Optional.empty();

    private final TickLayout layout;
    private final Contract contract;
    private final FieldText text;
    private final Column[] columns;
    private final boolean loose;
    private final long delimiters;
    /** Where each value stands; −1 where there is none. */
    private final int timeAt;
    private final int dateAt;
    private final int clockAt;
    private final int priceAt;
    private final int sizeAt;
    private final int bidAt;
    private final int askAt;
    private final int bidSizeAt;
    private final int askSizeAt;
    private final int aggressorAt;
    private final int[] starts;
    private final int[] ends;
    private byte[] bytes = new byte[0];

    /** What is wrong with a line: the kind, the column if it is one's fault, and what was expected and found. */
    record Problem(Finding kind, Optional<String> column, String message) {}

    TickLine(TickLayout layout, Contract contract) {
        this.layout = layout;
        this.contract = contract;
        this.text = new FieldText(layout, contract);
        this.columns = layout.columns().toArray(Column[]::new);
        this.loose = layout.loose();
        this.delimiters = EightBytes.all(layout.delimiter());
        List<Column> where = layout.columns();
        this.timeAt = where.indexOf(Column.TIME);
        this.dateAt = where.indexOf(Column.DATE);
        this.clockAt = where.indexOf(Column.CLOCK);
        this.priceAt = where.indexOf(Column.PRICE);
        this.sizeAt = where.indexOf(Column.SIZE);
        this.bidAt = where.indexOf(Column.BID);
        this.askAt = where.indexOf(Column.ASK);
        this.bidSizeAt = where.indexOf(Column.BID_SIZE);
        this.askSizeAt = where.indexOf(Column.ASK_SIZE);
        this.aggressorAt = where.indexOf(Column.AGGRESSOR);
        this.starts = new int[columns.length];
        this.ends = new int[columns.length];
    }

    /** Reads a line into the fields above; empty when all is well. */
    Optional<Problem> read(byte[] b, int from, int to) {
        int count = split(b, from, to);
        if (count < 0) {
            if (carriageReturn(b, from, to)) {
                return problem(Finding.UNREADABLE, Optional.empty(), ONE_LINE);
            }
            List<String> fields;
            try (CsvReader<de.siegmar.fastcsv.reader.CsvRecord> reader = CsvReader.builder()
                    .fieldSeparator(layout.delimiter()).allowMissingFields(true).allowExtraFields(true)
                    .ofCsvRecord(new String(b, from, to - from, StandardCharsets.UTF_8))) {
                fields = reader.iterator().next().getFields();
            } catch (CsvParseException | java.io.IOException e) {
                return problem(Finding.UNREADABLE, Optional.empty(), QUOTED);
            }
            count = unquoted(fields);
        } else {
            bytes = b;
        }
        if (count != columns.length) {
            return problem(Finding.UNREADABLE, Optional.empty(), "expected " + columns.length + " columns"
                    + (layout.header() ? " as in the header" : "") + ", found " + count);
        }
        return values();
    }

    /** Whether a carriage return stands outside quotes, where a CSV reader would take it for the line's end. */
    static boolean carriageReturn(byte[] b, int from, int to) {
        boolean quoted = false;
        for (int at = from; at < to; at++) {
            quoted ^= b[at] == '"';
            if (b[at] == '\r' && !quoted) {
                return true;
            }
        }
        return false;
    }

    /** Finds the fields of a line; returns how many, or −1 when there is a quote mark. */
    private int split(byte[] b, int from, int to) {
        int[] begins = starts;
        int[] stops = ends;
        long splits = delimiters;
        int count = 0;
        int start = from;
        for (int at = from; at < to; at += 8) {
            long word = EightBytes.at(b, at);
            // bytes behind the line's end count for nothing
            long inside = to - at >= 8 ? -1 : (1L << 8 * (to - at)) - 1;
            for (long found = (EightBytes.equal(word, splits) | EightBytes.equal(word, QUOTES))
                    & inside; found != 0; found &= found
                            - 1) {
                int place = at + EightBytes.first(found);
                if (b[place] == '"') {
                    return -1;
                }
                if (count < begins.length) {
                    begins[count] = start;
                    stops[count] = place;
                }
                count++;
                start = place + 1;
            }
        }
        if (count < begins.length) {
            begins[count] = start;
            stops[count] = to;
        }
        return count + 1;
    }

    private int unquoted(List<String> fields) {
        StringBuilder line = new StringBuilder();
        int[] lengths = new int[fields.size()];
        for (int i = 0; i < lengths.length; i++) {
            lengths[i] = fields.get(i).getBytes(StandardCharsets.UTF_8).length;
            line.append(fields.get(i));
        }
        byte[] text = line.toString().getBytes(StandardCharsets.UTF_8);
        // room to read eight bytes from anywhere
        bytes = Arrays.copyOf(text, text.length + 8);
        int at = 0;
        for (int i = 0; i < Math.min(lengths.length, starts.length); i++) {
            starts[i] = at;
            at += lengths[i];
            ends[i] = at;
        }
        return lengths.length;
    }

    private Optional<Problem> values() {
        if (loose) {
            for (int i = 0; i < columns.length; i++) {
                if (starts[i] < ends[i] && (bytes[starts[i]] == ' ' || bytes[ends[i] - 1] == ' ')) {
                    trim(i);
                }
            }
        }
        time = timeAt >= 0
                ? text.time(bytes, starts[timeAt], ends[timeAt])
                : text.time(bytes, starts[dateAt], ends[dateAt], starts[clockAt], ends[clockAt]);
        price = text.price(bytes, starts[priceAt], ends[priceAt]);
        size = FieldText.whole(bytes, starts[sizeAt], ends[sizeAt]);
        size = size == 0 ? FieldText.BAD : size;
        bid = priceOrNone(bidAt);
        ask = priceOrNone(askAt);
        bidSize = sizeOrNone(bidSizeAt);
        askSize = sizeOrNone(askSizeAt);
        aggressor = Optional.empty();
        if (bad(time) || bad(price) || bad(size) || bad(bid) || bad(ask) || bidSize == FieldText.BAD
                || askSize == FieldText.BAD) {
            return firstProblem();
        }
        if (aggressorAt >= 0 && !aggressor(aggressorAt)) {
            return problem(aggressorAt, loose
                    ? "expected a word for buyer or seller"
                    : "expected buyer, seller, unknown or nothing");
        }
        return Optional.empty();
    }

    private long priceOrNone(int field) {
        return field < 0 || starts[field] == ends[field] ? Tape.NONE : text.price(bytes, starts[field], ends[field]);
    }

    private long sizeOrNone(int field) {
        return field < 0 || starts[field] == ends[field]
                ? Tape.NONE
                : FieldText.whole(bytes, starts[field], ends[field]);
    }

    private static boolean bad(long value) {
        return value == FieldText.BAD || value == FieldText.OFF_GRID;
    }

    private void trim(int field) {
        while (starts[field] < ends[field] && bytes[starts[field]] == ' ') {
            starts[field]++;
        }
        while (ends[field] > starts[field] && bytes[ends[field] - 1] == ' ') {
            ends[field]--;
        }
    }

    private boolean aggressor(int field) {
        int length = ends[field] - starts[field];
        if (length == 0) {
            return true;
        }
        if (length <= 8 && starts[field] + 8 <= bytes.length) {
            long key = EightBytes.key(bytes, starts[field], length);
            aggressor = length == 5 && key == BUYER_WORD
                    ? BUYER
                    : length == 6 && key == SELLER_WORD
                            ? SELLER
                            : length == 7 && key == UNKNOWN_WORD ? UNKNOWN : Optional.empty();
            if (aggressor.isPresent()) {
                return true;
            }
        }
        if (!loose && !List.of("buyer", "seller", "unknown").contains(field(field))) {
            return false;
        }
        switch (field(field).toLowerCase(Locale.ROOT)) {
            case "b", "buy", "buyer", "bot", "1", "+1" -> aggressor = BUYER;
            case "s", "sell", "seller", "sld", "-1" -> aggressor = SELLER;
            case "u", "n", "unknown", "none", "0" -> aggressor = UNKNOWN;
            default -> {
                return false;
            }
        }
        return true;
    }

    private String field(int field) {
        return new String(Arrays.copyOfRange(bytes, starts[field], ends[field]), StandardCharsets.UTF_8);
    }

    private Optional<Problem> firstProblem() {
        for (int i = 0; i < columns.length; i++) {
            Optional<Problem> problem = switch (columns[i]) {
                case TIME, DATE -> time == FieldText.BAD
                        ? problem(i, layout.loose()
                                ? "expected a time such as " + layout.times().example()
                                        + (layout.zone().isEmpty() ? " with an offset" : "")
                                : "expected an ISO 8601 time with offset such as 2026-09-24T09:45:00.125Z")
                        : Optional.empty();
                case PRICE -> price(i, price);
                case BID -> price(i, bid);
                case ASK -> price(i, ask);
                case SIZE -> size == FieldText.BAD
                        ? field(i).isEmpty()
                                ? problem(Finding.UNREADABLE, Optional.of(layout.names().get(i)),
                                        "expected a size, found nothing")
                                : problem(i, "expected a whole number of contracts, 1 or more")
                        : Optional.empty();
                case BID_SIZE -> bidSize == FieldText.BAD
                        ? problem(i, "expected a whole number of contracts")
                        : Optional.empty();
                case ASK_SIZE -> askSize == FieldText.BAD
                        ? problem(i, "expected a whole number of contracts")
                        : Optional.empty();
                default -> Optional.empty();
            };
            if (problem.isPresent()) {
                return problem;
            }
        }
        throw new IllegalStateException("a line was refused without a reason");
    }

    private Optional<Problem> price(int field, long value) {
        if (!bad(value)) {
            return Optional.empty();
        }
        String found = field(field);
        if (found.isEmpty()) {
            return problem(Finding.UNREADABLE, Optional.of(layout.names().get(field)),
                    "expected a price, found nothing");
        }
        if (value == FieldText.OFF_GRID) {
            return problem(Finding.OFF_GRID, Optional.of(layout.names().get(field)), "expected a price on the tick grid"
                    + " of " + contract.tickSize().toPlainString() + ", found " + Causes.found(found));
        }
        return problem(field, "expected a plain decimal such as 12" + layout.decimalMark() + "50");
    }

    private Optional<Problem> problem(int field, String expected) {
        return problem(Finding.UNREADABLE, Optional.of(layout.names().get(field)),
                expected + ", found \"" + Causes.found(field(field)) + "\"");
    }

    private static Optional<Problem> problem(Finding kind, Optional<String> column, String message) {
        return Optional.of(new Problem(kind, column, message));
    }
}
