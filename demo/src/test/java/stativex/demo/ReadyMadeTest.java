package stativex.demo;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.engine.Decision;
import stativex.engine.SideRules;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.files.StrategyCheck;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.rule.Blueprint;
import stativex.rule.Mirroring;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** The strategies to start from: complete, true somewhere on the demo's tape, and traded by a trial where it can. */
public class ReadyMadeTest {
    private final Contract contract = Demo.documents().contract().value();
    private final Account account = Demo.documents().account().value();
    private final Tape tape = Demo.tape(contract);

    @DataProvider
    public Object[][] all() {
        return ReadyMade.all().stream().map(ready -> new Object[]{ready}).toArray(Object[][]::new);
    }

    private Program program(Strategy strategy) {
        var plan = strategy.signals();
        SeriesBuilder bars = new SeriesBuilder(tape, contract.calendar(), plan.bars());
        bars.prints(0, tape.count());
        return new Program(new Blueprint(contract.tickSize(), contract.calendar(), plan.series(), plan.studies(),
                List.of(), Map.of()), bars.series());
    }

    @Test(dataProvider = "all")
    public void isCompleteAndItsLanesAreTrueSomewhere(ReadyMade ready) throws Exception {
        Path file = Files.createTempDirectory("ready").resolve(ready.file() + ".strategy.json");
        Files.writeString(file, ready.text());
        assertEquals(StrategyCheck.problems(file, contract, List.of()), List.of());
        Strategy strategy = Documents.strategy(file).value();
        Program program = program(strategy);
        for (Side side : Side.values()) {
            SideRules rules = new SideRules(program, side, strategy.side(side).orElseThrow(), strategy.signals(),
                    strategy.entry(side).priced());
            program.take();
            for (SideRules.Lane lane : rules.lanes()) {
                int held = 0;
                for (int bar = 0; bar < program.rows(); bar++) {
                    held += lane.condition().at(bar) == Truth.TRUE ? 1 : 0;
                }
                // five days are too few for two days of which one spans the other and closes on either side
                assertTrue(held > 0 || ready.file().equals("outside-day") && program.rows() == 4,
                        ready.file() + " " + side.word() + ": " + lane.name() + " held " + held);
                assertTrue(held < program.rows() / 2 || !lane.name().equals("all of them"), ready.file() + " " + held);
            }
        }
    }

    /** Its short side is the mirrored long one, except where it is meant to differ. */
    @Test(dataProvider = "all")
    public void itsSidesMirrorEachOther(ReadyMade ready) {
        Strategy strategy = ready.document().value();
        Program program = program(strategy);
        Mirroring.Result mirrored = program.mirrored(strategy.longSide().orElseThrow().rule());
        String shortRule = strategy.shortSide().orElseThrow().rule();
        boolean same = conditions(mirrored.text()).equals(conditions(shortRule));
        // a level of its own for each side has no counterpart by name
        boolean apart = List.of("two-tides", "breakwater-fade").contains(ready.file());
        assertEquals(same, !apart, mirrored.text() + "\n" + shortRule + mirrored.left());
    }

    private static String conditions(String rule) {
        return rule.lines().filter(line -> !line.startsWith("#")).reduce("", String::concat);
    }

    @Test(dataProvider = "all")
    public void aTrialTakesItsSignals(ReadyMade ready) {
        Strategy strategy = ready.document().value();
        Run run = Run.trial(Inputs.of(tape, contract, account, List.of(strategy), Terms.DEFAULT));
        long taken = run.engine().log().decisions().stream().filter(d -> d.kind() == Decision.Kind.TAKEN).count();
        assertTrue(taken > 0 || ready.file().equals("outside-day"), ready.file() + ": " + taken);
    }
}
