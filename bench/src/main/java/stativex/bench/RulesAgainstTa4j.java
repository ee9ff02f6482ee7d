package stativex.bench;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
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
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.ta4j.core.BaseBarSeriesBuilder;
import org.ta4j.core.Indicator;
import org.ta4j.core.Rule;
import org.ta4j.core.indicators.ATRIndicator;
import org.ta4j.core.indicators.CCIIndicator;
import org.ta4j.core.indicators.MACDIndicator;
import org.ta4j.core.indicators.ROCIndicator;
import org.ta4j.core.indicators.RSIIndicator;
import org.ta4j.core.indicators.averages.EMAIndicator;
import org.ta4j.core.indicators.averages.HMAIndicator;
import org.ta4j.core.indicators.averages.SMAIndicator;
import org.ta4j.core.indicators.averages.WMAIndicator;
import org.ta4j.core.indicators.bollinger.BollingerBandsLowerIndicator;
import org.ta4j.core.indicators.bollinger.BollingerBandsMiddleIndicator;
import org.ta4j.core.indicators.donchian.DonchianChannelUpperIndicator;
import org.ta4j.core.indicators.helpers.ClosePriceIndicator;
import org.ta4j.core.indicators.helpers.PreviousValueIndicator;
import org.ta4j.core.indicators.statistics.StandardDeviationIndicator;
import org.ta4j.core.num.DoubleNumFactory;
import org.ta4j.core.num.Num;
import org.ta4j.core.rules.OverIndicatorRule;
import org.ta4j.core.rules.UnderIndicatorRule;
import stativex.demo.Demo;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.rule.Blueprint;
import stativex.rule.Condition;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.study.Frame;
import stativex.study.Studies;
import stativex.study.Study;

/**
 * Studies and one whole rule against ta4j with double numbers, on the same 500 000 bars of a random walk: first the same
 * values from bar 1 000 on (ta4j seeds its averages with the first value), then the time, by JMH. Each library has the
 * bars ready as it holds them; the rule is worked from the bars themselves. Fails when EMA, RSI, ATR, Bollinger or the
 * rule is not {@code SMALLEST RATIO} times as fast, 20 if none is given.
 */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = {"-Xms3g", "-Xmx3g", "-Xmn2g"})
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 6, time = 1)
public class RulesAgainstTa4j {
    private static final int BARS = 500_000;
    private static final int SETTLED = 1000;
    /** Largest difference of two values, in ticks or points. */
    private static final double TOLERANCE = 1e-6;
    static final String RULE = "close < band.lower and pull < 40 and drift is falling over 10 bars and reach > 3 ticks";

    /** What is computed. */
    public enum Work {
        EMA("ema 21", "", true), RSI("rsi 14", "", true), ATR("atr 14", "", true), BOLLINGER("bollinger 20", "lower",
                true), SETUP("", "", true), SMA("sma 20", "", false), WMA("wma 20", "", false), HULL("hull 20", "",
                        false), ROC("roc 10", "", false), CCI("cci 20 of typical", "", false), MACD("macd 12", "",
                                false), DEVIATION("deviation 20", "", false), DONCHIAN("donchian 20", "upper", false);

        private final String study;
        private final String output;
        private final boolean promised;

        Work(String study, String output, boolean promised) {
            this.study = study;
            this.output = output;
            this.promised = promised;
        }
    }

    /** The bars, and columns of what studies read of them; one library's data at a time, so that neither fills the heap. */
    @State(Scope.Benchmark)
    public static class Ours {
        @Param
        Work work;

        private final Contract contract = Demo.documents().contract().value();
        private final BarSeries bars = SeriesBuilder.all(tape(contract), contract.calendar(),
                BarSettings.of(new BarType.Ticks(2)));
        private final Frame frame = new Frame(bars, contract.calendar());

        /** The figures that a study reads are columns from here on. */
        @Setup
        public void columns() {
            frame.take(0, bars.count());
            if (work != Work.SETUP) {
                column();
            }
        }

        double[] column() {
            Study study = Studies.make(Studies.read("x = " + work.study), frame, Optional.empty());
            study.take(0, bars.count());
            return study.outputs().stream().filter(output -> output.name().equals(work.output)).findFirst()
                    .orElseThrow().values();
        }

        Condition rule() {
            Program program = new Program(new Blueprint(contract.tickSize(), contract.calendar(), List.of(),
                    Stream.of("band = bollinger 20", "pull = rsi 14", "drift = ema 21", "reach = atr 14")
                            .map(Studies::read).toList(),
                    List.of(), Map.of()), bars);
            Condition rule = program.condition(RULE);
            program.take();
            return rule;
        }
    }

    /** The same bars as ta4j holds them, with double numbers. */
    @State(Scope.Benchmark)
    public static class Theirs {
        @Param
        Work work;

        final org.ta4j.core.BarSeries bars = new BaseBarSeriesBuilder()
                .withNumFactory(DoubleNumFactory.getInstance()).build();

        @Setup
        public void bars() {
            BarSeries from = new Ours().bars;
            for (int bar = 0; bar < from.count(); bar++) {
                bars.barBuilder().timePeriod(Duration.ofSeconds(1)).endTime(Instant.ofEpochSecond(bar + 1))
                        .openPrice(from.open(bar)).highPrice(from.high(bar)).lowPrice(from.low(bar))
                        .closePrice(from.close(bar)).volume(from.volume(bar)).add();
            }
        }

        Indicator<Num> indicator() {
            ClosePriceIndicator close = new ClosePriceIndicator(bars);
            return switch (work) {
                case EMA -> new EMAIndicator(close, 21);
                case RSI -> new RSIIndicator(close, 14);
                case ATR -> new ATRIndicator(bars, 14);
                case BOLLINGER -> lowerBand(close);
                case SMA -> new SMAIndicator(close, 20);
                case WMA -> new WMAIndicator(close, 20);
                case HULL -> new HMAIndicator(close, 20);
                case ROC -> new ROCIndicator(close, 10);
                case CCI -> new CCIIndicator(bars, 20);
                case MACD -> new MACDIndicator(close, 12, 26);
                case DEVIATION -> new StandardDeviationIndicator(close, 20);
                case DONCHIAN -> new DonchianChannelUpperIndicator(bars, 20);
                case SETUP -> throw new IllegalStateException("a rule, no indicator");
            };
        }

        Rule rule() {
            ClosePriceIndicator close = new ClosePriceIndicator(bars);
            EMAIndicator drift = new EMAIndicator(close, 21);
            return new UnderIndicatorRule(close, lowerBand(close))
                    .and(new UnderIndicatorRule(new RSIIndicator(close, 14), 40))
                    .and(new UnderIndicatorRule(drift, new PreviousValueIndicator(drift, 10)))
                    .and(new OverIndicatorRule(new ATRIndicator(bars, 14), 3));
        }

        private static BollingerBandsLowerIndicator lowerBand(ClosePriceIndicator close) {
            return new BollingerBandsLowerIndicator(new BollingerBandsMiddleIndicator(new SMAIndicator(close, 20)),
                    new StandardDeviationIndicator(close, 20));
        }
    }

    /** A random walk of four prints a second, in sessions. */
    static Tape tape(Contract contract) {
        SplittableRandom dice = new SplittableRandom(7);
        TapeBuilder tape = new TapeBuilder(2 * BARS);
        Session session = contract.calendar().current(Demo.begin(contract)).orElseThrow();
        long time = session.open();
        long price = 5000;
        for (int print = 0; print < 2 * BARS; print++) {
            price += dice.nextInt(-3, 4);
            tape.add(time, price, 1 + dice.nextInt(9), Tape.NONE, Tape.NONE);
            time += 250_000_000;
            if (!session.contains(time)) {
                session = contract.calendar().after(session).orElseThrow();
                time = session.open();
            }
        }
        return tape.build();
    }

    @Benchmark
    public Object stativex(Ours ours) {
        return ours.work == Work.SETUP ? ours.rule() : ours.column();
    }

    @Benchmark
    public double ta4j(Theirs theirs) {
        double sum = 0;
        if (theirs.work == Work.SETUP) {
            Rule rule = theirs.rule();
            for (int bar = 0; bar < theirs.bars.getBarCount(); bar++) {
                sum += rule.isSatisfied(bar) ? 1 : 0;
            }
            return sum;
        }
        Indicator<Num> indicator = theirs.indicator();
        for (int bar = 0; bar < theirs.bars.getBarCount(); bar++) {
            sum += indicator.getValue(bar).doubleValue();
        }
        return sum;
    }

    /** Both say the same; the largest difference found, or for the rule how often it holds. */
    private static String compare(Ours ours, Theirs theirs) {
        int count = ours.bars.count();
        if (ours.work == Work.SETUP) {
            Condition rule = ours.rule();
            Rule other = theirs.rule();
            int held = 0;
            for (int bar = 0; bar < count; bar++) {
                boolean holds = rule.at(bar) == Truth.TRUE;
                if (other.isSatisfied(bar) != holds && bar >= SETTLED) {
                    throw new IllegalStateException("the rule differs at bar " + bar);
                }
                held += holds ? 1 : 0;
            }
            if (held == 0) {
                throw new IllegalStateException("the rule never holds: nothing is compared");
            }
            return "holds on " + held + " of " + count + " bars in both";
        }
        double[] column = ours.column();
        Indicator<Num> indicator = theirs.indicator();
        double most = 0;
        for (int bar = 0; bar < count; bar++) {
            double apart = Math.abs(column[bar] - indicator.getValue(bar).doubleValue());
            if (bar >= SETTLED && !(apart <= TOLERANCE)) {
                throw new IllegalStateException(ours.work + " differs at bar " + bar + " by " + apart);
            }
            most = bar >= SETTLED ? Math.max(most, apart) : most;
        }
        return String.format("%d bars, differ by %.1e at most (allowed %.0e)", count, most, TOLERANCE);
    }

    public static void main(String[] arguments) throws RunnerException {
        double least = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 20;
        Ours ours = new Ours();
        Theirs theirs = new Theirs();
        theirs.bars();
        for (Work work : Work.values()) {
            ours.work = work;
            theirs.work = work;
            ours.columns();
            System.out.println(work + ": " + compare(ours, theirs));
        }
        var results = new Runner(new OptionsBuilder().include(RulesAgainstTa4j.class.getName()).build()).run();
        boolean slow = false;
        for (Work work : Work.values()) {
            double mine = score(results, work, "stativex");
            double other = score(results, work, "ta4j");
            slow |= work.promised && other / mine < least;
            System.out.printf("%s: %.2f ms, ta4j %.1f ms: %.0f × as fast%s%n", work, mine, other, other / mine,
                    work.promised ? String.format(" (at least %.0f ×)", least) : "");
        }
        if (slow) {
            System.exit(1);
        }
    }

    private static double score(Collection<RunResult> results, Work work, String method) {
        return results.stream()
                .filter(r -> r.getParams().getParam("work").equals(work.name())
                        && r.getParams().getBenchmark().endsWith("." + method))
                .findFirst().orElseThrow().getPrimaryResult().getScore();
    }
}
