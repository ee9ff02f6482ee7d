package stativex.link.fix;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.LiveJournal;
import stativex.files.LiveRecord;
import stativex.files.SessionFile;
import stativex.link.Link;
import stativex.link.LiveSession;
import stativex.link.VenueEvent;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Terms;
import stativex.order.ToBroker;
import stativex.trial.LiveInput;
import stativex.trial.LiveRun;

/**
 * A client that dies anywhere, between what it is told and the disk, between the disk and the wire, in the middle of what it sends: it goes
 * on from its journal, no print is lost, no order comes twice, and both sides hold the same.
 */
public class KillTest {
    private static final class Killed extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    /** Where it dies next, if it does. */
    private enum Moment {
        BEFORE_THE_JOURNAL, BEFORE_THE_WIRE, WHILE_SENDING, AFTER_SENDING
    }

    /** Dies once, at the so manyth thing of a kind. */
    private static final class Fate {
        final Moment moment;
        int left;

        Fate(Moment moment, int left) {
            this.moment = moment;
            this.left = left;
        }

        void at(Moment here) {
            if (here == moment && left-- == 0) {
                throw new Killed();
            }
        }
    }

    private record Mortal(Link link, Fate fate) implements Link {
        @Override
        public Optional<VenueEvent> next(long nanos) throws InterruptedException {
            return link.next(nanos);
        }

        @Override
        public void subscribe(int reports) {
            link.subscribe(reports);
        }

        @Override
        public void ask(String order) {
            link.ask(order);
        }

        @Override
        public void askAll() {
            link.askAll();
        }

        @Override
        public void askPosition() {
            link.askPosition();
        }

        @Override
        public void send(List<ToBroker> messages) {
            fate.at(Moment.BEFORE_THE_WIRE);
            for (ToBroker message : messages) {
                link.send(List.of(message));
                fate.at(Moment.WHILE_SENDING);
            }
            fate.at(Moment.AFTER_SENDING);
        }

        @Override
        public void step(int number) {
            link.step(number);
        }

        @Override
        public void close() {
            link.close();
        }
    }

    private record Written(LiveJournal journal, Fate fate) implements LiveRecord {
        @Override
        public void input(LiveInput input) {
            fate.at(Moment.BEFORE_THE_JOURNAL);
            journal.input(input);
        }

        @Override
        public void force() {
            journal.force();
        }

        @Override
        public void close() {
            journal.close();
        }
    }

    private final SplittableRandom dice = new SplittableRandom(7);
    private final List<String> said = new ArrayList<>();
    private Path file;
    private SessionFile.Set documents;
    private InetSocketAddress at;
    private Contract contract;

    /** Runs until it dies or the day is over. Returns the day, if it is over. */
    private Optional<LiveRun> live(Fate fate) throws InterruptedException {
        boolean goesOn = Files.exists(file);
        Optional<LiveJournal.Recorded> before = goesOn ? Optional.of(LiveJournal.read(file)) : Optional.empty();
        LiveJournal.Worked worked = before.map(LiveJournal.Recorded::again)
                .orElseGet(() -> new LiveJournal.Worked(new LiveRun(LiveJournal.start(documents, "k")), List.of()));
        LiveSession.Going going = LiveSession.Going.on(true).asking(20_000_000L);
        try (LiveJournal journal = before.map(LiveJournal::onto)
                .orElseGet(() -> LiveJournal.begin(file, documents, "k"));
                FixLink link = new FixLink(contract, at, worked.sent())) {
            LiveSession session = new LiveSession(worked.run(), new Mortal(link, fate), new Written(journal, fate),
                    before.map(b -> going.after(b.reports(), b.steps())).orElse(going), said::add);
            if (!goesOn) {
                session.command(new Command.SetMode(0, Mode.ENGAGED));
            }
            session.run();
            return Optional.of(worked.run());
        } catch (Killed e) {
            return Optional.empty();
        }
    }

    @Test(timeOut = 180_000)
    public void itDiesAnywhereAndGoesOn() throws Exception {
        documents = InStepTest.documents();
        contract = documents.contract().value();
        Tape tape = InStepTest.thinned(Demo.tape(contract), 60);
        file = Files.createTempDirectory("kill").resolve("day.journal");
        at = InStepTest.free();
        int kills = 0;
        StandIn venue = new StandIn(new StandIn.Setup(contract, tape, Terms.DEFAULT, Optional.empty(), "v"), at);
        Optional<LiveRun> day = Optional.empty();
        try (venue) {
            while (day.isEmpty()) {
                Moment moment = Moment.values()[dice.nextInt(4)];
                Fate fate = kills < 10
                        ? new Fate(moment, moment == Moment.BEFORE_THE_JOURNAL ? dice.nextInt(1000) : dice.nextInt(4))
                        : new Fate(moment, Integer.MAX_VALUE);
                day = live(fate);
                kills += day.isEmpty() ? 1 : 0;
            }
        }
        LiveRun run = day.get();
        assertTrue(kills >= 10, kills + " kills");
        assertEquals(run.tape().checksum(), tape.checksum(), "no print is lost, none comes twice");
        assertEquals(run.contradictions(), List.of());
        assertEquals(said.stream().filter(one -> one.startsWith("left out")).toList(), List.of());
        assertEquals(run.engine().net(), venue.net());
        assertEquals(run.engine().log().fills().stream().map(f -> f.quantity() + " at " + contract.text(f.price()))
                .toList(), venue.fills(), "every fill once");
        assertTrue(run.engine().log().fills().size() > 4, run.engine().log().fills() + "");
        assertTrue(run.engine().log().fills().stream().anyMatch(fill -> fill.role() != Order.Role.ENTRY));
    }
}
