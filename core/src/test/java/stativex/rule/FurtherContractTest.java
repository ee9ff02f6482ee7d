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
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Flickers;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Money;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Terms;
import stativex.study.Studies;
import stativex.study.StudyProblem;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** Series of another contract: seen as they stood before the instant, in ticks of their own that are never mixed. */
public class FurtherContractTest {
    private static final Contract WOOL = new Contract("WLF", "Fine Wool", "NZD", new BigDecimal("0.5"),
            Money.parse("10.00"), 1, Given.calendar(), Optional.empty());
    private static final List<Blueprint.SeriesDefinition> SERIES = List
            .of(series("wool", 1, Optional.of("WLF")), series("trend", 2, Optional.empty()));

    private static Blueprint.SeriesDefinition series(String name, int trades, Optional<String> contract) {
        return new Blueprint.SeriesDefinition(name, BarSettings.of(new BarType.Ticks(trades)), contract);
    }

    private static Program program(Tape mine, Tape wool, String... studies) {
        return new Program(new Blueprint(new BigDecimal("0.25"), Given.calendar(), SERIES,
                List.of(studies).stream().map(Studies::read).toList(), List.of(),
                Map.of("WLF", new ContractTape(WOOL, wool))),
                SeriesBuilder.all(mine, Given.calendar(), BarSettings.of(new BarType.Ticks(2))));
    }

    private static Program small(String... studies) {
        Program program = program(Given.tape(Given.at(0, "01:00"), 10, 11, 12, 13, 14, 13),
                Given.tape(Given.at(0, "01:00"), 50, 60, 70, 60, 80, 90), studies);
        program.take();
        return program;
    }

    @Test
    public void printsOfTheSameInstantAreNotSeen() {
        assertEquals(RulesTest.values(small(), "wool.close"), "50 70 80");
    }

    @Test
    public void numbersBesideItsPricesAreInItsOwnTicks() {
        Program program = small();
        // seen: 50, 70, 80 ticks of 0.5, that is 25.00, 35.00, 40.00
        assertEquals(RulesTest.truth(program, "wool.close > 35.00"), "FFT");
        assertEquals(RulesTest.truth(program, "wool.close >= 35"), "FTT");
        assertEquals(RulesTest.truth(program, "max(wool.close, 36) = 36"), "TTF");
        assertEquals(RulesTest.truth(program, "wool.close + 10 ticks = 40"), "FTF");
        // its own stay in its own: closes of 11, 13, 13 ticks of 0.25
        assertEquals(RulesTest.truth(program, "close > 3.00"), "FTT");
    }

    @DataProvider
    public Object[][] mixed() {
        return new Object[][]{{"wool.close > close"}, {"close < forming wool.close"}, {"wool.close rises through open"},
                {"wool.close - close > 1 tick"}, {"max(wool.close, close) > 5"},
                {"(wool.close - wool.open) / (close - open) > 1"}, {"wool.close - wool.open > close - open"},
                {"wool.close - (high - low) > 3"}, {"(wool.close 1 bar before) > close"},
                {"(wool.close when (close > open) first became true) < high"}, {"wool.drift > trend.close"},
                {"2 * (wool.close - wool.open) < high - low"}, {"abs(wool.close - wool.open) > abs(close - open)"}};
    }

    @Test(dataProvider = "mixed")
    public void pricesAndDistancesOfTwoContractsAreNotMixed(String rule) {
        RuleProblem problem = expectThrows(RuleProblem.class, () -> small("drift = ema 2 on wool").condition(rule));
        assertTrue(problem.getMessage().contains("ticks of WLF") || problem.getMessage().contains("those of WLF"),
                problem.getMessage());
        assertTrue(problem.from() < problem.to() && problem.to() <= rule.length());
    }

    @Test
    public void plainNumbersOfBothCanBeCompared() {
        Program program = small("pace = roc 1", "theirs = roc 1 on wool");
        assertEquals(RulesTest.truth(program, "theirs > pace").length(), 3);
        assertEquals(RulesTest.truth(program, "(wool.close - wool.open) / 1 tick > (close - open) / 1 tick").length(),
                3);
        assertEquals(RulesTest.truth(program, "wool.volume >= volume").length(), 3);
        // of another series of the same contract prices are the same prices
        assertEquals(RulesTest.truth(program, "trend.close >= close"), "TTT");
    }

    @Test
    public void anOrderIsPricedInTheContractThatIsTraded() {
        assertTrue(expectThrows(RuleProblem.class, () -> small().level("wool.close - 2 ticks")).getMessage()
                .contains("expected a price of the contract that is traded, found one of WLF"));
        assertEquals(small().level("close - 2 ticks").at(0), 9.0);
    }

    @Test
    public void aStudyTakesPricesOfTheContractItSitsOn() {
        Map<String, StudyProblem> problems = small("far = ema 2 of wool.close", "near = ema 2 of close on wool",
                "gap = wool.close - wool.open", "share = (wool.close - wool.open) / 2 ticks").studyProblems();
        assertEquals(problems.keySet(), java.util.Set.of("far", "gap"));
        assertEquals(problems.get("far").field(), "of");
        assertTrue(problems.get("far").getMessage().contains("sits on that series"), problems.get("far").getMessage());
    }

    @Test
    public void whyNamesTheContractOfEachNumber() {
        Explanation why = small().condition("wool.close > 35.00").explain(0);
        assertEquals(why.terms().getFirst().amount().contract(), Optional.of("WLF"));
        assertEquals(why.missed().orElseThrow(),
                new Explanation.Amount(20, stativex.study.Unit.DISTANCE, Optional.of("WLF")));
        assertEquals(small().condition("close > open").explain(0).terms().getFirst().amount().contract(),
                Optional.empty());
    }

    /** Its tape ends on Monday night; Monday's day session passes without a print: from its close on nothing is known. */
    @Test
    public void whatLacksAWholeSessionIsAbsentAndSaysSo() {
        TapeBuilder mine = new TapeBuilder(16);
        for (String time : List.of("01:00:05", "01:30", "03:00", "03:59:59")) {
            mine.add(Given.at(0, time), 10, 1, Tape.NONE, Tape.NONE);
            mine.add(Given.at(0, time) + 1, 10, 1, Tape.NONE, Tape.NONE);
        }
        mine.add(Given.at(1, "01:00"), 10, 1, Tape.NONE, Tape.NONE);
        mine.add(Given.at(1, "01:00:01"), 10, 1, Tape.NONE, Tape.NONE);
        Program program = program(mine.build(), Given.tape(Given.at(0, "01:00"), 50, 60));
        program.take();
        assertEquals(RulesTest.truth(program, "wool.close > 1"), "TTTT-");
        assertEquals(RulesTest.truth(program, "forming trend.close > 1 or forming wool.close > 1"), "-----");
        assertTrue(program.condition("wool.close > 1").explain(4).note().contains("has ended"),
                program.condition("wool.close > 1").explain(4).note());
    }

    /** Tick bars that began in the middle of a session are not those of that session; bars by the clock are. */
    @Test
    public void tickBarsOfASessionThatLacksPrintsAreAbsent() {
        Tape mine = Given.tape(Given.at(0, "01:01:02"), 10, 11, 12, 13, 14, 13);
        Tape late = Given.tape(Given.at(0, "01:01:01"), 50, 60, 70, 60, 80, 90);
        Tape called = Given.tape(Given.at(0, "01:00:59"), 50, 60, 70, 60, 80, 90, 90, 90, 90, 90);
        var session = Given.calendar().current(Given.at(0, "01:30")).orElseThrow();
        Tape named = called.withIncomplete(
                java.util.Set.of(new Tape.SessionName(session.tradingDate(), session.name())));
        for (Tape wool : List.of(late, named)) {
            Program program = program(mine, wool);
            program.take();
            assertEquals(RulesTest.truth(program, "wool.close > 1"), "---");
            assertEquals(RulesTest.truth(program, "forming wool.close > 1"), "---");
            assertTrue(program.condition("wool.close > 1").explain(1).note().contains("lacks prints of this session"),
                    program.condition("wool.close > 1").explain(1).note());
            Program byClock = new Program(new Blueprint(new BigDecimal("0.25"), Given.calendar(),
                    List.of(new Blueprint.SeriesDefinition("wool", BarSettings.of(new BarType.Time(Given.SECOND)),
                            Optional.of("WLF"))),
                    List.of(), List.of(), Map.of("WLF", new ContractTape(WOOL, wool))),
                    SeriesBuilder.all(mine, Given.calendar(), BarSettings.of(new BarType.Ticks(2))));
            byClock.take();
            assertEquals(RulesTest.truth(byClock, "wool.close > 1"), "TTT");
        }
        Program whole = program(mine, called);
        whole.take();
        assertEquals(RulesTest.truth(whole, "wool.close > 1"), "TTT");
    }

    private static Tape walk(long seed, int prints, int gap) {
        SplittableRandom dice = new SplittableRandom(seed);
        TapeBuilder tape = new TapeBuilder(prints);
        long time = Given.at(0, "01:00");
        long price = 100;
        for (int i = 0; i < prints; i++) {
            time += dice.nextInt(gap) * Given.SECOND / 2;
            price += dice.nextInt(-2, 3);
            tape.add(time, price, 1 + dice.nextInt(3), Tape.NONE, Tape.NONE);
        }
        return tape.build();
    }

    /** A trial trades exactly where the slow way says: other bars made anew from the prints stamped before the moment. */
    @Test
    public void aTrialSeesWhatWasKnownAndNothingElse() {
        for (long seed = 1; seed <= 12; seed++) {
            Tape mine = walk(seed, 600, 12);
            Tape wool = walk(seed + 100, 500, 14);
            Given.Draft draft = Given.strategy().onlyLong("wool.close > wool.open");
            draft.series = List.of(series("wool", 5, Optional.of("WLF")), series("same", 3, Optional.of("TDL")));
            draft.filters = List.of(new stativex.engine.SignalPlan.Filter("own", true, Optional.of("same.close > 1"),
                    Optional.empty()));
            draft.adds = true;
            draft.maximum = 1000;
            Strategy strategy = draft.build();
            Inputs inputs = Inputs.of(mine, Given.contract(0), Map.of("WLF", new ContractTape(WOOL, wool)),
                    Given.account(), List.of(strategy), Terms.DEFAULT);
            Run run = new Run(inputs);
            run.command(new Command.SetMode(0, Mode.ENGAGED));
            run.toPlace(run.length());
            List<Integer> taken = run.engine().log().decisions().stream()
                    .filter(d -> d.kind() == Decision.Kind.TAKEN).map(Decision::bar).toList();
            BarSeries bars = SeriesBuilder.all(mine, Given.calendar(), BarSettings.of(new BarType.Ticks(2)));
            List<Integer> expected = new ArrayList<>();
            for (int bar = 0; bar < bars.count(); bar++) {
                if (held(wool, bars.moment(bar)) && bar > 0) {
                    expected.add(bar);
                }
            }
            List<Integer> declined = run.engine().log().decisions().stream()
                    .filter(d -> d.kind() == Decision.Kind.DECLINED).map(Decision::bar).toList();
            List<Integer> all = new ArrayList<>(taken);
            all.addAll(declined);
            all.sort(null);
            assertEquals(all, expected, "seed " + seed);
            assertTrue(taken.size() > 20, taken.size() + " taken");
            assertEquals(Flickers.of(strategy, inputs.contract(), mine, inputs.others()).get(Side.LONG).confirmed(),
                    expected.size());
        }
    }

    private static boolean held(Tape wool, long moment) {
        SeriesBuilder until = new SeriesBuilder(wool, Given.calendar(), BarSettings.of(new BarType.Ticks(5)));
        int print = 0;
        for (; print < wool.count() && wool.time(print) < moment; print++) {
            until.print(print);
        }
        if (print > 0) {
            until.heartbeat(moment);
        }
        int last = until.series().count() - 1;
        return last >= 0 && until.series().close(last) > until.series().open(last);
    }
}
