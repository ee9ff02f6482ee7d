package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
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
                "time,price,size,bid,ask,aggressor\r\n2026-09-23T21:45:00Z,1284.50,1,1284.25,1284.50,buyer\r\n"
                        + "2026-09-23T21:45:00.500Z,1284.25,2,,,seller\r\n",
                "RFC 4180 line ends, the fewest decimals that are exact");
        try (var left = Files.list(file.getParent())) {
            assertEquals(left.count(), 1, "no neighbour is left behind");
        }
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
