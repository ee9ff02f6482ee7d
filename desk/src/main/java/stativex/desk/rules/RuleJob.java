package stativex.desk.rules;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import javafx.application.Platform;
import stativex.files.StrategyDraft;

/** Evaluates strategies off the window's thread; of several asked for in a row only the last one is answered. */
final class RuleJob {
    private final ExecutorService worker = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("rules").factory());
    private final AtomicInteger asked = new AtomicInteger();
    private final AtomicInteger answered = new AtomicInteger();

    /**
     * @param done gets the evaluation, on the window's thread; not called while the document does not read; called again
     *     when it is known what signals did inside their bars
     * @param failed gets what went wrong, likewise
     */
    void evaluate(Evaluation.Maker maker, StrategyDraft draft, Consumer<Evaluation> done, Consumer<String> failed) {
        int turn = asked.incrementAndGet();
        worker.execute(() -> {
            if (asked.get() != turn) {
                return;
            }
            try {
                var evaluation = maker.evaluate(draft);
                answer(turn, () -> evaluation.ifPresent(done));
                if (evaluation.filter(Evaluation.Maker::flickers).isPresent()) {
                    maker.withFlickers(evaluation.get(), () -> asked.get() != turn)
                            .ifPresent(more -> answer(turn, () -> done.accept(more)));
                }
            } catch (RuntimeException e) {
                answer(turn, () -> failed.accept(e.getMessage()));
            }
        });
    }

    private void answer(int turn, Runnable answer) {
        Platform.runLater(() -> {
            if (asked.get() == turn) {
                answer.run();
                answered.set(turn);
            }
        });
    }

    /** Whether something asked for is not shown yet. */
    boolean isBusy() {
        return answered.get() != asked.get();
    }
}
