package stativex.study;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import com.tictactec.ta.lib.Core;
import com.tictactec.ta.lib.MAType;
import com.tictactec.ta.lib.MInteger;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.hipparchus.stat.descriptive.moment.Mean;
import org.hipparchus.stat.descriptive.moment.StandardDeviation;
import org.hipparchus.stat.descriptive.moment.Variance;
import org.hipparchus.stat.regression.SimpleRegression;
import org.ta4j.core.BaseBarSeriesBuilder;
import org.ta4j.core.Indicator;
import org.ta4j.core.indicators.averages.EMAIndicator;
import org.ta4j.core.indicators.averages.HMAIndicator;
import org.ta4j.core.indicators.helpers.ClosePriceIndicator;
import org.ta4j.core.indicators.ichimoku.IchimokuKijunSenIndicator;
import org.ta4j.core.indicators.ichimoku.IchimokuSenkouSpanBIndicator;
import org.ta4j.core.indicators.ichimoku.IchimokuTenkanSenIndicator;
import org.ta4j.core.num.DoubleNumFactory;
import org.ta4j.core.num.Num;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.market.Tape;

/** Studies against reference libraries: TA-Lib where it has them, ta4j, Hipparchus; and live against whole history. */
public class StudyTest {
    private static final int BARS = 2880;
    private final Tape tape = Computed.walk(11, BARS * 5);
    private final BarSeries bars = Computed.bars(tape, new BarType.Ticks(5));
    private final double[] open = column(bars::open);
    private final double[] high = column(bars::high);
    private final double[] low = column(bars::low);
    private final double[] close = column(bars::close);
    private final Core lib = new Core();
    private final MInteger begin = new MInteger();
    private final MInteger count = new MInteger();
    private final double[] out = new double[BARS];
    private final double[] out2 = new double[BARS];
    private final double[] out3 = new double[BARS];

    private double[] column(java.util.function.IntToDoubleFunction figure) {
        assertEquals(bars.count(), BARS);
        double[] column = new double[BARS];
        Arrays.setAll(column, figure);
        return column;
    }

    private Map<String, double[]> of(String kind, String... settings) {
        return Computed.all(StudyDefinition.of("x", kind, settings), bars);
    }

    /** Absent before the library begins, the same from there on. */
    private void same(double[] ours, double[] theirs, double within) {
        assertTrue(count.value > BARS / 2, "the library computed something");
        for (int bar = 0; bar < BARS; bar++) {
            if (bar < begin.value) {
                assertTrue(Double.isNaN(ours[bar]), "bar " + bar + " is warming up, found " + ours[bar]);
            } else {
                assertEquals(ours[bar], theirs[bar - begin.value], within, "bar " + bar);
            }
        }
    }

    @Test
    public void meansAreTaLibs() {
        lib.sma(0, BARS - 1, close, 20, begin, count, out);
        same(of("sma", "length", "20").get(""), out, 1e-9);
        lib.ema(0, BARS - 1, close, 21, begin, count, out);
        same(of("ema", "length", "21").get(""), out, 1e-9);
        lib.wma(0, BARS - 1, close, 17, begin, count, out);
        same(of("wma", "length", "17").get(""), out, 1e-8);
    }

    @Test
    public void rsiRocAndCciAreTaLibs() {
        lib.rsi(0, BARS - 1, close, 14, begin, count, out);
        same(of("rsi", "length", "14").get(""), out, 1e-9);
        lib.roc(0, BARS - 1, close, 10, begin, count, out);
        same(of("roc", "length", "10").get(""), out, 1e-9);
        lib.cci(0, BARS - 1, high, low, close, 20, begin, count, out);
        same(of("cci", "length", "20").get(""), out, 1e-7);
    }

    @Test
    public void atrAndDirectionalMovementAreTaLibs() {
        lib.atr(0, BARS - 1, high, low, close, 14, begin, count, out);
        same(of("atr", "length", "14").get(""), out, 1e-9);
        Map<String, double[]> adx = of("adx", "length", "14");
        lib.plusDI(0, BARS - 1, high, low, close, 14, begin, count, out);
        same(adx.get("up"), out, 1e-9);
        lib.minusDI(0, BARS - 1, high, low, close, 14, begin, count, out);
        same(adx.get("down"), out, 1e-9);
        lib.adx(0, BARS - 1, high, low, close, 14, begin, count, out);
        same(adx.get(""), out, 1e-9);
    }

    @Test
    public void deviationsAndBandsAreTaLibs() {
        // TA-Lib takes the difference of large sums, which costs it digits
        lib.stdDev(0, BARS - 1, close, 20, 1, begin, count, out);
        same(of("deviation", "length", "20").get(""), out, 1e-4);
        Map<String, double[]> bands = of("bollinger", "length", "20", "deviations", "2");
        lib.bbands(0, BARS - 1, close, 20, 2, 2, MAType.Sma, begin, count, out, out2, out3);
        same(bands.get("upper"), out, 1e-4);
        same(bands.get(""), out2, 1e-9);
        same(bands.get("lower"), out3, 1e-4);
    }

    @Test
    public void stochasticDonchianAndSarAreTaLibs() {
        Map<String, double[]> stochastic = of("stochastic", "length", "14", "smooth", "3", "signal", "3");
        lib.stoch(0, BARS - 1, high, low, close, 14, 3, MAType.Sma, 3, MAType.Sma, begin, count, out, out2);
        same(stochastic.get("signal"), out2, 1e-9);
        int first = begin.value;
        for (int bar = first; bar < BARS; bar++) {
            assertEquals(stochastic.get("")[bar], out[bar - first], 1e-9);
        }
        Map<String, double[]> channel = of("donchian", "length", "20");
        lib.max(0, BARS - 1, high, 20, begin, count, out);
        same(channel.get("upper"), out, 0);
        lib.min(0, BARS - 1, low, 20, begin, count, out);
        same(channel.get("lower"), out, 0);
        lib.sar(0, BARS - 1, high, low, 0.02, 0.2, begin, count, out);
        same(of("sar").get(""), out, 1e-9);
    }

    @Test
    public void macdIsMadeOfTaLibsEmas() {
        Map<String, double[]> macd = of("macd", "fast", "12", "slow", "26", "signal", "9");
        double[] fast = new double[BARS];
        lib.ema(0, BARS - 1, close, 12, begin, count, fast);
        int fastBegin = begin.value;
        double[] slow = new double[BARS];
        lib.ema(0, BARS - 1, close, 26, begin, count, slow);
        int slowBegin = begin.value;
        double[] difference = new double[BARS - slowBegin];
        for (int bar = slowBegin; bar < BARS; bar++) {
            difference[bar - slowBegin] = fast[bar - fastBegin] - slow[bar - slowBegin];
            assertEquals(macd.get("")[bar], difference[bar - slowBegin], 1e-9);
        }
        double[] signal = new double[BARS];
        lib.ema(0, difference.length - 1, difference, 9, begin, count, signal);
        for (int bar = slowBegin + 8; bar < BARS; bar++) {
            assertEquals(macd.get("signal")[bar], signal[bar - slowBegin - 8], 1e-9);
            assertEquals(macd.get("rest")[bar], macd.get("")[bar] - macd.get("signal")[bar], 1e-12);
        }
        assertTrue(Double.isNaN(macd.get("signal")[slowBegin + 7]));
    }

    @Test
    public void keltnerIsMadeOfTaLibsEmaAndAtr() {
        Map<String, double[]> bands = of("keltner", "length", "20", "ranges", "1.5");
        lib.ema(0, BARS - 1, close, 20, begin, count, out);
        int emaBegin = begin.value;
        lib.atr(0, BARS - 1, high, low, close, 20, begin, count, out2);
        for (int bar = begin.value; bar < BARS; bar++) {
            double mean = out[bar - emaBegin];
            assertEquals(bands.get("upper")[bar], mean + 1.5 * out2[bar - begin.value], 1e-9);
            assertEquals(bands.get("lower")[bar], mean - 1.5 * out2[bar - begin.value], 1e-9);
        }
    }

    @Test
    public void regressionIsTaLibsLineWithHipparchusResiduals() {
        Map<String, double[]> line = of("regression", "length", "50", "deviations", "2");
        lib.linearReg(0, BARS - 1, close, 50, begin, count, out);
        same(line.get(""), out, 1e-7);
        lib.linearRegSlope(0, BARS - 1, close, 50, begin, count, out);
        same(line.get("slope"), out, 1e-8);
        for (int bar = 49; bar < BARS; bar += 97) {
            SimpleRegression fit = new SimpleRegression();
            for (int i = 0; i < 50; i++) {
                fit.addData(i, close[bar - 49 + i]);
            }
            double away = 2 * Math.sqrt(fit.getSumSquaredErrors() / 50);
            assertEquals(line.get("upper")[bar], fit.predict(49) + away, 1e-6);
            assertEquals(line.get("lower")[bar], fit.predict(49) - away, 1e-6);
        }
    }

    @Test
    public void scoreIsHipparchusMeanAndDeviation() {
        double[] delta = column(bars::delta);
        double[] score = of("score", "length", "30").get("");
        for (int bar = 29; bar < BARS; bar += 31) {
            double mean = new Mean().evaluate(delta, bar - 29, 30);
            double sigma = new StandardDeviation(false).evaluate(delta, bar - 29, 30);
            assertEquals(score[bar], (delta[bar] - mean) / sigma, 1e-9);
        }
    }

    private org.ta4j.core.BarSeries theirs() {
        var series = new BaseBarSeriesBuilder().withNumFactory(DoubleNumFactory.getInstance()).build();
        for (int bar = 0; bar < BARS; bar++) {
            series.barBuilder().timePeriod(java.time.Duration.ofSeconds(1))
                    .endTime(java.time.Instant.ofEpochSecond(bar + 1)).openPrice(open[bar]).highPrice(high[bar])
                    .lowPrice(low[bar]).closePrice(close[bar]).volume(bars.volume(bar)).add();
        }
        return series;
    }

    private static void same(double[] ours, Indicator<Num> theirs, int from, double within) {
        for (int bar = from; bar < BARS; bar++) {
            assertEquals(ours[bar], theirs.getValue(bar).doubleValue(), within, "bar " + bar);
        }
    }

    @Test
    public void ta4jSaysTheSameOfEmaHullAndIchimoku() {
        var series = theirs();
        var closes = new ClosePriceIndicator(series);
        // its EMA has another seed, forgotten after a while
        same(of("ema", "length", "21").get(""), new EMAIndicator(closes, 21), 600, 1e-8);
        same(of("hull", "length", "20").get(""), new HMAIndicator(closes, 20), 30, 1e-8);
        Map<String, double[]> cloud = of("ichimoku");
        same(cloud.get("conversion"), new IchimokuTenkanSenIndicator(series, 9), 9, 1e-9);
        same(cloud.get("base"), new IchimokuKijunSenIndicator(series, 26), 26, 1e-9);
        // ta4j counts the bar itself among the 26 by which lead B is moved
        same(cloud.get("lead_b"), new IchimokuSenkouSpanBIndicator(series, 52, 27), 80, 1e-9);
        double[] a = cloud.get("lead_a");
        for (int bar = 60; bar < BARS; bar++) {
            assertEquals(a[bar], (cloud.get("conversion")[bar - 26] + cloud.get("base")[bar - 26]) / 2, 0.0);
            assertEquals(cloud.get("top")[bar], Math.max(a[bar], cloud.get("lead_b")[bar]), 0.0);
            assertEquals(cloud.get("lag")[bar], close[bar] - close[bar - 26], 0.0);
        }
    }

    @Test
    public void vwapIsTheWeightedMeanAndDeviationOfHipparchus() {
        Map<String, double[]> vwap = of("vwap", "deviations", "2");
        double[] prices = new double[tape.count()];
        double[] sizes = new double[tape.count()];
        for (int i = 0; i < tape.count(); i++) {
            prices[i] = tape.price(i);
            sizes[i] = tape.size(i);
        }
        for (int bar : new int[]{0, 1, 17, 143, 144, 145, 500, BARS - 1}) {
            int from = bar / 144 * 720;
            int prints = bars.last(bar) + 1 - from;
            double mean = new Mean().evaluate(prices, sizes, from, prints);
            double total = 0;
            for (int i = from; i < from + prints; i++) {
                total += sizes[i];
            }
            // the library's weighted variance divides by Σ size − 1; the population's is Σ size
            double sigma = Math.sqrt(
                    new Variance(true).evaluate(prices, sizes, mean, from, prints) * (total - 1) / total);
            assertEquals(vwap.get("")[bar], mean, 1e-9);
            assertEquals(vwap.get("deviation")[bar], sigma, 1e-7);
            assertEquals(vwap.get("upper")[bar], mean + 2 * sigma, 1e-6);
            assertEquals(vwap.get("lower")[bar], mean - 2 * sigma, 1e-6);
        }
        double[] rolling = of("vwap", "from", "rolling", "length", "50").get("");
        int first = bars.first(400 - 49);
        assertEquals(rolling[400],
                new Mean().evaluate(prices, sizes, first, bars.last(400) + 1 - first), 1e-9);
        assertTrue(Double.isNaN(rolling[48]));
    }

    @DataProvider
    public Object[][] everyKind() {
        return Computed.everyKind().stream().map(d -> new Object[]{d}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "everyKind")
    public void liveIsWholeHistoryBitForBit(StudyDefinition definition) {
        for (BarType type : new BarType[]{new BarType.Ticks(5), new BarType.Volume(60), new BarType.Range(7),
                new BarType.Renko(3, 6), new BarType.Time(40 * stativex.trial.Given.SECOND)}) {
            Tape short1 = Computed.walk(type.hashCode(), 5 * 1440);
            Map<String, double[]> whole = Computed.all(definition, Computed.bars(short1, type));
            Map<String, double[]> live = Computed.live(definition, short1, type, new SplittableRandom(5));
            assertEquals(live.keySet(), whole.keySet());
            boolean something = false;
            for (String output : whole.keySet()) {
                double[] a = whole.get(output);
                double[] b = live.get(output);
                assertTrue(b.length <= a.length && b.length > a.length - 2, "as many bars");
                for (int bar = 0; bar < b.length; bar++) {
                    assertEquals(Double.doubleToLongBits(b[bar]), Double.doubleToLongBits(a[bar]),
                            definition.words() + " ." + output + " on " + type.words() + ", bar " + bar);
                    something |= !Double.isNaN(a[bar]);
                }
            }
            assertTrue(something || definition.kind().equals("divergence"), definition.words() + " on " + type);
        }
    }

    @Test
    public void whatIsWrongWithAStudyIsSaid() {
        String[][] wrong = {{"emma", "length", "3", "did you mean \"ema\""}, {"ema", "length", "0", "from 1 to 100000"},
                {"ema", "lenght", "3", "it has length"}, {"ema", "length", "2.5", "a whole number"},
                {"vwap", "deviations", "0", "above 0"}, {"vwap", "from", "year", "session, day, week, month, rolling"},
                {"range", "zone", "Pacific/Aukland", "IANA zone"}, {"range", "from", "25:00", "time of day"},
                {"ichimoku", "parts", "price+clouds", "price, lines, cloud, lag"},
                {"sar", "step", "0.3", "at most 0.2"},
                {"approach", "near", "30", "below away"}};
        for (String[] row : wrong) {
            StudyProblem problem = expectThrows(StudyProblem.class, () -> of(row[0], row[1], row[2]));
            assertTrue(problem.getMessage().contains(row[3]), problem.getMessage());
        }
        StudyProblem taking = expectThrows(StudyProblem.class,
                () -> Studies.settings(StudyDefinition.of("x", "atr").taking("close")));
        assertTrue(taking.getMessage().contains("takes the bars"), taking.getMessage());
    }

    @Test
    public void definitionsReadAsTheyAreSaid() {
        StudyDefinition drift = Studies.read("drift = ema 21 of close on trend");
        assertEquals(drift, new StudyDefinition("drift", "ema", Optional.of("close"), Optional.of("trend"),
                Map.of("length", "21")));
        assertEquals(drift.words(), "EMA 21 of close on trend");
        assertEquals(Studies.read("band = bollinger 20 deviations 2.5").settings(),
                Map.of("length", "20", "deviations", "2.5"));
        assertEquals(Studies.read("edge = mean + 4 ticks").kind(), StudyDefinition.FORMULA);
        assertEquals(Studies.read("r = range from 09:45 to 10:15 zone Pacific/Auckland").settings().get("zone"),
                "Pacific/Auckland");
        assertTrue(expectThrows(IllegalArgumentException.class, () -> Studies.read("ema 21")).getMessage()
                .contains("NAME = EXPRESSION"));
    }
}
