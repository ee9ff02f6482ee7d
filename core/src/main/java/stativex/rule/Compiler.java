package stativex.rule;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.tree.TerminalNode;
import stativex.market.Drawing;
import stativex.market.Period;
import stativex.market.Words;
import stativex.study.MarkColumn;
import stativex.study.OutputColumn;
import stativex.study.StudyDefinition;
import stativex.rule.grammar.RuleParser;
import stativex.study.Unit;

/**
 * Makes conditions of a rule's form, on one series; {@link ValueCompiler} makes their values. A bare number beside a price is a price in the contract's
 * decimals; a distance carries its unit ({@code 4 ticks}); values of unlike units cannot be compared.
 */
final class Compiler {
    private final Scope scope;
    private final Program program;
    private final ValueCompiler values;

    Compiler(Scope scope) {
        this.scope = scope;
        this.program = scope.program();
        this.values = new ValueCompiler(scope, this);
    }

    /** An output that a name stands for. */
    OutputColumn column(ParserRuleContext place, RuleParser.NameContext name) {
        return values.column(place, name);
    }

    Condition condition(String text) {
        return disjunction(Reading.condition(text).disjunction());
    }

    Value value(String text) {
        return values.sum(Reading.value(text).sum());
    }

    Value level(String text) {
        RuleParser.SumContext sum = Reading.value(text).sum();
        Value value = values.literalAs(values.sum(sum), Unit.LEVEL, Ticks.OWN);
        if (value.unit() != Unit.LEVEL) {
            throw Reading.problem(sum, "expected a price, found " + value.unit().words());
        }
        if (value.ticks().foreign().isPresent()) {
            throw Reading.problem(sum, "expected a price of the contract that is traded, found one of "
                    + value.ticks().words());
        }
        return value;
    }

    /** What is wrong with each of the conditions that must all hold. */
    List<RuleProblem> problems(String text) {
        List<RuleProblem> problems = new ArrayList<>();
        for (RuleParser.ConjunctionContext conjunction : Reading.condition(text).disjunction().conjunction()) {
            for (RuleParser.NegationContext part : conjunction.negation()) {
                try {
                    negation(part);
                } catch (RuleProblem e) {
                    problems.add(e);
                }
            }
        }
        return problems;
    }

    /** Which of the conditions that must all hold can never hold, or always do. */
    List<RuleProblem> doubts(String text) {
        List<RuleProblem> doubts = new ArrayList<>();
        RuleParser.DisjunctionContext whole = Reading.condition(text).disjunction();
        if (whole.conjunction().size() > 1 && disjunction(whole).constant().equals(Optional.of(true))) {
            return List.of(Reading.problem(whole, "the rule is always true"));
        }
        for (RuleParser.ConjunctionContext conjunction : whole.conjunction()) {
            for (RuleParser.NegationContext part : conjunction.negation()) {
                negation(part).constant().ifPresent(held -> doubts.add(Reading.problem(part, Reading.words(part)
                        + (held
                                ? " is always true: it decides nothing"
                                : " is never true: the rule waits for it in vain"))));
            }
        }
        return doubts;
    }

    // ------------------------------------------------------------------ conditions

    Condition disjunction(RuleParser.DisjunctionContext context) {
        List<Condition> parts = new ArrayList<>();
        context.conjunction().forEach(part -> parts.add(conjunction(part)));
        String words = Reading.words(context);
        return parts.size() == 1
                ? parts.getFirst()
                : kept(words, () -> new Combined.Joined(words, List.copyOf(parts), false));
    }

    private Condition conjunction(RuleParser.ConjunctionContext context) {
        List<Condition> parts = new ArrayList<>();
        context.negation().forEach(part -> parts.add(negation(part)));
        String words = Reading.words(context);
        return parts.size() == 1
                ? parts.getFirst()
                : kept(words, () -> new Combined.Joined(words, List.copyOf(parts), true));
    }

    private Condition negation(RuleParser.NegationContext context) {
        return switch (context) {
            case RuleParser.NotContext not -> {
                Condition inner = negation(not.negation());
                String words = Reading.words(not);
                yield kept(words, () -> new Combined.Not(words, inner));
            }
            case RuleParser.PlainContext plain -> timed(plain.timed());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Condition timed(RuleParser.TimedContext context) {
        Condition condition = relation(context.relation());
        String words = Reading.words(context.relation());
        for (RuleParser.TimingContext timing : context.timing()) {
            Condition of = condition;
            words = words + " " + Reading.words(timing);
            String text = words;
            condition = switch (timing) {
                case RuleParser.OnAnyContext any ->
                    kept(text, () -> new Combined.Lately(text, of, false, ValueCompiler.bars(any.NUMBER())));
                case RuleParser.OnEachContext each ->
                    kept(text, () -> new Combined.Lately(text, of, true, ValueCompiler.bars(each.NUMBER())));
                case RuleParser.FirstTimeContext first -> {
                    Anchor anchor = anchor(first.anchor());
                    yield kept(text, () -> new Combined.FirstTime(text, of, anchor));
                }
                case RuleParser.ShiftedContext shifted -> {
                    int bars = ValueCompiler.bars(shifted.NUMBER());
                    yield kept(text, () -> new Combined.Shifted(text, of, bars));
                }
                default -> throw new IllegalStateException("unknown form " + timing.getText());
            };
        }
        return condition;
    }

    private Condition kept(String words, java.util.function.Supplier<Condition> maker) {
        return scope.known(words).orElseGet(() -> scope.keep(words, maker.get()));
    }

    Anchor anchor(RuleParser.AnchorContext context) {
        if (context.group() != null) {
            return new Anchor.Event(disjunction(context.group().disjunction()));
        }
        return new Anchor.Open(scope.starts(Period.valueOf(context.period().getText().toUpperCase(
                Locale.ROOT))));
    }

    private Condition relation(RuleParser.RelationContext context) {
        String words = Reading.words(context);
        return switch (context) {
            case RuleParser.ComparisonContext c -> {
                Value[] pair = values.pair(c, c.sum(0), c.sum(1));
                Conditions.Relation relation = Conditions.Relation.of(Reading.words(c.comparator()));
                yield kept(words, () -> new Conditions.Comparison(words, pair[0], relation, pair[1]));
            }
            case RuleParser.CrossContext c -> {
                Value[] pair = values.pair(c, c.sum(0), c.sum(1));
                boolean rises = c.crossing().RISES() != null;
                yield kept(words, () -> new Conditions.Cross(words, pair[0], rises, pair[1]));
            }
            case RuleParser.SlopeContext s -> {
                Value value = values.ordered(s.sum());
                int way = s.trend().RISING() != null ? 1 : s.trend().FALLING() != null ? -1 : 0;
                int bars = s.NUMBER() == null ? 1 : ValueCompiler.bars(s.NUMBER());
                yield kept(words, () -> new Conditions.Slope(words, value, way, bars));
            }
            case RuleParser.WithinContext w -> {
                Value[] low = values.pair(w, w.sum(0), w.sum(1));
                Value[] high = values.pair(w, w.sum(0), w.sum(2));
                yield kept(words, () -> new Conditions.Within(words, low[0], low[1], high[1]));
            }
            case RuleParser.HoursContext h -> hours(words, h.TIMEOFDAY(0), h.TIMEOFDAY(1), h.zone());
            case RuleParser.ClockBetweenContext h -> hours(words, h.TIMEOFDAY(0), h.TIMEOFDAY(1), h.zone());
            case RuleParser.ClockSideContext c -> {
                LocalTime at = time(c.TIMEOFDAY().getSymbol());
                if (at.equals(LocalTime.MIDNIGHT)) {
                    throw Reading.problem(c, "midnight has nothing " + (c.AFTER() != null
                            ? "before it to tell it from: every bar is after 00:00"
                            : "before it: no bar is before 00:00"));
                }
                yield hours(words, c.AFTER() != null ? at : LocalTime.MIDNIGHT,
                        c.AFTER() != null ? LocalTime.MIDNIGHT : at, c.zone());
            }
            case RuleParser.OnDayContext d -> {
                DayOfWeek day = DayOfWeek.valueOf(d.WEEKDAY().getText().toUpperCase(Locale.ROOT));
                yield kept(words, () -> new Conditions.OnDay(words, day, scope.frame()));
            }
            case RuleParser.MarkedContext m -> marked(words, m);
            case RuleParser.GroupedContext g -> disjunction(g.group().disjunction());
            case RuleParser.FlaggedContext f -> {
                Value value = values.sum(f.sum());
                if (value.unit() != Unit.FLAG) {
                    throw Reading.problem(f, Reading.words(f) + " is " + value.unit().words()
                            + ": expected a relation such as > or \"rises through\" and a second value");
                }
                yield kept(words, () -> new Conditions.Flag(words, value, () -> beside(words)));
            }
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Condition marked(String words, RuleParser.MarkedContext context) {
        int bars = context.NUMBER() == null ? 1 : ValueCompiler.bars(context.NUMBER());
        if (context.DRAWN() != null) {
            if (!context.quality().isEmpty()) {
                throw Reading.problem(context.quality(0), "a mark drawn by hand is spoken of by its name alone");
            }
            Drawing.Marker marker = values.drawing(context.STRING(), Drawing.Marker.class);
            return kept(words, () -> new Marked.ByHand(words, marker, bars, scope.frame()));
        }
        Marked.Named named = named(context);
        List<MarkColumn> marks = named.marks();
        for (RuleParser.QualityContext quality : context.quality()) {
            marks = marks.stream().filter(mark -> is(quality, mark, named.study())).toList();
            if (marks.isEmpty()) {
                throw Reading.problem(quality, "no mark of " + named.text() + " is " + Reading.words(quality));
            }
        }
        List<MarkColumn> asked = marks;
        return kept(words, () -> new Marked.ByStudies(words, asked, bars));
    }

    /** The marks that a condition speaks of, whatever they are like. */
    Marked.Named named(RuleParser.MarkedContext context) {
        String name = context.name().getText();
        return Marked.named(scope, name).orElseThrow(() -> {
            List<String> known = Marked.names(scope);
            return Reading.problem(context.name(), known.isEmpty()
                    ? "no study of this series draws marks: swing and divergence do, and formulas that are a yes or no"
                    : "expected a mark of " + String.join(", ", known) + "; found \"" + name + "\""
                            + Words.didYouMean(name, known));
        });
    }

    private static boolean is(RuleParser.QualityContext quality, MarkColumn mark, Scope.Built study) {
        if (quality.POINTING() != null) {
            return mark.shape().way() == (quality.UP() != null ? MarkColumn.Way.UP : MarkColumn.Way.DOWN);
        }
        String word = quality.word().getText();
        List<String> known = quality.SHAPED() != null ? MarkColumn.Form.words() : StudyDefinition.INKS;
        if (!known.contains(word)) {
            throw Reading.problem(quality, "expected one of " + String.join(", ", known) + ", found " + word
                    + Words.didYouMean(word, known));
        }
        return word.equals(quality.SHAPED() != null ? mark.shape().form().word() : study.definition().ink());
    }

    /** What a study takes and its other outputs, beside one that is a yes or no. */
    private List<Value> beside(String output) {
        String name = output.split("\\.")[0];
        List<Value> beside = new ArrayList<>();
        program.blueprint().studies().stream().filter(study -> study.name().equals(name)).findFirst()
                .ifPresent(study -> {
                    if (study.on().isEmpty() || !scope.isSignal()) {
                        study.of().ifPresent(of -> beside.add(value(of)));
                    }
                    Scope of = study.on().filter(on -> scope.isSignal()).flatMap(program::other)
                            .map(OtherSeries::scope).orElse(scope);
                    of.study(study).outputs().stream().map(column -> column.name().isEmpty()
                            ? name
                            : name + "." + column.name()).filter(text -> !text.equals(output))
                            .forEach(text -> beside.add(value(text)));
                });
        return beside;
    }

    private Condition hours(String words, TerminalNode from, TerminalNode to, RuleParser.ZoneContext zone) {
        LocalTime begins = time(from.getSymbol());
        LocalTime ends = time(to.getSymbol());
        if (begins.equals(ends)) {
            throw Reading.problem(to.getSymbol(), "expected hours that end at another time than they begin");
        }
        return hours(words, begins, ends, zone);
    }

    private Condition hours(String words, LocalTime from, LocalTime to, RuleParser.ZoneContext zone) {
        DailyHours hours = new DailyHours(from, to, zone(zone));
        return kept(words, () -> new Conditions.Hours(words, hours, scope.frame()));
    }

    /** The zone that is named, else the exchange's. */
    private ZoneId zone(RuleParser.ZoneContext named) {
        if (named == null) {
            return scope.calendar().zone();
        }
        try {
            return ZoneId.of(named.getText());
        } catch (DateTimeException e) {
            throw Reading.problem(named, "expected an IANA zone such as Pacific/Auckland, found " + named.getText()
                    + Words.didYouMean(named.getText(), ZoneId.getAvailableZoneIds()));
        }
    }

    private static LocalTime time(Token token) {
        try {
            String text = token.getText();
            return LocalTime.parse(text.indexOf(':') == 1 ? "0" + text : text);
        } catch (DateTimeException e) {
            throw Reading.problem(token, "expected a time of day from 00:00 to 23:59, found " + token.getText());
        }
    }
}
