package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import javafx.scene.Node;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.engine.Mode;
import stativex.market.Money;
import stativex.files.DocumentFolder;
import stativex.market.Contract;

/** From an empty data folder to a fill on one's own market, and a second start that has it all. */
public class OwnMarketStoryTest extends DeskTest {
    private Path sessions;

    @Override
    void begin() throws Exception {
        workspace = null;
        sessions = Files.createTempDirectory("sessions");
        own();
    }

    private void own() {
        show(() -> new DeskWindow(Optional.of(sessions), picker));
    }

    /** Three days of MTD, a print every few seconds of both sessions, its price wandering by tenths. */
    private static Path ticks() throws IOException {
        SplittableRandom dice = new SplittableRandom(5);
        StringBuilder text = new StringBuilder("Date,Time,Last,Volume\n");
        int price = 4100;
        // Tuesday to Thursday; the night session opens at 19:30 UTC of the evening before
        for (int day = 1; day <= 3; day++) {
            Instant at = Instant.parse("2026-10-0" + (day + 4) + "T19:30:00Z");
            for (int i = 0; i < 9500; i++) {
                at = at.plusMillis(1000 + dice.nextInt(8000));
                price += dice.nextInt(3) - 1;
                String stamp = at.toString();
                text.append(stamp, 0, 10).append(',').append(stamp, 11, 19).append(',').append(price / 10).append('.')
                        .append(price % 10).append(',').append(1 + dice.nextInt(5)).append('\n');
            }
        }
        Path file = Files.createTempDirectory("own").resolve("MTD ticks.csv");
        Files.writeString(file, text);
        return file;
    }

    private void focus(String id) {
        Node node = robot.lookup(id).query();
        fx(() -> {
            node.requestFocus();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void press(String id) {
        focus(id);
        robot.push(KeyCode.SPACE);
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void type(String id, String value) {
        focus(id);
        robot.push(KeyCode.SHORTCUT, KeyCode.A).write(value);
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void fire(String menu, String item) {
        MenuButton button = robot.lookup(menu).queryAs(MenuButton.class);
        fx(() -> {
            if (button.getOnShowing() != null) {
                button.getOnShowing().handle(null);
            }
            button.getItems().stream().filter(one -> item.equals(one.getText()) || item.equals(one.getId())).findFirst()
                    .orElseThrow().fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void rulesShown() {
        WaitForAsyncUtils.waitForFxEvents();
        until("the rules are on the chart", () -> !window.rulesStage().isBusy());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void makeContract() throws IOException {
        press("#contract-new");
        type("#contract-symbol", "MTD");
        type("#contract-name", "Micro tide");
        assertTrue(text("#contract-problem").contains("currency"), text("#contract-problem"));
        type("#contract-currency", "NZD");
        type("#contract-zone", "Europe/Lisbon");
        type("#contract-tick", "0.1");
        type("#contract-value", "0.5");
        fire("#session-pattern", "Two sessions");
        type("#session-open-0", "20:30");
        type("#session-close-0", "8:00");
        type("#session-open-1", "8:30");
        type("#session-close-1", "17:00");
        type("#contract-special", "2026-10-05 closed");
        holidays();
        type("#contract-week", "2026-10-06");
        type("#contract-margin", "900");
        type("#contract-months", "2026-09 until 2026-09-16");
        robot.push(KeyCode.ENTER).write("2026-12 until 2026-12-16");
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(text("#contract-front"), "In the week shown the front month is 2026-12.");
        dragClose();
        assertEquals(text("#contract-problem"), "");
        picture("contract");
        press("#contract-keep");
        Contract made = DocumentFolder.contracts().find("MTD").orElseThrow().value();
        assertEquals(made.calendar().sessions(LocalDate.of(2026, 10, 5)), List.of());
        assertEquals(made.calendar().sessions(LocalDate.of(2026, 10, 6)).size(), 2);
        ListView<?> shelf = robot.lookup("#contracts").queryListView();
        assertEquals((int) fx(() -> shelf.getItems().size()), 1);
    }

    /** The day's close is dragged an hour back on the picture, and then typed again. */
    private void dragClose() {
        Node week = robot.lookup("#contract-week-picture").query();
        double hour = fx(() -> (week.getBoundsInLocal().getWidth() - 112) / 24);
        double x = 104 + 17 * hour;
        // Thursday's row
        robot.drag(fx(() -> week.localToScreen(x, 22 + 3 * 34 + 17)), MouseButton.PRIMARY)
                .dropTo(fx(() -> week.localToScreen(x - hour, 22 + 3 * 34 + 17)));
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(fx(() -> ((TextField) robot.lookup("#session-close-1").query()).getText()), "16:00");
        type("#session-close-1", "17:00");
    }

    /** What is typed stands; the rest comes from a calendar of holidays, what is not clear is named. */
    private void holidays() throws IOException {
        Path file = Files.createTempFile("holidays", ".ics");
        Files.writeString(file, """
                BEGIN:VCALENDAR
                BEGIN:VEVENT
                DTSTART;VALUE=DATE:20261005
                END:VEVENT
                BEGIN:VEVENT
                DTSTART:20261224T130000
                SUMMARY:Early close
                END:VEVENT
                BEGIN:VEVENT
                DTSTART:20261224T150000
                SUMMARY:Choir
                END:VEVENT
                END:VCALENDAR
                """.replace("\n", "\r\n"));
        chosen = Optional.of(file);
        press("#contract-dates");
        assertEquals(text("#contract-brought"), "1 of 2 dates added from " + file.getFileName() + "; the others were"
                + " there already. Left out: \"Choir\": it has a time of day and says neither early close nor late open.");
        assertEquals(fx(() -> ((TextArea) robot.lookup("#contract-special").query()).getText()),
                "2026-10-05 closed\n2026-12-24 closes 13:00 # Early close");
    }

    private void bringIn(Path file) {
        chosen = Optional.of(file);
        press("#tape-import");
        ChoiceBox<?> contract = robot.lookup("#import-contract").queryAs(ChoiceBox.class);
        assertEquals(fx(contract::getValue), "MTD", "its symbol begins the file's name");
        type("#import-zone", "UTC");
        type("#import-name", "MTD October");
        press("#import-read");
        until("the file is read", () -> robot.lookup("#import-keep").tryQuery().isPresent());
        press("#import-keep");
        until("the tape is there", () -> robot.lookup("#tapes").queryListView().getItems().contains("MTD October"));
    }

    @Test
    public void fromAnEmptyFolderToAFillAndBackAgain() throws IOException {
        assertTrue(robot.lookup("#look-at-demo").tryQuery().isPresent(), "an empty program offers the demo");
        assertTrue(fx(() -> robot.lookup("#stage-run").query().isDisabled()));
        picture("empty");
        makeContract();
        bringIn(ticks());
        press("#tape-run");
        // no strategy yet: it says so and leads to Rules
        assertTrue(text("#nothing-to-run").contains("MTD"), text("#nothing-to-run"));
        press("#go-to-rules");
        rulesShown();
        press("#row-add");
        rulesShown();
        press("#plan-make");
        rulesShown();
        press("#window-more");
        rulesShown();
        type("#window-from-0", "1:00");
        type("#window-to-0", "7:00");
        robot.push(KeyCode.ENTER);
        rulesShown();
        robot.clickOn("#strategy-run");
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(fx(() -> window.workspace().inputs().strategies().getFirst().name()), "New strategy");
        // an account of one's own
        fire("#account", "account-new");
        type("#account-name", "Kea");
        type("#account-start", "20000");
        type("#account-fees", "MTD 0.35");
        type("#account-give-fall", "9000.00");
        type("#account-give-after", "ninety");
        type("#account-losing", "500");
        type("#account-releases", "2027-01-15T02:30:00Z Tide table | NZ | high");
        picture("account");
        press("#account-keep");
        assertTrue(text("#account-problem").contains("expected"), text("#account-problem"));
        type("#account-give-after", "9500.00");
        press("#account-keep");
        assertEquals(fx(() -> window.workspace().inputs().account().own().giveBack().orElseThrow().fall()),
                Money.parse("9000"));
        assertEquals(fx(() -> window.workspace().inputs().account().own().quietTimes().releases().size()), 1);
        assertEquals(fx(() -> window.workspace().inputs().account().name()), "Kea");
        assertEquals(fx(() -> window.workspace().replay().latest().snapshot().strategies().getFirst().mode()), Mode.OFF,
                "everything begins off");
        robot.clickOn("#engaged-0");
        robot.clickOn("#engage-0");
        WaitForAsyncUtils.waitForFxEvents();
        fx(() -> {
            window.workspace().replay()
                    .jumpTo(window.workspace().inputs().tape().time(window.workspace().inputs().tape().count() - 1));
            return null;
        });
        until("a fill is seen",
                () -> window.refresh() || !window.workspace().replay().latest().snapshot().trades().isEmpty());
        until("the tape has been worked",
                () -> !window.refresh() && window.workspace().replay().latest().jumpTo().isEmpty());
        assertFalse(window.workspace().replay().latest().snapshot().trades().isEmpty());
        picture("own-market");
        // a switch while something is under way is asked once
        fire("#account", "account-copy");
        type("#account-name", "Kea two");
        press("#account-keep");
        // a second start has it all
        closeWindow();
        own();
        assertTrue(window.isWorking());
        assertEquals(fx(() -> window.workspace().tape()), "MTD October");
        assertEquals(fx(() -> window.workspace().inputs().contract().symbol()), "MTD");
        assertEquals(fx(() -> window.workspace().inputs().strategies().getFirst().name()), "New strategy");
        assertTrue(fx(() -> window.workspace().inputs().account().name()).startsWith("Kea"));
        assertEquals(fx(() -> window.workspace().replay().latest().snapshot().strategies().getFirst().mode()),
                Mode.OFF);
    }
}
