package stativex.files;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import stativex.account.Guard;
import stativex.account.Rulebook;
import stativex.evidence.BookReading;
import stativex.market.Money;
import stativex.market.TapeTime;

/** Rules of a rulebook in words, and how they stand. Money is written as it is in files; the screen makes its own gaps. */
public final class RuleWords {
    private RuleWords() {}

    /** The name of a rule in a list. */
    public static String name(Rulebook.Rule rule) {
        return switch (rule) {
            case Rulebook.DrawdownFloor ignored -> "Drawdown floor";
            case Rulebook.DayLoss ignored -> "Day loss";
            case Rulebook.Size ignored -> "Size";
            case Rulebook.ProfitTarget ignored -> "Profit target";
            case Rulebook.FewestDays ignored -> "Trading days";
            case Rulebook.Consistency ignored -> "Consistency";
            case Rulebook.FlatBy ignored -> "Flat by";
            case Rulebook.NoOvernight ignored -> "No overnight";
            case Rulebook.Quiet ignored -> "Quiet times";
            case Rulebook.StopToTarget ignored -> "Stop to target";
            case Rulebook.HoldingTime ignored -> "Holding time";
            case Rulebook.Payout ignored -> "Payout";
        };
    }

    /** What a rule says: {@code 1700.00 below the highest equity, locks at 40000.00}. */
    public static String said(Rulebook.Rule rule) {
        return switch (rule) {
            case Rulebook.DrawdownFloor floor -> Money.text(floor.allowance()) + " below " + switch (floor.trails()) {
                case STATIC -> "the start";
                case END_OF_DAY -> "the best day's end";
                case INTRADAY -> "the highest equity";
            } + floor.lock().map(lock -> ", locks at " + Money.text(lock)).orElse("") + guard(floor.guard());
            case Rulebook.DayLoss loss -> Money.text(loss.amount()) + " below the day's first "
                    + (loss.from() == Rulebook.From.BALANCE ? "balance" : "equity")
                    + (loss.breaks() ? ", breaks the account" : ", locks the day") + guard(loss.guard());
            case Rulebook.Size size -> size(size);
            case Rulebook.ProfitTarget target -> Money.text(target.amount()) + " above the start, while flat";
            case Rulebook.FewestDays fewest -> "at least " + fewest.days() + " with a fill";
            case Rulebook.Consistency best -> "best day at most " + plain(best.percent()) + " % of the net";
            case Rulebook.FlatBy by -> by.time() + " in " + by.zone().getId() + ", leaves "
                    + minutes(by.lead()) + " before";
            case Rulebook.NoOvernight night -> "leaves " + minutes(night.lead()) + " before the day's last close";
            case Rulebook.Quiet quiet -> "no trading from " + minutes(quiet.before()) + " before a release to "
                    + minutes(quiet.after()) + " after it";
            case Rulebook.StopToTarget ratio -> "stop at most " + plain(ratio.ratio()) + " × the mean target";
            case Rulebook.HoldingTime holding -> "at most " + plain(holding.percent()) + " % of the trades under "
                    + holding.least() / TapeTime.SECOND + " s";
            case Rulebook.Payout payout -> "above " + Money.text(payout.buffer()) + ", after " + payout.winningDays()
                    + " days of " + Money.text(payout.winningDay())
                    + payout.cap().map(cap -> ", at most " + Money.text(cap)).orElse("");
        };
    }

    private static String guard(Guard guard) {
        return guard.on()
                ? ", guard" + (guard.money() > 0 ? " " + Money.text(guard.money()) : "")
                        + (guard.ticks() > 0 ? " " + guard.ticks() + " t" : "")
                : "";
    }

    private static String size(Rulebook.Size size) {
        return List.of(
                Optional.of(size.most() + (size.most() == 1 ? " contract" : " contracts")),
                Optional.of(size.tiers().stream().map(tier -> tier.most() + " from " + Money.text(tier.from()))
                        .collect(Collectors.joining(", "))).filter(text -> !text.isEmpty()),
                Optional.of(size.micros().entrySet().stream().sorted(java.util.Map.Entry.comparingByKey())
                        .map(micro -> micro.getKey() + " counts " + micro.getValue().of() + "/"
                                + micro.getValue().parts())
                        .collect(Collectors.joining(", "))).filter(text -> !text.isEmpty()))
                .stream().flatMap(Optional::stream).collect(Collectors.joining(", "));
    }

    private static String minutes(long nanos) {
        long seconds = nanos / TapeTime.SECOND;
        return seconds % 60 == 0 ? seconds / 60 + " min" : seconds + " s";
    }

    private static String plain(BigDecimal number) {
        return number.stripTrailingZeros().toPlainString();
    }

    /** How a rule stands, in few words: {@code 620.00 left}, {@code 31 %}. */
    public static String stands(BookReading.Standing standing) {
        String value = standing.value().map(RuleWords::plain).orElse("–");
        return switch (standing.rule()) {
            case Rulebook.DrawdownFloor ignored -> left(standing);
            case Rulebook.DayLoss ignored -> left(standing) + " on the worst day";
            case Rulebook.ProfitTarget ignored -> standing.state() == BookReading.State.MET
                    ? "met"
                    : money(standing.headroom().orElse(0)) + " to go";
            case Rulebook.FewestDays ignored -> value + (standing.state() == BookReading.State.MET ? ", met" : "");
            case Rulebook.Consistency ignored -> standing.value().isPresent() ? value + " %" : "no net yet";
            case Rulebook.Size ignored -> "most held " + value;
            case Rulebook.HoldingTime ignored -> standing.value().isPresent() ? value + " %" : "no trade yet";
            case Rulebook.Payout ignored -> standing.state() == BookReading.State.MET
                    ? money(standing.headroom().orElse(0)) + " may be paid out"
                    : value + " winning days";
            case Rulebook.StopToTarget ignored -> "not worked over days";
            case Rulebook.FlatBy ignored -> kept(standing);
            case Rulebook.NoOvernight ignored -> kept(standing);
            case Rulebook.Quiet ignored -> kept(standing);
        };
    }

    private static String kept(BookReading.Standing standing) {
        return standing.state() == BookReading.State.BROKEN ? "a trade ran into it" : "kept";
    }

    private static String left(BookReading.Standing standing) {
        return money(standing.headroom().orElse(0)) + " left";
    }

    private static String money(long amount) {
        return Money.text(amount);
    }

    /** A state in a word. */
    public static String of(BookReading.State state) {
        return switch (state) {
            case CLEAR -> "clear";
            case NEAR -> "near";
            case BROKEN -> "broken";
            case MET -> "met";
        };
    }

    /** How a day ended, in a word or two. */
    public static String of(BookReading.Day day) {
        return switch (day.end()) {
            case WHOLE -> "";
            case LOCKED -> "locked";
            case BROKEN -> "broken";
            case NO_ROOM -> "no room";
        };
    }
}
