package stativex.bench;

import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import stativex.desk.DeskWindow;
import stativex.desk.Workspace;
import stativex.desk.look.Look;
import stativex.engine.Command;
import stativex.engine.Mode;

/**
 * Frames of the Run stage while the demo replays at ×1000: the time from a pulse to the end of its render, as JavaFX's own
 * pulse log states it (whole milliseconds), and how many frames showed newer data. The replay begins anew whenever the tape
 * ends. Arguments: seconds (60), largest 95th percentile in milliseconds (33).
 */
final class ReplayFrames {
    private ReplayFrames() {}

    public static void main(String[] arguments) throws InterruptedException {
        int seconds = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 60;
        long most = arguments.length > 1 ? Long.parseLong(arguments[1]) : 33;
        PulseLog log = PulseLog.install();
        int[] counts = new int[2];
        CountDownLatch done = new CountDownLatch(1);
        Platform.startup(() -> {
            Look.load();
            Workspace workspace = Workspace.demo(Optional.empty());
            DeskWindow window = new DeskWindow(workspace);
            Scene scene = new Scene(window.root(), 1280, 800);
            Look.apply(scene);
            Stage stage = new Stage();
            stage.setScene(scene);
            stage.setX(0);
            stage.setY(0);
            stage.show();
            begin(workspace);
            AnimationTimer frames = new AnimationTimer() {
                private int last = -1;

                @Override
                public void handle(long now) {
                    int worked = workspace.replay().latest().worked();
                    window.refresh();
                    counts[0]++;
                    counts[1] += worked != last ? 1 : 0;
                    last = worked;
                    if (workspace.replay().latest().atEnd()) {
                        workspace.restart();
                        begin(workspace);
                    }
                }
            };
            frames.start();
            Thread.ofPlatform().daemon().start(() -> {
                try {
                    TimeUnit.SECONDS.sleep(5);
                    log.count(true);
                    counts[0] = 0;
                    counts[1] = 0;
                    TimeUnit.SECONDS.sleep(seconds);
                    log.count(false);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                workspace.close();
                done.countDown();
            });
        });
        done.await();
        System.out.printf("%d pulses in %d s, %d frames shown, %d of them with newer data%n",
                log.count(),
                seconds, counts[0], counts[1]);
        log.say(most);
        boolean newer = counts[1] >= counts[0] * 0.95;
        System.exit(log.count() > 10L * seconds && newer && log.ninetyFifth() <= most
                ? 0
                : 1);
    }

    private static void begin(Workspace workspace) {
        workspace.replay().command(new Command.SetMode(0, Mode.ENGAGED));
        workspace.replay().command(new Command.SetMode(1, Mode.ENGAGED));
        workspace.replay().speed(1000);
        workspace.replay().play();
    }
}
