package stativex.desk.tape;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;
import javafx.application.Platform;
import stativex.desk.chart.ChartBars;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.HistoryStudies;
import stativex.engine.Snapshot;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.trial.Days;

/** Makes bars off the window's thread. Asking again, or cancelling, drops what is under way. */
final class BarJob {
    private final ExecutorService worker = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("bars").factory());
    private final AtomicInteger asked = new AtomicInteger();

    /**
     * @param done gets the chart, on the window's thread
     * @param failed gets what went wrong, likewise
     * @param progress gets the share done, likewise
     */
    void make(Contract contract, Tape tape, Days days, BarControls.Wish wish, Consumer<ChartModel> done,
            Consumer<Throwable> failed, DoubleConsumer progress) {
        int turn = asked.incrementAndGet();
        worker.execute(() -> {
            try {
                long since = days.begin(contract.calendar()).orElse(Long.MIN_VALUE);
                int until = days.prints(tape, contract.calendar());
                BarSeries bars = SeriesBuilder.some(tape, contract.calendar(), wish.settings(), since, until, print -> {
                    if (asked.get() != turn) {
                        throw new CancellationException();
                    }
                    double share = (double) print / until;
                    Platform.runLater(() -> {
                        if (asked.get() == turn) {
                            progress.accept(share);
                        }
                    });
                });
                HistoryStudies studies = HistoryStudies.of(wish.studies(), bars, contract.tickSize());
                ChartModel model = new ChartModel(ChartBars.history(contract, bars, wish.heikinAshi()), studies.lines(),
                        until == 0 ? Optional.empty() : Optional.of(tape.price(until - 1)),
                        Optional.empty()).drawing(studies.marks());
                answer(turn, () -> done.accept(model));
            } catch (CancellationException e) {
                // somebody asked for something else
            } catch (RuntimeException e) {
                answer(turn, () -> failed.accept(e));
            }
        });
    }

    private void answer(int turn, Runnable answer) {
        Platform.runLater(() -> {
            if (asked.get() == turn) {
                answer.run();
            }
        });
    }

    void cancel() {
        asked.incrementAndGet();
    }
}
