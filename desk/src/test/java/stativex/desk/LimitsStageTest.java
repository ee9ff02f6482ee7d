package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.ContractLimits;
import stativex.account.Rulebook;
import stativex.files.AccountLog;
import stativex.files.DocumentFolder;
import stativex.files.StrategySetup;
import stativex.interlock.SessionWindow;
import stativex.market.Money;

/** The Limits stage as a person works it: hours by the mouse and by keys, a calendar, own limits, rulebooks. */
public class LimitsStageTest extends DeskTest {
    @BeforeMethod(dependsOnMethods = "openWindow")
    public void goToLimits() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT4);
        judged();
    }

    private void judged() {
        WaitForAsyncUtils.waitForFxEvents();
        until("past days are judged", 120, () -> !window.limitsStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private List<SessionWindow> windows() {
        return fx(() -> StrategySetup.windows(window.rulesStage().draft()));
    }

    private String field(String id) {
        return fx(() -> robot.lookup(id).queryAs(TextInputControl.class).getText());
    }

    private String said(String id) {
        return fx(() -> robot.lookup(id).query().getAccessibleText());
    }

    private void select(String entry) {
        fx(() -> {
            window.limitsStage().open(entry);
            return null;
        });
        judged();
    }

    private void type(String id, String text) {
        robot.clickOn(id).push(KeyCode.SHORTCUT, KeyCode.A).write(text).push(KeyCode.ENTER);
        judged();
    }

    private void press(String id) {
        fx(() -> {
            robot.lookup(id).queryButton().fire();
            return null;
        });
        judged();
    }

    private Account account() {
        return fx(() -> window.workspace().inputs().account());
    }

    @Test
    public void aDraggedWindowMovesFieldsWordsAndTheStrategy() {
        picture("limits");
        assertEquals(windows().getFirst().to(), LocalTime.of(11, 30));
        Point2D end = fx(() -> window.limitsStage().edge(0, true).orElseThrow());
        robot.moveTo(end).press(MouseButton.PRIMARY).moveTo(end.add(12, 0)).moveTo(end.add(26, 0))
                .release(MouseButton.PRIMARY);
        judged();
        LocalTime later = windows().getFirst().to();
        assertTrue(later.isAfter(LocalTime.of(12, 0)) && later.isBefore(LocalTime.of(13, 0)), later.toString());
        assertEquals(later.getMinute() % 5, 0, "whole steps");
        assertEquals(field("#window-to-0"), later.toString());
        assertTrue(text("#limits-day-said").contains("Morning from 09:45 to " + later), text("#limits-day-said"));
        // one step back, then the keys: the whole window, its end, its beginning
        robot.push(KeyCode.SHORTCUT, KeyCode.Z);
        judged();
        assertEquals(windows().getFirst().to(), LocalTime.of(11, 30));
        fx(() -> {
            robot.lookup("#limits-day-picture").query().requestFocus();
            return null;
        });
        robot.push(KeyCode.RIGHT).push(KeyCode.SHIFT, KeyCode.RIGHT).push(KeyCode.ALT, KeyCode.LEFT);
        judged();
        assertEquals(windows().getFirst().from(), LocalTime.of(9, 45));
        assertEquals(windows().getFirst().to(), LocalTime.of(11, 40));
        robot.push(KeyCode.N).push(KeyCode.RIGHT);
        judged();
        assertEquals(windows().get(1).from(), LocalTime.of(13, 5), "N picks the next one");
        // typed to the minute, with limits of its own
        type("#window-from-0", "9:54");
        type("#window-loss-0", "150");
        assertEquals(windows().getFirst().from(), LocalTime.of(9, 54));
        assertEquals(windows().getFirst().limits().loss(), Optional.of(150 * Money.UNIT));
        assertTrue(said("#limits-day-picture").contains("Morning from 09:54"), said("#limits-day-picture"));
    }

    @Test
    public void theDaysAroundAChangeOfClocksAreFoundAndSaid() {
        assertTrue(text("#limits-day").contains("24 h · clocks change on Sunday"), text("#limits-day"));
        press("#limits-change");
        assertTrue(text("#limits-day").contains("28 Sep") && text("#limits-day").contains("clocks changed on Sunday"),
                text("#limits-day"));
        press("#limits-change");
        assertTrue(text("#limits-day").contains("your clocks changed on Sunday"), text("#limits-day"));
        press("#limits-before");
        assertTrue(text("#limits-day").contains("your clocks change on Sunday"), text("#limits-day"));
    }

    @Test
    public void ownLimitsAreSwitchesAndSayWhatTheyAreWorth() {
        select("Own limits");
        assertTrue(text("#own-account-worth").contains("2.3 full stop-outs"), text("#own-account-worth"));
        type("#own-account-day-loss-first", "300.00");
        assertEquals(account().own().dayLoss().orElseThrow().amount(), 300 * Money.UNIT);
        assertTrue(text("#own-account-worth").contains("fewer than two"), text("#own-account-worth"));
        robot.clickOn("#own-account-day-profit");
        judged();
        assertEquals(account().own().dayProfit(), Optional.empty(), "off by a switch");
        assertEquals(field("#own-account-day-profit-first"), "1040.00", "its amount stays");
        robot.clickOn("#own-contract-trades");
        type("#own-contract-trades-first", "3");
        assertEquals(account().limits("TDL").tradesADay(), Optional.of(3));
        type("#own-contract-trades-first", "no");
        assertTrue(text("#own-contract-said").contains("expected a whole number"), text("#own-contract-said"));
        assertEquals(account().limits("TDL"), new ContractLimits(account().limits("TDL").day(), Optional.of(3),
                Optional.empty()), "what does not read changes nothing");
        press("#own-tenth-whole");
        assertEquals(account().own().dayLoss().orElseThrow().amount(), 170 * Money.UNIT, "a tenth of 1 700");
        assertEquals(account().own().dayProfit(), Optional.of(340 * Money.UNIT));
        assertEquals(DocumentFolder.accounts().find("Gannet Row 40K").orElseThrow().value(), account(), "kept");
        robot.clickOn("#own-strategy-day-loss");
        type("#own-strategy-day-loss-first", "200");
        assertTrue(fx(() -> window.rulesStage().draft().strategy().value().limits().day().loss().isPresent()));
    }

    @Test
    public void aCalendarIsBroughtInAndFiltered() throws Exception {
        select("Quiet times");
        assertTrue(text("#quiet-counted").contains("high"), text("#quiet-counted"));
        Path calendar = Files.createTempDirectory("calendar").resolve("more.csv");
        Files.writeString(calendar, "time,title,country,impact\n2026-09-24T02:00:00Z,Tide table,NZ,high\n");
        chosen = Optional.of(calendar);
        int before = account().own().quietTimes().releases().size();
        press("#quiet-bring");
        assertEquals(account().own().quietTimes().releases().size(), before + 1);
        assertTrue(text("#limits-quiet-said").contains("Tide table 14:00"), text("#limits-quiet-said"));
        picture("limits-quiet");
        type("#quiet-titles", "tide");
        assertEquals(account().own().quietTimes().releases().size(), 1);
        Files.writeString(calendar, "time,title,country,impact\nnot a time,Tide table,NZ,high\n");
        press("#quiet-bring");
        assertTrue(text("#quiet-said").contains("line 2"), text("#quiet-said"));
        assertEquals(account().own().quietTimes().releases().size(), 1, "nothing is lost");
    }

    @Test
    public void aRulebookIsCopiedChangedAndGivenToTheAccount() throws Exception {
        select("Skerry Static 25K");
        assertTrue(said("#limits-path").contains("broken") || said("#limits-path").contains("over on"),
                said("#limits-path"));
        assertTrue(fx(() -> cards().stream().anyMatch(c -> c.startsWith("Day loss: broken"))), cards().toString());
        press("#book-edit");
        String copy = "Skerry Static 25K copy";
        assertEquals(field("#book-name"), copy);
        type("#book-day-loss-amount", "900");
        Rulebook kept = DocumentFolder.rulebooks().find(copy).orElseThrow().value();
        assertEquals(kept.of(Rulebook.DayLoss.class).findFirst().orElseThrow().amount(), 900 * Money.UNIT);
        assertFalse(said("#limits-path").contains("over on"), "with more room it holds: " + said("#limits-path"));
        type("#book-size-tiers", "500 3, 400 4");
        assertTrue(text("#book-said").contains("higher profit"), text("#book-said"));
        type("#book-size-tiers", "400 3, 500 4");
        assertEquals(text("#book-said"), "");
        MenuButton more = robot.lookup("#book-more").queryAs(MenuButton.class);
        fx(() -> {
            more.getItems().stream().filter(i -> i.getId().equals("book-more-consistency")).findFirst().orElseThrow()
                    .fire();
            return null;
        });
        judged();
        picture("rulebook");
        press("#book-edit");
        assertTrue(cards().stream().anyMatch(c -> c.startsWith("Consistency")), cards().toString());
        press("#book-give");
        assertEquals(account().rulebook().name(), "Gannet Row 40K", "it is asked first");
        assertTrue(text("#book-give-asked").contains("in place of Gannet Row 40K"), text("#book-give-asked"));
        press("#book-give-yes");
        assertEquals(account().rulebook().name(), copy);
        assertTrue(
                Files.readString(AccountLog.path()).contains("\"Gannet Row 40K\",rulebook,\"Gannet Row 40K\",\"" + copy
                        + "\""));
        ListView<?> list = robot.lookup("#limits-list").queryAs(ListView.class);
        assertTrue(fx(() -> list.getItems().get(3).toString()).contains(copy), "it is the account's now");
    }

    private List<String> cards() {
        return fx(() -> robot.lookup("#rule-cards").queryParent().getChildrenUnmodifiable().stream()
                .map(Node::getAccessibleText).toList());
    }

    @Test
    public void oddsAreDrawnAndSaidAndCanBeCancelled() {
        String odds = said("#limits-odds");
        assertTrue(odds.contains("reaches the target first"), odds);
        assertTrue(text("#limits-odds-said").contains("5 days, not sealed"), text("#limits-odds-said"));
        fx(() -> {
            window.limitsStage().open("Fulmar Close 100K");
            robot.lookup("#limits-cancel").queryButton().fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
        assertFalse(fx(() -> window.limitsStage().isBusy()));
        assertEquals(said("#limits-odds"), "Not drawn: cancelled.");
    }
}
