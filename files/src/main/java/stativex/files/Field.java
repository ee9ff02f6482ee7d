package stativex.files;

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
import stativex.market.Money;
import tools.jackson.databind.JsonNode;

/**
 * A place in a document: reads values that a schema cannot check, and names the place when one is wrong. In a document that
 * does not follow its schema what is missing or of another kind is {@link BadInput}, too.
 */
final class Field {
    private final String file;
    private final String path;
    private final JsonNode node;

    private Field(String file, String path, JsonNode node) {
        this.file = file;
        this.path = path;
        this.node = node;
    }

    static Field root(String file, JsonNode node) {
        return new Field(file, "$", node);
    }

    String file() {
        return file;
    }

    JsonNode node() {
        return node;
    }

    boolean has(String name) {
        return node.has(name);
    }

    Field at(String name) {
        if (!has(name)) {
            throw problem("expected the field \"" + name + "\", found none");
        }
        return new Field(file, path + "." + name, node.get(name));
    }

    Optional<Field> maybe(String name) {
        return has(name) ? Optional.of(at(name)) : Optional.empty();
    }

    List<Field> items(String name) {
        List<Field> items = new ArrayList<>();
        if (has(name)) {
            for (int i = 0; i < node.get(name).size(); i++) {
                items.add(new Field(file, path + "." + name + "[" + i + "]", node.get(name).get(i)));
            }
        }
        return items;
    }

    BadInput problem(String message) {
        return BadInput.at(file, path, message);
    }

    String text() {
        if (!node.isValueNode()) {
            throw problem("expected a text, found " + node);
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
    <T> T checked(java.util.function.Supplier<T> maker) {
        try {
            return maker.get();
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw problem(e.getMessage());
        }
    }

    int integer() {
        return checked(() -> {
            if (!node.isNumber() || node.decimalValue().stripTrailingZeros().scale() > 0) {
                throw new IllegalArgumentException("expected a whole number, found " + node);
            }
            return node.decimalValue().intValueExact();
        });
    }

    long money() {
        return as(Money::parse);
    }

    boolean flag() {
        if (!node.isBoolean()) {
            throw problem("expected true or false, found " + node);
        }
        return node.booleanValue();
    }

    ZoneId zone() {
        return date("an IANA zone such as Pacific/Auckland", ZoneId::of);
    }

    LocalTime time() {
        return date("a time of day such as 09:45", LocalTime::parse);
    }

    LocalDate date() {
        return date("a date such as 2026-09-24", LocalDate::parse);
    }

    private <T> T date(String expected, Function<String, T> reader) {
        try {
            return reader.apply(text());
        } catch (DateTimeException e) {
            throw problem("expected " + expected + ", found \"" + text() + "\"");
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
