package stativex.account;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.BinaryOperator;

/**
 * What the person has set for an account beside its rulebook.
 *
 * @param dayLoss at day result ≤ −amount everything is left and the day locked; empty: off
 * @param dayProfit money, above 0, likewise at day result ≥ amount; empty: off
 * @param giveBack of the day's best; empty: off
 * @param losingRun after which entries pause; empty: off
 * @param tradesADay opened in a trading day of the account by anyone; empty: any
 * @param quietTimes around releases
 * @param contracts limits of single contracts, by symbol
 * @param person what they mean for the person's own orders
 */
public record OwnLimits(Optional<Account.DayLoss> dayLoss, Optional<Long> dayProfit, Optional<GiveBack> giveBack,
        Optional<LosingRun> losingRun, Optional<Integer> tradesADay, QuietTimes quietTimes,
        Map<String, ContractLimits> contracts, ForThePerson person) {
    /** None. */
    public static final OwnLimits NONE = day(Optional.empty(), Optional.empty());

    public OwnLimits {
        contracts = Map.copyOf(contracts);
        dayProfit.ifPresent(amount -> {
            if (amount <= 0) {
                throw new IllegalArgumentException("expected a day profit above 0");
            }
        });
        ContractLimits.atLeastOne(tradesADay, "trades a day");
    }

    /** A day's loss and profit, nothing else. */
    public static OwnLimits day(Optional<Account.DayLoss> loss, Optional<Long> profit) {
        return new OwnLimits(loss, profit, Optional.empty(), Optional.empty(), Optional.empty(), QuietTimes.NONE,
                Map.of(), ForThePerson.DEFAULT);
    }

    /** The same with a give-back. */
    public OwnLimits with(GiveBack rule) {
        return new OwnLimits(dayLoss, dayProfit, Optional.of(rule), losingRun, tradesADay, quietTimes, contracts,
                person);
    }

    /** The same with a losing run. */
    public OwnLimits with(LosingRun rule) {
        return new OwnLimits(dayLoss, dayProfit, giveBack, Optional.of(rule), tradesADay, quietTimes, contracts,
                person);
    }

    /** The same with quiet times. */
    public OwnLimits with(QuietTimes times) {
        return new OwnLimits(dayLoss, dayProfit, giveBack, losingRun, tradesADay, times, contracts, person);
    }

    /** The same with most trades a day. */
    public OwnLimits withTrades(int most) {
        return new OwnLimits(dayLoss, dayProfit, giveBack, losingRun, Optional.of(most), quietTimes, contracts,
                person);
    }

    /** The same with limits of contracts. */
    public OwnLimits with(Map<String, ContractLimits> limits) {
        return new OwnLimits(dayLoss, dayProfit, giveBack, losingRun, tradesADay, quietTimes, limits, person);
    }

    /** The same with other manners towards the person's own orders. */
    public OwnLimits with(ForThePerson manners) {
        return new OwnLimits(dayLoss, dayProfit, giveBack, losingRun, tradesADay, quietTimes, contracts, manners);
    }

    /**
     * What holds for the rest of a day on which other limits are set: of each limit the tighter of the two, as loosening one counts
     * from the next trading day only. Quiet times and manners are those of {@code next}.
     */
    public OwnLimits tightenedBy(OwnLimits next) {
        Map<String, ContractLimits> both = new HashMap<>(contracts);
        next.contracts.forEach((symbol, limits) -> both.merge(symbol, limits, ContractLimits::tightenedBy));
        return new OwnLimits(tighter(dayLoss, next.dayLoss, Account.DayLoss::tightenedBy),
                tighter(dayProfit, next.dayProfit, Math::min),
                tighter(giveBack, next.giveBack, GiveBack::tightenedBy),
                tighter(losingRun, next.losingRun, LosingRun::tightenedBy),
                tighter(tradesADay, next.tradesADay, Math::min), next.quietTimes, both, next.person);
    }

    /** Of two limits that may each be off: the one that is on, or the tighter of both. */
    static <T> Optional<T> tighter(Optional<T> a, Optional<T> b, BinaryOperator<T> tighter) {
        return a.isPresent() && b.isPresent() ? Optional.of(tighter.apply(a.get(), b.get())) : a.or(() -> b);
    }
}
