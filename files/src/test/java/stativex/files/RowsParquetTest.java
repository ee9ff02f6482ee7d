package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.List;
import org.testng.annotations.Test;
import stativex.files.tape.RowsParquet;

/** Result rows as Parquet, read back by DuckDB: types, figures to the last digit, what is empty. */
public class RowsParquetTest {
    @Test
    public void rowsAreTypedAndExact() throws Exception {
        Path file = Files.createTempDirectory("rows").resolve("it's [1].parquet");
        RowsParquet.write(file, List.of(
                List.of("entry_time", "strategy", "quantity", "entry_price", "net", "r", "trading_day", "exit_reason"),
                List.of("2026-09-24T01:02:03.000000007Z", "Ebb, \"fade\"", "2", "1262.25", "-43.1234", "", "2026-09-24",
                        "stop"),
                List.of("2026-09-24T01:02:04Z", "\u00C6bb", "1", "-0.5", "120.00", "1.5", "2026-09-25", "")));
        try (var connection = DriverManager.getConnection("jdbc:duckdb:");
                var rows = connection.createStatement().executeQuery("SELECT epoch_ns(entry_time), strategy, quantity,"
                        + " entry_price, net, r, CAST(trading_day AS VARCHAR), exit_reason, typeof(net), typeof(r)"
                        + " FROM read_parquet('" + file.toString().replace("'", "''").replace("[", "[[]")
                        + "') ORDER BY entry_time")) {
            assertTrue(rows.next());
            assertEquals(rows.getLong(1), 1_790_211_723_000_000_007L);
            assertEquals(rows.getString(2), "Ebb, \"fade\"");
            assertEquals(rows.getLong(3), 2);
            assertEquals(rows.getBigDecimal(4).toPlainString(), "1262.250000");
            assertEquals(rows.getBigDecimal(5).toPlainString(), "-43.123400");
            rows.getDouble(6);
            assertTrue(rows.wasNull());
            assertEquals(rows.getString(7), "2026-09-24");
            assertEquals(rows.getString(9) + " " + rows.getString(10), "DECIMAL(18,6) DOUBLE");
            assertTrue(rows.next());
            assertEquals(rows.getString(2), "\u00C6bb");
            assertEquals(rows.getDouble(6), 1.5);
            assertEquals(rows.getString(8), null);
            assertTrue(!rows.next());
        }
    }
}
