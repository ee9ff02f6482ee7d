package stativex.rule;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.study.Computed;
import stativex.study.Frame;
import stativex.study.OutputColumn;
import stativex.study.Studies;
import stativex.study.Study;
import stativex.study.StudyDefinition;
import stativex.study.StudyProblem;
import stativex.trial.Given;

/** Programs of several series, live and as whole histories, and what cannot be made. */
public class ProgramTest {
    static final List<StudyDefinition> STUDIES = List.of(Studies.read("fast = ema 5"),
            Studies.read("slope = ema 8 of close on trend"), Studies.read("mean = vwap from session deviations 1.5"),
            Studies.read("push = score 10 of delta"), Studies.read("edge = mean.upper + 2 ticks"),
            Studies.read("calm = sma 4 of abs(close - open) / 1 tick"), Studies.read("prior = previous day"),
            Studies.read("turn = swing 2"), Studies.read("days = sma 2 of high - low on daily"),
            Studies.read("near = ema 3 of slope"), Studies.read("up = close > fast and not Sunday"));
    static final List<Blueprint.SeriesDefinition> SERIES = List.of(
            new Blueprint.SeriesDefinition("trend", BarSettings.of(new BarType.Ticks(33)), Optional.empty()),
            new Blueprint.SeriesDefinition("daily", BarSettings.of(BarType.Period.DAY), Optional.empty()),
            new Blueprint.SeriesDefinition("brick", BarSettings.of(new BarType.Renko(4, 8)), Optional.empty()),
            new Blueprint.SeriesDefinition("minute",
                    BarSettings.of(new BarType.Time(60 * Given.SECOND)), Optional.empty()));
    static final List<String> RULES = List.of("close > fast", "fast rises through slope",
            "push < -1 on any of the last 3 bars and close < mean.lower", "close > prior.high",
            "close > edge for the first time since session open", "slope is falling over 4 bars",
            "times (close > open) since session open > 5 and not close < open on each of the last 2 bars",
            "close > close when (fast rises through slope) first became true", "close > trend.high",
            "forming trend.close > open", "forming slope > slope",
            "close > daily.close and close > days * 0 + daily.low",
            "close > brick.close", "bars since (delta > 10) < 4", "close > minute.high", "forming minute.volume > 10",
            "forming daily.high > close", "near > slope", "calm > 3", "close > turn.high",
            "highest 12 of high > high", "percent rank 9 of volume > 60", "median 5 of delta > 1",
            "session.high > week.high",
            "day.volume > 300 and day.open < close", "close is between session.low + 0.5 and session.high - 2 ticks",
            "(slope is falling) 2 bars before", "after 1:40 in UTC and not Monday", "up and close != open",
            "not (up) 1 bar before",
            "time is from 01:20 to 03:30 in UTC", "high > high 1 bar before and low < low 1 bar before");

    private static Program program(BarSeries bars) {
        return new Program(
                new Blueprint(new BigDecimal("0.25"), Given.calendar(), SERIES, STUDIES, List.of(), Map.of()), bars);
    }

    @Test
    public void liveIsWholeHistoryForRulesOnSeveralSeries() {
        for (BarType type : List.of(new BarType.Ticks(10), new BarType.Range(6), new BarType.Volume(90),
                new BarType.Renko(3, 6), new BarType.Time(45 * Given.SECOND))) {
            Tape tape = Computed.walk(3 + type.hashCode(), 6000);
            Program history = program(Computed.bars(tape, type));
            history.take();
            List<Condition> whole = RULES.stream().map(history::condition).toList();

            SplittableRandom dice = new SplittableRandom(9);
            SeriesBuilder builder = new SeriesBuilder(tape, Given.calendar(), BarSettings.of(type));
            Program live = program(builder.series());
            List<Condition> stepped = new ArrayList<>(RULES.subList(0, 15).stream().map(live::condition).toList());
            for (int print = 0; print < tape.count(); print++) {
                builder.print(print);
                while (live.rows() < builder.series().count()) {
                    live.takeNext();
                }
                if (dice.nextInt(4) == 0) {
                    long now = tape.time(print);
                    builder.forming().ifPresent(bar -> live.takeForming(bar, now));
                }
                if (print == 3000) {
                    // rules written later catch up with the bars so far
                    RULES.subList(15, RULES.size()).forEach(rule -> stepped.add(live.condition(rule)));
                }
            }
            assertTrue(live.rows() > 20, type.words());
            for (int i = 0; i < RULES.size(); i++) {
                for (int bar = 0; bar < live.rows(); bar++) {
                    assertEquals(stepped.get(i).at(bar), whole.get(i).at(bar),
                            RULES.get(i) + " on " + type.words() + ", bar " + bar);
                }
            }
        }
    }

    /** Thousands of bars are worked in stretches; rules written before and after say the same at every bar. */
    @Test
    public void stretchesOfBarsLeaveNoSeam() {
        for (BarType type : List.of(new BarType.Ticks(2), new BarType.Renko(2, 4))) {
            Tape tape = Computed.walk(41 + type.hashCode(), 9000);
            Program before = program(Computed.bars(tape, type));
            List<Condition> early = RULES.stream().map(before::condition).toList();
            Value held = before.value("close when (close > open) first became true");
            before.take();
            Program after = program(Computed.bars(tape, type));
            after.take();
            List<Condition> late = RULES.stream().map(after::condition).toList();
            Value heldLate = after.value("close when (close > open) first became true");
            assertTrue(before.rows() > 3000, before.rows() + " bars of " + type.words());
            for (int bar = 0; bar < before.rows(); bar++) {
                for (int i = 0; i < RULES.size(); i++) {
                    assertEquals(early.get(i).at(bar), late.get(i).at(bar),
                            RULES.get(i) + " on " + type.words() + ", bar " + bar);
                }
                assertEquals(held.at(bar), heldLate.at(bar));
            }
        }
    }

    /** What was known at a signal bar, worked out the slow way: everything anew from the prints up to that moment. */
    @Test
    public void otherSeriesAreSeenAsTheyStoodAtTheMoment() {
        Tape tape = Computed.walk(77, 4000);
        for (BarType type : List.of(new BarType.Ticks(10), new BarType.Time(45 * Given.SECOND), new BarType.Range(6))) {
            BarSeries bars = Computed.bars(tape, type);
            Program program = program(bars);
            program.take();
            Value close = program.value("trend.close");
            Value slope = program.value("slope");
            Value forming = program.value("forming trend.high");
            Value formingSlope = program.value("forming slope");
            for (int bar = 3; bar < bars.count(); bar += 7) {
                SeriesBuilder until = new SeriesBuilder(tape, Given.calendar(), SERIES.getFirst().bars());
                for (int print = 0; print < bars.printsTaken(bar); print++) {
                    until.print(print);
                }
                until.heartbeat(bars.moment(bar));
                BarSeries then = until.series();
                int count = then.count();
                assertEquals(close.at(bar), count == 0 ? Double.NaN : then.close(count - 1), "close at " + bar);
                assertEquals(forming.at(bar), until.forming().map(f -> (double) f.high()).orElse(Double.NaN));
                assertEquals(slope.at(bar), count == 0 ? Double.NaN : ema(then, count - 1, 8, Optional.empty()), 1e-12);
                assertEquals(formingSlope.at(bar), until.forming().isEmpty()
                        ? Double.NaN
                        : ema(then, count, 8, Optional.of(until.forming().get().close())), 1e-12);
            }
        }
    }

    private static double ema(BarSeries bars, int at, int length, Optional<Long> forming) {
        double value = 0;
        for (int bar = 0; bar <= at; bar++) {
            double close = bar == at && forming.isPresent() ? forming.get() : bars.close(bar);
            if (bar < length) {
                value += close;
                value = bar == length - 1 ? value / length : value;
            } else {
                value += 2.0 / (length + 1) * (close - value);
            }
        }
        return at < length - 1 ? Double.NaN : value;
    }

    /** A yes or no is told with what its study takes and says besides. */
    @Test
    public void whyAStudySaysNoIsToldInNumbers() {
        Program program = RulesTest.program(SERIES, List.of(Studies.read("line = sma 2"),
                Studies.read("edge = approach away 2 near 1 of line"),
                Studies.read("far = divergence 3 of close on trend")),
                Computed.walk(5, 400));
        Explanation why = program.condition("edge.long").explain(100);
        assertEquals(why.terms().stream().map(Explanation.Term::text).toList(),
                List.of("line", "edge.short", "edge.longs", "edge.shorts", "edge.armed_above", "edge.armed_below"));
        assertEquals(why.terms().getFirst().amount().value(), program.value("line").at(100));
        assertEquals(
                program.condition("far.bullish").explain(100).terms().stream().map(Explanation.Term::text).toList(),
                List.of("far.bearish"));
        assertEquals(program.condition("not edge.long").explain(100).failed().size(), why.truth() == 1 ? 1 : 0);
    }

    private static StudyProblem problem(String... studies) {
        List<StudyDefinition> definitions = List.of(studies).stream().map(Studies::read).toList();
        return expectThrows(StudyProblem.class, () -> {
            Program program = RulesTest.program(definitions, 10, 11, 12, 13);
            program.studyProblems().values().stream().findFirst().ifPresent(p -> {
                throw p;
            });
        });
    }

    @Test
    public void studiesThatCannotBeMadeSayWhy() {
        assertEquals(problem("a = ema 3 of b", "b = sma 2 of c", "c = a + 1 tick").getMessage(),
                "study \"a\": of: line 1, column 1: study \"b\": of: line 1, column 1: study \"c\": of: line 1, column 1:"
                        + " study \"a\": of: takes itself: a → b → c → a");
        assertTrue(problem("a = ema 3 of clsoe").getMessage().contains("did you mean \"close\""));
        assertTrue(problem("a = ema 3", "a = ema 4").getMessage().contains("used twice"));
        assertTrue(problem("close = ema 3").getMessage().contains("no word of the rule language"));
        assertTrue(problem("and = ema 3").getMessage().contains("no word of the rule language"));
        assertTrue(problem("a = ema 3 on trend").getMessage().contains("there is none beside the signal series"));
        assertTrue(problem("r = range minutes 5", "a = ema 3 of r").getMessage().contains("say which: r.high"));
        assertTrue(problem("r = range minutes 5", "a = ema 3 of r.complete").getMessage().contains("yes or no"));
        assertTrue(problem("a = approach of volume").getMessage().contains("expected a price to approach"));
    }

    @Test
    public void aRuleOnAStudyThatCannotBeMadeIsAProblemOfThatRule() {
        Program program = RulesTest.program(List.of(Studies.read("a = ema 0")), 10, 11, 12, 13);
        RuleProblem problem = expectThrows(RuleProblem.class, () -> program.condition("close > a"));
        assertEquals(problem.column(), 9);
        assertTrue(problem.getMessage().contains("from 1 to 100000"), problem.getMessage());
        assertEquals(program.problems("clsoe > open and close > a and close > open and open > 4 ticks").stream()
                .map(p -> p.from() + "-" + p.to()).toList(), List.of("0-5", "25-26", "48-62"));
    }

    @Test
    public void onlyWhatARuleUsesIsComputed() {
        BarSeries bars = Computed.bars(Computed.walk(1, 1000), new BarType.Ticks(10));
        Program program = program(bars);
        program.condition("close > fast");
        program.take();
        // a study that nobody asked for is made when it is shown, and is the same
        List<Program.StudyOutput> shown = program.studies("");
        assertTrue(shown.stream().anyMatch(s -> s.name().equals("mean.upper")));
        Frame frame = new Frame(bars, bars.calendar());
        Study alone = Studies.make(STUDIES.get(2), frame, Optional.empty());
        frame.take(0, bars.count());
        alone.take(0, bars.count());
        OutputColumn upper = alone.outputs().get(1);
        Program.StudyOutput same = shown.stream().filter(s -> s.name().equals("mean.upper")).findFirst().orElseThrow();
        for (int bar = 0; bar < bars.count(); bar++) {
            assertEquals(same.column().at(bar), upper.at(bar));
        }
    }

    @Test
    public void whyNotNamesWhatFailedAndByHowMuch() {
        Program program = RulesTest.program(List.of(Studies.read("slow = ema 3")), 10, 11, 12, 13, 14, 12, 12, 15);
        Condition rule = program
                .condition("close > open + 1 tick and close > slow and delta > 1 on any of the last 3 bars");
        Explanation why = rule.explain(2);
        assertEquals(why.truth(), Truth.FALSE);
        assertEquals(why.parts().size(), 3);
        Explanation first = why.parts().getFirst();
        assertEquals(first.terms().get(0).amount().value(), 12.0);
        assertEquals(first.terms().get(1).amount().value(), 15.0);
        assertEquals(first.missed().orElseThrow().value(), 3.0);
        assertEquals(first.missed().orElseThrow().unit(), stativex.study.Unit.DISTANCE);
        Explanation any = why.parts().get(2);
        assertEquals(any.truth(), Truth.TRUE);
        assertEquals(any.bar().orElseThrow(), 1, "the bar at which it held");
        assertEquals(rule.explain(1).failed().get(1).note(), "slow is warming up");
        assertEquals(rule.explain(0).parts().get(2).note(), "there are fewer than 3 bars");
        assertEquals(program.condition("volume / (trades - 2) > 1").explain(0).note(),
                "division by zero in volume / (trades - 2)");
        assertEquals(program.condition("close 9 bars before > close").explain(3).note(),
                "there is no bar 9 bars before");
    }

    @Test
    public void confirmationIsTheFirstOfTheNextBarsThatTradesBeyondTheClose() {
        // bars (open, high, low, close): 10-12-10-12, 12-12-11-11, 13-13-12-12, 14-14-13-13
        Program program = RulesTest.program(List.of(), 10, 12, 12, 11, 13, 12, 14, 13);
        Condition signal = program.condition("close > open");
        assertEquals(RulesTest.truth(program, "close > open"), "TFFF");
        assertEquals(truth(program, program.confirmed(signal, true, 1)), "-FFF");
        assertEquals(truth(program, program.confirmed(signal, true, 2)), "--TF");
        assertEquals(truth(program, program.confirmed(signal, true, 3)), "--TF", "the first, no later one");
        assertEquals(truth(program, program.confirmed(signal, false, 2)), "-TFF");
    }

    private static String truth(Program program, Condition condition) {
        StringBuilder text = new StringBuilder();
        for (int bar = 0; bar < program.rows(); bar++) {
            text.append(condition.at(bar) == Truth.TRUE ? 'T' : condition.at(bar) == Truth.FALSE ? 'F' : '-');
        }
        return text.toString();
    }

    @Test
    public void onlyPickedOutputsAreShown() {
        Program program = RulesTest.program(List.of(),
                List.of(StudyDefinition.of("band", "bollinger", "length", "2", "show", "main+lower"),
                        StudyDefinition.of("mean", "vwap", "show", "none")),
                Given.tape(Given.at(0, "01:00"), 10, 12, 12, 11));
        assertEquals(program.studies("").stream().filter(Program.StudyOutput::isShown).map(Program.StudyOutput::name)
                .toList(), List.of("band", "band.lower"));
        StudyProblem problem = expectThrows(StudyProblem.class, () -> RulesTest.program(List.of(),
                List.of(StudyDefinition.of("band", "bollinger", "show", "middle")),
                Given.tape(Given.at(0, "01:00"), 10, 12)).studies(""));
        assertTrue(problem.getMessage().contains("main, upper, lower, width"), problem.getMessage());
    }
}
