package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.rule.Blueprint;
import stativex.rule.Truth;
import stativex.study.Computed;
import stativex.study.Studies;
import stativex.study.StudyDefinition;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Said;

/** What the screen shows of the bar that forms: true as things stand, and nothing else comes of it. */
public class PreviewTest {
    private static final List<String> RULES = List.of("close > open",
            "close > fast and open result > 2 ticks or bars since entry > 3 or close > open",
            "forming trend.close > trend.open and close > open 1 bar before",
            "close > mean for the first time since session open or close > close when (close > fast) first became true",
            "times (close > open) since session open > 3 and close < mean.upper",
            "best excursion > 4 ticks or close > open on each of the last 2 bars", "slope is falling over 2 bars",
            "mark turn stands within 5 bars and mark fresh pointing up stands on this bar");

    private static Given.Draft draft(SplittableRandom dice, BarType type) {
        Given.Draft draft = Given.strategy();
        draft.barType = Optional.of(type);
        draft.series = List.of(new Blueprint.SeriesDefinition("trend", BarSettings.of(new BarType.Ticks(33)),
                Optional.empty()));
        draft.studies = List.of(Studies.read("fast = ema 5"), Studies.read("mean = vwap from session deviations 1.5"),
                Studies.read("slope = ema 4 of close on trend"),
                Studies.read("turn = swing 2"),
                StudyDefinition.of("fresh", StudyDefinition.FORMULA, StudyDefinition.MARK, "up")
                        .taking("close > open"));
        draft.longSide = Optional.of(Given.rule(RULES.get(dice.nextInt(RULES.size()))));
        draft.shortSide = Optional.of(Given.rule(RULES.get(dice.nextInt(RULES.size()))));
        draft.plan = Given.plan(12, Given.target(1, 9));
        draft.confirm = dice.nextInt(3) == 0 ? Optional.of(2) : Optional.empty();
        return draft;
    }

    private static Run run(Inputs inputs, SplittableRandom looks) {
        Run run = new Run(inputs);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        while (!run.atEnd()) {
            run.step();
            if (looks.nextInt(5) == 0) {
                run.engine().snapshot();
            }
        }
        run.finish();
        return run;
    }

    @Test
    public void lookingChangesNothing() {
        List<BarType> types = List.of(new BarType.Ticks(10), new BarType.Range(6), new BarType.Volume(90),
                new BarType.Renko(3, 6), new BarType.Time(45 * Given.SECOND));
        int fills = 0;
        for (long seed = 1; seed <= 40; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            Inputs inputs = Inputs.of(Computed.walk(seed, 3000), Given.contract(1), Given.account(),
                    List.of(draft(dice, types.get(dice.nextInt(types.size()))).build()), Terms.DEFAULT);
            Run plain = Run.trial(inputs);
            Run watched = run(inputs, dice);
            assertEquals(watched.engine().log().fills(), plain.engine().log().fills(), "seed " + seed);
            assertEquals(watched.engine().log().decisions(), plain.engine().log().decisions(), "seed " + seed);
            for (Side side : Side.values()) {
                List<Snapshot.Lane> one = plain.engine().snapshot().strategies().getFirst().lanes().get(side);
                List<Snapshot.Lane> other = watched.engine().snapshot().strategies().getFirst().lanes().get(side);
                for (int lane = 0; lane < one.size(); lane++) {
                    for (int bar = 0; bar < one.get(lane).truth().count(); bar++) {
                        assertEquals(other.get(lane).truth().get(bar), one.get(lane).truth().get(bar));
                    }
                }
            }
            fills += plain.engine().log().fills().size();
        }
        assertTrue(fills > 500, fills + " fills");
    }

    /** Entered and left inside one bar: at its close there is no position, whatever was told of it before. */
    @Test
    public void aTradeThatEndedInsideTheBarIsNotTold() {
        Given.Draft draft = Given.strategy().onlyLong("close > open or best excursion > 5 ticks");
        draft.bars = 6;
        draft.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        draft.plan = Given.plan(50, Given.target(1, 7));
        Run run = Run.trial(Inputs.of(Given.tape(Given.at(0, "01:00"), 10, 11, 12, 18, 20, 9), Given.contract(0),
                Given.account(), List.of(draft.build()), Terms.DEFAULT));
        assertEquals(
                run.engine().log().fills().stream().map(fill -> Said.reason(fill.reason()) + " " + fill.price())
                        .toList(),
                List.of("entry 12", "target 1 19"));
        assertEquals(run.engine().snapshot().strategies().getFirst().lanes().get(Side.LONG).getLast().truth().get(0),
                Truth.ABSENT);
    }

    /** At each print as if the bar closed there. */
    @Test
    public void theFormingBarIsJudgedAsItStands() {
        Given.Draft draft = Given.strategy().onlyLong("close > open and close > high 1 bar before");
        draft.bars = 4;
        Tape tape = Given.tape(Given.at(0, "01:00"), 10, 12, 11, 11, 11, 12, 13, 12, 9);
        Run run = new Run(Inputs.of(tape, Given.contract(0), Given.account(), List.of(draft.build()), Terms.DEFAULT));
        StringBuilder seen = new StringBuilder();
        for (int print = 0; print < tape.count(); print++) {
            run.step();
            List<Snapshot.Lane> lanes = run.engine().snapshot().strategies().getFirst().lanes().get(Side.LONG);
            for (Snapshot.Lane lane : lanes) {
                seen.append(lane.forming().isEmpty()
                        ? "."
                        : lane.forming().getAsInt() == Truth.TRUE
                                ? "T"
                                : lane.forming().getAsInt() == Truth.FALSE ? "F" : "-");
            }
            seen.append(' ');
            assertTrue(lanes.getLast().truth().count() == (print + 1) / 4);
        }
        assertEquals(seen.toString().strip(), "F-F T-- T-- ... FFF TFF TTT ... FFF");
        draft.barType = Optional.of(new BarType.Renko(2, 4));
        Run bricks = Run.trial(Inputs.of(tape, Given.contract(0), Given.account(), List.of(draft.build()),
                Terms.DEFAULT));
        assertTrue(bricks.engine().snapshot().strategies().getFirst().lanes().get(Side.LONG).getFirst().forming()
                .isEmpty(), "a brick has no prices before it closes");
    }
}
