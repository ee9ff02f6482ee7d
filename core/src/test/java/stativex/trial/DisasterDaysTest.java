package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.account.AccountState;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.interlock.OutOfStep;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.FromBroker;
import stativex.order.Order;
import stativex.order.SimulatedBroker;
import stativex.order.ToBroker;

/**
 * Days on which everything fails that can: the link breaks with messages on their way in both directions, reports are late, come twice, or
 * never, the program is killed and loses the end of its journal, the broker refuses orders, takes fills back, corrects them, and somebody
 * trades by hand elsewhere. Whatever happens, once the link is there and everything was told, both sides hold the same and have paid the
 * same, no order was made twice, every position is guarded, and a lock holds. {@code -Dstativex.disasters=N} takes so many days.
 */
public class DisasterDaysTest {
    private static final int DAYS = Integer.getInteger("stativex.disasters", 300);

    /** What can happen. */
    private enum What {
        BREAK, KILL, LOST_IN_THE_JOURNAL, MESSAGE_LOST, REPORT_LOST, TWICE, LATE, REFUSED, TAKEN_BACK, CORRECTED, ELSEWHERE, DOUBT, CANCELLED_IN_DOUBT, FROM_STATUS, LOCKED, STOP_GONE
    }

    /** A venue that numbers its reports, a link of which the test decides everything, and the engine at the other end. */
    private static final class World {
        final SplittableRandom dice;
        final Inputs inputs;
        final SimulatedBroker broker;
        final Map<What, Integer> seen;
        /** Whether the venue sends missed reports again, as the stand-in does; else only orders' statuses tell. */
        final boolean resends;
        LiveRun live;
        /** All that went in, as far as it was written down. */
        final List<LiveInput> journal = new ArrayList<>();
        /** How much of it the disk has for certain. */
        int forced;
        /** Every report of the broker, as a client takes it. */
        final List<FromBroker> reports = new ArrayList<>();
        /** How many were taken, by the journal. */
        int taken;
        final ArrayDeque<ToBroker> up = new ArrayDeque<>();
        /** Numbers of reports on their way. */
        final ArrayDeque<Integer> down = new ArrayDeque<>();
        boolean linked = true;
        int away;
        /** Money in ticks that was paid for everything, less what was received: the broker's own count. */
        long paid;
        final Map<String, ToBroker.Place> placed = new java.util.HashMap<>();
        final Map<String, FromBroker.Filled> fills = new java.util.HashMap<>();
        final Set<String> buys = new HashSet<>();
        boolean locked;
        long now;

        World(long seed, Map<What, Integer> seen) {
            this.dice = new SplittableRandom(seed * 77);
            this.inputs = seed % 2 == 0 ? LiveRunTest.random(seed) : TwinTest.random(seed);
            this.broker = new SimulatedBroker(inputs.tape(), inputs.contract(), inputs.terms());
            this.seen = seen;
            this.resends = dice.nextInt(3) > 0;
            this.live = new LiveRun(start());
            engage();
        }

        LiveRun.Start start() {
            return new LiveRun.Start(inputs.contract(), inputs.account(), inputs.strategies(),
                    new TapeBuilder(1).build(), inputs.days().first(), AccountState.fresh(inputs.account()), "test");
        }

        void count(What what) {
            seen.merge(what, 1, Integer::sum);
        }

        void engage() {
            for (int i = 0; i < inputs.strategies().size(); i++) {
                give(new LiveInput.Asked(new Command.SetMode(i, Mode.ENGAGED)));
            }
        }

        /** Written down, worked, forced where it leads to anything, on its way. */
        void give(LiveInput input) {
            journal.add(input);
            int locks = live.engine().timesLocked();
            List<ToBroker> messages;
            try {
                messages = live.take(input);
            } catch (RuntimeException e) {
                throw new AssertionError(input + ": " + e, e);
            }
            if (!messages.isEmpty() || input instanceof LiveInput.Asked || live.engine().timesLocked() > locks) {
                forced = journal.size();
            }
            for (ToBroker message : messages) {
                if (message instanceof ToBroker.Place place) {
                    placed(place);
                }
                if (linked) {
                    up.add(message);
                }
            }
        }

        private void placed(ToBroker.Place place) {
            ToBroker.Place before = placed.put(place.name(), place);
            if (place.ticket().role() == Order.Role.ENTRY) {
                assertTrue(before == null, "an entry is sent once: " + place);
                assertTrue(!locked, "nothing is entered once it is locked: " + place);
            } else if (before != null) {
                assertEquals(before.ticket().role(), place.ticket().role());
            }
        }

        // -------------------------------------------------------------- the broker's side

        void delivers(int messages) {
            for (int n = messages; n > 0; n--) {
                ToBroker message = up.poll();
                if (message instanceof ToBroker.Place && dice.nextInt(25) == 0) {
                    broker.refuse(message, "no");
                    count(What.REFUSED);
                } else {
                    broker.take(message);
                }
                hears();
            }
        }

        /** The broker has told something: it is on its way, or will have to be asked for. */
        void hears() {
            for (FromBroker told : broker.told()) {
                reports.add(asClientsSee(told));
                if (linked) {
                    down.add(reports.size());
                }
            }
        }

        private FromBroker asClientsSee(FromBroker told) {
            boolean others = told.order().startsWith("elsewhere");
            switch (told) {
                case FromBroker.Filled fill -> {
                    fills.put(fill.execution(), fill);
                    paid += sign(fill.order()) * fill.quantity() * fill.price();
                }
                case FromBroker.Corrected back -> {
                    FromBroker.Filled of = fills.get(back.of());
                    paid -= sign(back.order()) * of.quantity() * of.price();
                    paid += back.quantity() == 0 ? 0 : sign(back.order()) * back.quantity() * back.price();
                    count(back.quantity() == 0 ? What.TAKEN_BACK : What.CORRECTED);
                    return told;
                }
                default -> {
                    // nothing that costs
                }
            }
            if (!others) {
                return told;
            }
            return told instanceof FromBroker.Filled fill
                    ? new FromBroker.Elsewhere(fill.order(), fill.execution(), sign(fill.order()) > 0,
                            fill.quantity(), fill.price(), fill.done(), fill.time())
                    : new FromBroker.Foreign(told.order(), "somebody's",
                            told instanceof FromBroker.Ended || told instanceof FromBroker.Refused, false);
        }

        private int sign(String order) {
            boolean buy = placed.containsKey(order) ? placed.get(order).ticket().buy() : buys.contains(order);
            return buy ? 1 : -1;
        }

        void somethingHappensThere() {
            switch (dice.nextInt(160)) {
                case 0 -> broker.takeBack(OptionalLong.empty());
                case 1 -> broker.takeBack(OptionalLong.of(dice.nextInt(-3, 4)));
                case 2 -> elsewhere();
                default -> {
                    return;
                }
            }
            hears();
        }

        private void elsewhere() {
            boolean buy = dice.nextBoolean();
            ToBroker.Place place = broker.orderElsewhere(buy, dice.nextInt(1, 3),
                    inputs.tape().price(0) + dice.nextInt(-20, 21));
            if (buy) {
                buys.add(place.name());
            }
            broker.take(place);
            count(What.ELSEWHERE);
        }

        // -------------------------------------------------------------- the client's side

        /** Some of the reports on their way arrive, some of them twice. */
        void arrives(int some) {
            List<FromBroker> heard = new ArrayList<>();
            for (int n = some; n > 0; n--) {
                int number = down.poll();
                if (number > taken) {
                    taken = number;
                    heard.add(reports.get(number - 1));
                    if (dice.nextInt(8) == 0) {
                        // the same message again: its number is known
                        count(What.TWICE);
                    }
                }
            }
            if (!heard.isEmpty()) {
                give(new LiveInput.Told(now, heard));
            }
            count(down.isEmpty() ? What.TWICE : What.LATE);
        }

        void breaks() {
            count(What.BREAK);
            int through = dice.nextInt(1 + up.size());
            delivers(through);
            if (!up.isEmpty()) {
                count(What.MESSAGE_LOST);
            }
            if (!down.isEmpty()) {
                count(What.REPORT_LOST);
            }
            up.clear();
            down.clear();
            linked = false;
            away = dice.nextInt(1, 30);
            give(new LiveInput.Linked(Optional.of(OutOfStep.LINK_LOST), false));
        }

        /** Killed; what the disk had not yet for certain may be gone. */
        void killed() {
            count(What.KILL);
            if (linked) {
                breaks();
            }
            int kept = forced + dice.nextInt(1 + journal.size() - forced);
            if (kept < journal.size()) {
                count(What.LOST_IN_THE_JOURNAL);
            }
            boolean was = locked();
            journal.subList(kept, journal.size()).clear();
            live = new LiveRun(start());
            journal.forEach(live::take);
            taken = journal.stream().mapToInt(World::reportsIn).sum();
            assertTrue(locked() || !was, "a lock holds over a kill");
            give(new LiveInput.Linked(Optional.of(OutOfStep.LINK_LOST), false));
            engage();
        }

        private static int reportsIn(LiveInput input) {
            return input instanceof LiveInput.Told told
                    ? (int) told.told().stream().filter(one -> !(one instanceof FromBroker.Status
                            || one instanceof FromBroker.Known || one instanceof FromBroker.NeverAccepted
                            || one instanceof FromBroker.Foreign foreign && foreign.listed())).count()
                    : 0;
        }

        boolean locked() {
            return live.engine().snapshot().account().lock().isPresent();
        }

        /** The link is there: missed reports, then every order, then what is in doubt, then the day goes on. */
        void links() {
            linked = true;
            up.clear();
            down.clear();
            if (resends) {
                for (int number = taken + 1; number <= reports.size(); number++) {
                    down.add(number);
                }
                while (!down.isEmpty()) {
                    arrives(down.size());
                }
            } else {
                missed();
            }
            for (String order : live.known()) {
                if (!broker.alive().contains(order)) {
                    // not among all orders that it names: asked about by its name
                    answered(order);
                }
            }
            List<String> doubted = live.unheard();
            if (!doubted.isEmpty() && dice.nextBoolean()) {
                // it takes so long that entries are cancelled, those in doubt too: a refusal of that settles nothing
                count(What.CANCELLED_IN_DOUBT);
                give(new LiveInput.Linked(Optional.of(OutOfStep.ORDERS_IN_DOUBT), true));
                delivers(up.size());
                arrives(down.size());
            }
            for (String order : live.unheard()) {
                count(What.DOUBT);
                answered(order);
            }
            give(new LiveInput.Again(now));
            give(new LiveInput.Linked(Optional.empty(), false));
        }

        /** A venue that sends nothing again: its reports are gone, but trades of others and corrections are told once more. */
        private void missed() {
            List<FromBroker> others = reports.subList(taken, reports.size()).stream()
                    .filter(one -> one instanceof FromBroker.Elsewhere || one instanceof FromBroker.Foreign).toList();
            List<FromBroker> corrections = reports.subList(taken, reports.size()).stream()
                    .filter(FromBroker.Corrected.class::isInstance).toList();
            if (!corrections.isEmpty()) {
                // it has to: a status says nothing of a price that was corrected
                for (int number = taken + 1; number <= reports.size(); number++) {
                    down.add(number);
                }
                while (!down.isEmpty()) {
                    arrives(down.size());
                }
                return;
            }
            taken = reports.size();
            if (!others.isEmpty()) {
                give(new LiveInput.Told(now, others));
            }
            for (String order : List.copyOf(placed.keySet())) {
                if (broker.status(order).isPresent()) {
                    status(order);
                }
            }
        }

        private void answered(String order) {
            if (broker.status(order).isPresent()) {
                status(order);
            } else {
                give(new LiveInput.Told(now, List.of(new FromBroker.NeverAccepted(order))));
            }
        }

        private void status(String order) {
            long before = live.engine().net();
            give(new LiveInput.Told(now, List.of(broker.status(order).orElseThrow())));
            if (live.engine().net() != before) {
                count(What.FROM_STATUS);
            }
        }

        // -------------------------------------------------------------- a day

        void all() {
            Tape tape = inputs.tape();
            int beat = 0;
            long[] beats = inputs.heartbeats();
            for (int print = 0; print < tape.count(); print++) {
                while (beat < beats.length && beats[beat] <= tape.time(print)) {
                    close(beats[beat++]);
                }
                now = tape.time(print);
                if (!linked && --away <= 0) {
                    links();
                }
                delivers(linked ? dice.nextInt(1 + up.size()) : 0);
                somethingHappensThere();
                broker.print(print);
                hears();
                boolean first = dice.nextBoolean();
                if (linked && first) {
                    arrives(dice.nextInt(1 + down.size()));
                }
                if (linked) {
                    give(new LiveInput.Print(now, tape.price(print), tape.size(print), tape.bid(print),
                            tape.ask(print), tape.bidSize(print), tape.askSize(print),
                            Optional.of(tape.aggressor(print)), List.of()));
                } else {
                    give(new LiveInput.Heartbeat(now, List.of()));
                }
                if (linked && !first) {
                    arrives(dice.nextInt(1 + down.size()));
                }
                if (linked && dice.nextInt(150) == 0) {
                    breaks();
                } else if (dice.nextInt(250) == 0) {
                    killed();
                } else if (print == tape.count() * 9 / 10 && dice.nextInt(4) == 0 && live.engine().inSession()) {
                    count(What.LOCKED);
                    give(new LiveInput.Asked(new Command.FlatAndLock()));
                    locked = true;
                }
                if (print % 97 == 96) {
                    quiet();
                }
            }
            quiet();
        }

        private void close(long at) {
            now = at;
            Optional<Session> ended = inputs.contract().calendar().before(at);
            if (ended.filter(session -> session.last() && session.close() == at).isPresent()) {
                broker.closeDay(at);
                hears();
                locked = false;
            }
            give(new LiveInput.Heartbeat(at, List.of()));
        }

        /** Everything arrives that is on its way, until nothing is: then both sides must agree. */
        private void quiet() {
            if (!linked) {
                links();
            }
            for (int round = 0; !(up.isEmpty() && down.isEmpty()); round++) {
                assertTrue(round < 1000, "it comes to rest");
                delivers(up.size());
                arrives(down.size());
            }
            assertEquals(live.engine().net(), broker.net(), "contracts");
            long ours = live.engine().log().fills().stream().mapToLong(World::cost).sum();
            assertEquals(ours, paid, "money");
            assertEquals(live.unheard(), List.of(), "in doubt");
            Set<String> alive = new HashSet<>(broker.alive());
            live.known().forEach(order -> assertTrue(alive.contains(order), order + " is alive here alone"));
            Snapshot snapshot = live.engine().snapshot();
            if (!live.engine().stopMissing()) {
                snapshot.strategies().forEach(strategy -> strategy.position()
                        .filter(position -> position.stop().isPresent() && !position.leaving())
                        .ifPresent(position -> guarded(snapshot, strategy.index(), position.open())));
            } else {
                count(What.STOP_GONE);
            }
        }

        /** The story of an order that a sentence begins with, and everything but prints of late. */
        String about(String sentence) {
            String order = String.valueOf(sentence).split(" ")[0];
            StringBuilder story = new StringBuilder("\n");
            if (placed.containsKey(order)) {
                story.append(placed.get(order)).append("\nat the broker ").append(broker.status(order)).append('\n');
                journal.stream().map(Object::toString).filter(line -> line.contains(order + ",")
                        || line.contains(order + "]")).forEach(line -> story.append(line).append('\n'));
            }
            List<LiveInput> told = journal.stream().filter(input -> !(input instanceof LiveInput.Print
                    || input instanceof LiveInput.Heartbeat)).toList();
            told.subList(Math.max(0, told.size() - 25), told.size()).forEach(one -> story.append(one).append('\n'));
            placed.values().stream().sorted(java.util.Comparator.comparingLong(ToBroker.Place::time)).toList()
                    .reversed()
                    .stream().limit(4).forEach(one -> story.append(one).append('\n'));
            return story.append(live.contradictions()).toString();
        }

        private static long cost(Fill fill) {
            return (fill.buy() ? 1L : -1L) * fill.quantity() * fill.price();
        }

        private static void guarded(Snapshot snapshot, int strategy, int open) {
            int stops = snapshot.orders().stream().filter(order -> order.role() == Order.Role.STOP
                    && order.owner().equals(new stativex.order.Owner.Strategy(strategy)))
                    .mapToInt(Snapshot.OrderView::rest).sum();
            assertEquals(stops, open, "its stop is for all that is open");
        }
    }

    @Test
    public void nothingIsLostOrDoubledOnThem() {
        Map<What, Integer> seen = new EnumMap<>(What.class);
        int fills = 0;
        for (long seed = 1; seed <= DAYS; seed++) {
            World world = new World(seed, seen);
            try {
                world.all();
            } catch (AssertionError | RuntimeException e) {
                throw new AssertionError("day " + seed + ", input " + world.journal.size() + ": " + e.getMessage()
                        + world.about(e.getMessage()), e);
            }
            fills += world.fills.size();
        }
        for (What what : What.values()) {
            assertTrue(seen.getOrDefault(what, 0) > DAYS / 60, what + ": " + seen);
        }
        assertTrue(fills > 10 * DAYS, fills + " fills");
    }
}
