package stativex.cluster;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.evidence.Odds;
import stativex.files.BadInput;
import stativex.files.SearchElsewhere;
import stativex.files.SearchFiles;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.market.Tape;

/** The same search on this machine and on a real master with two workers, of which one is killed in the middle: byte for byte alike. */
public class SparkSearchTest {
    private SearchSpec spec;
    private Tape tape;

    @BeforeClass
    public void files() throws IOException {
        System.setProperty("spark.executor.memory", "512m");
        System.setProperty("spark.driver.host", "127.0.0.1");
        Path folder = Files.createTempDirectory("search");
        Demo.export(folder);
        Path strategy = folder.resolve("ebb-fade.strategy.json");
        Files.writeString(strategy, Files.readString(strategy).replace("\"size\": 400", "\"size\": 8")
                .replace("\\nand reach > 4 ticks", ""));
        SplittableRandom dice = new SplittableRandom(8);
        StringBuilder csv = new StringBuilder("time,price,size,bid,ask\n");
        long price = 5000;
        LocalDate date = LocalDate.of(2026, 2, 2);
        for (int day = 0; day < 24; date = date.plusDays(1)) {
            if (date.getDayOfWeek() == DayOfWeek.SATURDAY || date.getDayOfWeek() == DayOfWeek.SUNDAY) {
                continue;
            }
            day++;
            var at = date.atTime(LocalTime.of(9, 50)).atZone(ZoneId.of("Pacific/Auckland")).toInstant();
            for (int i = 0; i < 2000; i++) {
                price += dice.nextInt(-3, 4);
                at = at.plusSeconds(dice.nextInt(1, 4));
                csv.append(at).append(',').append(text(price)).append(",1,").append(text(price - 1)).append(',')
                        .append(text(price)).append('\n');
            }
        }
        Files.writeString(folder.resolve("ticks.csv"), csv);
        Path file = folder.resolve("spec.json");
        Files.writeString(file, "{\"document\":\"search\",\"version\":1,\"tape\":\"ticks.csv\",\"contractFile\":"
                + "\"tdl.contract.json\",\"accountFile\":\"gannet-row-40k.account.json\",\"strategyFile\":"
                + "\"ebb-fade.strategy.json\",\"leastTrades\":5,\"blocks\":4,\"method\":{\"kind\":\"grid\"},"
                + "\"judge\":[\"sides\"],\"ranges\":[{\"name\":\"stop\",\"at\":\"/exit/stop/ticks\",\"values\":"
                + "[4,6,8,10,12]},{\"name\":\"length\",\"at\":\"/studies/1/length\",\"values\":[5,9,13,21]}]}");
        spec = SearchSpec.read(file);
        tape = Demo.open(folder.resolve("ticks.csv").toString(), Optional.of(spec.contract().value()), false).tape();
    }

    private static String text(long ticks) {
        return new BigDecimal("0.25").multiply(BigDecimal.valueOf(ticks)).toPlainString();
    }

    private SearchRun.Watcher watcher(AtomicInteger done, int at, Runnable then, boolean cancels) {
        AtomicBoolean began = new AtomicBoolean();
        return new SearchRun.Watcher() {
            @Override
            public void done(int variants, int of, int left) {
                if (done.incrementAndGet() >= at && began.compareAndSet(false, true)) {
                    then.run();
                }
            }

            @Override
            public BooleanSupplier cancelled() {
                return () -> cancels && done.get() >= at;
            }
        };
    }

    private void same(SearchRun run, SearchRun.Found found, Path expected) throws IOException {
        Path out = Files.createTempDirectory("spread");
        SearchFiles.write(out, spec, found, run.judge(found, Odds.Progress.NONE));
        for (String file : List.of("variants.csv", "variant-days.csv", "search.json")) {
            assertEquals(Files.readString(out.resolve(file)), Files.readString(expected.resolve(file)), file);
        }
    }

    @Test(timeOut = 300_000)
    public void sixtyVariantsOnACluster() throws IOException, InterruptedException {
        Path one = Files.createTempDirectory("one");
        SearchRun alone = new SearchRun(spec, tape, 2, one.resolve("search.journal"));
        SearchRun.Found expected = alone.run(watcher(new AtomicInteger(), 1000, () -> {
        }, false)).orElseThrow();
        assertEquals(expected.entries().size(), 60);
        SearchFiles.write(one, spec, expected, alone.judge(expected, Odds.Progress.NONE));
        try (Standalone cluster = new Standalone(2)) {
            AtomicBoolean killed = new AtomicBoolean();
            try (SearchElsewhere.Machines machines = new OnSpark().open(cluster.url(), spec, tape)) {
                SearchRun run = new SearchRun(spec, tape, machines,
                        Files.createTempDirectory("cluster").resolve("search.journal"));
                same(run, run.run(watcher(new AtomicInteger(), 9, () -> killed.set(cluster.killsAnExecutor()), false))
                        .orElseThrow(), one);
                assertTrue(killed.get(), "an executor was killed in the middle");
                // cancelled, it goes on where it was, here or on another cluster
                Path journal = Files.createTempDirectory("cancelled").resolve("search.journal");
                SearchRun cancelled = new SearchRun(spec, tape, machines, journal);
                assertTrue(cancelled.run(watcher(new AtomicInteger(), 9, () -> {
                }, true)).isEmpty(), "it was given up");
                AtomicInteger anew = new AtomicInteger();
                SearchRun on = new SearchRun(spec, tape, 2, journal);
                same(on, on.run(watcher(anew, 1000, () -> {
                }, false)).orElseThrow(), one);
                assertTrue(anew.get() < 60, "some were there: " + anew.get());
            }
        }
    }

    @Test
    public void whoDoesNotAnswerIsSaid() {
        assertTrue(
                expectThrows(BadInput.class, () -> new OnSpark().open("spark://127.0.0.1:1", spec, tape)).getMessage()
                        .startsWith("--on: nobody answers at spark://127.0.0.1:1"));
        assertEquals(expectThrows(BadInput.class, () -> new OnSpark().open("http://x", spec, tape)).getMessage(),
                "--on: expected spark://HOST:PORT, found http://x");
    }
}
