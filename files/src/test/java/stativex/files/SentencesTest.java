package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.account.LineKind;
import stativex.account.LockReason;
import stativex.account.Rulebook;
import stativex.account.QuietTimes;
import stativex.account.Losses;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.engine.StrategyState;
import stativex.exit.StopOrigin;
import stativex.interlock.InterlockKind;
import stativex.interlock.InterlockView;
import stativex.interlock.Lacking;
import stativex.interlock.Reason;
import stativex.interlock.Refusal;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.TapeTime;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;

/** What is said in words, and that every reason has its word. */
public class SentencesTest {
    private static final ZoneId ZONE = ZoneId.of("Pacific/Auckland");
    private static final LocalDate DAY = LocalDate.of(2026, 9, 24);

    private static long at(String time) {
        return TapeTime.first(DAY.atTime(LocalTime.parse(time)), ZONE);
    }

    private final Sentences words = new Sentences(ZONE, at("09:33"));
    private final WindowSchedule.Stretch morning = new WindowSchedule(List.of(new SessionWindow("Morning",
            EnumSet.allOf(java.time.DayOfWeek.class), LocalTime.of(9, 45), LocalTime.of(11, 30), ZONE,
            SessionWindow.End.FLATTEN, 30 * TapeTime.SECOND))).at(at("09:33")).orElseThrow();
    private final Session session = new Session(DAY, "Day", at("10:00"), at("17:00"), true, true);

    private String state(Refusal... why) {
        return words.state("Ebb fade", new StrategyState.NotTrading(List.of(why)));
    }

    @DataProvider
    public Object[][] states() {
        return new Object[][]{{new StrategyState.Off(), "Not trading: Ebb fade is off"},
                {new StrategyState.InTrade(Side.LONG, 2, Mode.ENGAGED), "In a trade: long 2"},
                {new StrategyState.InTrade(Side.SHORT, 1, Mode.OFF), "In a trade: short 1, though off"},
                {new StrategyState.Leaving(Side.LONG, 2), "Leaving long 2 at the market"},
                {new StrategyState.FeedingStudies(1),
                        "Not trading: this trading day is history that only feeds the studies (1 day)"},
                {new StrategyState.Watching(), "Watching: signals are logged, nothing is sent"},
                {new StrategyState.Entering(), "Entering: an order is working"},
                {new StrategyState.Waiting(Set.of(Side.LONG, Side.SHORT)), "Trading: waiting for a signal"},
                {new StrategyState.Waiting(Set.of(Side.SHORT)), "Trading: waiting for a short signal"}};
    }

    @Test(dataProvider = "states")
    public void aStateIsOneSentence(StrategyState state, String sentence) {
        assertEquals(words.state("Ebb fade", state), sentence);
    }

    @Test
    public void whyNothingIsTradedIsSaid() {
        assertEquals(state(new Refusal.OutsideWindow(Optional.of(morning))),
                "Not trading: Morning opens at 09:45 (in 12 min)");
        assertEquals(new Sentences(ZONE, at("11:29:50")).refusal(new Refusal.OutsideWindow(Optional.of(morning))),
                "Morning is ending, flat by 11:30");
        assertEquals(state(new Refusal.SessionClosed(false, Optional.of(session))),
                "Not trading: Day session opens at 10:00 (in 27 min)");
        assertEquals(state(new Refusal.Locked(LockReason.DAY_LOSS)),
                "Not trading: locked until the next trading day, day loss");
        assertEquals(state(new Refusal.LastTradingDay(DAY)), "Not trading: last trading day 2026-09-24");
        assertEquals(
                state(new Refusal.SideOff(Side.LONG), new Refusal.SignalsPerPeriod(Side.SHORT, 2, SignalPeriod.DAY)),
                "Not trading: long is switched off; 2 short a trading day were sent");
        assertEquals(state(new Refusal.TradesADay(Refusal.Of.STRATEGY, 5, 1, 6)),
                "Not trading: 5 trades today and an entry that rests, at most 6");
        assertEquals(state(new Refusal.CrossesLine(LineKind.DRAWDOWN_FLOOR)),
                "Not trading: a stop-out would cross Drawdown floor");
        assertEquals(state(new Refusal.SessionIncomplete(Lacking.JOINED_LATE)),
                "Not trading: the tape joined this session late");
    }

    private final QuietTimes.Quiet tideTable = new QuietTimes.Quiet(at("09:55:00"), at("10:05:00"),
            new QuietTimes.Release(at("10:00:00"), "Tide table", "NZ", "high"));

    private String quiet(Optional<QuietTimes.Quiet> next) {
        return words.interlock(new InterlockView(InterlockKind.QUIET_TIME, List.of(), false,
                new InterlockView.NextQuiet(next)), Mode.ENGAGED);
    }

    @Test
    public void whatTheAccountHoldsBackIsSaid() {
        assertEquals(state(new Refusal.QuietTime(tideTable)), "Not trading: quiet until 10:05, Tide table");
        assertEquals(state(new Refusal.FlatBy(new Rulebook.FlatBy(java.time.LocalTime.of(16, 0), ZONE, 0))),
                "Not trading: flat by 16:00 in Pacific/Auckland, until the next trading day");
        assertEquals(state(new Refusal.LosingRun(at("10:15:00"))),
                "Not trading: too many trades lost in a row: no entry until 10:15");
        assertEquals(state(new Refusal.LosingRun(Losses.NEXT_DAY)),
                "Not trading: too many trades lost in a row: no entry until the next trading day");
        assertEquals(state(new Refusal.Broken(LockReason.DAY_LOSS)),
                "Not trading: the account is broken, its day loss was reached");
    }

    @Test
    public void anInterlockSaysHowItStands() {
        InterlockView clear = new InterlockView(InterlockKind.TRADES, List.of(), false, new InterlockView.Count(2, 6));
        assertEquals(words.interlock(clear, Mode.ENGAGED), "2 of 6");
        InterlockView one = new InterlockView(InterlockKind.SIGNALS,
                List.of(new Refusal.SignalsPerPeriod(Side.LONG, 1, SignalPeriod.SESSION)), false,
                new InterlockView.Nothing());
        assertEquals(words.interlock(one, Mode.ENGAGED), "long: 1 of 1");
        assertEquals(one.state(), InterlockView.State.CLEAR, "short may still enter");
        InterlockView feed = new InterlockView(InterlockKind.FEED, List.of(), false, new InterlockView.Nothing());
        assertEquals(Sentences.name(feed.kind()) + " " + words.interlock(feed, Mode.WATCHING), "Feed in step");
        InterlockView open = new InterlockView(InterlockKind.SESSION, List.of(), false,
                new InterlockView.InSession(Optional.of(session)));
        assertEquals(words.interlock(open, Mode.ENGAGED), "Day until 17:00");
        assertEquals(quiet(Optional.of(tideTable)), "next 10:00 (in 27 min)");
        assertEquals(quiet(Optional.empty()), "no release ahead");
    }

    @Test
    public void aDecisionSaysWhatItWas() {
        Decision taken = new Decision(0, 1, 1, Optional.of(new Owner.Strategy(0)), Optional.of(Side.LONG), 5,
                new Decision.Taken(Order.Type.LIMIT, 2, 2, Optional.of("plain")));
        assertEquals(words.decision(taken), "limit 2, grade plain");
        assertEquals(ResultWords.reason(taken), "", "taken has no reason");
        Decision lock = new Decision(0, 1, -1, Optional.empty(), Optional.empty(), 5,
                new Decision.Locked(LockReason.DAY_LOSS, true));
        assertEquals(words.decision(lock), "the guard acted: closing would have crossed the day loss");
        assertEquals(ResultWords.of(lock.kind()) + " " + ResultWords.reason(lock), "locked day loss");
    }

    /** Words of files are those of the meaning, each once. */
    @Test
    public void everyReasonHasAWordOfItsOwn() {
        List<String> declined = Arrays.stream(Reason.values()).map(ResultWords::of).toList();
        assertEquals(declined.stream().distinct().count(), Reason.values().length);
        assertTrue(declined.containsAll(List.of("off", "side off", "session incomplete", "session closed", "locked",
                "broken", "outside window", "trades a day", "signals per period", "opposite position", "leaving",
                "adds not allowed", "position limit", "line check", "warming up", "last trading day")));
        assertEquals(ResultWords.of(new FillReason.Target(2)), "target 2");
        assertEquals(ResultWords.of(new FillReason.AtStop(StopOrigin.BREAKEVEN)), "breakeven");
        List<String> left = Arrays.stream(LeaveReason.values()).map(FillReason.Left::new).map(ResultWords::of).toList();
        assertEquals(left.stream().distinct().count(), LeaveReason.values().length);
        assertTrue(left.containsAll(List.of("stop at market", "window end", "day loss", "day profit", "drawdown floor",
                "by hand", "assumed at session end", "open at end")));
    }
}
