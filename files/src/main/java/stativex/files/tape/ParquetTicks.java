package stativex.files.tape;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.duckdb.DuckDBAppender;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.Plain;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeBlock;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/**
 * Ticks as Parquet: {@code time} (a timestamp, UTC, nanoseconds), {@code price}, {@code bid}, {@code ask} (decimals),
 * {@code size}, {@code bid_size}, {@code ask_size} (integers), {@code aggressor} (text). Reading takes columns by name in any
 * order, other integer, decimal and floating types, and other timestamps, which count as UTC when they carry no zone.
 */
public final class ParquetTicks {
    /** Contracts. */
    private static final long MOST = 1_000_000_000;
    private static final Pattern DECIMAL = Pattern.compile("DECIMAL\\((\\d+),(\\d+)\\)");
    private static final List<Column> COLUMNS = List.of(Column.TIME, Column.PRICE, Column.SIZE, Column.BID, Column.ASK,
            Column.BID_SIZE, Column.ASK_SIZE, Column.AGGRESSOR);

    private ParquetTicks() {}

    /** A column as it is in the file. */
    private record Found(String name, String type) {
        /** SQL that gives what is read: times as counts of {@link #timeUnit}, numbers as {@link #kind} says. */
        String sql(Column column) {
            String name = Parquet.name(name());
            if (column == Column.TIME) {
                return switch (type) {
                    case "TIMESTAMP_NS" -> "epoch_ns(" + name + ")";
                    case "TIMESTAMP_MS", "TIMESTAMP_S", "TIMESTAMP", "TIMESTAMP WITH TIME ZONE" ->
                        "CASE WHEN isfinite(CAST("
                                + name + " AS TIMESTAMP)) THEN epoch_us(" + name + ") END";
                    default -> throw new IllegalArgumentException("expected a timestamp, found " + type);
                };
            }
            if (column == Column.AGGRESSOR) {
                return "CAST(" + name + " AS VARCHAR)";
            }
            return switch (kind()) {
                case WHOLE, FLOATING -> name;
                case DECIMAL -> "CAST(" + name + " * CAST(1" + "0".repeat(scale()) + " AS DECIMAL(18,0)) AS BIGINT)";
                case TEXT -> "CAST(" + name + " AS VARCHAR)";
            };
        }

        /** Nanoseconds. */
        long timeUnit() {
            return type.equals("TIMESTAMP_NS") ? 1 : 1000;
        }

        /** How numbers are handed over; as a text where they may not fit a long. */
        Kind kind() {
            Matcher decimal = DECIMAL.matcher(type);
            if (decimal.matches()) {
                return Integer.parseInt(decimal.group(1)) > 18 || scale() > 17 ? Kind.TEXT : Kind.DECIMAL;
            }
            return switch (type) {
                case "DOUBLE", "FLOAT" -> Kind.FLOATING;
                case "TINYINT", "SMALLINT", "INTEGER", "BIGINT", "UTINYINT", "USMALLINT", "UINTEGER" -> Kind.WHOLE;
                case "UBIGINT", "HUGEINT", "UHUGEINT" -> Kind.TEXT;
                default -> throw new IllegalArgumentException("expected numbers, found " + type);
            };
        }

        int scale() {
            Matcher decimal = DECIMAL.matcher(type);
            return decimal.matches() ? Integer.parseInt(decimal.group(2)) : 0;
        }
    }

    private enum Kind {
        WHOLE, DECIMAL, FLOATING, TEXT
    }

    /** Told of every row that cannot be taken. */
    interface Refused {
        void row(long row, String words);
    }

    static void read(Path file, Contract contract, Intake intake, Refused refused, Progress progress) {
        try {
            Plain.check(file);
        } catch (NoSuchFileException e) {
            throw new BadInput(file + ": no such file", e);
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
        try (Connection base = Parquet.reader(); Statement statement = base.createStatement()) {
            String source = " FROM read_parquet(" + Parquet.file(file) + ")";
            Map<Column, Found> found = columns(file, statement, source);
            long rows;
            try (ResultSet count = statement.executeQuery("SELECT count(*)" + source)) {
                count.next();
                rows = count.getLong(1);
            }
            List<String> selected = new ArrayList<>();
            for (Column column : COLUMNS) {
                selected.add(found.containsKey(column) ? sql(file, found.get(column), column) : "NULL");
            }
            try (ResultSet result = statement.executeQuery("SELECT " + String.join(", ", selected) + source)) {
                rows(result, found, contract, intake, refused, progress, rows);
            }
        } catch (SQLException e) {
            throw new BadInput(file + ": cannot be read as Parquet: " + Parquet.reason(e), e);
        }
    }

    /**
     * Reads a file whole into memory outside the heap; anything wrong refuses it.
     *
     * @throws BadInput naming file, row and what was expected
     */
    public static Tape read(Path file, Contract contract) {
        Intake intake = new Intake(contract, new TapeBuilder(TapeBlock.FULL), Long.MAX_VALUE);
        read(file, contract, intake, (row, words) -> {
        }, Progress.NONE);
        for (Finding kind : Finding.values()) {
            if (kind.bad() && intake.findings().count(kind) > 0) {
                Findings.Place place = intake.findings().places(kind).getFirst();
                throw BadInput.at(file.toString(), "row " + place.line(), place.words());
            }
        }
        if (intake.tape().count() == 0) {
            throw new BadInput(file + ": expected at least one print, found none");
        }
        return intake.tape().build();
    }

    private static Map<Column, Found> columns(Path file, Statement statement, String source) throws SQLException {
        Map<Column, Found> found = new EnumMap<>(Column.class);
        List<String> names = new ArrayList<>();
        try (ResultSet described = statement.executeQuery("DESCRIBE SELECT *" + source)) {
            while (described.next()) {
                names.add(described.getString(1));
                found.putIfAbsent(Column.guess(described.getString(1)),
                        new Found(described.getString(1), described.getString(2)));
            }
        }
        for (Column needed : List.of(Column.TIME, Column.PRICE, Column.SIZE)) {
            if (!found.containsKey(needed)) {
                throw new BadInput(file + ": expected a column \"" + needed.word() + "\", found "
                        + String.join(",", names));
            }
        }
        return found;
    }

    private static String sql(Path file, Found found, Column column) {
        try {
            return found.sql(column);
        } catch (IllegalArgumentException e) {
            throw BadInput.at(file.toString(), "column " + found.name(), e.getMessage());
        }
    }

    private static void rows(ResultSet rows, Map<Column, Found> found, Contract contract, Intake intake,
            Refused refused, Progress progress, long all) throws SQLException {
        FieldText text = new FieldText(new TickLayout(',', true, List.of(), List.of(), TimeForm.YEAR_FIRST,
                Optional.empty(), '.', false), contract);
        long row = 0;
        while (rows.next()) {
            row++;
            long time = rows.getLong(1);
            boolean noTime = rows.wasNull();
            long unit = found.get(Column.TIME).timeUnit();
            boolean far = time > Long.MAX_VALUE / unit || time < Long.MIN_VALUE / unit;
            time *= unit;
            long price = price(rows, 2, found.get(Column.PRICE), text);
            long size = whole(rows, 3, found.get(Column.SIZE));
            long bid = price(rows, 4, found.get(Column.BID), text);
            long ask = price(rows, 5, found.get(Column.ASK), text);
            long bidSize = whole(rows, 6, found.get(Column.BID_SIZE));
            long askSize = whole(rows, 7, found.get(Column.ASK_SIZE));
            String who = rows.getString(8);
            Optional<Aggressor> aggressor = aggressor(who);
            Optional<TickLine.Problem> problem;
            if (far) {
                problem = Optional.of(
                        new TickLine.Problem(Finding.UNREADABLE, Optional.of("time"), "expected a time of the years "
                                + TapeTime.FIRST_YEAR + " to " + TapeTime.LAST_YEAR));
            } else if (noTime || price == Tape.NONE || price == FieldText.BAD || size < 1 || bid == FieldText.BAD
                    || ask == FieldText.BAD || bidSize == FieldText.BAD || askSize == FieldText.BAD) {
                problem = Optional.of(new TickLine.Problem(Finding.UNREADABLE, Optional.empty(),
                        "expected time, price and size (1 or more), found "
                                + (noTime ? "no time" : TapeTime.instant(time)) + ", "
                                + Causes.found(String.valueOf(rows.getObject(2))) + ", "
                                + Causes.found(String.valueOf(rows.getObject(3)))));
            } else if (price == FieldText.OFF_GRID || bid == FieldText.OFF_GRID || ask == FieldText.OFF_GRID) {
                problem = Optional.of(new TickLine.Problem(Finding.OFF_GRID, Optional.of("price"),
                        "expected a price on the tick grid of " + contract.tickSize().toPlainString()));
            } else if (who != null && !who.isEmpty() && aggressor.isEmpty()) {
                problem = Optional.of(new TickLine.Problem(Finding.UNREADABLE, Optional.of("aggressor"),
                        "expected buyer, seller, unknown or nothing, found \"" + who + "\""));
            } else {
                problem = intake.take(row, time, price, size, bid, ask, bidSize, askSize, aggressor);
            }
            if (problem.isPresent()) {
                String words = problem.get().column().map(c -> c + ": ").orElse("") + problem.get().message();
                intake.refuse(problem.get().kind(), row, words);
                refused.row(row, words);
            }
            if ((row & 0xFFFF) == 0) {
                progress.at(row, all);
            }
        }
    }

    private static Optional<Aggressor> aggressor(String word) {
        return switch (word == null ? "" : word.toLowerCase(Locale.ROOT)) {
            case "buyer", "buy", "b" -> Optional.of(Aggressor.BUYER);
            case "seller", "sell", "s" -> Optional.of(Aggressor.SELLER);
            case "unknown", "u" -> Optional.of(Aggressor.UNKNOWN);
            default -> Optional.empty();
        };
    }

    private static long whole(ResultSet rows, int column, Found found) throws SQLException {
        if (found == null) {
            return Tape.NONE;
        }
        if (found.kind() == Kind.FLOATING) {
            double value = rows.getDouble(column);
            return rows.wasNull()
                    ? Tape.NONE
                    : value >= 0 && value < MOST && value == Math.rint(value) ? (long) value : FieldText.BAD;
        }
        BigDecimal value = exact(rows, column, found);
        return value == null
                ? Tape.NONE
                : value.signum() >= 0 && value.compareTo(BigDecimal.valueOf(MOST)) < 0
                        && value.stripTrailingZeros().scale() <= 0 ? value.longValueExact() : FieldText.BAD;
    }

    /** Null where nothing stands. */
    private static BigDecimal exact(ResultSet rows, int column, Found found) throws SQLException {
        if (found.kind() == Kind.TEXT) {
            String text = rows.getString(column);
            return text == null ? null : new BigDecimal(text);
        }
        long value = rows.getLong(column);
        return rows.wasNull() ? null : BigDecimal.valueOf(value, found.scale());
    }

    /** A price in ticks; exact for decimals, for floating numbers the shortest decimal that stands for them. */
    private static long price(ResultSet rows, int column, Found found, FieldText text) throws SQLException {
        if (found == null) {
            return Tape.NONE;
        }
        BigDecimal plain;
        if (found.kind() == Kind.FLOATING) {
            double value = rows.getDouble(column);
            if (rows.wasNull() || Double.isNaN(value)) {
                return Tape.NONE;
            }
            if (Double.isInfinite(value)) {
                return FieldText.BAD;
            }
            plain = found.type().equals("FLOAT")
                    ? new BigDecimal(Float.toString((float) value))
                    : BigDecimal.valueOf(value);
        } else {
            plain = exact(rows, column, found);
            if (plain == null) {
                return Tape.NONE;
            }
        }
        byte[] bytes = plain.toPlainString().getBytes(StandardCharsets.US_ASCII);
        return text.price(bytes, 0, bytes.length);
    }

    /** Writes the prints {@code from} to {@code to}, the last one not included, in one piece or not at all. */
    public static void write(Path file, Tape tape, Contract contract, int from, int to, Progress progress) {
        String decimal = "DECIMAL(18," + contract.decimals() + ")";
        Parquet.write(file,
                "time TIMESTAMP_NS, price " + decimal + ", size INTEGER, bid " + decimal + ", ask " + decimal
                        + ", bid_size INTEGER, ask_size INTEGER, aggressor VARCHAR",
                rows -> {
                    for (int i = from; i < to; i++) {
                        rows.beginRow().appendEpochNanos(tape.time(i));
                        price(rows, tape.price(i), contract);
                        rows.append(tape.size(i));
                        price(rows, tape.bid(i), contract);
                        price(rows, tape.ask(i), contract);
                        whole(rows, tape.bidSize(i));
                        whole(rows, tape.askSize(i));
                        rows.append(tape.aggressor(i).word()).endRow();
                        if ((i & 0xFFFF) == 0) {
                            progress.at(i - from, to - from);
                        }
                    }
                });
    }

    private static void price(DuckDBAppender rows, long ticks, Contract contract) throws SQLException {
        if (ticks == Tape.NONE) {
            rows.appendNull();
        } else {
            rows.append(new BigDecimal(contract.text(ticks)));
        }
    }

    private static void whole(DuckDBAppender rows, long contracts) throws SQLException {
        if (contracts == Tape.NONE) {
            rows.appendNull();
        } else {
            rows.append((int) contracts);
        }
    }
}
