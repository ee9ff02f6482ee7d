package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.stream.Stream;
import org.testng.annotations.Test;
import stativex.account.AccountState;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Engine;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.interlock.OutOfStep;
import stativex.interlock.Refusal;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.FromBroker;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Realism;
import stativex.order.SimulatedBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;

/**
 * A live day at a simulated broker that keeps step gives what a trial of the same tape gives: engine and broker share no order, only
 * messages. Source: SEMANTICS, "Same engine everywhere".
 */
public class LiveRunTest {
    /** Fewer only where the tests themselves are tried on planted faults. */
    private static final int TAPES = Math.min(2000, 2 * Integer.getInteger("stativex.twin.tapes", 1000));

    /** Both ends, and all that went in. */
    private static final class Day {
        final Inputs inputs;
        final LiveRun live;
        final SimulatedBroker broker;
        final List<LiveInput> inputsSoFar = new ArrayList<>();
        final List<ToBroker> sent = new ArrayList<>();
        private Optional<Session> session = Optional.empty();

        Day(Inputs inputs) {
            this.inputs = inputs;
            this.live = new LiveRun(start(inputs));
            this.broker = new SimulatedBroker(inputs.tape(), inputs.contract(), inputs.terms());
            for (int i = 0; i < inputs.strategies().size(); i++) {
                give(new LiveInput.Asked(new Command.SetMode(i, Mode.ENGAGED)));
            }
        }

        /** Likewise. */
        static List<ToBroker> worked(LiveRun live, LiveInput input) {
            try {
                return live.take(input);
            } catch (RuntimeException e) {
                throw new AssertionError(input + ": " + e, e);
            }
        }

        static LiveRun.Start start(Inputs inputs) {
            return new LiveRun.Start(inputs.contract(), inputs.account(), inputs.strategies(),
                    new TapeBuilder(1).build(), inputs.days().first(), AccountState.fresh(inputs.account()), "test");
        }

        void give(LiveInput input) {
            inputsSoFar.add(input);
            List<ToBroker> messages = worked(live, input);
            sent.addAll(messages);
            messages.forEach(broker::take);
        }

        /** The whole day; whatever cannot be worked is a failure of what is tested here. */
        void all() {
            try {
                everything();
            } catch (RuntimeException e) {
                throw new AssertionError(e.toString(), e);
            }
        }

        private void everything() {
            Tape tape = inputs.tape();
            int beat = 0;
            long[] beats = inputs.heartbeats();
            for (int print = 0; print <= tape.count(); print++) {
                while (beat < beats.length && (print == tape.count() || beats[beat] <= tape.time(print))) {
                    close(beats[beat++]);
                }
                if (print < tape.count()) {
                    open(tape.time(print));
                    // what the broker refuses at once is told with what comes next
                    broker.print(print);
                    give(print(tape, print, broker.told()));
                }
            }
            live.engine().finish();
        }

        /** The first print of a session comes: its open was before it. */
        private void open(long time) {
            Optional<Session> now = inputs.contract().calendar().current(time).filter(s -> s.contains(time));
            if (now.isPresent() && !now.equals(session)) {
                session = now;
                give(new LiveInput.Heartbeat(now.get().open(), broker.told()));
            }
        }

        private void close(long at) {
            Optional<Session> ended = inputs.contract().calendar().before(at);
            if (ended.filter(session -> session.last() && session.close() == at).isPresent()) {
                broker.closeDay(at);
            }
            give(new LiveInput.Heartbeat(at, broker.told()));
        }
    }

    private static LiveInput.Print print(Tape tape, int print, List<FromBroker> told) {
        return new LiveInput.Print(tape.time(print), tape.price(print), tape.size(print), tape.bid(print),
                tape.ask(print), tape.bidSize(print), tape.askSize(print), Optional.of(tape.aggressor(print)), told);
    }

    static Inputs random(long seed) {
        SplittableRandom dice = new SplittableRandom(seed);
        List<Strategy> strategies = new ArrayList<>();
        strategies.add(RandomDay.strategy(dice, "Ebb fade"));
        if (dice.nextInt(3) == 0) {
            strategies.add(RandomDay.strategy(dice, "Slack water"));
        }
        return Inputs.of(RandomDay.tape(dice), Given.contract(dice.nextInt(3)), RandomDay.account(dice), strategies,
                new Terms(dice.nextBoolean() ? Realism.THROUGH : Realism.TOUCH,
                        dice.nextBoolean() ? 0 : dice.nextLong(20 * Given.SECOND)));
    }

    /** Whether a live day has to differ: an entry whose bars are over stays until the broker says so, and nothing is assumed. */
    private static boolean differs(Inputs inputs, Run trial) {
        FillReason assumed = new FillReason.Left(LeaveReason.ASSUMED_AT_SESSION_END);
        return inputs.days().last().isPresent() || !inputs.rolls().legs().isEmpty()
                || inputs.strategies().stream().anyMatch(LiveRunTest::counts)
                || trial.engine().log().fills().stream().anyMatch(fill -> fill.reason().equals(assumed));
    }

    private static boolean counts(Strategy strategy) {
        return Stream.of(Side.values())
                .anyMatch(side -> strategy.entry(side).goodFor() instanceof Strategy.GoodFor.Bars);
    }

    /** What a session's open brings is decided before its first print comes, in a trial with that print. */
    private static List<String> all(Engine engine) {
        return RandomDay.all(engine).stream().filter(line -> !line.startsWith("outside")).map(
                line -> line.startsWith("Decision") ? line.replaceFirst("print=[0-9-]+", "") : line).toList();
    }

    /** Line by line, so that the first difference is said. */
    private static void same(List<String> live, List<String> trial, String where) {
        for (int i = 0; i < Math.min(live.size(), trial.size()); i++) {
            assertEquals(live.get(i), trial.get(i), where + ", row " + i);
        }
        assertEquals(live.size(), trial.size(), where);
    }

    @Test
    public void aDayInStepIsTheTrialOfItsTape() {
        int trades = 0;
        int days = 0;
        for (long seed = 1; seed <= TAPES; seed++) {
            Inputs inputs = seed % 2 == 0 ? random(seed) : TwinTest.random(seed);
            Run trial = Run.trial(inputs);
            if (differs(inputs, trial)) {
                continue;
            }
            Day day = new Day(inputs);
            day.all();
            String where = "seed " + seed;
            assertEquals(day.live.contradictions(), List.of(), where);
            same(all(day.live.engine()), all(trial.engine()), where);
            assertEquals(day.live.tape().checksum(), inputs.tape().checksum(), where);
            trades += trial.engine().log().trades().size();
            days++;
        }
        assertTrue(days > TAPES / 4 && trades > 2 * days, days + " days, " + trades + " trades");
    }

    /** Out of step nothing is entered, and the reason is said; what rested too long meanwhile is cancelled. */
    @Test
    public void nothingIsEnteredOutOfStep() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.type = Order.Type.STOP;
        draft.longSide = Optional.of(Given.rule("close > open", "close + 50 ticks"));
        Inputs inputs = Inputs.of(Given.tape(Given.at(0, "01:00:00"), 1000, 1001, 1002, 1003, 1004, 1005, 1006, 1007),
                Given.contract(0), Given.account(), List.of(draft.build()), Terms.DEFAULT);
        LiveRun live = new LiveRun(Day.start(inputs));
        live.take(new LiveInput.Asked(new Command.SetMode(0, Mode.ENGAGED)));
        live.take(new LiveInput.Linked(Optional.of(OutOfStep.LINK_LOST), false));
        for (int print = 0; print < 2; print++) {
            assertEquals(live.take(print(inputs.tape(), print, List.of())), List.of());
        }
        assertEquals(outcomes(live), List.of(new Decision.Declined(new Refusal.NotConnected(OutOfStep.LINK_LOST))));
        live.take(new LiveInput.Linked(Optional.empty(), false));
        List<ToBroker> sent = new ArrayList<>();
        for (int print = 2; print < 4; print++) {
            sent.addAll(live.take(print(inputs.tape(), print, List.of())));
        }
        assertEquals(sent.size(), 1, "in step again it enters");
        live.take(new LiveInput.Linked(Optional.of(OutOfStep.ORDERS_IN_DOUBT), false));
        List<ToBroker> after = live.take(new LiveInput.Linked(Optional.empty(), true));
        assertTrue(after.size() == 1 && after.getFirst() instanceof ToBroker.Cancel cancel
                && cancel.order().equals(sent.getFirst().name()), after + "");
        // the broker does not know it: an entry is not sent again
        assertEquals(live.unheard(), List.of(sent.getFirst().name()));
        assertEquals(live.take(new LiveInput.Told(Given.at(0, "01:00:04"),
                List.of(new FromBroker.NeverAccepted(sent.getFirst().name())))), List.of());
        assertTrue(outcomes(live).getLast() instanceof Decision.Rejected, outcomes(live) + "");
    }

    private static List<Decision.Outcome> outcomes(LiveRun live) {
        return live.engine().log().decisions().stream().map(Decision::outcome).toList();
    }

    /** After a kill at any input, another one that is given what went in comes to the same, and names its messages alike. */
    @Test
    public void whatWentInIsTheWholeState() {
        for (long seed = 1; seed <= TAPES / 10; seed++) {
            Day day = new Day(random(seed));
            day.all();
            LiveRun again = new LiveRun(Day.start(day.inputs));
            List<ToBroker> sent = new ArrayList<>();
            day.inputsSoFar.forEach(input -> sent.addAll(again.take(input)));
            assertEquals(sent, day.sent, "seed " + seed);
            again.engine().finish();
            same(RandomDay.all(again.engine()), RandomDay.all(day.live.engine()), "seed " + seed);
        }
    }

    /**
     * Messages and reports take their time, and some reports come twice: nothing is lost, doubled or made up, and in the end both sides
     * hold the same.
     */
    @Test
    public void whenNobodyKeepsStepBothSidesStillAgree() {
        int fills = 0;
        for (long seed = 1; seed <= TAPES / 2; seed++) {
            Inputs inputs = seed % 2 == 0 ? random(seed) : TwinTest.random(seed);
            SplittableRandom dice = new SplittableRandom(-seed);
            LiveRun live = new LiveRun(Day.start(inputs));
            SimulatedBroker broker = new SimulatedBroker(inputs.tape(), inputs.contract(), inputs.terms());
            ArrayDeque<ToBroker> up = new ArrayDeque<>();
            ArrayDeque<FromBroker> down = new ArrayDeque<>();
            List<FromBroker.Filled> executed = new ArrayList<>();
            for (int i = 0; i < inputs.strategies().size(); i++) {
                up.addAll(live.take(new LiveInput.Asked(new Command.SetMode(i, Mode.ENGAGED))));
            }
            Tape tape = inputs.tape();
            for (int print = 0; print < tape.count() + 40; print++) {
                boolean over = print >= tape.count();
                long now = tape.time(Math.min(print, tape.count() - 1));
                for (int n = over ? up.size() : dice.nextInt(1 + up.size()); n > 0; n--) {
                    broker.take(up.poll());
                }
                if (!over) {
                    broker.print(print);
                }
                for (FromBroker told : broker.told()) {
                    down.add(told);
                    if (told instanceof FromBroker.Filled filled) {
                        executed.add(filled);
                    }
                }
                List<FromBroker> heard = new ArrayList<>();
                for (int n = over ? down.size() : dice.nextInt(1 + down.size()); n > 0; n--) {
                    FromBroker told = down.poll();
                    heard.add(told);
                    if (told instanceof FromBroker.Filled && dice.nextInt(5) == 0) {
                        heard.add(told);
                    }
                }
                if (!over && dice.nextBoolean()) {
                    up.addAll(Day.worked(live, print(tape, print, List.of())));
                    up.addAll(Day.worked(live, new LiveInput.Told(now, heard)));
                } else {
                    // it hears of a fill before the print that made it
                    up.addAll(Day.worked(live, new LiveInput.Told(now, heard)));
                    if (!over) {
                        up.addAll(Day.worked(live, print(tape, print, List.of())));
                    }
                }
            }
            String where = "seed " + seed;
            assertEquals(live.contradictions(), List.of(), where);
            assertEquals(live.engine().net(), broker.net(), where);
            List<Fill> booked = live.engine().log().fills();
            assertEquals(booked.size(), executed.size(), where);
            for (int i = 0; i < booked.size(); i++) {
                assertEquals(booked.get(i).price(), executed.get(i).price(), where);
                assertEquals(booked.get(i).quantity(), executed.get(i).quantity(), where);
                assertEquals(booked.get(i).time(), executed.get(i).time(), where);
            }
            fills += booked.size();
        }
        assertTrue(fills > TAPES, fills + " fills");
    }
}
