package stativex.interlock;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import stativex.account.Line;
import stativex.market.Session;
import stativex.market.Side;

/**
 * The one list of interlocks, in the one order in which they are asked: by the gate, by the list on the screen and by the sentence
 * that says why nothing is traded. Source: SEMANTICS, "Interlocks".
 */
public final class Interlocks {
    private static final List<Interlock> ALL = List.of(new StrategySwitch(), new Feed(), new WholeSession(),
            new DayLock(), new AccountWhole(), new Window(), new FlatBy(), new LastTradingDay(), new Quiet(),
            new Cooling(), new Spread(),
            new TradesLeft(), new SignalsLeft(),
            new PositionLimits(), new Size(), new WarmUp(), new RiskCapped(), new LineChecked());

    private Interlocks() {}

    /**
     * What the gate says.
     *
     * @param refusal the first one; empty when every interlock is clear
     * @param granted contracts: what was asked, or what it was cut to; 0 when refused
     */
    public record Answer(Optional<Refusal> refusal, int granted) {}

    /** The interlocks that one strategy may ever meet, as its entries ask them. */
    public static final class Gate {
        private final Interlock[] asked;

        /** @param s how the strategy stands; what it has set is set for good */
        public Gate(Situation s) {
            this.asked = ALL.stream().filter(interlock -> !interlock.bySetting() || interlock.applies(s))
                    .toArray(Interlock[]::new);
        }

        /** Asks for an entry. */
        public Answer ask(Situation s, Proposal p) {
            return Interlocks.ask(asked, s, p);
        }
    }

    /** Asks the gate for an entry. */
    public static Answer ask(Situation s, Proposal p) {
        return ask(ALL, s, p);
    }

    /** The first refusal of an entry; empty when every interlock is clear. */
    public static Optional<Refusal> refusal(Situation s, Proposal p) {
        return ask(s, p).refusal();
    }

    static Answer ask(List<Interlock> all, Situation s, Proposal asked) {
        return ask(all.toArray(Interlock[]::new), s, asked);
    }

    private static Answer ask(Interlock[] all, Situation s, Proposal asked) {
        Proposal p = asked;
        for (Interlock interlock : all) {
            Optional<Refusal> refusal = interlock.refusal(s, p);
            if (refusal.isPresent() && !s.passes(refusal.get())) {
                int fitting = s.cuts() ? interlock.fitting(s, p) : 0;
                if (fitting == 0) {
                    return new Answer(refusal, 0);
                }
                p = p.of(fitting);
            }
        }
        return new Answer(Optional.empty(), p.quantity());
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
                List<Refusal> refusals = proposals.stream()
                        .flatMap(p -> ask(List.of(interlock), s, p).refusal().stream()).toList();
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

    /** Feed and broker are in step. */
    private record Feed() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.FEED;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            Optional<OutOfStep> why = s.outOfStep();
            return why.isEmpty() ? Optional.empty() : Optional.of(new Refusal.NotConnected(why.get()));
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
            Optional<Refusal> locked = s.account().lock().or(s::partLock).map(Refusal.Locked::new);
            OptionalLong pause = s.account().pausedAt(s.now());
            return locked.isPresent() || pause.isEmpty()
                    ? locked
                    : Optional.of(new Refusal.LosingRun(pause.getAsLong()));
        }
    }

    private record AccountWhole() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.ACCOUNT;
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.account().brokenBy().map(Refusal.Broken::new);
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

    /** The rulebook wants everything flat until the next trading day. */
    private record FlatBy() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.FLAT_BY;
        }

        @Override
        public boolean bySetting() {
            return true;
        }

        @Override
        public boolean applies(Situation s) {
            return s.flatRule().isPresent();
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.By(s.flatRule().orElseThrow());
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.flatBy().map(Refusal.FlatBy::new);
        }
    }

    /** No release is near. */
    private record Quiet() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.QUIET_TIME;
        }

        @Override
        public boolean bySetting() {
            return true;
        }

        @Override
        public boolean applies(Situation s) {
            return s.hasQuietTimes();
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.NextQuiet(s.nextQuiet());
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.quiet().map(Refusal.QuietTime::new);
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
        public boolean bySetting() {
            return true;
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
        public boolean bySetting() {
            return true;
        }

        @Override
        public boolean applies(Situation s) {
            return s.largestSpread().isPresent();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            Optional<Integer> most = s.largestSpread();
            if (most.isEmpty()) {
                return Optional.empty();
            }
            OptionalLong spread = s.spread();
            return spread.isPresent() && spread.getAsLong() > most.get()
                    ? Optional.of(new Refusal.Spread(spread.getAsLong(), most.get()))
                    : Optional.empty();
        }
    }

    /** Trades opened today, and resting entries that would open one. */
    private record TradesLeft() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.TRADES;
        }

        @Override
        public boolean bySetting() {
            return true;
        }

        @Override
        public boolean applies(Situation s) {
            return !s.tradeCounts(false).isEmpty();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            if (s.inTrade() && !p.turns()) {
                return Optional.empty();
            }
            return s.tradeCounts(p.pairs()).stream().filter(count -> count.trades() + count.resting() >= count.most())
                    .findFirst().map(count -> new Refusal.TradesADay(count.of(), count.trades(), count.resting(),
                            count.most()));
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            Situation.TradeCount tightest = s.tradeCounts(false).stream()
                    .min(Comparator.comparingInt(count -> count.most() - count.trades())).orElseThrow();
            return new InterlockView.Count(tightest.trades(), tightest.most());
        }
    }

    private record SignalsLeft() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.SIGNALS;
        }

        @Override
        public boolean bySetting() {
            return true;
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
            Side other = p.side().opposite();
            if (p.joins() == Proposal.Joins.BESIDE) {
                if (s.held(other) > 0) {
                    return Optional.of(new Refusal.OppositePosition(other));
                }
                if (s.held(p.side()) > 0 && s.bracket().leaving()) {
                    return Optional.of(new Refusal.Leaving());
                }
                if (s.held(p.side()) > 0 && !s.adds()) {
                    return Optional.of(new Refusal.AddsNotAllowed(p.side()));
                }
            }
            return p.quantity() > room(s, p)
                    ? Optional.of(new Refusal.PositionLimit(s.maximumPosition()))
                    : Optional.empty();
        }

        @Override
        public int fitting(Situation s, Proposal p) {
            boolean beside = p.joins() == Proposal.Joins.BESIDE;
            boolean taken = beside && (s.held(p.side().opposite()) > 0
                    || s.held(p.side()) > 0 && (s.bracket().leaving() || !s.adds()));
            return taken ? 0 : Math.max(0, room(s, p));
        }

        private static int room(Situation s, Proposal p) {
            return s.maximumPosition() - (p.joins() == Proposal.Joins.BESIDE ? s.held(p.side()) : 0);
        }

        @Override
        public InterlockView.Fact fact(Situation s) {
            return new InterlockView.Count(Math.max(s.held(Side.LONG), s.held(Side.SHORT)), s.maximumPosition());
        }
    }

    /** Most contracts of a side, over a contract and over the account. */
    private record Size() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.SIZE;
        }

        @Override
        public boolean bySetting() {
            return true;
        }

        @Override
        public boolean applies(Situation s) {
            return s.sizesContracts();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            return s.tooMany(p).map(refusal -> refusal);
        }

        @Override
        public int fitting(Situation s, Proposal p) {
            return largest(p, q -> s.tooMany(q).isEmpty());
        }
    }

    private record WarmUp() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.WARM_UP;
        }

        @Override
        public boolean bySetting() {
            return true;
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

    /** What a stop-out costs is within the entry's cap, and the quantity by risk is not none. */
    private record RiskCapped() implements Interlock {
        @Override
        public InterlockKind kind() {
            return InterlockKind.RISK_CAP;
        }

        @Override
        public boolean bySetting() {
            return true;
        }

        @Override
        public boolean applies(Situation s) {
            return s.weighsRisk();
        }

        @Override
        public Optional<Refusal> refusal(Situation s, Proposal p) {
            if (s.warmingUp(p) || s.priceless()) {
                return Optional.empty();
            }
            Optional<Long> cap = s.riskCap(p.side());
            boolean within = p.quantity() > 0
                    && (cap.isEmpty() || s.stopOut(p).filter(cost -> cost <= cap.get()).isPresent());
            return within
                    ? Optional.empty()
                    : Optional.of(new Refusal.RiskCap(p.quantity() > 0 ? cap : Optional.empty()));
        }

        @Override
        public int fitting(Situation s, Proposal p) {
            return largest(p, q -> refusal(s, q).isEmpty());
        }
    }

    /** The largest quantity below a proposal's that passes; 0 when none does. */
    private static int largest(Proposal p, Predicate<Proposal> passes) {
        for (int contracts = p.quantity() - 1; contracts > 0; contracts--) {
            if (passes.test(p.of(contracts))) {
                return contracts;
            }
        }
        return 0;
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

        @Override
        public int fitting(Situation s, Proposal p) {
            return largest(p, q -> s.crossed(q).isEmpty());
        }
    }
}
