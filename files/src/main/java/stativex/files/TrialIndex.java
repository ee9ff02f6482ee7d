package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * What the folders of kept trials say, in a database, so that a list of thousands need not read thousands of files. The folders are the
 * truth: a folder that is new or was touched is read anew, one that went goes, and an index that is lost, damaged or of another make is
 * made again from them. Where it cannot be kept, the folders are read each time.
 */
final class TrialIndex {
    private static final String FILE = "index.sqlite";
    /** Of the table's columns; another number means it is made again. */
    private static final int MAKE = 1;

    private final Path folder;
    private final Function<Path, Optional<TrialFolder.Kept>> reader;

    /** @param reader reads a trial's folder; empty: it is no whole trial */
    TrialIndex(Path folder, Function<Path, Optional<TrialFolder.Kept>> reader) {
        this.folder = folder;
        this.reader = reader;
    }

    /** Whole trials, the newest first. */
    List<TrialFolder.Kept> list() throws IOException {
        List<Path> trials = trials();
        if (trials.isEmpty()) {
            return List.of();
        }
        try {
            return indexed(trials);
        } catch (SQLException first) {
            note(first);
            try {
                remove();
                return indexed(trials);
            } catch (SQLException | IOException again) {
                note(again);
                return trials.stream().flatMap(one -> reader.apply(one).stream()).toList();
            }
        }
    }

    private static void note(Exception problem) {
        System.getLogger("stativex").log(System.Logger.Level.DEBUG, "no index of trials", problem);
    }

    private List<Path> trials() throws IOException {
        try (Stream<Path> folders = Files.list(folder)) {
            return folders.filter(one -> TrialFolder.NUMBER.matcher(one.getFileName().toString()).matches())
                    .sorted(Comparator.comparing(TrialIndex::number).reversed()).toList();
        }
    }

    private static int number(Path one) {
        return Integer.parseInt(one.getFileName().toString());
    }

    private void remove() throws IOException {
        for (String end : List.of("", "-wal", "-shm")) {
            Files.deleteIfExists(folder.resolve(FILE + end));
        }
    }

    private List<TrialFolder.Kept> indexed(List<Path> trials) throws SQLException {
        NativeLibrary.sqlite();
        Path file = folder.resolve(FILE);
        try {
            // made by us, so that only the person may read it
            DataFolder.openFile(file).close();
        } catch (IOException e) {
            throw new SQLException(e);
        }
        try (Connection base = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = base.createStatement()) {
            statement.execute("PRAGMA busy_timeout = 2000");
            statement.execute("PRAGMA journal_mode = WAL");
            statement.execute("PRAGMA synchronous = NORMAL");
            base.setAutoCommit(false);
            make(statement);
            List<TrialFolder.Kept> list = list(base, trials);
            base.commit();
            return list;
        }
    }

    private static void make(Statement statement) throws SQLException {
        int make;
        try (ResultSet version = statement.executeQuery("PRAGMA user_version")) {
            make = version.getInt(1);
        }
        if (make != MAKE) {
            statement.execute("DROP TABLE IF EXISTS trials");
            statement.execute(
                    "CREATE TABLE trials (folder TEXT PRIMARY KEY, stamp TEXT NOT NULL, whole INTEGER NOT NULL,"
                            + " strategy TEXT, versions TEXT, contract TEXT, first_day TEXT, last_day TEXT, trades INTEGER,"
                            + " net INTEGER) WITHOUT ROWID");
            statement.execute("PRAGMA user_version = " + MAKE);
        }
    }

    /** A row of the table. @param kept empty: no whole trial when it was looked at */
    private record Row(String stamp, Optional<TrialFolder.Kept> kept) {}

    private List<TrialFolder.Kept> list(Connection base, List<Path> trials) throws SQLException {
        Map<String, Row> known = known(base);
        List<TrialFolder.Kept> list = new ArrayList<>();
        for (Path one : trials) {
            String name = one.getFileName().toString();
            String stamp = stamp(one);
            Row row = known.remove(name);
            if (row == null || !row.stamp().equals(stamp)) {
                row = new Row(stamp, reader.apply(one));
                put(base, name, row);
            }
            row.kept().ifPresent(list::add);
        }
        try (PreparedStatement gone = base.prepareStatement("DELETE FROM trials WHERE folder = ?")) {
            for (String name : known.keySet()) {
                gone.setString(1, name);
                gone.executeUpdate();
            }
        }
        return list;
    }

    /** Sizes and times of the two files that say what a trial is. */
    private static String stamp(Path trial) {
        StringBuilder stamp = new StringBuilder();
        for (String file : List.of(TrialFolder.DOCUMENT, TrialFolder.SUMMARY)) {
            try {
                BasicFileAttributes of = Files.readAttributes(trial.resolve(file), BasicFileAttributes.class);
                stamp.append(of.size()).append('@').append(of.lastModifiedTime()).append(' ');
            } catch (IOException e) {
                stamp.append("none ");
            }
        }
        return stamp.toString();
    }

    private Map<String, Row> known(Connection base) throws SQLException {
        Map<String, Row> known = new HashMap<>();
        try (Statement statement = base.createStatement();
                ResultSet row = statement.executeQuery("SELECT folder, stamp, whole, strategy, versions, contract,"
                        + " first_day, last_day, trades, net FROM trials")) {
            while (row.next()) {
                String name = row.getString(1);
                known.put(name, new Row(row.getString(2), row.getInt(3) == 0
                        ? Optional.empty()
                        : Optional.of(new TrialFolder.Kept(Integer.parseInt(name), folder.resolve(name),
                                row.getString(4), List.of(row.getString(5).split(" ", -1)), row.getString(6),
                                date(row.getString(7)), date(row.getString(8)), row.getInt(9), row.getLong(10)))));
            }
        }
        return known;
    }

    private static Optional<LocalDate> date(String text) {
        return Optional.ofNullable(text).map(LocalDate::parse);
    }

    private static void put(Connection base, String name, Row row) throws SQLException {
        try (PreparedStatement put = base.prepareStatement(
                "INSERT OR REPLACE INTO trials VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
            put.setString(1, name);
            put.setString(2, row.stamp());
            put.setInt(3, row.kept().isPresent() ? 1 : 0);
            for (int i = 4; i <= 10; i++) {
                put.setNull(i, Types.NULL);
            }
            if (row.kept().isPresent()) {
                TrialFolder.Kept kept = row.kept().get();
                put.setString(4, kept.strategy());
                put.setString(5, String.join(" ", kept.versions()));
                put.setString(6, kept.contract());
                put.setString(7, kept.from().map(LocalDate::toString).orElse(null));
                put.setString(8, kept.to().map(LocalDate::toString).orElse(null));
                put.setInt(9, kept.trades());
                put.setLong(10, kept.net());
            }
            put.executeUpdate();
        }
    }
}
