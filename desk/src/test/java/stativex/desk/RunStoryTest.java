package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Scene;
import javafx.scene.SnapshotParameters;
import javafx.scene.transform.Transform;
import javax.imageio.ImageIO;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.text.Text;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.account.Headroom;
import stativex.account.LineKind;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.exit.StopOrigin;
import stativex.files.ResultRows;
import stativex.files.SessionFile;
import stativex.demo.Demo;
import stativex.desk.chart.ChartView;
import stativex.desk.look.Look;
import stativex.interlock.Reason;
import stativex.link.Replay;
import stativex.market.Money;
import stativex.order.FillReason;
import stativex.trial.Run;

/** The main job of the Run stage, worked by mouse and keyboard in the real window. */
public class RunStoryTest extends DeskTest {
    private void engage() {
        robot.clickOn("#engaged-0");
        assertTrue(strategy().mode() != Mode.ENGAGED, "engaging is asked once");
        picture("question");
        robot.clickOn("#engage-0");
        until("engaged", () -> strategy().mode() == Mode.ENGAGED);
    }

    private void watch() {
        robot.clickOn("#watching-0");
        until("watching", () -> strategy().mode() == Mode.WATCHING);
        settled();
    }

    private String held() {
        return text("#side");
    }

    /** The Tape stage's bars are others than the strategy's: its position, stop and pins are there all the same. */
    private void onEveryChartOfTheTape() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT1);
        until("bars are made", () -> !window.tapeStage().isBusy()
                && window.tapeStage().pane().chart().model().isPresent());
        WaitForAsyncUtils.waitForFxEvents();
        String drawn = fx(() -> window.tapeStage().pane().chart().svg());
        assertTrue(drawn.contains(">LONG 2<"), "the position is on the tape's chart");
        assertTrue(drawn.contains(">STOP<"));
        picture("tape-with-position");
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT6);
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    public void engageEntryBreakevenExitLock() {
        assertEquals(strategy().mode(), Mode.OFF, "everything begins off");
        watch();
        assertTrue(text("#sentence-0").contains("Morning opens at 09:45"), text("#sentence-0"));
        engage();
        jumpTo("09:55");
        settled();
        assertEquals(held(), "LONG 2");
        assertTrue(text("#facts").contains("1\u2009207.25"), text("#facts"));
        picture("entry");
        onEveryChartOfTheTape();
        long before = headroom(LineKind.DRAWDOWN_FLOOR);
        jumpTo("10:12");
        settled();
        assertEquals(held(), "LONG 1", "the first target has filled");
        Snapshot.PositionView position = strategy().position().orElseThrow();
        List<Trade.StopPoint> stops = strategy().trade().orElseThrow().stops();
        assertEquals(stops.get(1).origin(), StopOrigin.BREAKEVEN, "the plan moved the stop");
        assertEquals(stops.get(1).level() * 2, position.averageSum() * 2 + 2, "to one tick above the entry");
        assertTrue(headroom(LineKind.DAY_LOSS) > 0);
        jumpTo("10:21");
        settled();
        assertEquals(held(), "Flat");
        assertEquals(view().snapshot().trades().getLast().exitReason(), Optional.of(new FillReason.Target(2)));
        jumpTo("12:50");
        settled();
        assertTrue(view().snapshot().decisions().getLast().declinedFor(Reason.OUTSIDE_WINDOW));
        jumpTo("14:31");
        settled();
        assertTrue(headroom(LineKind.DRAWDOWN_FLOOR) < before, "headroom has shrunk");
        assertEquals(text("#state"), "Not trading: locked until the next trading day, day loss");
        assertTrue(text("#account").contains("locked, day loss"), text("#account"));
        assertEquals(held(), "Flat");
        picture("lock");
        jumpTo("16:00");
        settled();
        assertTrue(view().snapshot().decisions().getLast().declinedFor(Reason.LOCKED), "and nothing enters any more");
    }

    private long headroom(LineKind line) {
        return strategy().headroom().stream().filter(h -> h.line().kind() == line).findFirst()
                .map(Headroom::money).orElseThrow();
    }

    @Test
    public void whatAPersonDoesByHandIsRecordedAndGivesTheSameFillsAgain() throws Exception {
        engage();
        jumpTo("09:55");
        settled();
        // until the trade is in front: breakeven by hand needs a price beyond the average
        for (int minute = 56; strategy().position().map(p -> p.openResult() < 75 * Money.UNIT)
                .orElse(false); minute++) {
            jumpTo(minute < 60 ? "09:" + minute : "10:" + String.format("%02d", minute - 60));
            settled();
        }
        robot.clickOn("#breakeven");
        step(4);
        Snapshot.PositionView position = strategy().position().orElseThrow();
        assertEquals(position.stop().orElseThrow().longValue(), position.averageSum() / position.averageQuantity());
        assertEquals(position.stopOrigin(), Optional.of(StopOrigin.BREAKEVEN));
        robot.clickOn("#half-off");
        step(3);
        assertEquals(held(), "LONG 1");
        robot.clickOn("#journal-fills");
        ListView<?> list = robot.lookup("#journal").query();
        assertTrue(list.getItems().getFirst().toString().contains("by hand · slippage 1 t"),
                list.getItems().getFirst().toString());
        robot.clickOn("#journal-orders");
        until("the stop is listed", () -> list.getItems().stream().anyMatch(
                row -> row.toString().contains("sell 1 stop") && row.toString().contains("Ebb fade · breakeven")));
        picture("by-hand");
        robot.clickOn("#flatten");
        step(2);
        assertEquals(held(), "LONG 1", "a click is not a hold");
        hold("#flatten");
        step(3);
        assertEquals(held(), "Flat");
        hold("#flat-and-lock");
        until("locked", () -> view().snapshot().account().lock().isPresent());
        assertTrue(text("#account").contains("locked, by hand"), text("#account"));
        Run run = workspace.replay().end();
        var again = SessionFile.read(workspace.file().orElseThrow(), Demo::tape).run();
        assertEquals(ResultRows.fills(again), ResultRows.fills(run));
        assertEquals(ResultRows.decisions(again), ResultRows.decisions(run));
    }

    private void step(int prints) {
        for (int i = 0; i < prints; i++) {
            robot.clickOn("#step");
        }
        settled();
    }

    @Test
    public void everythingWorksByKeyboard() throws Exception {
        focus("#engaged-0");
        robot.push(KeyCode.SPACE);
        WaitForAsyncUtils.waitForFxEvents();
        robot.push(KeyCode.SPACE);
        until("engaged by two presses of the space bar", () -> strategy().mode() == Mode.ENGAGED);
        focus("#long-0");
        robot.push(KeyCode.SPACE);
        until("long is off", () -> !strategy().longOn());
        focus("#play");
        robot.push(KeyCode.SPACE);
        until("playing", () -> view().playing());
        focus("#play");
        robot.push(KeyCode.SPACE);
        until("paused", () -> !view().playing());
        focus("#flat-and-lock");
        hold("#flat-and-lock", KeyCode.SPACE);
        until("locked by a held key", () -> view().snapshot().account().lock().isPresent());
        assertEquals(view().snapshot().decisions().stream().filter(d -> d.kind() == Decision.Kind.LOCKED).count(), 1,
                "however long it is held");
        focus("#chart");
        String newest = text("#figures");
        robot.push(KeyCode.LEFT).push(KeyCode.LEFT);
        assertNotEquals(text("#figures"), newest, "the crosshair reads an earlier bar");
        robot.push(KeyCode.ESCAPE);
        assertEquals(text("#figures"), newest);
    }

    private void focus(String id) {
        Node node = robot.lookup(id).query();
        fx(() -> {
            node.requestFocus();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    public void theChartReadsZoomsAndComesBack() {
        watch();
        jumpTo("09:55");
        settled();
        String newest = text("#figures");
        Node chart = robot.lookup("#chart").query();
        robot.moveTo(chart);
        WaitForAsyncUtils.waitForFxEvents();
        assertNotEquals(text("#figures"), newest);
        assertTrue(text("#studies").startsWith("reach "), "what has no price stands above: " + text("#studies"));
        assertFalse(text("#studies").contains("mean"), "prices stand beside the chart: " + text("#studies"));
        assertTrue(fx(((ChartView) chart)::svg).contains("mean.upper"));
        picture("crosshair");
        focus("#chart");
        // the newest pin: the would-be entry of 09:54, some bars left of the newest
        robot.push(KeyCode.ESCAPE);
        for (int bars = 0; chart.getAccessibleHelp() == null && bars < 8; bars++) {
            robot.push(KeyCode.LEFT);
            until("the bar is in view", () -> !window.refresh());
            robot.push(KeyCode.SPACE);
        }
        assertTrue(chart.getAccessibleHelp().contains("09:54"), chart.getAccessibleHelp());
        picture("callout");
        robot.push(KeyCode.SPACE);
        assertNull(chart.getAccessibleHelp(), "one pin only");
        robot.moveTo(chart).scroll(20, javafx.geometry.VerticalDirection.UP);
        robot.drag(MouseButton.PRIMARY).moveBy(180, 0).drop();
        WaitForAsyncUtils.waitForFxEvents();
        picture("dragged");
        robot.doubleClickOn(MouseButton.PRIMARY);
        robot.moveTo("#play");
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(text("#figures"), newest, "a double click follows the newest bar again");
    }

    @Test
    public void everyControlHasANameAndEveryTextFits() {
        jumpTo("14:25:30");
        settled();
        robot.push(KeyCode.SHORTCUT, KeyCode.O);
        robot.clickOn("#ticket-send");
        robot.clickOn("#step");
        until("the person holds something", () -> view().snapshot().hand().position().isPresent());
        settled();
        for (Node node : window.root().lookupAll(".label")) {
            if (node instanceof Label label && seen(label) && !label.isWrapText() && label.getScene() != null) {
                assertFalse(fx(() -> cut(label)), "cut off: " + label.getText());
            }
        }
        for (Node node : window.root().lookupAll("*")) {
            if (node.isFocusTraversable() && node.isVisible()) {
                boolean named = node.getAccessibleText() != null || node instanceof Labeled l && !l.getText().isBlank();
                assertTrue(named || node.getClass().getName().contains("Scroll"), "no accessible name: " + node);
            }
        }
    }

    private static boolean seen(Node node) {
        return node == null || node.isVisible() && seen(node.getParent());
    }

    /** Whether a label shows less than its text, as an ellipsis does. */
    private static boolean cut(Label label) {
        Node shown = label.lookup(".text");
        return shown instanceof Text text && !text.getText().equals(label.getText());
    }

    @Test
    public void largeScreensAndTwiceTheScaleAreFilled() {
        jumpTo("14:25:30");
        settled();
        for (double[] size : new double[][]{{1920, 1080, 1}, {3840, 2160, 1}, {1280, 800, 2}}) {
            Node chart = fx(() -> {
                DeskWindow other = new DeskWindow(workspace);
                Scene large = new Scene(other.root(), size[0], size[1]);
                Look.apply(large);
                other.root().applyCss();
                other.root().layout();
                SnapshotParameters scaled = new SnapshotParameters();
                scaled.setTransform(Transform.scale(size[2], size[2]));
                var image = SwingFXUtils.fromFXImage(other.root().snapshot(scaled, null), null);
                ImageIO.write(image, "png",
                        PICTURES.resolve("large-" + (int) (size[0] * size[2]) + ".png").toFile());
                assertEquals(image.getWidth(), (int) (size[0] * size[2]));
                return other.root().lookup("#chart");
            });
            assertTrue(chart.getBoundsInParent().getWidth() > size[0] - 600, "the chart takes the room");
        }
    }

    @Test
    public void jumpingBackAsksOnceAndStartsAgainWithEverythingOff() {
        engage();
        jumpTo("10:30");
        settled();
        assertFalse(view().snapshot().fills().isEmpty());
        var first = workspace.file().orElseThrow();
        int before = view().snapshot().fills().size();
        jumpTo("09:50");
        assertEquals(view().snapshot().fills().size(), before, "nothing happens until the question is answered");
        robot.clickOn("#stay");
        assertFalse(view().snapshot().fills().isEmpty(), "staying changes nothing");
        jumpTo("09:50");
        robot.clickOn("#start-again");
        until("the replay began again", () -> view().snapshot().fills().isEmpty());
        settled();
        assertEquals(strategy().mode(), Mode.OFF);
        assertEquals(text("#sentence-0"), "Not trading: Ebb fade is off");
        assertNotEquals(workspace.file().orElseThrow(), first, "the session so far stays recorded");
        jumpTo("noon");
        assertEquals(text("#message"), "expected a time such as 09:45");
    }

    @Test
    public void playingAtAnySpeedShowsNewerData() {
        int before = view().worked();
        workspace.replay().speed(1000);
        robot.clickOn("#play");
        until("the replay moves on", () -> view().worked() > before + 1000);
        assertEquals(text("#play"), "Pause");
        robot.clickOn("#play");
        workspace.replay().speed(Replay.AS_FAST_AS_POSSIBLE);
        robot.clickOn("#play");
        until("the end of the tape", () -> view().atEnd());
        settled();
        assertTrue(text("#sentence-0").startsWith("Watching") || text("#sentence-0").startsWith("Not trading"),
                text("#sentence-0"));
    }
}
