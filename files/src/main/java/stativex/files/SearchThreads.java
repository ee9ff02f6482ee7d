package stativex.files;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import stativex.rule.Worked;

/** Variants on threads of this machine. Each keeps the studies of its last two variants, so memory does not grow with the search. */
public final class SearchThreads implements SearchWorkers {
    private final VariantTrials trials;
    private final int threads;

    /** @param threads 1 or more */
    public SearchThreads(VariantTrials trials, int threads) {
        this.trials = trials;
        this.threads = threads;
    }

    @Override
    public void work(List<VariantTrials.Task> tasks, BiConsumer<VariantTrials.Task, VariantTrials.Outcome> done,
            BooleanSupplier stop) {
        AtomicInteger next = new AtomicInteger();
        List<Future<?>> workers = new ArrayList<>();
        try (ExecutorService pool = Executors.newFixedThreadPool(threads,
                Thread.ofPlatform().daemon().name("search-", 0).factory())) {
            for (int t = 0; t < threads; t++) {
                workers.add(pool.submit(() -> {
                    Worked worked = new Worked();
                    for (int i = next.getAndIncrement(); i < tasks.size() && !stop.getAsBoolean(); i = next
                            .getAndIncrement()) {
                        VariantTrials.Outcome outcome = trials.of(tasks.get(i), worked);
                        synchronized (tasks) {
                            done.accept(tasks.get(i), outcome);
                        }
                    }
                }));
            }
            for (Future<?> worker : workers) {
                worker.get();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException cause ? cause : new IllegalStateException(e.getCause());
        }
    }
}
