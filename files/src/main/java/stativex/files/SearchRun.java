package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import java.util.stream.LongStream;
import stativex.evidence.LuckOfTheBest;
import stativex.evidence.Odds;
import stativex.files.VariantTrials.Outcome;
import stativex.files.VariantTrials.Task;
import stativex.market.Tape;
import stativex.rule.Worked;
import stativex.search.Method;
import stativex.search.Ranking;
import stativex.search.Score;
import stativex.search.Space;
import stativex.search.Tried;

/**
 * Carries a search out by whoever tries variants. They are cut into rounds; every finished one is written to a journal, so that a search
 * that was cancelled or killed goes on where it was and ends with the same result, in whatever order they come.
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
            return variants.stream().filter(outcome -> outcome.whole() && outcome.tried().isPresent())
                    .map(outcome -> new Ranking.Entry(outcome.number(), outcome.grid(), outcome.tried().get()))
                    .toList();
        }
    }

    private final SearchSpec spec;
    private final VariantTrials trials;
    private final Space space;
    private final SearchWorkers workers;
    private final List<LocalDate> days;
    private final SearchJournal journal;

    /**
     * On threads of this machine.
     *
     * @param tape that the spec names
     * @param threads 1 or more
     * @param journal of this search; may hold what an earlier run of the same search has done
     * @throws BadInput when it holds another search, or the documents do not fit one another
     */
    public SearchRun(SearchSpec spec, Tape tape, int threads, Path journal) {
        this(spec, tape, new VariantTrials(spec, tape), Optional.empty(), threads, journal);
    }

    /** Elsewhere. @param workers that try the variants; likewise */
    public SearchRun(SearchSpec spec, Tape tape, SearchWorkers workers, Path journal) {
        this(spec, tape, new VariantTrials(spec, tape), Optional.of(workers), 1, journal);
    }

    private SearchRun(SearchSpec spec, Tape tape, VariantTrials trials, Optional<SearchWorkers> workers, int threads,
            Path journal) {
        this.spec = spec;
        this.trials = trials;
        this.space = trials.space();
        this.days = trials.days();
        this.workers = workers.orElseGet(() -> new SearchThreads(trials, threads));
        this.journal = new SearchJournal(journal, spec, tape, days.size());
    }

    /** What is searched. */
    public Space space() {
        return space;
    }

    /** @return empty when it was cancelled; what was done is kept */
    public Optional<Found> run(Watcher watcher) {
        try (SearchJournal.Book book = journal.open()) {
            return run(book, watcher);
        }
    }

    private Optional<Found> run(SearchJournal.Book book, Watcher watcher) {
        Set<Long> attempted = new HashSet<>();
        List<Outcome> all = new ArrayList<>();
        int rounds = spec.method() instanceof Method.Halving ? Method.rounds(days.size()) : 0;
        List<Task> round = new ArrayList<>();
        int number = 0;
        for (long grid : (Iterable<Long>) LongStream.of(wanted())::iterator) {
            round.add(task(++number, grid, rounds));
        }
        for (int r = rounds; r >= 0; r--) {
            Optional<List<Outcome>> done = work(round, book, watcher, r);
            if (done.isEmpty()) {
                return Optional.empty();
            }
            done.get().forEach(outcome -> attempted.add(outcome.grid()));
            if (r > 0) {
                List<Outcome> kept = best(done.get(), r);
                Set<Long> stays = new HashSet<>(kept.stream().map(Outcome::grid).toList());
                done.get().stream().filter(outcome -> !stays.contains(outcome.grid())).forEach(all::add);
                int next = r - 1;
                round = kept.stream().map(outcome -> task(outcome.number(), outcome.grid(), next)).toList();
            } else {
                all.addAll(done.get());
            }
        }
        if (!(spec.method() instanceof Method.Grid)) {
            Optional<List<Outcome>> done = work(missing(all, number), book, watcher, 0);
            if (done.isEmpty()) {
                return Optional.empty();
            }
            Set<Long> again = new HashSet<>(done.get().stream().map(Outcome::grid).toList());
            all.removeIf(outcome -> again.contains(outcome.grid()));
            all.addAll(done.get());
            attempted.addAll(again);
        }
        all.sort(Comparator.comparingInt(Outcome::number));
        long refused = all.stream().filter(outcome -> outcome.tried().isEmpty()).count();
        return Optional.of(new Found(all, Math.toIntExact(attempted.size() - refused), days));
    }

    private Task task(int number, long grid, int round) {
        return new Task(number, grid, 0, Method.days(days.size(), round) - 1);
    }

    /** Neighbours of the best that were not tried over the whole range. @param highest number so far */
    private List<Task> missing(List<Outcome> all, int highest) {
        List<Task> missing = new ArrayList<>();
        Set<Long> evaluated = new HashSet<>();
        Map<Long, Integer> numbers = new HashMap<>();
        all.forEach(outcome -> numbers.put(outcome.grid(), outcome.number()));
        all.stream().filter(Outcome::whole).forEach(outcome -> evaluated.add(outcome.grid()));
        int number = highest;
        for (long grid : ranking(all).missing(Method.BEST)) {
            if (!evaluated.contains(grid)) {
                Integer had = numbers.get(grid);
                missing.add(trials.whole(had == null ? ++number : had, grid));
            }
        }
        return missing;
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

    /** Those that are not known yet are tried; all in the order in which they were wanted. */
    private Optional<List<Outcome>> work(List<Task> tasks, SearchJournal.Book book, Watcher watcher, int left) {
        Map<Task, Outcome> outcomes = new HashMap<>();
        List<Task> unknown = new ArrayList<>();
        for (Task task : tasks) {
            book.known(task).ifPresentOrElse(outcome -> outcomes.put(task, outcome), () -> unknown.add(task));
        }
        if (!outcomes.isEmpty()) {
            watcher.done(outcomes.size(), tasks.size(), left);
        }
        workers.work(unknown, (task, outcome) -> {
            // one that was lost with its machine and tried again comes once
            if (outcomes.putIfAbsent(task, outcome) == null) {
                book.add(task, outcome);
                watcher.done(outcomes.size(), tasks.size(), left);
            }
        }, watcher.cancelled());
        return outcomes.size() < tasks.size()
                ? Optional.empty()
                : Optional.of(tasks.stream().map(outcomes::get).toList());
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
     * @param steps told of each step
     * @return empty when it was cancelled; what was done is kept
     */
    public Optional<List<Step>> walk(SearchSpec.Walk walk, Watcher watcher, IntConsumer steps) {
        try (SearchJournal.Book book = journal.open()) {
            List<Step> found = new ArrayList<>();
            for (int test = walk.fit(); test < days.size(); test += walk.test()) {
                int from = walk.anchored() ? 0 : test - walk.fit();
                int until = test - 1;
                List<Task> tasks = LongStream.range(0, space.count())
                        .mapToObj(grid -> new Task((int) grid + 1, grid, from, until)).toList();
                Optional<List<Outcome>> done = work(tasks, book, watcher, 0);
                if (done.isEmpty()) {
                    return Optional.empty();
                }
                found.add(step(done.get(), from, test, Math.min(test + walk.test(), days.size()) - 1));
                steps.accept(found.size());
            }
            return Optional.of(found);
        }
    }

    private Step step(List<Outcome> fitted, int from, int test, int to) {
        List<Ranking.Entry> entries = new ArrayList<>();
        fitted.forEach(outcome -> outcome.tried().ifPresent(
                tried -> entries.add(new Ranking.Entry(outcome.number(), outcome.grid(), tried))));
        Optional<Ranking.Ranked> best = new Ranking(space, spec.ranked().score(), spec.ranked().least(), entries)
                .ranked(Math.max(1, entries.size())).stream().findFirst()
                .filter(one -> one.neighbours() != Score.ABSENT);
        Optional<Tried> tried = best.flatMap(one -> trials.of(
                new Task(one.entry().number(), one.entry().grid(), test, to), new Worked()).tried());
        return new Step(days.get(from), days.get(test - 1), days.get(test), days.get(to), best, tried);
    }

    /** Steps of a walk over this range. */
    public int steps(SearchSpec.Walk walk) {
        return Math.max(0, Math.ceilDiv(days.size() - walk.fit(), walk.test()));
    }

    /** Chance, best at random and order of what was found. @param attempts that luck is counted with */
    public record Judged(List<Ranking.Ranked> ranked, int attempts, OptionalDouble bestAtRandom,
            Optional<LuckOfTheBest> luck) {
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
