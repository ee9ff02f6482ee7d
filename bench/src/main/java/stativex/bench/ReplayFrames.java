package stativex.bench;

import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import org.HdrHistogram.Histogram;
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
    /** {@code PULSE: 17 [16ms:9ms]}: the time since the pulse before, and from this pulse to the end of its render. */
    private static final Pattern PULSE = Pattern.compile("PULSE: \\d+ \\[(\\d+)ms:(\\d+)ms\\]");

    private ReplayFrames() {}

    /** Takes the lines of the pulse log. */
    private static final class Log extends OutputStream {
        private final StringBuilder line = new StringBuilder();
        private final Histogram frames = new Histogram(60_000, 3);
        private boolean counting;

        @Override
        public synchronized void write(int b) {
            if (b != '\n') {
                line.append((char) b);
                return;
            }
            Matcher pulse = PULSE.matcher(line);
            if (counting && pulse.find()) {
                frames.recordValue(Long.parseLong(pulse.group(2)));
            }
            line.setLength(0);
        }

        synchronized void count(boolean on) {
            counting = on;
        }
    }

    public static void main(String[] arguments) throws InterruptedException {
        int seconds = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 60;
        long most = arguments.length > 1 ? Long.parseLong(arguments[1]) : 33;
        System.setProperty("javafx.pulseLogger", "true");
        System.setProperty("javafx.pulseLogger.threshold", "0");
        Log log = new Log();
        System.setErr(new PrintStream(log, true, StandardCharsets.UTF_8));
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
                log.frames.getTotalCount(),
                seconds, counts[0], counts[1]);
        System.out.printf("pulse to end of render: median %d ms, 95th percentile %d ms (at most %d), largest %d ms%n",
                log.frames.getValueAtPercentile(50), log.frames.getValueAtPercentile(95), most,
                log.frames.getMaxValue());
        boolean newer = counts[1] >= counts[0] * 0.95;
        System.exit(log.frames.getTotalCount() > 10L * seconds && newer && log.frames.getValueAtPercentile(95) <= most
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
