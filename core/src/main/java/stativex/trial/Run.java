package stativex.trial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
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
 * Feeds an engine with prints and heartbeats in order of time, of one contract or of several. A trial, a replay and a repeated session
 * are all this; they differ only in when commands come. A place is the number of inputs (prints and heartbeats) worked so far. At equal
 * times heartbeats come first, then prints in the order in which the account lists their contracts; one tape's order is kept. Source:
 * SEMANTICS, "Several contracts".
 */
public final class Run {
    private final Inputs inputs;
    private final Engine engine;
    private final Optional<BarSteps.Walk> walk;
    /** What comes of each contract, in the engine's order. */
    private final List<Track> tracks = new ArrayList<>();
    /** The same in the order in which prints of one instant come. */
    private final List<Track> byAccount = new ArrayList<>();
    private boolean finished;

    /** The inputs of one contract, as far as they have been worked. */
    private final class Track {
        final int index;
        /** What is walked: prints, or steps of bars. */
        final Tape tape;
        final int prints;
        final long[] heartbeats;
        /** The last print of the range, with which positions are left; −1 without one. */
        final int last;
        int nextPrint;
        int nextHeartbeat;

        Track(int index, Inputs.Traded traded, Tape tape, long[] heartbeats) {
            this.index = index;
            this.tape = tape;
            this.prints = inputs.prints(traded.contract(), tape);
            this.heartbeats = heartbeats;
            this.last = inputs.lastInRange(traded.contract(), tape).orElse(-1);
        }

        long nextPrintTime() {
            return nextPrint < prints ? tape.time(nextPrint) : TapeTime.NEVER;
        }

        long nextHeartbeatTime() {
            return nextHeartbeat < heartbeats.length ? heartbeats[nextHeartbeat] : TapeTime.NEVER;
        }

        /** Its prints before its own next heartbeat, the last one of the range, or the end. */
        int printsUntil() {
            int until = nextHeartbeat < heartbeats.length ? tape.firstAt(heartbeats[nextHeartbeat]) : prints;
            if (walk.isPresent()) {
                until = Math.min(until, walk.get().bound());
            }
            return nextPrint <= last ? Math.min(until, last) : Math.min(until, prints);
        }

        /** Everything before a print has been worked; of a bar with two ways one is taken. */
        void goOn(int print) {
            nextPrint = walk.isPresent() ? walk.get().next(print, engine.net()) : print;
        }

        void step(boolean heartbeat) {
            if (heartbeat) {
                engine.heartbeat(index, heartbeats[nextHeartbeat++]);
            } else {
                if (nextPrint == last) {
                    engine.rangeEnds(index);
                }
                engine.print(index, nextPrint);
                goOn(nextPrint + 1);
            }
        }
    }

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
        this.walk = setup.steps().map(BarSteps::walk);
        this.engine = new Engine(setup, AccountState.fresh(inputs.account()));
        List<Inputs.Traded> traded = inputs.traded();
        for (int i = 0; i < traded.size(); i++) {
            Inputs.Traded one = traded.get(i);
            tracks.add(new Track(i, one, i == 0 ? setup.walked() : one.tape(), i == 0
                    ? setup.steps().map(inputs::worked).orElseGet(() -> inputs.worked(one))
                    : inputs.worked(one)));
        }
        byAccount.addAll(tracks);
        List<String> listed = List.copyOf(inputs.account().fees().keySet());
        byAccount.sort(Comparator.comparingInt(t -> listed.indexOf(traded.get(t.index).contract().symbol())));
    }

    /** A day that was worked elsewhere, to be looked at like any run: nothing is left to be worked. */
    public static Run worked(Inputs inputs, Engine engine) {
        return new Run(inputs, engine);
    }

    private Run(Inputs inputs, Engine engine) {
        this.inputs = inputs;
        this.engine = engine;
        this.walk = Optional.empty();
        this.finished = true;
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
        int place = 0;
        for (Track track : tracks) {
            place += track.nextPrint + track.nextHeartbeat;
        }
        return place;
    }

    /** Inputs in all. */
    public int length() {
        int length = 0;
        for (Track track : tracks) {
            length += track.prints + track.heartbeats.length;
        }
        return length;
    }

    public boolean atEnd() {
        return place() == length();
    }

    /** Time of the next input; {@link TapeTime#NEVER} at the end. */
    public long nextTime() {
        long next = TapeTime.NEVER;
        for (Track track : tracks) {
            next = Math.min(next, Math.min(track.nextPrintTime(), track.nextHeartbeatTime()));
        }
        return next;
    }

    /** Works inputs until {@code place}, or the end. */
    public void toPlace(int place) {
        while (place() < place && !atEnd()) {
            Track track = next();
            int prints = Math.min(stretch(track), place - place());
            if (prints > 0) {
                engine.prints(track.index, track.nextPrint, track.nextPrint + prints);
                track.goOn(track.nextPrint + prints);
            } else {
                step();
            }
        }
    }

    /** Whose input comes next. */
    private Track next() {
        if (byAccount.size() == 1) {
            return byAccount.getFirst();
        }
        Track next = null;
        long at = TapeTime.NEVER;
        for (Track track : byAccount) {
            if (track.nextHeartbeatTime() < at) {
                next = track;
                at = track.nextHeartbeatTime();
            }
        }
        for (Track track : byAccount) {
            // a heartbeat comes before prints of its time
            if (track.nextPrintTime() < at) {
                next = track;
                at = track.nextPrintTime();
            }
        }
        return next == null ? byAccount.getFirst() : next;
    }

    /** How many prints of a track come one after the other, before anything else does. */
    private int stretch(Track track) {
        int until = track.printsUntil();
        boolean after = false;
        for (Track other : byAccount) {
            if (other == track) {
                after = true;
            } else if (until > track.nextPrint) {
                long print = other.nextPrintTime();
                // of prints of one instant those of the contract that is listed first come first
                until = Math.min(until, Math.min(before(track, other.nextHeartbeatTime()),
                        before(track, print == TapeTime.NEVER || !after ? print : print + 1)));
            }
        }
        return until - track.nextPrint;
    }

    private static int before(Track track, long time) {
        return time == TapeTime.NEVER ? Integer.MAX_VALUE : track.tape.firstAt(time);
    }

    /** Begins with a print as the next one, everything off before it: by a leap where that comes to the same. */
    void beginAt(int print) {
        Track track = tracks.getFirst();
        if (followsADay(print) && engine.beginWith(print - 1)) {
            track.nextPrint = print;
            long time = track.tape.time(print - 1);
            while (track.nextHeartbeat < track.heartbeats.length && track.heartbeats[track.nextHeartbeat] <= time) {
                track.nextHeartbeat++;
            }
        }
        while (track.nextPrint < print && !atEnd()) {
            int prints = Math.min(stretch(track), print - track.nextPrint);
            if (prints > 0 && next() == track) {
                engine.prints(track.index, track.nextPrint, track.nextPrint + prints);
                track.goOn(track.nextPrint + prints);
            } else {
                step();
            }
        }
    }

    /** Whether the tape has prints in a session of a trading day before that of {@code print}. */
    private boolean followsADay(int print) {
        SessionCalendar calendar = inputs.contract().calendar();
        Tape tape = inputs.tape();
        long time = tape.time(Math.min(print, tape.count() - 1));
        int before = calendar.tradingDate(time)
                .map(date -> tape.firstAt(calendar.sessions(date).getFirst().open()) - 1).orElse(-1);
        while (before >= 0 && !inputs.inSession(tape.time(before))) {
            before--;
        }
        return before >= 0;
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
        Track track = next();
        track.step(track.nextHeartbeatTime() <= track.nextPrintTime() && track.nextHeartbeatTime() != TapeTime.NEVER);
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
