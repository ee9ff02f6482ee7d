package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.files.TrialFolder;

/** The Trials stage as a person works it: try from any stage, read the report, a mark to its trade, side by side, cancel, open again. */
public class TrialsStageTest extends DeskTest {
    private void worked() {
        WaitForAsyncUtils.waitForFxEvents();
        until("trials are through", 120, () -> !window.trialsStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void tick(int number) {
        fx(() -> {
            robot.lookup("#trial-tick-" + number).queryAs(CheckBox.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void press(String id) {
        fx(() -> {
            robot.lookup(id).queryAs(Button.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void by(int index) {
        fx(() -> {
            robot.from(window.trialsStage()).lookup(".combo-box").queryAllAs(ComboBox.class).stream()
                    .filter(box -> box.getItems().contains("weekday")).findFirst().orElseThrow().getSelectionModel()
                    .select(index);
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    public void aStrategyIsTriedFromAnyStageAndItsReportLeadsToItsTrades() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT2);
        robot.push(KeyCode.SHORTCUT, KeyCode.ENTER);
        worked();
        assertEquals(text("#trials-title"), "Trial 1");
        assertTrue(
                text("#trials-subtitle").contains("Ebb fade") && text("#trials-subtitle").contains("18 Sep – 24 Sep"),
                text("#trials-subtitle"));
        List<TrialFolder.Kept> kept = TrialFolder.own().list();
        assertEquals(kept.size(), 1);
        assertEquals(kept.getFirst().trades(), 10);
        assertTrue(text("#trial-net").startsWith("\u2212"), text("#trial-net"));
        assertTrue(fx(() -> robot.lookup("#trials-picture").query().getAccessibleText()).contains("Ebb fade ends at"),
                "the picture says what it shows");
        picture("trial");
        // tables
        by(7);
        picture("trial-table");
        by(0);
        // a mark to its trade, and on to the chart
        robot.clickOn(fx(() -> window.trialsStage().mark(1)));
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(robot.lookup("#trials-to-chart").tryQuery().isPresent());
        robot.clickOn("#trials-to-chart");
        until("the rules' chart shows it", 60, () -> !window.rulesStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(fx(() -> window.rulesStage().getScene() != null));
        picture("trial-on-chart");
    }

    @Test
    public void trialsStandSideBySideAndAreRepeatedToTheByte() throws Exception {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        fx(() -> {
            window.trialsStage().tryAll(2);
            return null;
        });
        worked();
        assertEquals(TrialFolder.own().list().size(), 2);
        tick(1);
        tick(2);
        press("#trials-compare");
        worked();
        assertEquals(text("#trials-title"), "Side by side");
        assertTrue(text("#trials-difference-1").startsWith("2 against 1: another strategy"),
                text("#trials-difference-1"));
        picture("compare");
        // a new window knows them, and runs one again for its report
        TrialFolder.Kept first = TrialFolder.own().list().getLast();
        begin();
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        robot.clickOn("#trial-1");
        worked();
        until("it was run again", 60, () -> text("#trials-subtitle").contains("the same, byte for byte"));
        // what was changed by hand is found
        Files.writeString(first.folder().resolve("fills.csv"),
                Files.readString(first.folder().resolve("fills.csv")).replaceFirst(",2,", ",3,"));
        TrialFolder.Repeated again = TrialFolder.again(first.document(), Demo::tape);
        assertTrue(again.differences().getFirst().startsWith("fills.csv, line 2: was"),
                again.differences().toString());
    }

    @Test
    public void whatWaitsIsCancelledAndLeavesNothing() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        fx(() -> {
            window.trialsStage().tryIt();
            window.trialsStage().tryIt();
            robot.lookup("#trial-cancel").queryAllAs(Button.class).forEach(Button::fire);
            return null;
        });
        worked();
        assertEquals(TrialFolder.own().list(), List.of());
        assertEquals(text("#trials-title"), "No trial");
    }
}
