package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** The journals of live days in the person's data folder: {@code live/2026-09-24-1.journal} and so on. */
public final class LiveFolder {
    private static final String JOURNAL = ".journal";

    private final Path folder;

    /** @param folder need not exist yet */
    public LiveFolder(Path folder) {
        this.folder = folder;
    }

    /** The person's own. */
    public static LiveFolder own() {
        return new LiveFolder(DataFolder.path().resolve("live"));
    }

    /** As a person reads it: without folder and ending. */
    public static String name(Path journal) {
        String name = String.valueOf(journal.getFileName());
        return name.endsWith(JOURNAL) ? name.substring(0, name.length() - JOURNAL.length()) : name;
    }

    /** Where a new day is kept. */
    public Path fresh() {
        String today = LocalDate.now().toString();
        for (int number = 1;; number++) {
            Path file = folder.resolve(today + "-" + number + JOURNAL);
            if (!Files.exists(file)) {
                return file;
            }
        }
    }

    /** The newest day, if it is of these documents; one that does not read is none. */
    public Optional<Path> begun(SessionFile.Set documents) {
        if (!Files.isDirectory(folder)) {
            return Optional.empty();
        }
        try (Stream<Path> files = Files.list(folder)) {
            List<Path> journals = files.filter(file -> String.valueOf(file.getFileName()).endsWith(JOURNAL))
                    .sorted(Comparator.comparing(LiveFolder::modified).reversed()).toList();
            return journals.stream().findFirst().filter(file -> LiveJournal.isOf(file, documents));
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    private static long modified(Path file) {
        try {
            return Files.getLastModifiedTime(file).toMillis();
        } catch (IOException e) {
            return 0;
        }
    }
}
