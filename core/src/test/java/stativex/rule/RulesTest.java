package stativex.rule;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.math.BigDecimal;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.Tape;
import stativex.market.TickBars;
import stativex.study.StudyDefinition;
import stativex.study.StudySet;
import stativex.trial.Given;

public class RulesTest {
    /** Bars of two prints: closes 11, 13, 12, 15 from opens 10, 12, 14, 12. */
    private final Rules rules = rules(10, 11, 12, 13, 14, 12, 12, 15);

    private static Rules rules(long... prices) {
        Tape tape = Given.tape(0, prices);
        TickBars bars = new TickBars(tape, 2);
        bars.sessionOpens(Given.MONDAY);
        StudySet set = new StudySet(List.of(new StudyDefinition.EmaOf("slow", "close", 3),
                new StudyDefinition.VwapOf("mean", 2), new StudyDefinition.AtrOf("reach", 1)), bars.series());
        for (int i = 0; i < prices.length; i++) {
            if (bars.add(i)) {
                set.take(bars.series().count() - 1);
            }
        }
        return new Rules(set, new BigDecimal("0.25"));
    }

    private String truth(String rule) {
        Condition condition = rules.condition(rule);
        StringBuilder text = new StringBuilder();
        for (int bar = 0; bar < 4; bar++) {
            text.append(switch (condition.at(bar)) {
                case Truth.TRUE -> 'T';
                case Truth.FALSE -> 'F';
                default -> '-';
            });
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
                {"volume / (trades - 2) > 1", "----"}, {"reach > 0 ticks", "-TTT"},
                {"close > mean.lower", "TTTT"}};
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

    @Test
    public void levelsForOrders() {
        assertEquals(rules.level("close - 4 ticks").at(0), 7.0);
        assertEquals(rules.level("3.50").at(0), 14.0);
        assertEquals(rules.level("low - (high - low) * 2").at(0), 8.0);
        assertTrue(expectThrows(RuleProblem.class, () -> rules.level("high - low")).getMessage()
                .contains("expected a price"));
    }

    @DataProvider
    public Object[][] problems() {
        return new Object[][]{{"clsoe > open", 1, 1, "did you mean \"close\""},
                {"close > open and\n  delta >", 2, 10, "expected a value"}, {"close >> open", 1, 8, "expected a value"},
                {"close", 1, 6, "expected a relation such as >"}, {"close > 4 ticks", 1, 1, "cannot be compared"},
                {"close - 4 > open", 1, 9, "write \"4 ticks\""}, {"close > open before", 1, 14, "expected"},
                {"close > open 0 bars before", 1, 14, "from 1 on"}, {"4 ticks 2 bars before > 3", 1, 1, "needs a name"},
                {"close + open > 3", 1, 1, "has no meaning"}, {"close * 2 > 3", 1, 1, "has no meaning"},
                {"close > open ?", 1, 14, "found \"?\""}, {"mean.uper > close", 1, 1, "did you mean \"mean.upper\""},
                {"", 1, 1, "expected"}, {"(close > open", 1, 14, "expected"}};
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
