package stativex.files;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.engine.StrategyDoubts;
import stativex.engine.StrategyProblems;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Drawing;
import stativex.market.Side;
import stativex.order.Order;
import stativex.rule.Blueprint;
import stativex.rule.Renaming;
import stativex.study.StudyDefinition;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A strategy's document while somebody works on it: it may be incomplete. Immutable; every change is a new draft, and
 * fields that nobody changes stay as they were, so nothing is lost.
 */
public final class StrategyDraft {
    private static final Pattern DRAWN = Pattern.compile("\\bdrawn\\s+\"([^\"\n]*)\"");

    private static final List<String> PLAN_TEXTS = List.of("at", "of", "follow", "rule");

    private final ObjectNode document;

    private StrategyDraft(ObjectNode document) {
        this.document = document;
    }

    /** @param document with its exit plan inside, if it has one */
    public static StrategyDraft of(JsonNode document) {
        return new StrategyDraft((ObjectNode) document.deepCopy());
    }

    /** A strategy that looks at 400-trade bars and does nothing yet. */
    public static StrategyDraft empty(String name, String contract) {
        ObjectNode document = Json.MAPPER.createObjectNode();
        document.put("document", "strategy").put("version", 1).put("name", name).put("contract", contract);
        document.putObject("signal").put("bars", "tick").put("size", 400);
        document.putObject("entry").put("order", "market").put("quantity", 1);
        document.put("historyDays", 1);
        return new StrategyDraft(document);
    }

    StrategyDraft change(Consumer<ObjectNode> change) {
        ObjectNode copy = document.deepCopy();
        change.accept(copy);
        // numbers are of the kinds that reading makes of them, so that what is the same is equal
        return new StrategyDraft((ObjectNode) Json.parse(Json.line(copy), "draft"));
    }

    private static ObjectNode object(ObjectNode of, String name) {
        return of.get(name) instanceof ObjectNode there ? there : of.putObject(name);
    }

    Field root() {
        return Field.root(name(), document);
    }

    static <T> Optional<T> read(Supplier<T> reader) {
        try {
            return Optional.of(reader.get());
        } catch (IllegalArgumentException | BadInput e) {
            return Optional.empty();
        }
    }

    /** As it is written to a file. */
    public String text() {
        return Json.pretty(document) + "\n";
    }

    /** The document itself; not to be changed. */
    JsonNode document() {
        return document;
    }

    public String name() {
        return document.path("name").asString("");
    }

    public StrategyDraft withName(String name) {
        return change(d -> d.put("name", name));
    }

    /** Symbol of its contract. */
    public String contract() {
        return document.path("contract").asString("");
    }

    /** What it looks at and when it judges; empty while that does not read, see {@link #problems}. */
    public Optional<SignalPlan> signals() {
        return Schemas.problems(Schemas.Kind.STRATEGY, document, name()).isEmpty()
                ? read(() -> StrategyReader.signals(root()))
                : Optional.empty();
    }

    /** How a side enters, in its own way or as both do; empty while that does not read. */
    public Optional<Strategy.Entry> entry(Side side) {
        return read(() -> StrategyReader
                .entry(hasOwnEntry(side) ? root().at(side.word()).at("entry") : root().at("entry")));
    }

    /** Whether a side enters in its own way. */
    public boolean hasOwnEntry(Side side) {
        return document.path(side.word()).has("entry");
    }

    /** A side that is to enter in its own way begins with what both have; otherwise it enters as both do. */
    public StrategyDraft withOwnEntry(Side side, boolean own) {
        return change(d -> {
            if (own && !hasOwnEntry(side)) {
                sideOf(d, side).set("entry", object(d, "entry").deepCopy());
            } else if (!own && d.get(side.word()) instanceof ObjectNode of) {
                of.remove("entry");
                forgetPrice(d, side);
                dropIfEmpty(d, side);
            }
        });
    }

    /** What says how a side enters. */
    static ObjectNode entry(ObjectNode d, Side side) {
        return d.path(side.word()).get("entry") instanceof ObjectNode own ? own : object(d, "entry");
    }

    /** A market entry takes no price. */
    private static void forgetPrice(ObjectNode d, Side side) {
        if (d.get(side.word()) instanceof ObjectNode of
                && entry(d, side).path("order").asString("").equals(ResultWords.of(Order.Type.MARKET))) {
            of.remove("price");
        }
    }

    /** One side as it stands; empty without a rule, or while it does not read. */
    public Optional<Strategy.SideRule> side(Side side) {
        return rule(side).isBlank() ? Optional.empty() : read(() -> StrategyReader.side(root().at(side.word())));
    }

    /** A side's rule as text; empty text when there is none. */
    public String rule(Side side) {
        return document.path(side.word()).path("rule").asString("");
    }

    /** A side whose rule is made empty and that has nothing else is no side. */
    public StrategyDraft withRule(Side side, String rule) {
        return change(d -> {
            object(d, side.word()).put("rule", rule);
            dropIfEmpty(d, side);
        });
    }

    /** A side, with a rule that may be empty. */
    private static ObjectNode sideOf(ObjectNode d, Side side) {
        ObjectNode of = object(d, side.word());
        if (!of.has("rule")) {
            of.put("rule", "");
        }
        return of;
    }

    private static void dropIfEmpty(ObjectNode d, Side side) {
        if (d.get(side.word()) instanceof ObjectNode of && of.size() == 1
                && of.path("rule").asString("").isBlank()) {
            d.remove(side.word());
        }
    }

    /** Price of a limit or stop entry. */
    public Optional<String> price(Side side) {
        return Optional.ofNullable(document.path(side.word()).get("price")).map(JsonNode::asString);
    }

    public StrategyDraft withPrice(Side side, Optional<String> price) {
        return change(d -> {
            if (price.isPresent()) {
                sideOf(d, side).put("price", price.get());
            } else if (d.get(side.word()) instanceof ObjectNode of) {
                of.remove("price");
                dropIfEmpty(d, side);
            }
        });
    }

    /** The bars of its signal series; where they begin anew stays as it was. */
    public StrategyDraft withBars(BarType type) {
        return change(d -> put(object(d, "signal"), type));
    }

    static void put(ObjectNode bars, BarType type) {
        bars.remove(List.of("bars", "size", "turn"));
        switch (type) {
            case BarType.Ticks t -> bars.put("bars", "tick").put("size", t.trades());
            case BarType.Volume v -> bars.put("bars", "volume").put("size", v.contracts());
            case BarType.Range r -> bars.put("bars", "range").put("size", r.ticks());
            case BarType.Time t -> bars.put("bars", "seconds").put("size",
                    new BigDecimal(new BigDecimal(t.nanos()).movePointLeft(9).stripTrailingZeros().toPlainString()));
            case BarType.Renko r -> bars.put("bars", "renko").put("size", r.step()).put("turn", r.turn());
            case BarType.Period p -> bars.put("bars", p.name().toLowerCase(Locale.ROOT));
        }
    }

    /** Another order for a side, and for the other one where that enters alike; so with whatever else an entry has. */
    public StrategyDraft withOrder(Side side, Order.Type type) {
        return change(d -> {
            ObjectNode entry = entry(d, side).put("order", ResultWords.of(type));
            EntrySetup.fit(entry, type);
            for (Side each : Side.values()) {
                if (entry(d, each) == entry) {
                    forgetPrice(d, each);
                }
            }
        });
    }

    public StrategyDraft withGoodFor(Side side, Strategy.GoodFor goodFor) {
        return change(d -> {
            ObjectNode entry = entry(d, side);
            entry.remove(List.of("goodFor", "goodForBars"));
            switch (goodFor) {
                case Strategy.GoodFor.Day ignored -> entry.put("goodFor", "day");
                case Strategy.GoodFor.UntilCancelled ignored -> entry.put("goodFor", "until cancelled");
                case Strategy.GoodFor.Bars bars -> entry.put("goodForBars", bars.n());
            }
        });
    }

    /** Contracts of one entry; the maximum position is at least that. */
    public StrategyDraft withQuantity(Side side, int quantity) {
        return change(d -> {
            entry(d, side).put("quantity", quantity);
            if (d.path("maximumPosition").asInt(quantity) < quantity) {
                d.put("maximumPosition", quantity);
            }
        });
    }

    public int quantity(Side side) {
        JsonNode of = hasOwnEntry(side) ? document.path(side.word()) : document;
        return of.path("entry").path("quantity").asInt(1);
    }

    /** Contracts of the larger of both sides' entries. */
    public int quantity() {
        return Math.max(quantity(Side.LONG), quantity(Side.SHORT));
    }

    /** Most contracts, open and resting; the larger entry's quantity if nothing is said. */
    public int maximumPosition() {
        return document.path("maximumPosition").asInt(quantity());
    }

    /** Whether further entries may join an open trade. */
    public boolean adds() {
        return document.path("adds").asBoolean(false);
    }

    /** @param most contracts, open and resting; above the quantity entries may be added */
    public StrategyDraft withMaximumPosition(int most) {
        return change(d -> {
            d.put("maximumPosition", most);
            d.put("adds", most > quantity());
        });
    }

    public StrategyDraft withEvaluate(SignalPlan.Evaluate evaluate) {
        return change(d -> d.put("evaluate", evaluate.word()));
    }

    public StrategyDraft withConfirmation(Optional<Integer> withinBars) {
        return change(d -> withinBars.ifPresentOrElse(n -> d.put("confirmWithinBars", n),
                () -> d.remove("confirmWithinBars")));
    }

    public StrategyDraft withMost(Optional<SignalPlan.Most> most) {
        return change(d -> most.ifPresentOrElse(
                m -> d.putObject("signalsPerPeriod").put("most", m.signals()).put("period", m.period().word()),
                () -> d.remove("signalsPerPeriod")));
    }

    /** Studies as they are written, right or wrong. */
    public List<StudyDefinition> studies() {
        return parts(root(), "studies", StrategyReader::studyAsWritten);
    }

    /** What did not change stays as it was written, and so does what cannot be read as a study at all. */
    public StrategyDraft withStudies(List<StudyDefinition> studies) {
        return change(d -> replace(d, "studies", StrategyReader::studyAsWritten, studies,
                (study, one) -> put(one, study)));
    }

    static void put(ObjectNode of, StudyDefinition study) {
        of.put("name", study.name()).put("study", study.kind());
        study.of().ifPresent(takes -> of.put("of", takes));
        study.on().ifPresent(on -> of.put("on", on));
        for (Map.Entry<String, String> setting : study.settings().entrySet()) {
            if (setting.getValue().matches("-?[0-9]+(\\.[0-9]+)?")) {
                of.put(setting.getKey(), new BigDecimal(setting.getValue()));
            } else {
                of.put(setting.getKey(), setting.getValue());
            }
        }
    }

    /** The members of a list that can be read; others are said among the problems. */
    private static <T> List<T> parts(Field of, String list, Function<Field, T> reader) {
        return read(() -> of.items(list)).orElse(List.of()).stream()
                .flatMap(one -> read(() -> reader.apply(one)).stream())
                .toList();
    }

    /** Another list in place of the members that can be read; those that did not change keep their node. */
    private static <T> void replace(ObjectNode in, String list, Function<Field, T> reader, List<T> next,
            BiConsumer<T, ObjectNode> writer) {
        List<JsonNode> before = new ArrayList<>();
        in.path(list).forEach(before::add);
        ArrayNode all = in.putArray(list);
        for (T one : next) {
            Optional<JsonNode> same = before.stream()
                    .filter(node -> member(node, reader).filter(one::equals).isPresent())
                    .findFirst();
            if (same.isPresent()) {
                before.remove(same.get());
                all.add(same.get());
            } else {
                writer.accept(one, all.addObject());
            }
        }
        before.stream().filter(node -> member(node, reader).isEmpty()).forEach(all::add);
    }

    private static <T> Optional<T> member(JsonNode node, Function<Field, T> reader) {
        return read(() -> reader.apply(Field.root("", node)));
    }

    /** Gives a study another name, in its definition and wherever rules, prices and other studies speak of it. */
    public StrategyDraft renamed(String from, String to) {
        List<StudyDefinition> studies = studies().stream()
                .map(s -> new StudyDefinition(s.name().equals(from) ? to : s.name(), s.kind(),
                        s.of().map(of -> Renaming.name(of, from, to)), s.on(), s.settings()))
                .toList();
        return withStudies(studies).change(d -> {
            UnaryOperator<String> rename = text -> Renaming.name(text, from, to);
            for (Side side : Side.values()) {
                rename(d.get(side.word()), "rule", rename);
                rename(d.get(side.word()), "price", rename);
                d.path(side.word()).path("grades").forEach(grade -> rename(grade, "rule", rename));
                d.path("filters").forEach(filter -> rename(filter, side.word(), rename));
            }
            planTexts(d.path("exit"), (of, field) -> rename(of, field, rename));
        });
    }

    /** Names of drawn things that rules, prices and studies speak of. */
    private Set<String> drawnNames() {
        Set<String> names = new LinkedHashSet<>();
        Matcher found = DRAWN.matcher(String.join("\n", texts()));
        while (found.find()) {
            names.add(found.group(1));
        }
        return names;
    }

    /** Tells of every field of an exit plan that holds words of the rule language. */
    private static void planTexts(JsonNode plan, BiConsumer<ObjectNode, String> told) {
        if (plan instanceof ObjectNode of) {
            PLAN_TEXTS.stream().filter(of::has).forEach(field -> told.accept(of, field));
        }
        plan.forEach(inside -> planTexts(inside, told));
    }

    /** Everything that is written in the rule language. */
    private List<String> texts() {
        List<String> texts = new ArrayList<>();
        studies().forEach(study -> study.of().ifPresent(texts::add));
        for (Side side : Side.values()) {
            texts.add(rule(side));
            price(side).ifPresent(texts::add);
            document.path(side.word()).path("grades").forEach(grade -> texts.add(grade.path("rule").asString("")));
            document.path("filters").forEach(filter -> texts.add(filter.path(side.word()).asString("")));
        }
        planTexts(document.path("exit"), (of, field) -> texts.add(of.path(field).asString("")));
        return texts;
    }

    /** With what its rules name as it is drawn now; what nobody draws any more stays as it was. */
    public StrategyDraft withDrawings(List<Drawing> drawn, Contract on) {
        Set<String> named = drawnNames();
        Map<String, JsonNode> kept = new LinkedHashMap<>();
        document.path("drawings").forEach(entry -> kept.put(entry.path("name").asString(""), entry));
        drawn.forEach(drawing -> kept.put(drawing.name(), Json.MAPPER.valueToTree(DrawingFile.entry(drawing, on))));
        kept.keySet().retainAll(named);
        if (kept.isEmpty() && !document.has("drawings")) {
            return this;
        }
        return change(d -> {
            if (kept.isEmpty()) {
                d.remove("drawings");
            } else {
                ArrayNode all = d.putArray("drawings");
                kept.values().forEach(all::add);
            }
        });
    }

    /** Further series beside the signal series, those that can be read. */
    public List<Blueprint.SeriesDefinition> series() {
        return parts(root(), "series", StrategyReader::series);
    }

    /** One series more, of the strategy's own contract. */
    public StrategyDraft withSeries(String name, BarType type) {
        return change(d -> {
            ArrayNode all = d.get("series") instanceof ArrayNode there ? there : d.putArray("series");
            put(all.addObject().put("name", name), type);
        });
    }

    /** Other bars for the series of a name; where they begin anew and whose they are stays as it was. */
    public StrategyDraft withSeriesBars(String series, BarType type) {
        return change(d -> named(d, series).ifPresent(of -> put(of, type)));
    }

    /** Another contract for the series of a name; empty: the strategy's own. */
    public StrategyDraft withSeriesContract(String series, Optional<String> symbol) {
        return change(d -> named(d, series).ifPresent(of -> symbol.ifPresentOrElse(s -> of.put("contract", s),
                () -> of.remove("contract"))));
    }

    public StrategyDraft withoutSeries(String series) {
        return change(d -> named(d, series).ifPresent(of -> {
            ArrayNode all = (ArrayNode) d.get("series");
            for (int i = 0; i < all.size(); i++) {
                if (all.get(i) == of) {
                    all.remove(i);
                    return;
                }
            }
        }));
    }

    private static Optional<ObjectNode> named(ObjectNode of, String series) {
        for (JsonNode one : of.path("series")) {
            if (one instanceof ObjectNode found && found.path("name").asString("").equals(series)) {
                return Optional.of(found);
            }
        }
        return Optional.empty();
    }

    /** When its rules are judged; at bar close while that does not read. */
    public SignalPlan.Evaluate evaluate() {
        return read(() -> StrategyReader.evaluate(root())).orElse(SignalPlan.Evaluate.BAR_CLOSE);
    }

    /** Within how many bars a signal has to be confirmed. */
    public Optional<Integer> confirmation() {
        return read(() -> StrategyReader.confirmation(root())).flatMap(n -> n);
    }

    /** How many signals a period may have. */
    public Optional<SignalPlan.Most> most() {
        return read(() -> StrategyReader.most(root())).flatMap(n -> n);
    }

    /** Filters, those that can be read. */
    public List<SignalPlan.Filter> filters() {
        return parts(root(), "filters", StrategyReader::filter);
    }

    /** Other filters in place of those that can be read. */
    public StrategyDraft withFilters(List<SignalPlan.Filter> filters) {
        return change(d -> replace(d, "filters", StrategyReader::filter, filters, (filter, one) -> {
            one.put("name", filter.name()).put("on", filter.on());
            filter.longRule().ifPresent(rule -> one.put("long", rule));
            filter.shortRule().ifPresent(rule -> one.put("short", rule));
        }));
    }

    /** The grades of a side, those that can be read. */
    public List<Strategy.Grade> grades(Side side) {
        return document.path(side.word()).isObject()
                ? parts(root().at(side.word()), "grades", StrategyReader::grade)
                : List.of();
    }

    /** Names of the grades of a side that may enter. */
    public List<String> enters(Side side) {
        List<String> names = new ArrayList<>();
        document.path(side.word()).path("enters").forEach(name -> names.add(name.asString("")));
        return names;
    }

    /**
     * The grades of a side, the strongest first.
     *
     * @param enters names of those that may enter
     */
    public StrategyDraft withGrades(Side side, List<Strategy.Grade> grades, List<String> enters) {
        return change(d -> {
            ObjectNode of = object(d, side.word());
            replace(of, "grades", StrategyReader::grade, grades,
                    (grade, one) -> one.put("name", grade.name()).put("rule", grade.rule()));
            of.remove("enters");
            if (of.get("grades").isEmpty()) {
                of.remove("grades");
            } else {
                ArrayNode names = of.putArray("enters");
                enters.forEach(names::add);
            }
        });
    }

    private static void rename(JsonNode in, String field, UnaryOperator<String> rename) {
        if (in instanceof ObjectNode of && of.has(field)) {
            of.put(field, rename.apply(of.get(field).asString()));
        }
    }

    /** Name of its exit plan; empty when none is chosen. */
    public Optional<String> exitPlan() {
        return Optional.ofNullable(document.path("exit").get("name")).map(JsonNode::asString);
    }

    /**
     * Everything that is missing or wrong.
     *
     * @param others further contracts that its series may name
     */
    public List<StrategyProblems.Problem> problems(Contract traded, List<Contract> others) {
        return StrategyCheck.found(document, name(), none -> document, traded, others);
    }

    /** What in it can hardly be meant, once nothing is missing or wrong. */
    public List<StrategyProblems.Problem> doubts(Contract traded, List<Contract> others) {
        return StrategyDoubts.of(strategy().value(), traded, others);
    }

    /** The finished strategy. @throws BadInput while it is incomplete */
    public Documents.Read<Strategy> strategy() {
        return Documents.strategy(document, name(), none -> document);
    }

    /** Where its bars begin anew and which sessions make them. */
    public Optional<BarSettings> bars() {
        return read(() -> StrategyReader.bars(root().at("signal")));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof StrategyDraft draft && draft.document.equals(document);
    }

    @Override
    public int hashCode() {
        return document.hashCode();
    }
}
