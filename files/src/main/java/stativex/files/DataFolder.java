package stativex.files;

import java.nio.file.Path;
import java.util.Locale;

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
