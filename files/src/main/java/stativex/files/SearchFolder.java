package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import stativex.search.Method;
import stativex.rule.RuleRows;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Searches of the person's data folder, each in a folder of its number with its documents, what is done of it, and its results. */
public final class SearchFolder {
    private static final Pattern NUMBER = Pattern.compile("[0-9]{4,9}");
    private static final String SPEC = "spec.json";

    private final Path folder;

    /** @param folder may not exist yet */
    public SearchFolder(Path folder) {
        this.folder = folder;
    }

    /** That of the person's data folder. */
    public static SearchFolder own() {
        return new SearchFolder(DataFolder.path().resolve("searches"));
    }

    /** A search that was begun. @param whole whether it has its results */
    public record Kept(int number, Path folder, SearchSpec spec, boolean whole) {
        public Path journal() {
            return folder.resolve("search.journal");
        }
    }

    /** Searches that read, the newest first. */
    public List<Kept> list() {
        List<Kept> all = new ArrayList<>();
        for (Path one : folders()) {
            try {
                all.add(new Kept(Integer.parseInt(one.getFileName().toString()), one,
                        SearchSpec.read(one.resolve(SPEC)), Files.exists(one.resolve("search.json"))));
            } catch (BadInput e) {
                // what was left half written is no search
                continue;
            }
        }
        return all;
    }

    private List<Path> folders() {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> found = Files.list(folder)) {
            return found.filter(one -> NUMBER.matcher(one.getFileName().toString()).matches())
                    .sorted(Comparator.comparing(Path::getFileName).reversed()).toList();
        } catch (IOException e) {
            throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
        }
    }

    /** Keeps a new search, with which {@code ./stativex search --spec} does the same. @throws BadInput when it cannot be written */
    public Kept add(SearchSpec spec) {
        int number = folders().stream().mapToInt(one -> Integer.parseInt(one.getFileName().toString())).max().orElse(0)
                + 1;
        Path one = folder.resolve(String.format("%04d", number));
        Map<String, WholeFile.Content> files = new LinkedHashMap<>();
        files.put("contract.json", out -> out.write(Json.pretty(spec.contract().document())));
        files.put("account.json", out -> out.write(Json.pretty(spec.account().document())));
        files.put("strategy.json", out -> out.write(Json.pretty(spec.strategy())));
        files.put(SPEC, out -> out.write(Json.pretty(document(spec))));
        WholeFolder.write(one, files);
        return new Kept(number, one, spec, false);
    }

    private static ObjectNode document(SearchSpec spec) {
        ObjectNode d = Json.MAPPER.createObjectNode();
        d.put("document", "search").put("version", 1).put("name", spec.name()).put("tape", spec.trial().tape())
                .put("contractFile", "contract.json").put("accountFile", "account.json")
                .put("strategyFile", "strategy.json")
                .put("realism", spec.trial().terms().realism().word())
                .put("latencyMillis", spec.trial().terms().latency() / 1_000_000);
        spec.trial().days().first().ifPresent(day -> d.put("from", day.toString()));
        spec.trial().days().last().ifPresent(day -> d.put("to", day.toString()));
        d.put("score", spec.ranked().score().word()).put("leastTrades", spec.ranked().least())
                .put("blocks", spec.ranked().blocks());
        spec.ranked().walk().ifPresent(walk -> d.putObject("walkForward").put("fitDays", walk.fit())
                .put("testDays", walk.test()).put("anchored", walk.anchored()));
        switch (spec.method()) {
            case Method.Grid ignored -> d.putObject("method").put("kind", "grid");
            case Method.Halving ignored -> d.putObject("method").put("kind", "halving");
            case Method.Random random -> d.putObject("method").put("kind", "random")
                    .put("variants", random.variants()).put("seed", random.seed());
        }
        for (SearchSpec.Setting setting : spec.settings()) {
            ObjectNode range = d.withArray("/ranges").addObject().put("name", setting.range().name());
            if (setting.range().numeric()) {
                setting.writes().getFirst().keySet().forEach(place -> range.withArray("/at").add(place));
                setting.writes().forEach(value -> range.withArray("/values").add(value.values().iterator().next()));
            } else {
                for (int i = 0; i < setting.writes().size(); i++) {
                    ObjectNode set = range.withArray("/choices").addObject()
                            .put("name", setting.range().values().get(i)).putObject("set");
                    setting.writes().get(i).forEach(set::set);
                }
            }
        }
        return d;
    }

    /** Between two places that get the same number. */
    private static final String BOTH = " ";

    /**
     * Numbers of a strategy's document that may be varied: their places, with the value that each has. Where the rules of both sides have
     * the same one in the same turn, both together are a place as well.
     */
    public static Map<String, JsonNode> numbers(JsonNode strategy) {
        Map<String, JsonNode> found = new LinkedHashMap<>();
        gather("", strategy, found);
        List<RuleNumbers.At> longs = RuleNumbers.of(strategy.at("/long/rule").asString(""));
        List<RuleNumbers.At> shorts = RuleNumbers.of(strategy.at("/short/rule").asString(""));
        boolean mirrored = longs.size() == shorts.size();
        for (int i = 0; mirrored && i < longs.size(); i++) {
            if (longs.get(i).value().compareTo(shorts.get(i).value()) == 0) {
                found.put("/long/rule#" + i + BOTH + "/short/rule#" + i, number(longs.get(i)));
            }
        }
        for (int i = 0; i < longs.size(); i++) {
            found.put("/long/rule#" + i, number(longs.get(i)));
        }
        for (int i = 0; i < shorts.size(); i++) {
            found.put("/short/rule#" + i, number(shorts.get(i)));
        }
        found.keySet().removeIf(place -> place.endsWith("/version"));
        return found;
    }

    private static JsonNode number(RuleNumbers.At at) {
        return Json.MAPPER.getNodeFactory().numberNode(at.value());
    }

    private static void gather(String place, JsonNode node, Map<String, JsonNode> found) {
        if (node.isNumber()) {
            found.put(place, node);
        } else if (node.isObject()) {
            node.properties().forEach(field -> gather(place + "/" + field.getKey(), field.getValue(), found));
        } else if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                gather(place + "/" + i, node.get(i), found);
            }
        }
    }

    /** A place of a strategy in words: {@code exit targets 1 ticks}; of a rule {@code long reach > … ticks}. */
    public static String words(JsonNode strategy, String place) {
        if (!RuleNumbers.isOne(place)) {
            return DocumentDifference.words(place);
        }
        if (place.contains(BOTH)) {
            return "both, " + words(strategy, place.substring(0, place.indexOf(BOTH)));
        }
        String text = strategy.at(RuleNumbers.text(place)).asString("");
        RuleNumbers.At at = RuleNumbers.at(text, place);
        String side = RuleNumbers.text(place).contains("long") ? "long " : "short ";
        return RuleRows.of(text).rows().stream().filter(row -> row.from() <= at.from() && row.to() >= at.to())
                .findFirst().map(row -> side + (text.substring(row.from(), at.from()) + "…"
                        + text.substring(at.to(), row.to())).replaceAll("\\s+", " "))
                .orElse(DocumentDifference.words(place));
    }

    /** Numbers from one to another in steps, as a setting at a place. @throws BadInput where they make none or too many */
    public static SearchSpec.Setting setting(String place, String from, String to, String step) {
        return setting(DocumentDifference.words(place), List.of(place), from, to, step);
    }

    /** The same of a place as {@link #numbers} has it, under its words. */
    public static SearchSpec.Setting setting(JsonNode strategy, String place, String from, String to, String step) {
        return setting(words(strategy, place), List.of(place.split(BOTH)), from, to, step);
    }

    private static SearchSpec.Setting setting(String name, List<String> places, String from, String to, String step) {
        ObjectNode range = Json.MAPPER.createObjectNode();
        range.put("name", name);
        places.forEach(place -> range.withArray("/at").add(place));
        range.set("from", number(from));
        range.set("to", number(to));
        range.set("step", number(step));
        return SearchSpec.setting(Field.root(name, range), Json.MAPPER.createObjectNode());
    }

    private static JsonNode number(String text) {
        try {
            return Json.MAPPER.getNodeFactory().numberNode(new java.math.BigDecimal(text.strip()));
        } catch (NumberFormatException e) {
            throw new BadInput("expected a number, found \"" + Causes.found(text.strip()) + "\"", e);
        }
    }
}
