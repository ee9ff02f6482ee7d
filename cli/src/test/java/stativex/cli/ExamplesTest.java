package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static stativex.cli.TapesTest.said;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.files.ExampleBook;
import stativex.market.BarSeries;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.TapeTime;
import stativex.rule.Condition;
import stativex.rule.Program;
import stativex.rule.Truth;

/** Bars on which a known rule of two conditions held are marked: a rule that holds on just these is found again. */
public class ExamplesTest {
    private Path folder;
    private Strategy strategy;
    private BarSeries bars;
    private final List<Integer> held = new ArrayList<>();

    @BeforeClass
    public void files() throws IOException {
        folder = Files.createTempDirectory("examples");
        Demo.export(folder);
        strategy = Documents.strategy(folder.resolve("ebb-fade.strategy.json")).value();
        var contract = Documents.contract(folder.resolve("tdl.contract.json")).value();
        bars = SeriesBuilder.all(Demo.tape(contract), contract.calendar(), strategy.signals().bars());
        Program program = new Program(strategy.signals().blueprint(contract, Map.of()), bars);
        Condition rule = program.condition("close < mean.lower and close > high 1 bar before");
        program.take();
        for (int bar = 0; bar < bars.count(); bar++) {
            if (rule.at(bar) == Truth.TRUE) {
                held.add(bar);
            }
        }
        assertTrue(held.size() >= 5, held.size() + " bars");
    }

    private Path examples(List<Integer> right, List<Integer> wrong) throws IOException {
        Path file = Files.createTempFile(folder, "marks", ".examples.json");
        Files.writeString(file,
                "{\"document\":\"examples\",\"version\":1,\"strategy\":\"Ebb fade\",\"long\":{\"right\":"
                        + times(right) + ",\"wrong\":" + times(wrong) + "}}");
        return file;
    }

    private String times(List<Integer> of) {
        return of.stream().map(bar -> "\"" + TapeTime.instant(bars.moment(bar)) + "\"").toList().toString();
    }

    private String offered(int code, Path examples, String... more) {
        List<String> words = new ArrayList<>(List.of("examples", "--tape", "demo", "--contract",
                folder + "/tdl.contract.json", "--strategy", folder + "/ebb-fade.strategy.json", "--examples",
                examples.toString()));
        words.addAll(List.of(more));
        return said(code, words.toArray(String[]::new));
    }

    @Test
    public void theRuleBehindTheMarksIsFound() throws IOException {
        String words = offered(0, examples(held, List.of()));
        assertTrue(words.startsWith(held.size() + " bars marked of " + bars.count() + "; "), words);
        String best = words.lines().skip(1).findFirst().orElseThrow();
        assertTrue(best.startsWith(held.size() + " hits, 0 misses, 0 false alarms: "), best);
        assertTrue(words.contains("close > high 1 bar before") && words.contains("close < mean.lower"), words);
        // the usual studies that a rule names are said with it; none holds on a bar that is marked as wrong
        String few = offered(0, examples(held.subList(0, 2), held.subList(2, 5)), "--most", "40", "--weight", "0");
        assertTrue(
                few.lines().filter(line -> line.contains("rsi14"))
                        .allMatch(line -> line.contains("rsi14 = rsi length 14")),
                few);
        assertTrue(few.lines().noneMatch(line -> line.endsWith(": close < mean.lower and close > high 1 bar before")),
                few);
        assertEquals(offered(0, examples(held, List.of())), words, "the same again");
    }

    @Test
    public void whatCannotBeLookedForIsSaid() throws IOException {
        assertTrue(offered(1, examples(List.of(), held)).contains("expected a bar on which an entry was right"));
        assertTrue(offered(1, examples(held, held)).contains("found one that is both"));
        assertTrue(offered(1, examples(held, List.of()), "--side", "up").contains("expected long or short, found up"));
        assertTrue(offered(1, examples(held, List.of()), "--side", "short").contains("found none"));
    }

    @Test
    public void marksAreKeptAndTakenAway() {
        ExampleBook book = ExampleBook.own("Harbour / test");
        book.mark(Side.LONG, bars.moment(4), ExampleBook.Mark.RIGHT);
        book.mark(Side.LONG, bars.moment(6), ExampleBook.Mark.RIGHT);
        book.mark(Side.LONG, bars.moment(9), ExampleBook.Mark.WRONG);
        book.mark(Side.LONG, bars.moment(6), ExampleBook.Mark.NONE);
        ExampleBook again = ExampleBook.own("Harbour / test");
        assertEquals(again.at(Side.LONG, bars.moment(4)), ExampleBook.Mark.RIGHT);
        assertEquals(again.at(Side.LONG, bars.moment(6)), ExampleBook.Mark.NONE);
        assertEquals(again.at(Side.SHORT, bars.moment(4)), ExampleBook.Mark.NONE);
        var marks = again.marks(Side.LONG, bars, true);
        assertEquals(marks.right().toString() + marks.wrong() + marks.beside(), "{4}{9}true");
    }
}
