package stativex.files;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.Rulebook;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A rulebook as a person writes it down, right or wrong: every rule a list of texts. {@link #read()} says what is wrong. What has no
 * field here stays as it is in its document.
 */
public record BookSketch(String name, List<RuleSketch> rules) {
    /** What a field takes. */
    public enum Takes {
        TEXT, WHOLE, YES_NO, CHOICE
    }

    /**
     * A field of a rule.
     *
     * @param key in the document; one with a dot lies in an object
     * @param word beside the field
     * @param words for who cannot see it, with the unit
     * @param choices words to choose from
     * @param first what it has in a new rule
     */
    public record Part(String key, String word, String words, Takes takes, List<String> choices, String first) {
        static Part text(String key, String word, String words, String first) {
            return new Part(key, word, words, Takes.TEXT, List.of(), first);
        }

        static Part whole(String key, String word, String words, String first) {
            return new Part(key, word, words, Takes.WHOLE, List.of(), first);
        }
    }

    private static final Part GUARD = Part.text("guard.marginTicks", "guard",
            "Ticks of what is open before the line at which everything leaves, empty for no guard", "4");
    private static final Part LEAD = Part.whole("leadSeconds", "s before", "Seconds before it at which positions leave",
            "300");

    private static final Map<String, List<Part>> PARTS = parts();

    private static Map<String, List<Part>> parts() {
        Map<String, List<Part>> parts = new LinkedHashMap<>();
        parts.put("drawdown floor", List.of(
                new Part("kind", "below", "What the floor hangs from", Takes.CHOICE,
                        List.of("static", "end of day", "intraday"), "intraday"),
                Part.text("allowance", "allowance", "Money below what it hangs from", "1500.00"),
                Part.text("lockAt", "locks at", "Equity above which the floor never rises, empty if it always trails",
                        ""),
                GUARD));
        parts.put("day loss", List.of(Part.text("amount", "amount", "Money below the start of the day", "500.00"),
                new Part("from", "from", "What the day starts with", Takes.CHOICE, List.of("balance", "equity"),
                        "balance"),
                new Part("breaks", "breaks the account", "Whether it breaks the account, else it locks the day",
                        Takes.YES_NO, List.of(), "false"),
                GUARD));
        parts.put("size", List.of(Part.whole("most", "contracts", "Most contracts of a side", "3"),
                Part.text("tiers", "tiers",
                        "Other figures from a profit on, such as 1200.00 3, 2400.00 5; empty for none",
                        ""),
                Part.text("micros", "micros", "What a contract counts of one, such as MTD 1/8; empty for none", "")));
        parts.put("profit target", List.of(Part.text("amount", "amount", "Money above the start", "1500.00")));
        parts.put("fewest days", List.of(Part.whole("days", "days", "Trading days with a fill", "5")));
        parts.put("consistency", List.of(Part.text("percent", "%",
                "Most the best day may be of the net since the start, in percent", "35")));
        parts.put("flat by", List.of(Part.text("time", "time", "Time of day", "16:45"),
                Part.text("zone", "in", "Zone such as Pacific/Auckland", "Pacific/Auckland"), LEAD));
        parts.put("no overnight", List.of(LEAD));
        parts.put("quiet times", List.of(Part.whole("minutesBefore", "min before", "Minutes before a release", "2"),
                Part.whole("minutesAfter", "min after", "Minutes after a release", "2")));
        parts.put("stop to target", List.of(Part.text("ratio", "ratio", "Largest initial stop in mean targets", "5")));
        parts.put("holding time", List.of(Part.whole("seconds", "s", "Seconds that count as too short", "10"),
                Part.text("percent", "% of trades", "Most of the trades that may be shorter, in percent", "50")));
        parts.put("payout", List.of(Part.text("buffer", "buffer", "Money above the start that stays", "2000.00"),
                Part.whole("winningDays", "days", "Fewest winning days", "5"),
                Part.text("winningDay", "of at least", "Net from which on a day is a winning one", "150.00"),
                Part.text("cap", "at most", "Most money at once, empty for any", "")));
        return parts;
    }

    /** Kinds of rules, in the order in which they are offered. */
    public static List<String> kinds() {
        return List.copyOf(PARTS.keySet());
    }

    /** Fields of a kind. */
    public static List<Part> parts(String kind) {
        return PARTS.get(kind);
    }

    /**
     * @param texts of its fields, by key
     * @param base the rule in its document
     */
    public record RuleSketch(String kind, Map<String, String> texts, ObjectNode base) {
        public RuleSketch {
            texts = Map.copyOf(texts);
        }

        /** A new one. */
        public static RuleSketch of(String kind) {
            Map<String, String> texts = new LinkedHashMap<>();
            parts(kind).forEach(part -> texts.put(part.key(), part.first()));
            return new RuleSketch(kind, texts, Json.MAPPER.createObjectNode().put("rule", kind));
        }

        /** The same with another text. */
        public RuleSketch with(String key, String text) {
            Map<String, String> others = new LinkedHashMap<>(texts);
            others.put(key, text);
            return new RuleSketch(kind, others, base);
        }

        private static RuleSketch of(ObjectNode rule) {
            String kind = rule.path("rule").asString("");
            Map<String, String> texts = new LinkedHashMap<>();
            parts(kind).forEach(part -> texts.put(part.key(), text(rule, part)));
            return new RuleSketch(kind, texts, rule);
        }

        private static String text(ObjectNode rule, Part part) {
            JsonNode node = rule.path(part.key());
            return switch (part.key()) {
                case "guard.marginTicks" -> {
                    JsonNode guard = rule.path("guard");
                    boolean on = guard.isObject() ? guard.path("on").asBoolean(false) : guard.asBoolean(false);
                    yield on ? Integer.toString(guard.path("marginTicks").asInt(0)) : "";
                }
                case "tiers" -> pairs(node, "fromProfit", "most");
                case "micros" -> pairs(node, "contract", "counts");
                case "leadSeconds" -> node.isMissingNode() ? "300" : node.asString();
                default -> node.isMissingNode()
                        ? part.takes() == Takes.CHOICE ? part.choices().getFirst() : ""
                        : node.asString();
            };
        }

        private static String pairs(JsonNode list, String first, String second) {
            List<String> pairs = new ArrayList<>();
            list.forEach(one -> pairs.add(one.path(first).asString("") + " " + one.path(second).asString("")));
            return String.join(", ", pairs);
        }

        private ObjectNode written() {
            ObjectNode rule = base.deepCopy();
            for (Part part : parts(kind)) {
                put(rule, part, texts.getOrDefault(part.key(), "").strip());
            }
            return rule;
        }

        private void put(ObjectNode rule, Part part, String text) {
            switch (part.key()) {
                case "guard.marginTicks" -> guard(rule, text);
                case "tiers" -> pairs(rule, part, text, "fromProfit", "most");
                case "micros" -> pairs(rule, part, text, "contract", "counts");
                default -> {
                    if (part.takes() == Takes.YES_NO) {
                        rule.put(part.key(), text.equals("true"));
                    } else if (text.isEmpty()) {
                        rule.remove(part.key());
                    } else if (part.takes() == Takes.WHOLE) {
                        rule.put(part.key(), whole(part, text));
                    } else {
                        rule.put(part.key(), text);
                    }
                }
            }
        }

        private void guard(ObjectNode rule, String text) {
            if (text.isEmpty()) {
                rule.remove("guard");
                return;
            }
            ObjectNode guard = rule.path("guard").isObject()
                    ? (ObjectNode) rule.path("guard")
                    : rule.putObject("guard");
            guard.put("on", true).put("marginTicks", whole(GUARD, text));
        }

        private void pairs(ObjectNode rule, Part part, String text, String first, String second) {
            if (text.isEmpty()) {
                rule.remove(part.key());
                return;
            }
            ArrayNode list = rule.putArray(part.key());
            for (String pair : text.split(",")) {
                String[] words = pair.strip().split("\\s+");
                if (words.length != 2) {
                    throw new BadInput(kind + ", " + part.word() + ": expected pairs: " + part.words() + ", found \""
                            + Causes.found(pair.strip()) + "\"");
                }
                ObjectNode one = list.addObject().put(first, words[0]);
                if (second.equals("most")) {
                    one.put(second, whole(part, words[1]));
                } else {
                    one.put(second, words[1]);
                }
            }
        }

        private int whole(Part part, String text) {
            try {
                return Integer.parseInt(text);
            } catch (NumberFormatException e) {
                throw new BadInput(kind + ", " + part.word() + ": expected a whole number, found \""
                        + Causes.found(text) + "\"", e);
            }
        }
    }

    public BookSketch {
        rules = List.copyOf(rules);
    }

    /** A book with nothing in it. */
    public static BookSketch empty(String name) {
        return new BookSketch(name, List.of());
    }

    /** As a document has it. */
    public static BookSketch of(JsonNode book) {
        List<RuleSketch> rules = new ArrayList<>();
        book.path("rules").forEach(rule -> rules.add(RuleSketch.of((ObjectNode) rule.deepCopy())));
        return new BookSketch(book.path("name").asString(""), rules);
    }

    /** The same with other rules. */
    public BookSketch with(List<RuleSketch> others) {
        return new BookSketch(name, others);
    }

    /** The same under another name. */
    public BookSketch named(String other) {
        return new BookSketch(other, rules);
    }

    /** The kinds that it does not have yet. */
    public List<String> missing() {
        return kinds().stream().filter(kind -> rules.stream().noneMatch(rule -> rule.kind().equals(kind))).toList();
    }

    /** The document. @throws BadInput saying which rule is wrong and what was expected */
    public Documents.Read<Rulebook> read() {
        if (name.isBlank()) {
            throw new BadInput("name: expected something, found nothing");
        }
        ObjectNode book = Json.MAPPER.createObjectNode().put("document", "rulebook").put("version", 1).put("name",
                name.strip());
        ArrayNode list = book.putArray("rules");
        rules.forEach(rule -> list.add(rule.written()));
        return new Documents.Read<>(Documents.rulebook(Json.line(book), name.strip()), book);
    }

    /** The same if it reads. */
    public Optional<Rulebook> reads() {
        try {
            return Optional.of(read().value());
        } catch (BadInput e) {
            return Optional.empty();
        }
    }
}
