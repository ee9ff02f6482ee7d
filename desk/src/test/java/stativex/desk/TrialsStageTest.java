package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.files.SearchFolder;
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
    public void aStrategyIsTriedFromAnyStageAndItsReportLeadsToItsTrades() throws Exception {
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
        assertEquals(text("#trial-attempts"), "1 variant of Ebb fade tried on these dates so far.");
        assertTrue(fx(() -> robot.lookup("#trials-picture").query().getAccessibleText()).contains("Ebb fade ends at"),
                "the picture says what it shows");
        assertEquals(text("#trial-threshold-said"), "worse on 1 day, by 116.75", "the account's own day loss of 520");
        set("#trial-threshold", "640");
        fx(() -> {
            robot.lookup("#trial-threshold").queryAs(TextField.class).fireEvent(new javafx.event.ActionEvent());
            return null;
        });
        assertEquals(text("#trial-threshold-said"), "never worse");
        picture("trial");
        // a session of this version, as if it had been replayed with it engaged from before the first print
        Files.createDirectories(stativex.files.DataFolder.path().resolve("sessions"));
        Files.copy(kept.getFirst().document(), stativex.files.DataFolder.path().resolve("sessions")
                .resolve("2026-09-24-180000.session.jsonl"));
        press("#trial-forward");
        worked();
        assertTrue(text("#trial-forward-words").startsWith("Not yet after 4 whole days, judged next at the close of day"
                + " 10. 1 day was not engaged"), text("#trial-forward-words"));
        fx(() -> {
            robot.from(window.trialsStage()).lookup(".scroll-pane").queryAllAs(javafx.scene.control.ScrollPane.class)
                    .forEach(pane -> pane.setVvalue(1));
            return null;
        });
        picture("forward");
        chosen = Optional.of(Files.createTempDirectory("report").resolve("report.html"));
        press("#trial-save");
        String page = Files.readString(chosen.get());
        assertTrue(page.startsWith("<!DOCTYPE html>") && page.contains("<svg") && page.contains("Trial of Ebb fade"),
                page.substring(0, 200));
        assertTrue(!page.contains("http") && !page.contains("<script"), "it loads nothing");
        // tables
        by(7);
        picture("trial-table");
        by(12);
        assertTrue(robot.lookup("\u22121.0 to \u22120.5").tryQuery().isPresent(), "half an R each");
        picture("trial-r");
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
    public void severalContractsAreTriedOnOneAccount() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        press("#trials-together");
        fx(() -> {
            robot.lookup("#together-MNH").queryAs(CheckBox.class).fire();
            return null;
        });
        press("#together-go");
        assertTrue(text("#together-said").contains("expected the fee of one side of MNH"), text("#together-said"));
        set("#together-fee-MNH", "2.15");
        picture("together");
        press("#together-go");
        worked();
        assertEquals(text("#trials-title"), "Trial 1");
        assertEquals(TrialFolder.own().list().getFirst().strategy(), "Ebb fade and 1 more");
        assertTrue(robot.lookup("MNH, 1 trade").tryQuery().isPresent(), "what each contract gave");
        assertTrue(robot.lookup("TDL with MNH").tryQuery().isPresent(), "how much their days go together");
        picture("together-report");
        TrialFolder.Repeated again = TrialFolder.again(TrialFolder.own().list().getFirst().document(), Demo::tape);
        assertEquals(again.differences(), List.of());
    }

    private void set(String id, String words) {
        fx(() -> {
            robot.lookup(id).queryAs(TextField.class).setText(words);
            return null;
        });
    }

    @Test
    public void aSearchIsCancelledGoneOnWithAndItsChoiceIsUsed() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        press("#trials-search");
        set("#search-from-0", "8");
        set("#search-to-0", "20");
        set("#search-step-0", "4");
        set("#search-from-1", "many");
        press("#search-start");
        assertTrue(text("#search-said").contains("expected a number, found \"many\""), text("#search-said"));
        set("#search-from-1", "10");
        set("#search-to-1", "14");
        set("#search-step-1", "2");
        set("#search-least", "5");
        fx(() -> {
            robot.lookup("#search-start").queryAs(Button.class).fire();
            robot.lookup("#search-cancel").queryAs(Button.class).fire();
            return null;
        });
        worked();
        assertTrue(text("#search-progress").startsWith("Cancelled"), text("#search-progress"));
        press("#search-go");
        worked();
        assertEquals(text("#search-attempts"), "12");
        assertEquals(text("#search-luck"), "absent", "five days are too few");
        assertTrue(
                fx(() -> robot.lookup("#search-map").query().getAccessibleText()).startsWith("Map of exit stop ticks"),
                "the map says what it shows");
        picture("search");
        String before = fx(() -> window.rulesStage().draft().text());
        press("#search-use");
        assertTrue(!fx(() -> window.rulesStage().draft().text()).equals(before), "the open strategy has the settings");
        assertEquals(SearchFolder.own().list().size(), 1);
        assertTrue(SearchFolder.own().list().getFirst().whole());
        // by keys over the map: another one is chosen
        String chosen = fx(() -> robot.lookup("#search-map").query().getAccessibleText());
        robot.clickOn("#search-map").push(KeyCode.LEFT).push(KeyCode.UP);
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(!fx(() -> robot.lookup("#search-map").query().getAccessibleText()).equals(chosen), chosen);
    }

    private void tickBox(String id) {
        fx(() -> {
            robot.lookup(id).queryAs(CheckBox.class).fire();
            return null;
        });
    }

    /** Sides apart, conditions left out and bars, walked forward; then the best of both sides as one trial. */
    @Test
    public void choicesAreSearchedWalkedForwardAndJoined() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        press("#trials-search");
        for (int i = 0; i < 2; i++) {
            int at = i;
            fx(() -> {
                robot.lookup("#search-range-" + at).queryAs(ComboBox.class).getSelectionModel().select(0);
                return null;
            });
        }
        tickBox("#search-sides");
        set("#search-bars", "tick 400, furlongs 3");
        set("#search-least", "0");
        set("#search-fit", "3");
        set("#search-test", "1");
        press("#search-start");
        assertTrue(text("#search-said").contains("found \"furlongs 3\""), text("#search-said"));
        set("#search-bars", "tick 400, tick 300");
        picture("search-fields");
        press("#search-start");
        worked();
        assertEquals(text("#search-attempts"), "6");
        assertTrue(!text("#search-walked").isEmpty());
        picture("search-walked");
        press("#search-joined");
        worked();
        assertEquals(text("#trials-title"), "Trial 1");
        assertEquals(TrialFolder.own().list().getFirst().strategy(), "Ebb fade long and 1 more");
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
