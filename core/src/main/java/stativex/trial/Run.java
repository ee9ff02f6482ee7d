package stativex.trial;

import java.util.Optional;
import stativex.account.AccountState;
import stativex.engine.BarMode;
import stativex.engine.Command;
import stativex.engine.Engine;
import stativex.engine.Mode;
import stativex.engine.Setup;
import stativex.market.BarSteps;
import stativex.market.Histories;
import stativex.market.SessionCalendar;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.TrialMode;
import stativex.rule.Worked;

/**
 * Feeds an engine with prints and heartbeats in order of time. A trial, a replay and a repeated session are all this;
 * they differ only in when commands come. A place is the number of inputs (prints and heartbeats) worked so far.
 */
public final class Run {
    private final Inputs inputs;
    /** What is walked: prints, or steps of bars. */
    private final Tape tape;
    private final Optional<BarSteps.Walk> walk;
    private final int prints;
    private final long[] heartbeats;
    /** The last print of the range, with which positions are left; −1 without one. */
    private final int last;
    private final Engine engine;
    private int nextPrint;
    private int nextHeartbeat;
    private boolean finished;

    /**
     * A run that makes bars and judges rules as prints come: what a screen looks at, and what a live day would do.
     *
     * @throws IllegalArgumentException when the documents do not fit one another
     */
    public Run(Inputs inputs) {
        this(inputs, inputs.terms().mode() == TrialMode.TICK ? Optional.empty() : alone(inputs));
    }

    /** Bars are walked only where they are known. */
    private static Optional<Setup.Ahead> alone(Inputs inputs) {
        return Optional.of(new Setup.Ahead(new Histories(), new Worked(), inputs.end()));
    }

    /** A run that works bars and rules of the whole tape before it begins, shared with others that want the same. */
    public Run(Inputs inputs, Histories histories, Worked worked) {
        this(inputs, Optional.of(new Setup.Ahead(histories, worked, inputs.end())));
    }

    private Run(Inputs inputs, Optional<Setup.Ahead> ahead) {
        this.inputs = inputs;
        Setup ticks = new Setup(inputs.tape(), inputs.contract(), inputs.others(), inputs.account(),
                inputs.strategies(), inputs.terms(), inputs.days().first(), ahead, inputs.rolls());
        Setup setup = inputs.terms().mode() == TrialMode.BAR ? BarMode.of(ticks) : ticks;
        this.tape = setup.walked();
        this.walk = setup.steps().map(BarSteps::walk);
        this.prints = inputs.prints(tape);
        this.heartbeats = setup.steps().map(inputs::worked).orElseGet(inputs::worked);
        this.last = inputs.lastInRange(tape).orElse(-1);
        this.engine = new Engine(setup, AccountState.fresh(inputs.account()));
    }

    /** Prints of the range that lie in no session. */
    public int printsOutsideSessions() {
        return walk.isPresent() ? inputs.outsideSessions() : engine.printsOutsideSessions();
    }

    /** What bar mode has assumed so far; empty in tick mode. */
    public Optional<Assumed> assumed() {
        return walk.map(bars -> Assumed.of(this, bars.ties()));
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
        return prints + heartbeats.length;
    }

    public boolean atEnd() {
        return place() == length();
    }

    /** Time of the next input; {@link TapeTime#NEVER} at the end. */
    public long nextTime() {
        long print = nextPrint < prints ? tape.time(nextPrint) : TapeTime.NEVER;
        long heartbeat = nextHeartbeat < heartbeats.length ? heartbeats[nextHeartbeat] : TapeTime.NEVER;
        return Math.min(print, heartbeat);
    }

    /** Works inputs until {@code place}, or the end. */
    public void toPlace(int place) {
        while (place() < place && !atEnd()) {
            int prints = Math.min(printsBeforeHeartbeat(), place - place());
            if (prints > 0) {
                engine.prints(nextPrint, nextPrint + prints);
                goOn(nextPrint + prints);
            } else {
                step();
            }
        }
    }

    /** Everything before a print has been worked; of a bar with two ways one is taken. */
    private void goOn(int print) {
        nextPrint = walk.isPresent() ? walk.get().next(print, engine.net()) : print;
    }

    /** Begins with a print as the next one, everything off before it: by a leap where that comes to the same. */
    void beginAt(int print) {
        if (followsADay(print) && engine.beginWith(print - 1)) {
            nextPrint = print;
            long time = tape.time(print - 1);
            while (nextHeartbeat < heartbeats.length && heartbeats[nextHeartbeat] <= time) {
                nextHeartbeat++;
            }
        }
        while (nextPrint < print && !atEnd()) {
            int prints = Math.min(printsBeforeHeartbeat(), print - nextPrint);
            if (prints > 0) {
                engine.prints(nextPrint, nextPrint + prints);
                goOn(nextPrint + prints);
            } else {
                step();
            }
        }
    }

    /** Whether the tape has prints in a session of a trading day before that of {@code print}. */
    private boolean followsADay(int print) {
        SessionCalendar calendar = inputs.contract().calendar();
        long time = tape.time(Math.min(print, tape.count() - 1));
        int before = calendar.tradingDate(time)
                .map(date -> tape.firstAt(calendar.sessions(date).getFirst().open()) - 1).orElse(-1);
        while (before >= 0 && !inputs.inSession(tape.time(before))) {
            before--;
        }
        return before >= 0;
    }

    /** Prints until the next heartbeat, the last one of the range, or the end. */
    private int printsBeforeHeartbeat() {
        int until = nextHeartbeat < heartbeats.length
                ? tape.firstAt(heartbeats[nextHeartbeat])
                : prints;
        if (walk.isPresent()) {
            until = Math.min(until, walk.get().bound());
        }
        return (nextPrint <= last ? Math.min(until, last) : until) - nextPrint;
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
        if (nextHeartbeat < heartbeats.length
                && (nextPrint == prints || heartbeats[nextHeartbeat] <= tape.time(nextPrint))) {
            engine.heartbeat(heartbeats[nextHeartbeat++]);
        } else {
            if (nextPrint == last) {
                engine.rangeEnds();
            }
            engine.print(nextPrint);
            goOn(nextPrint + 1);
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
        return trial(new Run(inputs, new Histories(), new Worked()));
    }

    /** The same with a run that has worked nothing yet. */
    public static Run trial(Run run) {
        for (int i = 0; i < run.inputs.strategies().size(); i++) {
            run.command(new Command.SetMode(i, Mode.ENGAGED));
        }
        run.toPlace(run.length());
        run.finish();
        return run;
    }
}
