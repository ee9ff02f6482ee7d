package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.account.AccountState;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.FromBroker;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Terms;
import stativex.order.ToBroker;

/**
 * Fills that do not fit what stands: known from a status alone, taken back by the broker, of an order that counts as over, more than was
 * open, of somebody else's order. What is held is always what the broker says. Source: SEMANTICS, "Live": reports.
 */
public class OddFillsTest {
    private LiveRun live;
    private final List<ToBroker> sent = new ArrayList<>();
    private long now;
    private int executions;
    private String entry;

    /** An order to buy 3 at the market was sent at 1003, and works; its plan has a stop of 8 ticks and a target of 20 for one. */
    @BeforeMethod
    public void anEntry() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.plan = Given.plan(8, Given.target(1, 20));
        draft.quantity = 3;
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
        entry = ((ToBroker.Place) sent.getFirst()).name();
        live.take(new LiveInput.Asked(new Command.SetMode(0, Mode.OFF)));
        told(new FromBroker.Working(entry));
    }

    private void take(LiveInput input) {
        sent.addAll(live.take(input));
    }

    private void print(long price) {
        now += Given.SECOND / 10;
        take(new LiveInput.Print(now, price, 1, Tape.NONE, Tape.NONE, Tape.NONE, Tape.NONE, Optional.empty(),
                List.of()));
    }

    private void told(FromBroker report) {
        take(new LiveInput.Told(now, List.of(report)));
    }

    private String fills(String order, int quantity, long price, int cumulative, int of) {
        String execution = "x" + ++executions;
        told(new FromBroker.Filled(order, execution, quantity, price, cumulative, cumulative == of, 0, now));
        return execution;
    }

    private void takenBack(String order, String execution, int cumulative) {
        told(new FromBroker.Corrected(order, "c" + ++executions, execution, 0, Tape.NONE, cumulative, 0, now));
    }

    private List<String> fills() {
        return live.engine().log().fills().stream().map(fill -> (fill.buy() ? "+" : "-") + fill.quantity() + "@"
                + fill.price() + (fill.execution().fromStatus() ? " from status" : "")).toList();
    }

    private ToBroker.Place last(Order.Role role) {
        return sent.stream().filter(ToBroker.Place.class::isInstance).map(ToBroker.Place.class::cast)
                .filter(place -> place.ticket().role() == role).toList().getLast();
    }

    private long persons() {
        return live.engine().snapshot().hand().position().map(p -> p.side().sign() * (long) p.open()).orElse(0L);
    }

    private long strategys() {
        return live.engine().snapshot().strategies().getFirst().position()
                .map(p -> p.side().sign() * (long) p.open()).orElse(0L);
    }

    /** Contracts that the newest stop is for, as it was last asked to be. */
    private int guarded() {
        ToBroker.Place stop = last(Order.Role.STOP);
        int quantity = stop.ticket().quantity();
        for (ToBroker message : sent) {
            if (message instanceof ToBroker.Resize resize && resize.order().equals(stop.name())) {
                quantity = resize.quantity();
            } else if (message instanceof ToBroker.Cancel cancel && cancel.order().equals(stop.name())) {
                quantity = 0;
            }
        }
        return quantity;
    }

    // ------------------------------------------------------------------ from a status

    @Test
    public void aStatusWithMoreFilledIsOneFillAtThePriceThatMakesTheAveragesAgree() {
        fills(entry, 1, 1003, 1, 3);
        // 2 more; the average of all 3 is 1005: the two others were at 1006 on average
        told(new FromBroker.Status(entry, 3, 3 * 1005, true));
        assertEquals(fills(), List.of("+1@1003", "+2@1006 from status"));
        assertEquals(live.engine().net(), 3);
        // the broker's own group keeps the stop for all that is open
        assertEquals(last(Order.Role.STOP).ticket().price(), 995);
        // the reports come after all: they count for what exceeds what stands, which is nothing
        fills(entry, 1, 1005, 2, 3);
        fills(entry, 1, 1007, 3, 3);
        assertEquals(live.engine().net(), 3);
        assertEquals(live.contradictions(), List.of());
    }

    @Test
    public void whereNoWholeTickMakesThemAgreeItIsTwoFillsAtTheTicksBeside() {
        told(new FromBroker.Status(entry, 3, 1003 + 1004 + 1004, true));
        assertEquals(fills(), List.of("+1@1003 from status", "+2@1004 from status"));
        assertEquals(live.engine().net(), 3);
    }

    @Test
    public void aLaterReportCountsForWhatExceedsTheStatus() {
        told(new FromBroker.Status(entry, 1, 1003, false));
        fills(entry, 2, 1004, 2, 3);
        assertEquals(fills(), List.of("+1@1003 from status", "+1@1004"));
        fills(entry, 1, 1005, 3, 3);
        assertEquals(live.engine().net(), 3);
    }

    @Test
    public void aStatusSaysThatAnOrderHasEnded() {
        told(new FromBroker.Status(entry, 1, 1003, true));
        assertEquals(live.engine().net(), 1);
        assertTrue(live.engine().snapshot().orders().stream().noneMatch(order -> order.role() == Order.Role.ENTRY),
                "nothing rests any more");
        told(new FromBroker.Status(entry, 0, 0, true));
        assertEquals(live.engine().net(), 1, "one that knows less changes nothing");
        assertEquals(live.contradictions().size(), 1);
    }

    @Test
    public void aReportThatHasMoreFilledThanItAddsTellsOfOneThatWasMissed() {
        fills(entry, 1, 1004, 2, 3);
        assertEquals(live.engine().net(), 2);
        assertEquals(live.contradictions().size(), 1);
        // the one that was missed comes after all
        fills(entry, 1, 1004, 1, 3);
        assertEquals(live.engine().net(), 2);
    }

    // ------------------------------------------------------------------ taken back and corrected

    @Test
    public void anEntryThatIsTakenBackIsAContraryFillAndItsExitsAreCut() {
        String first = fills(entry, 2, 1003, 2, 3);
        fills(entry, 1, 1004, 3, 3);
        told(new FromBroker.Working(last(Order.Role.STOP).name()));
        takenBack(entry, first, 1);
        assertEquals(fills(), List.of("+2@1003", "+1@1004", "-2@1003"));
        Fill contrary = live.engine().log().fills().getLast();
        assertEquals(contrary.reason(), new FillReason.Left(LeaveReason.BROKERS_CORRECTION));
        assertEquals(contrary.fee(), 0, "nothing was traded");
        assertEquals(live.engine().net(), 1);
        assertEquals(guarded(), 1);
        assertEquals(live.contradictions().size(), 1);
    }

    @Test
    public void allTakenBackLeavesNothingThatCouldOpenAPosition() {
        String first = fills(entry, 3, 1003, 3, 3);
        takenBack(entry, first, 0);
        assertEquals(live.engine().net(), 0);
        assertEquals(guarded(), 0);
        assertEquals(live.engine().log().trades().size(), 1);
        assertEquals(live.engine().log().trades().getFirst().gross(), 0);
        // told twice it is one
        told(new FromBroker.Corrected(entry, "c" + executions, first, 0, Tape.NONE, 0, 0, now));
        assertEquals(live.engine().net(), 0);
    }

    @Test
    public void anExitThatIsTakenBackOpensTheTradeAnewWithItsPlansStopAtOnce() {
        fills(entry, 3, 1003, 3, 3);
        String stop = last(Order.Role.STOP).name();
        told(new FromBroker.Working(stop));
        print(1001);
        String execution = fills(stop, 3, 995, 3, 3);
        assertEquals(live.engine().net(), 0);
        long places = sent.stream().filter(ToBroker.Place.class::isInstance).count();
        takenBack(stop, execution, 0);
        assertEquals(live.engine().net(), 3);
        assertTrue(sent.stream().filter(ToBroker.Place.class::isInstance).count() > places, "guarded at once");
        ToBroker.Place guard = last(Order.Role.STOP);
        assertFalse(guard.name().equals(stop));
        assertEquals(guard.ticket().price(), 987, "8 ticks from where the position was given back");
        assertEquals(guarded(), 3);
    }

    @Test
    public void aPriceThatIsCorrectedChangesWhatWasPaidAndNothingElse() {
        String execution = fills(entry, 3, 1003, 3, 3);
        told(new FromBroker.Working(last(Order.Role.STOP).name()));
        told(new FromBroker.Corrected(entry, "c1", execution, 3, 1001, 3, 3003, now));
        assertEquals(live.engine().net(), 3);
        assertEquals(guarded(), 3, "it was guarded all the time");
        assertEquals(paid(), 3 * 1001);
        long fees = live.engine().log().fills().stream().mapToLong(Fill::fee).sum();
        assertEquals(fees, live.engine().log().fills().getFirst().fee(), "one fee");
        // a correction of the correction
        told(new FromBroker.Corrected(entry, "c2", "c1", 3, 1002, 3, 3006, now));
        assertEquals(live.engine().net(), 3);
    }

    @Test
    public void aTargetThatIsTakenBackIsGuardedWithTheRest() {
        fills(entry, 3, 1003, 3, 3);
        String target = last(Order.Role.TARGET).name();
        told(new FromBroker.Working(last(Order.Role.STOP).name()));
        told(new FromBroker.Working(target));
        print(1023);
        String execution = fills(target, 1, 1023, 1, 1);
        assertEquals(live.engine().net(), 2);
        sent.clear();
        takenBack(target, execution, 0);
        assertEquals(live.engine().net(), 3);
        assertTrue(sent.stream().anyMatch(one -> one instanceof ToBroker.Resize resize && resize.quantity() == 3),
                "the stop is for all three: said, since the broker's group does not know; " + sent);
    }

    @Test
    public void aFillOfWhichOnlyAStatusToldIsCorrectedByTheOrdersNewAverage() {
        told(new FromBroker.Status(entry, 3, 3009, true));
        told(new FromBroker.Corrected(entry, "c1", "never told", 2, 1001, 3, 3007, now));
        assertEquals(live.engine().net(), 3);
        assertEquals(paid(), 3007);
        told(new FromBroker.Corrected(entry, "c2", "never told either", 0, Tape.NONE, 1, 1003, now));
        assertEquals(live.engine().net(), 1);
        assertEquals(paid(), 1003);
        assertEquals(guarded(), 1);
    }

    /** A correction may come before the report of the fill that it corrects: each counts once. */
    @Test
    public void aCorrectionThatComesBeforeItsFillLeavesNothingForTheFill() {
        told(new FromBroker.Corrected(entry, "c1", "x9", 2, 1001, 2, 2002, now));
        assertEquals(live.engine().net(), 2);
        told(new FromBroker.Filled(entry, "x9", 2, 1003, 2, false, 0, now));
        assertEquals(live.engine().net(), 2);
        assertEquals(paid(), 2002);
        told(new FromBroker.Corrected(entry, "c2", "x10", 0, Tape.NONE, 2, 2002, now));
        told(new FromBroker.Filled(entry, "x10", 1, 1003, 3, true, 0, now));
        assertEquals(live.engine().net(), 2);
    }

    private long paid() {
        return live.engine().log().fills().stream().mapToLong(fill -> (fill.buy() ? 1L : -1L) * fill.quantity()
                * fill.price()).sum();
    }

    @Test
    public void aCorrectionOfWhatNobodyKnowsChangesNothingAndIsSaid() {
        fills(entry, 3, 1003, 3, 3);
        told(new FromBroker.Corrected(entry, "c1", "never", 0, Tape.NONE, 3, 3009, now));
        assertEquals(live.engine().net(), 3);
        assertEquals(live.contradictions().size(), 1);
    }

    // ------------------------------------------------------------------ late, too many, elsewhere

    @Test
    public void anEntryThatFillsAfterItCountedAsOverIsGuardedAtOnce() {
        told(new FromBroker.Ended(entry));
        assertTrue(sent.stream().noneMatch(one -> one instanceof ToBroker.Place place
                && place.ticket().role() == Order.Role.STOP));
        fills(entry, 2, 1003, 2, 3);
        assertEquals(live.engine().net(), 2);
        assertEquals(last(Order.Role.STOP).ticket().quantity(), 2);
        assertEquals(last(Order.Role.STOP).ticket().price(), 995);
    }

    @Test
    public void anExitThatFillsForMoreThanWasOpenLeavesTheRestToThePerson() {
        fills(entry, 3, 1003, 3, 3);
        String stop = last(Order.Role.STOP).name();
        String target = last(Order.Role.TARGET).name();
        told(new FromBroker.Working(stop));
        told(new FromBroker.Working(target));
        fills(stop, 3, 995, 3, 3);
        fills(target, 1, 1023, 1, 1);
        assertEquals(live.engine().net(), -1);
        assertEquals(persons(), -1);
        assertEquals(live.contradictions().size(), 1);
        // and once more, when the person has something on that side
        fills(stop, 1, 995, 4, 4);
        assertEquals(persons(), -2);
        assertEquals(live.engine().net(), -2);
    }

    @Test
    public void whatSomebodyElseFillsOnTheAccountIsThePersonsAtOnce() {
        fills(entry, 3, 1003, 3, 3);
        told(new FromBroker.Elsewhere("phone", "p1", false, 2, 1006, false, now));
        told(new FromBroker.Elsewhere("phone", "p1", false, 2, 1006, false, now));
        assertEquals(persons(), -2);
        assertEquals(live.engine().net(), 1);
        told(new FromBroker.Elsewhere("phone", "p2", true, 5, 1001, true, now));
        assertEquals(persons(), 3);
        assertEquals(strategys(), 3);
        assertEquals(live.engine().net(), 6);
        assertEquals(guarded(), 3, "a strategy's stop is for the strategy's contracts");
    }

    /** An order of the person rests on the other side when somebody else's fill comes: it ends, and its own late fill counts as well. */
    @Test
    public void aFillElsewhereMeetsThePersonsRestingOrder() {
        take(new LiveInput.Asked(new Command.Enter(Side.SHORT, Order.Type.LIMIT, 1, 1050, Tape.NONE,
                OptionalInt.empty(), true)));
        ToBroker.Place mine = last(Order.Role.ENTRY);
        assertFalse(mine.name().equals(entry));
        told(new FromBroker.Working(mine.name()));
        told(new FromBroker.Elsewhere("phone", "p1", true, 2, 1006, true, now));
        assertEquals(persons(), 2);
        fills(mine.name(), 1, 1050, 1, 1);
        assertEquals(persons(), 1);
        assertEquals(live.engine().net(), 1);
    }
}
