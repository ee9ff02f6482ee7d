package stativex.desk.trials;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.application.Platform;
import stativex.evidence.Odds;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.SealBook;
import stativex.files.SearchFiles;
import stativex.files.SearchFolder;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.files.SearchUnseen;
import stativex.market.Tape;

/** A search beside the window: on all cores but at the lowest priority, to be cancelled and gone on with. */
final class SearchJob {
    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = Thread.ofPlatform().daemon().name("search").unstarted(work);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });
    private volatile boolean cancelled;
    private int running;

    /**
     * What it came to.
     *
     * @param unseen what was opened of sealed dates; empty: not sealed
     * @param steps of a walk forward, if one was asked for
     */
    record Result(SearchRun run, SearchRun.Found found, SearchRun.Judged judged, Optional<SearchUnseen> unseen,
            Optional<List<SearchRun.Step>> steps) {}

    /** How far it is. @param left seconds at the pace so far; {@code walked} the step of a walk forward */
    record Step(int variants, int of, int rounds, long left, Optional<Integer> walked) {}

    /**
     * Begins a search, or goes on with it. Everything is told on the window's thread.
     *
     * @param seal over its contract
     * @param done gets the result; empty: it was cancelled
     */
    void run(SearchFolder.Kept kept, Tape tape, Optional<SealBook.Seal> seal, Consumer<Step> step,
            Consumer<Optional<Result>> done,
            Consumer<String> failed) {
        cancelled = false;
        running++;
        worker.execute(() -> {
            try {
                SearchRun run = new SearchRun(kept.spec(), tape, Runtime.getRuntime().availableProcessors(),
                        kept.journal());
                Watcher watcher = new Watcher(step);
                Optional<Result> result = run.run(watcher)
                        .flatMap(found -> judged(kept, tape, seal, run, found, watcher));
                end(() -> done.accept(result));
            } catch (BadInput | IllegalArgumentException e) {
                end(() -> failed.accept(e.getMessage()));
            }
        });
    }

    /** Looks at sealed dates that were just opened for one of its variants. @param done gets the result with them */
    void look(SearchFolder.Kept kept, Tape tape, SealBook.Seal seal, Result before, Consumer<Result> done,
            Consumer<String> failed) {
        running++;
        worker.execute(() -> {
            try {
                Optional<SearchUnseen> unseen = Optional.of(SearchUnseen.of(kept.spec(), tape, seal, SealBook.own(),
                        before.judged().ranked()));
                SearchFiles.write(kept.folder(), kept.spec(), before.found(), before.judged(), unseen);
                end(() -> done.accept(new Result(before.run(), before.found(), before.judged(), unseen,
                        before.steps())));
            } catch (BadInput | IllegalArgumentException e) {
                end(() -> failed.accept(e.getMessage()));
            }
        });
    }

    private Optional<Result> judged(SearchFolder.Kept kept, Tape tape, Optional<SealBook.Seal> seal, SearchRun run,
            SearchRun.Found found, Watcher watcher) {
        SearchRun.Judged judged = run.judge(found, run.count(found, AttemptBook.own()), new Odds.Progress(share -> {
        }, () -> cancelled));
        Optional<SearchUnseen> unseen = seal
                .map(of -> SearchUnseen.of(kept.spec(), tape, of, SealBook.own(), judged.ranked()));
        Optional<SearchSpec.Walk> walk = kept.spec().ranked().walk();
        if (walk.isEmpty()) {
            SearchFiles.write(kept.folder(), kept.spec(), found, judged, unseen);
            return Optional.of(new Result(run, found, judged, unseen, Optional.empty()));
        }
        if (run.steps(walk.get()) == 0) {
            throw new BadInput("walk forward: expected more than " + walk.get().fit() + " days, found "
                    + found.days().size());
        }
        watcher.walks(1);
        return run.walk(walk.get(), watcher, step -> watcher.walks(step + 1)).map(steps -> {
            SearchFiles.write(kept.folder(), kept.spec(), found, judged, unseen);
            SearchFiles.write(kept.folder(), run, steps, found.days());
            return new Result(run, found, judged, unseen, Optional.of(steps));
        });
    }

    /** Tells the window now and then how far it is. */
    private final class Watcher implements SearchRun.Watcher {
        private final Consumer<Step> told;
        private Optional<Integer> walking = Optional.empty();
        private long begun = System.nanoTime();
        private long said;

        Watcher(Consumer<Step> told) {
            this.told = told;
        }

        void walks(int step) {
            walking = Optional.of(step);
            begun = System.nanoTime();
        }

        @Override
        public void done(int variants, int of, int left) {
            long now = System.nanoTime();
            if (now - said > 100_000_000L || variants == of) {
                said = now;
                long rest = Math.round((now - begun) / 1e9 / variants * (of - variants));
                Optional<Integer> step = walking;
                Platform.runLater(() -> told.accept(new Step(variants, of, left, rest, step)));
            }
        }

        @Override
        public BooleanSupplier cancelled() {
            return () -> cancelled;
        }
    }

    private void end(Runnable told) {
        Platform.runLater(() -> {
            running--;
            told.run();
        });
    }

    void cancel() {
        cancelled = true;
    }

    boolean isBusy() {
        return running > 0;
    }

    void close() {
        cancelled = true;
        worker.shutdown();
    }
}
