package stativex.files.tape;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;
import java.util.UUID;
import org.duckdb.DuckDBAppender;
import org.duckdb.DuckDBConnection;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.NativeLibrary;
import stativex.files.WholeFile;

/** Parquet files through DuckDB. Rows go through a database file beside the target, never all through memory. */
final class Parquet {
    private Parquet() {}

    /** Appends rows to a table. */
    interface Rows {
        void to(DuckDBAppender table) throws SQLException;
    }

    /** A database in memory that reads files a piece at a time. */
    static Connection reader() throws SQLException {
        NativeLibrary.duckdb();
        Properties properties = new Properties();
        properties.setProperty("jdbc_stream_results", "true");
        return DriverManager.getConnection("jdbc:duckdb:", properties);
    }

    /** What the database says of a file, without its own words for itself. */
    static String reason(SQLException e) {
        String said = String.valueOf(e.getMessage());
        if (said.contains("magic bytes") || said.contains("too small to be a Parquet")) {
            return "it is no Parquet file, or cut short";
        }
        if (said.contains("No space left")) {
            return "no space left on device";
        }
        if (said.contains("Permission denied")) {
            return "permission denied";
        }
        return said.startsWith("Conversion Error") || said.startsWith("Out of Range Error")
                ? "a value is out of range"
                : "its contents do not read; the file is damaged or of a kind that is not known here";
    }

    /** A text as SQL writes it. */
    static String quoted(String text) {
        return "'" + text.replace("'", "''") + "'";
    }

    /** A file to read as SQL writes it: signs that stand for others in a pattern of names stand for themselves. */
    static String file(Path file) {
        return quoted(file.toString().replaceAll("[\\[*?]", "[$0]"));
    }

    /** A column's name as SQL writes it. */
    static String name(String column) {
        return "\"" + column.replace("\"", "\"\"") + "\"";
    }

    /**
     * Writes a file in one piece or not at all.
     *
     * @param columns names and SQL types
     * @throws BadInput when the place cannot be written
     */
    static void write(Path file, String columns, Rows rows) {
        Path place = WholeFile.place(file);
        Path work = place.resolveSibling("." + UUID.randomUUID() + ".work");
        Path neighbour = place.resolveSibling("." + UUID.randomUUID() + ".part");
        NativeLibrary.duckdb();
        try {
            Files.createDirectories(place.getParent());
            try (DuckDBConnection base = DriverManager.getConnection("jdbc:duckdb:" + work)
                    .unwrap(DuckDBConnection.class); Statement statement = base.createStatement()) {
                statement.execute("CREATE TABLE rows (" + columns + ")");
                try (DuckDBAppender table = base.createAppender(DuckDBConnection.DEFAULT_SCHEMA, "rows")) {
                    rows.to(table);
                }
                statement.execute("COPY rows TO " + quoted(neighbour.toString()) + " (FORMAT parquet)");
            }
            Files.move(neighbour, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (SQLException e) {
            throw new BadInput(file + ": cannot be written: " + reason(e), e);
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
        } finally {
            for (Path left : new Path[]{work, work.resolveSibling(work.getFileName() + ".wal"), neighbour}) {
                left.toFile().delete();
            }
        }
    }
}
