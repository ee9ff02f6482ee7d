package stativex.bench;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import stativex.demo.Demo;
import stativex.files.SessionFile;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * How long it takes to build each kind of bars over the demo's days, against the bare loop; one thread. Fails when tick bars
 * take more than the ratio given, 3 if none is.
 */
final class BarsAgainstBareLoop {
    private BarsAgainstBareLoop() {}

    public static void main(String[] arguments) {
        double most = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 3;
        SessionFile.Set documents = Demo.documents();
        Contract contract = documents.contract().value();
        Tape tape = Demo.tape(contract);
        long[] prices = new long[tape.count()];
        int[] sizes = new int[tape.count()];
        Arrays.setAll(prices, tape::price);
        Arrays.setAll(sizes, tape::size);
        Map<String, BarType> types = new LinkedHashMap<>();
        types.put("400 ticks", new BarType.Ticks(400));
        types.put("1000 volume", new BarType.Volume(1000));
        types.put("range 12", new BarType.Range(12));
        types.put("150 seconds", new BarType.Time(150 * TapeTime.SECOND));
        types.put("renko 3:6", new BarType.Renko(3, 6));
        types.put("days", BarType.Period.DAY);
        Medians medians = new Medians().add("bare loop", () -> Medians.bareLoop(prices, sizes, 400));
        types.forEach((name, type) -> medians.add(name,
                () -> SeriesBuilder.all(tape, contract.calendar(), BarSettings.of(type)).count()));
        Map<String, Double> times = medians.run();
        System.out.printf("prints %d, check %d%n", tape.count(), medians.check());
        times.forEach((name, time) -> System.out.printf("%-12s %7.3f ms  %5.1f × the bare loop%n", name, time,
                time / times.get("bare loop")));
        double ratio = times.get("400 ticks") / times.get("bare loop");
        System.out.printf("tick bars: %.1f × (at most %.0f ×)%n", ratio, most);
        if (ratio > most) {
            System.exit(1);
        }
    }
}
