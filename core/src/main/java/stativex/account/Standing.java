package stativex.account;

/**
 * What an account's lines hang from, as it is remembered. Money.
 *
 * @param peak highest equity at any print
 * @param closedPeak highest balance at the end of a trading day, the start counting as the first
 * @param dayStart equity at the trading day's first instant, {@code dayBalance} the balance then
 * @param dayBest highest equity at any print of the day, its first instant included
 */
public record Standing(long peak, long closedPeak, long dayStart, long dayBalance, long dayBest) {
    /** A new account's. */
    static Standing fresh(long start) {
        return new Standing(start, start, start, start, start);
    }
}
