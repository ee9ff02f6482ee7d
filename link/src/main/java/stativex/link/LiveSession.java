package stativex.link;

import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Supplier;
import stativex.account.Headroom;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.BadInput;
import stativex.files.LiveRecord;
import stativex.files.ResultWords;
import stativex.interlock.OutOfStep;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.order.FromBroker;
import stativex.order.Order;
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
    /** Nanoseconds without a print after which the clock goes on without one. */
    private static final long GRACE = 500_000_000L;
    /** Nanoseconds after which all orders are asked for: reports that were missed come before. */
    private static final long LIST_AFTER = 200_000_000L;
    /** Nanoseconds that this computer's clock may jump. */
    private static final long JUMP = 2_000_000_000L;
    /** Nanoseconds between two looks at lines and disk. */
    private static final long EACH = 1_000_000_000L;
    /** Nanoseconds in which two clocks count as read together. */
    private static final long TOGETHER = 100_000_000L;

    /**
     * How a day goes on.
     *
     * @param inStep whether the venue keeps step with us
     * @param reports that were taken so far; {@code steps} likewise
     * @param askAgain nanoseconds between two questions about an order
     * @param figures the firm's
     */
    public record Going(boolean inStep, int reports, int steps, long askAgain, Figures figures) {
        /** A day that begins. */
        public static Going on(boolean inStep) {
            return new Going(inStep, 0, 0, ASK_AGAIN, Figures.NONE);
        }

        /** A day of which so much was taken. */
        public Going after(int reportsTaken, int stepsTaken) {
            return new Going(inStep, reportsTaken, stepsTaken, askAgain, figures);
        }

        /** The same with another time between two questions. */
        public Going asking(long again) {
            return new Going(inStep, reports, steps, again, figures);
        }

        /** The same of an account whose figures are to be compared. */
        public Going comparing(Figures other) {
            return new Going(inStep, reports, steps, askAgain, other);
        }
    }

    /**
     * Balance and floor as the firm shows them: of an account that is held to a rulebook somebody compares them each trading day.
     *
     * @param asked whether anybody has to
     * @param confirmed trading date on which somebody did last
     */
    public record Figures(boolean asked, Optional<LocalDate> confirmed) {
        static final Figures NONE = new Figures(false, Optional.empty());
    }

    private final LiveRun run;
    private final Link link;
    private final LiveRecord record;
    private final Going going;
    private final Watcher watcher;
    private final Queue<Command> commands = new ConcurrentLinkedQueue<>();
    /** In step: reports that belong to what comes next. */
    private final List<FromBroker> reported = new ArrayList<>();
    /** In step: what waits for reports that belong before it. */
    private Optional<VenueEvent> held = Optional.empty();
    private final Doubts doubts;
    private final StepWatch feed = new StepWatch();
    private final PositionWatch positions = new PositionWatch();
    private final Alarms alarms = new Alarms();
    private int reports;
    private int steps;
    private long time;
    /** When the last print or moment came, of the clock that only goes forward. */
    private long eventAt;
    /** Since when it is out of step, likewise, and whether entries that rest were cancelled for it. */
    private OptionalLong apartSince = OptionalLong.empty();
    private boolean cancelled;
    private Optional<OutOfStep> apart = Optional.empty();
    private boolean data;
    private boolean orders;
    private boolean connected;
    /** Whether it ever was. */
    private boolean linked;
    /** Orders are in doubt, or were until now. */
    private boolean asking;
    /** When all orders are to be asked for; whether the answer is not complete; and what it has named so far. */
    private OptionalLong listAt = OptionalLong.empty();
    private boolean listing;
    private final Set<String> listed = new HashSet<>();
    private boolean over;
    /** Prints that were missed, and that came twice. */
    private int missed;
    private int repeated;
    /** The link was away while the market may have gone on. */
    private boolean unsure;
    /** What could not be written down yet, in order, and why. */
    private final ArrayDeque<LiveInput> unjournalled = new ArrayDeque<>();
    private Optional<String> unwritten = Optional.empty();
    /** Trading date of which the firm's figures were compared; and that they were before it is known which one it is. */
    private Optional<LocalDate> confirmed;
    private volatile boolean confirming;
    /** Why the reserve on the disk was given up. */
    private Optional<String> relieved = Optional.empty();
    private long lookedAtLines;
    private int contradicted;
    private volatile boolean ending;

    /** Whoever looks on; told on the day's own thread. */
    public interface Watcher {
        /** A sentence about the link, or about what came and made no sense. */
        void says(String sentence);

        /** Something is not as it should be, or is again. */
        default void alarm(Alarm alarm, boolean raised) {
            says((raised ? "alarm: " : "over: ") + alarm.words());
        }

        /** The firm's figures of a trading day were compared. */
        default void confirmed(LocalDate day) {
            // nothing to keep
        }

        /** Everything that had come was worked. */
        default void worked() {
            // nothing to see
        }
    }

    /** @param record where inputs go before they lead to anything */
    public LiveSession(LiveRun run, Link link, LiveRecord record, Going going, Watcher watcher) {
        this.watcher = watcher;
        this.run = run;
        this.link = link;
        this.record = record;
        this.going = going;
        this.reports = going.reports();
        this.steps = going.steps();
        this.time = run.engine().lastTime();
        this.doubts = new Doubts(going.askAgain());
        this.confirmed = going.figures().confirmed();
    }

    /** The person's command; acts before the next event. */
    public void command(Command command) {
        commands.add(command);
    }

    /** Somebody has compared balance and floor with what the firm shows: that holds for the trading day. */
    public void confirm() {
        confirming = true;
    }

    /** Whether nobody has to compare them, or somebody has, of the trading day that has begun or of the first that begins. */
    private boolean isConfirmed() {
        Optional<LocalDate> today = run.engine().tradingDate();
        if (confirming && today.isPresent()) {
            confirmed = today;
            confirming = false;
            watcher.confirmed(today.get());
        }
        return !going.figures().asked() || confirming || confirmed.isPresent() && confirmed.equals(today);
    }

    /** Ends it after the event that is worked. */
    public void end() {
        ending = true;
    }

    /** Works until the venue has nothing more to tell, or it is ended. */
    public void run() throws InterruptedException {
        footing(System.nanoTime());
        long begun = System.nanoTime();
        eventAt = begun;
        long wall = System.currentTimeMillis() * 1_000_000;
        long looked = begun;
        while (!ending) {
            if (!linked && System.nanoTime() - begun > PATIENCE) {
                begun = System.nanoTime();
                watcher.says("no answer from the venue yet: is it running, and is this its port?");
            }
            for (Command command = commands.poll(); command != null; command = commands.poll()) {
                take(new LiveInput.Asked(command));
                if (command instanceof Command.Adopt && positions.held().isPresent()) {
                    positions.filled();
                    holds(positions.held().getAsLong());
                }
            }
            Optional<VenueEvent> event = link.next(over ? SILENCE : 20_000_000L);
            long now = System.nanoTime();
            long wallNow = System.currentTimeMillis() * 1_000_000;
            if (System.nanoTime() - now < TOGETHER) {
                // both clocks were read at one moment, no pause between
                if (Math.abs((wallNow - wall) - (now - looked)) > JUMP) {
                    slept();
                }
                wall = wallNow;
                looked = now;
            }
            if (event.isPresent()) {
                take(event.get());
            } else if (over) {
                return;
            }
            goOn(System.nanoTime());
            watcher.worked();
        }
    }

    /** What the clock brings. */
    private void goOn(long now) {
        if (connected && !going.inStep() && !doubts.doubted(now).isEmpty()) {
            asking = true;
        }
        if (connected && time != Long.MIN_VALUE && listAt.isPresent() && now - listAt.getAsLong() >= 0) {
            listAt = OptionalLong.empty();
            link.askAll();
        }
        ask();
        if (connected && !going.inStep() && positions.ask(now)) {
            link.askPosition();
        }
        beat(now);
        footing(now);
        alarms(now);
    }

    /** When nothing arrives, the clock goes on without a print: to the last whole second that has surely passed at the venue. */
    private void beat(long now) {
        OptionalLong venue = feed.venueTime(now);
        if (going.inStep() || over || venue.isEmpty() || now - eventAt < GRACE) {
            return;
        }
        long passed = venue.getAsLong() - (long) (GRACE * Math.max(1, feed.speed()));
        long second = Math.floorDiv(passed, TapeTime.SECOND) * TapeTime.SECOND;
        if (second > time) {
            time = second;
            take(new LiveInput.Heartbeat(second, List.of()));
        }
    }

    /** The computer slept, or somebody set its clock: the link counts as lost, and is taken up anew. */
    private void slept() {
        watcher.says("this computer's clock has jumped, or it slept: orders and positions are asked for anew");
        if (connected) {
            connected(false);
            connected(true);
        }
    }

    /** What of a message's prints is new: a print comes once, and where some are missing their sessions are incomplete. */
    private VenueEvent.Prints fresh(VenueEvent.Prints prints) {
        int known = run.tape().count() + missed;
        if (going.inStep() || prints.prints().isEmpty()) {
            return prints;
        }
        boolean counted = prints.number().isPresent();
        int number = prints.number().orElse(known + 1);
        if (number > known + 1 || !counted && unsure) {
            missed += number - known - 1;
            watcher.says(counted && number > known + 1
                    ? number - known - 1 + " prints were missed: the session is incomplete"
                    : "the link was away: nobody knows whether prints were missed, the session counts as incomplete");
            take(new LiveInput.Gap(prints.prints().getFirst().time()));
        }
        unsure = false;
        int doubled = Math.min(prints.prints().size(), Math.max(0, known + 1 - number));
        repeated += doubled;
        return doubled == 0
                ? prints
                : new VenueEvent.Prints(prints.prints().subList(doubled, prints.prints().size()),
                        prints.reportsBefore(), prints.sent(), prints.number());
    }

    private void take(VenueEvent event) {
        switch (event) {
            case VenueEvent.Connected on -> {
                data = on.data();
                orders = on.orders();
                connected(data && orders);
            }
            case VenueEvent.Reported told -> reported(told);
            case VenueEvent.Asked answer -> doubts.answered(answer.order(), answer.known(), System.nanoTime())
                    .ifPresent(told -> tell(told instanceof FromBroker.Known && answer.status().isPresent()
                            ? answer.status().get()
                            : told));
            case VenueEvent.Listed one -> listed(one);
            case VenueEvent.Alive alive -> feed.heard(alive.wall(), System.currentTimeMillis() * 1_000_000);
            case VenueEvent.Held holds -> holds(holds.net());
            case VenueEvent.Refused refused -> watcher.says("left out: " + refused.problem());
            case VenueEvent.Prints prints -> workIfDue(fresh(prints));
            case VenueEvent.Moment moment -> workIfDue(moment);
            case VenueEvent.Over end -> workIfDue(end);
        }
    }

    // ------------------------------------------------------------------ the link comes and goes

    private void connected(boolean on) {
        if (on != connected) {
            watcher.says(
                    on ? "linked to the venue" : "the link to the venue is lost: it is tried again each second");
        }
        linked |= on;
        boolean before = connected;
        connected = on;
        long now = System.nanoTime();
        if (on && !before) {
            held = Optional.empty();
            feed.anew();
            unsure = run.tape().count() > 0;
            eventAt = now;
            link.subscribe(reports);
            doubts.begin(run.unheard(), now);
            positions.begin(now);
            asking = true;
            listing = !going.inStep() && time != Long.MIN_VALUE;
            listAt = going.inStep() ? OptionalLong.empty() : OptionalLong.of(now + LIST_AFTER);
            listed.clear();
            footing(now);
            ask();
        }
        footing(now);
    }

    /** One of the orders that the broker has. Those of ours that it does not name are asked for by their names. */
    private void listed(VenueEvent.Listed one) {
        one.told().ifPresent(told -> {
            listed.add(told.order());
            tell(told);
        });
        if (one.last()) {
            List.copyOf(run.foreign().keySet()).stream().filter(order -> !listed.contains(order))
                    .forEach(order -> tell(new FromBroker.Foreign(order, "", true, true)));
            doubts.suspect(run.known().stream().filter(order -> !listed.contains(order)).toList(),
                    System.nanoTime());
            listing = false;
            asking = true;
        }
    }

    private Optional<OutOfStep> why(long now) {
        if (unwritten.isPresent()) {
            return Optional.of(OutOfStep.JOURNAL_STOPPED);
        }
        if (!connected) {
            return Optional.of(OutOfStep.LINK_LOST);
        }
        if (going.inStep()) {
            return asking ? Optional.of(OutOfStep.ORDERS_IN_DOUBT) : Optional.empty();
        }
        return feed.why(now, run.engine().inSession() && !over)
                .or(() -> asking ? Optional.of(OutOfStep.ORDERS_IN_DOUBT) : Optional.empty())
                .or(() -> positions.difference().isPresent()
                        ? Optional.of(OutOfStep.POSITIONS_DIFFER)
                        : Optional.empty())
                .or(() -> isConfirmed() ? Optional.empty() : Optional.of(OutOfStep.NOT_CONFIRMED));
    }

    /** Tells the engine when feed and broker have come into step or fallen out of it, and when that has lasted. */
    private void footing(long now) {
        Optional<OutOfStep> why = why(now);
        if (why.isPresent() && apartSince.isEmpty()) {
            apartSince = OptionalLong.of(now);
        }
        boolean lasted = time != Long.MIN_VALUE && !cancelled && apartSince.isPresent()
                && now - apartSince.getAsLong() >= LASTS;
        boolean first = apart.isEmpty() && why.isEmpty() || why.equals(apart);
        if (first && !lasted) {
            return;
        }
        cancelled = why.isPresent() && (cancelled || lasted);
        if (why.isEmpty()) {
            apartSince = OptionalLong.empty();
        }
        apart = why;
        take(new LiveInput.Linked(why, lasted));
    }

    /** Asks about orders of which nobody has heard; when none is left in doubt, the day goes on. */
    private void ask() {
        if (!asking || !connected) {
            return;
        }
        doubts.ask(System.nanoTime()).forEach(link::ask);
        if (doubts.orders().isEmpty() && !listing) {
            asking = false;
            if (time != Long.MIN_VALUE) {
                take(new LiveInput.Again(time));
            }
            footing(System.nanoTime());
            step();
        }
    }

    /** What the broker says is held; a difference that is sure, or is over, cuts exits or gives them back. */
    private void holds(long net) {
        boolean differed = positions.difference().isPresent();
        positions.answer(net, run.engine().net(), System.nanoTime());
        if (differed || positions.difference().isPresent()) {
            take(new LiveInput.Holds(net));
        }
    }

    private void tell(FromBroker conclusion) {
        if (conclusion instanceof FromBroker.NeverAccepted) {
            watcher.says("order " + conclusion.order() + " was never accepted");
        }
        if (!(conclusion instanceof FromBroker.Status)) {
            take(new LiveInput.Told(time, List.of(conclusion)));
            return;
        }
        long before = run.engine().net();
        take(new LiveInput.Told(time, List.of(conclusion)));
        if (run.engine().net() != before) {
            positions.filled();
            watcher.says("the status of order " + conclusion.order() + " tells of contracts that no report told of");
        }
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
        doubts.heard(told.report());
        if (told.report() instanceof FromBroker.NotChanged not && !going.inStep()) {
            // how the order stands then: it may have ended, or never have come
            doubts.suspect(List.of(not.order()), System.nanoTime());
            asking = true;
        }
        if (told.report() instanceof FromBroker.Filled || told.report() instanceof FromBroker.Corrected
                || told.report() instanceof FromBroker.Elsewhere) {
            positions.filled();
        }
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
                seen(prints);
                List<LiveInput> all = new ArrayList<>(prints.prints().size());
                for (VenueEvent.Print p : prints.prints()) {
                    time = Math.max(time, p.time());
                    all.add(new LiveInput.Print(p.time(), p.price(), p.size(), p.bid(), p.ask(), p.bidSize(),
                            p.askSize(), p.aggressor(), all.isEmpty() ? told : List.of()));
                }
                take(all);
            }
            case VenueEvent.Moment moment -> {
                time = Math.max(time, moment.time());
                take(new LiveInput.Heartbeat(moment.time(), told));
            }
            case VenueEvent.Over ignored -> over = true;
            default -> throw new IllegalStateException("nothing else waits");
        }
        eventAt = System.nanoTime();
        steps++;
        step();
    }

    /** How the feed stands with these prints, before they lead to anything. */
    private void seen(VenueEvent.Prints prints) {
        if (!prints.prints().isEmpty() && !going.inStep()) {
            long now = System.nanoTime();
            feed.prints(prints.prints().getFirst().time(), prints.prints().getLast().time(), prints.prints().size(),
                    prints.sent(), System.currentTimeMillis() * 1_000_000, now);
            footing(now);
        }
    }

    private void take(LiveInput input) {
        take(List.of(input));
    }

    /** Written down, worked, on the disk, sent: in this order. A journal that cannot be written holds back entries, never exits. */
    private void take(List<LiveInput> inputs) {
        boolean could = unwritten.isEmpty();
        unjournalled.addAll(inputs);
        write();
        if (could && !unjournalled.isEmpty() && !(inputs.getFirst() instanceof LiveInput.Linked)) {
            // nothing is entered because of what is not written down
            for (int i = 0; i < inputs.size(); i++) {
                unjournalled.removeLast();
            }
            footing(System.nanoTime());
            unjournalled.addAll(inputs);
        }
        for (LiveInput input : inputs) {
            int locked = run.engine().timesLocked();
            List<ToBroker> messages = run.take(input);
            if (!messages.isEmpty() || input instanceof LiveInput.Asked || run.engine().timesLocked() > locked) {
                // what the person asked, and a lock, are on the disk before anybody hears of it
                force();
            }
            if (!messages.isEmpty()) {
                send(unwritten.isEmpty() ? messages : messages.stream().filter(one -> !isEntry(one)).toList());
            }
        }
    }

    private static boolean isEntry(ToBroker message) {
        return message instanceof ToBroker.Place place && place.ticket().role() == Order.Role.ENTRY;
    }

    private void send(List<ToBroker> messages) {
        long now = System.nanoTime();
        link.send(messages);
        if (connected) {
            messages.forEach(message -> doubts.sent(message, now));
        }
    }

    /** Writes down what was not. Once the reserve had to be given up, nothing is entered until the day is begun again. */
    private void write() {
        if (unjournalled.isEmpty()) {
            return;
        }
        List<LiveInput> all = List.copyOf(unjournalled);
        on(() -> record.inputs(all), unjournalled::clear);
    }

    private void force() {
        on(record::force, () -> {
            // it is on the disk
        });
    }

    private void on(Runnable writing, Runnable done) {
        try {
            writing.run();
            done.run();
            unwritten = relieved;
        } catch (BadInput e) {
            unwritten = Optional.of(e.getMessage());
            if (relieved.isEmpty() && record.relieve()) {
                relieved = Optional.of(e.getMessage() + "; the reserve is used up: make room, then link anew");
                on(writing, done);
            }
        }
    }

    // ------------------------------------------------------------------ what a person should know

    private void alarms(long now) {
        alarm(Alarm.Kind.STOP_MISSING, run.engine().stopMissing(),
                () -> "a position has no stop at the broker: it is sent again, or the position leaves at the market",
                now);
        alarm(Alarm.Kind.FLATTEN_WAITS, !connected && run.engine().leaving(),
                () -> "a position is to leave at the market, and the broker is away", now);
        alarm(Alarm.Kind.POSITIONS_DIFFER, positions.difference().isPresent(),
                () -> "the broker holds " + positions.held().getAsLong() + ", we count " + run.engine().net(), now);
        alarm(Alarm.Kind.ORDER_IN_DOUBT, connected && !doubts.orders().isEmpty(),
                () -> "nobody knows whether the broker has " + String.join(", ", doubts.orders()), now);
        alarm(Alarm.Kind.FOREIGN_ORDER, !run.foreign().isEmpty(),
                () -> "the broker has orders that were not sent from here: "
                        + String.join(", ", run.foreign().values()),
                now);
        alarm(Alarm.Kind.LINK_LOST, linked && !connected,
                () -> (data ? "the broker's side" : orders ? "the feed's side" : "the venue") + " does not answer",
                now);
        Optional<OutOfStep> late = connected && !going.inStep()
                ? feed.why(now, run.engine().inSession() && !over)
                : Optional.empty();
        alarm(Alarm.Kind.FEED_SILENT, late.equals(Optional.of(OutOfStep.FEED_SILENT)),
                () -> "no print has come for " + feed.silence(now) / TapeTime.SECOND + " s", now);
        alarm(Alarm.Kind.CATCHING_UP, late.equals(Optional.of(OutOfStep.CATCHING_UP)),
                () -> "prints come more than 2 s late", now);
        alarm(Alarm.Kind.CLOCK_APART, late.equals(Optional.of(OutOfStep.CLOCK_APART)),
                () -> "this computer's clock is " + feed.ahead() / 1_000_000 + " ms ahead of the venue's stamps", now);
        alarm(Alarm.Kind.JOURNAL_STOPPED, unwritten.isPresent(), () -> unwritten.orElseThrow(), now);
        if (now - lookedAtLines > EACH) {
            lookedAtLines = now;
            alarm(Alarm.Kind.DISK_NEARLY_FULL, record.isNearlyFull(),
                    () -> "there is little room on the disk for the journal", now);
            alarm(Alarm.Kind.NOT_CONFIRMED, connected && !going.inStep() && !isConfirmed() && isEngaged(),
                    () -> "compare balance and floor with what the firm shows: until somebody says that they agree,"
                            + " nothing is entered today",
                    now);
            Optional<Headroom> near = nearest();
            alarm(Alarm.Kind.LINE_NEAR, near.isPresent(),
                    () -> ResultWords.of(near.orElseThrow().line().kind()) + " is "
                            + Money.text(near.orElseThrow().money()) + " away",
                    now);
        }
        List<String> all = run.contradictions();
        for (; contradicted < all.size(); contradicted++) {
            watcher.alarm(new Alarm(Alarm.Kind.CONTRADICTION, all.get(contradicted)), true);
        }
    }

    private boolean isEngaged() {
        return run.engine().snapshot().strategies().stream().anyMatch(strategy -> strategy.mode() == Mode.ENGAGED);
    }

    /** The line below that is near, and nearest, of all that are engaged. */
    private Optional<Headroom> nearest() {
        return run.engine().snapshot().strategies().stream()
                .filter(strategy -> strategy.mode() == Mode.ENGAGED || strategy.position().isPresent())
                .flatMap(strategy -> strategy.headroom().stream()).filter(h -> h.line().below() && h.near())
                .min(Comparator.comparingLong(Headroom::money));
    }

    private void alarm(Alarm.Kind kind, boolean stands, Supplier<String> words, long now) {
        alarms.set(kind, stands ? Optional.of(words.get()) : Optional.empty(), now)
                .ifPresent(told -> watcher.alarm(told.alarm(), told.raised()));
    }

    /** How things stand; only for the day's own thread. */
    public LiveStanding standing() {
        long now = System.nanoTime();
        return new LiveStanding(data, orders, apart, alarms.standing(), feed.ahead(), feed.silence(now),
                feed.venueTime(now), positions.held(), positions.difference(), doubts.orders(), isConfirmed(),
                List.copyOf(run.foreign().values()), run.latePrints(), repeated);
    }
}
