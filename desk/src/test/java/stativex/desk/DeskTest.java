package stativex.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import javafx.beans.value.ChangeListener;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.Assert;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import stativex.desk.look.FilePicker;
import stativex.desk.look.HoldButton;
import stativex.desk.look.Look;
import stativex.engine.Snapshot;
import stativex.files.DataFolder;
import stativex.link.Replay;

/** The real window on the demo, off screen, for tests that work it as a person would. */
abstract class DeskTest {
    static final Path PICTURES = Path.of("target", "pictures");
    final FxRobot robot = new FxRobot();
    /** What the next file dialog answers. */
    Optional<Path> chosen = Optional.empty();
    final FilePicker picker = new FilePicker() {
        @Override
        public Optional<Path> open(String title, String... endings) {
            return chosen;
        }

        @Override
        public Optional<Path> save(String title, String suggested, String... endings) {
            return chosen;
        }
    };
    Workspace workspace;
    DeskWindow window;
    Scene scene;

    @BeforeClass
    public void startToolkit() throws TimeoutException {
        FxToolkit.registerPrimaryStage();
        fx(() -> {
            Look.load();
            return null;
        });
    }

    @BeforeMethod
    public void openWindow() throws Exception {
        Path home = DataFolder.path();
        Assert.assertTrue(home.toString().contains("target"), "tests must not touch a person's data: " + home);
        if (Files.exists(home)) {
            try (var files = Files.walk(home)) {
                files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
            }
        }
        begin();
    }

    /** The window that tests work: that of the demo. */
    void begin() throws Exception {
        workspace = Workspace.demo(Optional.of(Files.createTempDirectory("sessions")));
        workspace.toBeginning();
        workspace.replay().await();
        show(() -> new DeskWindow(workspace, picker));
    }

    /** Shows a window in place of the one before. */
    void show(Callable<DeskWindow> made) {
        fx(() -> {
            window = made.call();
            scene = new Scene(window.root(), DeskApp.WIDTH, DeskApp.HEIGHT);
            Look.apply(scene);
            Stage stage = FxToolkit.toolkitContext().getRegisteredStage();
            stage.setScene(scene);
            stage.setX(0);
            stage.setY(0);
            stage.show();
            window.start();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @AfterMethod(alwaysRun = true)
    public void closeWindow() {
        fx(() -> {
            window.stop();
            return null;
        });
        if (workspace != null) {
            workspace.close();
        }
        if (window.isWorking()) {
            window.workspace().close();
        }
    }

    static <T> T fx(Callable<T> work) {
        return WaitForAsyncUtils.waitForAsyncFx(20_000, work);
    }

    /** Waits until something the window shows is so. */
    static void until(String what, BooleanSupplier condition) {
        until(what, 60, condition);
    }

    /** The same of what takes long. */
    static void until(String what, int seconds, BooleanSupplier condition) {
        try {
            WaitForAsyncUtils.waitFor(seconds, TimeUnit.SECONDS, () -> fx(condition::getAsBoolean));
        } catch (TimeoutException e) {
            Assert.fail("waited in vain for: " + what, e);
        }
    }

    Replay.View view() {
        return workspace.replay().latest();
    }

    Snapshot.StrategyView strategy() {
        return view().snapshot().strategies().getFirst();
    }

    String text(String id) {
        Node node = robot.lookup(id).query();
        return fx(() -> ((Labeled) node).getText());
    }

    /** Types a time into the jump field and waits until the replay is there. */
    void jumpTo(String time) {
        robot.clickOn("#jump-time").push(KeyCode.SHORTCUT, KeyCode.A).write(time).push(KeyCode.ENTER);
        WaitForAsyncUtils.waitForFxEvents();
    }

    void settled() {
        until("the replay stands still and is shown", () -> {
            Replay.View view = view();
            return !view.playing() && view.jumpTo().isEmpty() && !window.refresh();
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    /** Holds a button by the mouse until it acts. */
    void hold(String id) {
        hold(id, () -> robot.moveTo(id).press(MouseButton.PRIMARY), () -> robot.release(MouseButton.PRIMARY));
    }

    /** Holds a button that has the focus by a key until it acts. */
    void hold(String id, KeyCode key) {
        hold(id, () -> robot.press(key), () -> robot.release(key));
    }

    private void hold(String id, Runnable press, Runnable release) {
        HoldButton button = robot.lookup(id).queryAs(HoldButton.class);
        AtomicBoolean acted = new AtomicBoolean();
        ChangeListener<Number> watch = (o, before, now) -> acted.compareAndSet(false, now.doubleValue() == 1);
        button.heldProperty().addListener(watch);
        press.run();
        until(id + " has been held", acted::get);
        release.run();
        button.heldProperty().removeListener(watch);
        WaitForAsyncUtils.waitForFxEvents();
    }

    void picture(String name) {
        fx(() -> {
            try {
                Picture.write(scene, PICTURES.resolve(name + ".png"));
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
            return null;
        });
    }
}
