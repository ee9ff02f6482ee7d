package stativex.files;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import stativex.account.Account;
import stativex.engine.Strategy;
import stativex.market.Contract;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.search.Method;
import stativex.search.Score;
import stativex.search.Space;
import stativex.trial.Days;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A search as its document states it: a strategy, what of its document is varied and how, and what variants are ranked by.
 *
 * @param strategy the document whose places are varied, exit plan inside
 * @param settings one for each range of the space
 */
public record SearchSpec(String name, Documents.Read<Contract> contract, Documents.Read<Account> account,
        JsonNode strategy, Trial trial, List<Setting> settings, Method method, Ranked ranked) {

    /**
     * How every variant is tried.
     *
     * @param tape a file, a stored tape, or the word demo
     */
    public record Trial(String tape, Terms terms, Days days) {}

    /**
     * What variants are ranked by.
     *
     * @param least trades below which a score is absent
     * @param blocks of days for the chance that the best is luck
     * @param walk whether it is walked forward as well
     */
    public record Ranked(Score score, int least, int blocks, Optional<Walk> walk) {
        /** Without a walk. */
        public Ranked(Score score, int least, int blocks) {
            this(score, least, blocks, Optional.empty());
        }
    }

    /**
     * Walk-forward: the best of so many days is tried on the days that follow, step by step.
     *
     * @param fit days, 2 or more; {@code test} days, 1 or more
     * @param anchored the fit part grows from the beginning; else it rolls along
     */
    public record Walk(int fit, int test, boolean anchored) {
        public Walk {
            if (fit < 2 || test < 1) {
                throw new IllegalArgumentException("expected 2 fit days and 1 test day or more");
            }
        }
    }

    /**
     * What is varied, and what each of its values writes.
     *
     * @param writes for each value: what stands at which places, JSON pointers into the strategy's document; null takes away
     */
    public record Setting(Space.Range range, List<Map<String, JsonNode>> writes) {
        public Setting {
            writes = List.copyOf(writes);
        }
    }

    public SearchSpec {
        settings = List.copyOf(settings);
    }

    /** The same over other days. */
    public SearchSpec over(Days days) {
        return new SearchSpec(name, contract, account, strategy, new Trial(trial.tape(), trial.terms(), days), settings,
                method, ranked);
    }

    /** What is searched. */
    public Space space() {
        return new Space(settings.stream().map(Setting::range).toList());
    }

    /** Reads a search; what it names lies beside it. @throws BadInput naming file, place, what was expected and what was found */
    public static SearchSpec read(Path file) {
        Field root = Field.root(file.toString(), Json.read(file));
        if (!root.at("document").text().equals("search") || root.at("version").integer() != 1) {
            throw new BadInput(file + ": expected a search of version 1");
        }
        Path folder = Optional.ofNullable(file.toAbsolutePath().getParent()).orElse(Path.of("/"));
        Documents.Read<Contract> contract = Documents.contract(folder.resolve(root.at("contractFile").text()));
        Documents.Read<Account> account = Documents.account(folder.resolve(root.at("accountFile").text()));
        JsonNode strategy = Documents.strategy(folder.resolve(root.at("strategyFile").text())).document();
        List<Setting> settings = new ArrayList<>();
        root.items("ranges").forEach(range -> settings.add(setting(range, strategy)));
        root.items("judge").forEach(word -> settings.add(judged(word, strategy)));
        Realism realism = root.maybe("realism").map(f -> f.word(Realism.class)).orElse(Realism.THROUGH);
        Trial trial = new Trial(root.at("tape").text(), new Terms(realism, latency(root), 0),
                root.checked(() -> new Days(root.maybe("from").map(SearchSpec::date),
                        root.maybe("to").map(SearchSpec::date))));
        SearchSpec spec = new SearchSpec(root.maybe("name").map(Field::text).orElse("search"), contract, account,
                strategy, trial, settings, method(root), ranked(root));
        root.checked(spec::space);
        return spec;
    }

    private static LocalDate date(Field field) {
        return field.date();
    }

    private static long latency(Field root) {
        return root.maybe("latencyMillis").map(f -> f.longInteger(0, 3_600_000) * 1_000_000).orElse(0L);
    }

    private static Ranked ranked(Field root) {
        Score score = root.maybe("score").map(f -> Arrays.stream(Score.values())
                .filter(one -> one.word().equals(f.text())).findFirst()
                .orElseThrow(() -> f.problem("expected one of "
                        + String.join(", ", Arrays.stream(Score.values()).map(Score::word).toList()) + ", found "
                        + f.text())))
                .orElse(Score.NET_PER_TRADE);
        int blocks = root.maybe("blocks").map(f -> (int) f.longInteger(2, 20)).orElse(16);
        if (blocks % 2 != 0) {
            throw root.at("blocks").problem("expected an even number of blocks, found " + blocks);
        }
        return new Ranked(score, root.maybe("leastTrades").map(f -> (int) f.longInteger(0, 1_000_000)).orElse(30),
                blocks, root.maybe("walkForward").map(walk -> walk.checked(() -> new Walk(walk.at("fitDays").integer(),
                        walk.at("testDays").integer(), walk.maybe("anchored").map(Field::flag).orElse(false)))));
    }

    private static Method method(Field root) {
        if (root.maybe("method").isEmpty()) {
            return new Method.Grid();
        }
        Field method = root.at("method");
        String kind = method.at("kind").text();
        return switch (kind) {
            case "grid" -> new Method.Grid();
            case "halving" -> new Method.Halving();
            case "random" -> new Method.Random(method.at("variants").longInteger(1, 100_000_000),
                    method.maybe("seed").map(f -> f.longInteger(Long.MIN_VALUE, Long.MAX_VALUE)).orElse(1L));
            default -> throw method.at("kind").problem("expected grid, random or halving, found " + kind);
        };
    }

    /** @param strategy in which its places must be; an empty object: not looked at */
    static Setting setting(Field range, JsonNode strategy) {
        boolean sets = range.has("choices") && range.items("choices").stream().anyMatch(choice -> choice.has("set"));
        List<String> places = sets
                ? List.of()
                : range.at("at").node().isArray()
                        ? range.list("at").stream().map(Field::text).toList()
                        : List.of(range.at("at").text());
        String name = sets
                ? range.at("name").text()
                : range.maybe("name").map(Field::text).orElseGet(() -> plain(places.getFirst()));
        List<Map<String, JsonNode>> writes = new ArrayList<>();
        List<JsonNode> values = new ArrayList<>();
        List<String> words = new ArrayList<>();
        boolean numeric = true;
        if (range.has("choices")) {
            numeric = false;
            for (Field choice : range.items("choices")) {
                words.add(choice.at("name").text());
                if (sets) {
                    Map<String, JsonNode> set = new TreeMap<>();
                    choice.at("set").node().properties().forEach(one -> set.put(one.getKey(), one.getValue()));
                    writes.add(set);
                } else {
                    values.add(choice.at("value").node());
                }
            }
        } else if (range.has("values")) {
            for (Field value : range.list("values")) {
                boolean number = value.node().isNumber();
                numeric &= number;
                words.add(number ? value.node().decimalValue().toPlainString() : value.node().asString());
                values.add(value.node());
            }
        } else {
            steps(range, values, words);
        }
        boolean numbers = numeric;
        if (words.stream().distinct().count() < words.size()) {
            throw range.problem("expected different values of " + name);
        }
        values.forEach(value -> {
            Map<String, JsonNode> at = new TreeMap<>();
            places.forEach(place -> at.put(place, value));
            writes.add(at);
        });
        if (writes.isEmpty()) {
            throw range.problem("expected a value of " + name + ", found none");
        }
        if (!strategy.isEmpty()) {
            writes.forEach(one -> one.forEach((place, value) -> put((ObjectNode) strategy.deepCopy(), place, value,
                    range)));
        }
        return new Setting(range.checked(() -> new Space.Range(name, words, numbers)), writes);
    }

    private static void steps(Field range, List<JsonNode> values, List<String> words) {
        BigDecimal from = number(range.at("from"));
        BigDecimal to = number(range.at("to"));
        BigDecimal step = number(range.at("step"));
        if (step.signum() <= 0 || to.compareTo(from) < 0
                || to.subtract(from).divide(step, java.math.MathContext.DECIMAL64)
                        .compareTo(new BigDecimal(99_999)) > 0) {
            throw range.problem("expected from, to and a step above 0 that make 1 to 100000 values");
        }
        for (BigDecimal at = from; at.compareTo(to) <= 0; at = at.add(step)) {
            values.add(Json.MAPPER.getNodeFactory().numberNode(at));
            words.add(at.stripTrailingZeros().toPlainString());
        }
    }

    private static BigDecimal number(Field field) {
        if (!field.node().isNumber()) {
            throw field.problem("expected a number, found " + field.node());
        }
        return field.node().decimalValue();
    }

    /** {@code /exit/stop/ticks} is {@code exit stop ticks}. */
    private static String plain(String place) {
        return place.replaceFirst("^/", "").replace('/', ' ');
    }

    /** Writes a value at a place that is there, or whose object is. */
    private static void put(ObjectNode document, String place, JsonNode value, Field range) {
        if (RuleNumbers.isOne(place)) {
            JsonNode text = document.at(RuleNumbers.text(place));
            if (!text.isString() || !value.isNumber()) {
                throw range.problem("expected numbers for a number of a rule, as /long/rule#0, found " + place);
            }
            range.checked(() -> RuleNumbers.at(text.asString(), place));
            return;
        }
        int last = place.lastIndexOf('/');
        JsonNode parent = place.startsWith("/")
                ? document.at(place.substring(0, last))
                : Json.MAPPER.getNodeFactory().missingNode();
        String key = last < 0 ? "" : place.substring(last + 1);
        if (parent instanceof ObjectNode object && !key.isEmpty()) {
            object.set(key, value);
        } else if (parent instanceof ArrayNode array && key.matches("[0-9]{1,6}")
                && Integer.parseInt(key) < array.size()) {
            array.set(Integer.parseInt(key), value);
        } else {
            throw range.problem("expected a place of the strategy's document, as /exit/stop/ticks, found " + place);
        }
    }

    /** {@code "judge": ["filters", "sides"]}: choices that follow from the strategy itself. */
    private static Setting judged(Field word, JsonNode strategy) {
        return switch (word.text()) {
            case "filters" -> SearchChoices.filters(strategy)
                    .orElseThrow(() -> word.problem("expected a strategy with filters, found one without"));
            case "sides" -> SearchChoices.sides(strategy)
                    .orElseThrow(() -> word.problem("expected a strategy of both sides, found one of a single side"));
            case "conditions" -> SearchChoices.conditions(strategy)
                    .orElseThrow(() -> word.problem("expected a rule of several conditions joined by and, found none"));
            default -> throw word.problem("expected filters, sides or conditions, found " + word.text());
        };
    }

    private static void write(ObjectNode document, String place, JsonNode value) {
        if (RuleNumbers.isOne(place)) {
            JsonNode text = document.at(RuleNumbers.text(place));
            if (text.isString()) {
                write(document, RuleNumbers.text(place), Json.MAPPER.getNodeFactory()
                        .stringNode(RuleNumbers.with(text.asString(), place, value.decimalValue())));
            }
            return;
        }
        int last = place.lastIndexOf('/');
        JsonNode parent = document.at(place.substring(0, last));
        String key = place.substring(last + 1);
        if (parent instanceof ObjectNode object) {
            if (value.isNull()) {
                object.remove(key);
            } else {
                object.set(key, value);
            }
        } else if (parent instanceof ArrayNode array && Integer.parseInt(key) < array.size()) {
            array.set(Integer.parseInt(key), value);
        }
        // what another setting has taken away, a side for instance, has no place for it
    }

    /** The document of a variant. @param places of its values, one for each range */
    public Documents.Read<Strategy> variant(int[] places) {
        ObjectNode document = (ObjectNode) strategy.deepCopy();
        for (int i = 0; i < places.length; i++) {
            settings.get(i).writes().get(places[i]).forEach((place, value) -> write(document, place, value));
        }
        String name = "variant " + space().words(places);
        return Documents.strategy(document, name, other -> {
            throw new BadInput(name + ": expected an exit plan inside, found the file " + other);
        });
    }
}
