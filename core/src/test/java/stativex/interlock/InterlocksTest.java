package stativex.interlock;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.AccountState;
import stativex.account.AccountWatch;
import stativex.account.Line;
import stativex.account.LineKind;
import stativex.account.LockReason;
import stativex.account.OwnLimits;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.Money;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Owner;

/** Each interlock by itself, their order, and that a further one is one class and one line. */
public class InterlocksTest {
    /** A strategy that everything lets through, to be changed step by step. */
    private static final class Stand implements Situation {
        boolean off;
        boolean longOn = true;
        Optional<Lacking> lacking = Optional.empty();
        boolean inSession = true;
        AccountWatch account = watch();
        WindowSchedule windows = new WindowSchedule(List.of());
        Optional<LocalDate> last = Optional.empty();
        Optional<Rulebook.FlatBy> flatBy = Optional.empty();
        Optional<QuietTimes.Quiet> quiet = Optional.empty();
        Optional<Integer> tradesADay = Optional.empty();
        int trades;
        int mostContracts = Integer.MAX_VALUE;
        Optional<LockReason> part = Optional.empty();
        Optional<SignalCount> signals = Optional.empty();
        Bracket bracket = new Bracket(new Owner.Strategy(0), Side.LONG);
        boolean inTrade;
        boolean cuts;
        int maximum = 1;
        Optional<Long> cap = Optional.empty();
        int crossesAbove;
        boolean priced;
        boolean cooling;
        OptionalLong spread = OptionalLong.empty();
        Optional<Line> crossed = Optional.empty();

        private static AccountWatch watch() {
            Account account = new Account("Gannet Row 40K", "NZD", 40_000 * Money.UNIT, Map.of(), OwnLimits.NONE,
                    new Rulebook("rules", List.of(new Rulebook.DrawdownFloor(1_700 * Money.UNIT, Optional.empty()))));
            return new AccountWatch(account, AccountState.fresh(account));
        }

        @Override
        public long now() {
            return 0;
        }

        @Override
        public boolean off() {
            return off;
        }

        @Override
        public boolean on(Side side) {
            return side == Side.SHORT || longOn;
        }

        @Override
        public Optional<OutOfStep> outOfStep() {
            return Optional.empty();
        }

        @Override
        public Optional<Lacking> lacking() {
            return lacking;
        }

        @Override
        public Optional<Session> session() {
            return Optional.of(new Session(LocalDate.of(2026, 9, 24), "Day", -10, 10, true, true));
        }

        @Override
        public boolean inSession() {
            return inSession;
        }

        @Override
        public AccountWatch account() {
            return account;
        }

        @Override
        public WindowSchedule windows() {
            return windows;
        }

        @Override
        public Optional<WindowSchedule.Stretch> stretch() {
            return windows.at(0);
        }

        @Override
        public Optional<Rulebook.FlatBy> flatRule() {
            return Optional.of(new Rulebook.FlatBy(java.time.LocalTime.of(16, 0), java.time.ZoneOffset.UTC, 0));
        }

        @Override
        public Optional<QuietTimes.Quiet> nextQuiet() {
            return Optional.empty();
        }

        @Override
        public Optional<Rulebook.FlatBy> flatBy() {
            return flatBy;
        }

        @Override
        public boolean hasQuietTimes() {
            return true;
        }

        @Override
        public Optional<QuietTimes.Quiet> quiet() {
            return quiet;
        }

        @Override
        public Optional<LocalDate> lastTradingDay() {
            return last;
        }

        @Override
        public Optional<CoolDown> coolDown() {
            return cooling
                    ? Optional.of(new CoolDown(OptionalInt.of(3), OptionalInt.empty(), false))
                    : Optional.empty();
        }

        @Override
        public boolean coolingDown(Proposal proposal) {
            return cooling;
        }

        @Override
        public Optional<Integer> largestSpread() {
            return spread.isPresent() ? Optional.of(2) : Optional.empty();
        }

        @Override
        public OptionalLong spread() {
            return spread;
        }

        @Override
        public Optional<LockReason> partLock() {
            return part;
        }

        @Override
        public java.util.List<TradeCount> tradeCounts(boolean pairs) {
            int resting = bracket.entering() > 0 && !pairs ? 1 : 0;
            return tradesADay.stream().map(most -> new TradeCount(Refusal.Of.STRATEGY, trades, resting, most))
                    .toList();
        }

        @Override
        public Optional<Refusal.MostContracts> tooMany(Proposal proposal) {
            return proposal.quantity() > mostContracts
                    ? Optional.of(new Refusal.MostContracts(Refusal.Of.ACCOUNT, mostContracts))
                    : Optional.empty();
        }

        @Override
        public boolean sizesContracts() {
            return mostContracts < Integer.MAX_VALUE;
        }

        @Override
        public Optional<SignalCount> signals(Side side) {
            return side == Side.LONG ? signals : Optional.empty();
        }

        @Override
        public Bracket bracket() {
            return bracket;
        }

        @Override
        public boolean inTrade() {
            return inTrade;
        }

        @Override
        public boolean adds() {
            return false;
        }

        @Override
        public int held(Side side) {
            return bracket.side() == side ? bracket.open() + bracket.entering() : 0;
        }

        @Override
        public boolean cuts() {
            return cuts;
        }

        @Override
        public boolean weighsRisk() {
            return cap.isPresent();
        }

        @Override
        public Optional<Long> riskCap(Side side) {
            return cap;
        }

        @Override
        public Optional<Long> stopOut(Proposal proposal) {
            return Optional.of(proposal.quantity() * 100L);
        }

        @Override
        public int maximumPosition() {
            return maximum;
        }

        @Override
        public boolean warmsUp() {
            return priced;
        }

        @Override
        public boolean warmingUp(Proposal proposal) {
            return priced && proposal.price() == Tape.NONE;
        }

        @Override
        public Optional<Line> crossed(Proposal proposal) {
            return proposal.quantity() > crossesAbove ? crossed : Optional.empty();
        }
    }

    private static final Proposal BUY = new Proposal(Side.LONG, Tape.NONE, 0, false, Proposal.Joins.BESIDE, 1);
    private static final Proposal SELL = new Proposal(Side.SHORT, Tape.NONE, 0, false, Proposal.Joins.BESIDE, 1);
    private Stand stand;

    @BeforeMethod
    public void fresh() {
        stand = new Stand();
    }

    private Optional<Reason> reason() {
        return Interlocks.refusal(stand, BUY).map(Refusal::reason);
    }

    /** Everything is wrong at once; mended one after the other, each shows the next in the order of the meaning. */
    @Test
    public void theFirstThatIsNotClearIsTheReason() {
        stand.crossed = Optional.of(new Line(LineKind.DAY_LOSS, 0, 1));
        stand.priced = true;
        stand.maximum = 0;
        stand.cap = Optional.of(99L);
        stand.signals = Optional.of(new Situation.SignalCount(2, 2, SignalPeriod.DAY));
        stand.tradesADay = Optional.of(1);
        stand.trades = 1;
        stand.spread = OptionalLong.of(3);
        stand.cooling = true;
        stand.last = Optional.of(LocalDate.of(2026, 9, 24));
        stand.flatBy = Optional.of(new Rulebook.FlatBy(java.time.LocalTime.of(16, 0), java.time.ZoneOffset.UTC, 0));
        stand.quiet = Optional
                .of(new QuietTimes.Quiet(0, 1, new QuietTimes.Release(0, "Tide table", "NZ", "high")));
        stand.windows = new WindowSchedule(List.of(new SessionWindow("Morning", java.util.EnumSet.allOf(
                java.time.DayOfWeek.class), java.time.LocalTime.of(9, 0), java.time.LocalTime.of(10, 0),
                java.time.ZoneOffset.UTC, SessionWindow.End.CANCEL, 0)));
        stand.account.judge(0, stativex.account.Closing.NOTHING);
        stand.account.lockByHand();
        stand.inSession = false;
        stand.lacking = Optional.of(Lacking.PRINTS);
        stand.longOn = false;
        stand.off = true;
        List<Runnable> mending = List.of(() -> stand.off = false, () -> stand.longOn = true,
                () -> stand.lacking = Optional.empty(), () -> stand.inSession = true,
                () -> stand.account.beginDay(0, 0), () -> stand.account = Stand.watch(),
                () -> stand.windows = new WindowSchedule(List.of()), () -> stand.flatBy = Optional.empty(),
                () -> stand.last = Optional.empty(), () -> stand.quiet = Optional.empty(),
                () -> stand.cooling = false, () -> stand.spread = OptionalLong.of(2),
                () -> stand.trades = 0, () -> stand.signals = Optional.empty(), () -> stand.maximum = 1,
                () -> stand.priced = false, () -> stand.cap = Optional.of(100L),
                () -> stand.crossed = Optional.empty());
        List<Reason> seen = new ArrayList<>();
        for (Runnable mend : mending) {
            seen.add(reason().orElseThrow());
            mend.run();
            if (seen.getLast() == Reason.LOCKED) {
                // the lock of a first day holds for that day; the second one is free of it
                stand.account.beginDay(0, 0);
            }
        }
        assertEquals(seen, List.of(Reason.OFF, Reason.SIDE_OFF, Reason.SESSION_INCOMPLETE, Reason.SESSION_CLOSED,
                Reason.LOCKED, Reason.BROKEN, Reason.OUTSIDE_WINDOW, Reason.FLAT_BY, Reason.LAST_TRADING_DAY,
                Reason.QUIET_TIME, Reason.COOLING_DOWN,
                Reason.SPREAD, Reason.TRADES_A_DAY,
                Reason.SIGNALS_PER_PERIOD, Reason.POSITION_LIMIT, Reason.WARMING_UP, Reason.RISK_CAP,
                Reason.LINE_CHECK));
        assertEquals(reason(), Optional.empty());
    }

    @Test
    public void whatIsShownIsWhatIsAsked() {
        stand.signals = Optional.of(new Situation.SignalCount(2, 2, SignalPeriod.DAY));
        List<InterlockView> views = Interlocks.views(stand,
                List.of(BUY, SELL));
        InterlockView signals = views.stream().filter(v -> v.kind() == InterlockKind.SIGNALS).findFirst().orElseThrow();
        assertEquals(signals.refusals().size(), 1, "short has some left");
        assertEquals(signals.state(), InterlockView.State.CLEAR);
        assertTrue(views.stream().anyMatch(v -> v.fact().equals(new InterlockView.NextQuiet(Optional.empty()))),
                "that no release lies ahead is seen");
        stand.account.lockByHand();
        assertTrue(Interlocks.views(stand, List.of(BUY)).stream()
                .anyMatch(v -> v.state() == InterlockView.State.TRIPPED));
    }

    /** As CONTRIBUTING says. */
    @Test
    public void aFurtherInterlockIsOneClassAndOneLine() {
        record NoLongs() implements Interlock {
            @Override
            public InterlockKind kind() {
                return InterlockKind.POSITION;
            }

            @Override
            public Optional<Refusal> refusal(Situation s, Proposal p) {
                return p.side() == Side.LONG ? Optional.of(new Refusal.PositionLimit(0)) : Optional.empty();
            }
        }
        List<Interlock> all = new ArrayList<>(Interlocks.all());
        all.add(new NoLongs());
        assertEquals(Interlocks.ask(all, stand, BUY).refusal(), Optional.of(new Refusal.PositionLimit(0)));
        assertEquals(Interlocks.ask(all, stand, SELL).refusal(), Optional.empty());
        assertEquals(Interlocks.views(all, stand, List.of(BUY, SELL)).getLast().refusals(),
                List.of(new Refusal.PositionLimit(0)), "and it is on the screen");
    }

    /** Position limit, risk cap and line check cut one after the other; what fits none of them is refused by the one that it fails. */
    @Test
    public void whatIsTooLargeIsCutWhereThatIsAllowed() {
        Proposal eight = BUY.of(8);
        stand.maximum = 6;
        stand.cap = Optional.of(500L);
        stand.crossed = Optional.of(new Line(LineKind.DAY_LOSS, 0, 1));
        stand.crossesAbove = 4;
        assertEquals(Interlocks.ask(stand, eight),
                new Interlocks.Answer(Optional.of(new Refusal.PositionLimit(6)), 0));
        stand.cuts = true;
        assertEquals(Interlocks.ask(stand, eight), new Interlocks.Answer(Optional.empty(), 4));
        stand.crossesAbove = 0;
        assertEquals(Interlocks.ask(stand, eight).refusal().map(Refusal::reason), Optional.of(Reason.LINE_CHECK));
        stand.cap = Optional.of(99L);
        assertEquals(Interlocks.ask(stand, eight).refusal(), Optional.of(new Refusal.RiskCap(Optional.of(99L))));
        // a quantity by risk of none is no quantity
        stand.cap = Optional.empty();
        assertEquals(Interlocks.ask(stand, BUY.of(0)).refusal(), Optional.of(new Refusal.RiskCap(Optional.empty())));
        // what is held back altogether is not cut
        stand.bracket = new Bracket(new Owner.Strategy(0), Side.LONG);
        stand.longOn = false;
        assertEquals(Interlocks.ask(stand, eight).refusal().map(Refusal::reason), Optional.of(Reason.SIDE_OFF));
    }
}
