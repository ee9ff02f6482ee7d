package stativex.link;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.testng.annotations.Test;
import stativex.interlock.OutOfStep;
import stativex.market.TapeTime;
import stativex.order.FromBroker;
import stativex.order.ToBroker;

/** When feed and broker count as out of step, by times that the tests give. Source: SEMANTICS, "Live". */
public class StepWatchTest {
    private static final long S = TapeTime.SECOND;
    private static final long MS = 1_000_000;
    /** Some moment since 1970, at which {@code now} is 0. */
    private static final long WALL = 1_790_000_000L * S;

    private static VenueEvent.Sent sent(long at) {
        return new VenueEvent.Sent(WALL + at, WALL + at, 1);
    }

    /** A print each so many milliseconds, delivered at once. */
    private static StepWatch steady(int count, long each) {
        StepWatch watch = new StepWatch();
        for (int i = 0; i < count; i++) {
            long at = i * each * MS;
            watch.prints(WALL + at, WALL + at, 1, sent(at), WALL + at, at);
        }
        return watch;
    }

    @Test
    public void silenceIsTwentyMedianGapsAndAtLeastTenSeconds() {
        StepWatch quick = steady(300, 100);
        long last = 299 * 100 * MS;
        assertEquals(quick.why(last + 10 * S, true), Optional.empty());
        assertEquals(quick.why(last + 10 * S + 1, true), Optional.of(OutOfStep.FEED_SILENT));
        assertEquals(quick.why(last + 60 * S, false), Optional.empty(), "between sessions nothing is expected");
        StepWatch slow = steady(300, 2_000);
        long then = 299 * 2_000 * MS;
        assertEquals(slow.why(then + 40 * S, true), Optional.empty());
        assertEquals(slow.why(then + 40 * S + 1, true), Optional.of(OutOfStep.FEED_SILENT));
    }

    @Test
    public void onlyTheLastTwoHundredGapsCount() {
        StepWatch watch = steady(300, 4_000);
        long at = 299 * 4_000 * MS;
        for (int i = 0; i < 101; i++) {
            at += 100 * MS;
            watch.prints(WALL + at, WALL + at, 1, sent(at), WALL + at, at);
        }
        assertEquals(watch.patience(), 10 * S, "101 of 200 are short");
    }

    @Test
    public void printsThatAreOldWhenTheyAreSentAreCatchingUp() {
        StepWatch watch = steady(10, 100);
        watch.prints(WALL + S, WALL + 3 * S, 5, sent(3 * S), WALL + 3 * S, 3 * S);
        assertEquals(watch.why(3 * S, true), Optional.empty(), "2 s are not more than 2 s");
        watch.prints(WALL + S - 1, WALL + 3 * S, 5, sent(3 * S), WALL + 3 * S, 3 * S);
        assertEquals(watch.why(3 * S, true), Optional.of(OutOfStep.CATCHING_UP));
        watch.prints(WALL + 4 * S, WALL + 4 * S, 1, sent(4 * S), WALL + 4 * S, 4 * S);
        assertEquals(watch.why(4 * S, true), Optional.empty());
    }

    @Test
    public void clocksTwoSecondsApartAreOutOfStepEitherWay() {
        StepWatch watch = steady(10, 100);
        watch.heard(WALL + 5 * S, WALL + 7 * S - 1);
        assertEquals(watch.why(5 * S, true), Optional.empty());
        watch.heard(WALL + 5 * S, WALL + 7 * S);
        assertEquals(watch.why(5 * S, true), Optional.of(OutOfStep.CLOCK_APART));
        watch.heard(WALL + 5 * S, WALL + 3 * S);
        assertEquals(watch.why(5 * S, true), Optional.of(OutOfStep.CLOCK_APART));
        watch.anew();
        assertEquals(watch.why(5 * S, true), Optional.empty(), "another link is measured anew");
    }

    @Test
    public void aTapePlayedFasterHasItsOwnClock() {
        StepWatch watch = new StepWatch();
        watch.prints(1_000 * S, 1_000 * S, 1, new VenueEvent.Sent(WALL, 1_000 * S, 60), WALL, 0);
        assertEquals(watch.venueTime(2 * S), OptionalLong.of(1_120 * S));
        assertEquals(watch.why(10 * S, true), Optional.empty(), "ten seconds here are ten minutes there");
        assertEquals(watch.why(10 * S + 1, true), Optional.of(OutOfStep.FEED_SILENT));
    }

    // ------------------------------------------------------------------ orders in doubt

    private static ToBroker cancel(String name, String order) {
        return new ToBroker.Cancel(name, order, false, 0);
    }

    @Test
    public void aMessageWithoutAnAnswerForThreeSecondsPutsItsOrderInDoubt() {
        Doubts doubts = new Doubts(5 * S);
        doubts.sent(cancel("a-2", "a-1"), 0);
        doubts.sent(cancel("a-4", "a-3"), 0);
        doubts.heard(new FromBroker.Received("a-3", "a-4"));
        assertEquals(doubts.doubted(3 * S - 1), List.of());
        assertEquals(doubts.doubted(3 * S), List.of("a-1"));
        assertEquals(doubts.ask(3 * S), List.of("a-1"));
        assertEquals(doubts.ask(3 * S + 1), List.of(), "it is asked once, and then waited for");
        assertEquals(doubts.answered("a-1", true, 4 * S), Optional.of(new FromBroker.Known("a-1")));
        assertEquals(doubts.orders(), List.of());
    }

    @Test
    public void onlyTwoAnswersFiveSecondsApartMeanThatItNeverCame() {
        Doubts doubts = new Doubts(5 * S);
        doubts.begin(List.of("a-1"), 0);
        assertEquals(doubts.ask(0), List.of("a-1"));
        assertEquals(doubts.answered("a-1", false, S), Optional.empty());
        assertEquals(doubts.answered("a-1", false, S), Optional.empty(), "an answer twice is one answer");
        assertEquals(doubts.ask(6 * S - 1), List.of());
        assertEquals(doubts.ask(6 * S), List.of("a-1"));
        assertEquals(doubts.orders(), List.of("a-1"), "silence leaves it in doubt");
        assertEquals(doubts.answered("a-1", false, 7 * S), Optional.of(new FromBroker.NeverAccepted("a-1")));
    }

    @Test
    public void whatEndsAnswersEverythingThatWasAskedOfIt() {
        Doubts doubts = new Doubts(5 * S);
        doubts.sent(cancel("a-2", "a-1"), 0);
        doubts.sent(cancel("a-3", "a-1"), 0);
        doubts.heard(new FromBroker.Ended("a-1"));
        assertEquals(doubts.doubted(60 * S), List.of());
    }

    // ------------------------------------------------------------------ positions

    @Test
    public void aDifferenceCountsOnceTwoAnswersTwoSecondsApartShowIt() {
        PositionWatch watch = new PositionWatch();
        watch.begin(0);
        assertTrue(watch.ask(0));
        assertFalse(watch.ask(S));
        watch.answer(3, 2, S);
        assertEquals(watch.difference(), OptionalLong.empty());
        assertTrue(watch.ask(3 * S), "asked again after 2 s");
        watch.answer(3, 2, 3 * S - 1);
        assertEquals(watch.difference(), OptionalLong.empty());
        watch.answer(3, 2, 3 * S);
        assertEquals(watch.difference(), OptionalLong.of(1));
        watch.answer(2, 2, 4 * S);
        assertEquals(watch.difference(), OptionalLong.empty());
    }

    @Test
    public void aFillBetweenTwoAnswersBeginsAnew() {
        PositionWatch watch = new PositionWatch();
        watch.begin(0);
        watch.answer(0, 2, 0);
        watch.filled();
        watch.answer(0, 2, 5 * S);
        assertEquals(watch.difference(), OptionalLong.empty());
        watch.answer(1, 2, 8 * S);
        assertEquals(watch.difference(), OptionalLong.empty(), "another difference is another suspicion");
        watch.answer(1, 2, 10 * S);
        assertEquals(watch.difference(), OptionalLong.of(-1));
    }

    // ------------------------------------------------------------------ alarms

    @Test
    public void anAlarmIsToldOnceAndOneThatWaitsEachMinute() {
        Alarms alarms = new Alarms();
        for (Alarm.Kind kind : List.of(Alarm.Kind.FEED_SILENT, Alarm.Kind.FLATTEN_WAITS)) {
            boolean waits = kind == Alarm.Kind.FLATTEN_WAITS;
            assertTrue(alarms.set(kind, Optional.of("it is so"), 0).orElseThrow().raised());
            assertEquals(alarms.set(kind, Optional.of("it is so"), 59 * S), Optional.empty());
            assertEquals(alarms.set(kind, Optional.of("it is so"), 60 * S).isPresent(), waits);
            assertEquals(alarms.set(kind, Optional.of("it is so"), 119 * S), Optional.empty());
            assertFalse(alarms.set(kind, Optional.empty(), 119 * S).orElseThrow().raised());
            assertEquals(alarms.set(kind, Optional.empty(), 120 * S), Optional.empty());
        }
        assertEquals(alarms.standing(), List.of());
    }
}
