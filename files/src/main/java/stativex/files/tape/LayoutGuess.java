package stativex.files.tape;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.Plain;
import stativex.market.Contract;

/**
 * Looks at the first lines of a tick file and guesses how it is to be read. The guess is shown and can be changed; nothing
 * is imported on a guess that nobody has seen.
 */
public final class LayoutGuess {
    private static final int PADDING = 16;

    /** Lines looked at. */
    private static final int LOOKED_AT = 2000;
    private static final Pattern EPOCH = Pattern.compile("-?[0-9]{9,19}([.,][0-9]+)?");
    private static final Pattern DATE = Pattern.compile("([0-9]{1,4})[-/.]([0-9]{1,2})[-/.]([0-9]{1,4})([T ].*)?");
    private static final Pattern DIGITS = Pattern.compile("[0-9]{8}([T ].*)?");
    private static final Pattern CLOCK = Pattern.compile("[0-9]{1,2}:[0-9]{2}(:.*)?|[0-9]{6}([.,]?[0-9]+)?");
    private static final Pattern NUMBER = Pattern.compile("[-+]?[0-9]+([.,][0-9]+)?");
    private static final Pattern OFFSET = Pattern.compile(".*(Z|[-+][0-9]{2}(:?[0-9]{2})?)");

    private final List<List<String>> rows = new ArrayList<>();
    private final List<String> doubts = new ArrayList<>();
    private final List<List<String>> data;
    private final ZoneId assumed;
    private final TickLayout layout;

    private LayoutGuess(Path file, ZoneId assumed) throws IOException {
        char delimiter = delimiter(file);
        try (ByteLines lines = new ByteLines(Plain.open(file))) {
            while (rows.size() < LOOKED_AT && lines.next()) {
                rows.add(fields(file, lines, delimiter));
            }
        }
        if (rows.isEmpty()) {
            throw new BadInput(file + ": expected ticks, found an empty file");
        }
        boolean header = rows.getFirst().stream().noneMatch(field -> NUMBER.matcher(field.strip()).matches());
        List<String> names = header ? rows.getFirst().stream().map(String::strip).toList() : numbered(rows.getFirst());
        List<List<String>> data = rows.subList(header ? 1 : 0, rows.size());
        List<Column> columns = header ? named(names, data) : unnamed(data);
        this.data = data;
        this.assumed = assumed;
        layout = layout(delimiter, header, names, columns);
    }

    /** The same file with another mapping: how times and prices are written is guessed anew. */
    public TickLayout with(List<Column> columns) {
        doubts.clear();
        return layout(layout.delimiter(), layout.header(), layout.names(), columns);
    }

    private TickLayout layout(char delimiter, boolean header, List<String> names, List<Column> columns) {
        char mark = delimiter != ',' && columnsWith(columns, data, Column.PRICE).anyMatch(p -> p.contains(","))
                ? ','
                : '.';
        TimeForm form = form(columns, data);
        boolean local = form.unit() == 0 && columnsWith(columns, data,
                columns.contains(Column.TIME) ? Column.TIME : Column.CLOCK)
                .anyMatch(t -> !OFFSET.matcher(t.replaceFirst("^[^T ]*[T ]", "")).matches());
        if (local) {
            doubts.add("some times carry no offset from UTC: they are read as local times in " + assumed);
        }
        return new TickLayout(delimiter, header, names, columns, form,
                local ? Optional.of(assumed) : Optional.empty(), mark, true);
    }

    /**
     * @param assumed zone of times without an offset
     * @throws BadInput when the file cannot be read
     */
    public static LayoutGuess of(Path file, ZoneId assumed) {
        try {
            return new LayoutGuess(file, assumed);
        } catch (NoSuchFileException e) {
            throw new BadInput(file + ": no such file", e);
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
    }

    public TickLayout layout() {
        return layout;
    }

    /** What the person should look at twice, in words. */
    public List<String> doubts() {
        return List.copyOf(doubts);
    }

    /** The first data rows as they are in the file. */
    public List<List<String>> rows(int most) {
        int from = layout.header() ? 1 : 0;
        return rows.subList(Math.min(from, rows.size()), Math.min(rows.size(), from + most));
    }

    /** Time of the first data row, nanoseconds; empty when it does not read. */
    public Optional<Long> begins(Contract contract) {
        List<List<String>> first = rows(1);
        int time = layout.columns().indexOf(Column.TIME);
        int date = layout.columns().indexOf(Column.DATE);
        int clock = layout.columns().indexOf(Column.CLOCK);
        if (first.isEmpty() || first.getFirst().size() <= Math.max(time, Math.max(date, clock))) {
            return Optional.empty();
        }
        FieldText text = new FieldText(layout, contract);
        long found = FieldText.BAD;
        if (time >= 0) {
            byte[] at = bytes(first.getFirst().get(time));
            found = text.time(at, 0, at.length - PADDING);
        } else if (date >= 0 && clock >= 0) {
            byte[] day = bytes(first.getFirst().get(date));
            byte[] both = bytes(first.getFirst().get(date).strip() + first.getFirst().get(clock).strip());
            int days = day.length - PADDING;
            found = text.time(both, 0, days, days, both.length - PADDING);
        }
        return found == FieldText.BAD ? Optional.empty() : Optional.of(found);
    }

    /** Readers look at eight bytes at once: there are some behind the text. */
    private static byte[] bytes(String text) {
        byte[] plain = text.strip().getBytes(StandardCharsets.UTF_8);
        return Arrays.copyOf(plain, plain.length + PADDING);
    }

    /** The delimiter that splits the first lines into the same number of fields, and the most. */
    private static char delimiter(Path file) throws IOException {
        char best = ',';
        int most = 0;
        for (char candidate : new char[]{',', ';', '\t'}) {
            try (ByteLines lines = new ByteLines(Plain.open(file))) {
                int fields = -1;
                for (int i = 0; i < 20 && lines.next(); i++) {
                    int found = fields(file, lines, candidate).size();
                    fields = fields == -1 ? found : Math.min(fields, found);
                }
                if (fields > most) {
                    most = fields;
                    best = candidate;
                }
            }
        }
        return best;
    }

    /** A line that is no CSV counts as one field; reading it later says what is wrong. */
    private static List<String> fields(Path file, ByteLines lines, char delimiter) throws IOException {
        try {
            return TickCsv.fields(file.toString(), lines, delimiter);
        } catch (BadInput e) {
            return List.of(new String(lines.bytes(), lines.from(), lines.to() - lines.from(), StandardCharsets.UTF_8));
        }
    }

    private static List<String> numbered(List<String> row) {
        List<String> names = new ArrayList<>();
        for (int i = 1; i <= row.size(); i++) {
            names.add("column " + i);
        }
        return names;
    }

    private List<Column> named(List<String> names, List<List<String>> data) {
        List<Column> columns = new ArrayList<>();
        for (String name : names) {
            Column guess = Column.guess(name);
            columns.add(columns.contains(guess) ? Column.LEFT_OUT : guess);
        }
        // a column called time beside one of dates is a time of day; one called date that holds both is a time
        int time = columns.indexOf(Column.TIME);
        int date = columns.indexOf(Column.DATE);
        if (date >= 0 && time >= 0 && field(data, time).map(t -> CLOCK.matcher(t).matches()).orElse(false)) {
            columns.set(time, Column.CLOCK);
        } else if (date >= 0 && time < 0 && !columns.contains(Column.CLOCK)) {
            columns.set(date, Column.TIME);
        } else if (date >= 0 && time >= 0) {
            columns.set(date, Column.LEFT_OUT);
        }
        if (!columns.contains(Column.TIME) && !columns.contains(Column.DATE)) {
            // no name says so: the first column whose values look like times
            for (int i = 0; i < columns.size(); i++) {
                if (columns.get(i) == Column.LEFT_OUT && field(data, i).filter(LayoutGuess::isTime).isPresent()) {
                    columns.set(i, Column.TIME);
                    break;
                }
            }
        }
        if (!columns.contains(Column.DATE)) {
            columns.replaceAll(c -> c == Column.CLOCK ? Column.LEFT_OUT : c);
        }
        return columns;
    }

    private static boolean isTime(String text) {
        return EPOCH.matcher(text).matches() || text.contains(":") && DATE.matcher(text).matches()
                || text.contains(":") && DIGITS.matcher(text).matches();
    }

    private static Optional<String> field(List<List<String>> data, int column) {
        return data.isEmpty() || data.getFirst().size() <= column
                ? Optional.empty()
                : Optional.of(data.getFirst().get(column).strip());
    }

    /** Without names: time first, then price, size, bid, ask. */
    private List<Column> unnamed(List<List<String>> data) {
        doubts.add("the file has no header: columns are taken in the order time, price, size, bid, ask");
        int width = data.getFirst().size();
        List<Column> columns = new ArrayList<>();
        boolean apart = field(data, 1).map(t -> t.contains(":")).orElse(false);
        List<Column> order = apart
                ? List.of(Column.DATE, Column.CLOCK, Column.PRICE, Column.SIZE, Column.BID, Column.ASK)
                : List.of(Column.TIME, Column.PRICE, Column.SIZE, Column.BID, Column.ASK);
        for (int i = 0; i < width; i++) {
            boolean number = i < (apart ? 2 : 1) || field(data, i).map(t -> t.isEmpty() || NUMBER.matcher(t).matches())
                    .orElse(false);
            columns.add(i < order.size() && number ? order.get(i) : Column.LEFT_OUT);
        }
        return columns;
    }

    private static java.util.stream.Stream<String> columnsWith(List<Column> columns, List<List<String>> data,
            Column wanted) {
        int at = columns.indexOf(wanted);
        return at < 0
                ? java.util.stream.Stream.empty()
                : data.stream().filter(row -> row.size() > at).map(row -> row.get(at).strip());
    }

    private TimeForm form(List<Column> columns, List<List<String>> data) {
        List<String> times = columnsWith(columns, data,
                columns.contains(Column.DATE) ? Column.DATE : Column.TIME).toList();
        if (!times.isEmpty() && times.stream().allMatch(t -> EPOCH.matcher(t).matches())) {
            int digits = times.getFirst().split("[.,]")[0].replace("-", "").length();
            return digits <= 11
                    ? TimeForm.SECONDS
                    : digits <= 14
                            ? TimeForm.MILLISECONDS
                            : digits <= 17 ? TimeForm.MICROSECONDS : TimeForm.NANOSECONDS;
        }
        int[] largest = new int[3];
        for (String time : times) {
            var date = DATE.matcher(time);
            if (date.matches()) {
                for (int i = 0; i < 3; i++) {
                    largest[i] = Math.max(largest[i], Integer.parseInt(date.group(i + 1)));
                }
            } else if (DIGITS.matcher(time).matches()) {
                largest[0] = Math.max(largest[0], Integer.parseInt(time.substring(0, 4)));
            }
        }
        if (largest[0] > 31 || Arrays.stream(largest).sum() == 0) {
            return TimeForm.YEAR_FIRST;
        }
        if (largest[0] <= 12 && largest[1] <= 12) {
            doubts.add("day and month cannot be told apart in the first " + times.size()
                    + " lines: choose which comes first");
        }
        return largest[1] > 12 ? TimeForm.MONTH_FIRST : TimeForm.DAY_FIRST;
    }
}
