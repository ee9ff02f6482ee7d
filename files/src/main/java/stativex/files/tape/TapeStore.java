package stativex.files.tape;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.regex.Pattern;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.DataFolder;
import stativex.market.Tape;

/**
 * The tapes a person keeps, one file each in one folder. Files are written beside their place, forced to disk and then moved
 * there whole, and never changed after, so that a kill at any moment leaves each tape whole or absent. Whatever changes the
 * folder holds a lock on it, so that two running copies do not get into each other's way; reading needs none.
 */
public final class TapeStore {
    static final String SUFFIX = ".tape";
    private static final String PART = ".part";
    private static final Pattern NAME = Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]{0,79}");
    /** File locks are per process: threads of one take turns here. */
    private static final Object TURN = new Object();

    private final Path folder;

    /** @param folder need not exist yet */
    public TapeStore(Path folder) {
        this.folder = folder;
    }

    /** The person's own, in the data folder. */
    public static TapeStore own() {
        return new TapeStore(DataFolder.path().resolve("tapes"));
    }

    public Path folder() {
        return folder;
    }

    /**
     * A tape in the store.
     *
     * @param firstTime of its first print, nanoseconds; likewise {@code lastTime}
     * @param bytes on disk
     */
    public record Stored(String name, TapeInfo info, Tape tape, long firstTime, long lastTime, long bytes) {}

    /** An entry of the list: a tape, or why it cannot be opened. */
    public record Entry(String name, Optional<Stored> stored, Optional<String> problem) {}

    /** Every tape by name; one that cannot be opened stays in the list with the reason. */
    public List<Entry> list() {
        List<Entry> entries = new ArrayList<>();
        for (String name : names(SUFFIX)) {
            try {
                entries.add(new Entry(name, Optional.of(open(name)), Optional.empty()));
            } catch (BadInput e) {
                entries.add(new Entry(name, Optional.empty(), Optional.of(e.getMessage())));
            }
        }
        return entries;
    }

    /** Names of the files with a suffix, in order. */
    List<String> names(String suffix) {
        List<String> names = new ArrayList<>();
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*" + suffix)) {
            for (Path file : files) {
                String name = file.getFileName().toString();
                if (!name.startsWith(".")) {
                    names.add(name.substring(0, name.length() - suffix.length()));
                }
            }
        } catch (NoSuchFileException e) {
            return List.of();
        } catch (IOException e) {
            throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
        }
        names.sort(String.CASE_INSENSITIVE_ORDER);
        return names;
    }

    public boolean has(String name) {
        return NAME.matcher(name).matches() && Files.exists(file(name));
    }

    /**
     * Opens a tape: its head and index are read, its prints when they are touched.
     *
     * @throws BadInput when there is none of that name; {@link Damaged} when it cannot be read
     */
    public Stored open(String name) {
        Path file = file(name);
        try {
            TapeFile.Opened opened = TapeFile.open(file);
            TapeInfo info = TapeInfo.read(opened.origin(), Optional.of(opened.closing()), file.toString());
            return new Stored(name, info, opened.tape(info.closing().incomplete()),
                    opened.outlines().getFirst().firstTime(), opened.lastTime(), opened.bytes());
        } catch (NoSuchFileException e) {
            List<String> names = names(SUFFIX);
            throw new BadInput("no tape named " + name + " in " + folder + (names.isEmpty()
                    ? ", which is empty: bring one in with ./stativex import"
                    : "; there are " + some(names)), e);
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
    }

    private static String some(List<String> names) {
        int shown = Math.min(names.size(), 10);
        return String.join(", ", names.subList(0, shown))
                + (shown < names.size() ? " and " + (names.size() - shown) + " more" : "");
    }

    /** @throws BadInput when the name cannot be a tape's */
    Path file(String name) {
        return file(name, SUFFIX);
    }

    Path file(String name, String suffix) {
        if (!NAME.matcher(name).matches()) {
            throw new BadInput("expected a tape's name of letters, digits, blanks, dots, dashes and underscores,"
                    + " beginning with a letter or digit, found \"" + name + "\"");
        }
        return folder.resolve(name + suffix);
    }

    /**
     * The place of a new tape or join.
     *
     * @throws BadInput also when commands take the name for something else: a file, or what comes with the application
     */
    Path fresh(String name, String suffix) {
        Path file = file(name, suffix);
        if (TapeReference.meansOther(name)) {
            throw new BadInput(
                    "a tape cannot be named " + name + ": commands take names that begin with \"demo\" or end with"
                            + " .csv or .parquet for other things. Choose another name");
        }
        return file;
    }

    /** Takes a tape away. */
    public void remove(String name) {
        Path file = file(name);
        locked(() -> {
            if (!Files.deleteIfExists(file)) {
                throw new BadInput("no tape named " + name + " in " + folder);
            }
            Files.deleteIfExists(leftOut(name));
            return null;
        });
    }

    /** A file under work, held by a lock for as long as its writer lives. */
    static final class Part implements AutoCloseable {
        private final Path file;
        private final FileChannel channel;
        private final FileLock lock;

        Part(Path file) throws IOException {
            this.file = file;
            this.channel = DataFolder.newFile(file);
            this.lock = channel.lock();
        }

        FileChannel channel() {
            return channel;
        }

        Path file() {
            return file;
        }

        /** Lets go of it and takes it away if it was not moved to its place. */
        @Override
        public void close() throws IOException {
            if (channel.isOpen()) {
                lock.release();
                channel.close();
            }
            Files.deleteIfExists(file);
        }
    }

    /** Begins a file; what dead writers left behind is swept away. */
    Part part() {
        return locked(() -> {
            sweep();
            return new Part(folder.resolve("." + UUID.randomUUID() + PART));
        });
    }

    private void sweep() throws IOException {
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, ".*" + PART)) {
            for (Path file : files) {
                boolean dead;
                try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE);
                        FileLock lock = channel.tryLock()) {
                    dead = lock != null;
                } catch (OverlappingFileLockException | NoSuchFileException e) {
                    // written by this very process, or gone already
                    dead = false;
                }
                if (dead) {
                    Files.deleteIfExists(file);
                }
            }
        }
    }

    /** The list of lines that were left out of a tape; there is one only if any were. */
    public Path leftOut(String name) {
        return file(name, ".left-out.txt");
    }

    /** Moves a finished tape to its place, and the list of lines left out, if there is one. */
    void place(Part part, Optional<Part> leftOut, String name, boolean replace) {
        Path file = replace ? file(name) : fresh(name, SUFFIX);
        locked(() -> {
            if (!replace && (Files.exists(file) || new Joins(this).has(name))) {
                throw new BadInput(
                        "there is a tape or join named " + name + " already: choose another name or remove it");
            }
            Files.deleteIfExists(leftOut(name));
            if (leftOut.isPresent()) {
                Files.move(leftOut.get().file(), leftOut(name), StandardCopyOption.ATOMIC_MOVE);
            }
            Files.move(part.file(), file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return null;
        });
    }

    /** Does something with the folder to itself. */
    <T> T locked(Callable<T> work) {
        synchronized (TURN) {
            try {
                DataFolder.create(folder);
                try (FileChannel channel = DataFolder.openFile(folder.resolve(".lock"));
                        FileLock lock = channel.lock()) {
                    return lock.isValid() ? work.call() : null;
                }
            } catch (RuntimeException e) {
                throw e;
            } catch (Exception e) {
                throw new BadInput(folder + ": cannot be written: " + Causes.of(e), e);
            }
        }
    }

    /**
     * Reads every print, so that every block is checked.
     *
     * @throws Damaged when one is not what was written
     */
    public void check(String name, Progress progress) {
        Stored stored = open(name);
        for (int block = 0; block < stored.tape().blocks(); block++) {
            stored.tape().fetch(block);
            progress.at(block + 1L, stored.tape().blocks());
        }
    }

    /**
     * Makes a damaged tape again: from its own blocks when every print is still there, else from the file it was imported from, in the
     * way it was read then.
     *
     * @throws BadInput when that file is gone, or is not the one that was imported; the damaged tape stays
     */
    public void rebuild(String name, Progress progress) {
        Path file = file(name);
        try {
            TapeFile.Texts texts = TapeFile.texts(file);
            TapeInfo info = TapeInfo.read(texts.origin().orElseThrow(() -> new BadInput("tape " + name
                    + " cannot be made again: neither its head nor its end can be read; import it again")),
                    texts.closing(), file.toString());
            if (texts.closing().isEmpty()) {
                throw new BadInput("tape " + name + " cannot be made again: how " + info.source()
                        + " was taken in is not known any more; import it again");
            }
            if (!fromBlocks(name, info)) {
                fromSource(name, info, progress);
            }
        } catch (NoSuchFileException e) {
            throw new BadInput("no tape named " + name + " in " + folder, e);
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
    }

    private boolean fromBlocks(String name, TapeInfo info) throws IOException {
        if (info.closing().prints() == 0) {
            return false;
        }
        try (Part part = part()) {
            TapeFile.Writer writer = new TapeFile.Writer(part.channel(), info.originText());
            if (!TapeFile.copyBlocks(file(name), info.closing().prints(), writer)) {
                return false;
            }
            writer.end(info.closingText(), info.briefText());
            place(part, name);
            return true;
        }
    }

    /** Moves a tape made again to its place; the list of lines left out stays. */
    private void place(Part part, String name) {
        locked(() -> {
            Files.move(part.file(), file(name), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return null;
        });
    }

    private void fromSource(String name, TapeInfo info, Progress progress) throws IOException {
        Path source = Path.of(info.source());
        TapeInfo.Closing before = info.closing();
        if (!Files.exists(source)) {
            throw new BadInput("tape " + name + " cannot be made again: " + source + " is gone");
        }
        String changed = "tape " + name + " cannot be made again: " + source + " has changed since the import";
        if (Files.size(source) != before.sourceBytes()) {
            throw new BadInput(changed);
        }
        try (TapeImport job = TapeImport.read(this, source, info.contract(), info.layout(), info.gapNanos(),
                progress)) {
            if (job.sourceBytes() != before.sourceBytes() || job.sourceSum() != before.sourceSum()) {
                throw new BadInput(changed);
            }
            job.keep(name, before.leftOut(), before.incomplete(), true);
        }
    }
}
