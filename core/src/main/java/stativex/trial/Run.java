package stativex.trial;

import stativex.engine.Command;
import stativex.engine.Engine;
import stativex.market.TapeTime;

/**
 * Feeds an engine with prints and heartbeats in order of time. A trial, a replay and a repeated session are all this;
 * they differ only in when commands come. A place is the number of inputs (prints and heartbeats) worked so far.
 */
public final class Run {
    private final Inputs inputs;
    private final long[] heartbeats;
    private final Engine engine;
    private int nextPrint;
    private int nextHeartbeat;
    private boolean finished;

    /** @throws IllegalArgumentException when the documents do not fit one another */
    public Run(Inputs inputs) {
        this.inputs = inputs;
        this.heartbeats = inputs.heartbeats();
        this.engine = new Engine(inputs.tape(), inputs.contract(), inputs.others(), inputs.account(),
                inputs.strategies(), inputs.terms());
    }

    public Inputs inputs() {
        return inputs;
    }

    public Engine engine() {
        return engine;
    }

    /** Inputs worked so far. */
    public int place() {
        return nextPrint + nextHeartbeat;
    }

    /** Inputs in all. */
    public int length() {
        return inputs.tape().count() + heartbeats.length;
    }

    public boolean atEnd() {
        return place() == length();
    }

    /** Time of the next input; {@link TapeTime#NEVER} at the end. */
    public long nextTime() {
        long print = nextPrint < inputs.tape().count() ? inputs.tape().time(nextPrint) : TapeTime.NEVER;
        long heartbeat = nextHeartbeat < heartbeats.length ? heartbeats[nextHeartbeat] : TapeTime.NEVER;
        return Math.min(print, heartbeat);
    }

    /** Works inputs until {@code place}, or the end. */
    public void toPlace(int place) {
        while (place() < place && !atEnd()) {
            step();
        }
    }

    /** Works inputs timed before or at {@code time}, at most {@code most} of them. Returns how many. */
    public int toTime(long time, int most) {
        int done = 0;
        while (done < most && !atEnd() && nextTime() <= time) {
            step();
            done++;
        }
        return done;
    }

    /** Works one input. A heartbeat comes before prints of its time. */
    public void step() {
        int prints = inputs.tape().count();
        if (nextHeartbeat < heartbeats.length
                && (nextPrint == prints || heartbeats[nextHeartbeat] <= inputs.tape().time(nextPrint))) {
            engine.heartbeat(heartbeats[nextHeartbeat++]);
        } else {
            engine.print(nextPrint++);
        }
    }

    public void command(Command command) {
        engine.command(command);
    }

    /** Ends the run where it stands: open positions are closed at the last price. Only the first call counts. */
    public void finish() {
        if (!finished) {
            finished = true;
            engine.finish();
        }
    }

    /** A plain trial: every strategy engaged before the first print, then the whole tape. */
    public static Run trial(Inputs inputs) {
        Run run = new Run(inputs);
        for (int i = 0; i < inputs.strategies().size(); i++) {
            run.command(new Command.SetMode(i, stativex.engine.Mode.ENGAGED));
        }
        run.toPlace(run.length());
        run.finish();
        return run;
    }
}
