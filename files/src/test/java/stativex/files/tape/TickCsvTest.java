package stativex.files.tape;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Tape;

public class TickCsvTest {
    private final Contract contract = Documents.contract(Texts.CONTRACT, "contract.json").value();

    private Tape read(String text) throws IOException {
        Path file = Files.createTempFile("ticks", ".csv");
        Files.writeString(file, text, StandardCharsets.UTF_8);
        return TickCsv.read(file, contract);
    }

    @Test
    public void columnsComeByNameInAnyOrderAndLineEnds() throws IOException {
        Tape tape = read("size,aggressor,price,time\n3,seller,-1.25,2026-09-24T09:45:00.000000001+12:00\r\n"
                + "\"4\",,0.00,2026-09-23T21:45:01Z\n");
        assertEquals(tape.count(), 2);
        assertEquals(tape.price(0), -5);
        assertEquals(tape.aggressor(0), Aggressor.SELLER);
        assertEquals(tape.time(1) - tape.time(0), 999_999_999L);
        assertEquals(tape.aggressor(1), Aggressor.BUYER, "worked out by the tick test");
        assertEquals(tape.bid(0), Tape.NONE);
    }

    @Test
    public void whatIsWrittenIsReadBack() throws IOException {
        Tape tape = read("time,price,size,bid,ask,bid_size,ask_size\n"
                + "2026-09-23T21:45:00Z,1284.50,1,1284.25,1284.50,4,5\n2026-09-23T21:45:00.5Z,1284.25,2,,,,\n");
        Path file = Files.createTempDirectory("out").resolve("ticks.csv");
        TickCsv.write(file, tape, contract);
        assertEquals(TickCsv.read(file, contract).checksum(), tape.checksum());
        assertEquals(Files.readString(file),
                "time,price,size,bid,ask,bid_size,ask_size,aggressor\r\n"
                        + "2026-09-23T21:45:00Z,1284.50,1,1284.25,1284.50,4,5,buyer\r\n"
                        + "2026-09-23T21:45:00.500Z,1284.25,2,,,,,seller\r\n",
                "RFC 4180 line ends, the fewest decimals that are exact");
        try (var left = Files.list(file.getParent())) {
            assertEquals(left.count(), 1, "no neighbour is left behind");
        }
    }

    /** The reader over bytes against a plain one made of a CSV library, java.time and BigDecimal. */
    @Test
    public void aPlainTwinReadsRandomFilesTheSame() throws IOException {
        SplittableRandom dice = new SplittableRandom(4);
        int whole = 0;
        for (int round = 0; round < 1500; round++) {
            Path file = Files.createTempFile("ticks", ".csv");
            Files.writeString(file, randomFile(dice), StandardCharsets.UTF_8);
            String expected = plainly(file);
            String found;
            try {
                found = words(TickCsv.read(file, contract));
                whole++;
            } catch (BadInput e) {
                found = e.getMessage().replaceFirst(".*, (line [0-9]+)[,:].*", "$1");
            }
            assertEquals(found, expected, Files.readString(file));
            Files.delete(file);
        }
        assertTrue(whole > 400 && whole < 1400, whole + " of 1500 files were without fault");
    }

    private static String words(Tape tape) {
        StringBuilder words = new StringBuilder();
        for (int i = 0; i < tape.count(); i++) {
            words.append(tape.time(i)).append(' ').append(tape.price(i)).append(' ').append(tape.size(i)).append(' ')
                    .append(tape.bid(i)).append(' ').append(tape.ask(i)).append(' ').append(tape.bidSize(i)).append(' ')
                    .append(tape.askSize(i)).append(' ').append(tape.aggressor(i)).append('\n');
        }
        return words.toString();
    }

    /** The prints in words, or the first line that cannot be taken. */
    private String plainly(Path file) throws IOException {
        StringBuilder words = new StringBuilder();
        long line = 1;
        try (CsvReader<CsvRecord> reader = CsvReader.builder().allowExtraFields(true).allowMissingFields(true)
                .ofCsvRecord(file)) {
            var records = reader.iterator();
            List<String> names = records.next().getFields();
            long lastTime = Long.MIN_VALUE;
            long last = Tape.NONE;
            long different = Tape.NONE;
            while (records.hasNext()) {
                CsvRecord record = records.next();
                line = record.getStartingLineNumber();
                Map<String, String> row = new HashMap<>();
                check(record.getFieldCount() == names.size());
                names.forEach(name -> row.put(name, record.getField(names.indexOf(name))));
                Instant instant = OffsetDateTime.parse(row.get("time")).toInstant();
                check(instant.isAfter(Instant.parse("1678-01-01T00:00:00Z")));
                long time = instant.getEpochSecond() * 1_000_000_000L + instant.getNano();
                long price = contract.price(row.get("price"));
                long size = whole(row.get("size"));
                long bid = row.getOrDefault("bid", "").isEmpty() ? Tape.NONE : contract.price(row.get("bid"));
                long ask = row.getOrDefault("ask", "").isEmpty() ? Tape.NONE : contract.price(row.get("ask"));
                String who = row.getOrDefault("aggressor", "");
                check(time >= lastTime && size > 0 && List.of("", "buyer", "seller", "unknown").contains(who));
                different = last != Tape.NONE && last != price ? last : different;
                boolean normal = bid == Tape.NONE || ask == Tape.NONE || bid < ask;
                Aggressor aggressor = !who.isEmpty()
                        ? Aggressor.valueOf(who.toUpperCase(Locale.ROOT))
                        : normal && ask != Tape.NONE && price >= ask
                                ? Aggressor.BUYER
                                : normal && bid != Tape.NONE && price <= bid
                                        ? Aggressor.SELLER
                                        : different == Tape.NONE
                                                ? Aggressor.UNKNOWN
                                                : price > different ? Aggressor.BUYER : Aggressor.SELLER;
                words.append(time).append(' ').append(price).append(' ').append(size).append(' ').append(bid)
                        .append(' ').append(ask).append(' ').append(sizeOrNone(row.get("bid_size"))).append(' ')
                        .append(sizeOrNone(row.get("ask_size"))).append(' ').append(aggressor).append('\n');
                lastTime = time;
                last = price;
            }
        } catch (IllegalArgumentException | DateTimeException | ArithmeticException e) {
            return "line " + line;
        }
        return words.toString();
    }

    private static void check(boolean right) {
        if (!right) {
            throw new IllegalArgumentException();
        }
    }

    private static long whole(String text) {
        check(text.matches("[0-9]{1,9}"));
        return Long.parseLong(text);
    }

    private static long sizeOrNone(String text) {
        return text == null || text.isEmpty() ? Tape.NONE : whole(text);
    }

    private static String randomFile(SplittableRandom dice) {
        List<String> columns = new ArrayList<>(List.of("time", "price", "size"));
        if (dice.nextBoolean()) {
            columns.addAll(List.of("bid", "ask"));
        }
        if (dice.nextInt(3) == 0) {
            columns.addAll(List.of("bid_size", "ask_size"));
        }
        if (dice.nextBoolean()) {
            columns.add("aggressor");
        }
        Collections.shuffle(columns, new Random(dice.nextLong()));
        String end = dice.nextBoolean() ? "\r\n" : "\n";
        StringBuilder text = new StringBuilder(String.join(",", columns)).append(end);
        boolean faults = dice.nextInt(3) == 0;
        Instant time = Instant.parse("2026-09-23T23:59:50Z");
        for (int line = dice.nextInt(1, 12); line > 0; line--) {
            time = time.plusNanos(dice.nextInt(3) == 0 ? 0 : dice.nextLong(3) * 500_000_000L + dice.nextInt(2) * 7);
            Instant stamp = time;
            List<String> fields = new ArrayList<>();
            for (String column : columns) {
                String field = switch (column) {
                    case "time" -> stamp.toString();
                    case "price" -> price(dice);
                    case "bid", "ask" -> dice.nextInt(3) == 0 ? "" : price(dice);
                    case "aggressor" -> List.of("buyer", "seller", "unknown", "").get(dice.nextInt(4));
                    case "size" -> Integer.toString(dice.nextInt(1, 2000));
                    default -> dice.nextBoolean() ? "" : Integer.toString(dice.nextInt(0, 2000));
                };
                fields.add(faults && dice.nextInt(25) == 0 ? fault(dice, field) : field);
            }
            text.append(String.join(",", fields)).append(line == 1 && dice.nextBoolean() ? "" : end);
        }
        return text.toString();
    }

    private static String price(SplittableRandom dice) {
        String sign = List.of("", "", "-", "+").get(dice.nextInt(4));
        return sign + dice.nextInt(2000) + List.of("", ".0", ".5", ".25", ".75", ".00").get(dice.nextInt(6));
    }

    private static String fault(SplittableRandom dice, String field) {
        return switch (dice.nextInt(9)) {
            case 0 -> "\"" + field + "\"";
            case 1 -> field + " ";
            case 2 -> field + ".1";
            case 3 -> "";
            case 4 -> field.replace("Z", "+12:00");
            case 5 -> field + ",";
            case 6 -> field.replace("2026", "1826");
            case 7 -> "0";
            default -> "x";
        };
    }

    @DataProvider
    public Object[][] problems() {
        String header = "time,price,size\n";
        return new Object[][]{{"", "found an empty file"}, {header, "line 2: expected at least one print"},
                {"time,price\n", "line 1: expected a column \"size\""},
                {"time,price,size,colour\n", "line 1, column 4: expected one of"},
                {"time,price,size,size\n", "column \"size\" is there twice"},
                {header + "2026-09-23T21:45:00Z,1284.30,1\n",
                        "line 2, column price: expected a price on the tick grid"},
                {header + "2026-09-23T21:45:00Z,1284.25,1\n2026-09-23T21:44:00Z,1284.25,1\n",
                        "line 3, column time: expected a time not before"},
                {header + "2026-09-23 21:45:00,1284.25,1\n", "line 2, column time: expected an ISO 8601 time"},
                {header + "2026-09-23T21:45:00Z,1e3,1\n", "line 2, column price: expected a plain decimal"},
                {header + "2026-09-23T21:45:00Z,1284.25,0\n", "1 or more, found \"0\""},
                {header + "2026-09-23T21:45:00Z,1284.25,1.5\n", "whole number of contracts"},
                {header + "2026-09-23T21:45:00Z,1284.25\n", "line 2: expected 3 columns as in the header, found 2"},
                {header + "2026-09-23T21:45:00Z,,1\n", "expected a price, found nothing"},
                {header.strip() + ",aggressor\n2026-09-23T21:45:00Z,1284.25,1,maker\n",
                        "expected buyer, seller, unknown"}};
    }

    @Test(dataProvider = "problems")
    public void problemsNameFileLineAndColumn(String text, String words) {
        BadInput problem = expectThrows(BadInput.class, () -> read(text));
        assertTrue(problem.getMessage().contains(words), problem.getMessage());
        assertTrue(problem.getMessage().contains(".csv"), problem.getMessage());
    }

    @Test
    public void aMissingFileIsSaid() {
        BadInput problem = expectThrows(BadInput.class, () -> TickCsv.read(Path.of("nowhere.csv"), contract));
        assertEquals(problem.getMessage(), "nowhere.csv: no such file");
    }
}
