package stativex.files;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * Where Stativex keeps a person's data: {@code STATIVEX_HOME} if it is set; else, on Linux, the folder of the XDG Base
 * Directory Specification, on other systems the platform's own.
 */
public final class DataFolder {
    private DataFolder() {}

    /** The folder; it need not exist yet. */
    public static Path path() {
        return path(System.getenv("STATIVEX_HOME"), System.getenv("XDG_DATA_HOME"), System.getenv("LOCALAPPDATA"),
                System.getProperty("os.name"), Path.of(System.getProperty("user.home")));
    }

    /** Makes a folder of the person's data, which only the person may enter; one that is there stays as it is. */
    public static void create(Path folder) throws IOException {
        Files.createDirectories(folder, only("rwx------"));
    }

    /** Makes a file of the person's data, which only the person may read, and opens it for writing. */
    public static FileChannel newFile(Path file) throws IOException {
        return FileChannel.open(file, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
                only("rw-------"));
    }

    /** The same, or the one that is there. */
    public static FileChannel openFile(Path file) throws IOException {
        return FileChannel.open(file, Set.of(StandardOpenOption.CREATE, StandardOpenOption.WRITE), only("rw-------"));
    }

    /**
     * Where what can be made again is kept, on Linux the folder of the XDG Base Directory Specification; it need not exist yet. The
     * starter names it as {@code stativex.cache}; without that there is none.
     */
    public static Optional<Path> cache() {
        return Optional.ofNullable(System.getProperty("stativex.cache")).filter(path -> !path.isBlank()).map(Path::of);
    }

    /** None on systems that keep such rights in another way. */
    private static FileAttribute<?>[] only(String rights) {
        return FileSystems.getDefault().supportedFileAttributeViews().contains("posix")
                ? new FileAttribute<?>[]{PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(rights))}
                : new FileAttribute<?>[0];
    }

    static Path path(String own, String xdg, String local, String system, Path home) {
        if (own != null && !own.isBlank()) {
            return Path.of(own);
        }
        String name = system.toLowerCase(Locale.ROOT);
        if (name.startsWith("mac")) {
            return home.resolve("Library/Application Support/Stativex");
        }
        if (name.startsWith("windows")) {
            return (local == null || local.isBlank() ? home.resolve("AppData/Local") : Path.of(local))
                    .resolve("Stativex");
        }
        // the specification: a relative XDG_DATA_HOME is ignored
        Path base = xdg != null && Path.of(xdg).isAbsolute() ? Path.of(xdg) : home.resolve(".local/share");
        return base.resolve("stativex");
    }
}
