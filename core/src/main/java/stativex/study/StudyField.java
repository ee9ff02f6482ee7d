package stativex.study;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import stativex.market.Period;

/**
 * A field of a study: what may stand in it and what it means.
 *
 * @param name word used in documents and texts
 * @param fallback what holds when nothing is written; empty: must be written
 * @param unit said beside the field: bars, ticks
 * @param help one line
 */
public record StudyField(String name, Type type, String fallback, String unit, String help) {

    /** What may stand in a field. */
    public sealed interface Type {
        /** Complains about a text that may not stand there. */
        void check(String text);
    }

    /** A whole number, bounds included. */
    public record Whole(long least, long most) implements Type {
        @Override
        public void check(String text) {
            if (!text.matches("[0-9]{1,9}") || Long.parseLong(text) < least || Long.parseLong(text) > most) {
                throw new IllegalArgumentException("expected a whole number from " + least + " to " + most + ", found "
                        + text);
            }
        }
    }

    /** A number above {@code above}, at most {@code most}. */
    public record Number(double above, double most) implements Type {
        @Override
        public void check(String text) {
            BigDecimal value;
            try {
                value = new BigDecimal(text);
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException("expected a number, found " + text, e);
            }
            if (!(value.doubleValue() > above) || value.doubleValue() > most) {
                throw new IllegalArgumentException("expected a number above " + plain(above) + ", at most "
                        + plain(most) + ", found " + text);
            }
        }
    }

    /** One of some words. */
    public record Choice(List<String> words) implements Type {
        @Override
        public void check(String text) {
            if (!words.contains(text)) {
                throw new IllegalArgumentException("expected one of " + String.join(", ", words) + ", found " + text);
            }
        }
    }

    /** Some of some words, with + between them. */
    public record Some(List<String> words) implements Type {
        @Override
        public void check(String text) {
            for (String word : text.split("\\+", -1)) {
                if (!words.contains(word)) {
                    throw new IllegalArgumentException("expected some of " + String.join(", ", words)
                            + " with + between them, found " + text);
                }
            }
        }
    }

    /** A time of day, or the word {@code open} for the session's open. */
    public record Time() implements Type {
        @Override
        public void check(String text) {
            try {
                if (!text.equals("open")) {
                    LocalTime.parse(text);
                }
            } catch (DateTimeException e) {
                throw new IllegalArgumentException("expected a time of day such as 09:45, or open, found " + text, e);
            }
        }
    }

    /** An IANA zone, or the word {@code exchange} for the contract's. */
    public record Zone() implements Type {
        @Override
        public void check(String text) {
            try {
                if (!text.equals("exchange")) {
                    ZoneId.of(text);
                }
            } catch (DateTimeException e) {
                throw new IllegalArgumentException(
                        "expected an IANA zone such as Pacific/Auckland, or exchange, found " + text, e);
            }
        }
    }

    /** N, the number of bars a study looks back over. */
    static StudyField length(int fallback) {
        return bars("length", fallback, "how many bars it looks back over");
    }

    static StudyField bars(String name, int fallback, String help) {
        return new StudyField(name, new Whole(1, 100_000), Integer.toString(fallback), "bars", help);
    }

    /** How many of something on either side a band lies away. */
    static StudyField factor(String name, String fallback, String help) {
        return new StudyField(name, new Number(0, 1000), fallback, "×", help);
    }

    static StudyField choice(String name, String help, String... words) {
        return new StudyField(name, new Choice(List.of(words)), words[0], "", help);
    }

    /** Where values begin anew. */
    static StudyField period(String help, Period... periods) {
        return choice("from", help,
                java.util.Arrays.stream(periods).map(Period::word).toArray(String[]::new));
    }

    static StudyField zone() {
        return new StudyField("zone", new Zone(), "exchange", "", "zone of the times");
    }

    static StudyField ticks(String name, int fallback, String help) {
        return new StudyField(name, new Whole(0, 1_000_000), Integer.toString(fallback), "ticks", help);
    }

    private static String plain(double value) {
        return new BigDecimal(Double.toString(value)).stripTrailingZeros().toPlainString();
    }
}
