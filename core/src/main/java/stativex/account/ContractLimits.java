package stativex.account;

import java.util.Optional;

/**
 * Own limits of one contract, over everyone who trades it on the account.
 *
 * @param tradesADay opened in a trading day; empty: any
 * @param most contracts of a side, open, resting and proposed together; empty: any
 */
public record ContractLimits(DayLimits day, Optional<Integer> tradesADay, Optional<Integer> most) {
    /** None. */
    public static final ContractLimits NONE = new ContractLimits(DayLimits.NONE, Optional.empty(), Optional.empty());

    public ContractLimits {
        atLeastOne(tradesADay, "trades a day");
        atLeastOne(most, "a largest position");
    }

    /** Of each limit the tighter one. */
    ContractLimits tightenedBy(ContractLimits next) {
        return new ContractLimits(
                new DayLimits(OwnLimits.tighter(day.loss(), next.day.loss(), Account.DayLoss::tightenedBy),
                        OwnLimits.tighter(day.profit(), next.day.profit(), Math::min)),
                OwnLimits.tighter(tradesADay, next.tradesADay, Math::min),
                OwnLimits.tighter(most, next.most, Math::min));
    }

    static void atLeastOne(Optional<Integer> figure, String what) {
        figure.ifPresent(n -> {
            if (n < 1) {
                throw new IllegalArgumentException("expected " + what + " of 1 or more, found " + n);
            }
        });
    }
}
