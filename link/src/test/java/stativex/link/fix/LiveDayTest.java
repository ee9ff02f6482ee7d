package stativex.link.fix;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.account.LockReason;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.files.BadInput;
import stativex.files.LiveLog;
import stativex.files.SessionFile;
import stativex.interlock.OutOfStep;
import stativex.link.LiveDay;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Terms;

/** Days at one venue, one after the other: what holds over them, and what a feed that is asked to fail leads to. */
public class LiveDayTest {
    private final List<String> said = new CopyOnWriteArrayList<>();
    private SessionFile.Set documents;
    private Contract contract;
    private InetSocketAddress at;
    private StandIn venue;
    private Path folder;

    @BeforeMethod
    public void exchange() throws Exception {
        documents = InStepTest.documents();
        contract = documents.contract().value();
        at = InStepTest.free();
        folder = Files.createTempDirectory("days");
        said.clear();
        Tape whole = Demo.tape(contract);
        int from = whole.firstAt(contract.calendar().current(Demo.begin(contract)).orElseThrow().open());
        Tape day = Tape.joined(List.of(new Tape.Part(whole, from, whole.count(), 0)));
        venue = new StandIn(new StandIn.Setup(contract, day, Terms.DEFAULT, Optional.of(5.0), "v"), at);
    }

    @AfterMethod(alwaysRun = true)
    public void closes() {
        venue.close();
    }

    private LiveDay day(String name, Optional<Path> program) {
        LiveDay day = new LiveDay(new LiveDay.Setup(documents, at, false, folder.resolve(name), program), said::add);
        day.confirm();
        return day.start();
    }

    private static void until(BooleanSupplier so, String what) throws InterruptedException {
        for (int i = 0; i < 1500 && !so.getAsBoolean(); i++) {
            TimeUnit.MILLISECONDS.sleep(20);
        }
        assertTrue(so.getAsBoolean(), what);
    }

    @Test(timeOut = 120_000)
    public void aLockHoldsInANewJournalAndOnlyOneEngineTrades() throws Exception {
        try (LiveDay first = day("first.journal", Optional.empty())) {
            until(() -> first.latest().prints() > 10, "prints come");
            BadInput second = null;
            try {
                day("second.journal", Optional.empty()).close();
            } catch (BadInput e) {
                second = e;
            }
            assertTrue(second != null && second.getMessage().contains("first.journal"),
                    "it names the first: " + second);
            assertFalse(Files.exists(folder.resolve("second.journal")));
            first.command(new Command.FlatAndLock());
            until(() -> first.latest().snapshot().account().lock().isPresent(), "it locks");
        }
        try (LiveDay next = day("third.journal", Optional.empty())) {
            until(() -> next.latest().prints() > 0, "prints come");
            assertEquals(next.latest().snapshot().account().lock(), Optional.of(LockReason.BY_HAND));
        }
        // the older journal is not gone on with: the account has been traded since
        assertThrows(BadInput.class, () -> day("first.journal", Optional.empty()));
        // and where the newest is gone, how the account was left is known all the same
        Files.delete(folder.resolve("third.journal"));
        try (LiveDay last = day("fourth.journal", Optional.empty())) {
            until(() -> last.latest().prints() > 0, "prints come");
            assertEquals(last.latest().snapshot().account().lock(), Optional.of(LockReason.BY_HAND));
        }
    }

    @Test(timeOut = 120_000)
    public void aSilentFeedHoldsBackEntriesAndRunsTheAlarmsProgram() throws Exception {
        Path rung = folder.resolve("rung");
        Path program = folder.resolve("ring");
        Files.writeString(program, "#!/bin/sh\nprintf '%s\\n' \"$1\" >> '" + rung + "'\n");
        Files.setPosixFilePermissions(program, PosixFilePermissions.fromString("rwx------"));
        try (LiveDay live = day("silent.journal", Optional.of(program))) {
            live.command(new Command.SetMode(0, Mode.ENGAGED));
            until(() -> live.latest().prints() > 200, "prints come");
            venue.wish(new Wish.Silence(20_000_000_000L));
            until(() -> live.latest().standing().apart().equals(Optional.of(OutOfStep.FEED_SILENT)), "it is noticed");
            until(() -> Files.exists(rung), "the program is run");
            until(() -> live.latest().standing().apart().isEmpty(), "and over when prints come again");
            assertTrue(said.stream().anyMatch(one -> one.startsWith("over: no print has come")), said + "");
        }
        assertTrue(Files.readString(rung).contains("no print has come for"), Files.readString(rung));
        String log = Files.readString(new LiveLog(folder.resolve("silent.journal")).file());
        assertTrue(log.contains("alarm: no print has come") && log.contains("linked to the venue"), log);
    }

    /** An account that is held to a rulebook: somebody says each trading day that the firm shows the same. */
    @Test(timeOut = 120_000)
    public void nothingIsEnteredBeforeTheFirmsFiguresAreCompared() throws Exception {
        LiveDay.Setup setup = new LiveDay.Setup(documents, at, false, folder.resolve("compare.journal"),
                Optional.empty());
        try (LiveDay live = new LiveDay(setup, said::add).start()) {
            live.command(new Command.SetMode(0, Mode.ENGAGED));
            until(() -> live.latest().prints() > 10
                    && live.latest().standing().apart().equals(Optional.of(OutOfStep.NOT_CONFIRMED)), "held back");
            until(() -> said.stream().anyMatch(one -> one.startsWith("alarm: compare balance and floor")), said + "");
            live.confirm();
            until(() -> live.latest().standing().apart().isEmpty(), "and no more: " + said);
            assertTrue(live.latest().standing().confirmed());
        }
        // it holds for the trading day, in another run of the program, too
        try (LiveDay again = new LiveDay(setup, said::add).start()) {
            until(() -> again.latest().standing().linked() && again.latest().standing().apart().isEmpty(), "in step");
        }
    }

    private static Command buys() {
        return new Command.Enter(Side.LONG, Order.Type.MARKET, 1, Tape.NONE, Tape.NONE, OptionalInt.of(0), true);
    }

    private static List<Decision.Outcome> outcomes(LiveDay live) {
        return live.latest().snapshot().decisions().stream().map(Decision::outcome).toList();
    }

    @Test(timeOut = 120_000)
    public void anOrderThatTheBrokerRefusesIsSaid() throws Exception {
        try (LiveDay live = day("refused.journal", Optional.empty())) {
            until(() -> live.latest().prints() > 0 && live.latest().standing().apart().isEmpty(), "in step");
            live.command(buys());
            until(() -> live.latest().snapshot().orders().stream().anyMatch(
                    order -> order.role() == Order.Role.STOP && order.state() == Order.State.WORKING),
                    "it is guarded: " + outcomes(live));
            venue.wish(new Wish.Reject(1));
            TimeUnit.MILLISECONDS.sleep(200);
            live.command(buys());
            until(() -> outcomes(live).stream().anyMatch(outcome -> outcome instanceof Decision.Rejected),
                    "the broker's refusal is logged");
        }
    }

    private static int open(LiveDay live) {
        return live.latest().snapshot().hand().position().map(p -> p.side().sign() * p.open()).orElse(0);
    }

    @Test(timeOut = 120_000)
    public void whatSomebodyDoesElsewhereIsShownAndIsThePersons() throws Exception {
        try (LiveDay live = day("elsewhere.journal", Optional.empty())) {
            until(() -> live.latest().prints() > 0 && live.latest().standing().apart().isEmpty(), "in step");
            // an order that rests far away
            venue.wish(Wish.read("order 2 1000.00"));
            until(() -> live.latest().standing().foreign().equals(List.of("buy 2 limit 1000.00")),
                    "it is shown: " + live.latest().standing().foreign());
            until(() -> said.stream().anyMatch(one -> one.contains("not sent from here: buy 2 limit 1000.00")),
                    "and said: " + said);
            // it is still there when the link is, and none of ours is
            venue.wish(new Wish.Drop());
            until(() -> !live.latest().standing().linked(), "the link is lost");
            until(() -> live.latest().standing().linked() && live.latest().standing().apart().isEmpty(), "and back");
            assertEquals(live.latest().standing().foreign(), List.of("buy 2 limit 1000.00"));
            // one that fills at once is the person's position, and the broker agrees
            long price = live.latest().snapshot().lastPrice().orElseThrow();
            venue.wish(Wish.read("order -1 " + contract.text(price - 400)));
            venue.wish(Wish.read("order 1 " + contract.text(price + 400)));
            until(() -> live.latest().standing().foreign().size() == 3, "stops far away rest: " + said);
            assertEquals(open(live), 0);
            venue.wish(Wish.read("order -2 " + contract.text(live.latest().snapshot().lastPrice().orElseThrow() - 1)));
            until(() -> open(live) == -2, "a stop that is reached is filled");
            until(() -> live.latest().standing().foreign().size() == 3, "and rests no more");
            until(() -> live.latest().standing().held().equals(java.util.OptionalLong.of(-2)), "as the broker says");
            assertTrue(live.latest().standing().difference().isEmpty());
        }
        // the day gone on with has it, too
        try (LiveDay again = day("elsewhere.journal", Optional.empty())) {
            until(() -> again.latest().standing() != null && again.latest().standing().linked(), "linked");
            assertEquals(open(again), -2);
            until(() -> again.latest().standing().foreign().size() == 3, "and who else has orders");
        }
    }

    @Test(timeOut = 120_000)
    public void aFillThatIsTakenBackTakesItsStopAlong() throws Exception {
        try (LiveDay live = day("back.journal", Optional.empty())) {
            until(() -> live.latest().prints() > 0 && live.latest().standing().apart().isEmpty(), "in step");
            live.command(buys());
            until(() -> live.latest().snapshot().orders().stream().anyMatch(
                    order -> order.role() == Order.Role.STOP && order.state() == Order.State.WORKING),
                    "it is guarded: " + outcomes(live));
            venue.wish(Wish.read("correct 2"));
            until(() -> said.stream().anyMatch(one -> one.contains("a fill is corrected")), "it is said: " + said);
            assertEquals(open(live), 1);
            live.command(buys());
            until(() -> open(live) == 2, "one more");
            venue.wish(Wish.read("takeback"));
            until(() -> open(live) == 1, "one less: " + outcomes(live));
            until(() -> live.latest().standing().held().equals(java.util.OptionalLong.of(1)), "the broker agrees");
            assertTrue(live.latest().snapshot().orders().stream().anyMatch(
                    order -> order.role() == Order.Role.STOP && order.rest() == 1), "its stop is for the rest");
        }
    }
}
