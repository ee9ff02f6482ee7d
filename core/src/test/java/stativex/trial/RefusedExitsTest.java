package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.account.AccountState;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.interlock.OutOfStep;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.FillReason;
import stativex.order.FromBroker;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.SimulatedBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;

/** A broker that refuses exits: the stop is sent again, or the position leaves. Source: SEMANTICS, "Live". */
public class RefusedExitsTest {
    private LiveRun live;
    private final List<ToBroker.Place> sent = new ArrayList<>();
    private long now;
    private int executions;

    /** Long 1 at 1003 with a stop of 8 ticks and a target of 20, both sent and not answered. */
    @BeforeMethod
    public void aLong() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.plan = Given.plan(8, Given.target(1, 20));
        Inputs inputs = Inputs.of(Given.tape(Given.at(0, "01:00:00"), 1000), Given.contract(0), Given.account(),
                List.of(draft.build()), Terms.DEFAULT);
        live = new LiveRun(new LiveRun.Start(inputs.contract(), inputs.account(), inputs.strategies(),
                new TapeBuilder(1).build(), Optional.empty(), AccountState.fresh(inputs.account()), "test"));
        sent.clear();
        executions = 0;
        now = Given.at(0, "01:00:00");
        live.take(new LiveInput.Asked(new Command.SetMode(0, Mode.ENGAGED)));
        for (long price = 1000; sent.isEmpty(); price++) {
            print(price);
        }
        told(new FromBroker.Working(last().name()));
        told(new FromBroker.Filled(last().name(), "x" + ++executions, 1, 1003, 1, true, 0, now));
        assertEquals(sent.stream().map(place -> place.ticket().role()).toList(),
                List.of(Order.Role.ENTRY, Order.Role.STOP, Order.Role.TARGET));
    }

    private void take(LiveInput input) {
        for (ToBroker message : live.take(input)) {
            if (message instanceof ToBroker.Place place) {
                sent.add(place);
            }
        }
    }

    private void print(long price) {
        now += Given.SECOND / 10;
        take(new LiveInput.Print(now, price, 1, Tape.NONE, Tape.NONE, Tape.NONE, Tape.NONE, Optional.empty(),
                List.of()));
    }

    private void told(FromBroker report) {
        take(new LiveInput.Told(now, List.of(report)));
    }

    private void beat(long millis) {
        now += millis * 1_000_000;
        take(new LiveInput.Heartbeat(now, List.of()));
    }

    private ToBroker.Place last() {
        return sent.getLast();
    }

    private ToBroker.Place of(Order.Role role) {
        return sent.stream().filter(place -> place.ticket().role() == role).toList().getLast();
    }

    private long count(Order.Role role) {
        return sent.stream().filter(place -> place.ticket().role() == role).count();
    }

    private void refuse(Order.Role role) {
        told(new FromBroker.Refused(of(role).name(), "no"));
    }

    @Test
    public void aRefusedStopIsSentAgainAtOnceUnderAnotherName() {
        String first = of(Order.Role.STOP).name();
        refuse(Order.Role.STOP);
        assertEquals(count(Order.Role.STOP), 2);
        assertEquals(of(Order.Role.STOP).ticket().price(), 995);
        assertFalse(of(Order.Role.STOP).name().equals(first));
        assertTrue(live.engine().stopMissing());
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        assertFalse(live.engine().stopMissing());
        beat(60_000);
        assertEquals(count(Order.Role.STOP), 2);
        assertEquals(count(Order.Role.LEAVE), 0);
    }

    @Test
    public void refusedAgainItIsTriedAfterASecondAndTwoAndThePositionLeavesAfterFive() {
        refuse(Order.Role.STOP);
        refuse(Order.Role.STOP);
        assertEquals(count(Order.Role.STOP), 2, "not at once again");
        beat(999);
        assertEquals(count(Order.Role.STOP), 2);
        beat(1);
        assertEquals(count(Order.Role.STOP), 3);
        refuse(Order.Role.STOP);
        beat(1_999);
        assertEquals(count(Order.Role.STOP), 3);
        beat(1);
        assertEquals(count(Order.Role.STOP), 4);
        refuse(Order.Role.STOP);
        beat(1_999);
        assertEquals(count(Order.Role.LEAVE), 0);
        beat(1);
        assertEquals(count(Order.Role.LEAVE), 1, "five seconds after it was refused first");
        told(new FromBroker.Filled(last().name(), "x" + ++executions, 1, 1001, 1, true, 0, now));
        assertEquals(live.engine().log().trades().getFirst().exitReason(),
                Optional.of(new FillReason.Left(LeaveReason.STOP_MISSING)));
    }

    @Test
    public void aStopThatNobodyAnswersForFiveSecondsAfterOneWasRefusedLeaves() {
        refuse(Order.Role.STOP);
        beat(4_999);
        assertEquals(count(Order.Role.LEAVE), 0);
        beat(1);
        assertEquals(count(Order.Role.LEAVE), 1);
    }

    @Test
    public void aStopWhoseLevelIsReachedIsNotSentAgain() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        print(995);
        assertEquals(count(Order.Role.LEAVE), 0, "the broker's stop is there");
        told(new FromBroker.Ended(of(Order.Role.STOP).name()));
        assertEquals(count(Order.Role.STOP), 1);
        assertEquals(count(Order.Role.LEAVE), 1);
    }

    @Test
    public void aStopThatTheBrokerCancelsIsSentAgain() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        told(new FromBroker.Ended(of(Order.Role.STOP).name()));
        assertEquals(count(Order.Role.STOP), 2);
    }

    @Test
    public void aRefusedTargetIsOfferedAgainAfterASecondAndTwoAndFour() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        for (int wait : new int[]{1, 2, 4, 8, 16, 30, 30}) {
            long before = count(Order.Role.TARGET);
            refuse(Order.Role.TARGET);
            beat(1000 * wait - 1);
            assertEquals(count(Order.Role.TARGET), before, wait + " s");
            beat(1);
            assertEquals(count(Order.Role.TARGET), before + 1, wait + " s");
        }
        assertEquals(of(Order.Role.TARGET).ticket().price(), 1023);
        assertEquals(count(Order.Role.LEAVE), 0);
    }

    @Test
    public void aTargetThatThePersonEndsIsNotOfferedAgain() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        told(new FromBroker.Working(of(Order.Role.TARGET).name()));
        take(new LiveInput.Asked(new Command.Cancel(live.engine().snapshot().orders().stream()
                .filter(order -> order.role() == Order.Role.TARGET).findFirst().orElseThrow().number())));
        told(new FromBroker.Ended(of(Order.Role.TARGET).name()));
        beat(60_000);
        assertEquals(count(Order.Role.TARGET), 1);
    }

    // ------------------------------------------------------------------ what was traded elsewhere

    private List<String> fills() {
        return live.engine().log().fills().stream()
                .map(fill -> (fill.buy() ? "+" : "-") + fill.quantity() + " at " + fill.price()).toList();
    }

    @Test
    public void whatTheBrokerHoldsBeyondWhatIsCountedBecomesThePersons() {
        int before = sent.size();
        take(new LiveInput.Asked(new Command.Adopt(2, 1001)));
        assertEquals(live.engine().net(), 3);
        assertEquals(fills(), List.of("+1 at 1003", "+2 at 1001"));
        assertEquals(sent.size(), before, "nothing is sent");
        assertEquals(live.engine().snapshot().hand().position().orElseThrow().open(), 2);
        // fewer at the broker: what the person has closes first, the rest is theirs on the other side
        take(new LiveInput.Asked(new Command.Adopt(-3, 1000)));
        assertEquals(live.engine().net(), 0);
        assertEquals(fills().subList(2, 4), List.of("-2 at 1000", "-1 at 1000"));
        assertEquals(live.engine().log().trades().getFirst().exitReason(),
                Optional.of(new FillReason.Left(LeaveReason.BROKERS_CORRECTION)));
        assertEquals(live.engine().snapshot().hand().position().orElseThrow().side(), stativex.market.Side.SHORT);
        assertEquals(sent.size(), before);
    }

    /** What was cancelled and changed since, in order: an order's role, with what it is for now. */
    private List<String> cuts(LiveInput input) {
        List<String> cuts = new ArrayList<>();
        for (ToBroker message : live.take(input)) {
            if (message instanceof ToBroker.Place place) {
                sent.add(place);
            }
            String role = sent.stream().filter(place -> place.name().equals(message.order())).findFirst().orElseThrow()
                    .ticket().role().toString();
            cuts.add(role + switch (message) {
                case ToBroker.Cancel ignored -> " ends";
                case ToBroker.Resize resize -> " of " + resize.quantity();
                case ToBroker.Place place -> " for " + place.ticket().quantity();
                default -> " " + message;
            });
        }
        return cuts;
    }

    @Test
    public void anExitOfWhatTheBrokerDoesNotHaveIsCutTargetsFirst() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        told(new FromBroker.Working(of(Order.Role.TARGET).name()));
        assertEquals(cuts(new LiveInput.Holds(0)), List.of("TARGET ends", "STOP ends"));
        told(new FromBroker.Ended(of(Order.Role.TARGET).name()));
        told(new FromBroker.Ended(of(Order.Role.STOP).name()));
        beat(60_000);
        print(1002);
        assertEquals(count(Order.Role.STOP), 1, "it is not sent again");
        assertFalse(live.engine().stopMissing());
        assertEquals(cuts(new LiveInput.Asked(new Command.Flatten(0))), List.of(), "nothing leaves that is not there");
        print(1002);
        assertEquals(count(Order.Role.LEAVE), 0);
        // the broker has it again: the stop is sent, and it leaves as it was asked to
        assertEquals(cuts(new LiveInput.Holds(1)), List.of("STOP for 1"));
        print(1002);
        assertEquals(count(Order.Role.LEAVE), 1);
    }

    @Test
    public void aPartThatIsMissingLeavesTheRestGuarded() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        take(new LiveInput.Asked(new Command.Adopt(2, 1003)));
        assertEquals(live.engine().net(), 3);
        // the person's contracts are cut first: they have no exits
        assertEquals(cuts(new LiveInput.Holds(1)), List.of());
        assertEquals(cuts(new LiveInput.Holds(0)), List.of("TARGET ends", "STOP ends"));
        // given back before the broker has answered: it ends all the same, and is sent again
        assertEquals(cuts(new LiveInput.Holds(3)), List.of("STOP of 1"));
        assertEquals(cuts(new LiveInput.Told(now, List.of(new FromBroker.Ended(of(Order.Role.STOP).name())))),
                List.of("STOP for 1"));
        // more at the broker than is counted enlarges nothing
        assertEquals(cuts(new LiveInput.Holds(5)), List.of());
    }

    @Test
    public void takingWhatIsMissingAsOnesOwnGivesTheStopBack() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        take(new LiveInput.Holds(0));
        told(new FromBroker.Ended(of(Order.Role.STOP).name()));
        take(new LiveInput.Asked(new Command.Adopt(-1, 1002)));
        assertEquals(live.engine().net(), 0);
        assertEquals(cuts(new LiveInput.Holds(0)), List.of("STOP for 1"));
    }

    @Test
    public void whatThePersonTookOverAStrategyGuardsWithItsPlan() {
        take(new LiveInput.Asked(new Command.Flatten(0)));
        told(new FromBroker.Filled(last().name(), "x" + ++executions, 1, 1001, 1, true, 0, now));
        take(new LiveInput.Asked(new Command.Adopt(1, 1001)));
        take(new LiveInput.Asked(new Command.HandOver(Owner.PERSON, new Owner.Strategy(0))));
        assertEquals(sent.stream().skip(sent.size() - 2).map(place -> place.ticket().role()).toList(),
                List.of(Order.Role.STOP, Order.Role.TARGET));
        assertEquals(of(Order.Role.STOP).ticket().price(), 993);
        assertEquals(of(Order.Role.STOP).group(), of(Order.Role.STOP).name(), "a group of its own");
        assertEquals(of(Order.Role.TARGET).group(), of(Order.Role.STOP).name());
    }

    @Test
    public void aBrokerLetsAGroupThatBeginsWithAStopGuardWhatWasEnteredElsewhere() {
        Tape tape = Given.tape(Given.at(0, "01:00:00"), 1000, 1000, 990, 990);
        SimulatedBroker broker = new SimulatedBroker(tape, Given.contract(0), Terms.DEFAULT);
        broker.print(0);
        broker.take(new ToBroker.Place("s", new ToBroker.Ticket(false, Order.Type.STOP, 2, 992, 0,
                Order.GoodFor.UNTIL_CANCELLED, Order.Role.STOP, false), "s", "", tape.time(0)));
        broker.take(new ToBroker.Place("t", new ToBroker.Ticket(false, Order.Type.LIMIT, 1, 1020, 0,
                Order.GoodFor.UNTIL_CANCELLED, Order.Role.TARGET, false), "s", "", tape.time(0)));
        broker.print(1);
        broker.print(2);
        broker.print(3);
        List<String> told = broker.told().stream().map(FromBroker::toString).toList();
        assertEquals(broker.net(), -2, told + "");
        assertTrue(told.contains("Ended[order=t]"), told + "");
    }

    /** A broker that ends a leave at once must not be sent another one as often as anything happens. */
    @Test
    public void aLeaveThatTheBrokerEndsWaitsLikeOneThatItRefuses() {
        refuse(Order.Role.STOP);
        refuse(Order.Role.STOP);
        print(994);
        assertEquals(count(Order.Role.LEAVE), 1, "its level is reached: stop missing");
        for (int i = 0; i < 5; i++) {
            told(new FromBroker.Ended(last().name()));
            print(994);
        }
        assertEquals(count(Order.Role.LEAVE), 1);
        beat(1_000);
        assertEquals(count(Order.Role.LEAVE), 2);
        assertEquals(last().group(), last().name(), "the group there is over, it begins one anew");
        told(new FromBroker.Ended(last().name()));
        beat(1_900);
        assertEquals(count(Order.Role.LEAVE), 2);
        beat(100);
        assertEquals(count(Order.Role.LEAVE), 3);
        told(new FromBroker.Filled(last().name(), "x" + ++executions, 1, 994, 1, true, 0, now));
        assertEquals(live.engine().net(), 0);
    }

    /**
     * The link is away when everything is to leave, and still when the session ends: it is locked at once, and what leaves is the first
     * thing that is sent, when a session is open again.
     */
    @Test
    public void aFlattenThatTheBrokerNeverHeardOfLeavesInALaterSession() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        told(new FromBroker.Working(of(Order.Role.TARGET).name()));
        take(new LiveInput.Linked(Optional.of(OutOfStep.LINK_LOST), false));
        take(new LiveInput.Asked(new Command.FlatAndLock()));
        String leave = of(Order.Role.LEAVE).name();
        assertTrue(live.engine().snapshot().account().lock().isPresent(), "at once");
        now = Given.at(0, "05:00:00");
        beat(0);
        assertEquals(live.engine().net(), 1, "nothing is assumed");
        // back while no session is open: the broker has never heard of it, and refuses it now
        sent.clear();
        told(new FromBroker.NeverAccepted(leave));
        assertEquals(last().name(), leave);
        take(new LiveInput.Again(now));
        take(new LiveInput.Linked(Optional.empty(), false));
        refuse(Order.Role.LEAVE);
        sent.clear();
        beat(600_000);
        assertEquals(sent, List.of(), "nothing is sent while no session is open");
        now = Given.at(1, "01:00:00");
        beat(0);
        print(1001);
        assertEquals(sent.getFirst().ticket().role(), Order.Role.LEAVE, "the first thing that is sent");
        assertEquals(count(Order.Role.LEAVE), 1);
        told(new FromBroker.Filled(last().name(), "x" + ++executions, 1, 1001, 1, true, 0, now));
        assertEquals(live.engine().net(), 0);
    }

    @Test
    public void aRefusedLeaveIsTriedAgain() {
        told(new FromBroker.Working(of(Order.Role.STOP).name()));
        take(new LiveInput.Asked(new Command.Flatten(0)));
        assertEquals(count(Order.Role.LEAVE), 1);
        refuse(Order.Role.LEAVE);
        beat(999);
        assertEquals(count(Order.Role.LEAVE), 1);
        beat(1);
        assertEquals(count(Order.Role.LEAVE), 2);
        assertTrue(last().ticket().everything());
        refuse(Order.Role.LEAVE);
        beat(2_000);
        assertEquals(count(Order.Role.LEAVE), 3);
        told(new FromBroker.Filled(last().name(), "x" + ++executions, 1, 1001, 1, true, 0, now));
        assertEquals(live.engine().net(), 0);
        beat(60_000);
        assertEquals(count(Order.Role.LEAVE), 3);
    }
}
