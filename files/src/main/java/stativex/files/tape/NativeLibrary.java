package stativex.files.tape;

import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Locale;
import java.util.UUID;
import org.duckdb.DuckDBDriver;
import stativex.files.DataFolder;

/**
 * DuckDB's library outside its jar. Left alone DuckDB takes it out anew into the folder for temporary files at every start; the starter
 * therefore names a folder of our own cache as the place of libraries, and it is put there once.
 */
final class NativeLibrary {
    private NativeLibrary() {}

    /** Puts it there if it is not there yet; where there is no such folder DuckDB helps itself. */
    static synchronized void prepare() {
        DataFolder.cache().ifPresent(cache -> {
            try {
                put(cache.resolve("native"));
            } catch (IOException e) {
                // a cache that cannot be written costs only time
                System.getLogger("stativex").log(System.Logger.Level.DEBUG, "no cache", e);
            }
        });
    }

    private static void put(Path folder) throws IOException {
        String arm = System.getProperty("os.arch").toLowerCase(Locale.ROOT);
        URL library = DuckDBDriver.class.getResource("/libduckdb_java.so_linux_"
                + (arm.equals("aarch64") || arm.equals("arm64") ? "arm64" : "amd64"));
        if (library == null || !System.getProperty("os.name").toLowerCase(Locale.ROOT).startsWith("linux")) {
            return;
        }
        Path place = folder.resolve("libduckdb_java.so");
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
