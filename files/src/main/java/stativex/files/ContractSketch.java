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
import java.util.stream.Collectors;
import stativex.market.Contract;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A contract as a person writes it down, right or wrong: every field a text, sessions one line each with their days, special dates one
 * line each. {@link #read()} says what is wrong.
 *
 * @param listing which month it is and which there are
 */
public record ContractSketch(String symbol, String name, String currency, Prices prices, Listing listing, Hours hours) {

    /**
     * What prices are worth.
     *
     * @param slippage in ticks
     * @param margin of one contract; empty if nobody knows
     */
    public record Prices(String tickSize, String tickValue, String slippage, String margin) {}

    /**
     * Its months.
     *
     * @param lastTradingDay of the one that it is; empty if none is known
     * @param months one a line: {@code 2026-12 until 2026-12-16}
     */
    public record Listing(String lastTradingDay, String months) {}

    /**
     * When it is traded.
     *
     * @param special dates that differ: {@code 2026-12-25 closed}, {@code 2026-12-24 closes 13:00}, {@code 2026-12-28 opens
     *     10:00}, {@code 2026-12-31 has Night 20:00 the evening before to 07:30, Day 09:00 to 12:00}
     */
    public record Hours(String zone, String lateSeconds, List<Line> sessions, String special) {
        public Hours {
            sessions = List.copyOf(sessions);
        }
    }

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
    private static final Pattern HAS = Pattern.compile("([0-9]{4}-[0-9]{2}-[0-9]{2})\\s+has\\s+([^#]*?)\\s*(?:#.*)?");
    private static final Pattern SESSION = Pattern.compile(
            "(.+?)\\s+([0-9]{1,2}:[0-9]{2})(\\s+the evening before)?\\s+to\\s+([0-9]{1,2}:[0-9]{2})(\\s+the day after)?");
    private static final Pattern MONTH = Pattern
            .compile("([^\\s,;]+)(?:\\s+until\\s+|[\\s,;]+)([0-9]{4}-[0-9]{2}-[0-9]{2})");
    private static final String SIXTY = "60";
    private static final Set<DayOfWeek> WORKDAYS = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);

    /** The same under another symbol. */
    public ContractSketch withSymbol(String other) {
        return new ContractSketch(other, name, currency, prices, listing, hours);
    }

    private ContractSketch withSpecial(String other) {
        return new ContractSketch(symbol, name, currency, prices, listing,
                new Hours(hours.zone(), hours.lateSeconds(), hours.sessions(), other));
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
        return new ContractSketch("", "", "", new Prices("", "", "1", ""), new Listing("", ""),
                new Hours(zone, SIXTY, patterns().get("Day session"), ""));
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
        StringBuilder months = new StringBuilder();
        contract.value().listing().months().forEach(month -> months.append(month.name()).append(" until ")
                .append(month.lastTradingDay()).append('\n'));
        ContractSketch usual = new ContractSketch(contract.value().symbol(), contract.value().name(),
                contract.value().currency(),
                new Prices(d.path("tickSize").asString(""), d.path("tickValue").asString(""),
                        Integer.toString(contract.value().slippage()), d.path("margin").asString("")),
                new Listing(d.path("lastTradingDay").asString(""), months.toString()),
                new Hours(calendar.at("zone").text(),
                        calendar.maybe("lateSeconds").map(f -> Integer.toString(f.integer())).orElse(SIXTY),
                        List.copyOf(lines.values()), ""));
        StringBuilder special = new StringBuilder();
        for (Field entry : calendar.items("exceptions")) {
            special.append(usual.special(entry)).append('\n');
        }
        return usual.withSpecial(special.toString());
    }

    private static Line line(Field session, Set<DayOfWeek> days) {
        return new Line(session.at("name").text(), days, session.at("open").text(),
                session.maybe("openDay").map(Field::integer).orElse(0), session.at("close").text(),
                session.maybe("closeDay").map(Field::integer).orElse(0));
    }

    /** A date that differs as a line: the shortest one that says its hours. */
    private String special(Field entry) {
        String date = entry.at("date").text();
        List<Field> sessions = entry.items("sessions");
        if (sessions.isEmpty()) {
            return date + " closed";
        }
        JsonNode wanted = entry.node().get("sessions");
        for (String line : List.of(date + " closes " + sessions.getLast().at("close").text(),
                date + " opens " + sessions.getFirst().at("open").text())) {
            if (says(line, wanted)) {
                return line;
            }
        }
        return date + " has " + sessions.stream().map(session -> line(session, Set.of(DayOfWeek.MONDAY)))
                .map(ContractSketch::words).collect(Collectors.joining(", "));
    }

    private boolean says(String line, JsonNode sessions) {
        try {
            ArrayNode made = Json.MAPPER.createArrayNode();
            exception(made, line, 1);
            return sessions(made.get(0).get("sessions")).equals(sessions(sessions));
        } catch (BadInput e) {
            return false;
        }
    }

    private static List<Line> sessions(JsonNode all) {
        List<Line> lines = new ArrayList<>();
        all.forEach(one -> lines.add(line(Field.root("", one), Set.of(DayOfWeek.MONDAY))));
        return lines;
    }

    /** {@code Night 20:00 the evening before to 07:30}. */
    private static String words(Line line) {
        return line.name() + " " + line.open() + (line.openDay() < 0 ? " the evening before" : "") + " to "
                + line.close() + (line.closeDay() > 0 ? " the day after" : "");
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
                .put("tickSize", filled(prices.tickSize(), "tick size"))
                .put("tickValue", filled(prices.tickValue(), "tick value"));
        try {
            d.put("slippageTicks", Integer.parseInt(prices.slippage().strip()));
        } catch (NumberFormatException e) {
            throw new BadInput("slippage: expected whole ticks such as 1, found \"" + prices.slippage() + "\"", e);
        }
        if (!listing.lastTradingDay().isBlank()) {
            d.put("lastTradingDay", listing.lastTradingDay().strip());
        }
        if (!prices.margin().isBlank()) {
            d.put("margin", prices.margin().strip());
        }
        months(d);
        ObjectNode calendar = d.putObject("calendar");
        calendar.put("zone", hours.zone().strip());
        if (!hours.lateSeconds().strip().equals(SIXTY)) {
            try {
                calendar.put("lateSeconds", Integer.parseInt(hours.lateSeconds().strip()));
            } catch (NumberFormatException e) {
                throw new BadInput(
                        "first print late after: expected whole seconds such as 60, found \"" + hours.lateSeconds()
                                + "\"",
                        e);
            }
        }
        week(calendar.putArray("week"));
        ArrayNode exceptions = Json.MAPPER.createArrayNode();
        int at = 0;
        for (String line : hours.special().lines().toList()) {
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

    private void months(ObjectNode document) {
        ArrayNode months = Json.MAPPER.createArrayNode();
        int at = 0;
        for (String line : listing.months().lines().toList()) {
            at++;
            if (!line.isBlank()) {
                Matcher m = MONTH.matcher(line.strip());
                if (!m.matches()) {
                    throw new BadInput("months, line " + at
                            + ": expected a month and its last trading day such as 2026-12 until 2026-12-16, found \""
                            + line.strip() + "\"");
                }
                months.addObject().put("month", m.group(1)).put("lastTradingDay", m.group(2));
            }
        }
        if (!months.isEmpty()) {
            document.set("months", months);
        }
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
            List<Line> there = hours.sessions().stream().filter(line -> line.days().contains(day)).sorted(
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
        Matcher has = HAS.matcher(line);
        if (has.matches()) {
            own(into, has, number);
            return;
        }
        Matcher m = SPECIAL.matcher(line);
        if (!m.matches() || m.group(2).equals("closed") != (m.group(3) == null)) {
            throw new BadInput("special dates, line " + number
                    + ": expected a date and closed, closes 13:00, opens 10:00, or has Day 10:00 to 13:00, found \""
                    + line + "\"");
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

    /** A date with sessions of its own. */
    private static void own(ArrayNode into, Matcher has, int number) {
        ObjectNode entry = into.addObject().put("date", has.group(1));
        ArrayNode all = entry.putArray("sessions");
        for (String text : has.group(2).split(",")) {
            Matcher m = SESSION.matcher(text.strip());
            if (!m.matches()) {
                throw new BadInput("special dates, line " + number
                        + ": expected sessions such as Day 10:00 to 13:00, with commas between them, found \""
                        + text.strip() + "\"");
            }
            put(all.addObject(), new Line(m.group(1), Set.of(), m.group(2), m.group(3) == null ? 0 : -1, m.group(4),
                    m.group(5) == null ? 0 : 1), clock(m.group(2)), clock(m.group(4)));
        }
    }
}
