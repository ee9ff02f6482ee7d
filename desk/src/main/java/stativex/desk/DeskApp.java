package stativex.desk;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import stativex.desk.live.LivePart;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Look;
import stativex.files.FaultLog;

/** The application: a window that says what it prepares, then the desk. */
public final class DeskApp extends Application {
    static final double WIDTH = 1280;
    static final double HEIGHT = 800;
    private static Options options;
    private static CompletableFuture<Optional<Workspace>> prepared;

    private Optional<DeskWindow> window = Optional.empty();

    /** Made by JavaFX. */
    public DeskApp() {
        // the options come through launch()
    }

    /** Opens the window and returns when it is closed. */
    static void launch(Options with) {
        options = with;
        // the demo is made while the toolkit starts
        prepared = CompletableFuture
                .supplyAsync(() -> with.own() ? Optional.empty() : Optional.of(Workspace.demo(with.sessions())));
        Application.launch(DeskApp.class);
    }

    @Override
    public void start(Stage stage) {
        Look.load();
        Thread.setDefaultUncaughtExceptionHandler((thread, fault) -> {
            String said = FaultLog.keep(fault);
            System.err.println("stativex: " + said);
            Platform.runLater(() -> window.ifPresent(desk -> desk.say(said)));
        });
        Label wait = new Label(options.own() ? "Opening …" : "Preparing the demo: five trading days of TDL …");
        wait.getStyleClass().add("title");
        Scene scene = new Scene(new StackPane(wait), WIDTH, HEIGHT);
        Look.apply(scene);
        stage.setTitle("Stativex");
        stage.setScene(scene);
        stage.setX(0);
        stage.setY(0);
        stage.show();
        sayWhenShown(scene, "window", false);
        prepared.whenComplete((opened, problem) -> Platform.runLater(() -> {
            if (problem == null) {
                opened.ifPresentOrElse(demo -> open(scene, demo), () -> openOwn(scene));
            } else {
                fail(problem);
            }
        }));
    }

    /** The person's own data, as it was left. */
    private void openOwn(Scene scene) {
        DeskWindow desk = new DeskWindow(options.sessions(), FilePicker.system());
        window = Optional.of(desk);
        Runtime.getRuntime().addShutdownHook(Thread.ofPlatform().unstarted(() -> {
            if (desk.isWorking()) {
                desk.workspace().close();
            }
        }));
        scene.setRoot(desk.root());
        desk.start();
        sayWhenShown(scene, "desk", true);
    }

    private void open(Scene scene, Workspace opened) {
        DeskWindow desk = new DeskWindow(opened);
        window = Optional.of(desk);
        Runtime.getRuntime().addShutdownHook(Thread.ofPlatform().unstarted(() -> desk.workspace().close()));
        scene.setRoot(desk.root());
        // now that there is a scene the Run stage can have the focus
        desk.stage(6);
        if (options.picture().isPresent()) {
            Picture.take(scene, desk, opened, options).whenComplete((done, problem) -> {
                if (problem == null) {
                    Platform.exit();
                } else {
                    fail(problem);
                }
            });
        } else {
            opened.toBeginning();
            options.at(opened.inputs().contract()).ifPresent(opened.replay()::jumpTo);
            opened.replay().speed(10);
            opened.replay().play();
            desk.start();
            if (options.stage().equals("rules")) {
                desk.stage(2);
            } else if (!options.stage().equals("run")) {
                desk.stage(1);
                options.tape().ifPresent(desk.tapeStage()::select);
            }
            sayWhenShown(scene, "desk", true);
        }
    }

    /** For measuring: says after the next pulse how old the process is. */
    private static void sayWhenShown(Scene scene, String what, boolean exit) {
        if (!options.firstWindow()) {
            return;
        }
        scene.addPostLayoutPulseListener(new Runnable() {
            @Override
            public void run() {
                scene.removePostLayoutPulseListener(this);
                ProcessHandle.current().info().startInstant()
                        .ifPresent(start -> System.out.println(what + " shown after "
                                + Duration.between(start, Instant.now()).toMillis() + " ms"));
                if (exit) {
                    Platform.exit();
                }
            }
        });
    }

    private static void fail(Throwable problem) {
        System.err.println("stativex: " + (problem.getCause() == null ? problem : problem.getCause()).getMessage());
        Platform.exit();
        Runtime.getRuntime().halt(1);
    }

    @Override
    public void stop() {
        window.flatMap(DeskWindow::live).ifPresent(LivePart::close);
        Optional<Workspace> open = window.filter(DeskWindow::isWorking).map(DeskWindow::workspace);
        open.ifPresent(Workspace::close);
        open.flatMap(Workspace::file)
                .ifPresent(file -> System.out.println("Session recorded in " + file
                        + "\nThe same fills again: ./stativex trial --session " + file + " --out DIR"));
    }
}
