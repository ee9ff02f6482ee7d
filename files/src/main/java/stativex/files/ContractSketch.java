package stativex.files;

import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import stativex.market.Contract;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A contract as a person writes it down, right or wrong: every field a text, sessions one line each with their days, special dates one
 * line each. {@link #read()} says what is wrong.
 *
 * @param lastTradingDay empty if none is known
 * @param special dates that differ: {@code 2026-12-25 closed}, {@code 2026-12-24 closes 13:00}, {@code 2026-12-28 opens 10:00}
 */
public record ContractSketch(String symbol, String name, String currency, String zone, String tickSize,
        String tickValue,
        String slippage, String lastTradingDay, String lateSeconds, List<Line> sessions, String special) {

    /**
     * A session on some days of the week.
     *
     * @param openDay days from the trading date to its open: −1 on the evening before; likewise {@code closeDay}
     */
    public record Line(String name, Set<DayOfWeek> days, String open, int openDay, String close, int closeDay) {
        public Line {
            days = Set.copyOf(days);
        }

        /** One that closes on its trading date. @param evening it opens on the evening before */
        public Line(String name, Set<DayOfWeek> days, String open, boolean evening, String close) {
            this(name, days, open, evening ? -1 : 0, close, 0);
        }
    }

    private static final Pattern SPECIAL = Pattern
            .compile(
                    "([0-9]{4}-[0-9]{2}-[0-9]{2})[\\s,;]+(closed|closes|opens)(?:[\\s,;]+(?:at\\s+)?([0-9]{1,2}:[0-9]{2}))?\\s*(?:#.*)?");
    private static final String SIXTY = "60";
    private static final Set<DayOfWeek> WORKDAYS = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);

    public ContractSketch {
        sessions = List.copyOf(sessions);
    }

    /** The same under another symbol. */
    public ContractSketch withSymbol(String other) {
        return new ContractSketch(other, name, currency, zone, tickSize, tickValue, slippage, lastTradingDay,
                lateSeconds, sessions,
                special);
    }

    /** Patterns of a week to start from, by what they are called. */
    public static Map<String, List<Line>> patterns() {
        Map<String, List<Line>> patterns = new LinkedHashMap<>();
        patterns.put("Day session", List.of(new Line("Day", WORKDAYS, "09:30", false, "16:00")));
        patterns.put("Two sessions", List.of(new Line("Night", WORKDAYS, "18:00", true, "07:30"),
                new Line("Day", WORKDAYS, "08:30", false, "17:00")));
        patterns.put("Round the clock, one pause", List.of(new Line("Round", WORKDAYS, "18:00", true, "17:00")));
        return patterns;
    }

    /** A contract with nothing filled in but a day session. */
    public static ContractSketch empty(String zone) {
        return new ContractSketch("", "", "", zone, "", "", "1", "", SIXTY, patterns().get("Day session"), "");
    }

    /** A contract that reads, to be changed. */
    public static ContractSketch of(Documents.Read<Contract> contract) {
        JsonNode d = contract.document();
        Map<String, Line> lines = new LinkedHashMap<>();
        Field calendar = Field.root("contract", d).at("calendar");
        for (Field entry : calendar.items("week")) {
            for (Field session : entry.items("sessions")) {
                Line line = line(session, entry.days("days"));
                // the same hours on other days are one line
                String key = line.name() + line.open() + line.openDay() + line.close() + line.closeDay();
                Set<DayOfWeek> days = EnumSet.copyOf(line.days());
                if (lines.containsKey(key)) {
                    days.addAll(lines.get(key).days());
                }
                lines.put(key, new Line(line.name(), days, line.open(), line.openDay(), line.close(), line.closeDay()));
            }
        }
        return new ContractSketch(contract.value().symbol(), contract.value().name(), contract.value().currency(),
                calendar.at("zone").text(), d.path("tickSize").asString(""), d.path("tickValue").asString(""),
                Integer.toString(contract.value().slippage()), d.path("lastTradingDay").asString(""),
                calendar.maybe("lateSeconds").map(f -> Integer.toString(f.integer())).orElse(SIXTY),
                List.copyOf(lines.values()), special(contract, calendar));
    }

    private static Line line(Field session, Set<DayOfWeek> days) {
        return new Line(session.at("name").text(), days, session.at("open").text(),
                session.maybe("openDay").map(Field::integer).orElse(0), session.at("close").text(),
                session.maybe("closeDay").map(Field::integer).orElse(0));
    }

    private static String special(Documents.Read<Contract> contract, Field calendar) {
        StringBuilder lines = new StringBuilder();
        for (Field entry : calendar.items("exceptions")) {
            lines.append(entry.at("date").text());
            List<Field> sessions = entry.items("sessions");
            if (sessions.isEmpty()) {
                lines.append(" closed\n");
                continue;
            }
            var usual = contract.value().calendar().usual(entry.at("date").date());
            boolean early = usual.isEmpty() || !sessions.getLast().at("close").time().equals(usual.getLast().close());
            lines.append(early
                    ? " closes " + sessions.getLast().at("close").text()
                    : " opens " + sessions.getFirst().at("open").text()).append('\n');
        }
        return lines.toString();
    }

    /** Whether everything that a contract's calendar says can be written down so; else changing it here would lose something. */
    public static boolean holds(Documents.Read<Contract> contract) {
        try {
            var now = contract.value().calendar();
            var again = of(contract).read().value().calendar();
            var dates = new java.util.TreeSet<>(now.exceptions());
            java.util.stream.IntStream.range(0, 14).mapToObj(java.time.LocalDate.of(2026, 1, 5)::plusDays)
                    .forEach(dates::add);
            return again.exceptions().equals(now.exceptions())
                    && dates.stream().allMatch(date -> again.sessions(date).equals(now.sessions(date)));
        } catch (BadInput e) {
            return false;
        }
    }

    /** The contract. @throws BadInput saying which field is wrong and what was expected */
    public Documents.Read<Contract> read() {
        ObjectNode d = Json.MAPPER.createObjectNode();
        d.put("document", "contract").put("version", 1).put("symbol", filled(symbol, "symbol"))
                .put("name", name.isBlank() ? symbol.strip() : name.strip())
                .put("currency", filled(currency, "currency"))
                .put("tickSize", filled(tickSize, "tick size")).put("tickValue", filled(tickValue, "tick value"));
        try {
            d.put("slippageTicks", Integer.parseInt(slippage.strip()));
        } catch (NumberFormatException e) {
            throw new BadInput("slippage: expected whole ticks such as 1, found \"" + slippage + "\"", e);
        }
        if (!lastTradingDay.isBlank()) {
            d.put("lastTradingDay", lastTradingDay.strip());
        }
        ObjectNode calendar = d.putObject("calendar");
        calendar.put("zone", zone.strip());
        if (!lateSeconds.strip().equals(SIXTY)) {
            try {
                calendar.put("lateSeconds", Integer.parseInt(lateSeconds.strip()));
            } catch (NumberFormatException e) {
                throw new BadInput(
                        "first print late after: expected whole seconds such as 60, found \"" + lateSeconds + "\"", e);
            }
        }
        week(calendar.putArray("week"));
        ArrayNode exceptions = Json.MAPPER.createArrayNode();
        int at = 0;
        for (String line : special.lines().toList()) {
            at++;
            if (!line.isBlank() && !line.strip().startsWith("#")) {
                exception(exceptions, line.strip(), at);
            }
        }
        if (!exceptions.isEmpty()) {
            calendar.set("exceptions", exceptions);
        }
        return Documents.contract(Json.line(d), symbol.strip());
    }

    private static String filled(String text, String what) {
        if (text.isBlank()) {
            throw new BadInput(what + ": expected something, found nothing");
        }
        return text.strip();
    }

    private Map<DayOfWeek, List<Line>> byDay() {
        Map<DayOfWeek, List<Line>> byDay = new EnumMap<>(DayOfWeek.class);
        for (DayOfWeek day : DayOfWeek.values()) {
            List<Line> there = sessions.stream().filter(line -> line.days().contains(day)).sorted(
                    java.util.Comparator.comparing(Line::openDay).thenComparing(line -> clock(line.open())))
                    .toList();
            if (!there.isEmpty()) {
                byDay.put(day, there);
            }
        }
        return byDay;
    }

    /** Days with the same sessions are one entry. */
    private void week(ArrayNode week) {
        Map<List<Line>, List<DayOfWeek>> same = new LinkedHashMap<>();
        byDay().forEach((day, lines) -> same.computeIfAbsent(lines, l -> new ArrayList<>()).add(day));
        if (same.isEmpty()) {
            throw new BadInput("sessions: expected at least one, with at least one day");
        }
        same.forEach((lines, days) -> {
            ObjectNode entry = week.addObject();
            ArrayNode names = entry.putArray("days");
            days.forEach(day -> names.add(day.getDisplayName(TextStyle.FULL, Locale.ENGLISH)));
            ArrayNode all = entry.putArray("sessions");
            lines.forEach(line -> put(all.addObject(), line, clock(line.open()), clock(line.close())));
        });
    }

    private static void put(ObjectNode session, Line line, String open, String close) {
        session.put("name", filled(line.name(), "session")).put("open", open);
        if (line.openDay() != 0) {
            session.put("openDay", line.openDay());
        }
        session.put("close", close);
        if (line.closeDay() != 0) {
            session.put("closeDay", line.closeDay());
        }
    }

    /** A time of day with two digits for the hour. */
    private static String clock(String text) {
        String plain = text.strip();
        return plain.indexOf(':') == 1 ? "0" + plain : plain;
    }

    private void exception(ArrayNode into, String line, int number) {
        Matcher m = SPECIAL.matcher(line);
        if (!m.matches() || m.group(2).equals("closed") != (m.group(3) == null)) {
            throw new BadInput("special dates, line " + number
                    + ": expected a date and closed, closes 13:00 or opens 10:00, found \"" + line + "\"");
        }
        ObjectNode entry = into.addObject().put("date", m.group(1));
        ArrayNode all = entry.putArray("sessions");
        if (m.group(3) == null) {
            return;
        }
        DayOfWeek day;
        try {
            day = java.time.LocalDate.parse(m.group(1)).getDayOfWeek();
        } catch (java.time.DateTimeException e) {
            throw new BadInput(
                    "special dates, line " + number + ": expected a date such as 2026-12-24, found " + m.group(1), e);
        }
        List<Line> usual = byDay().getOrDefault(day, List.of());
        if (usual.isEmpty()) {
            throw new BadInput(
                    "special dates, line " + number + ": " + m.group(1) + " has no session that could open or close");
        }
        boolean early = m.group(2).equals("closes");
        for (int i = 0; i < usual.size(); i++) {
            Line session = usual.get(i);
            // what would begin after an early close does not take place, nor what has closed before a late open
            boolean last = i == usual.size() - 1;
            if (early) {
                boolean begins = session.openDay() < 0 || clock(session.open()).compareTo(clock(m.group(3))) < 0;
                boolean cut = last || usual.get(i + 1).openDay() == 0
                        && clock(usual.get(i + 1).open()).compareTo(clock(m.group(3))) >= 0;
                if (begins) {
                    put(all.addObject(), session, clock(session.open()),
                            cut ? clock(m.group(3)) : clock(session.close()));
                }
            } else if (clock(session.close()).compareTo(clock(m.group(3))) > 0) {
                boolean first = all.isEmpty();
                put(all.addObject(), first
                        ? new Line(session.name(), session.days(), session.open(), 0, session.close(),
                                session.closeDay())
                        : session, first ? clock(m.group(3)) : clock(session.open()), clock(session.close()));
            }
        }
    }
}
