package stativex.market;

import java.math.BigDecimal;
import java.util.regex.Pattern;

/** Plain decimal text: an optional sign, digits, at most one point; no exponent and no thousands mark. */
public final class Decimals {
    private static final Pattern PLAIN = Pattern.compile("[-+]?[0-9]{1,18}(\\.[0-9]{1,18})?");

    private Decimals() {}

    /** @throws IllegalArgumentException when {@code text} is not a plain decimal */
    public static BigDecimal plain(String text) {
        if (!PLAIN.matcher(text).matches()) {
            throw new IllegalArgumentException("expected a plain decimal such as 12.50, found \"" + text + "\"");
        }
        return new BigDecimal(text);
    }
}
