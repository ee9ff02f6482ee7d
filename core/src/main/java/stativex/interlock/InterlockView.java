package stativex.interlock;

import java.util.List;
import java.util.Optional;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.Session;

/**
 * One interlock as it stands, for the person.
 *
 * @param refusals what an entry would meet now, of each side that is refused; none when it is clear
 * @param every whether every side is refused
 */
public record InterlockView(InterlockKind kind, List<Refusal> refusals, boolean every, Fact fact) {
    public InterlockView {
        refusals = List.copyOf(refusals);
    }

    /** How it is drawn. */
    public enum State {
        /** Lets entries pass. */
        CLEAR,
        /** Holds entries back because the person has switched it so. */
        SWITCHED_OFF,
        /** Holds entries back because the strategy's own trade or entry is there: nothing is amiss. */
        OCCUPIED,
        /** Holds entries back. */
        HELD,
        /** Holds entries back until the next trading day, or for good. */
        TRIPPED
    }

    public State state() {
        if (!every) {
            return State.CLEAR;
        }
        return switch (refusals.getFirst().reason()) {
            case OFF, SIDE_OFF -> State.SWITCHED_OFF;
            case LOCKED, BROKEN -> State.TRIPPED;
            case OPPOSITE_POSITION, LEAVING, ADDS_NOT_ALLOWED, POSITION_LIMIT -> State.OCCUPIED;
            case NOT_CONNECTED, SESSION_INCOMPLETE, SESSION_CLOSED, OUTSIDE_WINDOW, FLAT_BY, LAST_TRADING_DAY,
                    QUIET_TIME,
                    COOLING_DOWN, SPREAD, TRADES_A_DAY,
                    SIGNALS_PER_PERIOD, MOST_CONTRACTS, WARMING_UP, RISK_CAP, LINE_CHECK ->
                State.HELD;
        };
    }

    /** What is seen of it while it is clear. */
    public sealed interface Fact {}

    /** There is nothing to be seen. */
    public record Nothing() implements Fact {}

    /** @param session that is open */
    public record InSession(Optional<Session> session) implements Fact {}

    /** @param stretch that is open; empty: every hour */
    public record InWindow(Optional<WindowSchedule.Stretch> stretch) implements Fact {}

    /** @param rule everything is flat by then */
    public record By(Rulebook.FlatBy rule) implements Fact {}

    /** @param next quiet time that begins; empty: the calendar of releases lies behind */
    public record NextQuiet(Optional<QuietTimes.Quiet> next) implements Fact {}

    /** So many of so many. */
    public record Count(int now, int most) implements Fact {}
}
