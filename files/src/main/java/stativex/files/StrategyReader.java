package stativex.files;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import stativex.account.Account;
import stativex.account.DayLimits;
import stativex.account.Guard;
import stativex.engine.SignalPlan;
import stativex.engine.Sizing;
import stativex.engine.Strategy;
import stativex.exit.ExitPlan;
import stativex.interlock.CoolDown;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Decimals;
import stativex.market.DrawnPoints;
import stativex.market.TapeTime;
import stativex.order.Order;
import stativex.rule.Blueprint;
import stativex.study.Studies;
import stativex.study.StudyDefinition;
import stativex.study.StudyProblem;
import tools.jackson.databind.JsonNode;

/** Reads what a strategy document states, place by place; it follows its schema already. */
final class StrategyReader {
    private static final Set<String> OF_EVERY_STUDY = Set.of("name", "study", "of", "on");

    private StrategyReader() {}

    static Strategy strategy(Field root, String version, ExitPlan plan) {
        Strategy.Entry entry = entry(root.at("entry"));
        Strategy.Sides sides = root.checked(() -> new Strategy.Sides(root.maybe("long").map(StrategyReader::side),
                root.maybe("short").map(StrategyReader::side)));
        return root.checked(() -> new Strategy(root.at("name").text(), version, root.at("contract").text(),
                signals(root), sides, entry, limits(root, Strategy.largest(sides, entry)), plan,
                root.maybe("historyDays").map(Field::integer).orElse(0)));
    }

    private static Strategy.Limits limits(Field root, int largest) {
        return new Strategy.Limits(root.maybe("maximumPosition").map(Field::integer).orElse(largest),
                new Strategy.Joins(flag(root, "adds"), flag(root, "reverse"), flag(root, "twoSided"),
                        flag(root, "cut")),
                root.items("windows").stream().map(StrategyReader::window).toList(),
                root.maybe("tradesADay").map(Field::integer), root.maybe("once").map(Field::flag).orElse(false),
                root.maybe("coolDown").map(StrategyReader::coolDown),
                root.maybe("largestSpreadTicks").map(Field::integer), dayLimits(root));
    }

    /** What a day may lose and win: real switches, a guard only where it is written. */
    static DayLimits dayLimits(Field of) {
        return of.checked(() -> new DayLimits(
                of.maybe("dayLoss").filter(f -> f.at("on").flag()).map(f -> f.checked(
                        () -> new Account.DayLoss(f.at("amount").money(), Documents.guard(f, Guard.OFF)))),
                of.maybe("dayProfit").filter(f -> f.at("on").flag()).map(f -> f.at("amount").money())));
    }

    private static boolean flag(Field of, String name) {
        return of.maybe(name).map(Field::flag).orElse(false);
    }

    static CoolDown coolDown(Field cool) {
        return cool.checked(() -> new CoolDown(whole(cool, "bars"), whole(cool, "minutes"),
                cool.maybe("onlyAfterLosses").map(Field::flag).orElse(false)));
    }

    private static OptionalInt whole(Field of, String name) {
        return of.has(name) ? OptionalInt.of(of.at(name).integer()) : OptionalInt.empty();
    }

    /** What it looks at and when it judges. */
    static SignalPlan signals(Field root) {
        List<Blueprint.SeriesDefinition> series = root.items("series").stream().map(StrategyReader::series).toList();
        List<SignalPlan.Filter> filters = root.items("filters").stream().map(StrategyReader::filter).toList();
        return root.checked(() -> new SignalPlan(bars(root.at("signal")), series,
                root.items("studies").stream().map(StrategyReader::study).toList(),
                drawings(root),
                filters, confirmation(root), evaluate(root), most(root)));
    }

    /** What rules may name as drawn; a name stands once. */
    static List<DrawnPoints> drawings(Field root) {
        Map<String, Field.Placed<DrawnPoints>> drawings = new LinkedHashMap<>();
        for (Field field : root.items("drawings")) {
            DrawnPoints drawn = field.checked(() -> DrawingFile.points(field.node()));
            field.putOnce(drawings, drawn.name(), drawn, "the drawn name \"" + drawn.name() + "\"");
        }
        return drawings.values().stream().map(Field.Placed::value).toList();
    }

    static Blueprint.SeriesDefinition series(Field field) {
        return new Blueprint.SeriesDefinition(field.at("name").text(), bars(field),
                field.maybe("contract").map(Field::text));
    }

    static SignalPlan.Filter filter(Field field) {
        return new SignalPlan.Filter(field.at("name").text(), field.maybe("on").map(Field::flag).orElse(true),
                field.maybe("long").map(Field::text), field.maybe("short").map(Field::text));
    }

    static SignalPlan.Evaluate evaluate(Field root) {
        return root.maybe("evaluate").map(Field::text).orElse("bar close").equals("bar close")
                ? SignalPlan.Evaluate.BAR_CLOSE
                : SignalPlan.Evaluate.EVERY_TRADE;
    }

    static Optional<SignalPlan.Most> most(Field root) {
        return root.maybe("signalsPerPeriod").map(f -> f.checked(
                () -> new SignalPlan.Most(f.at("most").integer(), within(f.at("period").text()))));
    }

    static Optional<Integer> confirmation(Field root) {
        return root.maybe("confirmWithinBars").map(Field::integer);
    }

    private static SignalPeriod within(String word) {
        return java.util.Arrays.stream(SignalPeriod.values()).filter(w -> w.word().equals(word)).findFirst()
                .orElseThrow();
    }

    /** Bars as they are asked for. */
    static BarSettings bars(Field field) {
        return field.checked(() -> new BarSettings(type(field),
                BarSettings.Restart.valueOf(
                        field.maybe("restart").map(Field::text).orElse("session").toUpperCase(Locale.ROOT)),
                field.maybe("anchor").map(Field::date),
                field.items("sessions").stream().map(Field::text).collect(Collectors.toSet())));
    }

    private static BarType type(Field field) {
        String word = field.at("bars").text();
        boolean sized = !Set.of("day", "week", "month").contains(word);
        if (sized != field.has("size")) {
            throw field.problem(sized
                    ? "expected the field \"size\" for " + word + " bars, found none"
                    : "day, week and month bars have no size");
        }
        if (word.equals("renko") != field.has("turn")) {
            throw field.problem(word.equals("renko")
                    ? "expected the field \"turn\" for renko bars, found none"
                    : "only renko bars turn");
        }
        if (sized && !word.equals("seconds")) {
            field.at("size").integer();
        }
        return switch (word) {
            case "tick" -> new BarType.Ticks(field.at("size").integer());
            case "volume" -> new BarType.Volume(field.at("size").integer());
            case "range" -> new BarType.Range(field.at("size").integer());
            case "seconds" -> new BarType.Time(
                    field.at("size").node().decimalValue().movePointRight(9).longValueExact());
            case "renko" -> new BarType.Renko(field.at("size").integer(), field.at("turn").integer());
            default -> BarType.Period.valueOf(word.toUpperCase(Locale.ROOT));
        };
    }

    static Strategy.Entry entry(Field entry) {
        return entry.checked(() -> new Strategy.Entry(
                Order.Type.valueOf(entry.at("order").text().toUpperCase(Locale.ROOT).replace('-', '_')),
                entry.at("quantity").integer(), goodFor(entry), flag(entry, "reprice"),
                entry.maybe("marketAfterSeconds").map(Field::integer), flag(entry, "roundTowardMarket"),
                entry.maybe("limitTicks").map(Field::integer).orElse(0),
                new Strategy.Risk(sizing(entry), entry.maybe("riskCap").map(Field::money))));
    }

    private static Optional<Sizing> sizing(Field entry) {
        if (entry.has("riskMoney") && entry.has("riskPercent")) {
            throw entry.problem("expected riskMoney or riskPercent, found both");
        }
        return entry.has("riskMoney")
                ? Optional.of(new Sizing.Amount(entry.at("riskMoney").money()))
                : entry.maybe("riskPercent").map(percent -> new Sizing.Percent(percent.as(Decimals::plain)));
    }

    private static Strategy.GoodFor goodFor(Field entry) {
        if (entry.has("goodFor") && entry.has("goodForBars")) {
            throw entry.problem("expected goodFor or goodForBars, found both");
        }
        if (entry.has("goodForBars")) {
            return new Strategy.GoodFor.Bars(entry.at("goodForBars").integer());
        }
        return entry.maybe("goodFor").map(Field::text).orElse("day").equals("day")
                ? new Strategy.GoodFor.Day()
                : new Strategy.GoodFor.UntilCancelled();
    }

    static Strategy.SideRule side(Field field) {
        return field.checked(() -> new Strategy.SideRule(field.at("rule").text(),
                field.maybe("price").map(Field::text),
                field.items("grades").stream().map(StrategyReader::grade).toList(),
                field.items("enters").stream().map(Field::text).toList(),
                field.maybe("entry").map(StrategyReader::entry)));
    }

    static Strategy.Grade grade(Field field) {
        return new Strategy.Grade(field.at("name").text(), field.at("rule").text());
    }

    /** A study; what is wrong with its fields is said of their place. */
    static StudyDefinition study(Field field) {
        StudyDefinition study = studyAsWritten(field);
        if (study.kind().equals(StudyDefinition.FORMULA) && study.of().isEmpty()) {
            throw field.problem("expected the field \"of\" for a formula: a value in the rule language");
        }
        try {
            Studies.check(study);
        } catch (StudyProblem e) {
            throw (field.has(e.field()) ? field.at(e.field()) : field).problem(e.what());
        }
        return study;
    }

    /** A study, right or wrong. */
    static StudyDefinition studyAsWritten(Field field) {
        Map<String, String> settings = new LinkedHashMap<>();
        for (Map.Entry<String, JsonNode> entry : new ArrayList<>(field.node().properties())) {
            if (!OF_EVERY_STUDY.contains(entry.getKey())) {
                settings.put(entry.getKey(), entry.getValue().isNumber()
                        ? entry.getValue().decimalValue().toPlainString()
                        : field.at(entry.getKey()).text());
            }
        }
        return new StudyDefinition(field.at("name").text(), field.at("study").text(),
                field.maybe("of").map(Field::text), field.maybe("on").map(Field::text), settings);
    }

    static SessionWindow window(Field field) {
        SessionWindow.End end = switch (field.at("end").text()) {
            case "flatten" -> SessionWindow.End.FLATTEN;
            case "cancel" -> SessionWindow.End.CANCEL;
            default -> SessionWindow.End.STOP_ENTERING;
        };
        return new SessionWindow(field.at("name").text(), field.days("days"), field.at("from").time(),
                field.at("to").time(), field.at("zone").zone(), end,
                field.maybe("leadSeconds").map(Field::integer).orElse(30) * TapeTime.SECOND,
                field.checked(() -> new SessionWindow.Limits(field.maybe("loss").map(Field::money),
                        field.maybe("profit").map(Field::money), flag(field, "untilNextDay"))));
    }
}
