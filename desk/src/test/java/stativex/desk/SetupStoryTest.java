package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.engine.Sizing;
import stativex.engine.Strategy;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.files.StrategyDraft;
import stativex.interlock.CoolDown;
import stativex.interlock.SessionWindow;
import stativex.market.BarSettings;
import stativex.market.Side;

/** A strategy from Empty to one that runs, without a document being seen. */
public class SetupStoryTest extends DeskTest {
    @BeforeMethod(dependsOnMethods = "openWindow")
    public void goToRules() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT2);
        shown();
    }

    private void shown() {
        WaitForAsyncUtils.waitForFxEvents();
        until("the rules are on the chart", () -> !window.rulesStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void begin(String text) {
        MenuButton menu = robot.lookup("#strategy-new").queryAs(MenuButton.class);
        fx(() -> {
            menu.getItems().stream().filter(item -> text.equals(item.getText())).findFirst().orElseThrow().fire();
            return null;
        });
        shown();
    }

    /** Goes there by keyboard, which scrolls it into view, and presses it. */
    private void press(String id) {
        focus(id);
        robot.push(KeyCode.SPACE);
        shown();
    }

    private void focus(String id) {
        Node node = robot.lookup(id).query();
        fx(() -> {
            node.requestFocus();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void type(String id, String value) {
        focus(id);
        robot.push(KeyCode.SHORTCUT, KeyCode.A).write(value).push(KeyCode.ENTER);
        shown();
    }

    private void choose(String id, String item) {
        ComboBox<String> box = robot.lookup(id).queryComboBox();
        fx(() -> {
            box.getSelectionModel().select(item);
            return null;
        });
        shown();
    }

    private StrategyDraft draft() {
        return fx(() -> window.rulesStage().draft());
    }

    private Strategy strategy(StrategyDraft of) {
        return of.strategy().value();
    }

    @Test
    public void emptyLeadsToAStrategyThatRuns() {
        begin("Empty");
        assertTrue(text("#rules-state").contains("no rule yet"), text("#rules-state"));
        robot.clickOn("#row-add");
        shown();
        assertTrue(text("#rules-state").contains("no exit plan"), text("#rules-state"));
        press("#plan-make");
        assertEquals(text("#rules-state"), "complete");
        // the plan in fields; what the fields say is what the strategy has
        type("#plan-stop", "16");
        type("#target-ticks-0", "14");
        press("#target-runner");
        press("#trail-more");
        press("#plan-breakeven");
        type("#plan-name", "Steps of mine");
        ExitPlan plan = strategy(draft()).plan();
        assertEquals(plan.name(), "Steps of mine");
        assertEquals(plan.longTerms().stop().orElseThrow().distance(), new Distance.Ticks(16));
        assertEquals(plan.longTerms().targets(),
                List.of(new ExitTerms.Target(1, Optional.of(new Distance.Ticks(14))),
                        new ExitTerms.Target(1, Optional.empty())));
        assertEquals(plan.longTerms().trail(), List.of(new ExitTerms.TrailStep(16, 12, 1)));
        assertEquals(plan.longTerms().breakeven(), Optional.of(new ExitTerms.Breakeven(12, 1)));
        assertTrue(text("#rules-state").contains("the targets sum to 2"), text("#rules-state"));
        // what contradicts itself is said beside the fields, and nothing is changed
        type("#plan-offset", "12");
        assertTrue(text("#plan-said").contains("below its trigger"), text("#plan-said"));
        assertEquals(strategy(draft()).plan().longTerms().breakeven(), Optional.of(new ExitTerms.Breakeven(12, 1)));
        type("#plan-offset", "2");
        type("#entry-quantity", "2");
        assertEquals(text("#rules-state"), "complete");
        // hours
        press("#window-more");
        type("#window-to-0", "12:30");
        press("#window-friday-0");
        choose("#window-end-0", "cancel");
        SessionWindow window = strategy(draft()).windows().getFirst();
        assertEquals(window.to().toString(), "12:30");
        assertEquals(window.days().size(), 4);
        assertEquals(window.end(), SessionWindow.End.CANCEL);
        type("#window-from-0", "quarter to ten");
        assertTrue(text("#window-said").contains("expected a time such as 09:45"), text("#window-said"));
        assertEquals(strategy(draft()).windows(), List.of(window));
        type("#window-from-0", "9:15");
        assertEquals(strategy(draft()).windows().getFirst().from().toString(), "09:15");
        // day, history, bars, note
        press("#trades-limited");
        type("#trades-a-day", "4");
        type("#history-days", "2");
        press("#bars-session-1");
        choose("#bars-restart", "day");
        focus("#strategy-note");
        robot.write("my first one");
        focus("#history-days");
        shown();
        Strategy made = strategy(draft());
        assertEquals(made.tradesADay(), Optional.of(4));
        assertEquals(made.historyDays(), 2);
        assertEquals(made.signals().bars().restart(), BarSettings.Restart.DAY);
        assertEquals(made.signals().bars().sessions(), Set.of(fx(() -> ((javafx.scene.control.CheckBox) robot
                .lookup("#bars-session-0").query()).getText())));
        assertTrue(draft().text().contains("my first one"));
        picture("setup");
        // it runs
        robot.clickOn("#strategy-run");
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(fx(() -> this.window.workspace().inputs().strategies().getFirst().name()), "New strategy");
        assertEquals(fx(() -> this.window.workspace().inputs().strategies().getFirst().plan().name()), "Steps of mine");
    }

    @Test
    public void whatHoldsEntriesBackIsSetInTheWindow() {
        press("#cool-down");
        type("#cool-down-length", "7");
        press("#cool-down-losses");
        assertEquals(strategy(draft()).limits().coolDown(),
                Optional.of(new CoolDown(OptionalInt.of(7), OptionalInt.empty(), true)));
        fx(() -> {
            robot.lookup("#cool-down-unit").queryAs(ComboBox.class).getSelectionModel().select(1);
            return null;
        });
        shown();
        assertEquals(strategy(draft()).limits().coolDown(),
                Optional.of(new CoolDown(OptionalInt.empty(), OptionalInt.of(7), true)));
        press("#spread-limited");
        type("#spread-ticks", "3");
        assertEquals(strategy(draft()).limits().largestSpread(), Optional.of(3));
        picture("setup-limits");
        press("#cool-down");
        press("#spread-limited");
        assertEquals(strategy(draft()).limits().coolDown(), Optional.empty());
        assertEquals(strategy(draft()).limits().largestSpread(), Optional.empty());
        choose("#entry-order", 1);
        type("#entry-price", "close - 2 ticks");
        press("#entry-toward");
        assertTrue(strategy(draft()).entry(Side.LONG).towardMarket());
    }

    /** Eight contracts at most, by what a stop-out may cost, cut to what fits; a stop-limit; both sides as a pair. */
    @Test
    public void whatAnEntryTakesAndCostsIsSetInTheWindow() {
        type("#entry-quantity", "8");
        choose("#entry-sizing", 1);
        type("#entry-at-risk", "250");
        press("#entry-capped");
        type("#entry-cap", "400.50");
        press("#entry-cuts");
        type("#entry-most", "6");
        choose("#entry-order", 3);
        type("#entry-price", "close + 2 ticks");
        type("#entry-beyond", "3");
        press("#entry-two-sided");
        picture("setup-size");
        Strategy made = strategy(draft());
        assertEquals(made.entry(Side.LONG).risk(),
                new Strategy.Risk(Optional.of(new Sizing.Amount(250_0000)), Optional.of(400_5000L)));
        assertEquals(made.entry(Side.LONG).quantity(), 8);
        assertEquals(made.entry(Side.LONG).limitBeyond(), 3);
        assertEquals(made.maximumPosition(), 6);
        assertTrue(made.limits().joins().cutting() && made.limits().joins().twoSided());
        String said = fx(() -> robot.lookup("#entry-sentence").queryAs(Label.class).getText());
        assertTrue(said.contains("up to 8, so many that a stop-out costs at most 250.00")
                && said.contains("with a limit 3 ticks beyond it")
                && said.contains("A stop-out of more than 400.50 is cut to what fits."), said);
        // a percent, then fixed again; nonsense goes back to what holds
        choose("#entry-sizing", 2);
        type("#entry-at-risk", "12.5");
        assertEquals(strategy(draft()).entry(Side.LONG).risk().sizing(),
                Optional.of(new Sizing.Percent(new BigDecimal("12.5"))));
        type("#entry-cap", "-3");
        assertEquals(strategy(draft()).entry(Side.LONG).risk().cap(), Optional.of(400_5000L));
        choose("#entry-sizing", 0);
        press("#entry-capped");
        press("#entry-cuts");
        press("#entry-two-sided");
        choose("#entry-order", 0);
        assertEquals(strategy(draft()).entry(Side.LONG).risk(), Strategy.Risk.NONE);
    }

    private void choose(String box, int index) {
        fx(() -> {
            robot.lookup(box).queryAs(ComboBox.class).getSelectionModel().select(index);
            return null;
        });
        shown();
    }

    @Test
    public void anExitPlanIsChosenByItsName() {
        begin("Empty");
        MenuButton choose = robot.lookup("#plan-choose").queryAs(MenuButton.class);
        assertFalse(fx(choose::isDisabled));
        String name = fx(() -> choose.getItems().getFirst().getText());
        fx(() -> {
            choose.getItems().getFirst().fire();
            return null;
        });
        shown();
        assertTrue(name.startsWith(draft().exitPlan().orElseThrow() + ": "), name);
        // changes can be taken back
        robot.clickOn("#rules-chart").push(KeyCode.SHORTCUT, KeyCode.Z);
        shown();
        assertEquals(draft().exitPlan(), Optional.empty());
    }
}
