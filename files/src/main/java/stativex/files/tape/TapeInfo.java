package stativex.files.tape;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.Json;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeTime;
import tools.jackson.databind.JsonNode;

/**
 * What a stored tape knows of itself: its contract, where it came from and how that was read, what was found.
 *
 * @param source the file it was imported from, as an absolute path
 * @param layout how a CSV source was read; empty for Parquet
 * @param gapNanos what counted as a gap
 */
public record TapeInfo(Documents.Read<Contract> contract, String source, Optional<TickLayout> layout, long gapNanos,
        Closing closing) {

    /**
     * What is known when everything has been read.
     *
     * @param sourceBytes length of the source
     * @param sourceSum CRC-32C of the source
     * @param leftOut whether bad lines were left out
     * @param prints taken; 0 in tapes of the older version, which do not say
     */
    public record Closing(Instant imported, long sourceBytes, long sourceSum, boolean leftOut, int prints,
            Findings findings, Set<Tape.SessionName> incomplete) {
        /** Before everything has been read. */
        static final Closing UNKNOWN = new Closing(Instant.EPOCH, 0, 0, false, 0, new Findings(), Set.of());
    }

    TapeInfo with(Closing other) {
        return new TapeInfo(contract, source, layout, gapNanos, other);
    }

    String originText() {
        Map<String, Object> text = new LinkedHashMap<>();
        text.put("contract", contract.document());
        text.put("source", source);
        text.put("gapNanos", gapNanos);
        layout.ifPresent(l -> {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("delimiter", String.valueOf(l.delimiter()));
            map.put("header", l.header());
            map.put("names", l.names());
            map.put("columns", l.columns().stream().map(Column::word).toList());
            map.put("times", l.times().name());
            l.zone().ifPresent(zone -> map.put("zone", zone.getId()));
            map.put("decimalMark", String.valueOf(l.decimalMark()));
            map.put("loose", l.loose());
            text.put("layout", map);
        });
        return Json.line(text);
    }

    String closingText() {
        return closingText(true);
    }

    /**
     * The same where there is little room: without what was found when that is too much.
     *
     * @throws BadInput when there are too many incomplete sessions
     */
    String briefText() {
        String whole = closingText();
        if (fits(whole)) {
            return whole;
        }
        String brief = closingText(false);
        if (!fits(brief)) {
            throw new BadInput("expected at most about 2 500 incomplete sessions of a tape, found "
                    + closing.incomplete().size());
        }
        return brief;
    }

    private static boolean fits(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length <= TapeFile.ROOM;
    }

    private String closingText(boolean withFindings) {
        Map<String, Object> text = new LinkedHashMap<>();
        text.put("imported", closing.imported().toString());
        text.put("sourceBytes", closing.sourceBytes());
        text.put("sourceSum", closing.sourceSum());
        text.put("leftOut", closing.leftOut());
        text.put("prints", closing.prints());
        text.put("incomplete",
                new TreeSet<>(closing.incomplete()).stream().map(Tape.SessionName::text).toList());
        List<Object> found = new ArrayList<>();
        for (Finding kind : Finding.values()) {
            if (withFindings && closing.findings().count(kind) > 0) {
                found.add(Map.of("kind", kind.name(), "count", closing.findings().count(kind), "places",
                        closing.findings().places(kind).stream()
                                .map(place -> Map.of("line", place.line(), "words", place.words())).toList()));
            }
        }
        text.put("findings", found);
        return Json.line(text);
    }

    static TapeInfo read(String origin, Optional<String> closing, String file) {
        JsonNode text = Json.parse(origin, file);
        JsonNode contract = text.required("contract");
        Optional<TickLayout> layout = text.optional("layout")
                .map(l -> new TickLayout(l.required("delimiter").asString().charAt(0), l.required("header").asBoolean(),
                        l.required("names").valueStream().map(JsonNode::asString).toList(),
                        l.required("columns").valueStream().map(c -> Column.named(c.asString())).toList(),
                        TimeForm.valueOf(l.required("times").asString()),
                        l.optional("zone").map(z -> ZoneId.of(z.asString())),
                        l.required("decimalMark").asString().charAt(0), l.required("loose").asBoolean()));
        return new TapeInfo(Documents.contract(Json.line(contract), file), text.required("source").asString(), layout,
                text.required("gapNanos").asLong(), closing.map(end -> closing(Json.parse(end, file)))
                        .orElse(Closing.UNKNOWN));
    }

    private static Closing closing(JsonNode text) {
        Findings findings = new Findings();
        for (JsonNode entry : text.required("findings")) {
            Finding kind = Finding.valueOf(entry.required("kind").asString());
            for (JsonNode place : entry.required("places")) {
                findings.add(kind, place.required("line").asLong(), place.required("words").asString());
            }
            findings.count(kind, entry.required("count").asLong() - findings.count(kind));
        }
        Set<Tape.SessionName> incomplete = new TreeSet<>();
        for (JsonNode name : text.required("incomplete")) {
            incomplete.add(sessionName(name.asString()));
        }
        return new Closing(Instant.parse(text.required("imported").asString()), text.required("sourceBytes").asLong(),
                text.required("sourceSum").asLong(), text.required("leftOut").asBoolean(), text.path("prints").asInt(0),
                findings,
                incomplete);
    }

    /**
     * Reads a session's name such as {@code 2026-09-24/Day}.
     *
     * @throws IllegalArgumentException when it is none
     */
    public static Tape.SessionName sessionName(String text) {
        int slash = text.indexOf('/');
        try {
            return new Tape.SessionName(TapeTime.date(text.substring(0, Math.max(0, slash))),
                    text.substring(slash + 1));
        } catch (java.time.DateTimeException e) {
            throw new IllegalArgumentException(
                    "expected a trading date and a session such as 2026-09-24/Day, found " + text, e);
        }
    }
}
