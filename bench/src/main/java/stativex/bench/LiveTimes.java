package stativex.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.HdrHistogram.Histogram;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.Documents;
import stativex.files.LiveJournal;
import stativex.files.LiveRecord;
import stativex.files.SessionFile;
import stativex.link.Link;
import stativex.link.LiveDay;
import stativex.link.LiveSession;
import stativex.link.VenueEvent;
import stativex.link.WarmUp;
import stativex.link.fix.StandIn;
import stativex.link.fix.Wish;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.FromBroker;
import stativex.order.SimulatedBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;
import stativex.trial.LiveInput;
import stativex.trial.LiveRun;

/**
 * A live day: from a print to the orders that it leads to, with what the disk takes of it; how many prints a second a day works, without
 * and with the wire; how long a day takes to go on in the middle of it. Fails when the engine's own share at the 99th percentile is above
 * the microseconds given, if any are.
 */
final class LiveTimes {
    private static final int MESSAGE = 50;
    /** Prints of one trading day of the demo. */
    private static final int A_DAY = 91_000;
    /** Faster than anything can follow. */
    private static final double SPEED = 200_000;

    private LiveTimes() {}

    private static SessionFile.Set documents() {
        SessionFile.Set demo = Demo.documents();
        return new SessionFile.Set(demo.contract(),
                Documents.account(TrialAgainstBareLoop.ACCOUNT, "account", other -> other), List.of(Documents.strategy("""
                {"document":"strategy","version":1,"name":"often","contract":"TDL","signal":{"bars":"tick","size":50},
                 "long":{"rule":"close > open"},"short":{"rule":"close < open"},
                 "entry":{"order":"market","quantity":1},
                 "exit":{"document":"exit plan","version":1,"name":"near","stop":{"ticks":8},
                         "targets":[{"quantity":1,"ticks":8}]}}
                """, "often", other -> other)));
    }

    /** A disk whose share is counted. */
    private static final class Timed implements LiveRecord {
        final LiveJournal journal;
        long nanos;

        Timed(LiveJournal journal) {
            this.journal = journal;
        }

        @Override
        public void input(LiveInput input) {
            inputs(List.of(input));
        }

        @Override
        public void inputs(List<LiveInput> inputs) {
            long begin = System.nanoTime();
            journal.inputs(inputs);
            nanos += System.nanoTime() - begin;
        }

        @Override
        public void force() {
            long begin = System.nanoTime();
            journal.force();
            nanos += System.nanoTime() - begin;
        }

        @Override
        public void close() {
            journal.close();
        }
    }

    /** The simulated broker at the other end of a call; prints come as fast as they are asked for. */
    private static final class Here implements Link {
        final Tape tape;
        final SimulatedBroker broker;
        final Timed disk;
        final int each;
        final Histogram all = new Histogram(10_000_000_000L, 3);
        final Histogram engine = new Histogram(10_000_000_000L, 3);
        final Histogram force = new Histogram(10_000_000_000L, 3);
        int next;
        boolean begun;
        boolean asked;
        long given;
        long diskBefore;
        final List<VenueEvent> waiting = new ArrayList<>();

        Here(Tape tape, Contract contract, Timed disk, int each) {
            this.tape = tape;
            this.broker = new SimulatedBroker(tape, contract, Terms.DEFAULT);
            this.disk = disk;
            this.each = each;
        }

        @Override
        public Optional<VenueEvent> next(long nanos) {
            if (!begun) {
                begun = true;
                return Optional.of(new VenueEvent.Connected(true, true));
            }
            if (!waiting.isEmpty()) {
                given = System.nanoTime();
                diskBefore = disk.nanos;
                return Optional.of(waiting.removeFirst());
            }
            if (next >= tape.count()) {
                boolean told = asked;
                asked = true;
                return told ? Optional.empty() : Optional.of(new VenueEvent.Over(OptionalInt.empty()));
            }
            List<VenueEvent.Print> prints = new ArrayList<>();
            while (prints.size() < each && next < tape.count()) {
                broker.print(next);
                prints.add(new VenueEvent.Print(tape.time(next), tape.price(next), tape.size(next), tape.bid(next),
                        tape.ask(next), tape.bidSize(next), tape.askSize(next), Optional.of(tape.aggressor(next))));
                next++;
            }
            told();
            long wall = System.currentTimeMillis() * 1_000_000;
            given = System.nanoTime();
            diskBefore = disk.nanos;
            return Optional.of(new VenueEvent.Prints(prints, OptionalInt.empty(),
                    new VenueEvent.Sent(wall, prints.getLast().time(), 1), OptionalInt.of(next - prints.size() + 1)));
        }

        private void told() {
            for (FromBroker report : broker.told()) {
                waiting.add(new VenueEvent.Reported(report, tape.time(Math.max(0, next - 1)), OptionalInt.empty()));
            }
        }

        @Override
        public void subscribe(int reports) {
            // it does anyway
        }

        @Override
        public void ask(String order) {
            waiting.add(new VenueEvent.Asked(order, broker.knows(order), broker.status(order)));
        }

        @Override
        public void askAll() {
            waiting.add(new VenueEvent.Listed(Optional.empty(), true));
        }

        @Override
        public void askPosition() {
            waiting.add(new VenueEvent.Held(broker.net()));
        }

        @Override
        public void send(List<ToBroker> messages) {
            long now = System.nanoTime();
            if (given != 0 && each == 1 && next > tape.count() / 10) {
                long disks = disk.nanos - diskBefore;
                all.recordValue(now - given);
                force.recordValue(disks);
                engine.recordValue(Math.max(0, now - given - disks));
            }
            given = 0;
            messages.forEach(broker::take);
            told();
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

    public static void main(String[] arguments) throws Exception {
        double most = arguments.length > 0 ? Double.parseDouble(arguments[0]) : Double.MAX_VALUE;
        SessionFile.Set documents = documents();
        Contract contract = documents.contract().value();
        Tape tape = Demo.tape(contract);
        Path folder = Files.createTempDirectory("live");
        long warm = System.nanoTime();
        System.out.printf("warmed up by %d messages of an invented day in %.1f s%n", WarmUp.run(documents),
                seconds(warm));
        Here one = work(documents, tape, folder.resolve("one.journal"), 1);
        System.out.printf(
                "%d times orders left because of a print or of what the broker told: from it to the wire p50 %.0f µs, p99 %.0f; the disk's share p50 %.0f, p99 %.0f; the engine's p50 %.1f, p99 %.1f%n",
                one.all.getTotalCount(), micros(one.all, 50), micros(one.all, 99), micros(one.force, 50),
                micros(one.force, 99), micros(one.engine, 50), micros(one.engine, 99));
        long begin = System.nanoTime();
        work(documents, tape, folder.resolve("many.journal"), MESSAGE);
        System.out.printf("%.0f prints a second in messages of %d, journal included, without the wire%n",
                tape.count() / seconds(begin), MESSAGE);
        work(documents, Tape.joined(List.of(new Tape.Part(tape, 0, A_DAY, 0))), folder.resolve("day.journal"), MESSAGE);
        begin = System.nanoTime();
        LiveJournal.Recorded recorded = LiveJournal.read(folder.resolve("day.journal"));
        double read = seconds(begin);
        recorded.again();
        System.out.printf("a day of %d inputs goes on after %.2f s, %.2f of them for reading the journal%n",
                recorded.inputs().size(), seconds(begin), read);
        wire(documents, tape, folder.resolve("wire.journal"));
        System.exit(micros(one.engine, 99) <= most ? 0 : 1);
    }

    private static Here work(SessionFile.Set documents, Tape tape, Path file, int each) throws InterruptedException {
        Timed disk = new Timed(LiveJournal.begin(file, documents, "bench"));
        Here link = new Here(tape, documents.contract().value(), disk, each);
        LiveSession session = new LiveSession(new LiveRun(LiveJournal.start(documents, "bench")), link, disk,
                LiveSession.Going.on(false), sentence -> {
                    // nobody listens
                });
        session.command(new Command.SetMode(0, Mode.ENGAGED));
        session.run();
        disk.close();
        return link;
    }

    /** The same over FIX and loopback, as fast as it goes. */
    private static void wire(SessionFile.Set documents, Tape tape, Path file) throws Exception {
        InetSocketAddress at = free();
        try (StandIn venue = new StandIn(new StandIn.Setup(documents.contract().value(), tape, Terms.DEFAULT,
                Optional.of(SPEED), "bench"), at);
                LiveDay day = new LiveDay(new LiveDay.Setup(documents, at, false, file, Optional.empty()), said -> {
                    // nobody listens
                })) {
            venue.wish(new Wish.Speed(SPEED));
            day.command(new Command.SetMode(0, Mode.WATCHING));
            day.start();
            while (day.latest().prints() == 0) {
                Thread.sleep(5);
            }
            long begin = System.nanoTime();
            while (day.latest().prints() < tape.count()) {
                Thread.sleep(5);
            }
            System.out.printf(
                    "%.0f prints a second over FIX and loopback, journal included, both ends on this machine%n",
                    tape.count() / seconds(begin));
        }
    }

    private static InetSocketAddress free() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return new InetSocketAddress(InetAddress.getLoopbackAddress(), socket.getLocalPort());
        }
    }

    private static double micros(Histogram times, double percentile) {
        return times.getValueAtPercentile(percentile) / 1e3;
    }

    private static double seconds(long begin) {
        return (System.nanoTime() - begin) / 1e9;
    }
}
