package stativex.files;

import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.duckdb.DuckDBDriver;
import org.sqlite.SQLiteJDBCLoader;

/**
 * Libraries of databases outside their jars. Left alone each database takes its own out anew into the folder for temporary files at every
 * start; so they are put once into a folder of our own cache: DuckDB looks in the place of libraries that the starter names, SQLite where
 * it is told to.
 */
public final class NativeLibrary {
    private static final String DUCKDB = "libduckdb_java.so";
    private static final String SQLITE = "libsqlitejdbc.so";

    private NativeLibrary() {}

    /** Puts DuckDB's there if it is not there yet; where there is no such folder DuckDB helps itself. */
    public static synchronized void duckdb() {
        put(DuckDBDriver.class.getResource("/" + DUCKDB + "_linux_" + (arm() ? "arm64" : "amd64")), DUCKDB);
    }

    /** The same for SQLite. */
    static synchronized void sqlite() {
        put(SQLiteJDBCLoader.class.getResource("native/Linux/" + (arm() ? "aarch64" : "x86_64") + "/" + SQLITE), SQLITE)
                .ifPresent(folder -> {
                    System.setProperty("org.sqlite.lib.path", folder.toString());
                    System.setProperty("org.sqlite.lib.name", SQLITE);
                });
    }

    private static boolean arm() {
        String processor = System.getProperty("os.arch").toLowerCase(Locale.ROOT);
        return processor.equals("aarch64") || processor.equals("arm64");
    }

    /** @return the folder it lies in; empty where there is none */
    private static Optional<Path> put(URL library, String name) {
        if (library == null || !System.getProperty("os.name").toLowerCase(Locale.ROOT).startsWith("linux")) {
            return Optional.empty();
        }
        return DataFolder.cache().map(cache -> cache.resolve("native")).filter(folder -> {
            try {
                copy(library, folder, name);
                return true;
            } catch (IOException e) {
                // a cache that cannot be written costs only time
                System.getLogger("stativex").log(System.Logger.Level.DEBUG, "no cache", e);
                return false;
            }
        });
    }

    private static void copy(URL library, Path folder, String name) throws IOException {
        Path place = folder.resolve(name);
        if (Files.exists(place) && Files.size(place) == library.openConnection().getContentLengthLong()) {
            return;
        }
        DataFolder.create(folder);
        Path part = folder.resolve("." + UUID.randomUUID() + ".part");
        try (InputStream in = library.openStream()) {
            Files.copy(in, part);
            Files.move(part, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(part);
        }
    }
}
