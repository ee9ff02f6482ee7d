package stativex.files.tape;

import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.duckdb.DuckDBAppender;
import stativex.market.Contract;

/** Bars as Parquet: the columns of bar CSV files, typed. */
public final class BarParquet {
    private BarParquet() {}

    /** Writes what {@code bars} would write as CSV, in one piece or not at all. */
    public static void write(Path file, BarCsv bars, Contract contract, boolean fine) {
        List<String> columns = new ArrayList<>();
        for (String name : bars.header()) {
            boolean study = bars.studies().stream().anyMatch(s -> s.name().equals(name));
            columns.add(Parquet.name(name) + " " + (study ? "DOUBLE" : type(name, contract.decimals(), fine)));
        }
        int figures = bars.header().size() - bars.studies().size();
        Parquet.write(file, String.join(", ", columns), rows -> {
            for (int bar = 0; bar < bars.count(); bar++) {
                rows.beginRow();
                List<String> row = bars.row(bar);
                for (int i = 0; i < row.size(); i++) {
                    if (i < figures) {
                        append(rows, bars.header().get(i), row.get(i));
                    } else if (row.get(i).isEmpty()) {
                        rows.appendNull();
                    } else {
                        rows.append(Double.parseDouble(row.get(i)));
                    }
                }
                rows.endRow();
            }
        });
    }

    private static String type(String name, int decimals, boolean fine) {
        return switch (name) {
            case "start", "end" -> "TIMESTAMP_NS";
            case "open", "high", "low", "close" -> "DECIMAL(18," + (decimals + (fine ? 4 : 0)) + ")";
            case "next_up", "next_down" -> "DECIMAL(18," + decimals + ")";
            case "trading_day" -> "DATE";
            case "cut", "one_trade", "incomplete" -> "BOOLEAN";
            default -> "BIGINT";
        };
    }

    private static void append(DuckDBAppender rows, String name, String text) throws SQLException {
        switch (name) {
            case "start", "end" -> rows.appendEpochNanos(stativex.market.TapeTime.nanos(java.time.Instant.parse(text)));
            case "open", "high", "low", "close", "next_up", "next_down" -> rows.append(new java.math.BigDecimal(text));
            case "trading_day" -> rows.append(java.time.LocalDate.parse(text));
            case "cut", "one_trade", "incomplete" -> rows.append(text.equals("1"));
            default -> rows.append(Long.parseLong(text));
        }
    }
}
