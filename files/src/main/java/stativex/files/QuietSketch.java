package stativex.files;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import stativex.account.Account;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Quiet times of an account as a person sets them.
 *
 * @param before minutes, likewise {@code after}
 * @param action no entries, cancel or flatten
 * @param countries filters, comma between; empty: any; likewise {@code impacts} and {@code titles}
 * @param releases as the document has them
 */
public record QuietSketch(boolean on, String before, String after, String action, String countries, String impacts,
        String titles, List<JsonNode> releases) {
    public QuietSketch {
        releases = List.copyOf(releases);
    }

    /** What a quiet time may do when it begins. */
    public static List<String> actions() {
        return List.of("no entries", "cancel", "flatten");
    }

    /** As an account's document has them. */
    public static QuietSketch of(Documents.Read<Account> account) {
        JsonNode quiet = account.document().path("quietTimes");
        List<JsonNode> releases = new ArrayList<>();
        quiet.path("releases").forEach(releases::add);
        return new QuietSketch(quiet.path("on").asBoolean(false), quiet.path("minutesBefore").asString("2"),
                quiet.path("minutesAfter").asString("2"), quiet.path("action").asString("flatten"),
                words(quiet.path("countries")), words(quiet.path("impacts")), words(quiet.path("titles")), releases);
    }

    private static String words(JsonNode list) {
        List<String> words = new ArrayList<>();
        list.forEach(one -> words.add(one.asString("")));
        return String.join(", ", words);
    }

    /** The same with other words. */
    public QuietSketch filled(boolean itsOn, String itsBefore, String itsAfter, String itsAction, String itsCountries,
            String itsImpacts, String itsTitles) {
        return new QuietSketch(itsOn, itsBefore, itsAfter, itsAction, itsCountries, itsImpacts, itsTitles, releases);
    }

    /** With the releases of a calendar beside those that are there; of the same time and title one stays. @throws BadInput likewise */
    public QuietSketch with(Path calendar) {
        Map<String, JsonNode> all = new LinkedHashMap<>();
        releases.forEach(one -> all.put(key(one), one));
        ReleaseCalendar.read(calendar).forEach(one -> all.put(key(one), one));
        return new QuietSketch(true, before, after, action, countries, impacts, titles, List.copyOf(all.values()));
    }

    /** Without any release. */
    public QuietSketch emptied() {
        return new QuietSketch(on, before, after, action, countries, impacts, titles, List.of());
    }

    private static String key(JsonNode release) {
        return release.path("time").asString("") + " " + release.path("title").asString("");
    }

    /** How many releases of which impact there are: {@code 45 releases: 24 high, 21 low}. */
    public String counted() {
        Map<String, Long> byImpact = releases.stream().collect(Collectors.groupingBy(
                one -> one.path("impact").asString("").isBlank() ? "without impact" : one.path("impact").asString(""),
                LinkedHashMap::new, Collectors.counting()));
        return releases.size() + (releases.size() == 1 ? " release" : " releases") + (byImpact.isEmpty()
                ? ""
                : ": " + byImpact.entrySet().stream().map(e -> e.getValue() + " " + e.getKey())
                        .collect(Collectors.joining(", ")));
    }

    void write(ObjectNode document) {
        ObjectNode quiet = document.withObject("/quietTimes");
        quiet.remove("releasesFile");
        quiet.put("on", on).put("minutesBefore", whole("minutes before", before))
                .put("minutesAfter", whole("minutes after", after)).put("action", action);
        ArrayNode list = quiet.putArray("releases");
        releases.forEach(list::add);
        filter(quiet, "countries", countries);
        filter(quiet, "impacts", impacts);
        filter(quiet, "titles", titles);
    }

    private static void filter(ObjectNode quiet, String key, String text) {
        quiet.remove(key);
        if (!text.isBlank()) {
            ArrayNode list = quiet.putArray(key);
            for (String word : text.split(",")) {
                if (!word.isBlank()) {
                    list.add(word.strip());
                }
            }
        }
    }

    private static int whole(String what, String text) {
        try {
            return Integer.parseInt(text.strip());
        } catch (NumberFormatException e) {
            throw new BadInput(what + ": expected a whole number, found \"" + Causes.found(text.strip()) + "\"", e);
        }
    }
}
