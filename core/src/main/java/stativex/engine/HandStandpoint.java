package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import stativex.account.AccountWatch;
import stativex.account.Line;
import stativex.account.LockReason;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.interlock.CoolDown;
import stativex.interlock.Lacking;
import stativex.interlock.OutOfStep;
import stativex.interlock.Proposal;
import stativex.interlock.Refusal;
import stativex.interlock.Situation;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Order;

/**
 * How the person stands with an order of their own, for the same interlocks that strategies meet. What a strategy sets for itself
 * (windows, cool-down, trades a day, signals) does not hold the person back; session, lock, broken account, last trading day and
 * lines do; what the account sets for the person ({@link stativex.account.ForThePerson}) asks or warns instead.
 */
final class HandStandpoint implements Situation {
    private static final WindowSchedule EVERY_HOUR = new WindowSchedule(List.of());

    private final Engine engine;
    private final HandRun hand;
    private final Command.Enter order;
    private final List<Refusal> passed = new ArrayList<>();

    HandStandpoint(Engine engine, HandRun hand, Command.Enter order) {
        this.engine = engine;
        this.hand = hand;
        this.order = order;
    }

    @Override
    public long now() {
        return hand.market.now;
    }

    @Override
    public boolean off() {
        return false;
    }

    @Override
    public boolean on(Side side) {
        return true;
    }

    @Override
    public Optional<OutOfStep> outOfStep() {
        return engine.outOfStep();
    }

    @Override
    public Optional<Lacking> lacking() {
        return Optional.empty();
    }

    @Override
    public Optional<Session> session() {
        return hand.market.clock.session();
    }

    @Override
    public boolean inSession() {
        return hand.market.clock.inSession();
    }

    @Override
    public AccountWatch account() {
        return engine.watch();
    }

    @Override
    public WindowSchedule windows() {
        return EVERY_HOUR;
    }

    @Override
    public Optional<WindowSchedule.Stretch> stretch() {
        return Optional.empty();
    }

    @Override
    public Optional<Rulebook.FlatBy> flatRule() {
        return hand.market.rules.flatRule();
    }

    @Override
    public Optional<QuietTimes.Quiet> nextQuiet() {
        return hand.market.rules.nextQuiet();
    }

    @Override
    public Optional<Rulebook.FlatBy> flatBy() {
        return hand.market.rules.flatBy();
    }

    @Override
    public boolean hasQuietTimes() {
        return hand.market.rules.hasQuiet();
    }

    @Override
    public Optional<QuietTimes.Quiet> quiet() {
        return hand.market.rules.quietAt(now());
    }

    @Override
    public Optional<LocalDate> lastTradingDay() {
        return hand.market.lastTradingDay();
    }

    @Override
    public Optional<CoolDown> coolDown() {
        return Optional.empty();
    }

    @Override
    public boolean coolingDown(Proposal proposal) {
        return false;
    }

    @Override
    public Optional<Integer> largestSpread() {
        return Optional.empty();
    }

    @Override
    public OptionalLong spread() {
        return OptionalLong.empty();
    }

    @Override
    public Optional<LockReason> partLock() {
        return engine.partLock(hand);
    }

    @Override
    public List<TradeCount> tradeCounts(boolean pairs) {
        return Counts.trades(engine, hand, pairs);
    }

    @Override
    public Optional<Refusal.MostContracts> tooMany(Proposal proposal) {
        Optional<Refusal.MostContracts> first = Counts.tooMany(engine, hand, proposal);
        return first.isEmpty() || !passes(first.get())
                ? first
                : Counts.tooManyForTheBook(engine, hand, proposal);
    }

    @Override
    public boolean sizesContracts() {
        return Counts.sizes(engine, hand.market);
    }

    @Override
    public Optional<SignalCount> signals(Side side) {
        return Optional.empty();
    }

    @Override
    public Bracket bracket() {
        return hand.bracket;
    }

    @Override
    public int held(Side side) {
        return hand.held(side);
    }

    @Override
    public boolean inTrade() {
        return hand.trade.isPresent();
    }

    @Override
    public boolean adds() {
        return true;
    }

    @Override
    public boolean cuts() {
        return false;
    }

    @Override
    public int maximumPosition() {
        return Integer.MAX_VALUE;
    }

    @Override
    public boolean warmsUp() {
        return hand.plan(order.side()).asksForStudies();
    }

    @Override
    public boolean warmingUp(Proposal proposal) {
        return !hand.plan(proposal.side()).complete(proposal.bar());
    }

    @Override
    public boolean weighsRisk() {
        return false;
    }

    @Override
    public Optional<Long> riskCap(Side side) {
        return Optional.empty();
    }

    @Override
    public Optional<Long> stopOut(Proposal proposal) {
        return Optional.empty();
    }

    @Override
    public Optional<Line> crossed(Proposal proposal) {
        Optional<Line> first = crossed(proposal, any -> true);
        return first.isEmpty() || !passes(new Refusal.CrossesLine(first.get().kind()))
                ? first
                : crossed(proposal, line -> line.kind().ofTheBook());
    }

    private Optional<Line> crossed(Proposal proposal, Predicate<Line> counts) {
        long price = order.type() == Order.Type.STOP_LIMIT ? order.limit() : order.price();
        long worst = hand.market.lastPrice == Tape.NONE
                ? 0
                : hand.market.expected(proposal.side(), order.type(), price);
        return Exposure.crossed(engine, hand, Optional.of(new Exposure.Proposed(proposal.side(), worst,
                proposal.quantity(), proposal.bar(), false)), OptionalLong.empty(), counts);
    }

    @Override
    public boolean passes(Refusal refusal) {
        boolean passes = refusal.settable()
                .map(of -> engine.manners().passes(of, order.anyway())).orElse(false);
        if (passes) {
            passed.add(refusal);
        }
        return passes;
    }

    /** What was not clear and has been passed. */
    List<Refusal> passed() {
        return List.copyOf(passed);
    }
}
