package stativex.link;

import java.util.ArrayDeque;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.files.SessionRecord;
import stativex.market.TapeTime;
import stativex.trial.Run;

/**
 * Replays a run on a thread of its own, at a chosen speed. The engine never waits for whoever watches: a watcher takes
 * the latest {@link View} when it likes and thereby asks for a newer one. Every command is recorded with its place before
 * it acts. All methods may be called from any thread.
 */
public final class Replay implements AutoCloseable {
    /** A speed without a limit. */
    public static final double AS_FAST_AS_POSSIBLE = Double.POSITIVE_INFINITY;
    /** Inputs worked between two looks at what is asked: well under a frame's time. */
    private static final int CHUNK = 4_000;
    /** Wall time between two records of how far it has come, nanoseconds. */
    private static final long RECORD_EVERY = 5_000_000_000L;
    /** What is played of a pause before the next session's first input. */
    private static final long BEFORE_SESSION = 5 * TapeTime.SECOND;

    /**
     * What a watcher sees.
     *
     * @param snapshot the engine after the last input worked
     * @param clock tape time that the replay has reached, nanoseconds
     * @param speed tape seconds per second
     * @param jumpTo where a jump under way leads; empty when there is none
     * @param worked inputs worked, of {@code length}
     * @param problem why the replay stopped, if it failed
     */
    public record View(Snapshot snapshot, long clock, boolean playing, double speed, Optional<Long> jumpTo, int worked,
            int length, Optional<String> problem) implements RunView {
        public boolean atEnd() {
            return worked == length;
        }
    }

    private final Run run;
    private final Optional<SessionRecord> recorder;
    private final Thread thread;
    private final Queue<Command> commands = new ArrayDeque<>();
    private boolean playing;
    private boolean closing;
    private double speed = 1;
    private int stepsAsked;
    private Optional<Long> jump = Optional.empty();
    private long clock;
    /** Place and wall time that were recorded last, and decisions that were looked through for locks. */
    private int recorded;
    private long recordedAt = System.nanoTime();
    private int lookedThrough;
    private long anchorWall;
    private long anchorTape;
    private volatile boolean wanted = true;
    /** Something differs from the latest view. */
    private boolean changed = true;
    private volatile View latest;

    /** Begins paused, where the run stands: before the first print, or where an earlier session had come to. */
    public Replay(Run run, Optional<SessionRecord> recorder) {
        this.run = run;
        this.recorder = recorder;
        this.clock = run.place() > 0 ? run.engine().lastTime() : run.atEnd() ? 0 : run.nextTime();
        this.lookedThrough = run.engine().log().decisions().size();
        this.latest = view(Optional.empty());
        this.thread = Thread.ofPlatform().name("replay").daemon().unstarted(this::work);
    }

    /** Starts the replay's thread; call once. */
    public Replay start() {
        thread.start();
        return this;
    }

    /** The latest picture; asks for a newer one. */
    public View latest() {
        View view = latest;
        wanted = true;
        return view;
    }

    public synchronized void play() {
        playing = true;
        anchor();
        changed();
    }

    /** Stops playing, and a jump that is under way. */
    public synchronized void pause() {
        playing = false;
        jump = Optional.empty();
        changed();
    }

    /** Works one more input. */
    public synchronized void step() {
        playing = false;
        stepsAsked++;
        changed();
    }

    /** @param tapeSecondsPerSecond above 0; {@link #AS_FAST_AS_POSSIBLE} for no limit */
    public synchronized void speed(double tapeSecondsPerSecond) {
        if (!(tapeSecondsPerSecond > 0)) {
            throw new IllegalArgumentException("expected a speed above 0, found " + tapeSecondsPerSecond);
        }
        speed = tapeSecondsPerSecond;
        anchor();
        changed();
    }

    /** Runs everything at full speed to a time ahead; playing goes on from there as before. */
    public synchronized void jumpTo(long time) {
        jump = Optional.of(time);
        changed();
    }

    /** The person's command; acts before the next input. */
    public synchronized void command(Command command) {
        commands.add(command);
        changed();
    }

    /** Waits until every command, step and jump asked for has been done, and is in the latest view unless it plays. */
    public synchronized void await() throws InterruptedException {
        while ((!commands.isEmpty() || stepsAsked > 0 || jump.isPresent() || changed && !playing) && thread.isAlive()) {
            wait(50);
        }
    }

    /** Ends the session where it stands, closes what is open at the last price, and returns the finished run. */
    public Run end() {
        synchronized (this) {
            closing = true;
            notifyAll();
        }
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return run;
    }

    @Override
    public void close() {
        end();
    }

    private synchronized void changed() {
        changed = true;
        notifyAll();
    }

    private void anchor() {
        anchorWall = System.nanoTime();
        anchorTape = clock;
    }

    private void work() {
        try {
            while (workOnce()) {
                // every turn is one chunk of inputs at most
            }
            recorder.ifPresent(r -> r.end(run.place()));
        } catch (RuntimeException e) {
            synchronized (this) {
                playing = false;
                jump = Optional.empty();
                commands.clear();
                stepsAsked = 0;
                latest = view(Optional.of("The replay stopped: " + e.getMessage()));
                notifyAll();
            }
        } finally {
            run.finish();
            recorder.ifPresent(SessionRecord::close);
        }
    }

    /** Records and carries out what is asked; a command stays in the queue until it is done, and nobody waits for the disk. */
    private void carryOutCommands() {
        while (true) {
            Command command;
            synchronized (this) {
                if (closing || commands.isEmpty()) {
                    return;
                }
                command = commands.peek();
            }
            recorder.ifPresent(r -> r.command(run.place(), command));
            run.command(command);
            synchronized (this) {
                commands.remove();
                changed = true;
            }
        }
    }

    private boolean workOnce() {
        carryOutCommands();
        long until;
        boolean stepping;
        Optional<Long> jumping;
        synchronized (this) {
            if (closing) {
                return false;
            }
            stepping = stepsAsked > 0;
            until = stepping ? Long.MIN_VALUE : until();
            jumping = jump;
        }
        int worked = 0;
        if (stepping) {
            if (!run.atEnd()) {
                long time = run.nextTime();
                run.step();
                worked = 1;
                clock = time;
            }
        } else {
            worked = run.toTime(until, CHUNK);
        }
        recordHowFar(worked);
        synchronized (this) {
            stepsAsked -= stepping ? 1 : 0;
            boolean caughtUp = run.atEnd() || run.nextTime() > until;
            if (!stepping && until != Long.MIN_VALUE) {
                changed = true;
                clock = caughtUp && until != TapeTime.NEVER ? Math.max(clock, until) : Math.max(clock, lastTime());
            }
            // only the jump that this turn worked for is done: another may have been asked for meanwhile
            if (jumping.isPresent() && jumping.equals(jump) && !stepping && caughtUp) {
                jump = Optional.empty();
                anchor();
            }
            skipPause(caughtUp);
            if (run.atEnd()) {
                playing = false;
                clock = lastTime();
            }
            changed |= worked > 0;
            if (changed && (wanted || !playing && jump.isEmpty())) {
                wanted = false;
                changed = false;
                latest = view(Optional.empty());
            }
            notifyAll();
            rest(caughtUp && stepsAsked == 0);
        }
        return true;
    }

    /** A lock is known after a kill, too; the rest is known to some seconds. */
    private void recordHowFar(int worked) {
        if (worked == 0 || recorder.isEmpty()) {
            return;
        }
        List<Decision> decisions = run.engine().log().decisions();
        boolean locked = decisions.subList(lookedThrough, decisions.size()).stream()
                .anyMatch(decision -> decision.kind() == Decision.Kind.LOCKED);
        lookedThrough = decisions.size();
        if (locked || System.nanoTime() - recordedAt > RECORD_EVERY && run.place() > recorded) {
            recorded = run.place();
            recordedAt = System.nanoTime();
            recorder.get().reached(recorded);
        }
    }

    /** While playing, the time between sessions in which nothing comes is left out up to a few seconds. */
    private void skipPause(boolean caughtUp) {
        if (playing && jump.isEmpty() && caughtUp && !run.atEnd() && !run.engine().inSession()
                && run.nextTime() - clock > BEFORE_SESSION) {
            clock = run.nextTime() - BEFORE_SESSION;
            anchor();
            changed = true;
        }
    }

    /** Up to which tape time inputs are due now. */
    private long until() {
        if (jump.isPresent()) {
            return jump.get();
        }
        if (!playing) {
            return Long.MIN_VALUE;
        }
        if (speed == AS_FAST_AS_POSSIBLE) {
            return TapeTime.NEVER;
        }
        return anchorTape + (long) ((System.nanoTime() - anchorWall) * speed);
    }

    /** Sleeps a moment when everything due is done: nothing when there is more to do. */
    private void rest(boolean idle) {
        if (!idle || closing || !commands.isEmpty()) {
            return;
        }
        try {
            wait(playing ? 2 : 20);
        } catch (InterruptedException e) {
            closing = true;
        }
    }

    private long lastTime() {
        return run.place() == 0 ? clock : run.engine().lastTime();
    }

    private View view(Optional<String> problem) {
        return new View(run.engine().snapshot(), clock, playing, speed, jump, run.place(), run.length(), problem);
    }
}
