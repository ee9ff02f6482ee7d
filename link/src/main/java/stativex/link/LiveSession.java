package stativex.link;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import stativex.engine.Command;
import stativex.files.LiveRecord;
import stativex.interlock.OutOfStep;
import stativex.order.FromBroker;
import stativex.order.ToBroker;
import stativex.trial.LiveInput;
import stativex.trial.LiveRun;

/**
 * A live day at a venue: what the link tells becomes inputs, each is written down, worked, and what it leads to is sent once the disk has
 * it. All of it on the thread that calls {@link #run}; commands come from anywhere. When the link is there again, after a loss or a kill,
 * first the reports that were missed are taken; then the broker is asked about every order that it has told nothing of; then what it has
 * not answered is asked anew; then the day goes on.
 */
public final class LiveSession {
    /** Nanoseconds without a word after which the reports of a day that is over count as told. */
    private static final long SILENCE = 500_000_000L;
    /** Nanoseconds without an answer after which it is said. */
    private static final long PATIENCE = 5_000_000_000L;
    /** Nanoseconds out of step after which entries that rest are cancelled. */
    private static final long LASTS = 5_000_000_000L;
    /** Nanoseconds between two questions about an order of which nobody has heard; SEMANTICS asks for 5 s. */
    private static final long ASK_AGAIN = 5_000_000_000L;

    /**
     * How a day goes on.
     *
     * @param inStep whether the venue keeps step with us
     * @param reports that were taken so far; {@code steps} likewise
     * @param askAgain nanoseconds between two questions about an order
     */
    public record Going(boolean inStep, int reports, int steps, long askAgain) {
        /** A day that begins. */
        public static Going on(boolean inStep) {
            return new Going(inStep, 0, 0, ASK_AGAIN);
        }

        /** A day of which so much was taken. */
        public Going after(int reportsTaken, int stepsTaken) {
            return new Going(inStep, reportsTaken, stepsTaken, askAgain);
        }

        /** The same with another time between two questions. */
        public Going asking(long again) {
            return new Going(inStep, reports, steps, again);
        }
    }

    private final LiveRun run;
    private final Link link;
    private final LiveRecord record;
    private final Going going;
    private final Consumer<String> says;
    private final Queue<Command> commands = new ConcurrentLinkedQueue<>();
    /** In step: reports that belong to what comes next. */
    private final List<FromBroker> reported = new ArrayList<>();
    /** In step: what waits for reports that belong before it. */
    private Optional<VenueEvent> held = Optional.empty();
    /** Orders that the broker is asked about, with the time from which on it is asked again; 0: an answer is waited for. */
    private final Map<String, Doubt> doubts = new LinkedHashMap<>();
    private int reports;
    private int steps;
    private long time;
    /** When it fell out of step, by the computer's clock; 0: it is in step. */
    private long apartSince;
    private boolean connected;
    /** Whether it ever was. */
    private boolean linked;
    private boolean asking;
    private boolean over;
    private volatile boolean ending;

    /** @param unknown how often the broker has said that it does not know it; {@code next} when to ask again, 0 while it is asked */
    private record Doubt(int unknown, long next) {}

    /**
     * @param record where inputs go before they lead to anything
     * @param says is told, in a sentence each, of the link and of what came and made no sense
     */
    public LiveSession(LiveRun run, Link link, LiveRecord record, Going going, Consumer<String> says) {
        this.says = says;
        this.run = run;
        this.link = link;
        this.record = record;
        this.going = going;
        this.reports = going.reports();
        this.steps = going.steps();
        this.time = run.engine().lastTime();
    }

    /** The person's command; acts before the next event. */
    public void command(Command command) {
        commands.add(command);
    }

    /** Ends it after the event that is worked. */
    public void end() {
        ending = true;
    }

    /** Works until the venue has nothing more to tell, or it is ended. */
    public void run() throws InterruptedException {
        linked(Optional.of(OutOfStep.LINK_LOST));
        long begun = System.nanoTime();
        while (!ending) {
            if (!linked && System.nanoTime() - begun > PATIENCE) {
                begun = System.nanoTime();
                says.accept("no answer from the venue yet: is it running, and is this its port?");
            }
            for (Command command = commands.poll(); command != null; command = commands.poll()) {
                take(new LiveInput.Asked(command));
            }
            Optional<VenueEvent> event = link.next(over ? SILENCE : 20_000_000L);
            if (event.isPresent()) {
                take(event.get());
            } else if (over) {
                return;
            }
            ask();
        }
    }

    private void take(VenueEvent event) {
        switch (event) {
            case VenueEvent.Connected on -> connected(on.data() && on.orders());
            case VenueEvent.Reported told -> reported(told);
            case VenueEvent.Asked answer -> answered(answer);
            case VenueEvent.Refused refused -> says.accept("left out: " + refused.problem());
            case VenueEvent.Prints prints -> workIfDue(prints);
            case VenueEvent.Moment moment -> workIfDue(moment);
            case VenueEvent.Over end -> workIfDue(end);
        }
    }

    // ------------------------------------------------------------------ the link comes and goes

    private void connected(boolean on) {
        if (on != connected) {
            says.accept(on ? "linked to the venue" : "the link to the venue is lost: it is tried again each second");
        }
        linked |= on;
        if (on && !connected) {
            held = Optional.empty();
            doubts.clear();
            link.subscribe(reports);
            run.unheard().forEach(order -> doubts.put(order, new Doubt(0, 1)));
            if (!doubts.isEmpty()) {
                linked(Optional.of(OutOfStep.ORDERS_IN_DOUBT));
            }
            asking = true;
            ask();
        }
        if (!on && connected) {
            linked(Optional.of(OutOfStep.LINK_LOST));
        }
        connected = on;
    }

    private void linked(Optional<OutOfStep> why) {
        if (why.isPresent() && apartSince == 0) {
            apartSince = System.nanoTime();
        }
        boolean lasted = why.isEmpty() && time != Long.MIN_VALUE && System.nanoTime() - apartSince >= LASTS;
        if (why.isEmpty()) {
            apartSince = 0;
        }
        take(new LiveInput.Linked(why, lasted));
    }

    /** Asks about orders of which nobody has heard; when none is left in doubt, the day goes on. */
    private void ask() {
        if (!asking) {
            return;
        }
        long now = System.nanoTime();
        for (Map.Entry<String, Doubt> one : doubts.entrySet()) {
            long next = one.getValue().next();
            if (next == 1 || next != 0 && now - next >= 0) {
                one.setValue(new Doubt(one.getValue().unknown(), 0));
                link.ask(one.getKey());
            }
        }
        if (doubts.isEmpty()) {
            asking = false;
            if (time != Long.MIN_VALUE) {
                take(new LiveInput.Again(time));
            }
            linked(Optional.empty());
            step();
        }
    }

    /** Only the answer <em>unknown</em>, given twice some seconds apart, means that an order never came. */
    private void answered(VenueEvent.Asked answer) {
        Doubt doubt = doubts.get(answer.order());
        if (doubt == null) {
            return;
        }
        if (answer.known()) {
            doubts.remove(answer.order());
            tell(new FromBroker.Known(answer.order()));
        } else if (doubt.unknown() == 0) {
            doubts.put(answer.order(), new Doubt(1, System.nanoTime() + going.askAgain()));
        } else {
            doubts.remove(answer.order());
            says.accept("order " + answer.order() + " was never accepted");
            tell(new FromBroker.NeverAccepted(answer.order()));
        }
    }

    private void tell(FromBroker conclusion) {
        take(new LiveInput.Told(time, List.of(conclusion)));
    }

    private void step() {
        if (going.inStep() && !over) {
            link.step(steps + 1);
        }
    }

    // ------------------------------------------------------------------ what is told

    private void reported(VenueEvent.Reported told) {
        if (told.number().isPresent() && told.number().getAsInt() <= reports) {
            return;
        }
        reports++;
        if (going.inStep()) {
            reported.add(told.report());
            held.ifPresent(this::workIfDue);
        } else {
            // heard now, whatever the venue's time is by then: prints on their way are worked at their own times
            take(new LiveInput.Told(time == Long.MIN_VALUE ? told.time() : time, List.of(told.report())));
        }
    }

    private static OptionalInt before(VenueEvent event) {
        return switch (event) {
            case VenueEvent.Prints prints -> prints.reportsBefore();
            case VenueEvent.Moment moment -> moment.reportsBefore();
            case VenueEvent.Over end -> end.reportsBefore();
            default -> OptionalInt.empty();
        };
    }

    private void workIfDue(VenueEvent event) {
        OptionalInt before = before(event);
        if (before.isPresent() && reports < before.getAsInt()) {
            held = Optional.of(event);
            return;
        }
        held = Optional.empty();
        List<FromBroker> told = List.copyOf(reported);
        reported.clear();
        switch (event) {
            case VenueEvent.Prints prints -> {
                for (int i = 0; i < prints.prints().size(); i++) {
                    VenueEvent.Print p = prints.prints().get(i);
                    time = Math.max(time, p.time());
                    take(new LiveInput.Print(p.time(), p.price(), p.size(), p.bid(), p.ask(), p.bidSize(), p.askSize(),
                            p.aggressor(), i == 0 ? told : List.of()));
                }
            }
            case VenueEvent.Moment moment -> {
                time = Math.max(time, moment.time());
                take(new LiveInput.Heartbeat(moment.time(), told));
            }
            case VenueEvent.Over ignored -> over = true;
            default -> throw new IllegalStateException("nothing else waits");
        }
        steps++;
        step();
    }

    /** Written down, worked, on the disk, sent: in this order. */
    private void take(LiveInput input) {
        record.input(input);
        List<ToBroker> messages = run.take(input);
        if (!messages.isEmpty()) {
            record.force();
            link.send(messages);
        }
    }
}
