package stativex.bench;

import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.HdrHistogram.Histogram;

/** JavaFX's own pulse log: the time from each pulse to the end of its render, in whole milliseconds. */
final class PulseLog extends OutputStream {
    /** {@code PULSE: 17 [16ms:9ms]}: the time since the pulse before, and from this pulse to the end of its render. */
    private static final Pattern PULSE = Pattern.compile("PULSE: \\d+ \\[(\\d+)ms:(\\d+)ms\\]");

    private final StringBuilder line = new StringBuilder();
    private final Histogram frames = new Histogram(60_000, 3);
    private boolean counting;

    private PulseLog() {}

    /** Turns the log on and takes what it says; to be called before JavaFX starts. */
    static PulseLog install() {
        System.setProperty("javafx.pulseLogger", "true");
        System.setProperty("javafx.pulseLogger.threshold", "0");
        PulseLog log = new PulseLog();
        System.setErr(new PrintStream(log, true, StandardCharsets.UTF_8));
        return log;
    }

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

    synchronized long count() {
        return frames.getTotalCount();
    }

    synchronized long ninetyFifth() {
        return frames.getValueAtPercentile(95);
    }

    synchronized void say(long most) {
        System.out.printf("pulse to end of render: median %d ms, 95th percentile %d ms (at most %d), largest %d ms%n",
                frames.getValueAtPercentile(50), ninetyFifth(), most, frames.getMaxValue());
    }
}
