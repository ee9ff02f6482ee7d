package stativex.link;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import stativex.files.BadInput;

/**
 * A program of the person's own that is run with the words of an alarm as its one argument, so that a phone can ring. No shell is between.
 * One runs at a time, and is ended after a minute; an alarm that comes meanwhile is said, and not run.
 */
public final class AlarmProgram {
    private final Path program;
    private final Consumer<String> says;
    private volatile boolean running;

    /** @param says told when it could not be run; @throws BadInput unless it is a file that can be run */
    public AlarmProgram(Path program, Consumer<String> says) {
        if (!Files.isRegularFile(program) || !Files.isExecutable(program)) {
            throw new BadInput(program + ": expected a program that can be run, for alarms");
        }
        this.program = program.toAbsolutePath();
        this.says = says;
    }

    /** Runs it, away from whoever calls. */
    public void run(Alarm alarm) {
        if (running) {
            return;
        }
        running = true;
        Thread.ofPlatform().daemon().name("alarm").start(() -> {
            try {
                Process process = new ProcessBuilder(List.of(program.toString(), alarm.words()))
                        .redirectOutput(ProcessBuilder.Redirect.DISCARD).redirectError(ProcessBuilder.Redirect.DISCARD)
                        .start();
                if (!process.waitFor(60, TimeUnit.SECONDS)) {
                    process.destroyForcibly();
                    says.accept("the alarm's program took longer than a minute and was ended");
                } else if (process.exitValue() != 0) {
                    says.accept("the alarm's program ended with " + process.exitValue());
                }
            } catch (IOException e) {
                says.accept("the alarm's program could not be run: " + e.getMessage());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            } finally {
                running = false;
            }
        });
    }
}
