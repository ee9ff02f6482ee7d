package stativex.desk.look;

import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.application.Platform;

/** Works off the window's thread; of several things asked for in a row only the last one is answered. */
public final class Latest {
    private final ExecutorService worker;
    private final AtomicInteger asked = new AtomicInteger();
    private final AtomicInteger answered = new AtomicInteger();

    /** @param name of its thread */
    public Latest(String name) {
        worker = Executors.newSingleThreadExecutor(Thread.ofPlatform().daemon().name(name).factory());
    }

    /**
     * @param done gets what was worked, on the window's thread
     * @param failed gets what went wrong, likewise
     */
    public <T> void ask(Callable<T> work, Consumer<T> done, Consumer<String> failed) {
        this.<T>ask((told, stop) -> told.accept(work.call()), done, failed);
    }

    /** Work that takes long. */
    public interface Work<T> {
        /**
         * @param told of each state of what is made, the last one whole
         * @param stop asked whether to give up: something else was asked for
         */
        void work(Consumer<T> told, BooleanSupplier stop) throws Exception;
    }

    /**
     * The same with work that tells as it goes.
     *
     * @param shown gets each state, on the window's thread
     */
    public <T> void ask(Work<T> work, Consumer<T> shown, Consumer<String> failed) {
        int turn = asked.incrementAndGet();
        worker.execute(() -> {
            try {
                if (asked.get() == turn) {
                    work.work(made -> say(turn, () -> shown.accept(made)), () -> asked.get() != turn);
                }
            } catch (Exception e) {
                say(turn, () -> failed.accept(String.valueOf(e.getMessage())));
            }
            say(turn, () -> answered.set(turn));
        });
    }

    private void say(int turn, Runnable words) {
        Platform.runLater(() -> {
            if (asked.get() == turn) {
                words.run();
            }
        });
    }

    /** Gives up what is under way. */
    public void cancel() {
        answered.set(asked.incrementAndGet());
    }

    /** Whether something asked for is not answered yet. */
    public boolean isBusy() {
        return answered.get() != asked.get();
    }
}
