package stativex.files;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
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
     * A value is written at every one of its places.
     *
     * @param places JSON pointers into the strategy's document
     */
    public record Setting(Space.Range range, List<String> places, List<JsonNode> values) {
        public Setting {
            places = List.copyOf(places);
            values = List.copyOf(values);
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
        for (Field range : root.items("ranges")) {
            settings.add(setting(range, strategy));
        }
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
        List<String> places = range.at("at").node().isArray()
                ? range.list("at").stream().map(Field::text).toList()
                : List.of(range.at("at").text());
        String name = range.maybe("name").map(Field::text).orElseGet(() -> plain(places.getFirst()));
        List<JsonNode> values = new ArrayList<>();
        List<String> words = new ArrayList<>();
        boolean numeric = true;
        if (range.has("choices")) {
            numeric = false;
            for (Field choice : range.items("choices")) {
                words.add(choice.at("name").text());
                values.add(choice.at("value").node());
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
        if (values.isEmpty()) {
            throw range.problem("expected a value of " + name + ", found none");
        }
        if (!strategy.isEmpty()) {
            places.forEach(place -> put((ObjectNode) strategy.deepCopy(), place, values.getFirst(), range));
        }
        return new Setting(range.checked(() -> new Space.Range(name, words, numbers)), places, values);
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

    /** The document of a variant. @param places of its values, one for each range */
    public Documents.Read<Strategy> variant(int[] places) {
        ObjectNode document = (ObjectNode) strategy.deepCopy();
        for (int i = 0; i < places.length; i++) {
            Setting setting = settings.get(i);
            JsonNode value = setting.values().get(places[i]);
            for (String place : setting.places()) {
                int last = place.lastIndexOf('/');
                JsonNode parent = document.at(place.substring(0, last));
                String key = place.substring(last + 1);
                if (parent instanceof ObjectNode object) {
                    object.set(key, value);
                } else {
                    ((ArrayNode) parent).set(Integer.parseInt(key), value);
                }
            }
        }
        String name = "variant " + space().words(places);
        return Documents.strategy(document, name, other -> {
            throw new BadInput(name + ": expected an exit plan inside, found the file " + other);
        });
    }
}
