package stativex.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Further lines of an account as a person writes them down, right or wrong: every field a text, empty where there is no such line.
 *
 * @param floorKind what the floor hangs from, as the document says it
 * @param floorGuard ticks of what is open above the floor at which everything leaves; empty: no guard
 * @param bookLoss day loss of the rulebook, counted {@code bookFrom} balance or equity
 * @param giveFall what the day's best may fall by, once it was {@code giveAfter}
 * @param losingTrades in a row, then so many minutes' {@code losingPause}; empty: the rest of the day
 * @param flatTime time of day, in {@code flatZone}
 * @param quiet around releases
 */
public record AccountLines(String floorKind, String floorGuard, String bookLoss, String bookFrom, boolean bookBreaks,
        String giveFall, String giveAfter, String losingTrades, String losingPause, String flatTime, String flatZone,
        Quiet quiet) {

    /**
     * @param releases one a line: its time and its title, and if wanted {@code | country | impact}
     * @param before minutes, likewise {@code after}
     * @param action as the document says it
     */
    public record Quiet(String releases, String before, String after, String action) {
        static final Quiet NONE = new Quiet("", "5", "5", "no entries");
    }

    private static final Pattern RELEASE = Pattern.compile("(\\S+)\\s+([^|]+?)\\s*(?:\\|([^|]*))?(?:\\|([^|]*))?");

    /** No such lines. */
    public static final AccountLines NONE = new AccountLines("intraday", "", "", "balance", false, "", "", "", "", "",
            "",
            Quiet.NONE);

    /** As a document has them. */
    static AccountLines of(JsonNode d) {
        JsonNode floor = rule(d, "drawdown floor");
        JsonNode loss = rule(d, "day loss");
        JsonNode flat = rule(d, "flat by");
        JsonNode give = on(d.path("giveBack"));
        JsonNode run = on(d.path("losingRun"));
        JsonNode guard = floor.path("guard");
        boolean guarded = guard.isObject() ? guard.path("on").asBoolean(false) : guard.asBoolean(false);
        return new AccountLines(floor.path("kind").asString("intraday"),
                guarded ? Integer.toString(guard.path("marginTicks").asInt(0)) : "", loss.path("amount").asString(""),
                loss.path("from").asString("balance"), loss.path("breaks").asBoolean(false),
                give.path("fall").asString(""), give.path("after").asString(""), number(run.path("trades")),
                number(run.path("pauseMinutes")), flat.path("time").asString(""), flat.path("zone").asString(""),
                quiet(on(d.path("quietTimes"))));
    }

    private static Quiet quiet(JsonNode quiet) {
        if (!quiet.has("action")) {
            return Quiet.NONE;
        }
        List<String> lines = new ArrayList<>();
        for (JsonNode one : quiet.path("releases")) {
            String country = one.path("country").asString("");
            String impact = one.path("impact").asString("");
            lines.add(one.path("time").asString("") + " " + one.path("title").asString("")
                    + (country.isEmpty() && impact.isEmpty() ? "" : " | " + country)
                    + (impact.isEmpty() ? "" : " | " + impact));
        }
        return new Quiet(String.join("\n", lines), number(quiet.path("minutesBefore")),
                number(quiet.path("minutesAfter")), quiet.path("action").asString("no entries"));
    }

    private static JsonNode on(JsonNode line) {
        return line.path("on").asBoolean(false) ? line : Json.MAPPER.createObjectNode();
    }

    private static String number(JsonNode node) {
        return node.isNumber() ? Long.toString(node.asLong()) : "";
    }

    private static JsonNode rule(JsonNode account, String kind) {
        for (JsonNode one : account.path("rulebook").path("rules")) {
            if (one.path("rule").asString("").equals(kind)) {
                return one;
            }
        }
        return Json.MAPPER.createObjectNode();
    }

    /** Puts them into a document; what they say nothing of stays. @throws BadInput naming the field that is wrong */
    void write(ObjectNode d) {
        ArrayNode rules = d.withObject("/rulebook").withArray("/rules");
        for (JsonNode one : rules) {
            if (one.path("rule").asString("").equals("drawdown floor")) {
                floor((ObjectNode) one);
            }
        }
        put(rules, "day loss", bookLoss).ifPresent(rule -> rule.put("amount", bookLoss.strip()).put("from", bookFrom)
                .put("breaks", bookBreaks));
        put(rules, "flat by", flatTime)
                .ifPresent(rule -> rule.put("time", flatTime.strip()).put("zone", flatZone.strip()));
        line(d, "giveBack", giveFall)
                .ifPresent(line -> line.put("fall", giveFall.strip()).put("after", giveAfter.strip()));
        line(d, "losingRun", losingTrades).ifPresent(line -> {
            line.put("trades", whole(losingTrades, "losing run"));
            line.remove("pauseMinutes");
            if (!losingPause.isBlank()) {
                line.put("pauseMinutes", whole(losingPause, "pause after a losing run"));
            }
        });
        line(d, "quietTimes", quiet.releases()).ifPresent(this::quietTimes);
    }

    private void floor(ObjectNode floor) {
        floor.put("kind", floorKind);
        if (floorGuard.isBlank()) {
            floor.remove("guard");
        } else {
            ObjectNode guard = floor.path("guard").isObject()
                    ? (ObjectNode) floor.path("guard")
                    : floor.putObject("guard");
            guard.put("on", true).put("marginTicks", whole(floorGuard, "guard of the floor"));
        }
    }

    /** The rule of a kind; it goes where there is nothing to put. */
    private static Optional<ObjectNode> put(ArrayNode rules, String kind, String figure) {
        for (int i = 0; i < rules.size(); i++) {
            if (rules.get(i).path("rule").asString("").equals(kind)) {
                if (figure.isBlank()) {
                    rules.remove(i);
                    return Optional.empty();
                }
                return Optional.of((ObjectNode) rules.get(i));
            }
        }
        return figure.isBlank() ? Optional.empty() : Optional.of(rules.addObject().put("rule", kind));
    }

    /** An own line, switched on; it goes where there is nothing to put, unless it is switched off: then it may stay. */
    static Optional<ObjectNode> line(ObjectNode d, String key, String figure) {
        if (figure.isBlank()) {
            if (d.path(key).path("on").asBoolean(true)) {
                d.remove(key);
            }
            return Optional.empty();
        }
        return Optional.of(d.withObject("/" + key).put("on", true));
    }

    private void quietTimes(ObjectNode line) {
        line.put("minutesBefore", whole(quiet.before(), "minutes before a release"));
        line.put("minutesAfter", whole(quiet.after(), "minutes after a release"));
        line.put("action", quiet.action());
        ArrayNode releases = line.putArray("releases");
        int at = 0;
        for (String text : quiet.releases().lines().toList()) {
            at++;
            Matcher m = RELEASE.matcher(text.strip());
            if (!text.isBlank() && !m.matches()) {
                throw new BadInput("releases, line " + at
                        + ": expected a time and a title such as 2026-09-24T02:30:00Z Tide table, found \""
                        + Causes.found(text.strip()) + "\"");
            }
            if (!text.isBlank()) {
                ObjectNode release = releases.addObject().put("time", m.group(1)).put("title", m.group(2));
                if (m.group(3) != null) {
                    release.put("country", m.group(3).strip());
                }
                if (m.group(4) != null) {
                    release.put("impact", m.group(4).strip());
                }
            }
        }
    }

    private static int whole(String text, String field) {
        try {
            return Integer.parseInt(text.strip());
        } catch (NumberFormatException e) {
            throw new BadInput(field + ": expected a whole number, found \"" + Causes.found(text.strip()) + "\"", e);
        }
    }
}
