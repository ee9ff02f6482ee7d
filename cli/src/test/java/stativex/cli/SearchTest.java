package stativex.cli;

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
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.evidence.Odds;
import stativex.files.BadInput;
import stativex.files.SearchFiles;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.files.SessionFile;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.search.Space;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** Searches: each variant is a trial of its own, whatever the threads, cancelled or killed in the middle or not. */
public class SearchTest {
    private static final List<String> FILES = List.of("variants.csv", "variant-days.csv", "search.json");
    private Path folder;

    /** 66 trading days of a morning each, and documents beside it. */
    @BeforeClass
    public void files() throws IOException {
        folder = Files.createTempDirectory("search");
        Demo.export(folder);
        Files.writeString(folder.resolve("ebb-fade.strategy.json"), Files
                .readString(folder.resolve("ebb-fade.strategy.json")).replace("\"size\": 400", "\"size\": 8")
                .replace("\nand reach > 4 ticks", "").replace("\\nand reach > 4 ticks", ""));
        SplittableRandom dice = new SplittableRandom(8);
        StringBuilder csv = new StringBuilder("time,price,size,bid,ask\n");
        ZoneId zone = ZoneId.of("Pacific/Auckland");
        long price = 5000;
        LocalDate date = LocalDate.of(2026, 2, 2);
        for (int day = 0; day < 66; date = date.plusDays(1)) {
            if (date.getDayOfWeek() == DayOfWeek.SATURDAY || date.getDayOfWeek() == DayOfWeek.SUNDAY) {
                continue;
            }
            day++;
            var at = date.atTime(LocalTime.of(9, 50)).atZone(zone).toInstant();
            for (int i = 0; i < 500; i++) {
                price += dice.nextInt(-3, 4);
                at = at.plusSeconds(dice.nextInt(1, 12));
                csv.append(at).append(',').append(text(price)).append(",1,").append(text(price - 1)).append(',')
                        .append(text(price)).append('\n');
            }
        }
        Files.writeString(folder.resolve("ticks.csv"), csv);
    }

    private static String text(long ticks) {
        return new BigDecimal("0.25").multiply(BigDecimal.valueOf(ticks)).toPlainString();
    }

    private Path spec(String method, String ranges) throws IOException {
        Path file = Files.createTempFile(folder, "spec", ".json");
        Files.writeString(file, "{\"document\":\"search\",\"version\":1,\"tape\":\"ticks.csv\",\"contractFile\":"
                + "\"tdl.contract.json\",\"accountFile\":\"gannet-row-40k.account.json\",\"strategyFile\":"
                + "\"ebb-fade.strategy.json\",\"leastTrades\":10,\"blocks\":4,\"method\":" + method + ",\"ranges\":["
                + ranges + "]}");
        return file;
    }

    private static final String SIXTY = "{\"name\":\"stop\",\"at\":\"/exit/stop/ticks\",\"from\":6,\"to\":14,\"step\":2},"
            + "{\"name\":\"target\",\"at\":\"/exit/targets/0/ticks\",\"values\":[4,6,9]},"
            + "{\"name\":\"windows\",\"at\":\"/windows\",\"choices\":[{\"name\":\"every hour\",\"value\":[]},"
            + "{\"name\":\"ten to noon\",\"value\":[{\"name\":\"w\",\"days\":[\"Monday\",\"Tuesday\",\"Thursday\"],"
            + "\"from\":\"10:00\",\"to\":\"12:00\",\"zone\":\"Pacific/Auckland\",\"end\":\"flatten\"}]}]},"
            + "{\"name\":\"length\",\"at\":\"/studies/1/length\",\"values\":[5,21]}";

    private Tape tape(SearchSpec spec) {
        return Demo.open(folder.resolve(spec.trial().tape()).toString(), Optional.of(spec.contract().value()), false)
                .tape();
    }

    /** @param cancelAfter variants; 0: never */
    private Optional<SearchRun.Found> run(Path file, Path out, int threads, int cancelAfter) {
        SearchSpec spec = SearchSpec.read(file);
        SearchRun run = new SearchRun(spec, tape(spec), threads, out.resolve("search.journal"));
        int[] done = new int[1];
        Optional<SearchRun.Found> found = run.run(new SearchRun.Watcher() {
            @Override
            public void done(int variants, int of, int left) {
                done[0]++;
            }

            @Override
            public BooleanSupplier cancelled() {
                return () -> cancelAfter > 0 && done[0] >= cancelAfter;
            }
        });
        found.ifPresent(f -> SearchFiles.write(out, spec, f, run.judge(f, Odds.Progress.NONE)));
        return found;
    }

    private static void same(Path one, Path other) throws IOException {
        for (String file : FILES) {
            assertEquals(Files.readString(other.resolve(file)), Files.readString(one.resolve(file)), file);
        }
    }

    @Test
    public void sixtyVariantsAreSixtyTrialsOnAnyThreadsAndAfterAKill() throws IOException {
        Path file = spec("{\"kind\":\"grid\"}", SIXTY);
        Path one = Files.createTempDirectory("one");
        SearchRun.Found found = run(file, one, 1, 0).orElseThrow();
        assertEquals(found.variants().size(), 60);
        assertEquals(found.attempts(), 60);
        SearchSpec spec = SearchSpec.read(file);
        Space space = spec.space();
        Tape tape = tape(spec);
        Set<Long> nets = new HashSet<>();
        int trades = 0;
        for (SearchRun.Outcome outcome : found.variants()) {
            Inputs inputs = new SessionFile.Set(spec.contract(), spec.account(),
                    List.of(spec.variant(space.places(outcome.grid())))).inputs(tape, spec.trial().terms());
            Run alone = Run.trial(inputs);
            List<Long> days = alone.engine().days().days().stream().map(d -> d.result()).toList();
            List<Long> kept = new ArrayList<>();
            for (long day : outcome.tried().orElseThrow().days()) {
                kept.add(day);
            }
            assertEquals(kept, days, space.words(space.places(outcome.grid())));
            assertEquals(outcome.tried().get().trades(), alone.engine().log().trades().size());
            nets.add(outcome.tried().get().net());
            trades += outcome.tried().get().trades();
        }
        assertTrue(nets.size() > 15 && trades > 600, nets.size() + " different variants, " + trades + " trades");
        Path two = Files.createTempDirectory("two");
        run(file, two, 2, 0);
        same(one, two);
        Path killed = Files.createTempDirectory("killed");
        assertTrue(run(file, killed, 2, 23).isEmpty());
        Path journal = killed.resolve("search.journal");
        // the last line is torn, as a kill leaves it
        byte[] text = Files.readAllBytes(journal);
        Files.write(journal, java.util.Arrays.copyOf(text, text.length - 7));
        run(file, killed, 2, 0).orElseThrow();
        same(one, killed);
    }

    @Test
    public void drawnAndHalvedSearchesSayWhatTheyTried() throws IOException {
        Path out = Files.createTempDirectory("random");
        SearchRun.Found random = run(spec("{\"kind\":\"random\",\"variants\":12,\"seed\":3}", SIXTY), out, 2, 0)
                .orElseThrow();
        assertTrue(random.attempts() > 12, "the neighbours of the best were tried as well: " + random.attempts());
        assertEquals(random.variants().getLast().number(), random.attempts());
        Path again = Files.createTempDirectory("random");
        run(spec("{\"kind\":\"random\",\"variants\":12,\"seed\":3}", SIXTY), again, 1, 0);
        same(out, again);
        SearchRun.Found halved = run(spec("{\"kind\":\"halving\"}", SIXTY), Files.createTempDirectory("halving"), 2, 0)
                .orElseThrow();
        assertEquals(halved.attempts(), 60);
        long whole = halved.variants().stream().filter(o -> o.round() == 0).count();
        assertTrue(whole >= 20 && whole < 60, whole + " over the whole range");
        halved.variants().stream().filter(o -> o.round() == 1)
                .forEach(o -> assertEquals(o.tried().orElseThrow().days().length, 22, "a third of 66 days"));
        assertEquals(halved.entries().size(), whole);
    }

    /** Three stops in a row: the best of each fit part by the lower median of a stop and those beside it, by plain trials. */
    @Test
    public void aWalkForwardIsThatOfPlainTrials() throws IOException {
        for (boolean anchored : new boolean[]{false, true}) {
            Path file = spec(
                    "{\"kind\":\"grid\"},\"walkForward\":{\"fitDays\":30,\"testDays\":15,\"anchored\":" + anchored
                            + "}",
                    "{\"name\":\"stop\",\"at\":\"/exit/stop/ticks\",\"values\":[6,10,16]}");
            Path out = Files.createTempDirectory("walk");
            SearchSpec spec = SearchSpec.read(file);
            Tape tape = tape(spec);
            SearchRun run = new SearchRun(spec, tape, 2, out.resolve("search.journal"));
            SearchRun.Found found = run(file, out, 2, 0).orElseThrow();
            List<SearchRun.Step> steps = run.walk(spec.ranked().walk().orElseThrow(), step -> {
                // nobody looks
            });
            SearchFiles.write(out, run, steps, found.days());
            assertEquals(steps.size(), 3, "36 days behind the first thirty: 15, 15 and 6");
            assertEquals(Files.readAllLines(out.resolve("walk-forward-days.csv")).size(), 37);
            assertTrue(Files.exists(out.resolve("variants.csv")), "what was written before is still there");
            for (int s = 0; s < 3; s++) {
                SearchRun.Step step = steps.get(s);
                int from = anchored ? 0 : 15 * s;
                assertEquals(step.fitFrom(), found.days().get(from));
                assertEquals(step.testFrom(), found.days().get(30 + 15 * s));
                double[] scores = new double[3];
                for (int v = 0; v < 3; v++) {
                    Run alone = alone(spec, tape, v, from == 0 ? Optional.empty() : Optional.of(step.fitFrom()),
                            step.fitTo());
                    int trades = alone.engine().log().trades().size();
                    long net = alone.engine().log().trades().stream().mapToLong(t -> t.net()).sum();
                    scores[v] = trades < 10 ? Double.NEGATIVE_INFINITY : (double) net / trades;
                }
                double[] around = {Math.min(scores[0], scores[1]),
                        java.util.Arrays.stream(scores).sorted().toArray()[1], Math.min(scores[1], scores[2])};
                double best = java.util.Arrays.stream(around).max().orElseThrow();
                assertEquals(step.best().orElseThrow().neighbours(), best / 10_000, 1e-9);
                int chosen = step.best().get().entry().number() - 1;
                assertEquals(around[chosen], best);
                Run test = alone(spec, tape, chosen, Optional.of(step.testFrom()), step.testTo());
                assertEquals(step.tried().orElseThrow().net(),
                        test.engine().log().trades().stream().mapToLong(t -> t.net()).sum());
                assertEquals(step.tried().get().days().length, s < 2 ? 15 : 6);
            }
        }
    }

    private static Run alone(SearchSpec spec, Tape tape, int variant, Optional<LocalDate> from, LocalDate to) {
        return Run.trial(new SessionFile.Set(spec.contract(), spec.account(), List.of(spec.variant(new int[]{variant})))
                .inputs(tape, spec.trial().terms()).over(new Days(from, Optional.of(to))));
    }

    @Test
    public void whatCannotBeSearchedIsSaid() throws IOException {
        assertTrue(refused("{\"kind\":\"grid\"}", "{\"at\":\"/exit/stop/parsecs\",\"values\":[]}")
                .contains("expected a value"));
        assertTrue(refused("{\"kind\":\"grid\"}", "{\"at\":\"/nowhere/at/all\",\"values\":[1]}")
                .contains("expected a place of the strategy's document"));
        assertTrue(refused("{\"kind\":\"hope\"}", SIXTY).contains("expected grid, random or halving, found hope"));
        assertTrue(refused("{\"kind\":\"grid\"}", "{\"at\":\"/exit/stop/ticks\",\"values\":[4,4]}")
                .contains("different values"));
        assertTrue(refused("{\"kind\":\"grid\"}",
                String.join(",", java.util.Collections.nCopies(6, "{\"at\":\"/exit/stop/ticks\",\"from\":1,\"to\":9000,"
                        + "\"step\":1}")))
                .contains("more variants than can be counted"));
        // a variant that is refused is no attempt, and says why
        SearchRun.Found found = run(spec("{\"kind\":\"grid\"}",
                "{\"at\":\"/exit/breakeven/offsetTicks\",\"values\":[1,50]}"), Files.createTempDirectory("x"), 1, 0)
                .orElseThrow();
        assertEquals(found.attempts(), 1);
        assertTrue(found.variants().getLast().problem().contains("offset"), found.variants().getLast().problem());
        // another search in the same folder
        Path out = Files.createTempDirectory("mixed");
        run(spec("{\"kind\":\"grid\"}", "{\"at\":\"/exit/stop/ticks\",\"values\":[8]}"), out, 1, 0);
        assertTrue(expectThrows(BadInput.class, () -> run(
                spec("{\"kind\":\"grid\"}", "{\"at\":\"/exit/stop/ticks\",\"values\":[9]}"), out, 1, 0)).getMessage()
                .contains("expected what was done of this very search"));
        assertEquals(Money.text(found.variants().getFirst().tried().orElseThrow().net()).isEmpty(), false);
    }

    private String refused(String method, String ranges) {
        return expectThrows(BadInput.class, () -> SearchSpec.read(spec(method, ranges))).getMessage();
    }
}
