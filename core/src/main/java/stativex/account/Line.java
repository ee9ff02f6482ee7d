package stativex.account;

/**
 * A line the account is held to, as it stands.
 *
 * @param money equity at the line
 * @param allowance how far the line lies from where the day or the peak stood: what "near" is measured against
 */
public record Line(LineKind kind, long money, long allowance) {
    /** Whether it lies below equity (a loss line); else it is a profit line. */
    public boolean below() {
        return kind.below();
    }
}
