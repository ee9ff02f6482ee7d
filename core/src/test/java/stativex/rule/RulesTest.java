package stativex.rule;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Drawing;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.study.StudyDefinition;
import stativex.trial.Given;

public class RulesTest {
    /** Bars of two prints: closes 11, 13, 12, 15 from opens 10, 12, 14, 12. */
    private final Program rules = program(List.of(StudyDefinition.of("slow", "ema", "length", "3"),
            StudyDefinition.of("mean", "vwap"), StudyDefinition.of("reach", "atr", "length", "1")), 10, 11, 12, 13, 14,
            12, 12, 15);

    static Program program(List<StudyDefinition> studies, long... prices) {
        return program(List.of(), studies, Given.tape(Given.at(0, "01:00"), prices));
    }

    static Program program(List<Blueprint.SeriesDefinition> series, List<StudyDefinition> studies, Tape tape) {
        Program program = new Program(
                new Blueprint(new BigDecimal("0.25"), Given.calendar(), series, studies, DRAWN, Map.of()),
                SeriesBuilder.all(tape, Given.calendar(), BarSettings.of(new BarType.Ticks(2))));
        program.take();
        return program;
    }

    private static final List<Drawing> DRAWN = List.of(new Drawing.Level("Harbour wall", 12),
            new Drawing.Slope("Ebb", Given.at(0, "01:00:01"), 10, Given.at(0, "01:00:05"), 14),
            new Drawing.Marker("Buoy", Given.at(0, "01:00:04"), 13));

    private String truth(String rule) {
        return truth(rules, rule);
    }

    static String truth(Program program, String rule) {
        Condition condition = program.condition(rule);
        StringBuilder text = new StringBuilder();
        for (int bar = 0; bar < program.rows(); bar++) {
            text.append(switch (condition.at(bar)) {
                case Truth.TRUE -> 'T';
                case Truth.FALSE -> 'F';
                default -> '-';
            });
        }
        return text.toString();
    }

    static String values(Program program, String value) {
        Value column = program.value(value);
        StringBuilder text = new StringBuilder();
        for (int bar = 0; bar < program.rows(); bar++) {
            double at = column.at(bar);
            text.append(bar == 0 ? "" : " ").append(Double.isNaN(at)
                    ? "-"
                    : BigDecimal.valueOf(at)
                            .setScale(2, java.math.RoundingMode.HALF_EVEN).stripTrailingZeros().toPlainString());
        }
        return text.toString();
    }

    @DataProvider
    public Object[][] truths() {
        return new Object[][]{{"close > open", "TTFT"}, {"close < open", "FFTF"}, {"not close > open", "FFTF"},
                // an earlier bar is absent before the first
                {"close > close 1 bar before", "-TFT"}, {"close > close 2 bars before", "--TT"},
                // a price beside a level is in the contract's decimals: 3.00 is 12 ticks
                {"close > 3.00", "FTFT"}, {"close >= 3", "FTTT"}, {"close = 3", "FFTF"},
                {"close - open >= 2 ticks", "FFFT"}, {"high - low <= 1 tick", "TTFF"},
                // rises: above now and not above one bar before
                {"close rises through 3", "FTFT"}, {"close falls through 3.25", "-FTF"},
                // an EMA of three is absent on two bars; three-valued logic around it
                {"close > slow", "--FT"}, {"close > slow and close > open", "--FT"},
                {"close > slow or close > open", "TTFT"}, {"close > slow and close < open", "FFFF"},
                {"not close > slow", "--TF"}, {"close > slow or close < open", "--TT"},
                {"(close > open or close < open) and volume = 2", "TTTT"}, {"volume * 2 - 1 = trades + 1", "TTTT"},
                {"close > open # a comment\n and delta > -100", "TTFT"},
                // division by zero is absent
                {"volume / (trades - 2) > 1", "----"}, {"0 / (trades - 2) > 1 or close > open", "TT-T"},
                {"reach > 0 ticks", "-TTT"},
                // a plain number beside a price or a distance counts price units: a quarter is a tick here
                {"close > 2.75 + 0.25", "FTFT"}, {"close + 0.25 > 3.25", "FTFT"}, {"0.25 + close > 3.25", "FTFT"},
                {"close - open > 0.25", "FFFT"}, {"high - low <= 0.25", "TTFF"}, {"4 - close > 0.75", "TFTF"},
                {"close - open > 1 tick + 0.25", "FFFT"}, {"close - 1 > 2", "FTFT"}, {"close > open + 0.5", "FFFT"},
                {"close != 3", "TTFT"}, {"close is not 3", "TTFT"}, {"close is between 2.75 and 3.25", "TTTF"},
                {"close between 3 and 4 and close > open", "FTFT"}, {"(close > open) 1 bar before", "-TTF"},
                {"highest 2 of close = close", "-TFT"}, {"lowest 2 of close 1 bar before < close", "--TT"},
                {"rank 2 of close = 1", "-TFT"}, {"percent rank 3 of close = 100", "--FT"},
                {"median 3 of close = 3", "--TF"}, {"sum 2 of volume = 4", "-TTT"}, {"average 2 of volume = 2", "-TTT"},
                {"session.close = close", "TTTT"}, {"session.volume = 2 * (bars since day open + 1)", "TTTT"},
                {"session.high >= high and week.low <= low", "TTTT"},
                {"Monday or Tuesday or Wednesday or Thursday or Friday or Saturday or Sunday", "TTTT"},
                {"after 01:00:05 in UTC", "FFTT"}, {"before 1:00:05 in UTC", "TTFF"},
                {"between 1:00:03 and 1:00:07 in UTC", "FTTF"},
                // 0 and −0 are equal
                {"0 > -(volume - volume)", "FFFF"}, {"-(volume - volume) < 0", "FFFF"},
                {"-(volume - volume) >= 0", "TTTT"},
                {"close > mean.lower", "TTTT"},
                // words for signs
                {"close is above open", "TTFT"}, {"close is at most 3", "TFTF"},
                // slopes: against N bars before
                {"close is rising over 1 bar", "-TFT"}, {"close falling", "-FTF"}, {"close rising over 2 bars", "--TT"},
                {"volume flat over 3 bars", "---T"},
                // on any, on each: bars before the first are absent
                {"close < open on any of the last 2 bars", "-FTT"}, {"close > open on each of the last 2 bars", "-TFF"},
                {"close > open on any of the last 2 bars", "TTTT"}, {"close < open on each of the last 2 bars", "FFFF"},
                // they bind to the one condition before them, brackets widen
                {"close > 2.75 and close < open on any of the last 2 bars", "FFTT"},
                {"(close > 2.75 and close > open) on any of the last 2 bars", "-TTT"},
                {"not close < open on any of the last 2 bars", "-TFF"},
                // first time since
                {"close > open for the first time since session open", "TFFF"},
                {"close > 2.75 for the first time since session open", "FTFF"},
                {"close > open for the first time since (close < open)", "--FT"},
                // hours: the bar closes at 01:00:01, :03, :05, :07
                {"time is from 01:00:03 to 01:00:07 in UTC", "FTTF"}, {"time is from 23:00 to 01:00:05", "TTFF"},
                {"time is from 13:00 to 14:00:04 in Pacific/Auckland", "TTTT"},
                {"time is from 13:00:02 to 13:00:06 in Pacific/Auckland", "FTTF"},
                // what is drawn: 12 all the time; 10 at the first close rising 1 a second; 13 from 01:00:04 on
                {"close > drawn \"Harbour wall\"", "FTFT"}, {"close > drawn \"Ebb\"", "TTFF"},
                {"close < drawn \"Buoy\"", "--TF"},
                {"abs(close - open) >= 2 ticks", "FFTT"}, {"max(open, close) = high", "TTTT"},
                {"min(delta, 0) = 0", "TTTT"},
                {"times (close > open) since session open >= 2", "FTTT"},
                {"times (close > open) in the last 2 bars = 1", "-FTT"}, {"bars since (close < open) <= 1", "--TT"},
                {"bars since session open = 2", "FFTF"}, {"bars since entry > 3", "----"},
                {"open result > 2 ticks or close > open", "TT-T"}};
    }

    @Test(dataProvider = "truths")
    public void rulesMeanWhatTheySay(String rule, String expected) {
        assertEquals(truth(rule), expected, rule);
    }

    @Test
    public void lanesAreThePartsThatMustAllHold() {
        assertEquals(
                rules.condition("close > open and\n (delta > 0 or volume > 1)").parts().stream().map(Condition::text)
                        .toList(),
                List.of("close > open", "delta > 0 or volume > 1"));
    }

    @DataProvider
    public Object[][] firstForms() {
        return new Object[][]{{"close crosses above mean", "close rises through mean"},
                {"close crosses below mean and close > open", "close falls through mean and close > open"},
                {"close > = open", "close >= open"}, {"close => open", "close >= open"},
                {"close == open", "close = open"},
                {"close <> open", "close != open"}, {"close > open AND close > mean", "close > open and close > mean"},
                {"NOT close > open", "not close > open"}, {"if close > open", "close > open"},
                {"If close > open then buy", "close > open"},
                {"close > open && close > mean", "close > open and close > mean"},
                {"close is greater than open", "close > open"}, {"close > high[1]", "close > high 1 bars before"},
                {"close > high 2 bars ago", "close > high 2 bars before"},
                {"close crosses over mean OR NOT close > open", "close rises through mean or not close > open"}};
    }

    @Test(dataProvider = "firstForms")
    public void whatPeopleWriteFirstIsOfferedInTheRightForm(String first, String right) {
        RuleProblem problem = expectThrows(RuleProblem.class, () -> rules.condition(first));
        assertEquals(problem.offer().orElse(problem.getMessage()), right);
        rules.condition(right);
    }

    @Test
    public void levelsForOrders() {
        assertEquals(rules.level("close - 4 ticks").at(0), 7.0);
        assertEquals(rules.level("3.50").at(0), 14.0);
        assertEquals(rules.level("low - (high - low) * 2").at(0), 8.0);
        assertTrue(expectThrows(RuleProblem.class, () -> rules.level("high - low")).getMessage()
                .contains("expected a price"));
    }

    @Test
    public void heldValuesStandUntilTheConditionBecomesTrueAgain() {
        assertEquals(values(rules, "close when (close > open) first became true"), "11 11 11 15");
        assertEquals(values(rules, "close when (close < open) first became true"), "- - 12 12");
        assertEquals(values(rules, "close 1 bar before when (close < open) first became true"), "- - 13 13");
        assertEquals(values(rules, "bars since (close < open)"), "- - 0 1");
        assertEquals(values(rules, "times (close > open) since (close < open)"), "- - 0 1");
        assertEquals(values(rules, "times (close > 2.75) since session open"), "0 1 2 3");
        assertEquals(values(rules, "bars since session open"), "0 1 2 3");
    }

    @Test
    public void sameWordsAreComputedOnce() {
        assertTrue(rules.condition("close  >\n open") == rules.condition("close > open # again"));
    }

    @DataProvider
    public Object[][] problems() {
        return new Object[][]{{"clsoe > open", 1, 1, "did you mean \"close\""},
                {"close > open and\n  delta >", 2, 10, "expected a value"}, {"close >> open", 1, 8, "expected a value"},
                {"close", 1, 1, "expected a relation such as >"}, {"close > 4 ticks", 1, 1, "cannot be compared"},
                {"sum 2 of close > 3", 1, 1, "prices have no sum"},
                {"percent rank 1 of volume > 3", 1, 14, "2 bars or more"},
                {"highest 3 of 4 > 3", 1, 14, "expected a name"}, {"after 00:00", 1, 1, "every bar is after"},
                {"close between 3", 1, 16, "expected"}, {"close * 0.5 + 1 > 3", 1, 1, "has no meaning"},
                {"ema(21) > 3", 1, 1, "add ema 21 among the studies"},
                {"close > open before", 1, 14, "expected"},
                {"mark slow stands on this bar", 1, 6, "no study of this series draws marks"},
                {"mark drawn \"Nowhere\" stands on this bar", 1, 12, "\"Nowhere\""},
                {"mark slow stands", 1, 17, "expected"},
                {"close > open 0 bars before", 1, 14, "from 1 on"}, {"4 ticks 2 bars before > 3", 1, 1, "needs a name"},
                {"close + open > 3", 1, 1, "has no meaning"}, {"close * 2 > 3", 1, 1, "has no meaning"},
                {"close > open ?", 1, 14, "found \"?\""}, {"mean.uper > close", 1, 1, "did you mean \"mean.upper\""},
                {"", 1, 1, "expected"}, {"(close > open", 1, 14, "expected"},
                {"mean > close and reach.up > 3", 1, 18, "expected one of"},
                {"close > drawn \"Buoi\"", 1, 15, "did you mean \"Buoy\""},
                {"time is from 09:45 to 24:30", 1, 23, "from 00:00 to 23:59"},
                {"time is from 09:45 to 09:45", 1, 23, "another time"},
                {"time is from 09:45 to 10:45 in Pacific/Aukland", 1, 32, "did you mean \"Pacific/Auckland\""},
                {"forming close > open", 1, 1, "another series"}, {"abs(close) > 3", 1, 1, "abs of a price"},
                {"low(close) > 3", 1, 1, "expected abs, min or max"}, {"min(close) > 3", 1, 1, "takes 2 values"},
                {"close > open on any of the last 0 bars", 1, 33, "from 1 on"}, {"-close > open", 1, 1, "no meaning"},
                {"close > open on most of the last 2 bars", 1, 17, "expected"}};
    }

    @Test(dataProvider = "problems")
    public void problemsNameTheirPlace(String rule, int line, int column, String words) {
        RuleProblem problem = expectThrows(RuleProblem.class, () -> rules.condition(rule));
        assertEquals(problem.line() + ":" + problem.column(), line + ":" + column, problem.getMessage());
        assertTrue(problem.getMessage().contains(words), problem.getMessage());
    }

    @Test
    public void truthTables() {
        int[] all = {Truth.TRUE, Truth.FALSE, Truth.ABSENT};
        for (int a : all) {
            for (int b : all) {
                int and = a == Truth.FALSE || b == Truth.FALSE
                        ? Truth.FALSE
                        : a == Truth.ABSENT || b == Truth.ABSENT ? Truth.ABSENT : Truth.TRUE;
                int or = a == Truth.TRUE || b == Truth.TRUE
                        ? Truth.TRUE
                        : a == Truth.ABSENT || b == Truth.ABSENT ? Truth.ABSENT : Truth.FALSE;
                assertEquals(Truth.and(a, b), and);
                assertEquals(Truth.or(a, b), or);
            }
        }
    }
}
