package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import javafx.event.ActionEvent;
import javafx.geometry.Point2D;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.desk.chart.ChartView;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.interlock.Reason;
import stativex.market.Side;
import stativex.order.Order;
import stativex.order.Owner;

/** Stepping in by hand, in the real window: the ticket, handles on the chart, positions from one to the other, switching off. */
public class ByHandStoryTest extends DeskTest {
    private ChartView chart() {
        return robot.lookup("#chart").queryAs(ChartView.class);
    }

    private Snapshot.HandView hand() {
        return view().snapshot().hand();
    }

    private Snapshot.OrderView order(Owner owner, Order.Role role) {
        return view().snapshot().orders().stream()
                .filter(o -> o.owner().equals(owner) && o.role() == role && o.state().live()).findFirst().orElseThrow();
    }

    private void inATrade() {
        robot.clickOn("#engaged-0").clickOn("#engage-0");
        until("engaged", () -> strategy().mode() == Mode.ENGAGED);
        jumpTo("09:55");
        settled();
        assertEquals(strategy().position().orElseThrow().open(), 2);
    }

    private void step() {
        robot.clickOn("#step");
        WaitForAsyncUtils.waitForFxEvents();
        settled();
    }

    private Point2D at(long price) {
        return fx(() -> chart().localToScreen(chart().handles(), chart().height(price).orElseThrow()));
    }

    private void drag(long from, long to) {
        robot.moveTo(at(from)).press(MouseButton.PRIMARY);
        Point2D end = at(to);
        robot.moveTo(end.add(0, 4)).moveTo(end).release(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void choose(String box, int index) {
        fx(() -> {
            robot.lookup(box).queryAs(ComboBox.class).getSelectionModel().select(index);
            return null;
        });
    }

    private void type(String field, String words) {
        robot.clickOn(field).push(KeyCode.SHORTCUT, KeyCode.A).write(words).push(KeyCode.ENTER);
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    public void theStopIsDraggedOnTheChartAndLooseningIsAQuestion() {
        inATrade();
        Owner strategy = new Owner.Strategy(0);
        long stop = order(strategy, Order.Role.STOP).price().orElseThrow();
        drag(stop, stop + 4);
        until("the stop is asked to stand four ticks nearer", () -> view().snapshot().decisions().getLast()
                .outcome() instanceof Decision.ByHand(Decision.Act act, int n) && act == Decision.Act.STOP_MOVED);
        step();
        assertEquals(order(strategy, Order.Role.STOP).price(), Optional.of(stop + 4));
        drag(stop + 4, stop - 5);
        assertTrue(robot.lookup("#stop-question").tryQuery().isPresent());
        assertTrue(
                text("#stop-question-words").contains("\u221212 t")
                        && text("#stop-question-words").contains("\u221221 t"),
                text("#stop-question-words"));
        picture("stop-question");
        robot.clickOn("#stop-keep");
        step();
        assertEquals(order(strategy, Order.Role.STOP).price(), Optional.of(stop + 4), "kept");
        drag(stop + 4, stop - 1);
        hold("#stop-loosen");
        step();
        assertEquals(order(strategy, Order.Role.STOP).price(), Optional.of(stop - 1));
        // the same by keyboard: a target
        long target = order(strategy, Order.Role.TARGET).price().orElseThrow();
        robot.clickOn("#chart");
        for (int i = 0; i < 3
                && !Optional.ofNullable(chart().getAccessibleHelp()).orElse("").startsWith("target"); i++) {
            robot.push(KeyCode.O);
        }
        robot.push(KeyCode.ALT, KeyCode.UP).push(KeyCode.ALT, KeyCode.UP).push(KeyCode.ENTER);
        step();
        assertTrue(view().snapshot().orders().stream().anyMatch(o -> o.role() == Order.Role.TARGET
                && o.price().equals(Optional.of(target + 2))), view().snapshot().orders().toString());
    }

    @Test
    public void aChangedPlanIsForTheNextTradeUnlessItIsAppliedToTheOpenOne() {
        inATrade();
        Owner strategy = new Owner.Strategy(0);
        long stop = order(strategy, Order.Role.STOP).price().orElseThrow();
        long average = strategy().position().orElseThrow().averageSum()
                / strategy().position().orElseThrow().averageQuantity();
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT3);
        until("the plan is tried on a past trade", 120, () -> !window.exitsStage().isBusy());
        assertTrue(robot.lookup("#running-plan").queryAll().stream().noneMatch(node -> node.isVisible()),
                "it runs with this plan");
        type("#plan-stop", "4");
        until("the plan is tried once more", 120, () -> !window.exitsStage().isBusy());
        assertTrue(text("#running-plan-words").contains("A trade of it is open"), text("#running-plan-words"));
        picture("plan-changed");
        robot.clickOn("#running-plan-next");
        until("the strategy has the plan", () -> strategy().strategy().plan().words().startsWith("stop 4 t"));
        assertEquals(order(strategy, Order.Role.STOP).price(), Optional.of(stop), "the open trade keeps its plan");
        type("#plan-stop", "3");
        until("the plan is tried again", 120, () -> !window.exitsStage().isBusy());
        robot.clickOn("#running-plan-open");
        until("the plan is applied", () -> view().snapshot().decisions().stream().anyMatch(
                d -> d.outcome() instanceof Decision.ByHand(Decision.Act act, int n)
                        && act == Decision.Act.PLAN_ATTACHED));
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT6);
        step();
        step();
        boolean gone = strategy().position().isEmpty();
        long now = gone ? average : order(strategy, Order.Role.STOP).price().orElse(stop);
        assertTrue(gone || Math.abs(now - average) <= 3, "the stop of " + now + " stands three ticks from " + average);
        assertEquals(view().snapshot().decisions().stream().filter(
                d -> d.outcome() instanceof Decision.ByHand(Decision.Act act, int n)
                        && (act == Decision.Act.PLAN_CHANGED || act == Decision.Act.PLAN_ATTACHED))
                .count(), 3);
    }

    @Test
    public void anOrderOfOnesOwnFromTicketToFlat() {
        inATrade();
        robot.push(KeyCode.SHORTCUT, KeyCode.O);
        WaitForAsyncUtils.waitForFxEvents();
        robot.clickOn("#ticket-short");
        choose("#ticket-type", 1);
        long last = view().snapshot().lastPrice().orElseThrow();
        type("#ticket-price", workspace.inputs().contract().text(last + 14));
        assertTrue(text("#ticket-worst").startsWith("worst case  \u2212"), text("#ticket-worst"));
        assertTrue(text("#ticket-left").contains("such stop-outs left"), text("#ticket-left"));
        picture("ticket");
        robot.clickOn("#ticket-send");
        until("the order rests", () -> hand().orders().size() == 1);
        step();
        assertEquals(hand().orders().getFirst().price(), Optional.of(last + 14));
        drag(last + 14, last + 10);
        step();
        assertEquals(hand().orders().getFirst().price(), Optional.of(last + 10));
        robot.clickOn("#hand-cancel-" + hand().orders().getFirst().number());
        step();
        assertEquals(hand().orders(), List.of());
        // at the market, against the strategy's position
        choose("#ticket-type", 0);
        robot.clickOn("#ticket-send");
        step();
        until("the person is short", () -> hand().position().isPresent());
        settled();
        assertEquals(hand().position().orElseThrow().side(), Side.SHORT);
        assertEquals(strategy().position().orElseThrow().side(), Side.LONG, "each owner has a position of its own");
        assertTrue(text("#net").contains("net +1"), text("#net"));
        String drawn = fx(() -> chart().svg());
        assertTrue(drawn.contains(">MINE \u22121<") && drawn.contains(">LONG 2<"), "both stand on the chart");
        robot.push(KeyCode.ESCAPE);
        picture("by-hand");
        robot.clickOn("#hand-breakeven");
        hold("#hand-flatten");
        step();
        until("flat again", () -> hand().position().isEmpty());
        // a line of one's own: so many contracts are a question
        robot.clickOn("#order");
        type("#ticket-quantity", "4000");
        assertTrue(robot.lookup("#ticket-anyway").tryQuery().isPresent() || text("#ticket-left").length() > 0);
        robot.clickOn("#ticket-close");
    }

    private void own(String id, String figure) {
        fx(() -> {
            robot.lookup(id).queryAs(CheckBox.class).fire();
            TextField field = robot.lookup(id + "-first").queryAs(TextField.class);
            field.setText(figure);
            field.fireEvent(new ActionEvent());
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    public void limitsTightenedInATradeHoldAtOnceAndAQuestionIsOne() {
        inATrade();
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT4);
        until("past days are judged", 120, () -> !window.limitsStage().isBusy());
        fx(() -> {
            window.limitsStage().open("Own limits");
            return null;
        });
        own("#own-account-trades", "1");
        assertTrue(text("#limits-said").startsWith("Tighter limits hold at once"), text("#limits-said"));
        choose("#own-orders-trades-a-day", 1);
        WaitForAsyncUtils.waitForFxEvents();
        picture("own-orders");
        until("past days are judged", 120, () -> !window.limitsStage().isBusy());
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT6);
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(strategy().position().orElseThrow().open(), 2, "the replay goes on");
        robot.clickOn("#order");
        choose("#ticket-type", 0);
        WaitForAsyncUtils.waitForFxEvents();
        robot.clickOn("#ticket-send");
        step();
        until("declined: one trade today", () -> view().snapshot().decisions().getLast()
                .declinedFor(Reason.TRADES_A_DAY));
        WaitForAsyncUtils.waitForFxEvents();
        picture("ticket-asks");
        hold("#ticket-anyway");
        step();
        until("asked and sent", () -> hand().position().isPresent());
        assertTrue(view().snapshot().decisions().stream().anyMatch(d -> d.outcome() instanceof Decision.Passed));
        assertTrue(window.workspace().documents().account().value().own().tradesADay().isPresent(),
                "the next replay has it too");
    }

    @Test
    public void aTradeIsTakenOverAndGivenBackAndSwitchingOffAsks() {
        inATrade();
        robot.clickOn("#half-off");
        step();
        until("half is off", () -> strategy().position().orElseThrow().open() == 1);
        settled();
        robot.clickOn("#hand-to-me");
        until("it is the person's", () -> hand().position().isPresent());
        settled();
        assertTrue(strategy().position().isEmpty());
        assertTrue(hand().position().orElseThrow().stop().isPresent(), "its stop goes on");
        assertEquals(text("#hand-side"), "LONG 1");
        picture("handed-over");
        fx(() -> {
            robot.lookup("#hand-give").queryAs(MenuButton.class).getItems().getFirst().fire();
            return null;
        });
        until("the strategy has it again", () -> strategy().position().isPresent());
        settled();
        robot.clickOn("#off-0");
        assertEquals(strategy().mode(), Mode.ENGAGED, "a trade is open: it asks");
        picture("off-question");
        robot.clickOn("#off-back-0");
        robot.clickOn("#off-0").clickOn("#off-keep-0");
        until("off", () -> strategy().mode() == Mode.OFF);
        assertTrue(strategy().position().isPresent(), "its plan keeps the trade");
        hold("#flatten");
        step();
        until("flat", () -> strategy().position().isEmpty());
        assertEquals(view().snapshot().decisions().stream()
                .filter(d -> d.outcome() instanceof Decision.ByHand(Decision.Act act, int n)
                        && act == Decision.Act.HANDED_OVER)
                .count(), 2);
    }
}
