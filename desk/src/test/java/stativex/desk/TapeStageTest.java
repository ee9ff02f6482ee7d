package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.geometry.VerticalDirection;
import javafx.scene.Node;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.desk.chart.ChartBars;
import stativex.desk.chart.ChartView;
import stativex.desk.chart.Viewport;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.ChartLooks;
import stativex.files.ChartSetup;
import stativex.files.DataFolder;
import stativex.files.DrawingFile;
import stativex.files.tape.Joins;
import stativex.files.tape.TapeStore;
import stativex.files.tape.TickCsv;
import stativex.link.Replay;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Drawing;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;

/** The Tape stage in the real window, worked as a person works it. */
public class TapeStageTest extends DeskTest {
    private final TapeStore store = TapeStore.own();

    private ChartView chart() {
        return window.tapeStage().pane().chart();
    }

    private void tapeStage() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT1);
        barsAreThere();
    }

    private void barsAreThere() {
        until("bars are made", () -> !window.tapeStage().isBusy() && chart().model().isPresent());
        WaitForAsyncUtils.waitForFxEvents();
    }

    private String title() {
        return text("#chart-title");
    }

    @SuppressWarnings("unchecked")
    private void choose(String id, String value) {
        ChoiceBox<String> box = (ChoiceBox<String>) robot.lookup(id).query();
        fx(() -> {
            box.setValue(value);
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
        barsAreThere();
    }

    private void type(String id, String value) {
        robot.clickOn(id).push(KeyCode.SHORTCUT, KeyCode.A).write(value).push(KeyCode.ENTER);
        WaitForAsyncUtils.waitForFxEvents();
    }

    private int bars() {
        return fx(() -> chart().model().orElseThrow().bars().closed());
    }

    private int made(BarType type) {
        return SeriesBuilder.all(workspace.inputs().tape(), workspace.inputs().contract().calendar(),
                BarSettings.of(type)).count();
    }

    /** A point of the chart, from its left and top. */
    private Point2D at(double x, double y) {
        Bounds bounds = fx(() -> chart().localToScreen(chart().getBoundsInLocal()));
        return new Point2D(bounds.getMinX() + x, bounds.getMinY() + y);
    }

    private List<String> tapes() {
        ListView<?> list = (ListView<?>) robot.lookup("#tapes").query();
        return fx(() -> list.getItems().stream().map(Object::toString).toList());
    }

    private Path csv(String... lines) throws IOException {
        Path file = Files.createTempFile("ticks", ".csv");
        Files.writeString(file, String.join("\n", lines) + "\n", StandardCharsets.UTF_8);
        return file;
    }

    @Test
    public void anyBarsOfATapeAreShown() {
        tapeStage();
        assertEquals(title(), "TDL  400-tick bars");
        assertEquals(bars(), made(new BarType.Ticks(400)));
        theLastTradingDayIsInView();
        choose("#bar-kind", "renko");
        assertEquals(title(), "TDL  renko 3:6");
        int bricks = made(new BarType.Renko(3, 6));
        assertEquals(bars(), bricks);
        type("#bar-turn", "2");
        assertTrue(text("#bar-problem").contains("turn of at least the step's 3 ticks"), text("#bar-problem"));
        assertEquals(bars(), bricks, "an impossible value changes nothing");
        type("#bar-turn", "9");
        barsAreThere();
        assertEquals(title(), "TDL  renko 3:9");
        picture("tape-renko");
        choose("#bar-kind", "day");
        assertEquals(bars(), 4, "the fifth day is still forming");
        choose("#bar-kind", "tick");
        choose("#bar-hours", "Day only");
        assertEquals(title(), "TDL  400-tick bars, Day only");
        robot.clickOn("#heikin-ashi");
        barsAreThere();
        assertTrue(title().endsWith("Heikin-Ashi"));
        robot.clickOn("#bar-size").push(KeyCode.UP);
        barsAreThere();
        assertTrue(title().contains("401-tick"), "arrows change a number");
        robot.moveTo("#bar-size").scroll(1, VerticalDirection.DOWN);
        barsAreThere();
        assertTrue(title().contains("400-tick") || title().contains("402-tick"), "and so does the wheel: " + title());
    }

    /** From its first bar on, and what is before it only as far as bars are as wide as usual. */
    private void theLastTradingDayIsInView() {
        ChartBars all = fx(() -> chart().model().orElseThrow().bars());
        Viewport view = chart().viewport();
        int seen = fx(view::firstSeen);
        int day = all.count() - 1;
        while (all.tradingDate(day - 1).equals(all.tradingDate(all.count() - 1))) {
            day--;
        }
        assertTrue(seen <= day, "seen from bar " + seen + ", the day begins with " + day);
        assertTrue(seen >= day - 1 || fx(view::barWidth) == 8, "bars of " + fx(view::barWidth) + " px from " + seen);
        assertTrue(fx(view::following));
    }

    @Test
    public void theChartIsWorkedByMouseAndKeys() throws IOException {
        tapeStage();
        robot.moveTo(at(200, 150));
        String under = text("#chart-figures");
        robot.moveTo(at(420, 150));
        assertFalse(text("#chart-figures").equals(under), "the crosshair reads another bar");
        double width = fx(() -> chart().viewport().barWidth());
        robot.scroll(3, VerticalDirection.UP);
        double after = fx(() -> chart().viewport().barWidth());
        assertTrue(after != width, "the wheel zooms");
        assertTrue(fx(() -> chart().fitsPrices()));
        Bounds bounds = fx(() -> chart().getBoundsInLocal());
        robot.moveTo(at(bounds.getWidth() - 30, 200)).press(MouseButton.PRIMARY).moveBy(0, 60)
                .release(MouseButton.PRIMARY);
        assertFalse(fx(() -> chart().fitsPrices()), "dragging the price axis stretches it");
        robot.moveTo(at(bounds.getWidth() - 30, 200)).doubleClickOn(MouseButton.PRIMARY);
        assertTrue(fx(() -> chart().fitsPrices()), "a double click fits it again");
        robot.clickOn(at(300, 150)).push(KeyCode.HOME);
        picture("tape-all");
        assertTrue(fx(() -> chart().viewport().firstBar()) == 0 && fx(() -> chart().viewport().barWidth()) < 1);
        robot.push(KeyCode.END);
        for (String option : List.of("flow", "ticks", "delta", "panels", "own-time")) {
            robot.clickOn("#option-" + option);
        }
        type("#chart-zone", "Asia/Tokyo");
        assertEquals(fx(() -> chart().options().own().orElseThrow().getId()), "Asia/Tokyo");
        type("#chart-zone", "Nowhere/Land");
        assertEquals(text("#chart-said"), "no zone of that name");
        type("#chart-zone", "Europe/Helsinki");
        robot.moveTo(at(420, 150)).scroll(12, VerticalDirection.DOWN);
        picture("tape-flow");
        chosen = Optional.of(Files.createTempDirectory("pictures").resolve("chart.svg"));
        robot.clickOn("Picture…");
        String svg = Files.readString(chosen.get());
        assertTrue(svg.startsWith("<?xml") && svg.endsWith("</svg>\n") && svg.contains("<text"), "SVG 1.1");
        assertParses(svg);
        chosen = Optional.of(chosen.get().resolveSibling("chart.png"));
        robot.clickOn("Picture…");
        byte[] png = Files.readAllBytes(chosen.get());
        assertEquals(List.of(png[1], png[2], png[3]), List.of((byte) 'P', (byte) 'N', (byte) 'G'));
    }

    private static void assertParses(String xml) {
        try {
            javax.xml.parsers.DocumentBuilderFactory.newInstance().newDocumentBuilder()
                    .parse(new java.io.ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
        } catch (Exception e) {
            throw new AssertionError("no well-formed XML", e);
        }
    }

    @Test
    public void drawnThingsAreNamedMovedKeptAndRemoved() {
        tapeStage();
        robot.clickOn("#tool-level").clickOn(at(300, 120));
        Drawing.Level level = (Drawing.Level) fx(() -> chart().drawings().orElseThrow().all().getFirst());
        assertEquals(level.name(), "level 1");
        robot.clickOn("#drawing-name").push(KeyCode.SHORTCUT, KeyCode.A).write("shelf").push(KeyCode.ENTER);
        robot.moveTo(at(300, 120)).press(MouseButton.PRIMARY).moveBy(0, 10).moveBy(0, 30).release(MouseButton.PRIMARY);
        Drawing.Level moved = (Drawing.Level) kept().getFirst();
        assertEquals(moved.name(), "shelf");
        assertTrue(moved.price() < level.price(), "dragged down: " + level + " to " + moved);
        robot.push(KeyCode.ALT, KeyCode.UP);
        assertEquals(((Drawing.Level) kept().getFirst()).price(), moved.price() + 1);
        robot.clickOn("#tool-slope").clickOn(at(200, 80)).clickOn(at(400, 160));
        robot.clickOn("#tool-marker").clickOn(at(350, 60));
        assertEquals(kept().stream().map(Drawing::name).toList(), List.of("shelf", "slope 1", "marker 1"));
        picture("tape-drawings");
        robot.clickOn("#drawing-name").push(KeyCode.SHORTCUT, KeyCode.A).write("shelf").push(KeyCode.ENTER);
        assertEquals(text("#chart-said"), "there is one of that name already");
        robot.clickOn(at(350, 60)).push(KeyCode.DELETE);
        assertEquals(kept().size(), 2);
        // by keyboard alone: a marker at the bar under the crosshair
        robot.push(KeyCode.LEFT).push(KeyCode.LEFT).push(KeyCode.M);
        assertEquals(kept().size(), 3);
        robot.push(KeyCode.SHORTCUT, KeyCode.Z);
        assertEquals(kept().size(), 2, "taken back");
    }

    private List<Drawing> kept() {
        WaitForAsyncUtils.waitForFxEvents();
        return DrawingFile.own(workspace.inputs().contract()).read();
    }

    @Test
    public void aFileIsBroughtInAfterLookingAtIt() throws IOException {
        tapeStage();
        Path file = csv("Stamp;Last;Lots;Bid;Ask;Memo", "24.09.2026 09:45:00;1280,00;2;1279,75;1280,00;a",
                "24.09.2026 09:45:01;1280,10;2;1279,75;1280,00;b", "24.09.2026 09:59:02;1280,25;1;1280,00;1280,25;c",
                "24.09.2026 10:00:00;1280,25;1;1280,00;1280,25;c");
        fx(() -> {
            window.tapeStage().bringIn(file);
            return null;
        });
        until("the panel is there", () -> robot.lookup("#import-read").tryQuery().isPresent());
        picture("import-before");
        choosePlain("#role-0", "left out");
        robot.clickOn("#import-read");
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#import-problem").contains("no column is said to hold the time"), text("#import-problem"));
        choosePlain("#role-0", "time");
        choosePlain("#import-times", "24.09.2026 09:45:00.125");
        robot.clickOn("#import-read");
        until("the findings are there", () -> robot.lookup("#import-keep").tryQuery().isPresent());
        picture("import-found");
        choosePlain("#role-5", "aggressor");
        assertTrue(robot.lookup("#import-keep").tryQuery().isEmpty(), "what was read in another way cannot be kept");
        choosePlain("#role-5", "left out");
        robot.clickOn("#import-read");
        until("the findings are there again", () -> robot.lookup("#import-keep").tryQuery().isPresent());
        Node keep = robot.lookup("#import-keep").query();
        assertTrue(fx(keep::isDisabled), "bad lines are left out only when said");
        robot.clickOn("#import-leave-out").clickOn("#import-name").push(KeyCode.SHORTCUT, KeyCode.A).write("mine");
        robot.clickOn("#import-keep");
        until("it is in the list", () -> tapes().contains("mine"));
        barsAreThere();
        Tape tape = store.open("mine").tape();
        assertEquals(tape.count(), 3);
        assertEquals(tape.incomplete().iterator().next().text(), "2026-09-24/Day");
        picture("tape-own");
        robot.clickOn("#tape-remove");
        assertTrue(tapes().contains("mine"), "asks once");
        robot.clickOn("#tape-remove");
        until("it is gone", () -> !tapes().contains("mine"));
        assertFalse(store.has("mine"));
    }

    @SuppressWarnings("unchecked")
    private void choosePlain(String id, String value) {
        ChoiceBox<String> box = (ChoiceBox<String>) robot.lookup(id).query();
        fx(() -> {
            box.setValue(value);
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    /** Imports the demo's ticks as a stored tape through the panel. */
    private void bring(String name, Path file) {
        fx(() -> {
            window.tapeStage().bringIn(file);
            return null;
        });
        // content of a scroll pane is found once it has been laid out
        until("the panel is there", () -> robot.lookup("#import-name").tryQuery().isPresent());
        TextField field = (TextField) robot.lookup("#import-name").query();
        fx(() -> {
            field.setText(name);
            return null;
        });
        robot.clickOn("#import-read");
        until("the file is read", () -> robot.lookup("#import-keep").tryQuery().isPresent());
        robot.clickOn("#import-keep");
        until("it is kept", () -> tapes().contains(name));
        barsAreThere();
    }

    @Test
    public void monthsAreJoinedAndAnOwnTapeIsReplayed() throws IOException {
        Path file = Files.createTempFile("demo", ".csv");
        TickCsv.write(file, workspace.inputs().tape(), workspace.inputs().contract());
        tapeStage();
        bring("first", file);
        bring("second", file);
        robot.clickOn("#tape-join");
        robot.clickOn("#join .check-box");
        robot.lookup("#join .check-box").queryAll().stream().skip(1).forEach(robot::clickOn);
        robot.clickOn("#join-name").write("both").clickOn("#join-keep");
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#join-problem").contains("never exceeds"), text("#join-problem"));
        choosePlain("#join-rule", "on the dates");
        robot.clickOn("#join-value").write("2026-09-22").clickOn("#join-keep");
        until("the join is in the list", () -> tapes().contains("both"));
        barsAreThere();
        assertEquals(title(), "TDL  400-tick bars, back-adjusted");
        robot.clickOn("#back-adjusted");
        barsAreThere();
        assertEquals(title(), "TDL  400-tick bars");
        assertTrue(new Joins(store).has("both"));
        fx(() -> {
            window.tapeStage().select("first");
            return null;
        });
        barsAreThere();
        robot.clickOn("#tape-run");
        until("the Run stage replays it", () -> robot.lookup("#figures").tryQuery().isPresent()
                && window.workspace().tape().equals("first"));
        assertTrue(robot.lookup("#stage-run").tryQuery().isPresent());
        assertTrue(DataFolder.path().resolve("tapes/first.tape").toFile().exists());
    }

    /** A range is what the chart shows and what Run replays; in it a trade is left on its last print. */
    @Test
    public void someDaysOfATapeAreLookedAtAndReplayed() {
        tapeStage();
        int all = fx(() -> chart().model().orElseThrow().bars().count());
        fx(() -> {
            ComboBox<?> from = (ComboBox<?>) robot.lookup("#range-from").query();
            from.getSelectionModel().select(2);
            ComboBox<?> to = (ComboBox<?>) robot.lookup("#range-to").query();
            to.getSelectionModel().select(1);
            return null;
        });
        barsAreThere();
        // the day chosen first gave way to the earlier one
        ChartBars bars = fx(() -> chart().model().orElseThrow().bars());
        assertTrue(bars.count() < all, bars.count() + " of " + all);
        LocalDate day = bars.tradingDate(0);
        assertEquals(bars.tradingDate(bars.count() - 1), day);
        picture("tape-range");
        robot.clickOn("#tape-run");
        until("Run replays that day", () -> robot.lookup("#figures").tryQuery().isPresent()
                && window.workspace().inputs().days().last().equals(Optional.of(day)));
        fx(() -> {
            window.workspace().replay().command(new Command.SetMode(0, Mode.ENGAGED));
            window.workspace().replay().speed(Replay.AS_FAST_AS_POSSIBLE);
            window.workspace().replay().play();
            return null;
        });
        until("it is at its end", () -> window.workspace().replay().latest().atEnd());
        long last = window.workspace().inputs().tape().time(window.workspace().inputs().prints() - 1);
        assertEquals(window.workspace().inputs().contract().calendar().tradingDate(last), Optional.of(day));
    }

    /** A look is kept under a name and put on again; the last one of a contract comes back by itself. */
    @Test
    public void aLookIsKeptAndComesBack() {
        tapeStage();
        choosePlain("#bar-kind", "renko");
        barsAreThere();
        robot.clickOn("#option-delta").clickOn("#option-ticks");
        fx(() -> {
            ((MenuButton) robot.lookup("#looks").query()).show();
            return null;
        });
        robot.clickOn("#look-name").write("bricks").clickOn("#look-keep");
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(text("#tape-state").contains("bricks"), text("#tape-state"));
        choosePlain("#bar-kind", "seconds");
        barsAreThere();
        robot.clickOn("#option-delta");
        assertTrue(title().contains("150"), title());
        fx(() -> {
            MenuButton looks = (MenuButton) robot.lookup("#looks").query();
            looks.show();
            looks.getItems().getFirst().fire();
            looks.hide();
            return null;
        });
        barsAreThere();
        assertEquals(title(), "TDL  renko 3:6");
        assertTrue(fx(() -> chart().options().delta() && chart().options().ticks()));
        picture("tape-look");
        ChartSetup last = ChartLooks.own().last("TDL").orElseThrow();
        assertEquals(last.bars().type(), new BarType.Renko(3, 6));
        assertEquals(ChartLooks.own().named().get("bricks"), last);
        ChartLooks.own().remove("bricks");
        assertEquals(ChartLooks.own().named().size(), 0);
    }

    @Test
    public void aDamagedTapeIsMadeAgain() throws IOException {
        tapeStage();
        bring("hurt", csv("time,price,size", "2026-09-24T01:00:00Z,1280.00,1", "2026-09-24T01:00:01Z,1280.25,2"));
        Path stored = store.folder().resolve("hurt.tape");
        byte[] bytes = Files.readAllBytes(stored);
        // the first price, behind the block's head and two times
        int place = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("BLCK") + 64 + 16;
        bytes[place] ^= 1;
        Path other = Files.createTempFile("other", ".tape");
        Files.write(other, bytes);
        Files.move(other, stored, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        fx(() -> {
            window.tapeStage().select("demo");
            window.tapeStage().select("hurt");
            return null;
        });
        until("it is whole again", () -> {
            try {
                return store.open("hurt").tape().price(0) == 5120;
            } catch (stativex.files.BadInput e) {
                return false;
            }
        });
        barsAreThere();
        assertEquals(text("#tape-state"), "");
    }

    @Test
    public void aSecondWindowFollowsTheCrosshair() {
        tapeStage();
        fx(() -> {
            // off the first one's way; the headless screen has no window manager
            window.tapeStage().pane().lookupAll(".button").stream()
                    .filter(n -> ((javafx.scene.control.Button) n).getText().equals("Window"))
                    .forEach(n -> ((javafx.scene.control.Button) n).fire());
            return null;
        });
        Stage other = (Stage) fx(() -> Window.getWindows().stream()
                .filter(w -> w instanceof Stage s && s.getTitle() != null && s.getTitle().contains("400-tick"))
                .findFirst().orElseThrow());
        ChartView second = (ChartView) fx(() -> other.getScene().lookup(".chart"));
        fx(() -> {
            other.setX(0);
            other.setY(0);
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
        fx(() -> {
            second.requestFocus();
            return null;
        });
        robot.push(KeyCode.LEFT).push(KeyCode.LEFT);
        Optional<Integer> bar = fx(second::cursorBar);
        assertTrue(bar.isPresent());
        assertEquals(fx(() -> chart().cursorBar()), bar, "the first window's crosshair goes with it");
        fx(() -> {
            other.hide();
            return null;
        });
    }
}
