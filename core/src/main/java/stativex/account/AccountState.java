package stativex.account;

import java.time.LocalDate;
import java.util.Optional;

/**
 * What is remembered of an account from one event to the next. Immutable: a run takes one in and gives one out.
 *
 * @param balance money, realised results and fees in it
 * @param standing what its lines hang from
 * @param begun whether a trading day has begun
 * @param lock why the day is locked, if it is
 * @param broken by what the account was broken, if it was; for good
 * @param losses in a row, with their pause
 * @param day trading date that has begun last; empty: none, or nobody knows. A run that begins inside it goes on with its result and locks
 */
public record AccountState(long balance, Standing standing, boolean begun, Optional<LockReason> lock,
        Optional<LockReason> broken, Losses losses, Optional<LocalDate> day) {
    /** A new state of an account. */
    public static AccountState fresh(Account account) {
        return new AccountState(account.start(), Standing.fresh(account.start()), false, Optional.empty(),
                Optional.empty(), Losses.NONE, Optional.empty());
    }
}
