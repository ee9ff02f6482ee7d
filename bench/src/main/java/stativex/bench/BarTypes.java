package stativex.bench;

import java.util.Arrays;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import stativex.demo.Demo;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeTime;

/** Every kind of bars over the demo's days, the whole history and print by print, beside the bare loop. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Fork(1)
@Warmup(iterations = 5, time = 1)
@Measurement(iterations = 5, time = 1)
public class BarTypes {
    @Param({"ticks", "volume", "range", "seconds", "renko", "day"})
    String kind;

    private Tape tape;
    private Contract contract;
    private BarSettings settings;
    private long[] prices;
    private int[] sizes;

    @Setup
    public void tape() {
        contract = Demo.documents().contract().value();
        tape = Demo.tape(contract);
        prices = new long[tape.count()];
        sizes = new int[tape.count()];
        Arrays.setAll(prices, tape::price);
        Arrays.setAll(sizes, tape::size);
        settings = BarSettings.of(switch (kind) {
            case "ticks" -> new BarType.Ticks(400);
            case "volume" -> new BarType.Volume(1000);
            case "range" -> new BarType.Range(12);
            case "seconds" -> new BarType.Time(150 * TapeTime.SECOND);
            case "renko" -> new BarType.Renko(3, 6);
            default -> BarType.Period.DAY;
        });
    }

    @Benchmark
    public long bareLoop() {
        return Medians.bareLoop(prices, sizes, 400);
    }

    @Benchmark
    public BarSeries wholeHistory() {
        return SeriesBuilder.all(tape, contract.calendar(), settings);
    }

    @Benchmark
    public BarSeries printByPrint() {
        SeriesBuilder builder = new SeriesBuilder(tape, contract.calendar(), settings);
        for (int print = 0; print < tape.count(); print++) {
            builder.print(print);
        }
        return builder.series();
    }
}
