package stativex.interlock;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.account.Line;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;

/**
 * The one list of interlocks, in the one order in which they are asked: by the gate, by the list on the screen and by the sentence
 * that says why nothing is traded. Source: SEMANTICS, "Interlocks".
 */
public final class Interlocks {
    private static final List<Interlock> ALL = List.of(new StrategySwitch(), new Feed(), new WholeSession(),
            new DayLock(), new AccountWhole(), new Window(), new LastTradingDay(), new Cooling(), new Spread(),
            new TradesLeft(), new SignalsLeft(),
            new PositionLimits(), new WarmUp(), new LineChecked());

    private Interlocks() {}

    /** The first refusal of an entry; empty when every interlock is clear. */
    public static Optional<Refusal> refusal(Situation s, Proposal p) {
        return refusal(ALL, s, p);
    }

    static Optional<Refusal> refusal(List<Interlock> all, Situation s, Proposal p) {
        for (int i = 0; i < all.size(); i++) {
            Optional<Refusal> refusal = all.get(i).refusal(s, p);
            if (refusal.isPresent()) {
                return refusal;
            }
        }
        return Optional.empty();
    }

    /**
     * Every interlock as an entry would meet it now.
     *
     * @param proposals one for each side that the strategy has
     */
    public static List<InterlockView> views(Situation s, List<Proposal> proposals) {
        return views(ALL, s, proposals);
    }

    /** The list, for tests that add to it. */
    static List<Interlock> all() {
        return ALL;
    }

    static List<InterlockView> views(List<Interlock> all, Situation s, List<Proposal> proposals) {
        List<InterlockView> views = new ArrayList<>(all.size());
        for (Interlock interlock : all) {
            if (interlock.applies(s)) {
                List<Refusal> refusals = proposals.stream().flatMap(p -> interlock.refusal(s, p).stream()).toList();
                views.add(new InterlockView(interlock.kind(), refusals, refusals.size() == proposals.size(),
                        interlock.fact(s)));
            }
        }
        return views;
    }

    /** The strategy is engaged or watching, and the side switched on. */
    private record StrategySwitch() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.STRATEGY;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            if (s.off()) {
                return Optional.of(new Refusal.Off());
            }
            return s.on(p.side()) ? Optional.empty() : Optional.of(new Refusal.SideOff(p.side()));
        }
    }

    /** Feed and broker are in step. A tape and the simulated exchange always are; a live feed will have something to say here. */
    private record Feed() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.FEED;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return Optional.empty();
        }
    }

    /** The session is open, and complete where bars need every print of it. */
    private record WholeSession() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.SESSION;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            Optional<Lacking> lacking = s.lacking();
            if (lacking.isPresent()) {
                return Optional.of(new Refusal.SessionIncomplete(lacking.get()));
            }
            return p.withClose() || !s.inSession()
                    ? Optional.of(new Refusal.SessionClosed(p.withClose(), s.session()))
                    : Optional.empty();
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.InSession(s.session());
        }
    }

    private record DayLock() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.DAY_LOCK;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.account().lock().map(Refusal.Locked::new);
        }
    }

    private record AccountWhole() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.ACCOUNT;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.account().broken() ? Optional.of(new Refusal.Broken()) : Optional.empty();
        }
    }

    private record Window() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.WINDOW;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            boolean allowed = s.windows().always() || s.stretch().isPresent() && s.stretch().get().allows(s.now());
            return allowed ? Optional.empty() : Optional.of(new Refusal.OutsideWindow(s.stretch()));
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.InWindow(s.stretch());
        }
    }

    private record LastTradingDay() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.LAST_TRADING_DAY;
        }

        @Override
        public boolean applies(Situation s) {
            return s.lastTradingDay().isPresent();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            Optional<Session> session = s.session();
            return s.lastTradingDay().filter(last -> session.isPresent() && !session.get().tradingDate().isBefore(last))
                    .map(Refusal.LastTradingDay::new);
        }
    }

    /** Some bars or minutes have to pass after a trade. */
    private record Cooling() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.COOL_DOWN;
        }

        @Override
        public boolean applies(Situation s) {
            return s.coolDown().isPresent();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.coolingDown(p) ? s.coolDown().map(Refusal.CoolingDown::new) : Optional.empty();
        }
    }

    /** Bid and ask stand close enough; without a quote nothing is held back. */
    private record Spread() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.SPREAD;
        }

        @Override
        public boolean applies(Situation s) {
            return s.largestSpread().isPresent();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            OptionalLong spread = s.spread();
            return s.largestSpread().filter(most -> spread.isPresent() && spread.getAsLong() > most)
                    .map(most -> new Refusal.Spread(spread.getAsLong(), most));
        }
    }

    /** Trades opened today, and resting entries that would open one. */
    private record TradesLeft() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.TRADES;
        }

        @Override
        public boolean applies(Situation s) {
            return s.tradesADay().isPresent();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            if (s.tradesADay().isEmpty() || s.inTrade() && !p.turns()) {
                return Optional.empty();
            }
            boolean resting = s.bracket().entering() > 0 && !p.turns();
            return s.tradesToday() + (resting ? 1 : 0) >= s.tradesADay().get()
                    ? Optional.of(new Refusal.TradesADay(s.tradesToday(), resting, s.tradesADay().get()))
                    : Optional.empty();
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.Count(s.tradesToday(), s.tradesADay().orElseThrow());
        }
    }

    private record SignalsLeft() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.SIGNALS;
        }

        @Override
        public boolean applies(Situation s) {
            return s.signals(Side.LONG).isPresent() || s.signals(Side.SHORT).isPresent();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.signals(p.side()).filter(count -> count.sent() >= count.most())
                    .map(count -> new Refusal.SignalsPerPeriod(p.side(), count.most(), count.period()));
        }
    }

    /** Opposite position, leaving, adds, maximum position. */
    private record PositionLimits() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.POSITION;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            boolean idle = s.bracket().idle() || p.turns();
            if (!idle && s.bracket().side() != p.side()) {
                return Optional.of(new Refusal.OppositePosition(s.bracket().side()));
            }
            if (!idle && s.bracket().leaving()) {
                return Optional.of(new Refusal.Leaving());
            }
            if (!idle && !s.adds()) {
                return Optional.of(new Refusal.AddsNotAllowed(s.bracket().side()));
            }
            return (p.turns() ? 0 : held(s)) + s.quantity(p.side()) > s.maximumPosition()
                    ? Optional.of(new Refusal.PositionLimit(s.maximumPosition()))
                    : Optional.empty();
        }

        private static int held(Situation s) {
            return s.bracket().open() + s.bracket().entering();
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.Count(held(s), s.maximumPosition());
        }
    }

    private record WarmUp() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.WARM_UP;
        }

        @Override
        public boolean applies(Situation s) {
            return s.warmsUp();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.warmingUp(p)
                    ? Optional.of(new Refusal.WarmingUp())
                    : Optional.empty();
        }
    }

    private record LineChecked() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.LINE_CHECK;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.crossed(p).map(Line::kind).map(Refusal.CrossesLine::new);
        }
    }
}
