package stativex.study;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import com.tictactec.ta.lib.Core;
import com.tictactec.ta.lib.MInteger;
import java.util.List;
import java.util.SplittableRandom;
import org.hipparchus.stat.descriptive.moment.Mean;
import org.hipparchus.stat.descriptive.moment.Variance;
import org.testng.annotations.Test;
import org.ta4j.core.BaseBarSeriesBuilder;
import org.ta4j.core.indicators.averages.EMAIndicator;
import org.ta4j.core.indicators.helpers.ClosePriceIndicator;
import org.ta4j.core.num.DoubleNumFactory;
import stativex.market.BarSeries;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TickBars;
import stativex.trial.Given;

/** Studies against reference libraries: TA-Lib (EMA, ATR), ta4j (EMA after its seed is forgotten), Hipparchus (VWAP). */
public class StudyTest {
    private static final int BARS = 3000;
    private final Tape tape = walk();
    private final BarSeries bars = new BarSeriesOf(tape).series;

    private static Tape walk() {
        SplittableRandom dice = new SplittableRandom(11);
        TapeBuilder tape = new TapeBuilder(BARS * 5);
        long price = 5000;
        for (int i = 0; i < BARS * 5; i++) {
            price += dice.nextInt(-4, 5);
            tape.add(i * Given.SECOND, price, dice.nextInt(1, 20), Tape.NONE, Tape.NONE);
        }
        return tape.build();
    }

    private static final class BarSeriesOf {
        final BarSeries series;

        BarSeriesOf(Tape tape) {
            TickBars bars = new TickBars(tape, 5);
            bars.sessionOpens(Given.MONDAY);
            for (int i = 0; i < tape.count(); i++) {
                bars.add(i);
            }
            series = bars.series();
        }
    }

    private StudySet studies(StudyDefinition... definitions) {
        StudySet set = new StudySet(List.of(definitions), bars);
        for (int bar = 0; bar < bars.count(); bar++) {
            set.take(bar);
        }
        return set;
    }

    private double[] column(java.util.function.IntToDoubleFunction figure) {
        double[] column = new double[bars.count()];
        java.util.Arrays.setAll(column, figure);
        return column;
    }

    @Test
    public void emaIsTaLibs() {
        double[] out = new double[BARS];
        MInteger begin = new MInteger();
        MInteger count = new MInteger();
        new Core().ema(0, BARS - 1, column(bars::close), 21, begin, count, out);
        Output ema = studies(new StudyDefinition.EmaOf("drift", "close", 21)).output("drift").orElseThrow();
        assertEquals(begin.value, 20);
        for (int bar = 0; bar < BARS; bar++) {
            if (bar < begin.value) {
                assertTrue(Double.isNaN(ema.at(bar)), "absent while warming up");
            } else {
                assertEquals(ema.at(bar), out[bar - begin.value], 1e-9, "bar " + bar);
            }
        }
    }

    @Test
    public void emaMeetsTa4jOnceItsOtherSeedIsForgotten() {
        var series = new BaseBarSeriesBuilder().withNumFactory(DoubleNumFactory.getInstance()).build();
        for (int bar = 0; bar < BARS; bar++) {
            series.barBuilder().timePeriod(java.time.Duration.ofSeconds(1))
                    .endTime(java.time.Instant.ofEpochSecond(bar + 1)).openPrice(bars.open(bar))
                    .highPrice(bars.high(bar)).lowPrice(bars.low(bar)).closePrice(bars.close(bar))
                    .volume(bars.volume(bar)).add();
        }
        var reference = new EMAIndicator(new ClosePriceIndicator(series), 21);
        Output ema = studies(new StudyDefinition.EmaOf("drift", "close", 21)).output("drift").orElseThrow();
        for (int bar = 600; bar < BARS; bar++) {
            assertEquals(ema.at(bar), reference.getValue(bar).doubleValue(), 1e-8, "bar " + bar);
        }
    }

    @Test
    public void atrIsTaLibs() {
        double[] out = new double[BARS];
        MInteger begin = new MInteger();
        MInteger count = new MInteger();
        new Core().atr(0, BARS - 1, column(bars::high), column(bars::low), column(bars::close), 14, begin, count, out);
        Output atr = studies(new StudyDefinition.AtrOf("reach", 14)).output("reach").orElseThrow();
        assertEquals(begin.value, 14, "the first true range is that of the second bar");
        for (int bar = 0; bar < BARS; bar++) {
            if (bar < begin.value) {
                assertTrue(Double.isNaN(atr.at(bar)));
            } else {
                assertEquals(atr.at(bar), out[bar - begin.value], 1e-9, "bar " + bar);
            }
        }
    }

    @Test
    public void vwapIsTheWeightedMeanAndDeviationOfHipparchus() {
        StudySet set = studies(new StudyDefinition.VwapOf("mean", 2));
        double[] prices = new double[tape.count()];
        double[] sizes = new double[tape.count()];
        for (int i = 0; i < tape.count(); i++) {
            prices[i] = tape.price(i);
            sizes[i] = tape.size(i);
        }
        for (int bar : new int[]{0, 1, 17, 500, BARS - 1}) {
            int prints = bars.last(bar) + 1;
            double mean = new Mean().evaluate(prices, sizes, 0, prints);
            double sigma = 0;
            double total = 0;
            for (int i = 0; i < prints; i++) {
                sigma += sizes[i] * (prices[i] - mean) * (prices[i] - mean);
                total += sizes[i];
            }
            sigma = Math.sqrt(sigma / total);
            // the library's weighted variance divides by Σ size − 1; the population's is Σ size
            double library = new Variance(true).evaluate(prices, sizes, mean, 0, prints) * (total - 1) / total;
            assertEquals(sigma * sigma, library, 1e-6 * Math.max(1, library));
            assertEquals(set.output("mean").orElseThrow().at(bar), mean, 1e-9);
            assertEquals(set.output("mean.deviation").orElseThrow().at(bar), sigma, 1e-7);
            assertEquals(set.output("mean.upper").orElseThrow().at(bar), mean + 2 * sigma, 1e-6);
            assertEquals(set.output("mean.lower").orElseThrow().at(bar), mean - 2 * sigma, 1e-6);
        }
    }

    @Test
    public void vwapStartsAfreshWithTheSession() {
        StudySet set = new StudySet(List.of(new StudyDefinition.VwapOf("mean", 1)), bars);
        set.take(0);
        set.take(1);
        set.sessionOpens();
        set.take(2);
        double sum = 0;
        double size = 0;
        for (int i = bars.first(2); i <= bars.last(2); i++) {
            sum += (double) tape.price(i) * tape.size(i);
            size += tape.size(i);
        }
        assertEquals(set.output("mean").orElseThrow().at(2), sum / size, 1e-9);
    }

    @Test
    public void anAbsentInputLeavesTheEmaAsItWas() {
        StudySet set = studies(new StudyDefinition.EmaOf("first", "close", 3),
                new StudyDefinition.EmaOf("second", "first", 2));
        Output first = set.output("first").orElseThrow();
        Output second = set.output("second").orElseThrow();
        assertTrue(Double.isNaN(second.at(2)), "one input so far");
        assertEquals(second.at(3), (first.at(2) + first.at(3)) / 2, 1e-12, "seeded with the mean of two inputs");
    }

    @Test
    public void namesAreCheckedOnce() {
        assertThrows(IllegalArgumentException.class, () -> studies(new StudyDefinition.EmaOf("close", "open", 3)));
        assertThrows(IllegalArgumentException.class, () -> studies(new StudyDefinition.EmaOf("a", "b", 3)));
        assertThrows(IllegalArgumentException.class, () -> studies(new StudyDefinition.EmaOf("a", "close", 0)));
    }
}
