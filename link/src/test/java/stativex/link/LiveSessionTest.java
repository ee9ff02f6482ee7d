package stativex.link;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.LiveJournal;
import stativex.files.LiveRecord;
import stativex.files.SessionFile;
import stativex.interlock.OutOfStep;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.FromBroker;
import stativex.order.Order;
import stativex.order.ToBroker;
import stativex.trial.LiveInput;
import stativex.trial.LiveRun;

/** A live day at a venue that a test plays: what it does when the venue is silent, holds something else, or the disk is full. */
public class LiveSessionTest {
    /** Keeps what is sent, tells what the test wants. */
    private static final class Played implements Link {
        final LinkedBlockingQueue<VenueEvent> events = new LinkedBlockingQueue<>();
        final List<ToBroker> sent = new CopyOnWriteArrayList<>();
        final List<String> asked = new CopyOnWriteArrayList<>();
        /** Contracts that are held in truth, as a broker says when it is asked. */
        volatile long holds;

        @Override
        public Optional<VenueEvent> next(long nanos) throws InterruptedException {
            return Optional.ofNullable(events.poll(nanos, TimeUnit.NANOSECONDS));
        }

        @Override
        public void subscribe(int reports) {
            // prints come when the test wants
        }

        @Override
        public void ask(String order) {
            asked.add(order);
        }

        /** What is told when all orders are asked for. */
        volatile List<VenueEvent> all = List.of(new VenueEvent.Listed(Optional.empty(), true));

        @Override
        public void askAll() {
            events.addAll(all);
        }

        @Override
        public void askPosition() {
            events.add(new VenueEvent.Held(holds));
        }

        @Override
        public void send(List<ToBroker> messages) {
            sent.addAll(messages);
        }

        @Override
        public void step(int number) {
            throw new IllegalStateException("nobody keeps step here");
        }

        @Override
        public void close() {
            // nothing is open
        }
    }

    /** A disk that is full from some moment on. */
    private static final class Disk implements LiveRecord {
        final List<LiveInput> written = new CopyOnWriteArrayList<>();
        volatile boolean full;
        /** Room was reserved, and giving it up helps. */
        volatile boolean reserve;

        @Override
        public boolean relieve() {
            full &= !reserve;
            return reserve;
        }

        @Override
        public void input(LiveInput input) {
            if (full) {
                throw new BadInput("day.journal: cannot be written: no space left");
            }
            written.add(input);
        }

        @Override
        public void inputs(List<LiveInput> inputs) {
            // all of them, or none
            if (!full) {
                written.addAll(inputs);
                return;
            }
            LiveRecord.super.inputs(inputs);
        }

        @Override
        public void force() {
            if (full) {
                throw new BadInput("day.journal: cannot be written: no space left");
            }
        }

        @Override
        public void close() {
            // nothing is open
        }
    }

    private final List<String> said = new CopyOnWriteArrayList<>();
    private Played venue;
    private Disk disk;
    private LiveRun run;
    private LiveSession session;
    private Thread thread;
    private SessionFile.Set documents;
    private long time;
    private OptionalInt numbered = OptionalInt.empty();

    @BeforeMethod
    public void begin() {
        SessionFile.Set demo = Demo.documents();
        documents = new SessionFile.Set(demo.contract(), demo.account(), List.of(Documents.strategy("""
                {"document":"strategy","version":1,"name":"up","contract":"TDL","signal":{"bars":"tick","size":2},
                 "long":{"rule":"close > open"},"entry":{"order":"market","quantity":1},
                 "exit":{"document":"exit plan","version":1,"name":"one","stop":{"ticks":40}}}
                """, "up", other -> other)));
        said.clear();
        numbered = OptionalInt.empty();
        venue = new Played();
        disk = new Disk();
        run = new LiveRun(LiveJournal.start(documents, "s"));
        session = new LiveSession(run, venue, disk, LiveSession.Going.on(false), said::add);
        Session first = demo.contract().value().calendar().sessions(java.time.LocalDate.of(2026, 9, 22)).getFirst();
        time = first.open();
        session.command(new Command.SetMode(0, Mode.ENGAGED));
        thread = Thread.ofPlatform().start(() -> {
            try {
                session.run();
            } catch (InterruptedException e) {
                // asked to end
            }
        });
        venue.events.add(new VenueEvent.Connected(true, true));
    }

    @AfterMethod(alwaysRun = true)
    public void end() throws InterruptedException {
        session.end();
        thread.join();
    }

    private void print(long price) {
        time += TapeTime.SECOND / 10;
        long wall = System.currentTimeMillis() * 1_000_000;
        venue.events.add(new VenueEvent.Prints(List.of(new VenueEvent.Print(time, price, 1, Tape.NONE, Tape.NONE,
                Tape.NONE, Tape.NONE, Optional.empty())), OptionalInt.empty(), new VenueEvent.Sent(wall, time, 1),
                numbered));
    }

    /** Two prints that make a bar which closes above its open. */
    private void rises(long from) {
        print(from);
        print(from + 1);
    }

    private static void until(BooleanSupplier so, String what) throws InterruptedException {
        for (int i = 0; i < 1000 && !so.getAsBoolean(); i++) {
            TimeUnit.MILLISECONDS.sleep(20);
        }
        assertTrue(so.getAsBoolean(), what);
    }

    /** As the engine was told last. */
    private boolean inStep() {
        return disk.written.stream().filter(LiveInput.Linked.class::isInstance).map(LiveInput.Linked.class::cast)
                .reduce((first, second) -> second).filter(last -> last.why().isEmpty()).isPresent();
    }

    private boolean apart(OutOfStep why) {
        return disk.written.contains(new LiveInput.Linked(Optional.of(why), false));
    }

    private List<Order.Role> placed() {
        List<Order.Role> roles = new ArrayList<>();
        for (ToBroker message : venue.sent) {
            if (message instanceof ToBroker.Place place) {
                roles.add(place.ticket().role());
            }
        }
        return roles;
    }

    private void tell(FromBroker report) {
        venue.events.add(new VenueEvent.Reported(report, time, OptionalInt.empty()));
    }

    /** The entry is sent, taken and filled; its stop is sent. */
    private void enters() throws InterruptedException {
        rises(4000);
        until(() -> placed().size() == 1, "an entry");
        String name = venue.sent.getFirst().name();
        tell(new FromBroker.Received(name, name));
        tell(new FromBroker.Filled(name, "x1", 1, 4001, 1, true, 0, time));
        venue.holds = 1;
        until(() -> placed().size() == 2, "its stop");
        String stop = venue.sent.getLast().name();
        tell(new FromBroker.Received(stop, stop));
        tell(new FromBroker.Working(stop));
    }

    @Test(timeOut = 60_000)
    public void anOrderWithoutAnAnswerIsAskedAboutAndNothingIsEnteredMeanwhile() throws InterruptedException {
        rises(4000);
        until(() -> placed().size() == 1, "an entry");
        String name = venue.sent.getFirst().name();
        until(() -> venue.asked.contains(name), "asked after 3 s");
        assertTrue(apart(OutOfStep.ORDERS_IN_DOUBT), disk.written + "");
        until(() -> said.stream().anyMatch(one -> one.contains("alarm") && one.contains(name)), "an alarm");
        venue.events.add(new VenueEvent.Asked(name, true, Optional.empty()));
        until(() -> inStep(), "in step again");
        assertEquals(placed(), List.of(Order.Role.ENTRY), "it was not sent again");
    }

    @Test(timeOut = 60_000)
    public void anotherPositionAtTheBrokerHoldsBackEntries() throws InterruptedException {
        rises(4000);
        until(() -> placed().size() == 1, "an entry");
        tell(new FromBroker.Refused(venue.sent.getFirst().name(), "no"));
        venue.holds = -2;
        until(() -> apart(OutOfStep.POSITIONS_DIFFER), "two answers show it");
        rises(4010);
        TimeUnit.MILLISECONDS.sleep(300);
        assertEquals(placed().size(), 1);
        assertTrue(said.stream().anyMatch(one -> one.contains("the broker holds -2, we count 0")), said + "");
        venue.holds = 0;
        until(() -> inStep(), "they agree");
        rises(4020);
        until(() -> placed().size() == 2, "it enters again");
    }

    @Test(timeOut = 60_000)
    public void anExitOfWhatTheBrokerDoesNotHaveIsCut() throws InterruptedException {
        enters();
        venue.holds = 0;
        until(() -> venue.sent.getLast() instanceof ToBroker.Cancel, "the stop is cancelled");
        assertTrue(disk.written.contains(new LiveInput.Holds(0)), disk.written + "");
        assertTrue(said.stream().anyMatch(one -> one.contains("the broker holds 0, we count 1")), said + "");
    }

    @Test(timeOut = 60_000)
    public void aJournalThatCannotBeWrittenStopsEntriesAndNoExit() throws InterruptedException {
        enters();
        disk.full = true;
        int before = disk.written.size();
        session.command(new Command.Flatten(0));
        until(() -> placed().contains(Order.Role.LEAVE), "the exit is sent");
        assertEquals(disk.written.size(), before);
        String leave = venue.sent.getLast().name();
        tell(new FromBroker.Filled(leave, "x2", 1, 4001, 1, true, 0, time));
        venue.holds = 0;
        rises(4010);
        TimeUnit.MILLISECONDS.sleep(300);
        assertEquals(placed().stream().filter(role -> role == Order.Role.ENTRY).count(), 1, "no entry");
        assertTrue(said.stream().anyMatch(one -> one.startsWith("alarm") && one.contains("no space left")), said + "");
        disk.full = false;
        rises(4020);
        until(() -> placed().stream().filter(role -> role == Order.Role.ENTRY).count() == 2, "it enters again");
        // what could not be written was, later, in its order: the same day comes of it again
        session.end();
        thread.join();
        LiveRun again = new LiveRun(LiveJournal.start(documents, "s"));
        List<ToBroker> sent = new ArrayList<>();
        disk.written.forEach(input -> sent.addAll(again.take(input)));
        assertEquals(again.engine().log().fills(), run.engine().log().fills());
        assertEquals(again.engine().log().decisions(), run.engine().log().decisions());
        assertEquals(sent.stream().map(ToBroker::name).toList(), venue.sent.stream().map(ToBroker::name).toList());
    }

    private static List<LiveInput.Print> prints(Disk disk) {
        return disk.written.stream().filter(LiveInput.Print.class::isInstance).map(LiveInput.Print.class::cast)
                .toList();
    }

    @Test(timeOut = 60_000)
    public void aPrintThatComesTwiceIsDroppedAndOneThatIsMissingMarksTheSession() throws InterruptedException {
        numbered = OptionalInt.of(1);
        print(4000);
        print(4000);
        numbered = OptionalInt.of(2);
        print(4001);
        numbered = OptionalInt.of(6);
        print(4002);
        until(() -> prints(disk).size() == 3, "one of four was there already");
        until(() -> said.stream().anyMatch(one -> one.startsWith("3 prints were missed")), "it is said: " + said);
        numbered = OptionalInt.of(7);
        rises(4010);
        until(() -> prints(disk).size() == 4, "counting goes on from there: one was there already");
        session.end();
        thread.join();
        assertEquals(disk.written.stream().filter(LiveInput.Gap.class::isInstance).count(), 1);
        assertEquals(run.tape().incomplete().size(), 1, run.tape().incomplete() + "");
        assertEquals(run.received().incomplete(), run.tape().incomplete());
    }

    @Test(timeOut = 60_000)
    public void aVenueThatCountsNothingLeavesItOpenWhatWasMissed() throws InterruptedException {
        rises(4000);
        until(() -> prints(disk).size() == 2, "prints come");
        venue.events.add(new VenueEvent.Connected(true, false));
        venue.events.add(new VenueEvent.Connected(true, true));
        print(4002);
        until(() -> disk.written.stream().anyMatch(LiveInput.Gap.class::isInstance), "the session is incomplete");
        print(4003);
        until(() -> prints(disk).size() == 4, "prints come");
        assertEquals(disk.written.stream().filter(LiveInput.Gap.class::isInstance).count(), 1, "once");
    }

    @Test(timeOut = 60_000)
    public void whenTheFeedLivesAndTheBrokerIsDeadSignalsAreDeclinedAndTheStopStaysWhereItIs()
            throws InterruptedException {
        enters();
        int before = venue.sent.size();
        venue.events.add(new VenueEvent.Connected(true, false));
        until(() -> apart(OutOfStep.LINK_LOST), "it is noticed");
        rises(4010);
        until(() -> prints(disk).size() == 4, "prints are worked");
        until(() -> said.stream().anyMatch(one -> one.contains("alarm: the broker's side does not answer")), said + "");
        assertEquals(venue.sent.size(), before, "nothing is sent");
        session.command(new Command.Flatten(0));
        until(() -> said.stream().anyMatch(one -> one.contains("is to leave at the market, and the broker is away")),
                "the flatten waits, and says so");
        // the broker is there again: it knows the stop and not the leave
        int asked = venue.asked.size();
        venue.events.add(new VenueEvent.Connected(true, true));
        until(() -> venue.asked.size() > asked, "it is asked about the leave");
        venue.events.add(new VenueEvent.Asked(venue.asked.getLast(), true, Optional.empty()));
        until(() -> said.stream().anyMatch(one -> one.startsWith("over: the broker's side")), said + "");
        assertEquals(placed().stream().filter(role -> role == Order.Role.LEAVE).count(), 1,
                "what the broker knows is not sent again");
    }

    @Test(timeOut = 60_000)
    public void aPartFillBeforeTheAnswerIsBookedOnceAndGuardedAtOnce() throws InterruptedException {
        rises(4000);
        until(() -> placed().size() == 1, "an entry");
        String name = venue.sent.getFirst().name();
        until(() -> venue.asked.contains(name), "in doubt");
        // the fill comes before the answer, and a second time after it
        FromBroker fill = new FromBroker.Filled(name, "x1", 1, 4001, 1, true, 0, time);
        venue.holds = 1;
        tell(fill);
        until(() -> placed().contains(Order.Role.STOP), "guarded");
        venue.events.add(new VenueEvent.Asked(name, true, Optional.empty()));
        tell(fill);
        String stop = venue.sent.getLast().name();
        tell(new FromBroker.Received(stop, stop));
        until(() -> inStep(), "in step again");
        session.end();
        thread.join();
        assertEquals(run.engine().net(), 1);
        assertEquals(run.engine().log().fills().size(), 1);
        assertEquals(placed(), List.of(Order.Role.ENTRY, Order.Role.STOP));
    }

    @Test(timeOut = 60_000)
    public void theReserveIsForExits() throws InterruptedException {
        enters();
        disk.reserve = true;
        disk.full = true;
        session.command(new Command.Flatten(0));
        until(() -> placed().contains(Order.Role.LEAVE), "the exit is sent");
        assertTrue(disk.written.contains(new LiveInput.Asked(new Command.Flatten(0))), "and written down");
        tell(new FromBroker.Filled(venue.sent.getLast().name(), "x2", 1, 4001, 1, true, 0, time));
        venue.holds = 0;
        rises(4010);
        TimeUnit.MILLISECONDS.sleep(300);
        assertEquals(placed().stream().filter(role -> role == Order.Role.ENTRY).count(), 1, "nothing is entered");
        assertTrue(said.stream().anyMatch(one -> one.contains("the reserve is used up")), said + "");
    }

    @Test(timeOut = 60_000)
    public void whileNoPrintComesTheClockGoesOn() throws InterruptedException {
        print(4000);
        until(() -> disk.written.stream().filter(input -> input instanceof LiveInput.Heartbeat).count() >= 2,
                "a moment each second");
        long last = disk.written.stream().filter(input -> input instanceof LiveInput.Heartbeat)
                .mapToLong(input -> ((LiveInput.Heartbeat) input).time()).max().orElseThrow();
        assertEquals(last % TapeTime.SECOND, 0);
        // a print that was on its way is worked as if it came now, and counted
        print(4001);
        until(() -> disk.written.getLast() instanceof LiveInput.Print, "it is taken");
        session.end();
        thread.join();
        assertEquals(run.latePrints(), 1);
        assertTrue(run.tape().time(1) >= last, "time never goes back");
        assertFalse(said.stream().anyMatch(one -> one.startsWith("alarm")), said + "");
    }

    /** After a loss of link every order is asked for: what is missing there is asked about by its name, and then sent again. */
    @Test(timeOut = 60_000)
    public void aStopThatTheBrokerDoesNotNameIsAskedAboutAndSentAgain() throws InterruptedException {
        enters();
        String stop = venue.sent.getLast().name();
        until(this::inStep, "in step");
        int asked = venue.asked.size();
        venue.all = List.of(new VenueEvent.Listed(
                Optional.of(new FromBroker.Foreign("phone", "buy 1 limit 3000", false, true)), true));
        venue.events.add(new VenueEvent.Connected(true, false));
        venue.events.add(new VenueEvent.Connected(true, true));
        until(() -> venue.asked.size() > asked && venue.asked.getLast().equals(stop), "it is asked about");
        assertEquals(run.foreign(), java.util.Map.of("phone", "buy 1 limit 3000"));
        venue.events.add(new VenueEvent.Asked(stop, false, Optional.empty()));
        until(() -> venue.asked.size() > asked + 1, "and once more some seconds later");
        venue.events.add(new VenueEvent.Asked(stop, false, Optional.empty()));
        until(() -> placed().equals(List.of(Order.Role.ENTRY, Order.Role.STOP, Order.Role.STOP)), "it is sent again");
        assertEquals(venue.sent.getLast().name(), stop, "under the same name");
    }

    @Test(timeOut = 60_000)
    public void aStatusTellsOfAFillThatNoReportTold() throws InterruptedException {
        rises(4000);
        until(() -> placed().size() == 1, "an entry");
        String name = venue.sent.getFirst().name();
        tell(new FromBroker.Received(name, name));
        venue.all = List.of(
                new VenueEvent.Listed(Optional.of(new FromBroker.Status(name, 1, 4003, true)), true));
        venue.holds = 1;
        venue.events.add(new VenueEvent.Connected(false, false));
        venue.events.add(new VenueEvent.Connected(true, true));
        until(() -> placed().equals(List.of(Order.Role.ENTRY, Order.Role.STOP)), "its stop is sent");
        assertEquals(run.engine().net(), 1);
        assertTrue(said.stream().anyMatch(one -> one.contains("tells of contracts that no report told of")), said + "");
    }
}
