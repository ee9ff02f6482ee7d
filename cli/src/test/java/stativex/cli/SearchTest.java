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
import stativex.files.Documents;
import stativex.files.SearchChoices;
import stativex.files.SearchFiles;
import stativex.files.SearchFolder;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.files.SessionFile;
import stativex.files.VariantTrials;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.search.Space;
import stativex.search.Control;
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

    /** @param after variants; 0: never */
    private static SearchRun.Watcher cancelling(int after) {
        int[] done = new int[1];
        return new SearchRun.Watcher() {
            @Override
            public void done(int variants, int of, int left) {
                done[0]++;
            }

            @Override
            public BooleanSupplier cancelled() {
                return () -> after > 0 && done[0] >= after;
            }
        };
    }

    /** @param cancelAfter variants; 0: never */
    private Optional<SearchRun.Found> run(Path file, Path out, int threads, int cancelAfter) {
        SearchSpec spec = SearchSpec.read(file);
        SearchRun run = new SearchRun(spec, tape(spec), threads, out.resolve("search.journal"));
        Optional<SearchRun.Found> found = run.run(cancelling(cancelAfter));
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
        for (VariantTrials.Outcome outcome : found.variants()) {
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
        long whole = halved.variants().stream().filter(o -> o.whole()).count();
        assertTrue(whole >= 20 && whole < 60, whole + " over the whole range");
        halved.variants().stream().filter(o -> !o.whole())
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
            SearchSpec.Walk walk = spec.ranked().walk().orElseThrow();
            assertTrue(run.walk(walk, cancelling(4), step -> {
                // nobody looks
            }).isEmpty(), "it was given up in the second step");
            int[] anew = new int[1];
            SearchRun.Watcher counts = cancelling(0);
            List<SearchRun.Step> steps = run.walk(walk, new SearchRun.Watcher() {
                @Override
                public void done(int variants, int of, int left) {
                    anew[0]++;
                }

                @Override
                public BooleanSupplier cancelled() {
                    return counts.cancelled();
                }
            }, step -> {
                // nobody looks
            }).orElseThrow();
            assertTrue(anew[0] < 9, "it went on where it was: " + anew[0]);
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

    /** Every choice that follows from the strategy is the trial of the document that it stands for. */
    @Test
    public void filtersSidesAndConditionsAreJudgedOneByOne() throws IOException {
        Path strategy = folder.resolve("filtered.strategy.json");
        Files.writeString(strategy, Files.readString(folder.resolve("ebb-fade.strategy.json")).replaceFirst(
                "\"entry\":",
                "\"filters\": [{\"name\": \"calm\", \"on\": false, \"long\": \"reach < 30 ticks\", \"short\":"
                        + " \"reach < 30 ticks\"}, {\"name\": \"steep\", \"long\": \"close > drift\"}], \"entry\":"));
        Path file = spec("{\"kind\":\"grid\"},\"judge\":[\"filters\",\"sides\",\"conditions\"]", "");
        Files.writeString(file,
                Files.readString(file).replace("ebb-fade.strategy.json", strategy.getFileName().toString()));
        SearchSpec spec = SearchSpec.read(file);
        assertEquals(spec.space().ranges().stream().map(range -> range.name() + " " + range.values()).toList(), List.of(
                "filters [no filter, calm alone, steep alone, all filters]", "sides [long, short, both]",
                "conditions [all conditions, without close < mean.lower, without close > open, without delta > 0]"));
        Path out = Files.createTempDirectory("judged");
        SearchRun.Found found = run(file, out, 2, 0).orElseThrow();
        assertEquals(found.entries().size(), 48);
        String best = Files.readString(out.resolve("search.json"));
        assertTrue(best.contains("againstNoFilter") && best.contains("\"settings\" : \"filters=calm alone; sides=both;"
                + " conditions=all conditions\""), best);
        // by a document written by hand: steep alone, short side, the third condition left out
        Path hand = folder.resolve("hand.strategy.json");
        String text = Files.readString(strategy);
        Files.writeString(hand, text.replaceFirst("\\{\"name\": \"calm\".*?\\}, ", "").replaceFirst(
                "\"long\": \\{\"rule\".*?\\},\n", "").replace("close > mean.upper\\nand close < open\\nand delta < 0",
                        "close > mean.upper\\nand close < open"));
        Run alone = Run.trial(new SessionFile.Set(spec.contract(), spec.account(), List.of(Documents.strategy(hand)))
                .inputs(tape(spec), spec.trial().terms()));
        long number = spec.space().number(new int[]{2, 1, 3});
        var tried = found.entries().stream().filter(entry -> entry.grid() == number).findFirst().orElseThrow().tried();
        assertTrue(tried.trades() > 5, tried.trades() + " trades");
        assertEquals(tried, stativex.search.Tried.of(alone));
        List<Control> controls = Control.of(spec.space(), found.entries(), 0);
        assertEquals(controls.size(), 36);
        Control one = controls.stream().filter(c -> c.with().grid() == number).findFirst().orElseThrow();
        assertEquals(one.without().grid(), spec.space().number(new int[]{0, 1, 3}));
        assertEquals(one.net(), tried.net() - one.without().tried().net());
        // kept in a folder, it is the same search
        SearchFolder.Kept kept = new SearchFolder(Files.createTempDirectory("kept")).add(spec);
        SearchSpec again = SearchSpec.read(kept.folder().resolve("spec.json"));
        assertEquals(again.settings(), spec.settings());
        assertTrue(refused("{\"kind\":\"grid\"},\"judge\":[\"filters\"]", "").contains("found one without"));
        assertTrue(refused("{\"kind\":\"grid\"},\"judge\":[\"taste\"]", "")
                .contains("expected filters, sides or conditions, found taste"));
        SearchSpec.Setting bars = SearchChoices.bars(spec.strategy(), "tick 8, minutes 2, renko 3");
        assertEquals(bars.writes().get(1).get("/signal").toString(), "{\"bars\":\"seconds\",\"size\":120}");
        assertTrue(expectThrows(BadInput.class, () -> SearchChoices.bars(spec.strategy(), "tick 8, fathoms 2"))
                .getMessage().contains("found \"fathoms 2\""));
    }

    /** A number inside a rule is varied as one of the document is: each variant is the trial of the rule written by hand. */
    @Test
    public void numbersOfARuleAreVaried() throws IOException {
        Path strategy = folder.resolve("numbers.strategy.json");
        Files.writeString(strategy, Files.readString(folder.resolve("ebb-fade.strategy.json"))
                .replace("close < mean.lower\\nand close > open", "close < mean.lower - 2 ticks # not 7 at 10:30"
                        + "\\nand close > close 1 bar before")
                .replace("close > mean.upper\\nand close < open", "close > mean.upper + 2 ticks\\nand close < close 1"
                        + " bar before"));
        Path file = spec("{\"kind\":\"grid\"}", "{\"at\":[\"/long/rule#0\",\"/short/rule#0\"],\"values\":[1,2,4.5]},"
                + "{\"at\":\"/long/rule#1\",\"values\":[1,3]}");
        Files.writeString(file, Files.readString(file).replace("ebb-fade.strategy.json", "numbers.strategy.json"));
        SearchSpec spec = SearchSpec.read(file);
        SearchRun.Found found = run(file, Files.createTempDirectory("numbers"), 2, 0).orElseThrow();
        assertEquals(found.entries().size(), 6);
        String text = Files.readString(strategy);
        Path hand = folder.resolve("by-hand.strategy.json");
        Files.writeString(hand, text.replace("lower - 2 ticks", "lower - 4.5 ticks").replace("upper + 2 ticks",
                "upper + 4.5 ticks").replace("close > close 1 bar", "close > close 3 bars"));
        Run alone = Run.trial(new SessionFile.Set(spec.contract(), spec.account(), List.of(Documents.strategy(hand)))
                .inputs(tape(spec), spec.trial().terms()));
        var tried = found.entries().getLast().tried();
        assertTrue(tried.trades() > 3, tried.trades() + " trades");
        assertEquals(tried, stativex.search.Tried.of(alone));
        assertEquals(SearchFolder.numbers(spec.strategy()).keySet().stream().filter(place -> place.contains("rule"))
                .map(place -> SearchFolder.words(spec.strategy(), place)).toList(),
                List.of("both, long close < mean.lower - \u2026 ticks", "both, long close > close \u2026 bar before",
                        "both, long delta > \u2026", "long close < mean.lower - \u2026 ticks",
                        "long close > close \u2026 bar before", "long delta > \u2026",
                        "short close > mean.upper + \u2026 ticks", "short close < close \u2026 bar before",
                        "short delta < \u2026"));
        SearchFolder.Kept kept = new SearchFolder(Files.createTempDirectory("kept")).add(spec);
        assertEquals(SearchSpec.read(kept.folder().resolve("spec.json")).settings(), spec.settings());
        assertTrue(refused("{\"kind\":\"grid\"}", "{\"at\":\"/long/rule#9\",\"values\":[1]}")
                .contains("expected a place up to #0, found /long/rule#9"));
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
