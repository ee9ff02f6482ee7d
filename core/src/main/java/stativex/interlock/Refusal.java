package stativex.interlock;

import java.time.LocalDate;
import java.util.Optional;
import stativex.account.ForThePerson;
import stativex.account.LineKind;
import stativex.account.LockReason;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.Session;
import stativex.market.Side;

/** Why an interlock does not let an entry pass, with its numbers. Words for it are found where it is shown. */
public sealed interface Refusal {
    Reason reason();

    /** Under what an account may set that the person is asked or warned in place of being stopped; empty: it always stops. */
    default Optional<ForThePerson.Of> settable() {
        return switch (this) {
            case LastTradingDay ignored -> Optional.of(ForThePerson.Of.LAST_TRADING_DAY);
            case QuietTime ignored -> Optional.of(ForThePerson.Of.QUIET_TIME);
            case TradesADay ignored -> Optional.of(ForThePerson.Of.TRADES_A_DAY);
            case MostContracts most when most.of() == Of.CONTRACT -> Optional.of(ForThePerson.Of.MOST_CONTRACTS);
            case CrossesLine crosses when !crosses.line().ofTheBook() -> Optional.of(ForThePerson.Of.OWN_LINES);
            default -> Optional.empty();
        };
    }

    /** The strategy is off. */
    record Off() implements Refusal {
        @Override
        public Reason reason() {
            return Reason.OFF;
        }
    }

    record SideOff(Side side) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.SIDE_OFF;
        }
    }

    record NotConnected(OutOfStep why) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.NOT_CONNECTED;
        }
    }

    record SessionIncomplete(Lacking what) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.SESSION_INCOMPLETE;
        }
    }

    /**
     * @param withBar the session closed with the bar that was judged
     * @param next the session that is waited for; empty when the calendar has ended
     */
    record SessionClosed(boolean withBar, Optional<Session> next) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.SESSION_CLOSED;
        }
    }

    record Locked(LockReason why) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.LOCKED;
        }
    }

    /** Too many trades of the account lost in a row. @param until nanoseconds; {@link stativex.account.Losses#NEXT_DAY}: not today */
    record LosingRun(long until) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.LOCKED;
        }
    }

    /** The last trade ended not long enough ago. */
    record CoolingDown(CoolDown rule) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.COOLING_DOWN;
        }
    }

    /** @param ticks between bid and ask, {@code most} that are taken */
    record Spread(long ticks, int most) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.SPREAD;
        }
    }

    /** The account was broken. */
    record Broken(LockReason by) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.BROKEN;
        }
    }

    /** @param stretch the windows that are waited for, or that take no more entries; empty when there are none ahead */
    record OutsideWindow(Optional<WindowSchedule.Stretch> stretch) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.OUTSIDE_WINDOW;
        }
    }

    /** Everything is flat until the next trading day. */
    record FlatBy(Rulebook.FlatBy rule) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.FLAT_BY;
        }
    }

    record QuietTime(QuietTimes.Quiet quiet) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.QUIET_TIME;
        }
    }

    record LastTradingDay(LocalDate date) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.LAST_TRADING_DAY;
        }
    }

    /** Whose trades are counted, or whose contracts. */
    enum Of {
        STRATEGY, CONTRACT, ACCOUNT
    }

    /**
     * @param trades opened today
     * @param resting entries that would open one more each
     */
    record TradesADay(Of of, int trades, int resting, int most) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.TRADES_A_DAY;
        }
    }

    record SignalsPerPeriod(Side side, int most, SignalPeriod period) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.SIGNALS_PER_PERIOD;
        }
    }

    /** @param held the side that is open or about to be entered */
    record OppositePosition(Side held) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.OPPOSITE_POSITION;
        }
    }

    /** The position is being left. */
    record Leaving() implements Refusal {
        @Override
        public Reason reason() {
            return Reason.LEAVING;
        }
    }

    record AddsNotAllowed(Side held) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.ADDS_NOT_ALLOWED;
        }
    }

    /** @param most contracts, open and resting entries together */
    record PositionLimit(int most) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.POSITION_LIMIT;
        }
    }

    /** @param most contracts of a side, open, resting and proposed together */
    record MostContracts(Of of, int most) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.MOST_CONTRACTS;
        }
    }

    /** The entry's price is not known yet. */
    record WarmingUp() implements Refusal {
        @Override
        public Reason reason() {
            return Reason.WARMING_UP;
        }
    }

    /**
     * A stop-out would cost more than the entry may, or no contract is within what it may.
     *
     * @param cap money; empty where the quantity by risk is none
     */
    record RiskCap(Optional<Long> cap) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.RISK_CAP;
        }
    }

    /** A stop-out would cross a line. */
    record CrossesLine(LineKind line) implements Refusal {
        @Override
        public Reason reason() {
            return Reason.LINE_CHECK;
        }
    }
}
