package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.files.DocumentFolder;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.files.StrategySetup;

/** The Exits stage as a person works it: drag the staircase, read the fields, try it on a past trade. */
public class ExitsStageTest extends DeskTest {
    @BeforeMethod(dependsOnMethods = "openWindow")
    public void goToExits() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT3);
        tried();
    }

    private void tried() {
        WaitForAsyncUtils.waitForFxEvents();
        until("the plan is tried on a past trade", 120, () -> !window.exitsStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private ExitPlan plan() {
        return fx(() -> window.exitsStage().plan().orElseThrow());
    }

    private ExitPlan kept() {
        return fx(() -> StrategySetup.plan(window.rulesStage().draft()).orElseThrow());
    }

    private String field(String id) {
        return fx(() -> robot.lookup(id).queryAs(TextInputControl.class).getText());
    }

    private void drag(String handle, double across, double up) {
        Point2D at = fx(() -> window.exitsStage().handle(handle));
        robot.moveTo(at).press(MouseButton.PRIMARY).moveTo(at.add(across / 2, up / 2)).moveTo(at.add(across, up))
                .release(MouseButton.PRIMARY);
        tried();
    }

    @Test
    public void aDraggedHandleMovesFieldsWordsAndMoney() {
        picture("exits");
        Distance.Ticks before = (Distance.Ticks) plan().longTerms().stop().orElseThrow().distance();
        assertEquals(field("#plan-stop"), Long.toString(before.ticks()));
        String risk = text("#money-risk");
        drag("stop", 0, 30);
        Distance.Ticks after = (Distance.Ticks) plan().longTerms().stop().orElseThrow().distance();
        assertTrue(after.ticks() > before.ticks(), after.words());
        assertEquals(field("#plan-stop"), Long.toString(after.ticks()));
        assertTrue(text("#plan-said").startsWith("Stop " + after.ticks() + " t"), text("#plan-said"));
        assertNotEquals(text("#money-risk"), risk);
        assertEquals(kept().longTerms(), plan().longTerms(), "kept with the strategy");
        // one step back, whatever the mouse did on its way
        robot.push(KeyCode.SHORTCUT, KeyCode.Z);
        tried();
        assertEquals(plan().longTerms().stop().orElseThrow().distance(), before);
        assertEquals(field("#plan-stop"), Long.toString(before.ticks()));
        // a target by its line
        drag("target", 40, 0);
        assertEquals(kept().longTerms(), plan().longTerms());
        assertTrue(plan().longTerms().targets().getFirst().distance().orElseThrow() instanceof Distance.Ticks);
    }

    @Test
    public void theKeyboardMovesHandles() {
        Distance.Ticks before = (Distance.Ticks) plan().longTerms().stop().orElseThrow().distance();
        fx(() -> {
            robot.lookup("#stop-map").query().requestFocus();
            return null;
        });
        robot.push(KeyCode.DOWN).push(KeyCode.DOWN).push(KeyCode.SHIFT, KeyCode.DOWN);
        tried();
        assertEquals(plan().longTerms().stop().orElseThrow().distance(), new Distance.Ticks(before.ticks() + 7));
        assertTrue(fx(() -> robot.lookup("#stop-map").query().getAccessibleText()).contains(
                "chosen: stop " + (before.ticks() + 7) + " t"));
        assertEquals(kept().longTerms(), plan().longTerms());
    }

    @Test
    public void typingMovesTheMap() {
        Point2D before = fx(() -> window.exitsStage().handle("stop"));
        robot.clickOn("#plan-stop").push(KeyCode.SHORTCUT, KeyCode.A).write("4").push(KeyCode.ENTER);
        tried();
        assertNotEquals(fx(() -> window.exitsStage().handle("stop")), before);
        assertEquals(plan().longTerms().stop().orElseThrow().distance(), new Distance.Ticks(4));
        // the same in the Rules stage
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT2);
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(kept().longTerms(), plan().longTerms());
    }

    @Test
    public void aPastTradeOnAnyBar() {
        String first = text("#past-result");
        assertTrue(first.startsWith("out "), first);
        ListView<?> events = robot.lookup("#past-events").queryListView();
        List<String> said = fx(() -> events.getItems().stream().map(Object::toString).toList());
        assertTrue(said.getFirst().contains("in "), said.toString());
        assertTrue(said.getLast().contains("out "), said.toString());
        assertTrue(text("#past-where").endsWith("a signal"), text("#past-where"));
        String where = text("#past-where");
        robot.clickOn("#past-earlier");
        tried();
        assertNotEquals(text("#past-where"), where);
        assertTrue(text("#past-where").endsWith("a signal"), text("#past-where"));
        // at a price far below: never filled; then at the market again
        robot.clickOn("#past-price").write("900.00").push(KeyCode.ENTER);
        tried();
        assertTrue(text("#past-result").contains("not"), text("#past-result"));
        robot.clickOn("#past-price").push(KeyCode.SHORTCUT, KeyCode.A).push(KeyCode.DELETE).push(KeyCode.ENTER);
        tried();
        assertTrue(text("#past-result").startsWith("out "), text("#past-result"));
        // the other side of any bar at all
        robot.clickOn("#past-short");
        fx(() -> {
            robot.lookup("#past-bar").queryAs(Slider.class).setValue(200);
            return null;
        });
        tried();
        assertTrue(text("#past-where").contains("bar 201 of"), text("#past-where"));
        assertTrue(text("#past-result").startsWith("out "), text("#past-result"));
        // the scrubber says what stood there
        Node view = robot.lookup("#past-trade").query();
        robot.moveTo(view);
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(fx(view::getAccessibleText).contains("stop"), fx(view::getAccessibleText));
        picture("exits-short");
        // a stop of one tick is out at once
        robot.clickOn("#plan-stop").push(KeyCode.SHORTCUT, KeyCode.A).write("1").push(KeyCode.ENTER);
        tried();
        assertEquals(Optional.of(kept().shortTerms()), Optional.of(plan().shortTerms()));
    }

    @Test
    public void everySignalBesideAnotherPlanAndWhatIf() {
        robot.clickOn("#past-every");
        tried();
        Node all = robot.lookup("#every-signal").query();
        String words = fx(all::getAccessibleText);
        assertTrue(words.contains("Two-step runner: ") && words.contains("% won"), words);
        assertTrue(words.contains("stop: at ") && words.contains("target 2: at ") && words.contains("(now)"), words);
        assertFalse(words.contains("Beside it"), words);
        fx(() -> {
            robot.lookup("#past-beside").queryAs(MenuButton.class).getItems().getLast().fire();
            return null;
        });
        tried();
        words = fx(all::getAccessibleText);
        assertTrue(words.contains("Beside it Tight fade: "), words);
        assertEquals(text("#past-working"), "");
        picture("exits-every");
        // a drag asks anew, and the way back shows one bar again
        drag("stop", 0, 20);
        assertNotEquals(fx(all::getAccessibleText), words);
        robot.clickOn("#past-every");
        tried();
        assertTrue(fx(() -> robot.lookup("#past-trade").query().getParent().isVisible()));
    }

    @Test
    public void whatContradictsItselfIsSaid() {
        robot.clickOn("#plan-stop").push(KeyCode.SHORTCUT, KeyCode.A).write("900").push(KeyCode.ENTER);
        tried();
        Node money = robot.lookup("#plan-money").query();
        assertTrue(fx(() -> robot.from(money).lookup(".warn-text").queryLabeled().getText())
                .contains("own day loss"), "a stop wider than the day's line");
    }

    /** Kept as a document of its own; under a taken name it asks, and what gives way stays among the versions. */
    @Test
    public void aPlanIsKeptAndSavingOverItAsks() {
        String first = plan().longTerms().words();
        String name = plan().name();
        robot.clickOn("#plan-keep");
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#plan-shelf-said").startsWith("Kept as "), text("#plan-shelf-said"));
        robot.clickOn("#plan-stop").push(KeyCode.SHORTCUT, KeyCode.A).write("9").push(KeyCode.ENTER);
        tried();
        robot.clickOn("#plan-keep");
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#plan-keep-asked").contains("Save over it?"), text("#plan-keep-asked"));
        picture("plan-save-over");
        assertEquals(DocumentFolder.exitPlans().find(name).orElseThrow().value().longTerms().words(), first);
        robot.clickOn("#plan-keep-over");
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(DocumentFolder.exitPlans().find(name).orElseThrow().value().longTerms(), plan().longTerms());
        assertEquals(DocumentFolder.exitPlans().older(name).getFirst().value().longTerms().words(), first);
        // by its figures it has another name, and the earlier one can be taken again
        robot.clickOn("#plan-name-figures");
        tried();
        assertTrue(plan().name().startsWith("9 · "), plan().name());
        fx(() -> {
            MenuButton kept = robot.lookup("#plan-kept").queryAs(MenuButton.class);
            kept.getItems().stream().filter(item -> item.getText().contains("earlier")).findFirst().orElseThrow()
                    .fire();
            return null;
        });
        tried();
        assertEquals(plan().longTerms().words(), first);
    }
}
