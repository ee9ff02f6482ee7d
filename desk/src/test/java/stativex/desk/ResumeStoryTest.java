package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.account.LockReason;
import stativex.demo.Demo;
import stativex.desk.look.Format;
import stativex.engine.Mode;
import stativex.files.DeskState;
import stativex.files.DocumentFolder;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.files.SealBook;
import stativex.files.StrategyDraft;
import stativex.files.StrategyFolder;
import stativex.files.TrialFolder;
import stativex.files.tape.LayoutGuess;
import stativex.files.tape.Progress;
import stativex.files.tape.TapeImport;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;
import stativex.market.TapeTime;
import stativex.trial.Days;

/** On a tape of one's own: a locked day is still locked after a restart, and sealed dates stay sealed. */
public class ResumeStoryTest extends DeskTest {
    private Path sessions;

    @Override
    void begin() throws Exception {
        workspace = null;
        sessions = Files.createTempDirectory("sessions");
        Path files = Files.createTempDirectory("own");
        Demo.export(files);
        Documents.Read<Contract> contract = Documents.contract(files.resolve("tdl.contract.json"));
        Path ticks = files.resolve("tdl.ticks.csv");
        try (TapeImport job = TapeImport.read(TapeStore.own(), ticks, contract,
                Optional.of(LayoutGuess.of(ticks, contract.value().calendar().zone()).layout()), TapeImport.GAP,
                Progress.NONE)) {
            job.keep("TDL own", false, Set.of());
        }
        DocumentFolder.contracts().keep(contract);
        DocumentFolder.accounts().keep(Documents.account(files.resolve("gannet-row-40k.account.json")));
        StrategyFolder.own().keep(StrategyDraft.of(
                Documents.strategy(files.resolve("ebb-fade.strategy.json")).document()));
        new DeskState(Optional.of("TDL own"), Optional.of("Gannet Row 40K"), Days.ALL, 6).keep();
        own();
    }

    private void own() {
        show(() -> new DeskWindow(Optional.of(sessions), picker));
        workspace = window.workspace();
    }

    private void engage() {
        robot.clickOn("#engaged-0");
        robot.clickOn("#engage-0");
        until("it is engaged", () -> strategy().mode() == Mode.ENGAGED);
    }

    private void worked() {
        WaitForAsyncUtils.waitForFxEvents();
        until("trials are through", 120, () -> !window.trialsStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void press(String id) {
        fx(() -> {
            robot.lookup(id).queryAs(Button.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    public void theLastThirdIsSealedEverywhereAndOpenedOnceForAVersion() {
        robot.push(KeyCode.SHORTCUT, KeyCode.ENTER);
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(robot.lookup("#seal-yes").queryAs(Button.class).getText().endsWith("24 Sep – 24 Sep"));
        picture("seal-offered");
        press("#seal-yes");
        worked();
        assertEquals(SealBook.own().of("TDL").orElseThrow().from(), LocalDate.of(2026, 9, 24));
        assertTrue(text("#trials-subtitle").contains("18 Sep – 23 Sep"), text("#trials-subtitle"));
        picture("sealed");
        // neither marks nor replays know the sealed day
        assertEquals(window.workspace().inputs().days().last(), Optional.of(LocalDate.of(2026, 9, 23)));
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT2);
        until("the rules' chart is there", 60, () -> !window.rulesStage().isBusy());
        long end = fx(() -> window.rulesStage().lastShown());
        assertTrue(end <= TapeTime.first(LocalDate.of(2026, 9, 24).atTime(0, 0),
                window.workspace().inputs().contract().calendar().zone()), "the chart ends before it");
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        hold("#trial-open-seal");
        worked();
        assertTrue(text("#trials-subtitle").contains("24 Sep – 24 Sep"), text("#trials-subtitle"));
        assertEquals(SealBook.own().openings(SealBook.own().of("TDL").orElseThrow()), 1);
        robot.clickOn("#trial-1");
        worked();
        assertTrue(text("#trial-unseen").contains("Opened once"), text("#trial-unseen"));
        assertTrue(fx(() -> robot.lookup("#trials-picture").query().getAccessibleText())
                .endsWith("; 1 days unseen when it was fitted"), "both ranges are in one picture");
        assertEquals(robot.lookup("#trial-pair").queryAs(javafx.scene.layout.GridPane.class).getColumnCount(), 3);
        picture("unseen");
        // the same by bars, and how far that is off
        press("#trial-bars");
        worked();
        assertTrue(text("#trial-bars-words").startsWith("By bars: net ")
                && text("#trial-bars-words").contains("bars with equal extremes"), text("#trial-bars-words"));
        // a second start keeps away from it, too
        closeWindow();
        own();
        assertEquals(window.workspace().inputs().days().last(), Optional.of(LocalDate.of(2026, 9, 23)));
        theBestOfASearchIsHeldAgainstTheUnseenDates();
    }

    /** Opened for the chosen variant in the search; the same version tried and opened as a trial comes to the same, and is counted once. */
    private void theBestOfASearchIsHeldAgainstTheUnseenDates() {
        SealBook.Seal seal = SealBook.own().of("TDL").orElseThrow();
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT5);
        press("#trials-search");
        fx(() -> {
            robot.lookup("#search-least").queryAs(TextField.class).setText("1");
            return null;
        });
        press("#search-start");
        worked();
        assertTrue(robot.lookup("#search-unseen").tryQuery().isEmpty(), "nothing of it is shown before");
        assertTrue(fx(() -> robot.lookup("#search-luck-picture").query().getAccessibleText()).contains("chosen"));
        picture("search-sealed");
        hold("#search-open-seal");
        worked();
        assertEquals(SealBook.own().openings(seal), 2);
        String unseen = text("#search-unseen");
        assertTrue(fx(() -> robot.lookup("#search-unseen-picture").query().getAccessibleText()).contains(" chosen "));
        picture("search-unseen");
        press("#search-use");
        robot.push(KeyCode.SHORTCUT, KeyCode.ENTER);
        worked();
        hold("#trial-open-seal");
        worked();
        assertEquals(SealBook.own().openings(seal), 2, "the same version opens it once");
        assertEquals(Format.signedMoney(TrialFolder.own().list().getFirst().net()), unseen);
    }

    @Test
    public void aLockedDayStaysLockedOverARestart() {
        assertEquals(strategy().strategy().name(), "Ebb fade");
        jumpTo("09:40");
        settled();
        engage();
        jumpTo("14:31");
        until("the day is locked", 60, () -> view().snapshot().account().lock().equals(
                Optional.of(LockReason.DAY_LOSS)));
        settled();
        assertTrue(text("#account").contains("locked, day loss"), text("#account"));
        int trades = view().snapshot().trades().size();
        closeWindow();
        own();
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#notice").contains("with its locks"), text("#notice"));
        assertTrue(text("#account").contains("locked, day loss"), text("#account"));
        assertEquals(strategy().mode(), Mode.OFF);
        assertEquals(view().snapshot().trades().size(), trades, "what was traded is still there");
        picture("resumed");
        engage();
        jumpTo("16:00");
        long four = TapeTime.first(Demo.DAY.atTime(16, 0), workspace.inputs().contract().calendar().zone());
        until("it is four o'clock", 60, () -> view().clock() >= four);
        settled();
        assertEquals(view().snapshot().trades().size(), trades, "and nothing enters today");
        // the file of the resumed session tells the whole of it again
        Path file = workspace.file().orElseThrow();
        closeWindow();
        SessionFile.Session session = SessionFile.read(file, Demo::tape);
        assertEquals(session.run().engine().log().trades().size(), trades);
        assertFalse(session.commands().isEmpty());
        assertEquals(Map.of(), session.inputs().others());
        robot.push(KeyCode.ESCAPE);
        own();
    }
}
