package stativex.desk.trials;

import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.application.Platform;
import stativex.evidence.Odds;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.SearchFiles;
import stativex.files.SearchFolder;
import stativex.files.SearchRun;
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

    /** What it came to. */
    record Result(SearchRun run, SearchRun.Found found, SearchRun.Judged judged) {}

    /** How far it is. @param left seconds at the pace so far */
    record Step(int variants, int of, int rounds, long left) {}

    /**
     * Begins a search, or goes on with it. Everything is told on the window's thread.
     *
     * @param done gets the result; empty: it was cancelled
     */
    void run(SearchFolder.Kept kept, Tape tape, Consumer<Step> step, Consumer<Optional<Result>> done,
            Consumer<String> failed) {
        cancelled = false;
        running++;
        worker.execute(() -> {
            try {
                SearchRun run = new SearchRun(kept.spec(), tape, Runtime.getRuntime().availableProcessors(),
                        kept.journal());
                long begun = System.nanoTime();
                Optional<SearchRun.Found> found = run.run(new SearchRun.Watcher() {
                    private long said;

                    @Override
                    public void done(int variants, int of, int left) {
                        long now = System.nanoTime();
                        if (now - said > 100_000_000L || variants == of) {
                            said = now;
                            long rest = Math.round((now - begun) / 1e9 / variants * (of - variants));
                            Platform.runLater(() -> step.accept(new Step(variants, of, left, rest)));
                        }
                    }

                    @Override
                    public BooleanSupplier cancelled() {
                        return () -> cancelled;
                    }
                });
                Optional<Result> result = found
                        .map(f -> new Result(run, f,
                                run.judge(f, run.count(f, AttemptBook.own()), new Odds.Progress(share -> {
                                }, () -> cancelled))));
                result.ifPresent(r -> SearchFiles.write(kept.folder(), kept.spec(), r.found(), r.judged()));
                end(() -> done.accept(result));
            } catch (BadInput | IllegalArgumentException e) {
                end(() -> failed.accept(e.getMessage()));
            }
        });
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
