package stativex.files;

import stativex.account.LineKind;
import stativex.account.LockReason;
import stativex.engine.Decision;
import stativex.exit.StopOrigin;
import stativex.interlock.Reason;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.RejectReason;

/** The words of result files, which the screen uses, too. SEMANTICS, "Results". */
public final class ResultWords {
    private ResultWords() {}

    /** Why a fill was made, and whether only its order's status tells of it. */
    public static String of(Fill fill) {
        return of(fill.reason()) + (fill.execution().fromStatus() ? ", from status" : "");
    }

    public static String of(FillReason reason) {
        return switch (reason) {
            case FillReason.Entry ignored -> "entry";
            case FillReason.AtStop stop -> of(stop.by());
            case FillReason.Target target -> "target " + target.leg();
            case FillReason.Left left -> of(left.why());
        };
    }

    public static String of(StopOrigin origin) {
        return switch (origin) {
            case STOP -> "stop";
            case BREAKEVEN -> "breakeven";
            case TRAIL -> "trail";
            case FOLLOW -> "follow";
            case DISASTER -> "disaster stop";
        };
    }

    public static String of(LeaveReason reason) {
        return switch (reason) {
            case STOP_AT_MARKET -> "stop at market";
            case LOCAL_STOP -> "local stop";
            case AFTER_BARS -> "after bars";
            case FIRST_CLOSE_IN_PROFIT -> "first close in profit";
            case RULE -> "rule";
            case OPPOSITE_SIGNAL -> "opposite signal";
            case CLOCK_TIME -> "clock time";
            case WINDOW_END -> "window end";
            case FLAT_BY -> "flat by";
            case QUIET_TIME -> "quiet time";
            case ROLL -> "roll";
            case DAY_LOSS -> "day loss";
            case DAY_PROFIT -> "day profit";
            case CONTRACT_DAY_LOSS -> "contract day loss";
            case CONTRACT_DAY_PROFIT -> "contract day profit";
            case STRATEGY_DAY_LOSS -> "strategy day loss";
            case STRATEGY_DAY_PROFIT -> "strategy day profit";
            case WINDOW_DAY_LOSS -> "window day loss";
            case WINDOW_DAY_PROFIT -> "window day profit";
            case GIVE_BACK -> "give-back";
            case DRAWDOWN_FLOOR -> "drawdown floor";
            case BY_HAND -> "by hand";
            case HANDED_OVER -> "handed over";
            case ASSUMED_AT_SESSION_END -> "assumed at session end";
            case RANGE_END -> "range end";
            case BROKERS_CORRECTION -> "broker's correction";
            case STOP_MISSING -> "stop missing";
            case OPEN_AT_END -> "open at end";
        };
    }

    public static String of(LockReason reason) {
        return of(reason.leave());
    }

    public static String of(Reason reason) {
        return switch (reason) {
            case OFF -> "off";
            case SIDE_OFF -> "side off";
            case NOT_CONNECTED -> "not connected";
            case SESSION_INCOMPLETE -> "session incomplete";
            case SESSION_CLOSED -> "session closed";
            case LOCKED -> "locked";
            case BROKEN -> "broken";
            case OUTSIDE_WINDOW -> "outside window";
            case FLAT_BY -> "flat by";
            case QUIET_TIME -> "quiet time";
            case LAST_TRADING_DAY -> "last trading day";
            case COOLING_DOWN -> "cooling down";
            case SPREAD -> "spread";
            case TRADES_A_DAY -> "trades a day";
            case SIGNALS_PER_PERIOD -> "signals per period";
            case OPPOSITE_POSITION -> "opposite position";
            case LEAVING -> "leaving";
            case ADDS_NOT_ALLOWED -> "adds not allowed";
            case POSITION_LIMIT -> "position limit";
            case MOST_CONTRACTS -> "most contracts";
            case WARMING_UP -> "warming up";
            case RISK_CAP -> "risk cap";
            case LINE_CHECK -> "line check";
        };
    }

    public static String of(RejectReason reason) {
        return switch (reason) {
            case AFTER_THE_DAYS_CLOSE -> "accepted after the day's close";
            case LIMIT_TIGHTER_THAN_ITS_STOP -> "limit tighter than its stop";
            case BY_THE_BROKER -> "by the broker";
        };
    }

    public static String of(Decision.Kind kind) {
        return switch (kind) {
            case TAKEN -> "taken";
            case DECLINED -> "declined";
            case WOULD_BE -> "would-be";
            case BY_HAND -> "by hand";
            case REJECTED -> "rejected";
            case LOCKED -> "locked";
            case CANCELLED -> "cancelled";
        };
    }

    /** The reason in the row of a decision; empty when all that was asked was taken. */
    public static String reason(Decision decision) {
        return switch (decision.outcome()) {
            case Decision.Taken taken -> taken.quantity() == taken.asked()
                    ? ""
                    : "asked " + taken.asked() + ", granted " + taken.quantity();
            case Decision.Declined declined -> of(declined.refusal().reason());
            case Decision.WouldBe ignored -> "";
            case Decision.Rejected rejected -> of(rejected.why());
            case Decision.ReverseDropped ignored -> "reverse dropped";
            case Decision.ByHand act -> of(act.act());
            case Decision.Passed passed -> "went past " + of(passed.refusal().reason());
            case Decision.Locked locked -> of(locked.why());
        };
    }

    /** What the person did. */
    public static String of(Decision.Act act) {
        return switch (act) {
            case BREAKEVEN -> "stop to breakeven";
            case PART_OFF -> "part off";
            case FLATTENED -> "flatten";
            case STOP_MOVED -> "stop moved";
            case STOP_LOOSENED -> "stop loosened";
            case TARGET_MOVED -> "target moved";
            case ENTRY_MOVED -> "entry moved";
            case CANCELLED -> "order cancelled";
            case PLAN_ATTACHED -> "plan attached";
            case ADOPTED -> "taken from the broker";
            case PLAN_CHANGED -> "plan changed";
            case HANDED_OVER -> "handed over";
        };
    }

    public static String of(Order.Type type) {
        return type.word();
    }

    public static String of(Order.State state) {
        return switch (state) {
            case PENDING -> "pending";
            case WORKING -> "working";
            case PARTLY_FILLED -> "partly filled";
            case FILLED -> "filled";
            case CANCELLED -> "cancelled";
            case REJECTED -> "rejected";
        };
    }

    /** The same where there is little room. */
    public static String brief(LineKind line) {
        return switch (line) {
            case DRAWDOWN_FLOOR -> "Floor";
            case CONTRACT_DAY_LOSS -> "Contract";
            case CONTRACT_DAY_PROFIT -> "Contract lock";
            case STRATEGY_DAY_LOSS -> "Strategy";
            case STRATEGY_DAY_PROFIT -> "Strategy lock";
            case WINDOW_DAY_LOSS -> "Window";
            case WINDOW_DAY_PROFIT -> "Window lock";
            case DAY_LOSS, GIVE_BACK, BOOK_DAY_LOSS, DAY_PROFIT -> of(line);
        };
    }

    /** A line as the screen names it. */
    public static String of(LineKind line) {
        return switch (line) {
            case DAY_LOSS -> "Own day loss";
            case GIVE_BACK -> "Give-back";
            case BOOK_DAY_LOSS -> "Book's day loss";
            case DRAWDOWN_FLOOR -> "Drawdown floor";
            case DAY_PROFIT -> "Profit lock";
            case CONTRACT_DAY_LOSS -> "Contract's day loss";
            case CONTRACT_DAY_PROFIT -> "Contract's profit lock";
            case STRATEGY_DAY_LOSS -> "Strategy's day loss";
            case STRATEGY_DAY_PROFIT -> "Strategy's profit lock";
            case WINDOW_DAY_LOSS -> "Window's loss";
            case WINDOW_DAY_PROFIT -> "Window's profit lock";
        };
    }
}
