package stativex.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.Rulebook;

/** What odds leave aside, in words. */
public final class OddsWords {
    private OddsWords() {}

    /** Rules of an account that paths of days cannot show: {@code not worked anew: size, flat by}; empty without any. */
    public static Optional<String> notWorked(Account account) {
        List<String> rules = new ArrayList<>();
        account.rulebook().rules().stream().filter(rule -> switch (rule) {
            case Rulebook.Size ignored -> true;
            case Rulebook.FlatBy ignored -> true;
            case Rulebook.NoOvernight ignored -> true;
            case Rulebook.Quiet ignored -> true;
            case Rulebook.HoldingTime ignored -> true;
            case Rulebook.StopToTarget ignored -> true;
            case Rulebook.Payout ignored -> true;
            case Rulebook.DrawdownFloor ignored -> false;
            case Rulebook.DayLoss ignored -> false;
            case Rulebook.ProfitTarget ignored -> false;
            case Rulebook.FewestDays ignored -> false;
            case Rulebook.Consistency ignored -> false;
        }).map(rule -> RuleWords.name(rule).toLowerCase(java.util.Locale.ROOT)).forEach(rules::add);
        if (account.own().losingRun().isPresent()) {
            rules.add("losing run");
        }
        if (account.own().tradesADay().isPresent()) {
            rules.add("trades a day");
        }
        if (!account.own().contracts().isEmpty()) {
            rules.add("limits of contracts");
        }
        if (!account.own().quietTimes().releases().isEmpty() && !rules.contains("quiet times")) {
            rules.add("quiet times");
        }
        rules.add("line check");
        return Optional.of("not worked anew from past days: " + String.join(", ", rules));
    }
}
