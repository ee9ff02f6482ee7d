package stativex.files.tape;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import org.duckdb.DuckDBAppender;
import stativex.market.TapeTime;

/** Results as Parquet: the columns of their CSV files, typed; what is empty there is null. */
public final class RowsParquet {
    private static final Set<String> MONEY = Set.of("gross", "fees", "net", "fee", "result", "equity", "balance",
            "close_cost", "price", "entry_price", "exit_price");
    private static final Set<String> COUNTS = Set.of("quantity", "mae_ticks", "mfe_ticks", "bars", "trades", "fills",
            "variant", "days_evaluated", "order", "open");
    private static final Set<String> RATIOS = Set.of("r", "neighbours_score", "sharpe");

    private RowsParquet() {}

    /**
     * Writes rows in one piece or not at all.
     *
     * @param rows the header first
     */
    public static void write(Path file, List<List<String>> rows) {
        List<String> header = rows.getFirst();
        Parquet.write(file,
                String.join(", ", header.stream().map(name -> Parquet.name(name) + " " + type(name)).toList()),
                table -> {
                    for (List<String> row : rows.subList(1, rows.size())) {
                        table.beginRow();
                        for (int i = 0; i < header.size(); i++) {
                            append(table, header.get(i), i < row.size() ? row.get(i) : "");
                        }
                        table.endRow();
                    }
                });
    }

    private static String type(String name) {
        if (name.equals("time") || name.endsWith("_time")) {
            return "TIMESTAMP_NS";
        }
        if (name.equals("trading_day")) {
            return "DATE";
        }
        // a column for each variant is named by its number
        if (MONEY.contains(name) || name.matches("[0-9]+")) {
            return "DECIMAL(18,6)";
        }
        return COUNTS.contains(name) ? "BIGINT" : RATIOS.contains(name) ? "DOUBLE" : "VARCHAR";
    }

    private static void append(DuckDBAppender table, String name, String text) throws SQLException {
        if (text.isEmpty()) {
            table.appendNull();
            return;
        }
        switch (type(name)) {
            case "TIMESTAMP_NS" -> table.appendEpochNanos(TapeTime.nanos(Instant.parse(text)));
            case "DATE" -> table.append(LocalDate.parse(text));
            case "DECIMAL(18,6)" -> table.append(new BigDecimal(text).setScale(6));
            case "BIGINT" -> table.append(Long.parseLong(text));
            case "DOUBLE" -> {
                // a score above every number
                if (text.equals("none")) {
                    table.append(Double.POSITIVE_INFINITY);
                } else {
                    table.append(Double.parseDouble(text));
                }
            }
            default -> table.append(text);
        }
    }
}
