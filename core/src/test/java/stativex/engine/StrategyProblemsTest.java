package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.DrawnPoints;
import stativex.order.Order;
import stativex.rule.Blueprint;
import stativex.study.StudyDefinition;
import stativex.trial.Given;

/** What is missing or wrong in a strategy, each thing with its place. */
public class StrategyProblemsTest {
    private static List<StrategyProblems.Problem> problems(Given.Draft draft) {
        Strategy made = draft.build();
        return StrategyProblems.of(made.signals(), made.longSide(), made.shortSide(), made.entry(),
                Given.contract(0), List.of());
    }

    private static Object[] row(Consumer<Given.Draft> change, String place, String words) {
        return new Object[]{change, place, words};
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][]{
                row(d -> d.onlyLong("close > opn"), "long.rule", "did you mean \"open\""),
                row(d -> d.onlyLong("close > 4 ticks"), "long.rule", "cannot be compared"),
                row(d -> d.onlyLong("close >"), "long.rule", "found the end"),
                row(d -> d.onlyLong(" # nothing yet\n"), "long.rule", ""),
                row(d -> d.studies = List.of(StudyDefinition.of("a", "ema").taking("b"),
                        StudyDefinition.of("b", "ema").taking("a")), "studies[0].of", "takes itself"),
                row(d -> d.studies = List.of(StudyDefinition.of("a", "ema"), StudyDefinition.of("a", "sma")),
                        "studies[0].name", "used twice"),
                row(d -> d.studies = List.of(StudyDefinition.of("close", "ema")), "studies[0].name",
                        "no word of the rule language"),
                row(d -> d.studies = List.of(StudyDefinition.of("a", "ema").sittingOn("trend")), "studies[0].on",
                        "no"),
                row(d -> d.filters = List.of(new SignalPlan.Filter("f", true, Optional.empty(),
                        Optional.of("delta > 1 tick"))), "filters[0].short", "cannot be compared"),
                row(d -> d.longSide = Optional.of(new Strategy.SideRule("close > open", Optional.empty(),
                        List.of(new Strategy.Grade("g", "close > ")), List.of("g"), Optional.empty())),
                        "long.grades[0].rule",
                        "found the end"),
                row(d -> d.longSide = Optional.of(Given.rule("close > open", "close - 1 tick")), "long.price",
                        "a market entry takes no price"),
                row(d -> d.type = Order.Type.LIMIT, "long.price", "no price yet")};
    }

    @Test(dataProvider = "wrong")
    public void eachThingHasItsPlace(Consumer<Given.Draft> change, String place, String words) {
        Given.Draft draft = Given.strategy();
        change.accept(draft);
        StrategyProblems.Problem first = problems(draft).getFirst();
        assertEquals(first.place(), place, first.text());
        assertTrue(first.what().contains(words), first.text());
    }

    @Test
    public void everythingIsSaidAtOnceAndNothingOfWhatIsRight() {
        Given.Draft draft = Given.strategy();
        assertEquals(problems(draft), List.of());
        draft.onlyLong("close > opn and delta > 1 tick and close > open");
        List<StrategyProblems.Problem> all = problems(draft);
        assertEquals(all.stream().map(p -> p.from() + "-" + p.to()).toList(), List.of("8-11", "16-30"));
        SignalPlan plan = new SignalPlan(BarSettings.of(new BarType.Ticks(2)), List.of(), List.of(),
                List.of(new DrawnPoints("level", "Wall", 0, "3.30", 0, "")), List.of(), Optional.empty(),
                SignalPlan.Evaluate.BAR_CLOSE, Optional.empty());
        List<StrategyProblems.Problem> drawn = StrategyProblems.of(plan, Optional.of(Given.rule("close > open")),
                Optional.empty(), new Strategy.Entry(stativex.order.Order.Type.MARKET, 1, new Strategy.GoodFor.Day()),
                Given.contract(0), List.of());
        assertEquals(drawn.getFirst().place(), "drawings");
    }

    @Test
    public void aSeriesOfAnotherContractIsSpokenOfWhenThatIsKnown() {
        Given.Draft draft = Given.strategy().onlyLong("wool.close > wool.open and wool.close > 12.50");
        draft.series = List.of(new Blueprint.SeriesDefinition("wool", BarSettings.of(new BarType.Ticks(9)),
                Optional.of("WLF")));
        StrategyProblems.Problem unknown = problems(draft).getFirst();
        assertEquals(unknown.place(), "series[0].contract");
        assertTrue(unknown.what().contains("no tape of WLF"), unknown.what());
        Strategy made = draft.build();
        Contract wool = new Contract("WLF", "Fine Wool", "NZD", new java.math.BigDecimal("0.5"), 100_000, 1,
                Given.calendar(), Optional.empty());
        assertEquals(
                StrategyProblems.of(made.signals(), made.longSide(), made.shortSide(), made.entry(), Given.contract(0),
                        List.of(wool)),
                List.of());
        assertEquals(made.signals().others(Given.contract(0)), List.of("WLF"));
    }
}
