package stativex.files;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Numbers inside the text of a rule, so that a search can vary them: {@code /long/rule#2} is the third one of that rule. Comments, quoted
 * names, times of day and digits of names are none.
 */
final class RuleNumbers {
    /** A comment, a quoted text, a time of day, a name or a number: whichever comes first. */
    private static final Pattern TOKEN = Pattern
            .compile("#[^\\n]*|\"[^\"]*\"|[0-9]{1,2}:[0-9]{2}|[A-Za-z_][A-Za-z_0-9.]*|([0-9]+(?:\\.[0-9]+)?)");
    private static final Pattern PLACE = Pattern.compile("(.+)#([0-9]{1,4})");

    private RuleNumbers() {}

    /** A number as it stands. @param from where it begins in the text; {@code to} is behind it */
    record At(int from, int to, BigDecimal value) {}

    /** Those of a text, in order. */
    static List<At> of(String text) {
        List<At> numbers = new ArrayList<>();
        Matcher token = TOKEN.matcher(text);
        while (token.find()) {
            if (token.group(1) != null) {
                numbers.add(new At(token.start(), token.end(), new BigDecimal(token.group(1))));
            }
        }
        return numbers;
    }

    /** Whether a place is one inside a text. */
    static boolean isOne(String place) {
        return PLACE.matcher(place).matches();
    }

    /** The place of the text that a number stands in. */
    static String text(String place) {
        return matched(place).group(1);
    }

    private static int index(String place) {
        return Integer.parseInt(matched(place).group(2));
    }

    private static Matcher matched(String place) {
        Matcher matcher = PLACE.matcher(place);
        if (!matcher.matches()) {
            throw new IllegalArgumentException("expected a number of a rule such as /long/rule#0, found " + place);
        }
        return matcher;
    }

    /** The number at a place of a text. @throws IllegalArgumentException when the text has fewer */
    static At at(String text, String place) {
        List<At> numbers = of(text);
        if (index(place) >= numbers.size()) {
            throw new IllegalArgumentException("expected a place up to #" + (numbers.size() - 1) + ", found " + place);
        }
        return numbers.get(index(place));
    }

    /** The text with another number at a place. @throws IllegalArgumentException likewise */
    static String with(String text, String place, BigDecimal value) {
        At at = at(text, place);
        return text.substring(0, at.from()) + value.toPlainString() + text.substring(at.to());
    }
}
