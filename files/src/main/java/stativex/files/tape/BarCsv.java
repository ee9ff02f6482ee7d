package stativex.files.tape;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.files.WholeFile;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.HeikinAshi;
import stativex.market.TapeTime;
import stativex.study.OutputColumn;

/** Bar files: {@code start,end,open,high,low,close,volume,buy_volume,sell_volume,trades,trading_day,cut} and more. */
public final class BarCsv {
    private final BarSeries bars;
    private final Contract contract;
    private final boolean renko;
    private final boolean period;
    private final Optional<HeikinAshi> view;
    private final List<StudyColumn> studies;

    /** An output of a study under its name. */
    public record StudyColumn(String name, OutputColumn values) {}

    /** @param heikinAshi whether prices are those of the Heikin-Ashi view, with four decimals more than a price */
    public BarCsv(BarSeries bars, BarType type, Contract contract, boolean heikinAshi) {
        this(bars, type, contract, heikinAshi, List.of());
    }

    /** @param studies further columns; computed for every bar */
    public BarCsv(BarSeries bars, BarType type, Contract contract, boolean heikinAshi, List<StudyColumn> studies) {
        this.studies = List.copyOf(studies);
        this.bars = bars;
        this.contract = contract;
        this.renko = type instanceof BarType.Renko;
        this.period = type instanceof BarType.Period;
        this.view = heikinAshi ? Optional.of(new HeikinAshi(bars)) : Optional.empty();
    }

    /** Writes every closed bar, in one piece or not at all. */
    public void write(Path file) {
        WholeFile.write(file, out -> {
            try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
                csv.writeRecord(header());
                for (int bar = 0; bar < bars.count(); bar++) {
                    csv.writeRecord(row(bar));
                }
            }
        }, StandardCharsets.UTF_8);
    }

    /** Number of closed bars. */
    public int count() {
        return bars.count();
    }

    /** The column names. */
    public List<String> header() {
        List<String> names = new ArrayList<>(List.of("start", "end", "open", "high", "low", "close", "volume",
                "buy_volume", "sell_volume", "trades", "trading_day", "cut"));
        if (renko) {
            names.addAll(List.of("next_up", "next_down", "one_trade"));
        }
        if (period) {
            names.add("incomplete");
        }
        studies.forEach(study -> names.add(study.name()));
        return names;
    }

    /** One bar's fields. */
    public List<String> row(int bar) {
        List<String> row = new ArrayList<>(16);
        row.add(TapeTime.instant(bars.start(bar)).toString());
        row.add(TapeTime.instant(bars.end(bar)).toString());
        if (view.isPresent()) {
            HeikinAshi ha = view.get();
            row.addAll(List.of(fine(ha.open(bar)), fine(ha.high(bar)), fine(ha.low(bar)), fine(ha.close(bar))));
        } else {
            row.addAll(List.of(contract.text(bars.open(bar)), contract.text(bars.high(bar)),
                    contract.text(bars.low(bar)), contract.text(bars.close(bar))));
        }
        row.addAll(List.of(Long.toString(bars.volume(bar)), Long.toString(bars.buyVolume(bar)),
                Long.toString(bars.sellVolume(bar)), Integer.toString(bars.trades(bar)),
                bars.tradingDate(bar).toString(), flag(bars.cut(bar))));
        if (renko) {
            row.addAll(List.of(contract.text(bars.nextUp(bar)), contract.text(bars.nextDown(bar)),
                    flag(bars.oneTrade(bar))));
        }
        if (period) {
            row.add(flag(bars.incomplete(bar)));
        }
        for (StudyColumn study : studies) {
            row.add(text(study.values(), bar));
        }
        return row;
    }

    /** Prices with four decimals more than a price, distances in ticks and numbers with six; nothing when absent. */
    private String text(OutputColumn values, int bar) {
        double value = values.at(bar);
        if (Double.isNaN(value)) {
            return "";
        }
        return switch (values.unit()) {
            case LEVEL -> fine(value);
            case FLAG -> flag(value != 0);
            default -> new BigDecimal(value).setScale(6, RoundingMode.HALF_EVEN).toPlainString();
        };
    }

    /** The further columns. */
    List<StudyColumn> studies() {
        return studies;
    }

    private String fine(double ticks) {
        return new BigDecimal(ticks).multiply(contract.tickSize())
                .setScale(contract.decimals() + 4, RoundingMode.HALF_EVEN).toPlainString();
    }

    private static String flag(boolean on) {
        return on ? "1" : "0";
    }
}
