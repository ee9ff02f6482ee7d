package stativex.account;

/**
 * The day's result may not fall too far from its best: once that was {@code after} or more, best − {@code fall} is a loss line.
 *
 * @param fall money, above 0; {@code after} likewise
 */
public record GiveBack(long fall, long after, Guard guard) {
    public GiveBack {
        if (fall <= 0 || after <= 0) {
            throw new IllegalArgumentException("expected a give-back of more than 0 from a best of more than 0");
        }
    }

    GiveBack tightenedBy(GiveBack next) {
        return new GiveBack(Math.min(fall, next.fall), Math.min(after, next.after), guard.tightenedBy(next.guard));
    }
}
