package stativex.account;

/**
 * A line the account is held to.
 *
 * @param name as said on screen
 * @param money equity at the line
 * @param allowance how far the line lies from where the day or the peak stood: what "near" is measured against
 * @param below whether the line lies below equity (a loss line); else it is a profit line
 */
public record Line(String name, long money, long allowance, boolean below) {}
