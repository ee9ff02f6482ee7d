package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;

/** Past days, odds and prices of interlocks from the command line. */
public class BookTest {
    private Path demo;
    private int code;

    @BeforeClass
    public void files() throws IOException {
        demo = Files.createTempDirectory("book");
        Demo.export(demo);
    }

    private List<String> lines(String command, String... more) {
        List<String> all = new ArrayList<>(List.of(command, "--tape", "demo", "--contract",
                demo.resolve("tdl.contract.json").toString(), "--strategy",
                demo.resolve("ebb-fade.strategy.json").toString(), "--account",
                demo.resolve("gannet-row-40k.account.json").toString()));
        all.addAll(Arrays.asList(more));
        PrintStream out = System.out;
        ByteArrayOutputStream caught = new ByteArrayOutputStream();
        System.setOut(new PrintStream(caught, true, StandardCharsets.UTF_8));
        try {
            code = Main.run(all.toArray(String[]::new));
        } finally {
            System.setOut(out);
        }
        return caught.toString(StandardCharsets.UTF_8).lines().toList();
    }

    @Test
    public void pastDaysAreRows() {
        List<String> rows = lines("book");
        assertEquals(code, 0);
        assertEquals(rows.getFirst(),
                "date,balance,result,high,low,floor,floor_after,end,line,guard,at,target,payout");
        assertEquals(rows.size(), 6, "five days");
        assertTrue(rows.get(1).startsWith("2026-09-18,40000.00,0.00,0.00,0.00,38300.00,38300.00,"), rows.get(1));
        assertTrue(rows.getLast().contains(",locked,own day loss,"), rows.getLast());
        // a static floor and a day loss that breaks the account: it is over on the last day
        List<String> other = lines("book", "--rulebook", demo.resolve("skerry-static-25k.rulebook.json").toString());
        assertTrue(other.getLast().contains(",broken,book's day loss,"), other.getLast());
        lines("book", "--rulebook", demo.resolve("tdl.contract.json").toString());
        assertEquals(code, 1, "no rulebook");
    }

    @Test
    public void oddsAreRowsBySizeAndTheSameEachTime() {
        List<String> rows = lines("odds", "--sizes", "1,3", "--accounts", "300", "--resamples", "4");
        assertEquals(rows.size(), 3);
        assertEquals(rows, lines("odds", "--sizes", "1,3", "--accounts", "300", "--resamples", "4"));
        String[] one = rows.get(1).split(",", -1);
        double all = Double.parseDouble(one[1]) + Double.parseDouble(one[6]) + Double.parseDouble(one[7])
                + Double.parseDouble(one[8]) + Double.parseDouble(one[9]);
        assertEquals(all, 1, 0.001, "every account has one end");
        lines("odds", "--sizes", "0");
        assertEquals(code, 2);
        lines("odds", "--days", "0");
        assertEquals(code, 2);
    }

    @Test
    public void interlocksHavePrices() {
        List<String> rows = lines("book", "--interlocks");
        assertEquals(rows.getFirst(), "reason,declined,would_be_trades,saved");
        assertTrue(rows.stream().anyMatch(row -> row.startsWith("outside window,")), rows.toString());
        assertTrue(rows.stream().anyMatch(row -> row.startsWith("line check,")), rows.toString());
    }
}
