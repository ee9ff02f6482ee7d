package stativex.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.Stream;
import stativex.demo.Demo;
import stativex.files.Documents;
import stativex.files.tape.LayoutGuess;
import stativex.files.tape.Progress;
import stativex.files.tape.TapeImport;
import stativex.files.tape.TapeStore;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * Import of a tick CSV file into the store (guessing, checking, findings, checksums, writing to disk) against DuckDB's own
 * CSV reader on one thread into a table with typed columns, nanoseconds kept; the same file, in the page cache, turn and
 * turn about; the best time of each counts, because others on the machine only ever make it slower. Fails when
 * import is not at least twice as fast. Then: how long a stored tape takes to open, and bytes a tick.
 */
final class ImportAgainstDuckDb {
    private ImportAgainstDuckDb() {}

    public static void main(String[] arguments) throws IOException, SQLException {
        int rows = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 10_000_000;
        int rounds = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 5;
        Path home = Files.createTempDirectory("bench");
        try {
            Documents.Read<Contract> contract = Demo.documents().contract();
            Path file = home.resolve("ticks.csv");
            ticks(file, rows, contract.value());
            TapeStore store = new TapeStore(home.resolve("tapes"));
            List<Double> ours = new ArrayList<>();
            List<Double> theirs = new ArrayList<>();
            for (int round = -1; round < rounds; round++) {
                double own = timed(() -> bring(store, file, contract, "tape"));
                double other = timed(() -> duckDb(file, rows));
                if (round >= 0) {
                    ours.add(own);
                    theirs.add(other);
                }
            }
            double own = Collections.min(ours);
            double other = Collections.min(theirs);
            System.out.printf(
                    "%d rows, %d MB: import %.2f s (%.1f M rows/s), DuckDB on one thread %.2f s (%.1f M rows/s)%n",
                    rows, Files.size(file) / 1_000_000, own, rows / own / 1e6, other, rows / other / 1e6);
            bring(store, file, contract, "kept");
            long before = used();
            Tape[] tape = new Tape[1];
            double open = timed(() -> tape[0] = store.open("kept").tape());
            int[] bars = new int[1];
            double chart = timed(() -> bars[0] = SeriesBuilder.all(tape[0], contract.value().calendar(),
                    BarSettings.of(new BarType.Ticks(400))).count());
            System.out.printf("stored tape: opened in %.0f ms; %d bars of 400 ticks, every block checked, in %.0f ms%n",
                    open * 1000, bars[0], chart * 1000);
            System.out.printf("%.1f bytes a tick on disk, %.2f on the heap when all was touched%n",
                    (double) store.open("kept").bytes() / rows, (double) Math.max(0, used() - before) / rows);
            System.out.printf("import is %.1f × as fast (at least 2 ×)%n", other / own);
            if (other / own < 2) {
                System.exit(1);
            }
        } finally {
            try (Stream<Path> files = Files.walk(home)) {
                files.sorted(Comparator.reverseOrder()).forEach(path -> path.toFile().delete());
            }
        }
    }

    /** Heap in use after a collection, bytes. */
    private static long used() {
        System.gc();
        return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
    }

    private interface Work {
        void run() throws SQLException;
    }

    private static double timed(Work work) throws SQLException {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e9;
    }

    private static void bring(TapeStore store, Path file, Documents.Read<Contract> contract, String name) {
        ZoneId zone = contract.value().calendar().zone();
        if (store.has(name)) {
            store.remove(name);
        }
        try (TapeImport job = TapeImport.read(store, file, contract, Optional.of(LayoutGuess.of(file, zone).layout()),
                TapeImport.GAP, Progress.NONE)) {
            job.keep(name, false, Set.of());
        }
    }

    private static void duckDb(Path file, int rows) throws SQLException {
        try (Connection base = DriverManager.getConnection("jdbc:duckdb:");
                Statement statement = base.createStatement()) {
            statement.execute("SET threads=1");
            statement.execute("CREATE TABLE ticks AS SELECT * FROM read_csv('" + file
                    + "', header=true, columns={'time':'TIMESTAMP_NS','price':'DECIMAL(18,2)','size':'INTEGER',"
                    + "'bid':'DECIMAL(18,2)','ask':'DECIMAL(18,2)','aggressor':'VARCHAR'})");
            try (ResultSet count = statement.executeQuery("SELECT count(*), sum(size) FROM ticks")) {
                count.next();
                if (count.getLong(1) != rows) {
                    throw new IllegalStateException("DuckDB read " + count.getLong(1) + " rows");
                }
            }
        }
    }

    /** A random walk, two prints a second on average, times with nine decimals. */
    private static void ticks(Path file, int rows, Contract contract) throws IOException {
        SplittableRandom dice = new SplittableRandom(1);
        long time = 1_600_000_000L * TapeTime.SECOND;
        long price = 5000;
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("time,price,size,bid,ask,aggressor\r\n");
            for (int i = 0; i < rows; i++) {
                time += 1 + dice.nextLong(TapeTime.SECOND);
                price = Math.max(1000, price + dice.nextInt(-2, 3));
                boolean bought = dice.nextBoolean();
                out.write(TapeTime.instant(time) + "," + contract.text(price) + "," + (1 + dice.nextInt(9)) + ","
                        + contract.text(bought ? price - 1 : price) + "," + contract.text(bought ? price : price + 1)
                        + "," + (bought ? "buyer" : "seller") + "\r\n");
            }
        }
    }
}
