package stativex.files;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** What is said of a live day, a line each with the time, beside its journal. A line that cannot be written is lost; trading goes on. */
public final class LiveLog {
    private final Path file;

    /** @param journal of the day */
    public LiveLog(Path journal) {
        this.file = journal.resolveSibling(journal.getFileName() + ".log");
    }

    /** Where it is. */
    public Path file() {
        return file;
    }

    /** Writes a line behind the others. Returns whether it could be written. */
    public boolean write(String sentence) {
        String line = Instant.now().truncatedTo(ChronoUnit.MILLIS) + "  " + sentence.replace('\n', ' ') + "\n";
        try {
            if (!Files.exists(file)) {
                DataFolder.newFile(file).close();
            }
            Files.writeString(file, line, StandardCharsets.UTF_8, StandardOpenOption.APPEND);
            return true;
        } catch (IOException e) {
            return false;
        }
    }
}
