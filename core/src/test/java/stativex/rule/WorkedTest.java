package stativex.rule;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotSame;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertThrows;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.study.Computed;
import stativex.study.OutputColumn;
import stativex.study.StudyDefinition;
import stativex.trial.Given;

/** What one program worked is there for the next one, and is the same as if that had worked it. */
public class WorkedTest {
    private final BarSeries bars = Computed.bars(Computed.walk(12, 6000), new BarType.Ticks(10));

    private static Blueprint blueprint(List<StudyDefinition> studies) {
        return new Blueprint(new BigDecimal("0.25"), Given.calendar(), ProgramTest.SERIES, studies, List.of(),
                Map.of());
    }

    private static List<StudyDefinition> with(List<StudyDefinition> studies, String name, String field, String value) {
        return studies.stream().map(study -> {
            if (!study.name().equals(name)) {
                return study;
            }
            Map<String, String> settings = new LinkedHashMap<>(study.settings());
            settings.put(field, value);
            return new StudyDefinition(name, study.kind(), study.of(), study.on(), settings);
        }).toList();
    }

    private static Map<String, OutputColumn> columns(Program program) {
        Map<String, OutputColumn> columns = new LinkedHashMap<>();
        List<String> series = new ArrayList<>(ProgramTest.SERIES.stream().map(s -> s.name()).toList());
        series.addFirst("");
        series.forEach(one -> program.studies(one).forEach(output -> columns.put(output.name(), output.column())));
        return columns;
    }

    private Program program(List<StudyDefinition> studies, Worked worked) {
        Program program = new Program(blueprint(studies), bars, worked);
        columns(program);
        program.take();
        worked.keep(program);
        return program;
    }

    @Test
    public void whatDidNotChangeIsNotWorkedAgain() {
        Worked worked = new Worked();
        Map<String, OutputColumn> first = columns(program(ProgramTest.STUDIES, worked));
        Program again = program(ProgramTest.STUDIES, worked);
        columns(again).forEach((name, column) -> assertSame(column, first.get(name), name));
        Map<String, OutputColumn> other = columns(
                program(with(ProgramTest.STUDIES, "fast", "length", "7"), worked));
        for (String name : List.of("slope", "mean", "mean.upper", "push", "prior.high", "turn.low")) {
            assertSame(other.get(name), first.get(name), name);
        }
        // what takes others by name is worked again whatever changes
        for (String name : List.of("fast", "edge", "near", "calm", "days")) {
            assertNotSame(other.get(name), first.get(name), name);
        }
        // the change taken back, it is there again
        assertSame(columns(program(ProgramTest.STUDIES, worked)).get("fast"), first.get("fast"));
        assertSame(program(ProgramTest.STUDIES, worked).series("trend").orElseThrow(),
                again.series("trend").orElseThrow());
    }

    /** Any run of changes leaves every rule as a program says that worked everything itself. */
    @Test
    public void rulesAreAsIfEverythingWereWorkedAnew() {
        SplittableRandom dice = new SplittableRandom(4);
        Worked worked = new Worked();
        List<StudyDefinition> studies = ProgramTest.STUDIES;
        for (int change = 0; change < 24; change++) {
            String name = List.of("fast", "slope", "push", "calm", "near", "turn").get(dice.nextInt(6));
            studies = with(studies, name, name.equals("turn") ? "strength" : "length",
                    Integer.toString(dice.nextInt(2, 12)));
            Program kept = program(studies, worked);
            Program anew = new Program(blueprint(studies), bars);
            anew.take();
            for (String rule : ProgramTest.RULES) {
                Condition one = kept.condition(rule);
                Condition other = anew.condition(rule);
                for (int bar = 0; bar < bars.count(); bar++) {
                    assertEquals(one.at(bar), other.at(bar), rule + " at " + bar + ", change " + change);
                }
            }
        }
    }

    @Test
    public void keptColumnsAreNeverWrittenAgain() {
        Worked worked = new Worked();
        Program program = new Program(blueprint(ProgramTest.STUDIES), bars, worked);
        assertThrows(IllegalStateException.class, () -> worked.keep(program));
        program.take();
        stativex.market.SeriesBuilder builder = new stativex.market.SeriesBuilder(bars.tape(), Given.calendar(),
                stativex.market.BarSettings.of(new BarType.Ticks(10)));
        builder.print(0);
        BarSeries.Forming forming = builder.forming().orElseThrow();
        assertThrows(IllegalStateException.class, () -> program.takeForming(forming, 0));
    }
}
