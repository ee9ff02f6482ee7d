package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.demo.ReadyMade;
import stativex.files.ExampleBook;
import stativex.files.AttemptBook;
import stativex.demo.Demo;
import stativex.files.DataFolder;
import stativex.files.EntrySetup;
import stativex.files.StrategyDraft;
import stativex.market.Side;
import stativex.order.Order;

/** The Rules stage as a person works it: from an idea to marks on the chart. */
public class RulesStageTest extends DeskTest {
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

    private StrategyDraft draft() {
        return fx(() -> window.rulesStage().draft());
    }

    private boolean there(String id) {
        return fx(() -> robot.lookup(id).tryQuery().filter(Node::isVisible).isPresent());
    }

    private CodeArea area() {
        return robot.lookup("#rule-text").queryAs(CodeArea.class);
    }

    private String ruleText() {
        return fx(() -> area().getText());
    }

    private void type(String id, String value) {
        press(id);
        robot.clickOn(id).push(KeyCode.SHORTCUT, KeyCode.A).write(value).push(KeyCode.ENTER);
        shown();
    }

    /** Goes there by keyboard, which scrolls it into view, and presses it. */
    private void press(String id) {
        Node node = robot.lookup(id).query();
        fx(() -> {
            node.requestFocus();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
        robot.clickOn(id);
        shown();
    }

    private void choose(String id, String item) {
        ComboBox<String> box = robot.lookup(id).queryComboBox();
        fx(() -> {
            box.requestFocus();
            box.getSelectionModel().select(item);
            return null;
        });
        shown();
    }

    /** Begins one of the ready-made strategies. */
    private void begin(String id) {
        MenuButton menu = robot.lookup("#strategy-new").queryAs(MenuButton.class);
        fx(() -> {
            menu.getItems().stream().filter(item -> id.equals(item.getId()) || id.equals(item.getText())).findFirst()
                    .orElseThrow().fire();
            return null;
        });
        shown();
    }

    private String held(int row) {
        String facts = text("#row-facts-" + row);
        return facts.substring(facts.indexOf('·') + 1).strip();
    }

    private Point2D onChart(double x, double y) {
        Bounds bounds = fx(() -> {
            Node chart = robot.lookup("#rules-chart").query();
            return chart.localToScreen(chart.getBoundsInLocal());
        });
        return new Point2D(bounds.getMinX() + x, bounds.getMinY() + y);
    }

    @Test
    public void fromAnIdeaToMarksOnTheChart() throws Exception {
        begin("Empty");
        assertTrue(text("#rules-state").contains("no rule yet"), text("#rules-state"));
        // rows first; the text follows
        robot.clickOn("#row-add");
        shown();
        assertEquals(ruleText(), "close > open");
        String up = held(0);
        choose("#row-relation-0", "is below");
        assertEquals(ruleText(), "close < open");
        assertFalse(held(0).equals(up), "the lane changed: " + up);
        type("#row-left-0", "high");
        choose("#row-relation-0", "rises through");
        assertEquals(ruleText(), "high rises through open");
        choose("#row-timing-0", "on any of the last");
        assertEquals(ruleText(), "high rises through open on any of the last 4 bars");
        type("#row-bars-0", "3");
        assertEquals(ruleText(), "high rises through open on any of the last 3 bars");
        assertEquals(fx(() -> scene.getFocusOwner().getId()), "row-bars-0", "the keyboard stays where it was");
        // a study, and a condition about it
        robot.clickOn("#study-add");
        shown();
        type("#study-name", "drift");
        type("#study-length", "34");
        assertEquals(draft().studies().getFirst().words(), "EMA 34 of close");
        robot.clickOn("#row-add");
        shown();
        choose("#row-relation-1", "is rising");
        type("#row-left-1", "drift");
        type("#row-right-1", "5 bars");
        assertEquals(ruleText(),
                "high rises through open on any of the last 3 bars\nand drift is rising over 5 bars");
        // then the text; the rows follow
        robot.clickOn("#rule-text").push(KeyCode.SHORTCUT, KeyCode.END).push(KeyCode.ENTER)
                .write("and (delta > 0 or close > open)").push(KeyCode.ESCAPE);
        shown();
        assertTrue(there("#row-2"));
        assertTrue(there("#row-remove-2"), "what rows cannot express is one row of text");
        String count = text("#lanes-count");
        assertTrue(count.matches("would enter \\d+ times? in view.*"), count);
        // an error stands under the word, the lanes stay, and mending it brings the rows back
        robot.clickOn("#rule-text").push(KeyCode.SHORTCUT, KeyCode.END).write(" and drfit > 3").push(KeyCode.ESCAPE);
        shown();
        assertTrue(text("#rule-said").contains("did you mean \"drift\""), text("#rule-said"));
        assertTrue(text("#rules-state").contains("drfit"), text("#rules-state"));
        for (int i = 0; i < "drfit > 3".length(); i++) {
            robot.push(KeyCode.BACK_SPACE);
        }
        robot.write("volume > 3").push(KeyCode.ESCAPE);
        shown();
        assertFalse(there("#rule-said"));
        assertTrue(there("#row-3"));
        robot.clickOn("#row-remove-3");
        shown();
        assertTrue(ruleText().endsWith("(delta > 0 or close > open)"), ruleText());
        // the other side
        robot.clickOn("#side-short").clickOn("#mirror");
        shown();
        assertEquals(ruleText(), "low falls through open on any of the last 3 bars\nand drift is falling over 5 bars\n"
                + "and (delta < 0 or close < open)");
        // renaming the study renames it in the rules
        type("#study-name", "tide");
        assertTrue(draft().rule(Side.LONG).contains("tide is rising") && ruleText().contains("tide is falling"),
                draft().text());
        // taken back, one step at a time
        robot.clickOn(onChart(300, 100)).push(KeyCode.SHORTCUT, KeyCode.Z);
        shown();
        assertTrue(ruleText().contains("drift is falling"), ruleText());
        assertTrue(text("#rules-state").contains("no exit plan chosen"), text("#rules-state"));
        picture("rules-story");
        // everything was kept as it was done
        Path kept = DataFolder.path().resolve("strategies").resolve("new-strategy.strategy.json");
        assertEquals(Files.readString(kept), draft().text());
    }

    @Test
    public void hereShouldBeOneIsAnswered() {
        robot.moveTo(onChart(420, 120)).clickOn(onChart(420, 120));
        shown();
        assertTrue(text("#why-heading").matches("Bar \\w{3} \\d+ \\w{3} \\d\\d:\\d\\d:\\d\\d — why not"),
                text("#why-heading"));
        assertTrue(text("#why-sentence").matches("\\d of 4 held; .*missed by.*"), text("#why-sentence"));
        Set<Node> failed = robot.lookup(".why-failed").queryAll();
        assertFalse(failed.isEmpty());
        // by keyboard: the crosshair goes one bar on, Enter asks about it
        String before = text("#why-heading");
        robot.push(KeyCode.RIGHT).push(KeyCode.ENTER);
        shown();
        assertFalse(text("#why-heading").equals(before), before);
        // a cell of the lanes asks as well
        Bounds lanes = fx(() -> {
            Node node = robot.lookup("#rules-lanes").query();
            return node.localToScreen(node.getBoundsInLocal());
        });
        robot.clickOn(new Point2D(lanes.getMinX() + 300, lanes.getMinY() + 10));
        shown();
        assertFalse(text("#why-heading").equals(before), before);
        picture("rules-why");
    }

    /** Bars are marked, a rule that holds on them is found among many, used, and taken back with one step. */
    @Test
    public void aRuleIsFoundFromMarkedBars() {
        until("the chart is there", 60, () -> !window.rulesStage().isBusy());
        String before = fx(() -> window.rulesStage().draft().text());
        for (int x : new int[]{240, 300, 420}) {
            robot.clickOn(onChart(x, 120));
            WaitForAsyncUtils.waitForFxEvents();
            robot.clickOn("#example-right");
        }
        robot.clickOn(onChart(360, 120)).clickOn("#example-wrong");
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#example-words").startsWith("3 bars marked as right"), text("#example-words"));
        assertEquals(fx(() -> robot.lookup("#example-wrong").queryAs(Button.class).getText()), "Not wrong");
        robot.clickOn("#example-find");
        until("rules were found", 60, () -> !window.rulesStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
        picture("examples");
        List<Button> use = fx(() -> List.copyOf(robot.from(robot.lookup("#example-offers").queryParent())
                .lookup("#example-use").queryAllAs(Button.class)));
        assertEquals(use.size(), 20);
        fx(() -> {
            use.getFirst().fire();
            return null;
        });
        until("it is on the chart", 60, () -> !window.rulesStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(!fx(() -> window.rulesStage().draft().text()).equals(before));
        assertTrue(fx(() -> window.rulesStage().draft().rule(Side.LONG)).contains("and "), "a conjunction");
        assertTrue(text("#rules-state").startsWith("complete"), text("#rules-state"));
        assertTrue(AttemptBook.own().count("TDL", "Ebb fade", Demo.DAY, Demo.DAY) > 1000, "each was an attempt");
        robot.push(KeyCode.SHORTCUT, KeyCode.Z);
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(fx(() -> window.rulesStage().draft().text()), before);
        // another window knows the marks
        assertEquals(ExampleBook.own("Ebb fade").rights(Side.LONG), 3);
    }

    @Test
    public void completionOffersNamesAndHelp() {
        robot.clickOn("#rule-text").push(KeyCode.SHORTCUT, KeyCode.END).write(" and dri");
        until("words are offered", () -> robot.lookup("#rule-offers").tryQuery().isPresent());
        ListView<?> offers = robot.lookup("#rule-offers").queryListView();
        assertTrue(fx(() -> offers.getItems().getFirst().toString()).contains("drift"));
        robot.push(KeyCode.ENTER).write(" > mean").push(KeyCode.ESCAPE);
        shown();
        assertTrue(ruleText().endsWith("and drift > mean"), ruleText());
        assertFalse(there("#rule-said"));
    }

    @Test
    public void aWrongEntryIsSaidWhereItIsMadeAndNothingIsLost() {
        String rule = ruleText();
        type("#row-right-1", "4 +");
        assertTrue(text("#row-problem").contains("expected"), text("#row-problem"));
        assertEquals(ruleText(), rule);
        robot.clickOn("#studies-list");
        Node list = robot.lookup("#studies-list").query();
        robot.clickOn(fx(() -> list.localToScreen(30, 60)));
        shown();
        type("#study-length", "0");
        assertTrue(text("#study-problem").contains("from 1 to 100000"), text("#study-problem"));
        assertEquals(draft().studies().get(1).settings().get("length"), "21");
    }

    @Test
    public void theEntryIsSaidInWordsAndCanBeTakenToRun() {
        assertTrue(text("#entry-sentence").startsWith("Buys 2 at the market, when all of it holds at a bar's close"),
                text("#entry-sentence"));
        choose("#entry-order", "limit");
        assertTrue(text("#rules-state").contains("no price yet"), text("#rules-state"));
        assertTrue(fx(() -> robot.lookup("#strategy-run").query().isDisabled()));
        type("#entry-price", "close - 2 ticks");
        choose("#entry-good", "bars");
        robot.clickOn("#side-short");
        type("#entry-price", "close + 2 ticks");
        assertEquals(text("#rules-state"), "complete");
        assertTrue(text("#entry-sentence").startsWith("Sells 2 at a limit of close + 2 ticks, good for 3 bars"),
                text("#entry-sentence"));
        choose("#entry-evaluate", "on every trade");
        until("withdrawn signals are known",
                () -> robot.lookup("#rules-lanes").query().getAccessibleText().contains("withdrawn on"));
        picture("rules-flickers");
        press("#entry-confirm");
        assertTrue(fx(() -> robot.lookup("#entry-confirm").queryAs(CheckBox.class).isSelected()));
        assertTrue(draft().signals().orElseThrow().confirmWithin().isPresent());
        robot.clickOn("#strategy-run");
        until("the Run stage has it", () -> window.workspace() != workspace);
        assertEquals(window.workspace().inputs().strategies().getFirst().entry().type(), Order.Type.LIMIT);
        assertTrue(Files.isDirectory(DataFolder.path().resolve("strategies").resolve("versions")));
    }

    @Test
    public void aSideCanEnterInItsOwnWay() {
        robot.clickOn("#side-short");
        press("#entry-apart");
        choose("#entry-order", "stop");
        type("#entry-price", "low - 1 tick");
        type("#entry-quantity", "1");
        assertEquals(text("#rules-state"), "complete");
        assertTrue(text("#entry-sentence").startsWith("Sells 1 at a stop of low - 1 tick"), text("#entry-sentence"));
        picture("rules-apart");
        robot.clickOn("#side-long");
        shown();
        assertTrue(text("#entry-sentence").startsWith("Buys 2 at the market"), text("#entry-sentence"));
        assertFalse(fx(() -> robot.lookup("#entry-apart").queryAs(CheckBox.class).isSelected()));
        robot.clickOn("#strategy-run");
        until("the Run stage has it", () -> window.workspace() != workspace);
        var taken = window.workspace().inputs().strategies().getFirst();
        assertEquals(taken.entry(Side.SHORT).type(), Order.Type.STOP);
        assertEquals(taken.entry(Side.LONG).type(), Order.Type.MARKET);
    }

    @Test
    public void readyMadeStrategiesOtherBarsAndNames() {
        begin("new-spring-trend");
        assertEquals(text("#rules-state"), "complete");
        assertTrue(there("#entry-filter-0"));
        assertTrue(there("#other-trend"), "each series has its own chart");
        picture("rules-spring");
        String with = text("#lanes-count");
        press("#entry-filter-0");
        assertFalse(draft().signals().orElseThrow().filters().getFirst().on(), with);
        type("#strategy-name", "Spring tide");
        assertEquals(draft().name(), "Spring tide");
        choose("#bars-kind", "renko");
        assertEquals(draft().signals().orElseThrow().bars().type().words(), "renko 3:6");
        robot.clickOn("#strategy-remove").clickOn("#strategy-remove");
        shown();
        assertEquals(draft().name(), "Ebb fade");
        TextInputControl name = robot.lookup("#strategy-name").queryTextInputControl();
        assertEquals(fx(name::getText), "Ebb fade");
        Labeled title = robot.lookup("#rules-title").queryLabeled();
        assertTrue(fx(title::getText).endsWith("Ebb fade"));
    }

    /** Each of them is complete, drawn, and asked about a bar. */
    @Test
    public void everyReadyMadeStrategyCanBeLookedAt() {
        for (ReadyMade ready : ReadyMade.all()) {
            begin("new-" + ready.file());
            assertEquals(text("#rules-state"), "complete", ready.file());
            Node chart = robot.lookup("#rules-chart").query();
            fx(() -> {
                chart.requestFocus();
                return null;
            });
            robot.push(KeyCode.LEFT).push(KeyCode.LEFT).push(KeyCode.ENTER);
            shown();
            assertTrue(text("#why-heading").startsWith("Bar "), ready.file());
            assertTrue(text("#entry-sentence").startsWith("Buys "), text("#entry-sentence"));
        }
        begin("new-channel-turn");
        assertTrue(text("#entry-sentence").endsWith("Turns an opposite position round."), text("#entry-sentence"));
        begin("new-spring-trend");
        assertTrue(text("#entry-sentence").contains("Only while "), text("#entry-sentence"));
    }

    @Test
    public void seriesFiltersGradesAndDrawnLinesAreEdited() {
        robot.clickOn("#series-add");
        shown();
        assertEquals(draft().series().getFirst().name(), "trend");
        assertTrue(there("#other-trend"));
        robot.clickOn("#rule-text").push(KeyCode.SHORTCUT, KeyCode.END).write(" and trend.close > open")
                .push(KeyCode.ESCAPE);
        shown();
        assertFalse(there("#rule-said"), "the rule may speak of the series");
        // a filter, for the long side only, and off again
        press("#entry-filter-add");
        type("#entry-filter-rule-0", "reach > 6 ticks");
        assertEquals(draft().signals().orElseThrow().filters().getFirst().longRule().orElseThrow(), "reach > 6 ticks");
        assertTrue(draft().signals().orElseThrow().filters().getFirst().shortRule().isEmpty());
        press("#entry-filter-0");
        assertFalse(draft().signals().orElseThrow().filters().getFirst().on());
        // a wrong one says so
        type("#entry-filter-rule-0", "raech > 6 ticks");
        assertTrue(text("#rules-state").contains("filters[0] long") && text("#rules-state").contains("did you mean"),
                text("#rules-state"));
        type("#entry-filter-rule-0", "reach > 6 ticks");
        press("#entry-grade-add");
        assertEquals(draft().side(Side.LONG).orElseThrow().enters(), java.util.List.of("grade"));
        // the only grade cannot be kept from entering
        press("#entry-grade-0");
        assertEquals(draft().side(Side.LONG).orElseThrow().enters(), java.util.List.of("grade"));
        press("#entry-reverse");
        assertTrue(EntrySetup.reverses(draft()));
        assertEquals(text("#rules-state"), "complete");
        // a line is drawn, named in a rule, and goes into the strategy as it stands
        robot.clickOn(onChart(300, 120)).push(KeyCode.L);
        shown();
        String name = fx(() -> stativex.files.DrawingFile.own(workspace.inputs().contract()).read().getFirst().name());
        robot.clickOn("#rule-text").push(KeyCode.SHORTCUT, KeyCode.END).write(" and close < drawn \"" + name + "\"")
                .push(KeyCode.ESCAPE);
        shown();
        assertFalse(there("#rule-said"));
        assertEquals(draft().signals().orElseThrow().drawings().getFirst().name(), name);
        picture("rules-full");
    }

    /** The trend of a thinner market decides for another one: seen in its own prices, never mixed with the traded ones. */
    @Test
    public void aSeriesOfAnotherContractIsLookedAt() {
        press("#series-add");
        choose("#series-contract-0", "MNH");
        assertEquals(draft().series().getFirst().contract(), Optional.of("MNH"));
        assertEquals(text("#rules-state"), "complete");
        type("#series-0-size", "300");
        fx(() -> {
            area().replaceText("close > open and trend.close > 60.00 and trend.close rising over 3 bars");
            return null;
        });
        shown();
        assertEquals(text("#rules-state"), "complete");
        robot.clickOn(onChart(420, 120));
        shown();
        Set<String> numbers = fx(() -> robot.lookup("#why .figures").queryAllAs(Label.class).stream()
                .map(Label::getText).collect(Collectors.toSet()));
        assertTrue(numbers.stream().anyMatch(n -> n.matches("(?s)trend.close \\d\\d\\.\\d[05].*")),
                "in the decimals of MNH: " + numbers);
        picture("rules-other-contract");
        // prices of two contracts have nothing to do with each other
        fx(() -> {
            area().replaceText("trend.close > close");
            return null;
        });
        shown();
        assertTrue(text("#rule-said").contains("trend.close counts ticks of MNH"), text("#rule-said"));
        fx(() -> {
            area().replaceText("close > open and trend.close > trend.open");
            return null;
        });
        shown();
        robot.clickOn("#strategy-run");
        until("the Run stage has it", () -> window.workspace() != workspace);
        assertEquals(window.workspace().documents().others().getFirst().reference(), "demo MNH");
        assertTrue(window.workspace().inputs().others().containsKey("MNH"));
    }

    /** A study that no tape of this length can warm up is never a silent false. */
    @Test
    public void aRuleThatIsNeverJudgedSaysWhy() {
        Node list = robot.lookup("#studies-list").query();
        robot.clickOn(fx(() -> list.localToScreen(30, 100)));
        shown();
        type("#study-length", "90000");
        assertEquals(draft().studies().get(2).settings().get("length"), "90000");
        fx(() -> {
            area().replaceText("reach > 4 ticks");
            return null;
        });
        shown();
        assertEquals(text("#lanes-count"), "absent on every bar of this tape: reach is warming up");
    }

    @Test
    public void outputsThatAreNotPickedAreNotDrawn() {
        Node list = robot.lookup("#studies-list").query();
        robot.clickOn(fx(() -> list.localToScreen(30, 20)));
        shown();
        // the demo's own choice leaves the deviation out
        press("#study-show-main");
        assertEquals(draft().studies().getFirst().settings().get("show"), "upper+lower");
        assertEquals(text("#rules-state"), "complete", "rules may use what is not drawn");
        assertEquals(fx(() -> scene.getFocusOwner().getId()), "study-show-main", "the keyboard stays where it was");
        assertFalse(fx(() -> robot.lookup(".studies").queryLabeled().getText()).contains("deviation"));
        choose("#study-ink", "teal");
        assertEquals(draft().studies().getFirst().ink(), "teal");
        picture("rules-picked");
        choose("#study-ink", "ink");
        assertFalse(draft().studies().getFirst().settings().containsKey("ink"), "the default is not written");
    }

    /** What is under way in the Run stage is not ended without a question. */
    @Test
    public void anEngagedReplayIsRestartedOnlyAfterAQuestion() {
        workspace.replay().command(new stativex.engine.Command.SetMode(0, stativex.engine.Mode.ENGAGED));
        until("it is engaged", () -> strategy().mode() == stativex.engine.Mode.ENGAGED);
        robot.clickOn("#strategy-run");
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(text("#strategy-run"), "Restart the replay?");
        assertTrue(window.workspace() == workspace);
        robot.clickOn("#strategy-run");
        until("the Run stage has it", () -> window.workspace() != workspace);
    }
}
