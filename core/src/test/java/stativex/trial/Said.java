package stativex.trial;

import java.util.List;
import java.util.Locale;
import stativex.engine.Decision;
import stativex.order.Fill;
import stativex.order.FillReason;

/** Reasons in words for tests: names of the types in small letters. */
public final class Said {
    private Said() {}

    public static String word(Enum<?> type) {
        return type.name().toLowerCase(Locale.ROOT).replace('_', ' ').replace("give back", "give-back");
    }

    public static String reason(FillReason reason) {
        return switch (reason) {
            case FillReason.Entry ignored -> "entry";
            case FillReason.AtStop stop -> word(stop.by()).replace("disaster", "disaster stop");
            case FillReason.Target target -> "target " + target.leg();
            case FillReason.Left left -> word(left.why());
        };
    }

    /** Kind and reason: {@code declined line check}, {@code taken}. */
    public static String decision(Decision d) {
        return (word(d.kind()).replace("would be", "would-be") + " " + switch (d.outcome()) {
            case Decision.Taken taken -> taken.asked() == taken.quantity()
                    ? ""
                    : "asked " + taken.asked() + ", granted " + taken.quantity();
            case Decision.WouldBe ignored -> "";
            case Decision.Declined declined -> word(declined.refusal().reason());
            case Decision.Rejected rejected -> word(rejected.why());
            case Decision.ReverseDropped ignored -> "reverse dropped";
            case Decision.ByHand act -> word(act.act());
            case Decision.Passed passed -> word(passed.refusal().reason());
            case Decision.Locked locked -> word(locked.why());
        }).strip();
    }

    /** Fills by print: {@code 2 buy 1 at 14 entry}. */
    public static List<String> fills(Run run) {
        return run.engine().log().fills().stream().map(Said::fill).toList();
    }

    static String fill(Fill f) {
        return f.print() + " " + (f.buy() ? "buy " : "sell ") + f.quantity() + " at " + f.price() + " "
                + reason(f.reason());
    }

    /** Decisions by print: {@code 1 declined locked}. */
    public static List<String> decisions(Run run) {
        return run.engine().log().decisions().stream().map(d -> d.print() + " " + decision(d)).toList();
    }
}
