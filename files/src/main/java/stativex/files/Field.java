package stativex.files;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import stativex.market.Decimals;
import stativex.market.Money;
import stativex.market.TapeTime;
import tools.jackson.databind.JsonNode;

/**
 * A place in a document: reads values that a schema cannot check, and names the place when one is wrong. In a document that
 * does not follow its schema what is missing or of another kind is {@link BadInput}, too.
 */
public final class Field {
    private final String file;
    private final String path;
    private final JsonNode node;

    private Field(String file, String path, JsonNode node) {
        this.file = file;
        this.path = path;
        this.node = node;
    }

    public static Field root(String file, JsonNode node) {
        return new Field(file, "$", node);
    }

    String file() {
        return file;
    }

    public JsonNode node() {
        return node;
    }

    boolean has(String name) {
        return node.has(name);
    }

    public Field at(String name) {
        if (!has(name)) {
            throw problem("expected the field \"" + name + "\", found none");
        }
        return new Field(file, path + "." + name, node.get(name));
    }

    Optional<Field> maybe(String name) {
        return has(name) ? Optional.of(at(name)) : Optional.empty();
    }

    public List<Field> items(String name) {
        List<Field> items = new ArrayList<>();
        if (has(name)) {
            for (int i = 0; i < node.get(name).size(); i++) {
                items.add(new Field(file, path + "." + name + "[" + i + "]", node.get(name).get(i)));
            }
        }
        return items;
    }

    /** The items of a list that must be there. */
    public List<Field> list(String name) {
        if (!at(name).node.isArray()) {
            throw at(name).problem("expected a list, found " + Causes.found(at(name).node.toString()));
        }
        return items(name);
    }

    BadInput problem(String message) {
        return BadInput.at(file, path, message);
    }

    public String text() {
        if (!node.isString() && !node.isNumber()) {
            throw problem("expected a text, found " + Causes.found(node.toString()));
        }
        return node.asString();
    }

    /** This place as messages name it: {@code $.calendar.week[0]}. */
    String path() {
        return path;
    }

    /** Keeps what must stand once: when {@code key} is there already, both places are said. */
    <K, V> void putOnce(Map<K, Placed<V>> known, K key, V value, String what) {
        Placed<V> before = known.put(key, new Placed<>(path, value));
        if (before != null) {
            throw problem(what + " stands twice, there and in " + before.path() + ": expected it once");
        }
    }

    /** A value with the place it stands at. */
    record Placed<V>(String path, V value) {}

    /** Reads a value; what its reader refuses is said of this place. */
    <T> T as(Function<String, T> reader) {
        return checked(() -> reader.apply(text()));
    }

    /** Makes something of this place; what it refuses is said of this place. */
    public <T> T checked(java.util.function.Supplier<T> maker) {
        try {
            return maker.get();
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw problem(e.getMessage());
        }
    }

    public int integer() {
        return checked(() -> {
            if (!node.isNumber() || node.decimalValue().stripTrailingZeros().scale() > 0) {
                throw new IllegalArgumentException("expected a whole number, found " + Causes.found(node.toString()));
            }
            return node.decimalValue().intValueExact();
        });
    }

    /** A whole number between two bounds, both included. */
    long longInteger(long least, long most) {
        return checked(() -> {
            if (!node.isNumber() || node.decimalValue().stripTrailingZeros().scale() > 0
                    || node.decimalValue().compareTo(java.math.BigDecimal.valueOf(least)) < 0
                    || node.decimalValue().compareTo(java.math.BigDecimal.valueOf(most)) > 0) {
                throw new IllegalArgumentException("expected a whole number from " + least + " to " + most + ", found "
                        + Causes.found(node.toString()));
            }
            return node.decimalValue().longValueExact();
        });
    }

    /** One of the words that stand for the values of an enumeration. */
    <E extends Enum<E>> E word(Class<E> type) {
        for (E one : type.getEnumConstants()) {
            if (one.name().toLowerCase(Locale.ROOT).replace('_', ' ').equals(text())) {
                return one;
            }
        }
        throw problem("expected one of " + java.util.Arrays.stream(type.getEnumConstants())
                .map(one -> one.name().toLowerCase(Locale.ROOT).replace('_', ' ')).toList() + ", found \""
                + Causes.found(text()) + "\"");
    }

    /** A moment such as {@code 2026-09-24T09:45:00Z}, nanoseconds since 1970. */
    long instant() {
        java.time.Instant time = date("a time such as 2026-09-24T09:45:00Z", java.time.Instant::parse);
        int year = time.atZone(java.time.ZoneOffset.UTC).getYear();
        if (year < TapeTime.FIRST_YEAR || year > TapeTime.LAST_YEAR) {
            throw problem("expected a time of the years " + TapeTime.FIRST_YEAR + " to " + TapeTime.LAST_YEAR
                    + ", found " + Causes.found(text()));
        }
        return TapeTime.nanos(time);
    }

    long money() {
        return as(Money::parse);
    }

    /** A decimal number, written as a text or as a number. */
    BigDecimal decimal() {
        return as(Decimals::plain);
    }

    boolean flag() {
        if (!node.isBoolean()) {
            throw problem("expected true or false, found " + Causes.found(node.toString()));
        }
        return node.booleanValue();
    }

    ZoneId zone() {
        return date("an IANA zone such as Pacific/Auckland", ZoneId::of);
    }

    LocalTime time() {
        return date("a time of day such as 09:45", LocalTime::parse);
    }

    public LocalDate date() {
        return date("a date such as 2026-09-24 of the years " + TapeTime.FIRST_YEAR + " to " + TapeTime.LAST_YEAR,
                TapeTime::date);
    }

    private <T> T date(String expected, Function<String, T> reader) {
        try {
            return reader.apply(text());
        } catch (DateTimeException e) {
            throw problem("expected " + expected + ", found \"" + Causes.found(text()) + "\"");
        }
    }

    Set<DayOfWeek> days(String name) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        Map<DayOfWeek, Placed<DayOfWeek>> once = new EnumMap<>(DayOfWeek.class);
        items(name).forEach(field -> {
            DayOfWeek day = DayOfWeek.valueOf(field.text().toUpperCase(Locale.ROOT));
            field.putOnce(once, day, day, field.text());
            days.add(day);
        });
        return days;
    }
}
