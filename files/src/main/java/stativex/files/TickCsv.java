package stativex.files;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/** Tick files: {@code time,price,size[,bid,ask[,bid_size,ask_size]][,aggressor]} (RFC 4180, UTF-8, header required). */
public final class TickCsv {
    private static final List<String> REQUIRED = List.of("time", "price", "size");
    private static final Set<String> KNOWN = Set.of("time", "price", "size", "bid", "ask", "bid_size", "ask_size",
            "aggressor");

    private TickCsv() {}

    /**
     * Reads a tick file.
     *
     * @throws BadInput naming file, line, column, what was expected and found
     */
    public static Tape read(Path file, Contract contract) {
        return read(file, contract, true);
    }

    /** @param plain try {@link PlainTicks} first */
    static Tape read(Path file, Contract contract, boolean plain) {
        try (CsvReader<CsvRecord> reader = CsvReader.builder().allowMissingFields(true)
                .allowExtraFields(true).ofCsvRecord(file)) {
            Iterator<CsvRecord> records = reader.iterator();
            if (!records.hasNext()) {
                throw new BadInput(file + ": expected the header line time,price,size…, found an empty file");
            }
            Map<String, Integer> columns = header(file, records.next());
            if (plain) {
                Optional<Tape> quick = PlainTicks.read(file, contract, columns);
                if (quick.isPresent()) {
                    return quick.get();
                }
            }
            TapeBuilder tape = new TapeBuilder((int) Math.min(50_000_000, Files.size(file) / 40 + 16));
            while (records.hasNext()) {
                CsvRecord record = records.next();
                if (record.getFieldCount() != columns.size()) {
                    throw BadInput.at(file.toString(), "line " + record.getStartingLineNumber(), "expected "
                            + columns.size() + " columns as in the header, found " + record.getFieldCount());
                }
                new Row(file, record, columns, contract).addTo(tape);
            }
            if (tape.count() == 0) {
                throw BadInput.at(file.toString(), "line 2",
                        "expected at least one print below the header, found none");
            }
            return tape.build();
        } catch (NoSuchFileException e) {
            throw new BadInput(file + ": no such file", e);
        } catch (CsvParseException e) {
            throw new BadInput(file + ": expected CSV: " + e.getMessage()
                    + (e.getCause() == null ? "" : ": " + e.getCause().getMessage()), e);
        } catch (MalformedInputException e) {
            throw new BadInput(file + ": expected UTF-8 text", e);
        } catch (UncheckedIOException | IOException e) {
            throw new BadInput(file + ": cannot be read: " + e.getMessage(), e);
        }
    }

    private static Map<String, Integer> header(Path file, CsvRecord record) {
        Map<String, Integer> columns = new HashMap<>();
        for (int i = 0; i < record.getFieldCount(); i++) {
            String name = record.getField(i);
            if (!KNOWN.contains(name)) {
                throw BadInput.at(file.toString(), "line 1, column " + (i + 1), "expected one of "
                        + String.join(",", KNOWN.stream().sorted().toList()) + ", found \"" + name + "\"");
            }
            if (columns.put(name, i) != null) {
                throw BadInput.at(file.toString(), "line 1, column " + (i + 1),
                        "column \"" + name + "\" is there twice");
            }
        }
        for (String name : REQUIRED) {
            if (!columns.containsKey(name)) {
                throw BadInput.at(file.toString(), "line 1", "expected a column \"" + name + "\", found "
                        + String.join(",", record.getFields()));
            }
        }
        return columns;
    }

    private record Row(Path file, CsvRecord record, Map<String, Integer> columns, Contract contract) {
        void addTo(TapeBuilder tape) {
            long time = time();
            long price = price("price").orElseThrow(() -> problem("price", "expected a price, found nothing"));
            long size = size("size").orElseThrow(() -> problem("size", "expected a size, found nothing"));
            long bid = price("bid").orElse(Tape.NONE);
            long ask = price("ask").orElse(Tape.NONE);
            size("bid_size");
            size("ask_size");
            Optional<Aggressor> aggressor = aggressor();
            try {
                tape.add(time, price, size, bid, ask, aggressor);
            } catch (IllegalArgumentException e) {
                throw problem(e.getMessage().contains("time") ? "time" : "price", e.getMessage());
            }
        }

        private Optional<String> field(String name) {
            Integer column = columns.get(name);
            return column == null ? Optional.empty() : Optional.of(record.getField(column)).filter(s -> !s.isEmpty());
        }

        private long time() {
            String text = field("time").orElse("");
            try {
                return TapeTime.nanos(Instant.parse(text));
            } catch (DateTimeParseException | ArithmeticException e) {
                throw problem("time", "expected an ISO 8601 time with offset such as 2026-09-24T09:45:00.125Z, found \""
                        + text + "\"");
            }
        }

        private Optional<Long> price(String name) {
            return field(name).map(text -> {
                try {
                    return contract.price(text);
                } catch (IllegalArgumentException | ArithmeticException e) {
                    throw problem(name, e.getMessage());
                }
            });
        }

        private Optional<Long> size(String name) {
            return field(name).map(text -> {
                if (!text.matches("[0-9]{1,9}") || name.equals("size") && Long.parseLong(text) == 0) {
                    throw problem(name, "expected a whole number of contracts"
                            + (name.equals("size") ? ", 1 or more" : "") + ", found \"" + text + "\"");
                }
                return Long.parseLong(text);
            });
        }

        private Optional<Aggressor> aggressor() {
            return field("aggressor").map(text -> {
                for (Aggressor aggressor : Aggressor.values()) {
                    if (aggressor.word().equals(text)) {
                        return aggressor;
                    }
                }
                throw problem("aggressor", "expected buyer, seller, unknown or nothing, found \"" + text + "\"");
            });
        }

        private BadInput problem(String column, String message) {
            return BadInput.at(file.toString(),
                    "line " + record.getStartingLineNumber() + ", column " + column, message);
        }
    }

    /** Writes a tape with quotes and aggressor, CRLF line ends, in one piece or not at all. */
    public static void write(Path file, Tape tape, Contract contract) {
        WholeFile.write(file, out -> {
            try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
                csv.writeRecord("time", "price", "size", "bid", "ask", "aggressor");
                List<String> row = new ArrayList<>(6);
                for (int i = 0; i < tape.count(); i++) {
                    row.clear();
                    row.add(TapeTime.instant(tape.time(i)).toString());
                    row.add(contract.text(tape.price(i)));
                    row.add(Integer.toString(tape.size(i)));
                    row.add(tape.bid(i) == Tape.NONE ? "" : contract.text(tape.bid(i)));
                    row.add(tape.ask(i) == Tape.NONE ? "" : contract.text(tape.ask(i)));
                    row.add(tape.aggressor(i).word());
                    csv.writeRecord(row);
                }
            }
        }, StandardCharsets.UTF_8);
    }
}
