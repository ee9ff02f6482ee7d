package stativex.account;

import java.util.Optional;

/**
 * What a day, or a window of hours, may lose and win: of a strategy, a contract or a window. Source: SEMANTICS, "Interlocks".
 *
 * @param loss at result ≤ −amount everything of that part is left and it is locked; empty: off
 * @param profit money, above 0, likewise at result ≥ amount; empty: off
 */
public record DayLimits(Optional<Account.DayLoss> loss, Optional<Long> profit) {
    /** No limits. */
    public static final DayLimits NONE = new DayLimits(Optional.empty(), Optional.empty());

    public DayLimits {
        profit.ifPresent(amount -> {
            if (amount <= 0) {
                throw new IllegalArgumentException("expected a day profit above 0");
            }
        });
    }

    /** Whether there is any. */
    public boolean any() {
        return loss.isPresent() || profit.isPresent();
    }
}
