package stativex.desk.look;

import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
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
        int turn = asked.incrementAndGet();
        worker.execute(() -> {
            if (asked.get() != turn) {
                return;
            }
            try {
                T made = work.call();
                answer(turn, () -> done.accept(made));
            } catch (Exception e) {
                answer(turn, () -> failed.accept(String.valueOf(e.getMessage())));
            }
        });
    }

    private void answer(int turn, Runnable answer) {
        Platform.runLater(() -> {
            if (asked.get() == turn) {
                answered.set(turn);
                answer.run();
            }
        });
    }

    /** Whether something asked for is not answered yet. */
    public boolean isBusy() {
        return answered.get() != asked.get();
    }
}
