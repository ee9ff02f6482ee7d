package stativex.files.tape;

import static org.testng.Assert.assertEquals;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

public class BarParquetTest {
    private final Contract contract = Documents.contract(Texts.CONTRACT, "contract.json").value();

    private static Tape tape() {
        SplittableRandom dice = new SplittableRandom(5);
        TapeBuilder tape = new TapeBuilder(2000);
        long time = TapeTime.nanos(java.time.Instant.parse("2026-09-20T20:30:00Z"));
        long price = 5000;
        for (int i = 0; i < 2000; i++) {
            time += dice.nextLong(20 * TapeTime.SECOND);
            price += dice.nextInt(-3, 4);
            tape.add(time, price, dice.nextInt(1, 9), price - 1, price + 1);
        }
        return tape.build();
    }

    /** What DuckDB reads from the Parquet file is what stands in the CSV file. */
    @Test
    public void parquetHoldsWhatCsvHolds() throws IOException, SQLException {
        for (BarType type : List.of(new BarType.Ticks(50), new BarType.Renko(3, 6), BarType.Period.DAY,
                new BarType.Time(150 * TapeTime.SECOND))) {
            for (boolean heikinAshi : new boolean[]{false, true}) {
                BarCsv bars = new BarCsv(SeriesBuilder.all(tape(), contract.calendar(), BarSettings.of(type)), type,
                        contract, heikinAshi);
                Path file = Files.createTempDirectory("bars").resolve("bars.parquet");
                BarParquet.write(file, bars, contract, heikinAshi);
                List<List<String>> expected = new ArrayList<>();
                for (int bar = 0; bar < bars.count(); bar++) {
                    expected.add(bars.row(bar));
                }
                assertEquals(rows(file, bars.header()), expected, type + (heikinAshi ? ", Heikin-Ashi" : ""));
            }
        }
    }

    private static List<List<String>> rows(Path file, List<String> header) throws SQLException {
        List<List<String>> found = new ArrayList<>();
        List<String> selected = new ArrayList<>();
        for (String name : header) {
            selected.add(switch (name) {
                case "start", "end" -> "epoch_ns(\"" + name + "\")";
                default -> "CAST(\"" + name + "\" AS VARCHAR)";
            });
        }
        try (var base = Parquet.reader();
                var statement = base.createStatement();
                var rows = statement.executeQuery("SELECT " + String.join(", ", selected) + " FROM read_parquet("
                        + Parquet.quoted(file.toString()) + ")")) {
            while (rows.next()) {
                List<String> row = new ArrayList<>();
                for (int i = 0; i < header.size(); i++) {
                    String value = rows.getString(i + 1);
                    row.add(switch (header.get(i)) {
                        case "start", "end" -> TapeTime.instant(Long.parseLong(value)).toString();
                        case "cut", "one_trade", "incomplete" -> value.equals("true") ? "1" : "0";
                        default -> value;
                    });
                }
                found.add(row);
            }
        }
        return found;
    }
}
