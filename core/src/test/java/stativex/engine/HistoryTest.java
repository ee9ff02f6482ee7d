package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Terms;
import stativex.study.StudyDefinition;
import stativex.trial.Days;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** A strategy's history is counted back from its first evaluated day, whatever else the tape holds. */
public class HistoryTest {
    /** Four days; it begins with day {@code first}. */
    private static Tape tape(int first) {
        SplittableRandom dice = new SplittableRandom(5);
        TapeBuilder tape = new TapeBuilder(2000);
        long price = 1000;
        for (int day = 0; day < 4; day++) {
            for (int i = 0; i < 300; i++) {
                price += dice.nextInt(-3, 4);
                if (day >= first) {
                    tape.add(Given.at(day, "01:00:00") + i * 11 * Given.SECOND, price, 1, Tape.NONE, Tape.NONE);
                }
            }
        }
        return tape.build();
    }

    private static Run trial(int firstDay, int history, Optional<LocalDate> from) {
        Given.Draft draft = Given.strategy();
        draft.studies = List.of(StudyDefinition.of("slow", "ema", "length", "250"));
        draft.longSide = Optional.of(Given.rule("close rises through slow"));
        draft.shortSide = Optional.of(Given.rule("close falls through slow"));
        draft.plan = Given.plan(6);
        draft.history = history;
        return Run.trial(Inputs.of(tape(firstDay), Given.contract(0), Given.account(), List.of(draft.build()),
                Terms.DEFAULT).over(new Days(from, Optional.empty())));
    }

    private static List<String> fromDay(Run run, int day) {
        return run.engine().log().decisions().stream().filter(d -> d.time() >= Given.at(day, "01:00:00"))
                .map(d -> d.time() + " " + d.side() + " " + d.outcome()).toList();
    }

    @Test
    public void theSameDocumentDecidesTheSameOnTapesThatBeginADayApart() {
        Optional<LocalDate> third = Optional.of(Given.MONDAY.plusDays(2));
        Run whole = trial(0, 1, third);
        Run later = trial(1, 1, third);
        assertFalse(whole.engine().log().decisions().isEmpty());
        assertEquals(fromDay(later, 0), fromDay(whole, 0));
        assertTrue(whole.engine().log().decisions().getFirst().time() >= Given.at(2, "01:00:00"), "nothing before");
        assertFalse(later.engine().histories().getFirst().isShort());
        // without a first day each tape counts from its own beginning, and an average over 250 bars remembers that
        assertNotEquals(fromDay(trial(1, 1, Optional.empty()), 2), fromDay(trial(0, 1, Optional.empty()), 2));
    }

    @Test
    public void aTapeThatBeginsTooLateIsMarked() {
        Optional<LocalDate> third = Optional.of(Given.MONDAY.plusDays(2));
        assertTrue(trial(1, 2, third).engine().histories().getFirst().isShort());
        assertFalse(trial(0, 2, third).engine().histories().getFirst().isShort());
        History overWeekend = History.of(2, Optional.of(Given.MONDAY), Given.calendar(), tape(0));
        assertEquals(overWeekend.since(), Given.at(-4, "01:00:00"), "two trading days before a Monday is a Thursday");
        assertTrue(overWeekend.isShort());
    }
}
