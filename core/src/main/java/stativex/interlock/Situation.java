package stativex.interlock;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.account.AccountWatch;
import stativex.account.Line;
import stativex.account.LockReason;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.Session;
import stativex.market.Side;
import stativex.order.Bracket;

/** How a strategy stands at one moment, as interlocks ask for it. */
public interface Situation {
    /** Tape time, nanoseconds. */
    long now();

    boolean off();

    /** Whether a side exists and is switched on. */
    boolean on(Side side);

    /** Why feed and broker are not in step; empty: they are, as a tape and the simulated exchange always are. */
    Optional<OutOfStep> outOfStep();

    /** What its tape lacks of the current session, if its bars need every print of it. */
    Optional<Lacking> lacking();

    /** The current session, or the next one. */
    Optional<Session> session();

    boolean inSession();

    AccountWatch account();

    WindowSchedule windows();

    /** The windows that are open, or the next to open. */
    Optional<WindowSchedule.Stretch> stretch();

    /** The rulebook's time by which everything is flat, if it has one. */
    Optional<Rulebook.FlatBy> flatRule();

    /** That rule, while it keeps everything flat. */
    Optional<Rulebook.FlatBy> flatBy();

    boolean hasQuietTimes();

    /** The quiet time that holds now. */
    Optional<QuietTimes.Quiet> quiet();

    /** The next that begins; empty when the calendar of releases lies behind. */
    Optional<QuietTimes.Quiet> nextQuiet();

    Optional<LocalDate> lastTradingDay();

    Optional<CoolDown> coolDown();

    /** Whether the last trade holds an entry back. */
    boolean coolingDown(Proposal proposal);

    /** Most ticks between bid and ask; empty: any. */
    Optional<Integer> largestSpread();

    /** Ticks between bid and ask at the last print; empty without a quote. */
    OptionalLong spread();

    /** Why only its contract, itself, or itself inside a window is locked, if one is. */
    Optional<LockReason> partLock();

    /**
     * Trades opened today against every limit that is on, its own first.
     *
     * @param pairs whether the entry is the second half of a pair, whose first half does not count
     */
    List<TradeCount> tradeCounts(boolean pairs);

    /** What of contracts held and proposed is too many, over a contract or the account; empty: nothing. */
    Optional<Refusal.MostContracts> tooMany(Proposal proposal);

    /** Whether there is a limit of contracts beside its own. */
    boolean sizesContracts();

    /** Signals of a side that sent an order, with their limit; empty without one. */
    Optional<SignalCount> signals(Side side);

    /** The orders of its trade, or of its entry. */
    Bracket bracket();

    /** Contracts of a side that are open or that resting entries may open. */
    int held(Side side);

    /** Whether a trade is open. */
    boolean inTrade();

    boolean adds();

    /** Whether an entry that is too large is cut to what fits. */
    boolean cuts();

    /** Most contracts, open and resting entries together. */
    int maximumPosition();

    /** Whether its entries have a price of their own, or their plan takes studies, so that either may have to warm up. */
    boolean warmsUp();

    /** Whether an entry's price, or a study that its plan needs, is not there yet. */
    boolean warmingUp(Proposal proposal);

    /** Whether entries are sized by risk, or have a risk cap. */
    boolean weighsRisk();

    /** Most money that a stop-out of an entry may cost; empty: any. */
    Optional<Long> riskCap(Side side);

    /** Whether no print has come: nothing has a price, and nothing can be reckoned with one. */
    default boolean priceless() {
        return false;
    }

    /** Money that a stop-out of an entry costs: to its initial stop, slippage and both fees; empty without a stop. */
    Optional<Long> stopOut(Proposal proposal);

    /** The first line that a stop-out of an entry, with everything else at work, would cross. */
    Optional<Line> crossed(Proposal proposal);

    /** Whether an entry goes past an interlock that is not clear: never automation's. */
    default boolean passes(Refusal refusal) {
        return false;
    }

    /**
     * @param trades opened in the trading day
     * @param resting entries that would open one more each, the strategy's own included
     */
    record TradeCount(Refusal.Of of, int trades, int resting, int most) {}

    /** @param sent so far in the period */
    record SignalCount(int sent, int most, SignalPeriod period) {}
}
