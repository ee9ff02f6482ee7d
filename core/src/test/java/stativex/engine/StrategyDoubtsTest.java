package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.interlock.SessionWindow;
import stativex.study.StudyDefinition;
import stativex.trial.Given;

/** What can hardly be meant in a complete strategy; and that what can be is left alone. */
public class StrategyDoubtsTest {
    private static List<StrategyProblems.Problem> doubts(Consumer<Given.Draft> change) {
        Given.Draft draft = Given.strategy();
        draft.studies = List.of(StudyDefinition.of("pull", "rsi"));
        change.accept(draft);
        return StrategyDoubts.of(draft.build(), Given.contract(0), List.of());
    }

    private static Object[] row(Consumer<Given.Draft> change, String place, String words) {
        return new Object[]{change, place, words};
    }

    private static Object[] rule(String rule, String words) {
        return row(d -> d.onlyLong(rule), "long.rule", words);
    }

    private static SessionWindow window(DayOfWeek day, String from, String to, long lead) {
        return new SessionWindow("Early", Set.of(day), LocalTime.parse(from), LocalTime.parse(to), ZoneOffset.UTC,
                SessionWindow.End.FLATTEN, lead * Given.SECOND);
    }

    @DataProvider
    public Object[][] odd() {
        return new Object[][]{rule("close > close", "never true"),
                rule("close > open and close >= close", "always true"),
                rule("pull > 101", "never true"), rule("pull > 100", "never true"), rule("pull >= 0", "always true"),
                rule("120 < pull", "never true"), rule("pull = -3", "never true"),
                rule("not pull > 101", "always true"),
                rule("(close > open and close < close)", "never true"),
                rule("close > open or high = high", "the rule is always true"),
                rule("close rises through close", "never true"), rule("volume is between 9 and 3", "never true"),
                rule("(pull > 101) on any of the last 3 bars", "never true"),
                rule("(pull > 101) 2 bars before and close > open", "never true"),
                row(d -> d.windows = List.of(window(DayOfWeek.SATURDAY, "01:00", "02:00", 30)), "windows[0]",
                        "meets no session"),
                row(d -> d.windows = List.of(window(DayOfWeek.MONDAY, "02:00", "03:00", 30)), "windows[0]",
                        "meets no session"),
                row(d -> d.windows = List.of(window(DayOfWeek.MONDAY, "01:00", "01:10", 600)), "windows[0]",
                        "lets nothing enter"),
                row(d -> d.plan = new ExitPlan("two", "1", Optional.of(new Distance.Ticks(9)),
                        List.of(new ExitTerms.Target(1, Optional.of(new Distance.Ticks(4L))),
                                new ExitTerms.Target(1, Optional.empty())),
                        Optional.empty(), List.of()), "exit.targets", "sum to 2")};
    }

    @Test(dataProvider = "odd")
    public void whatCannotBeMeantIsSaidWithItsPlace(Consumer<Given.Draft> change, String place, String words) {
        List<StrategyProblems.Problem> doubts = doubts(change);
        assertEquals(doubts.stream().map(StrategyProblems.Problem::place).distinct().toList(), List.of(place));
        assertTrue(doubts.getFirst().what().contains(words), doubts.getFirst().what());
    }

    @Test
    public void whatCanBeMeantIsLeftAlone() {
        assertEquals(doubts(
                d -> d.onlyLong("close > open and pull > 99 and pull < 100 and volume >= 0 and not close > open")),
                List.of());
        assertEquals(doubts(d -> d.windows = List.of(window(DayOfWeek.SUNDAY, "23:00", "01:30", 30))), List.of());
        assertEquals(doubts(d -> d.onlyLong("close is between low and high")), List.of());
    }
}
