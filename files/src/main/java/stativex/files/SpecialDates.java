package stativex.files;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
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
import net.fortuna.ical4j.model.property.RRule;

/**
 * Holidays, early closes and late opens brought in from a file, as the lines of {@link ContractSketch#special()}.
 *
 * <p>iCalendar (RFC 5545): an event of whole days closes them, repeated ones too; an event with a time of day whose summary
 * says <i>early close</i> or <i>closes</i>, <i>late open</i> or <i>opens</i>, does so at its start, in the exchange's zone.
 * Everything else is left out by name, never guessed. CSV (RFC 4180): the columns {@code date}, {@code hours} (closed,
 * closes, opens), {@code time} and, if wanted, {@code name}; a wrong line refuses the file.
 */
public final class SpecialDates {
    private static final long LONGEST = 4 << 20;
    private static final int MOST_DAYS = 366;
    private static final int MOST_DATES = 5000;

    static {
        // the library would ask the network for newer zones
        System.setProperty("net.fortuna.ical4j.timezone.update.enabled", "false");
    }

    /**
     * What a file says.
     *
     * @param lines by date: {@code 2026-12-25 closed # Midsummer}
     * @param leftOut what was not taken, each with its reason
     */
    public record Found(Map<LocalDate, String> lines, List<String> leftOut) {
        public Found {
            lines = java.util.Collections.unmodifiableMap(new TreeMap<>(lines));
            leftOut = List.copyOf(leftOut);
        }

        /** The lines already written, with those of further dates behind them; a date that is there stays as it is. */
        public String added(String written) {
            StringBuilder all = new StringBuilder(written.stripTrailing());
            lines.forEach((date, line) -> {
                if (written.lines().noneMatch(there -> there.strip().startsWith(date.toString()))) {
                    all.append(all.isEmpty() ? "" : "\n").append(line);
                }
            });
            return all.toString();
        }
    }

    private final LocalDate from;
    private final LocalDate to;
    private final ZoneId zone;
    private final Map<LocalDate, String> lines = new TreeMap<>();
    private final List<String> leftOut = new ArrayList<>();

    private SpecialDates(LocalDate from, LocalDate to, ZoneId zone) {
        this.from = from;
        this.to = to;
        this.zone = zone;
    }

    /**
     * Reads a file; dates before {@code from} or not before {@code to} are passed over.
     *
     * @param zone the exchange's
     * @throws BadInput naming the file, the line and what was expected
     */
    public static Found read(Path file, LocalDate from, LocalDate to, ZoneId zone) {
        SpecialDates dates = new SpecialDates(from, to, zone);
        try {
            if (Plain.check(file) > LONGEST) {
                throw new BadInput(file + ": expected a calendar of at most 4 MB");
            }
            try (Reader text = new InputStreamReader(Plain.open(file), StandardCharsets.UTF_8.newDecoder())) {
                if (file.toString().toLowerCase(Locale.ROOT).endsWith(".csv")) {
                    dates.csv(file.toString(), text);
                } else {
                    dates.calendar(file.toString(), text);
                }
            }
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
        if (dates.lines.size() > MOST_DATES) {
            throw new BadInput(file + ": expected at most " + MOST_DATES + " dates, found " + dates.lines.size());
        }
        return new Found(dates.lines, dates.leftOut);
    }

    private void csv(String file, Reader text) throws IOException {
        try (CsvReader<NamedCsvRecord> records = CsvReader.builder().ofNamedCsvRecord(text)) {
            for (NamedCsvRecord record : records) {
                csv(file, record);
            }
        } catch (CsvParseException e) {
            throw new BadInput(file + ": expected the columns date,hours,time: " + e.getMessage(), e);
        } catch (java.io.UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private void csv(String file, NamedCsvRecord record) {
        String line = "line " + record.getStartingLineNumber();
        String date = field(file, record, "date", line);
        String hours = field(file, record, "hours", line);
        String time = record.findField("time").map(String::strip).orElse("");
        if (!List.of("closed", "closes", "opens").contains(hours)) {
            throw BadInput.at(file, line + ", column hours",
                    "expected closed, closes or opens, found \"" + hours + "\"");
        }
        if (hours.equals("closed") != time.isEmpty()) {
            throw BadInput.at(file, line + ", column time", hours.equals("closed")
                    ? "expected nothing beside closed, found \"" + time + "\""
                    : "expected a time such as 13:00 beside " + hours + ", found nothing");
        }
        try {
            LocalDate day = LocalDate.parse(date);
            String words = time.isEmpty() ? hours : hours + " " + LocalTime.parse(time);
            if (!add(day, words, record.findField("name").orElse(""))) {
                throw BadInput.at(file, line, day + " is there already with other hours");
            }
        } catch (DateTimeException e) {
            throw BadInput.at(file, line, "expected a date such as 2026-12-24 and a time such as 13:00, found \"" + date
                    + "\" and \"" + time + "\"");
        }
    }

    private static String field(String file, NamedCsvRecord record, String name, String line) {
        return record.findField(name).map(String::strip)
                .orElseThrow(() -> BadInput.at(file, line, "expected the columns date,hours,time, found "
                        + String.join(",", record.getHeader())));
    }

    private void calendar(String file, Reader text) throws IOException {
        try {
            for (VEvent event : new CalendarBuilder().build(text).<VEvent>getComponents("VEVENT")) {
                event(event);
            }
        } catch (ParserException e) {
            throw BadInput.at(file, "line " + e.getLineNo(),
                    "expected an iCalendar file (RFC 5545) or one that ends with "
                            + ".csv: " + Optional.ofNullable(e.getMessage()).orElse("it cannot be understood"));
        } catch (RuntimeException e) {
            if (e instanceof BadInput) {
                throw e;
            }
            throw new BadInput(file + ": expected an iCalendar file (RFC 5545): "
                    + Optional.ofNullable(e.getMessage()).orElse("it cannot be understood"), e);
        }
    }

    private void event(VEvent event) {
        String name = event.getSummary() == null ? "" : event.getSummary().getValue().strip();
        if (event.getStatus() != null && event.getStatus().getValue().equalsIgnoreCase("CANCELLED")) {
            return;
        }
        Temporal start = event.getDateTimeStart() == null ? null : event.getDateTimeStart().getDate();
        boolean repeats = event.getProperty(Property.RRULE).isPresent()
                || event.getProperty(Property.RDATE).isPresent();
        if (start == null) {
            leave(name, "it has no beginning");
        } else if (event.getProperty(Property.RECURRENCE_ID).isPresent()) {
            leave(name, "it changes one day of a repeated event");
        } else if (start instanceof LocalDate date) {
            wholeDays(event, name, date, repeats);
        } else if (repeats) {
            leave(name, "it repeats and has a time of day");
        } else {
            timed(name, start);
        }
    }

    private void wholeDays(VEvent event, String name, LocalDate date, boolean repeats) {
        Optional<RRule<?>> rule = event.getProperty(Property.RRULE);
        if (rule.isPresent() && !rule.get().getValue().matches("(?i).*FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)\\b.*")) {
            leave(name, "it repeats within a day");
            return;
        }
        if (!repeats) {
            Temporal end = event.getDateTimeEnd() == null ? null : event.getDateTimeEnd().getDate();
            close(date, end instanceof LocalDate last ? last : date.plusDays(1), name);
            return;
        }
        java.util.Set<Period<LocalDate>> all = event.calculateRecurrenceSet(new Period<>(from, to));
        for (Period<LocalDate> period : all) {
            close(period.getStart(), period.getEnd(), name);
        }
    }

    /** Closes the days from {@code first} to {@code end}, the last one not included, one at least. */
    private void close(LocalDate first, LocalDate end, String name) {
        if (first.plusDays(MOST_DAYS).isBefore(end)) {
            leave(name, "it lasts longer than a year");
            return;
        }
        LocalDate day = first;
        do {
            if (!add(day, "closed", name)) {
                leave(name, day + " is there already with other hours");
            }
            day = day.plusDays(1);
        } while (day.isBefore(end));
    }

    private void timed(String name, Temporal start) {
        LocalDateTime local = start instanceof LocalDateTime floating
                ? floating
                : LocalDateTime.ofInstant(Instant.from(start), zone);
        String said = name.toLowerCase(Locale.ROOT);
        boolean closes = said.contains("early close") || said.matches(".*\\bcloses\\b.*");
        boolean opens = said.contains("late open") || said.matches(".*\\bopens\\b.*");
        if (closes == opens) {
            leave(name, "it has a time of day and says neither early close nor late open");
        } else if (!local.toLocalTime().equals(local.toLocalTime().withSecond(0).withNano(0))) {
            leave(name, "its time is no whole minute");
        } else if (!add(local.toLocalDate(), (closes ? "closes " : "opens ") + local.toLocalTime(), name)) {
            leave(name, local.toLocalDate() + " is there already with other hours");
        }
    }

    private void leave(String name, String why) {
        leftOut.add((name.isEmpty() ? "an event without a name" : "\"" + Causes.brief(name) + "\"") + ": " + why);
    }

    /** @return false when the date is there with other hours */
    private boolean add(LocalDate day, String hours, String name) {
        if (day.isBefore(from) || !day.isBefore(to)) {
            return true;
        }
        String words = name.replaceAll("\\s+", " ").strip();
        String line = day + " " + hours + (words.isEmpty() ? "" : " # " + words);
        String before = lines.putIfAbsent(day, line);
        return before == null || before.replaceAll(" #.*", "").equals(day + " " + hours);
    }
}
