package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;
import javafx.application.Platform;
import stativex.demo.Demo;
import stativex.evidence.BookReading;
import stativex.evidence.DayPath;
import stativex.evidence.EquityCurve;
import stativex.evidence.ForwardGate;
import stativex.evidence.FreeTrial;
import stativex.evidence.InterlockPrice;
import stativex.evidence.Intervals;
import stativex.evidence.Odds;
import stativex.evidence.Paths;
import stativex.evidence.TrialReport;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.ForwardDays;
import stativex.files.SessionFile;
import stativex.files.TrialFolder;
import stativex.market.Histories;
import stativex.market.TapeTime;
import stativex.rule.Worked;
import stativex.trial.Inputs;
import stativex.trial.PastTrades;
import stativex.trial.Run;

/** Trials beside the window, one after the other at the lowest priority: waiting, running with progress, paused, cancelled. */
final class TrialQueue implements AutoCloseable {
    private static final Intervals.Settings DRAWN = Intervals.Settings.DEFAULT;
    /** Inputs that are worked between two looks at whether to pause or give up. */
    private static final int PIECE = 50_000;
    /** Of the run's length the share of the work that the report takes after it. */
    private static final double REPORT = 0.4;

    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = Thread.ofPlatform().daemon().name("trials").unstarted(work);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });
    private final Histories histories = new Histories();
    private final Worked worked = new Worked();
    private final TrialFolder folder;
    private final Runnable changed;
    private final List<Job> jobs = new ArrayList<>();
    private int beside;

    /**
     * What is to be tried.
     *
     * @param tape how the tape is named
     * @param seal what its report says about unseen dates
     * @param fit whether it looks at a fit range: then it is an attempt
     */
    record Wanted(SessionFile.Set documents, Inputs inputs, String tape, String seal, boolean fit) {
        String name() {
            return inputs.strategies().getFirst().name();
        }
    }

    /**
     * What a finished trial shows.
     *
     * @param documents it was made with
     */
    record Result(Run run, SessionFile.Set documents, TrialReport report, List<EquityCurve.Day> curve,
            Verdict verdict) {
        /** @return empty when it was cancelled */
        static Optional<Result> of(Run run, SessionFile.Set documents, BooleanSupplier stop, DoubleConsumer done) {
            return TrialReport.of(run, DRAWN, new Odds.Progress(share -> done.accept(share / 2), stop))
                    .map(found -> new Result(run, documents, found, EquityCurve.of(run, 300 * TapeTime.SECOND),
                            Verdict.of(run, stop, share -> done.accept(0.5 + share / 2))));
        }
    }

    /**
     * What the account would have made of it.
     *
     * @param reading of its rulebook and lines day by day; empty where that cannot be said, {@code why} says so
     * @param interlocks what each saved or cost
     */
    record Verdict(Optional<BookReading> reading, Optional<Odds> odds, List<InterlockPrice> interlocks, String why) {
        static Verdict of(Run run, BooleanSupplier stop, DoubleConsumer done) {
            Inputs of = run.inputs();
            try {
                Run free = FreeTrial.run(of, 1);
                List<DayPath> days = Paths.of(free, of.account());
                Optional<Odds> odds = days.isEmpty()
                        ? Optional.empty()
                        : Odds.of(of.account(), days, Odds.Settings.DEFAULT, new Odds.Progress(done, stop));
                List<InterlockPrice> prices = InterlockPrice
                        .of(run, new PastTrades(of.tape(), of.contract(), of.account(), of.terms()), stop)
                        .orElse(List.of());
                return new Verdict(Optional.of(BookReading.of(free, of.account())), odds, prices, "");
            } catch (IllegalArgumentException e) {
                return new Verdict(Optional.empty(), Optional.empty(), List.of(), e.getMessage());
            }
        }
    }

    enum State {
        WAITING, RUNNING, DONE, FAILED, CANCELLED
    }

    /** A trial in the queue; its state is read and changed on the window's thread, wishes are read by the worker. */
    static final class Job {
        final Wanted wanted;
        State state = State.WAITING;
        double done;
        long begun;
        Optional<TrialFolder.Kept> kept = Optional.empty();
        Optional<Result> result = Optional.empty();
        String problem = "";
        private boolean paused;
        private boolean cancelled;

        Job(Wanted wanted) {
            this.wanted = wanted;
        }

        synchronized boolean isPaused() {
            return paused;
        }

        private synchronized boolean isCancelled() {
            return cancelled;
        }

        private synchronized void pause(boolean on) {
            paused = on;
            notifyAll();
        }

        private synchronized void cancel() {
            cancelled = true;
            notifyAll();
        }

        /** Waits while it is paused. Returns whether to go on. */
        private synchronized boolean goesOn() {
            try {
                while (paused && !cancelled) {
                    wait();
                }
                return !cancelled;
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return false;
            }
        }

        /** Seconds that are left at the pace so far; empty while nobody knows. */
        Optional<Long> left(long now) {
            return state != State.RUNNING || done < 0.02
                    ? Optional.empty()
                    : Optional.of(Math.round((now - begun) / 1e9 / done * (1 - done)));
        }
    }

    /** @param changed told on the window's thread whenever a job has come further */
    TrialQueue(TrialFolder folder, Runnable changed) {
        this.folder = folder;
        this.changed = changed;
    }

    /** Jobs that are not done, in their order. */
    List<Job> jobs() {
        return jobs.stream().filter(job -> job.state == State.WAITING || job.state == State.RUNNING
                || job.state == State.FAILED).toList();
    }

    /** Puts a trial behind the others. */
    Job add(Wanted wanted) {
        Job job = new Job(wanted);
        jobs.add(job);
        worker.execute(() -> work(job));
        changed.run();
        return job;
    }

    void pause(Job job, boolean on) {
        job.pause(on);
        changed.run();
    }

    void cancel(Job job) {
        job.cancel();
        if (job.state == State.WAITING || job.state == State.FAILED) {
            job.state = State.CANCELLED;
        }
        changed.run();
    }

    /** Whether one waits or runs. */
    boolean isBusy() {
        return beside > 0
                || jobs.stream().anyMatch(job -> job.state == State.RUNNING || job.state == State.WAITING);
    }

    /** Runs the same once more under other terms, to hold it beside. @param shown gets it on the window's thread */
    void beside(Inputs inputs, Consumer<Run> shown, Consumer<String> failed) {
        beside++;
        worker.execute(() -> {
            try {
                Run run = Run.trial(inputs);
                told(() -> shown.accept(run));
            } catch (IllegalArgumentException e) {
                told(() -> failed.accept(e.getMessage()));
            }
        });
    }

    /** Judges how the version of a trial of one strategy went on in the sessions of the person's data folder. */
    void forward(Result result, Consumer<ForwardPart.Found> shown, Consumer<String> failed) {
        beside++;
        worker.execute(() -> {
            try {
                if (result.documents().strategies().size() != 1) {
                    throw new BadInput("expected a trial of one strategy");
                }
                ForwardPart.Found found = forward(result);
                told(() -> shown.accept(found));
            } catch (BadInput | IllegalArgumentException e) {
                told(() -> failed.accept(e.getMessage()));
            }
        });
    }

    private static ForwardPart.Found forward(Result result) {
        String version = result.documents().strategies().getFirst().value().version();
        ForwardDays.Found found = ForwardDays.recorded(version, Demo::tape);
        List<List<Long>> trial = ForwardGate.days(result.run());
        int trades = found.days().stream().mapToInt(day -> day.nets().size()).sum();
        return new ForwardPart.Found(ForwardGate.judge(trial, found.days(), DRAWN), found.days(), found.left().size(),
                trades == 0 ? List.of() : ForwardGate.band(trial, trades, DRAWN).stream().toList());
    }

    private void told(Runnable what) {
        Platform.runLater(() -> {
            beside--;
            what.run();
        });
    }

    /** Runs a kept trial again for its report. @param shown gets it on the window's thread; @param failed what went wrong */
    void open(TrialFolder.Kept kept, SessionFile.TapeSource tapes, Consumer<Opened> shown,
            Consumer<String> failed) {
        worker.execute(() -> {
            try {
                TrialFolder.Repeated again = TrialFolder.again(kept.document(), tapes);
                Result result = Result.of(again.run(), again.documents(), () -> false, share -> {
                }).orElseThrow();
                Platform.runLater(() -> shown.accept(new Opened(result, again.differences())));
            } catch (BadInput | IllegalArgumentException e) {
                Platform.runLater(() -> failed.accept(e.getMessage()));
            }
        });
    }

    /** A kept trial, worked again. @param differences from what was kept; none: the same, byte for byte */
    record Opened(Result result, List<String> differences) {}

    private void work(Job job) {
        if (job.isCancelled()) {
            return;
        }
        say(job, State.RUNNING, 0);
        try {
            Run run = new Run(job.wanted.inputs(), histories, worked);
            for (int i = 0; i < job.wanted.inputs().strategies().size(); i++) {
                run.command(new Command.SetMode(i, Mode.ENGAGED));
            }
            while (!run.atEnd() && job.goesOn()) {
                run.toPlace(run.place() + PIECE);
                say(job, State.RUNNING, (1 - REPORT) * run.place() / run.length());
            }
            if (!job.isCancelled()) {
                run.finish();
                Optional<Result> result = Result.of(run, job.wanted.documents(), () -> !job.goesOn(),
                        share -> say(job, State.RUNNING, 1 - REPORT + REPORT * share));
                if (result.isPresent() && !job.isCancelled()) {
                    if (job.wanted.fit()) {
                        AttemptBook.own().add(run, job.wanted.documents());
                    }
                    TrialFolder.Kept kept = folder.keep(run, job.wanted.documents(), job.wanted.tape(), DRAWN,
                            job.wanted.seal());
                    Platform.runLater(() -> {
                        job.result = result;
                        job.kept = Optional.of(kept);
                        job.state = State.DONE;
                        changed.run();
                    });
                    return;
                }
            }
            say(job, State.CANCELLED, 0);
        } catch (BadInput | IllegalArgumentException e) {
            Platform.runLater(() -> {
                job.problem = e.getMessage();
                job.state = State.FAILED;
                changed.run();
            });
        }
    }

    private void say(Job job, State state, double done) {
        Platform.runLater(() -> {
            if (state == State.RUNNING && job.state == State.WAITING) {
                job.begun = System.nanoTime();
            }
            if (job.state != State.CANCELLED) {
                job.state = state;
                job.done = done;
            }
            changed.run();
        });
    }

    @Override
    public void close() {
        jobs.forEach(Job::cancel);
        worker.shutdownNow();
    }
}
