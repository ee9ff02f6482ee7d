package stativex.market;

import java.math.BigDecimal;
import java.math.RoundingMode;

/**
 * Money as a whole number of ten-thousandths of the account's currency. Decimal text appears only here, through
 * {@link BigDecimal}; arithmetic elsewhere is on {@code long} and throws on overflow.
 */
public final class Money {
    /** Ten-thousandths in one unit of currency. */
    public static final long UNIT = 10_000;

    private Money() {}

    /**
     * Reads a plain decimal such as {@code 12.50}.
     *
     * @throws IllegalArgumentException when the text is no plain decimal or finer than a ten-thousandth
     */
    public static long parse(String text) {
        try {
            return Decimals.plain(text).movePointRight(4).setScale(0, RoundingMode.UNNECESSARY).longValueExact();
        } catch (ArithmeticException e) {
            throw new IllegalArgumentException(
                    "expected an amount in whole ten-thousandths of the currency, found \"" + text + "\"", e);
        }
    }

    /** Two decimals, four where needed, as written to files: {@code -12.50}, {@code 0.6250}. */
    public static String text(long money) {
        return BigDecimal.valueOf(money, 4).setScale(money % 100 == 0 ? 2 : 4, RoundingMode.UNNECESSARY)
                .toPlainString();
    }
}
