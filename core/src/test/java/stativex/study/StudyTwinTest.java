package stativex.study;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.function.IntToDoubleFunction;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.Aggressor;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.market.HeikinAshi;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/**
 * Studies without a reference library against plain twins: each value worked out from the prints alone, by counting. The
 * tape has 720 prints a session, two sessions a trading day, five days a week, so that every period is a stretch of numbers.
 */
public class StudyTwinTest {
    private static final int PER_BAR = 5;
    private static final int SESSION = 720;
    private static final int DAY = 2 * SESSION;
    private static final int WEEK = 5 * DAY;
    private final Tape tape = Computed.walk(23, 12 * DAY);
    private final BarSeries bars = Computed.bars(tape, new BarType.Ticks(PER_BAR));

    private Map<String, double[]> of(String kind, String... settings) {
        return Computed.all(StudyDefinition.of("x", kind, settings), bars);
    }

    /** Holds an output against its twin at every bar; absent must be absent. Says when nothing was ever known. */
    private void same(double[] ours, IntToDoubleFunction twin) {
        int known = 0;
        for (int bar = 0; bar < bars.count(); bar++) {
            assertEquals(ours[bar], twin.applyAsDouble(bar), 1e-9, "bar " + bar);
            known += Double.isNaN(ours[bar]) ? 0 : 1;
        }
        assertTrue(known > bars.count() / 4, "known at " + known + " bars");
    }

    private double highest(int from, int to) {
        double most = Double.NEGATIVE_INFINITY;
        for (int print = from; print < to; print++) {
            most = Math.max(most, tape.price(print));
        }
        return most;
    }

    private double lowest(int from, int to) {
        double least = Double.POSITIVE_INFINITY;
        for (int print = from; print < to; print++) {
            least = Math.min(least, tape.price(print));
        }
        return least;
    }

    @DataProvider
    public Object[][] periods() {
        return new Object[][]{{"session", SESSION}, {"day", DAY}, {"week", WEEK}};
    }

    @Test(dataProvider = "periods")
    public void thePeriodBefore(String period, int length) {
        Map<String, double[]> previous = of("previous", "from", period);
        IntToDoubleFunction start = bar -> (bar * PER_BAR / length - 1) * length;
        same(previous.get("high"), bar -> start.applyAsDouble(bar) < 0
                ? Double.NaN
                : highest((int) start.applyAsDouble(bar), (int) start.applyAsDouble(bar) + length));
        same(previous.get("low"), bar -> start.applyAsDouble(bar) < 0
                ? Double.NaN
                : lowest((int) start.applyAsDouble(bar), (int) start.applyAsDouble(bar) + length));
        same(previous.get("open"),
                bar -> start.applyAsDouble(bar) < 0 ? Double.NaN : tape.price((int) start.applyAsDouble(bar)));
        same(previous.get("close"), bar -> start.applyAsDouble(bar) < 0
                ? Double.NaN
                : tape.price((int) start.applyAsDouble(bar) + length - 1));
    }

    @Test
    public void pivotsOfTheDayBefore() {
        Map<String, double[]> pivots = of("pivots", "from", "day");
        Map<String, double[]> day = of("previous", "from", "day");
        for (int bar = 0; bar < bars.count(); bar++) {
            double h = day.get("high")[bar];
            double l = day.get("low")[bar];
            double p = (h + l + day.get("close")[bar]) / 3;
            double[] expected = {p, 2 * p - l, 2 * p - h, p + h - l, p - h + l, h + 2 * p - 2 * l, l - 2 * h + 2 * p};
            String[] names = {"", "r1", "s1", "r2", "s2", "r3", "s3"};
            for (int i = 0; i < names.length; i++) {
                assertEquals(pivots.get(names[i])[bar], expected[i], 1e-9, names[i] + " at " + bar);
            }
        }
    }

    /** The month before is not whole on the tape, so no level of it is known; nor is that of a session begun late. */
    @Test
    public void halfAPeriodGivesNoLevel() {
        assertTrue(Arrays.stream(of("previous", "from", "month").get("high")).allMatch(Double::isNaN));
        assertTrue(Arrays.stream(of("pivots", "from", "month").get("")).allMatch(Double::isNaN));
        TapeBuilder builder = new TapeBuilder(tape.count());
        for (int print = 20; print < tape.count(); print++) {
            builder.add(tape.time(print), tape.price(print), tape.size(print), Tape.NONE, Tape.NONE);
        }
        Tape late = builder.build();
        BarSeries lateBars = Computed.bars(late, new BarType.Ticks(PER_BAR));
        Map<String, double[]> last = Computed.all(StudyDefinition.of("x", "profile"), lateBars);
        int second = (SESSION - 20) / PER_BAR;
        assertTrue(Double.isNaN(last.get("last_most")[second]));
        assertTrue(Double.isNaN(Computed.all(StudyDefinition.of("x", "previous", "from", "session"), lateBars)
                .get("high")[second]));
        assertEquals(last.get("last_most")[second + SESSION / PER_BAR],
                last.get("most")[second + SESSION / PER_BAR - 1]);
    }

    @Test
    public void openingRangeOfTheSessionsFirstMinutes() {
        // ten minutes at a print each five seconds
        Map<String, double[]> range = of("range", "minutes", "10", "extension", "0.5");
        IntToDoubleFunction high = bar -> highest(bar * PER_BAR / SESSION * SESSION,
                Math.min(bar * PER_BAR + PER_BAR, bar * PER_BAR / SESSION * SESSION + 120));
        IntToDoubleFunction low = bar -> lowest(bar * PER_BAR / SESSION * SESSION,
                Math.min(bar * PER_BAR + PER_BAR, bar * PER_BAR / SESSION * SESSION + 120));
        same(range.get("high"), high);
        same(range.get("low"), low);
        same(range.get("middle"), bar -> (high.applyAsDouble(bar) + low.applyAsDouble(bar)) / 2);
        same(range.get("above"),
                bar -> high.applyAsDouble(bar) + (high.applyAsDouble(bar) - low.applyAsDouble(bar)) / 2);
        // the bar whose closing print lies at 10 minutes or later knows that it is over
        same(range.get("complete"), bar -> (bar * PER_BAR + PER_BAR - 1) % SESSION >= 120 ? 1 : 0);
    }

    /**
     * From 03:30 to 01:15 of the next day: the second half of the day's last session and what follows over midnight. On
     * Mondays it began on Sunday, when nothing was traded.
     */
    @Test
    public void openingRangeOverMidnight() {
        Map<String, double[]> range = of("range", "from", "03:30", "to", "01:15", "zone", "UTC");
        int[] begin = new int[bars.count()];
        int[] end = new int[bars.count()];
        for (int bar = 0; bar < bars.count(); bar++) {
            int print = bar * PER_BAR + PER_BAR - 1;
            int day = print / DAY;
            boolean later = print % DAY >= SESSION + SESSION / 2;
            boolean monday = day % 5 == 0;
            begin[bar] = later ? day * DAY + 1080 : monday ? day * DAY : (day - 1) * DAY + 1080;
            // 01:15 is a quarter of the day's first session
            end[bar] = (later ? day + 1 : day) * DAY + SESSION / 4;
            if (later && day % 5 == 4) {
                // it ended on Saturday
                end[bar] = (day + 1) * DAY;
            }
        }
        int first = 1080 / PER_BAR;
        same(range.get("high"), bar -> bar < first
                ? Double.NaN
                : highest(begin[bar], Math.min(bar * PER_BAR + PER_BAR, end[bar])));
        same(range.get("complete"), bar -> bar < first ? Double.NaN : bar * PER_BAR + PER_BAR - 1 >= end[bar] ? 1 : 0);
    }

    private boolean swing(IntToDoubleFunction price, int at, int strength) {
        boolean stands = at >= strength && at + strength < bars.count();
        for (int i = 1; stands && i <= strength; i++) {
            stands = price.applyAsDouble(at) > price.applyAsDouble(at - i)
                    && price.applyAsDouble(at) >= price.applyAsDouble(at + i);
        }
        return stands;
    }

    /** The last bar at or before {@code bar} that is a swing, 3 on either side, known by then; −1 for none. */
    private int lastSwing(IntToDoubleFunction price, int bar) {
        for (int at = bar - 3; at >= 0; at--) {
            if (swing(price, at, 3)) {
                return at;
            }
        }
        return -1;
    }

    @Test
    public void swingsAreTheLastKnownTurningPoints() {
        Map<String, double[]> swing = of("swing", "strength", "3");
        same(swing.get("high"), bar -> {
            int at = lastSwing(bars::high, bar);
            return at < 0 ? Double.NaN : bars.high(at);
        });
        same(swing.get("low"), bar -> {
            int at = lastSwing(b -> -bars.low(b), bar);
            return at < 0 ? Double.NaN : bars.low(at);
        });
        same(swing.get("low_ago"), bar -> {
            int at = lastSwing(b -> -bars.low(b), bar);
            return at < 0 ? Double.NaN : bar - at;
        });
    }

    @Test
    public void divergenceComparesTwoSwings() {
        Map<String, double[]> found = of("divergence", "strength", "3", "within", "20");
        int[] times = new int[2];
        same(found.get("bearish"), bar -> divergence(bar, bars::high, bars::delta, times, 0));
        same(found.get("bullish"), bar -> divergence(bar, b -> -bars.low(b), b -> -bars.delta(b), times, 1));
        assertTrue(times[0] > 10 && times[1] > 10, Arrays.toString(times));
    }

    private double divergence(int bar, IntToDoubleFunction price, IntToDoubleFunction study, int[] times, int side) {
        if (bar < 6) {
            return Double.NaN;
        }
        int now = bar - 3;
        if (!swing(price, now, 3)) {
            return 0;
        }
        int then = lastSwing(price, bar - 1);
        boolean diverges = then >= 0 && now - then <= 20 && price.applyAsDouble(now) > price.applyAsDouble(then)
                && study.applyAsDouble(now) < study.applyAsDouble(then);
        times[side] += diverges ? 1 : 0;
        return diverges ? 1 : 0;
    }

    @Test
    public void approachFollowsThePrints() {
        Map<String, double[]> approach = of("approach", "away", "12", "near", "2");
        double[] longs = new double[bars.count()];
        double[] shorts = new double[bars.count()];
        boolean above = false;
        boolean below = false;
        int up = 0;
        int down = 0;
        int through = 0;
        for (int print = 0; print < tape.count(); print++) {
            int bar = print / PER_BAR;
            if (print % SESSION == 0) {
                up = 0;
                down = 0;
            }
            // the level is the bars' close: of the bar before, as it stood when this one began
            double level = bar == 0 ? tape.price(PER_BAR - 1) : tape.price(bar * PER_BAR - 1);
            double over = tape.price(print) - level;
            above |= over >= 12;
            below |= over <= -12;
            // near the level it fires; further beyond it came through without being near
            if (above && over <= 2) {
                up += over >= -2 ? 1 : 0;
                through += over < -2 ? 1 : 0;
                above = false;
            }
            if (below && over >= -2) {
                down += over <= 2 ? 1 : 0;
                below = false;
            }
            longs[bar] = up;
            shorts[bar] = down;
        }
        same(approach.get("longs"), bar -> longs[bar]);
        same(approach.get("shorts"), bar -> shorts[bar]);
        same(approach.get("long"), bar -> {
            boolean first = bar % (SESSION / PER_BAR) == 0;
            return longs[bar] > (first ? 0 : longs[bar - 1]) ? 1 : 0;
        });
        assertTrue(Arrays.stream(approach.get("long")).sum() > 10);
        assertTrue(through > 3, through + " ran through");
    }

    @DataProvider
    public Object[][] profiles() {
        return new Object[][]{{"session", SESSION}, {"day", DAY}};
    }

    @Test(dataProvider = "profiles")
    public void profileCountsContractsByPrice(String period, int length) {
        Map<String, double[]> profile = of("profile", "from", period, "share", "70");
        double[][] expected = new double[bars.count()][];
        for (int bar = 0; bar < bars.count(); bar++) {
            NavigableMap<Long, Long> volumes = new TreeMap<>();
            for (int print = bar * PER_BAR / length * length; print < bar * PER_BAR + PER_BAR; print++) {
                volumes.merge(tape.price(print), (long) tape.size(print), Long::sum);
            }
            expected[bar] = area(volumes);
        }
        same(profile.get("most"), bar -> expected[bar][0]);
        same(profile.get("high"), bar -> expected[bar][1]);
        same(profile.get("low"), bar -> expected[bar][2]);
        int rows = length / PER_BAR;
        same(profile.get("last_most"), bar -> bar < rows ? Double.NaN : expected[bar / rows * rows - 1][0]);
        same(profile.get("last_high"), bar -> bar < rows ? Double.NaN : expected[bar / rows * rows - 1][1]);
        same(profile.get("last_low"), bar -> bar < rows ? Double.NaN : expected[bar / rows * rows - 1][2]);
    }

    /** Contracts of one side at one price within a bar of whole prints. */
    private long at(int from, int to, long price, Aggressor side) {
        long sum = 0;
        for (int print = from; print < to; print++) {
            sum += tape.price(print) == price && tape.aggressor(print) == side ? tape.size(print) : 0;
        }
        return sum;
    }

    /** Whether one side outweighs the other at the neighbouring price, both inside the bar. */
    private boolean outweighs(int from, int to, long price, boolean up) {
        long beside = up ? price - 1 : price + 1;
        if (beside < lowest(from, to) || beside > highest(from, to)) {
            return false;
        }
        long ours = at(from, to, price, up ? Aggressor.BUYER : Aggressor.SELLER);
        long theirs = at(from, to, beside, up ? Aggressor.SELLER : Aggressor.BUYER);
        return ours >= 15 && ours >= 2.5 * theirs;
    }

    private int stacked(int from, int to, boolean up, boolean longest) {
        int run = 0;
        int most = 0;
        int all = 0;
        for (long price = (long) lowest(from, to); price <= highest(from, to); price++) {
            run = outweighs(from, to, price, up) ? run + 1 : 0;
            all += run > 0 ? 1 : 0;
            most = Math.max(most, run);
        }
        return longest ? most : all;
    }

    @Test
    public void imbalanceCountsContractsOfEachSideAtEachPrice() {
        int prints = 60;
        BarSeries wide = Computed.bars(tape, new BarType.Ticks(prints));
        Map<String, double[]> found = Computed.all(
                StudyDefinition.of("x", "imbalance", "ratio", "2.5", "least", "15"), wide);
        int stacks = 0;
        for (int bar = 0; bar < wide.count(); bar++) {
            int from = bar * prints;
            int to = from + prints;
            long high = (long) highest(from, to);
            long low = (long) lowest(from, to);
            String at = "bar " + bar;
            assertEquals(found.get("bought_high")[bar], at(from, to, high, Aggressor.BUYER), 0, at);
            assertEquals(found.get("sold_high")[bar], at(from, to, high, Aggressor.SELLER), 0, at);
            assertEquals(found.get("bought_low")[bar], at(from, to, low, Aggressor.BUYER), 0, at);
            assertEquals(found.get("sold_low")[bar], at(from, to, low, Aggressor.SELLER), 0, at);
            NavigableMap<Long, Long> volumes = new TreeMap<>();
            for (int print = from; print < to; print++) {
                volumes.merge(tape.price(print), (long) tape.size(print), Long::sum);
            }
            assertEquals(found.get("most")[bar], area(volumes)[0], 0, at);
            assertEquals(found.get("up")[bar], stacked(from, to, true, false), 0, at);
            assertEquals(found.get("down")[bar], stacked(from, to, false, false), 0, at);
            assertEquals(found.get("stacked_up")[bar], stacked(from, to, true, true), 0, at);
            assertEquals(found.get("stacked_down")[bar], stacked(from, to, false, true), 0, at);
            stacks += stacked(from, to, true, true) > 1 ? 1 : 0;
        }
        assertTrue(stacks > 20, stacks + " bars with stacked ones");
    }

    /** The part of a split trade counts as a print of its bar. */
    @Test
    public void printsOfABarByTheirParts() {
        BarSeries split = Computed.bars(tape, new BarType.Volume(60));
        Map<String, double[]> found = Computed.all(StudyDefinition.of("x", "prints"), split);
        int held = 0;
        int largest = 0;
        int bar = 0;
        int first = 0;
        for (int print = 0; print < SESSION; print++) {
            int left = tape.size(print);
            while (left > 0) {
                first = held == 0 ? print : first;
                int part = Math.min(left, 60 - held);
                largest = Math.max(largest, part);
                left -= part;
                held += part;
                if (held == 60) {
                    assertEquals(found.get("largest")[bar], largest, 0, "bar " + bar);
                    assertEquals(found.get("last")[bar], part, 0, "bar " + bar);
                    // a print each five seconds
                    assertEquals(found.get("seconds")[bar], 5.0 * (print - first), 1e-9, "bar " + bar);
                    assertTrue(Double.isNaN(found.get("spread")[bar]));
                    bar++;
                    held = 0;
                    largest = 0;
                }
            }
        }
        assertTrue(bar > 50, bar + " bars");
    }

    /** Best offer less best bid before the bar's last print; absent when a side of the book is. */
    @Test
    public void spreadBeforeTheLastPrint() {
        TapeBuilder quoted = new TapeBuilder(4);
        for (int print = 0; print < 4; print++) {
            quoted.add(tape.time(print), 100, 1, print == 3 ? Tape.NONE : 99, 100 + 2L * print);
        }
        BarSeries twos = Computed.bars(quoted.build(), new BarType.Ticks(2));
        double[] spread = Computed.all(StudyDefinition.of("x", "prints"), twos).get("spread");
        assertEquals(spread[0], 3, 0);
        assertTrue(Double.isNaN(spread[1]));
    }

    /** The bricks of a jump have no contracts but the first: nothing was printed in them. */
    @Test
    public void bricksWithoutContractsHaveNoPrints() {
        TapeBuilder jump = new TapeBuilder(2);
        jump.add(tape.time(0), 100, 7, Tape.NONE, Tape.NONE);
        jump.add(tape.time(1), 109, 4, Tape.NONE, Tape.NONE);
        BarSeries bricks = Computed.bars(jump.build(), new BarType.Renko(3, 3));
        assertEquals(bricks.count(), 3);
        Map<String, double[]> prints = Computed.all(StudyDefinition.of("x", "prints"), bricks);
        Map<String, double[]> prices = Computed.all(StudyDefinition.of("x", "imbalance"), bricks);
        assertEquals(prints.get("largest")[0], 7, 0);
        assertEquals(prints.get("last")[0], 4, 0);
        assertTrue(Double.isNaN(prints.get("largest")[1]) && Double.isNaN(prints.get("spread")[1]));
        assertEquals(prints.get("seconds")[1], 0, 0);
        assertTrue(prices.values().stream().allMatch(column -> Double.isNaN(column[1])));
    }

    /** Bars of 60 contracts split trades: the bar that ends with contract 60 k holds the first 60 k, not one more. */
    @Test
    public void ofASplitTradeEachBarHasItsPart() {
        BarSeries split = Computed.bars(tape, new BarType.Volume(60));
        Map<String, double[]> profile = Computed.all(StudyDefinition.of("x", "profile"), split);
        double[] vwap = Computed.all(StudyDefinition.of("x", "vwap"), split).get("");
        NavigableMap<Long, Long> volumes = new TreeMap<>();
        int print = 0;
        int taken = 0;
        int bar = 0;
        while (print < SESSION) {
            long part = Math.min(60, tape.size(print) - taken);
            for (long contract = 0; contract < part; contract++) {
                volumes.merge(tape.price(print), 1L, Long::sum);
                long held = volumes.values().stream().mapToLong(Long::longValue).sum();
                if (held % 60 == 0) {
                    double money = volumes.entrySet().stream().mapToDouble(e -> e.getKey() * e.getValue()).sum();
                    assertEquals(vwap[bar], money / held, 1e-9, "bar " + bar);
                    assertEquals(profile.get("most")[bar], area(volumes)[0], 0, "bar " + bar);
                    assertEquals(profile.get("low")[bar], area(volumes)[2], 0, "bar " + bar);
                    bar++;
                }
            }
            taken += (int) part;
            if (taken == tape.size(print)) {
                print++;
                taken = 0;
            }
        }
        assertTrue(bar > 50, bar + " bars");
    }

    private static double[] area(NavigableMap<Long, Long> volumes) {
        long total = volumes.values().stream().mapToLong(Long::longValue).sum();
        double middle = (volumes.firstKey() + volumes.lastKey()) / 2.0;
        long most = volumes.entrySet().stream()
                .max(Map.Entry.<Long, Long>comparingByValue()
                        .thenComparing(e -> -Math.abs(e.getKey() - middle)).thenComparing(e -> -e.getKey()))
                .orElseThrow().getKey();
        long top = most;
        long bottom = most;
        long held = volumes.get(most);
        while (held < 0.7 * total) {
            Map.Entry<Long, Long> up = volumes.higherEntry(top);
            Map.Entry<Long, Long> down = volumes.lowerEntry(bottom);
            if (down == null || up != null && up.getValue() >= down.getValue()) {
                top = up.getKey();
                held += up.getValue();
            } else {
                bottom = down.getKey();
                held += down.getValue();
            }
        }
        return new double[]{most, top, bottom};
    }

    @Test(dataProvider = "periods")
    public void cumulativeDelta(String period, int length) {
        same(of("cumulative", "from", period).get(""), bar -> {
            double sum = 0;
            for (int print = bar * PER_BAR / length * length; print < bar * PER_BAR + PER_BAR; print++) {
                sum += tape.aggressor(print) == Aggressor.BUYER
                        ? tape.size(print)
                        : tape.aggressor(print) == Aggressor.SELLER ? -tape.size(print) : 0;
            }
            return sum;
        });
    }

    @Test
    public void clockTellsWhereTheCloseStands() {
        Map<String, double[]> clock = of("clock", "zone", "Asia/Tokyo");
        IntToDoubleFunction print = bar -> (bar * PER_BAR + PER_BAR - 1) % SESSION;
        same(clock.get("bars"), bar -> bar % (SESSION / PER_BAR) + 1);
        same(clock.get("minutes"), bar -> print.applyAsDouble(bar) * 5 / 60);
        same(clock.get("left"), bar -> 60 - print.applyAsDouble(bar) * 5 / 60);
        same(clock.get("weekday"), bar -> bar * PER_BAR / DAY % 5 + 1);
        // Tokyo is nine hours ahead, all year
        same(clock.get("time"), bar -> TapeTime.in(ZoneOffset.ofHours(9), tape.time(bar * PER_BAR + PER_BAR - 1))
                .toLocalTime().toSecondOfDay() / 60.0);
    }

    @Test
    public void averagedBarsAreTheChartsView() {
        Map<String, double[]> averaged = of("heikin");
        HeikinAshi view = new HeikinAshi(bars);
        same(averaged.get("open"), view::open);
        same(averaged.get("high"), view::high);
        same(averaged.get("low"), view::low);
        same(averaged.get("close"), view::close);
    }

    /** Written as it is told: two bands, each moving only towards the price until a close is beyond it. */
    @Test
    public void superTrendIsTwoBandsAndATurn() {
        Map<String, double[]> trend = of("supertrend", "length", "10", "ranges", "3");
        double[] atr = of("atr", "length", "10").get("");
        double[] band = new double[bars.count()];
        boolean up = false;
        double lower = Double.NaN;
        double upper = Double.NaN;
        for (int bar = 0; bar < bars.count(); bar++) {
            band[bar] = Double.NaN;
            double middle = (bars.high(bar) + bars.low(bar)) / 2.0;
            if (Double.isNaN(atr[bar]) || Double.isNaN(lower) && bars.close(bar) == middle) {
                continue;
            }
            double last = bar == 0 ? 0 : bars.close(bar - 1);
            double newLower = middle - 3 * atr[bar];
            double newUpper = middle + 3 * atr[bar];
            boolean begins = Double.isNaN(lower);
            lower = begins || last < lower ? newLower : Math.max(lower, newLower);
            upper = begins || last > upper ? newUpper : Math.min(upper, newUpper);
            if (begins) {
                up = bars.close(bar) > middle;
            } else if (up && bars.close(bar) < lower) {
                up = false;
            } else if (!up && bars.close(bar) > upper) {
                up = true;
            }
            band[bar] = up ? lower : upper;
        }
        same(trend.get(""), bar -> band[bar]);
        assertTrue(Arrays.stream(trend.get("rising")).anyMatch(v -> v == 1));
        assertTrue(Arrays.stream(trend.get("rising")).anyMatch(v -> v == 0));
    }

    /** The page that documents every study is made from the kinds themselves. */
    @Test
    public void theLanguagePageHoldsEveryStudy() throws IOException {
        String page = Files.readString(Path.of("..", "docs", "rule-language.md"));
        for (StudyKind kind : Studies.kinds()) {
            assertTrue(page.contains(StudyPages.row(kind)), StudyPages.row(kind));
        }
    }
}
