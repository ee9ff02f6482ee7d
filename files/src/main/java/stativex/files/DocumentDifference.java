package stativex.files;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import tools.jackson.databind.JsonNode;

/** What differs between two documents of one kind, place by place, in words that a person reads: {@code exit stop ticks 8 → 10}. */
public final class DocumentDifference {
    private DocumentDifference() {}

    /** Names and notes do not count: they change nothing that is worked. */
    private static final Set<String> LEFT_OUT = Set.of("/name", "/note", "/version", "/document");

    /** The differences, in the order of their places. */
    public static List<String> of(JsonNode before, JsonNode after) {
        Map<String, String> one = flat(before);
        Map<String, String> other = flat(after);
        Set<String> places = new TreeSet<>(one.keySet());
        places.addAll(other.keySet());
        List<String> differences = new ArrayList<>();
        for (String place : places) {
            String was = one.getOrDefault(place, "none");
            String is = other.getOrDefault(place, "none");
            if (!LEFT_OUT.contains(place) && !was.equals(is)) {
                differences.add(words(place) + " " + was + " → " + is);
            }
        }
        return differences;
    }

    /** A place of a document in words: {@code exit stop ticks}; places in lists count from 1. */
    static String words(String place) {
        StringBuilder words = new StringBuilder();
        for (String part : place.substring(1).split("/")) {
            words.append(words.isEmpty() ? "" : " ").append(part.matches("[0-9]+")
                    ? Integer.toString(Integer.parseInt(part) + 1)
                    : part.replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(java.util.Locale.ROOT));
        }
        return words.toString();
    }

    private static Map<String, String> flat(JsonNode node) {
        Map<String, String> flat = new LinkedHashMap<>();
        put("", node, flat);
        return flat;
    }

    private static void put(String place, JsonNode node, Map<String, String> flat) {
        if (node.isObject()) {
            node.properties().forEach(field -> put(place + "/" + field.getKey(), field.getValue(), flat));
        } else if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                put(place + "/" + i, node.get(i), flat);
            }
        } else {
            flat.put(place.isEmpty() ? "/" : place, node.asString());
        }
    }
}
