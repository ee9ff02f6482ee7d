package stativex.bench;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.function.IntPredicate;
import java.util.function.IntToDoubleFunction;
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
import org.ta4j.core.indicators.RSIIndicator;
import org.ta4j.core.indicators.averages.EMAIndicator;
import org.ta4j.core.indicators.averages.SMAIndicator;
import org.ta4j.core.indicators.bollinger.BollingerBandsLowerIndicator;
import org.ta4j.core.indicators.bollinger.BollingerBandsMiddleIndicator;
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
import stativex.study.Studies;

/**
 * Studies and one whole rule against ta4j with double numbers, on the same 500 000 bars of a random walk: first the same
 * values from bar 1 000 on (ta4j seeds its averages with the first value), then the time, by JMH. Fails when one of them
 * is not {@code SMALLEST RATIO} times as fast, 20 if none is given.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
public class RulesAgainstTa4j {
    private static final int BARS = 500_000;
    private static final int SETTLED = 1000;
    /** Largest difference of two values, in ticks or points. */
    private static final double TOLERANCE = 1e-6;
    private static final String RULE = "close < band.lower and pull < 40 and drift is falling over 10 bars and reach > 4 ticks";

    /** What is computed. */
    public enum Work {
        EMA("x = ema 21"), RSI("x = rsi 14"), ATR("x = atr 14"), BOLLINGER("x = bollinger 20"), SETUP("");

        private final String study;

        Work(String study) {
            this.study = study;
        }
    }

    @Param
    Work work;

    private Contract contract;
    private BarSeries bars;
    private org.ta4j.core.BarSeries theirs;

    @Setup
    public void bars() {
        contract = Demo.documents().contract().value();
        bars = SeriesBuilder.all(tape(), contract.calendar(), BarSettings.of(new BarType.Ticks(2)));
        theirs = new BaseBarSeriesBuilder().withNumFactory(DoubleNumFactory.getInstance()).build();
        for (int bar = 0; bar < bars.count(); bar++) {
            theirs.barBuilder().timePeriod(Duration.ofSeconds(1)).endTime(Instant.ofEpochSecond(bar + 1))
                    .openPrice(bars.open(bar)).highPrice(bars.high(bar)).lowPrice(bars.low(bar))
                    .closePrice(bars.close(bar)).volume(bars.volume(bar)).add();
        }
    }

    /** A random walk of four prints a second, in sessions. */
    private Tape tape() {
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

    private Program program(String... studies) {
        return new Program(new Blueprint(contract.tickSize(), contract.calendar(), List.of(),
                List.of(studies).stream().map(Studies::read).toList(), List.of(), Map.of()), bars);
    }

    private static void taken(Program program) {
        program.take();
        if (program.rows() < BARS - 100) {
            throw new IllegalStateException(program.rows() + " bars");
        }
    }

    private List<IntToDoubleFunction> ours() {
        Program program = program(work.study);
        List<Program.StudyOutput> outputs = program.studies("");
        taken(program);
        List<IntToDoubleFunction> columns = new ArrayList<>();
        // of the band its middle, lower and upper line
        outputs.forEach(output -> columns.add(bar -> output.column().values()[bar]));
        return columns;
    }

    private Condition ourRule() {
        Program program = program("band = bollinger 20", "pull = rsi 14", "drift = ema 21", "reach = atr 14");
        Condition rule = program.condition(RULE);
        taken(program);
        return rule;
    }

    private Indicator<Num> their() {
        ClosePriceIndicator close = new ClosePriceIndicator(theirs);
        return switch (work) {
            case EMA -> new EMAIndicator(close, 21);
            case RSI -> new RSIIndicator(close, 14);
            case ATR -> new ATRIndicator(theirs, 14);
            case BOLLINGER -> lowerBand(close);
            case SETUP -> throw new IllegalStateException("a rule, no indicator");
        };
    }

    private static BollingerBandsLowerIndicator lowerBand(ClosePriceIndicator close) {
        return new BollingerBandsLowerIndicator(new BollingerBandsMiddleIndicator(new SMAIndicator(close, 20)),
                new StandardDeviationIndicator(close, 20));
    }

    private Rule theirRule() {
        ClosePriceIndicator close = new ClosePriceIndicator(theirs);
        EMAIndicator drift = new EMAIndicator(close, 21);
        return new UnderIndicatorRule(close, lowerBand(close))
                .and(new UnderIndicatorRule(new RSIIndicator(close, 14), 40))
                .and(new UnderIndicatorRule(drift, new PreviousValueIndicator(drift, 10)))
                .and(new OverIndicatorRule(new ATRIndicator(theirs, 14), 4));
    }

    @Benchmark
    public double stativex() {
        if (work == Work.SETUP) {
            return ourRule().at(bars.count() - 1);
        }
        return ours().getFirst().applyAsDouble(bars.count() - 1);
    }

    @Benchmark
    public double ta4j() {
        double sum = 0;
        if (work == Work.SETUP) {
            Rule rule = theirRule();
            for (int bar = 0; bar < bars.count(); bar++) {
                sum += rule.isSatisfied(bar) ? 1 : 0;
            }
            return sum;
        }
        Indicator<Num> indicator = their();
        for (int bar = 0; bar < bars.count(); bar++) {
            sum += indicator.getValue(bar).doubleValue();
        }
        return sum;
    }

    /** Both say the same; the largest difference found, or for the rule how often it holds. */
    private String compare() {
        if (work == Work.SETUP) {
            Condition rule = ourRule();
            IntPredicate other = theirRule()::isSatisfied;
            int held = 0;
            for (int bar = 0; bar < bars.count(); bar++) {
                boolean holds = rule.at(bar) == Truth.TRUE;
                if (other.test(bar) != holds && bar >= SETTLED) {
                    throw new IllegalStateException("the rule differs at bar " + bar);
                }
                held += holds ? 1 : 0;
            }
            return "holds on " + held + " of " + bars.count() + " bars in both";
        }
        IntToDoubleFunction column = ours().get(work == Work.BOLLINGER ? 2 : 0);
        Indicator<Num> indicator = their();
        double most = 0;
        for (int bar = 0; bar < bars.count(); bar++) {
            double apart = Math.abs(column.applyAsDouble(bar) - indicator.getValue(bar).doubleValue());
            if (bar >= SETTLED && !(apart <= TOLERANCE)) {
                throw new IllegalStateException(work + " differs at bar " + bar + " by " + apart);
            }
            most = bar >= SETTLED ? Math.max(most, apart) : most;
        }
        return "differ by " + most + " at most (allowed " + TOLERANCE + ")";
    }

    public static void main(String[] arguments) throws RunnerException {
        double least = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 20;
        RulesAgainstTa4j same = new RulesAgainstTa4j();
        same.bars();
        for (Work work : Work.values()) {
            same.work = work;
            System.out.println(work + ": " + same.compare());
        }
        var results = new Runner(new OptionsBuilder().include(RulesAgainstTa4j.class.getName()).build()).run();
        boolean slow = false;
        for (Work work : Work.values()) {
            double ours = score(results, work, "stativex");
            double theirs = score(results, work, "ta4j");
            slow |= theirs / ours < least;
            System.out.printf("%s: %.2f ms, ta4j %.1f ms: %.0f × as fast (at least %.0f ×)%n", work, ours, theirs,
                    theirs / ours, least);
        }
        if (slow) {
            System.exit(1);
        }
    }

    private static double score(java.util.Collection<RunResult> results, Work work, String method) {
        Optional<RunResult> result = results.stream()
                .filter(r -> r.getParams().getParam("work").equals(work.name())
                        && r.getParams().getBenchmark().endsWith("." + method))
                .findFirst();
        return result.orElseThrow().getPrimaryResult().getScore();
    }
}
