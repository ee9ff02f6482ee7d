package stativex.files;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Period;
import net.fortuna.ical4j.model.Property;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.RecurrenceId;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;

/**
 * Releases brought in from a file, as they stand in an account document.
 *
 * <p>CSV (RFC 4180): the columns {@code time} (with its offset, such as 2026-09-24T14:30:00+12:00), {@code title} and, if wanted,
 * {@code country} and {@code impact}. iCalendar (RFC 5545): every event with a time of day in a zone, repeated ones too, without those
 * that are cancelled or excepted; its summary is the title, its location the country, its first category the impact. An event without
 * a time is refused: a release that nobody knows the time of cannot be kept away from.
 */
final class ReleaseCalendar {
    private static final long LONGEST = 4 << 20;
    private static final int MOST = 20_000;
    /** How far a repeated event is followed from its first day. */
    private static final int YEARS = 10;

    static {
        // the library would ask the network for newer zones
        System.setProperty("net.fortuna.ical4j.timezone.update.enabled", "false");
    }

    /** @param time of the release */
    private record Release(Instant time, String title, String country, String impact) {}

    private final String file;
    private final Map<String, Release> releases = new TreeMap<>();

    private ReleaseCalendar(String file) {
        this.file = file;
    }

    /** Whether a file is such a calendar, by its name. */
    static boolean is(String name) {
        String low = name.toLowerCase(Locale.ROOT);
        return low.endsWith(".csv") || low.endsWith(".ics");
    }

    /** Reads a file. @throws BadInput naming the file, the line or the event, and what was expected */
    static JsonNode read(Path path) {
        ReleaseCalendar calendar = new ReleaseCalendar(path.toString());
        try {
            if (Plain.check(path) > LONGEST) {
                throw new BadInput(path + ": expected a calendar of at most 4 MB");
            }
            try (Reader text = new InputStreamReader(Plain.open(path), StandardCharsets.UTF_8.newDecoder())) {
                return calendar.read(text);
            }
        } catch (IOException e) {
            throw new BadInput(path + ": cannot be read: " + Causes.of(e), e);
        }
    }

    /** The same of a text. @param name of its file */
    static JsonNode read(String text, String name) {
        try {
            return new ReleaseCalendar(name).read(new StringReader(text));
        } catch (IOException e) {
            throw new BadInput(name + ": cannot be read: " + Causes.of(e), e);
        }
    }

    private JsonNode read(Reader text) throws IOException {
        if (file.toLowerCase(Locale.ROOT).endsWith(".csv")) {
            csv(text);
        } else {
            calendar(text);
        }
        if (releases.isEmpty()) {
            throw new BadInput(file + ": expected releases, found none");
        }
        if (releases.size() > MOST) {
            throw new BadInput(file + ": expected at most " + MOST + " releases, found " + releases.size());
        }
        return json();
    }

    private JsonNode json() {
        ArrayNode list = Json.MAPPER.createArrayNode();
        releases.values().forEach(one -> list.addObject().put("time", one.time().toString()).put("title", one.title())
                .put("country", one.country()).put("impact", one.impact()));
        return list;
    }

    private void csv(Reader text) throws IOException {
        try (CsvReader<NamedCsvRecord> records = CsvReader.builder().ofNamedCsvRecord(text)) {
            for (NamedCsvRecord record : records) {
                csv(record);
            }
        } catch (CsvParseException e) {
            throw new BadInput(file + ": expected the columns time,title,country,impact: " + e.getMessage(), e);
        } catch (java.io.UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private void csv(NamedCsvRecord record) {
        String line = "line " + record.getStartingLineNumber();
        String time = field(record, "time", line);
        String title = field(record, "title", line);
        try {
            add(OffsetDateTime.parse(time).toInstant(), title, record.findField("country").orElse(""),
                    record.findField("impact").orElse(""));
        } catch (DateTimeException e) {
            throw BadInput.at(file, line + ", column time",
                    "expected a time with its offset such as 2026-09-24T14:30:00+12:00, found \"" + Causes.found(time)
                            + "\"");
        }
    }

    private String field(NamedCsvRecord record, String name, String line) {
        String value = record.findField(name).map(String::strip)
                .orElseThrow(() -> BadInput.at(file, line, "expected the columns time,title,country,impact, found "
                        + String.join(",", record.getHeader())));
        if (value.isEmpty()) {
            throw BadInput.at(file, line + ", column " + name, "expected something, found nothing");
        }
        return value;
    }

    private void calendar(Reader text) throws IOException {
        try {
            List<VEvent> events = new CalendarBuilder().build(text).getComponents("VEVENT");
            List<VEvent> changed = new ArrayList<>();
            for (VEvent event : events) {
                if (event.getProperty(Property.RECURRENCE_ID).isPresent()) {
                    changed.add(event);
                } else {
                    event(event);
                }
            }
            changed.forEach(this::changed);
        } catch (ParserException e) {
            throw BadInput.at(file, "line " + e.getLineNo(), "expected an iCalendar file (RFC 5545): "
                    + Optional.ofNullable(e.getMessage()).orElse("it cannot be understood"));
        } catch (RuntimeException e) {
            if (e instanceof BadInput) {
                throw e;
            }
            throw new BadInput(file + ": expected an iCalendar file (RFC 5545): "
                    + Optional.ofNullable(e.getMessage()).orElse("it cannot be understood"), e);
        }
    }

    private static boolean cancelled(VEvent event) {
        return event.getStatus() != null && event.getStatus().getValue().equalsIgnoreCase("CANCELLED");
    }

    private void event(VEvent event) {
        if (cancelled(event)) {
            return;
        }
        ZonedDateTime start = start(event);
        boolean repeats = event.getProperty(Property.RRULE).isPresent()
                || event.getProperty(Property.RDATE).isPresent();
        if (!repeats) {
            add(event, start.toInstant());
            return;
        }
        for (Period<Temporal> one : event.<Temporal>calculateRecurrenceSet(
                new Period<>((Temporal) start, start.plusYears(YEARS)))) {
            add(event, Instant.from(one.getStart()));
            if (releases.size() > MOST) {
                throw new BadInput(file + ": expected at most " + MOST + " releases: " + title(event)
                        + " repeats too often");
            }
        }
    }

    /** One day of a repeated event is another: at another time, or not at all. */
    private void changed(VEvent event) {
        RecurrenceId<?> instead = event.<RecurrenceId<?>>getProperty(Property.RECURRENCE_ID).orElseThrow();
        Temporal at = instead.getDate();
        Instant before = at instanceof LocalDateTime || at instanceof LocalDate
                ? start(event).toInstant()
                : Instant.from(at);
        String uid = uid(event);
        releases.remove(key(before, uid));
        if (!cancelled(event)) {
            add(event, start(event).toInstant());
        }
    }

    private ZonedDateTime start(VEvent event) {
        Temporal start = event.getDateTimeStart() == null ? null : event.getDateTimeStart().getDate();
        if (start == null || start instanceof LocalDate) {
            throw new BadInput(file + ": " + title(event)
                    + ": expected a time of day, found none: a release without a time cannot be kept away from");
        }
        if (start instanceof LocalDateTime) {
            throw new BadInput(file + ": " + title(event) + ": expected a time in a zone, found " + start);
        }
        return start instanceof ZonedDateTime zoned
                ? zoned
                : ZonedDateTime.ofInstant(Instant.from(start), ZoneId.of("UTC"));
    }

    private static String title(VEvent event) {
        String title = event.getSummary() == null ? "" : event.getSummary().getValue().strip();
        return title.isEmpty() ? "an event without a name" : "\"" + Causes.brief(title) + "\"";
    }

    private static String uid(VEvent event) {
        return event.getProperty(Property.UID).map(Property::getValue).orElse("");
    }

    private void add(VEvent event, Instant time) {
        String title = event.getSummary() == null ? "release" : event.getSummary().getValue().strip();
        String country = event.getProperty(Property.LOCATION).map(Property::getValue).orElse("").strip();
        String impact = event.getProperty(Property.CATEGORIES).map(Property::getValue).orElse("").split(",")[0].strip();
        releases.put(key(time, uid(event)), new Release(time, title, country, impact));
    }

    private void add(Instant time, String title, String country, String impact) {
        releases.put(key(time, title + "/" + country), new Release(time, title, country.strip(), impact.strip()));
    }

    private static String key(Instant time, String whose) {
        return time + " " + whose;
    }
}
