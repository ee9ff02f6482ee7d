package stativex.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import stativex.exit.ExitPlan;
import stativex.market.BarType;
import stativex.market.TapeTime;
import stativex.rule.RuleProblem;
import stativex.rule.RuleRows;
import stativex.search.Space;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Choices of a search that follow from a strategy itself: its filters one by one, its sides apart, its conditions each left out. */
public final class SearchChoices {
    /** The setting whose first choice is the control. */
    public static final String FILTERS = "filters";
    public static final String SIDES = "sides";
    private static final Pattern BARS = Pattern.compile("(tick|volume|range|renko|seconds|minutes) ([0-9]{1,9})");
    private static final List<String> RULES = List.of("long", "short");

    private SearchChoices() {}

    /** {@code no filter}, which is the control, each filter alone, and all of them; empty for a strategy without one. */
    public static Optional<SearchSpec.Setting> filters(JsonNode strategy) {
        JsonNode filters = strategy.path("filters");
        if (filters.isEmpty()) {
            return Optional.empty();
        }
        List<String> names = new ArrayList<>(List.of("no filter"));
        List<JsonNode> values = new ArrayList<>(List.of(Json.MAPPER.createArrayNode()));
        ArrayNode all = Json.MAPPER.createArrayNode();
        for (JsonNode filter : filters) {
            ObjectNode on = (ObjectNode) filter.deepCopy();
            on.put("on", true);
            all.add(on);
            names.add(filter.path("name").asString("") + " alone");
            values.add(Json.MAPPER.createArrayNode().add(on));
        }
        if (filters.size() > 1) {
            names.add("all filters");
            values.add(all);
        }
        return Optional.of(choices(FILTERS, names, values.stream().map(value -> Map.of("/filters", value)).toList()));
    }

    /** Long alone, short alone, both; empty for a strategy of one side. */
    public static Optional<SearchSpec.Setting> sides(JsonNode strategy) {
        if (!strategy.has("long") || !strategy.has("short")) {
            return Optional.empty();
        }
        JsonNode none = Json.MAPPER.nullNode();
        return Optional.of(choices(SIDES, List.of("long", "short", "both"),
                List.of(Map.of("/short", none), Map.of("/long", none), Map.of())));
    }

    /**
     * All conditions, then each one left out; where both sides have as many, one of each side at a time.
     *
     * @return empty where no rule has several conditions joined by {@code and}
     */
    public static Optional<SearchSpec.Setting> conditions(JsonNode strategy) {
        Map<String, RuleRows> rows = new TreeMap<>();
        for (String side : RULES) {
            try {
                RuleRows of = RuleRows.of(strategy.path(side).path("rule").asString(""));
                if (of.rows().size() > 1) {
                    rows.put(side, of);
                }
            } catch (RuleProblem e) {
                throw new BadInput(side + ": " + e.getMessage(), e);
            }
        }
        if (rows.isEmpty()) {
            return Optional.empty();
        }
        List<String> names = new ArrayList<>(List.of("all conditions"));
        List<Map<String, JsonNode>> writes = new ArrayList<>(List.of(Map.of()));
        boolean together = rows.size() == 2
                && rows.get("long").rows().size() == rows.get("short").rows().size();
        for (Map.Entry<String, RuleRows> side : rows.entrySet()) {
            if (together && side.getKey().equals("short")) {
                break;
            }
            for (int i = 0; i < side.getValue().rows().size(); i++) {
                Map<String, JsonNode> write = new TreeMap<>();
                write.put("/" + side.getKey() + "/rule", without(side.getValue(), i));
                if (together) {
                    write.put("/short/rule", without(rows.get("short"), i));
                }
                names.add("without " + (together ? "" : side.getKey() + " ") + side.getValue().rows().get(i).text());
                writes.add(write);
            }
        }
        return Optional.of(choices("conditions", names, writes));
    }

    private static JsonNode without(RuleRows rows, int row) {
        return Json.MAPPER.getNodeFactory().stringNode(rows.without(row));
    }

    /** Exit plans, one for each choice. @param plans of different names, one or more */
    public static SearchSpec.Setting plans(List<Documents.Read<ExitPlan>> plans) {
        return choices("exit plan", plans.stream().map(plan -> plan.value().name()).toList(),
                plans.stream().map(plan -> Map.of("/exit", plan.document())).toList());
    }

    /**
     * Signal bars of other kinds or sizes, one for each choice; sessions, restart and anchor stay.
     *
     * @param words such as {@code tick 200, tick 400, minutes 2, range 8}
     * @throws BadInput naming the words that are no bars
     */
    public static SearchSpec.Setting bars(JsonNode strategy, String words) {
        List<String> names = new ArrayList<>();
        List<Map<String, JsonNode>> writes = new ArrayList<>();
        for (String one : words.split(",")) {
            ObjectNode signal = (ObjectNode) strategy.path("signal").deepCopy();
            StrategyDraft.put(signal, type(one.strip()));
            names.add(one.strip());
            writes.add(Map.of("/signal", signal));
        }
        return choices("bars", names, writes);
    }

    private static BarType type(String words) {
        Matcher bars = BARS.matcher(words);
        try {
            if (bars.matches()) {
                long size = Long.parseLong(bars.group(2));
                return switch (bars.group(1)) {
                    case "tick" -> new BarType.Ticks(Math.toIntExact(size));
                    case "volume" -> new BarType.Volume(size);
                    case "range" -> new BarType.Range(size);
                    case "renko" -> new BarType.Renko(size, size);
                    case "minutes" -> new BarType.Time(Math.multiplyExact(size, 60 * TapeTime.SECOND));
                    default -> new BarType.Time(Math.multiplyExact(size, TapeTime.SECOND));
                };
            }
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw new BadInput("bars: " + Causes.found(words) + ": " + e.getMessage(), e);
        }
        throw new BadInput(
                "bars: expected tick, volume, range, renko, seconds or minutes with a size, such as tick 400,"
                        + " found \"" + Causes.found(words) + "\"");
    }

    private static SearchSpec.Setting choices(String name, List<String> values, List<Map<String, JsonNode>> writes) {
        return new SearchSpec.Setting(new Space.Range(name, distinct(values), false), writes);
    }

    /** Names that come twice are numbered. */
    private static List<String> distinct(List<String> names) {
        List<String> found = new ArrayList<>();
        for (String name : names) {
            String free = name;
            for (int i = 2; found.contains(free); i++) {
                free = name + " (" + i + ")";
            }
            found.add(free);
        }
        return found;
    }
}
