package stativex.files;

import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import java.util.stream.LongStream;
import stativex.engine.DayBook;
import stativex.engine.Strategy;
import stativex.evidence.Odds;
import stativex.market.Histories;
import stativex.market.Tape;
import stativex.rule.Worked;
import stativex.search.Method;
import stativex.search.Ranking;
import stativex.search.Score;
import stativex.search.Space;
import stativex.search.Tried;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * Carries a search out on so many threads. Variants are cut into rounds; every finished variant is written to a journal, so that a search
 * that was cancelled or killed goes on where it was and ends with the same result. Bars are made once for all threads; each thread keeps
 * the studies of its last two variants, so memory does not grow with the search. Each variant is a trial of its own.
 */
public final class SearchRun {
    /** Told how far a search is. */
    public interface Watcher {
        /** @param of variants of this round; {@code left} rounds after it */
        void done(int variants, int of, int left);

        /** Whether to give up; asked between variants. */
        BooleanSupplier cancelled();
    }

    /**
     * What a search came to.
     *
     * @param variants that were evaluated over the whole range, and those that could not be; in the order of their numbers
     * @param attempts variants that were ever evaluated in it, dropped ones included
     * @param days of the fit range
     */
    public record Found(List<Outcome> variants, int attempts, List<LocalDate> days) {
        public Found {
            variants = List.copyOf(variants);
            days = List.copyOf(days);
        }

        /** Those that were evaluated over the whole range. */
        public List<Ranking.Entry> entries() {
            return variants.stream().filter(outcome -> outcome.round() == 0 && outcome.tried().isPresent())
                    .map(outcome -> new Ranking.Entry(outcome.number(), outcome.grid(), outcome.tried().get()))
                    .toList();
        }
    }

    /**
     * A variant.
     *
     * @param number in the search, from 1
     * @param round of halving that it was evaluated in last; 0: over the whole range
     * @param tried empty where its document is refused, {@code problem} says why
     */
    public record Outcome(int number, long grid, int round, Optional<Tried> tried, String problem) {}

    private final SearchSpec spec;
    private final Space space;
    private final Tape tape;
    private final Inputs base;
    private final List<LocalDate> days;
    private final Histories histories = new Histories();
    private final int threads;
    private final Path journal;
    private final String fingerprint;

    /**
     * @param tape that the spec names
     * @param threads 1 or more
     * @param journal of this search; may hold what an earlier run of the same search has done
     * @throws BadInput when it holds another search, or the documents do not fit one another
     */
    public SearchRun(SearchSpec spec, Tape tape, int threads, Path journal) {
        this.spec = spec;
        this.space = spec.space();
        this.tape = tape;
        this.threads = threads;
        this.journal = journal;
        int[] none = new int[space.ranges().size()];
        this.base = new SessionFile.Set(spec.contract(), spec.account(), List.of(spec.variant(none)))
                .inputs(tape, spec.trial().terms()).over(spec.trial().days());
        this.days = Run.trial(base).engine().days().days().stream().map(DayBook.Day::date).toList();
        if (days.isEmpty()) {
            throw new BadInput("expected days of the tape in the fit range, found none");
        }
        Map<String, Object> what = new LinkedHashMap<>();
        what.put("engine", ResultFiles.engineVersion());
        what.put("tape", Long.toHexString(tape.checksum()));
        what.put("contract", spec.contract().document());
        what.put("account", spec.account().document());
        what.put("strategy", spec.strategy());
        what.put("settings", spec.settings().stream()
                .map(setting -> List.of(setting.range().toString(), setting.places(), setting.values())).toList());
        what.put("trial", spec.trial().toString());
        what.put("method", spec.method().toString());
        what.put("ranked", List.of(spec.ranked().score().word(), spec.ranked().least(), spec.ranked().blocks()));
        this.fingerprint = Documents.fingerprint(Json.MAPPER.valueToTree(what));
    }

    /** What is searched. */
    public Space space() {
        return space;
    }

    /** A wanted evaluation. */
    private record Task(int number, long grid, int round) {}

    /** @return empty when it was cancelled; what was done is kept */
    public Optional<Found> run(Watcher watcher) {
        Map<Task, Outcome> known = known();
        try (InputJournal.Writer writer = InputJournal.Writer.onto(journal)) {
            if (known.isEmpty()) {
                writer.append(Map.of("search", fingerprint));
            }
            Set<Long> attempted = new HashSet<>();
            List<Outcome> all = new ArrayList<>();
            int rounds = spec.method() instanceof Method.Halving ? Method.rounds(days.size()) : 0;
            List<Task> round = new ArrayList<>();
            int number = 0;
            for (long grid : (Iterable<Long>) LongStream.of(wanted())::iterator) {
                round.add(new Task(++number, grid, rounds));
            }
            for (int r = rounds; r >= 0; r--) {
                Optional<List<Outcome>> done = work(round, known, writer, watcher, r);
                if (done.isEmpty()) {
                    return Optional.empty();
                }
                done.get().forEach(outcome -> attempted.add(outcome.grid()));
                if (r > 0) {
                    List<Outcome> kept = best(done.get(), r);
                    Set<Long> stays = new HashSet<>(kept.stream().map(Outcome::grid).toList());
                    done.get().stream().filter(outcome -> !stays.contains(outcome.grid())).forEach(all::add);
                    int next = r - 1;
                    round = kept.stream().map(outcome -> new Task(outcome.number(), outcome.grid(), next)).toList();
                } else {
                    all.addAll(done.get());
                }
            }
            if (!(spec.method() instanceof Method.Grid)) {
                List<Task> missing = new ArrayList<>();
                Set<Long> evaluated = new HashSet<>();
                Map<Long, Integer> numbers = new LinkedHashMap<>();
                all.forEach(outcome -> numbers.put(outcome.grid(), outcome.number()));
                all.stream().filter(outcome -> outcome.round() == 0).forEach(outcome -> evaluated.add(outcome.grid()));
                for (long grid : ranking(all).missing(Method.BEST)) {
                    if (!evaluated.contains(grid)) {
                        Integer had = numbers.get(grid);
                        missing.add(new Task(had == null ? ++number : had, grid, 0));
                    }
                }
                Optional<List<Outcome>> done = work(missing, known, writer, watcher, 0);
                if (done.isEmpty()) {
                    return Optional.empty();
                }
                Set<Long> again = new HashSet<>(done.get().stream().map(Outcome::grid).toList());
                all.removeIf(outcome -> again.contains(outcome.grid()));
                all.addAll(done.get());
                done.get().forEach(outcome -> attempted.add(outcome.grid()));
            }
            all.sort(java.util.Comparator.comparingInt(Outcome::number));
            long refused = all.stream().filter(outcome -> outcome.tried().isEmpty()).count();
            return Optional.of(new Found(all, Math.toIntExact(attempted.size() - refused), days));
        }
    }

    private long[] wanted() {
        long most = 2_000_000;
        if (!(spec.method() instanceof Method.Random) && space.count() > most) {
            throw new BadInput("a grid of " + space.count() + " variants: expected at most " + most
                    + "; draw some of them with the method random");
        }
        return Method.first(spec.method(), space).toArray();
    }

    /** Variants over the whole range, ranked. */
    private Ranking ranking(List<Outcome> all) {
        return new Ranking(space, spec.ranked().score(), spec.ranked().least(), new Found(all, 0, days).entries());
    }

    /** A third of a round, rounded up, by score. */
    private List<Outcome> best(List<Outcome> round, int r) {
        int of = Method.days(days.size(), r);
        int least = Method.least(spec.ranked().least(), of, days.size());
        List<Ranking.Entry> entries = round.stream().filter(outcome -> outcome.tried().isPresent())
                .map(outcome -> new Ranking.Entry(outcome.number(), outcome.grid(), outcome.tried().get())).toList();
        Set<Long> kept = new HashSet<>(new Ranking(space, spec.ranked().score(), least, entries).byScore().stream()
                .limit(Math.ceilDiv(entries.size(), 3)).map(Ranking.Entry::grid).toList());
        return round.stream().filter(outcome -> kept.contains(outcome.grid())).toList();
    }

    // ------------------------------------------------------------------ work

    private Optional<List<Outcome>> work(List<Task> tasks, Map<Task, Outcome> known, InputJournal.Writer writer,
            Watcher watcher, int left) {
        Outcome[] outcomes = new Outcome[tasks.size()];
        AtomicInteger next = new AtomicInteger();
        AtomicInteger done = new AtomicInteger();
        AtomicBoolean stop = new AtomicBoolean();
        List<Future<?>> workers = new ArrayList<>();
        try (ExecutorService pool = Executors.newFixedThreadPool(threads,
                Thread.ofPlatform().daemon().name("search-", 0).factory())) {
            for (int t = 0; t < threads; t++) {
                workers.add(pool.submit(() -> {
                    Worked worked = new Worked();
                    for (int i = next.getAndIncrement(); i < tasks.size() && !stop.get(); i = next
                            .getAndIncrement()) {
                        Task task = tasks.get(i);
                        Outcome outcome = known.containsKey(task) ? known.get(task) : evaluate(task, worked);
                        outcomes[i] = outcome;
                        synchronized (writer) {
                            if (!known.containsKey(task)) {
                                writer.append(entry(task, outcome));
                            }
                            watcher.done(done.incrementAndGet(), tasks.size(), left);
                        }
                        if (watcher.cancelled().getAsBoolean()) {
                            stop.set(true);
                        }
                    }
                }));
            }
            for (Future<?> worker : workers) {
                worker.get();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException cause ? cause : new IllegalStateException(e.getCause());
        }
        return stop.get() && done.get() < tasks.size() ? Optional.empty() : Optional.of(List.of(outcomes));
    }

    private Outcome evaluate(Task task, Worked worked) {
        return evaluate(task,
                task.round() == 0 ? base.days() : range(0, Method.days(days.size(), task.round()) - 1), worked);
    }

    private Outcome evaluate(Task task, Days range, Worked worked) {
        try {
            Documents.Read<Strategy> strategy = spec.variant(space.places(task.grid()));
            Inputs inputs = new Inputs(tape, base.contract(), base.others(), base.account(),
                    List.of(strategy.value()), base.terms(), range, base.heartbeats(), base.rolls());
            Tried tried = Tried.of(Run.trial(new Run(inputs, histories, worked)));
            return new Outcome(task.number(), task.grid(), task.round(), Optional.of(tried), "");
        } catch (BadInput | IllegalArgumentException e) {
            return new Outcome(task.number(), task.grid(), task.round(), Optional.empty(), e.getMessage());
        }
    }

    // ------------------------------------------------------------------ what was done before

    private static Map<String, Object> entry(Task task, Outcome outcome) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("variant", task.number());
        entry.put("grid", task.grid());
        entry.put("round", task.round());
        outcome.tried().ifPresentOrElse(tried -> {
            entry.put("trades", tried.trades());
            entry.put("net", tried.net());
            tried.profitFactor().ifPresent(factor -> entry.put("profitFactor", bits(factor)));
            entry.put("deepest", tried.deepestDrawdown());
            tried.expectancyR().ifPresent(r -> entry.put("expectancyR", bits(r)));
            entry.put("stop", tried.hasStop());
            entry.put("days", packed(tried.days()));
        }, () -> entry.put("problem", outcome.problem()));
        return entry;
    }

    /** A double as it is, bit for bit. */
    private static String bits(double value) {
        return Long.toHexString(Double.doubleToRawLongBits(value));
    }

    private static String packed(long[] days) {
        java.nio.ByteBuffer bytes = java.nio.ByteBuffer.allocate(8 * days.length);
        for (long day : days) {
            bytes.putLong(day);
        }
        return Base64.getEncoder().encodeToString(bytes.array());
    }

    private Map<Task, Outcome> known() {
        Map<Task, Outcome> known = new LinkedHashMap<>();
        if (!java.nio.file.Files.exists(journal)) {
            return known;
        }
        List<String> lines = InputJournal.read(journal);
        for (int i = 0; i < lines.size(); i++) {
            String place = journal + ", line " + (i + 1);
            Field line = Field.root(place, Json.parse(lines.get(i), place));
            if (i == 0) {
                if (!line.has("search") || !line.at("search").text().equals(fingerprint)) {
                    throw new BadInput(place + ": expected what was done of this very search (same documents, tape and"
                            + " engine), found another one: choose another folder");
                }
                continue;
            }
            Task task = new Task(line.at("variant").integer(), line.at("grid").longInteger(0, Long.MAX_VALUE),
                    line.at("round").integer());
            known.put(task, new Outcome(task.number(), task.grid(), task.round(),
                    line.has("problem") ? Optional.empty() : Optional.of(tried(line)),
                    line.has("problem") ? line.at("problem").text() : ""));
        }
        return known;
    }

    private static Tried tried(Field line) {
        java.nio.ByteBuffer bytes = java.nio.ByteBuffer.wrap(Base64.getDecoder().decode(line.at("days").text()));
        long[] days = new long[bytes.remaining() / 8];
        for (int i = 0; i < days.length; i++) {
            days[i] = bytes.getLong();
        }
        return new Tried(line.at("trades").integer(), line.at("net").longInteger(Long.MIN_VALUE, Long.MAX_VALUE),
                real(line, "profitFactor"), line.at("deepest").longInteger(0, Long.MAX_VALUE),
                real(line, "expectancyR"), days, line.at("stop").flag());
    }

    private static OptionalDouble real(Field line, String name) {
        return line.has(name)
                ? OptionalDouble.of(Double.longBitsToDouble(Long.parseUnsignedLong(line.at(name).text(), 16)))
                : OptionalDouble.empty();
    }

    /**
     * A step of a walk forward; dates are ends of its parts, included.
     *
     * @param best of the fit part; empty if every score is absent
     * @param tried on the test part; empty without a best
     */
    public record Step(LocalDate fitFrom, LocalDate fitTo, LocalDate testFrom, LocalDate testTo,
            Optional<Ranking.Ranked> best, Optional<Tried> tried) {}

    /**
     * Walks forward: the best of each fit part, by the ranking score, is tried on the test part behind it. Every part is a run of its
     * own. A shorter last test part counts.
     *
     * @param done told of each step, with how many there are
     */
    public List<Step> walk(SearchSpec.Walk walk, IntConsumer done) {
        List<Step> steps = new ArrayList<>();
        for (int test = walk.fit(); test < days.size(); test += walk.test()) {
            int from = walk.anchored() ? 0 : test - walk.fit();
            int to = Math.min(test + walk.test(), days.size()) - 1;
            Days fit = range(from, test - 1);
            List<Task> tasks = LongStream.range(0, space.count()).mapToObj(grid -> new Task((int) grid + 1, grid, 0))
                    .toList();
            List<Ranking.Entry> entries = new ArrayList<>();
            for (Outcome outcome : parallel(tasks, (task, worked) -> evaluate(task, fit, worked))) {
                outcome.tried().ifPresent(
                        tried -> entries.add(new Ranking.Entry(outcome.number(), outcome.grid(), tried)));
            }
            Optional<Ranking.Ranked> best = new Ranking(space, spec.ranked().score(), spec.ranked().least(), entries)
                    .ranked(Math.max(1, entries.size())).stream().findFirst()
                    .filter(one -> one.neighbours() != Score.ABSENT);
            Days unseen = range(test, to);
            Optional<Tried> tried = best.flatMap(one -> evaluate(
                    new Task(one.entry().number(), one.entry().grid(), 0), unseen, new Worked()).tried());
            steps.add(new Step(days.get(from), days.get(test - 1), days.get(test), days.get(to), best, tried));
            done.accept(steps.size());
        }
        return steps;
    }

    /** Steps of a walk over this range. */
    public int steps(SearchSpec.Walk walk) {
        return Math.max(0, Math.ceilDiv(days.size() - walk.fit(), walk.test()));
    }

    /** Days by their places; the range's own beginning stays as it is. */
    private Days range(int from, int to) {
        return new Days(from == 0 ? base.days().first() : Optional.of(days.get(from)), Optional.of(days.get(to)));
    }

    private interface Evaluation {
        Outcome of(Task task, Worked worked);
    }

    private List<Outcome> parallel(List<Task> tasks, Evaluation evaluation) {
        Outcome[] outcomes = new Outcome[tasks.size()];
        AtomicInteger next = new AtomicInteger();
        List<Future<?>> workers = new ArrayList<>();
        try (ExecutorService pool = Executors.newFixedThreadPool(threads,
                Thread.ofPlatform().daemon().name("walk-", 0).factory())) {
            for (int t = 0; t < threads; t++) {
                workers.add(pool.submit(() -> {
                    Worked worked = new Worked();
                    for (int i = next.getAndIncrement(); i < tasks.size(); i = next.getAndIncrement()) {
                        outcomes[i] = evaluation.of(tasks.get(i), worked);
                    }
                }));
            }
            for (Future<?> worker : workers) {
                worker.get();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException cause ? cause : new IllegalStateException(e.getCause());
        }
        return List.of(outcomes);
    }

    /** Chance, best at random and order of what was found. @param attempts that luck is counted with */
    public record Judged(List<Ranking.Ranked> ranked, int attempts, OptionalDouble bestAtRandom,
            Optional<stativex.evidence.LuckOfTheBest> luck) {
        public Judged {
            ranked = List.copyOf(ranked);
        }
    }

    /** Ranks what was found, by the attempts of this search alone. */
    public Judged judge(Found found, Odds.Progress progress) {
        return judge(found, found.attempts(), progress);
    }

    /** Ranks what was found. @param attempts ever made on the range, those of this search included */
    public Judged judge(Found found, int attempts, Odds.Progress progress) {
        Ranking ranking = new Ranking(space, spec.ranked().score(), spec.ranked().least(), found.entries());
        return new Judged(ranking.ranked(attempts), attempts, ranking.bestAtRandom(attempts),
                ranking.luck(spec.ranked().blocks(), progress));
    }

    /** Counts every variant of this search in the book of attempts. Returns how many were ever made on its range. */
    public int count(Found found, AttemptBook book) {
        List<String> variants = found.variants().stream().filter(outcome -> outcome.tried().isPresent())
                .map(outcome -> AttemptBook.fingerprint(spec.variant(space.places(outcome.grid())).document()))
                .toList();
        String contract = spec.contract().value().symbol();
        String strategy = spec.strategy().path("name").asString("");
        book.add(contract, strategy, days.getFirst(), days.getLast(), variants);
        return Math.max(found.attempts(), book.count(contract, strategy, days.getFirst(), days.getLast()));
    }
}
