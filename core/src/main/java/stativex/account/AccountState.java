package stativex.account;

import java.util.Optional;

/**
 * What is remembered of an account from one event to the next. Immutable: a run takes one in and gives one out.
 *
 * @param balance money, realised results and fees in it
 * @param peak highest equity so far, after a print's fills
 * @param dayStart equity at the trading day's first instant
 * @param begun whether a trading day has begun
 * @param lock why the day is locked, if it is
 * @param broken whether a floor was reached; for good
 */
public record AccountState(long balance, long peak, long dayStart, boolean begun, Optional<LockReason> lock,
        boolean broken) {
    /** A new state of an account. */
    public static AccountState fresh(Account account) {
        return new AccountState(account.start(), account.start(), account.start(), false, Optional.empty(), false);
    }
}
