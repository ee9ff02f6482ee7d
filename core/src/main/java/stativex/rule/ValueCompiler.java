package stativex.rule;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.tree.TerminalNode;
import stativex.market.Drawing;
import stativex.market.Words;
import stativex.rule.grammar.RuleParser;
import stativex.study.OutputColumn;
import stativex.study.StudyProblem;
import stativex.study.Unit;

/**
 * Makes values of a rule's form, on one series, with their units: prices and distances of two contracts are never mixed, a bare
 * number takes the unit of what stands beside it.
 */
final class ValueCompiler {
    private static final int MOST_BARS = 1_000_000;

    private final Scope scope;
    private final Program program;
    private final Compiler conditions;

    ValueCompiler(Scope scope, Compiler conditions) {
        this.scope = scope;
        this.program = scope.program();
        this.conditions = conditions;
    }

    /** Two values that are to be compared. */
    Value[] pair(ParserRuleContext place, RuleParser.SumContext a, RuleParser.SumContext b) {
        Value left = ordered(a);
        Value right = ordered(b);
        left = literalAs(left, right.unit(), right.ticks());
        right = literalAs(right, left.unit(), left.ticks());
        if (left.unit() != right.unit()) {
            throw Reading.problem(place, Reading.words(a) + " is " + left.unit().words() + " and " + Reading.words(b)
                    + " is " + right.unit().words() + ": they cannot be compared");
        }
        together(place, a, left, b, right);
        return new Value[]{left, right};
    }

    /** Prices and distances of two contracts are of unlike ticks. */
    private static void together(ParserRuleContext place, ParserRuleContext a, Value left, ParserRuleContext b,
            Value right) {
        if (left.ticks().with(right.ticks()).isEmpty()) {
            throw Reading.problem(place, Reading.words(a) + " counts ticks of " + left.ticks().words() + " and "
                    + Reading.words(b) + " those of " + right.ticks().words()
                    + ": they cannot be mixed; plain numbers of both can, such as a rate of change or an RSI");
        }
    }

    Value ordered(RuleParser.SumContext context) {
        Value value = sum(context);
        if (value.unit() == Unit.FLAG) {
            throw Reading.problem(context, Reading.words(context)
                    + " is a yes or no, a condition by itself: it is not compared");
        }
        return value;
    }

    /** A bare number takes the unit of what stands beside it: beside a price or a distance it counts price units as written. */
    Value literalAs(Value value, Unit unit, Ticks of) {
        if (!isBare(value) || unit == Unit.NUMBER || unit == Unit.FLAG) {
            return value;
        }
        double ticks = BigDecimal.valueOf(((Values.Literal) value).number())
                .divide(program.tickSize(of), MathContext.DECIMAL64).doubleValue();
        return scope.add(new Values.Literal(value.text(), ticks, unit));
    }

    private static boolean isBare(Value value) {
        return value instanceof Values.Literal && value.unit() == Unit.NUMBER;
    }

    Value sum(RuleParser.SumContext context) {
        Value value = product(context.product(0));
        StringBuilder words = new StringBuilder(Reading.words(context.product(0)));
        for (int i = 1; i < context.product().size(); i++) {
            char operator = context.getChild(2 * i - 1).getText().charAt(0);
            Value right = product(context.product(i));
            words.append(' ').append(operator).append(' ').append(Reading.words(context.product(i)));
            if (isBare(value) && isBare(right)) {
                value = worked(words.toString(), operator, value, right);
                continue;
            }
            // what is added to a price is a distance; a price is taken from a number that is one
            right = literalAs(right, value.unit() == Unit.LEVEL ? Unit.DISTANCE : value.unit(), value.ticks());
            value = literalAs(value, right.unit() == Unit.LEVEL && operator == '+' ? Unit.DISTANCE : right.unit(),
                    right.ticks());
            Value second = right;
            Unit unit = added(context, operator, value, right);
            together(context, context.product(i - 1), value, context.product(i), right);
            Value left = value;
            String text = words.toString();
            value = keptValue(text, () -> new Derived.Arithmetic(text, operator, left, second, unit));
        }
        return value;
    }

    /** Two plain numbers are one, which takes the unit of what stands beside it like any other. */
    private Value worked(String words, char operator, Value left, Value right) {
        double a = ((Values.Literal) left).number();
        double b = ((Values.Literal) right).number();
        return scope.add(new Values.Literal(words, switch (operator) {
            case '+' -> a + b;
            case '-' -> a - b;
            default -> a * b;
        }, Unit.NUMBER));
    }

    private Value keptValue(String words, java.util.function.Supplier<Value> maker) {
        return scope.knownValue(words).orElseGet(() -> scope.keep(words, maker.get()));
    }

    private Unit added(ParserRuleContext place, char operator, Value left, Value right) {
        Unit a = left.unit();
        Unit b = right.unit();
        if (a == b && a != Unit.LEVEL && a != Unit.FLAG) {
            return a;
        }
        if (a == Unit.LEVEL && b == Unit.LEVEL && operator == '-') {
            return Unit.DISTANCE;
        }
        if (a == Unit.LEVEL && b == Unit.DISTANCE || a == Unit.DISTANCE && b == Unit.LEVEL && operator == '+') {
            return Unit.LEVEL;
        }
        throw Reading.problem(place, a.words() + " " + operator + " " + b.words() + " has no meaning");
    }

    private Value product(RuleParser.ProductContext context) {
        Value value = unary(context.unary(0));
        StringBuilder words = new StringBuilder(Reading.words(context.unary(0)));
        for (int i = 1; i < context.unary().size(); i++) {
            char operator = context.getChild(2 * i - 1).getText().charAt(0);
            Value right = unary(context.unary(i));
            words.append(' ').append(operator).append(' ').append(Reading.words(context.unary(i)));
            if (operator == '*' && isBare(value) && isBare(right)) {
                value = worked(words.toString(), operator, value, right);
                continue;
            }
            Unit a = value.unit();
            Unit b = right.unit();
            Unit unit;
            if (b == Unit.NUMBER && (a == Unit.NUMBER || a == Unit.DISTANCE)) {
                unit = a;
            } else if (operator == '*' && a == Unit.NUMBER && b == Unit.DISTANCE) {
                unit = Unit.DISTANCE;
            } else if (operator == '/' && a == Unit.DISTANCE && b == Unit.DISTANCE) {
                unit = Unit.NUMBER;
            } else {
                throw Reading.problem(context, a.words() + " " + operator + " " + b.words() + " has no meaning");
            }
            together(context, context.unary(i - 1), value, context.unary(i), right);
            Value left = value;
            String text = words.toString();
            value = keptValue(text, () -> new Derived.Arithmetic(text, operator, left, right, unit));
        }
        return value;
    }

    private Value unary(RuleParser.UnaryContext context) {
        return switch (context) {
            case RuleParser.MinusContext minus -> {
                Value inner = unary(minus.unary());
                if (inner instanceof Values.Literal literal) {
                    yield scope.add(new Values.Literal("-" + inner.text(), -literal.number(), literal.unit()));
                }
                if (inner.unit() == Unit.LEVEL || inner.unit() == Unit.FLAG) {
                    throw Reading.problem(minus, "minus " + inner.unit().words() + " has no meaning");
                }
                String words = Reading.words(minus);
                yield keptValue(words, () -> new Derived.Arithmetic(words, '-',
                        scope.add(new Values.Literal("0", 0, inner.unit())), inner, inner.unit()));
            }
            case RuleParser.PositiveContext positive -> term(positive.term());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Value term(RuleParser.TermContext context) {
        Value value = atom(context.atom());
        StringBuilder words = new StringBuilder(Reading.words(context.atom()));
        for (RuleParser.SuffixContext suffix : context.suffix()) {
            words.append(' ').append(Reading.words(suffix));
            Value of = value;
            String text = words.toString();
            value = switch (suffix) {
                case RuleParser.EarlierContext earlier -> {
                    int bars = bars(earlier.NUMBER());
                    if (of instanceof Values.Literal) {
                        throw Reading.problem(context,
                                "a number is the same at every bar: \"bars before\" needs a name before it");
                    }
                    yield keptValue(text, () -> new Derived.Earlier(text, of, bars));
                }
                case RuleParser.HeldContext held -> {
                    Condition when = conditions.disjunction(held.group().disjunction());
                    yield keptValue(text, () -> new Derived.Held(text, of, when));
                }
                default -> throw new IllegalStateException("unknown form " + suffix.getText());
            };
        }
        return value;
    }

    private Value atom(RuleParser.AtomContext context) {
        String words = Reading.words(context);
        return switch (context) {
            case RuleParser.NumberContext number -> scope.add(new Values.Literal(words,
                    Double.parseDouble(number.NUMBER().getText()),
                    number.TICK() != null || number.TICKS() != null ? Unit.DISTANCE : Unit.NUMBER));
            case RuleParser.SinceEntryContext entry -> fact(entry, Program.Fact.BARS_SINCE_ENTRY);
            case RuleParser.OwnContext own -> fact(own, Program.Fact.valueOf(
                    words.toUpperCase(Locale.ROOT).replace(' ', '_')));
            case RuleParser.PositionContext position -> fact(position, position.RESULT() != null
                    ? Program.Fact.OPEN_RESULT
                    : position.BEST() != null ? Program.Fact.BEST_EXCURSION : Program.Fact.WORST_EXCURSION);
            case RuleParser.SinceContext since -> since(since, words);
            case RuleParser.TimesSinceContext times -> {
                Condition of = conditions.disjunction(times.group().disjunction());
                Anchor anchor = conditions.anchor(times.anchor());
                yield keptValue(words, () -> new Counts.Times(words, of, anchor));
            }
            case RuleParser.TimesLastContext times -> {
                Condition of = conditions.disjunction(times.group().disjunction());
                int bars = bars(times.NUMBER());
                yield keptValue(words, () -> new Counts.TimesLast(words, of, bars));
            }
            case RuleParser.WindowContext window -> window(window, words);
            case RuleParser.DrawnContext drawn -> drawn(drawn, words);
            case RuleParser.FormingContext forming -> forming(forming, words);
            case RuleParser.CallContext call -> call(call, words);
            case RuleParser.NamedContext named -> name(named.name());
            case RuleParser.BracketsContext brackets -> sum(brackets.sum());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Value fact(ParserRuleContext place, Program.Fact fact) {
        if (!scope.isSignal()) {
            throw Reading.problem(place, "a position is known on the signal series only");
        }
        return program.fact(fact);
    }

    private Value since(RuleParser.SinceContext since, String words) {
        if (since.anchor().group() == null) {
            OutputColumn starts = ((Anchor.Open) conditions.anchor(since.anchor())).starts();
            return keptValue(words, () -> new Counts.SinceOpen(words, starts));
        }
        Condition when = conditions.disjunction(since.anchor().group().disjunction());
        return keptValue(words, () -> new Counts.Since(words, when));
    }

    private Value window(RuleParser.WindowContext window, String words) {
        Derived.Figure figure = Derived.Figure.valueOf(Reading.words(window.figure()).toUpperCase(Locale.ROOT)
                .replace(' ', '_'));
        int bars = bars(window.NUMBER());
        if (figure == Derived.Figure.PERCENT_RANK && bars < 2) {
            throw Reading.problem(window.NUMBER().getSymbol(), "expected 2 bars or more to rank among, found 1");
        }
        Value of = term(window.term());
        if (of.unit() == Unit.FLAG) {
            throw Reading.problem(window.term(), Reading.words(window.term())
                    + " is a yes or no: \"times (…) in the last " + bars + " bars\" counts those");
        }
        if (of instanceof Values.Literal) {
            throw Reading.problem(window.term(), "a number is the same at every bar: expected a name");
        }
        if (figure == Derived.Figure.SUM && of.unit() == Unit.LEVEL) {
            throw Reading.problem(window, "prices have no sum: expected highest, lowest, average or median of them");
        }
        return keptValue(words, () -> new Derived.Window(words, figure, of, bars));
    }

    /** What is drawn under a quoted name and is of such a kind. */
    <T extends Drawing> T drawing(TerminalNode quoted, Class<T> kind) {
        String text = quoted.getText();
        String name = text.substring(1, text.length() - 1);
        List<String> known = program.blueprint().drawings().stream().filter(kind::isInstance).map(Drawing::name)
                .toList();
        return program.drawing(name).filter(kind::isInstance).map(kind::cast)
                .orElseThrow(() -> Reading.problem(quoted.getSymbol(), known.isEmpty()
                        ? "nothing is drawn that a rule could name: \"" + name + "\" is not there"
                        : "expected one of " + String.join(", ", known) + "; found \"" + name + "\""
                                + Words.didYouMean(name, known)));
    }

    private Value drawn(RuleParser.DrawnContext context, String words) {
        Drawing drawing = drawing(context.STRING(), Drawing.class);
        return keptValue(words, () -> new Values.Drawn(words, drawing, scope.frame()));
    }

    private Value call(RuleParser.CallContext call, String words) {
        String function = call.NAME().getText();
        List<RuleParser.SumContext> given = call.sum();
        int wants = switch (function) {
            case "abs" -> 1;
            case "min", "max" -> 2;
            default ->
                throw Reading.problem(call.NAME().getSymbol(), "expected abs, min or max before a bracket, found \""
                        + function + "\"" + Words.didYouMean(function, List.of("abs", "min", "max"))
                        + FirstForms.study(Reading.words(call)));
        };
        if (given.size() != wants) {
            throw Reading.problem(call, function + " takes " + wants + (wants == 1 ? " value" : " values") + ", found "
                    + given.size());
        }
        if (wants == 1) {
            Value of = ordered(given.getFirst());
            if (of.unit() == Unit.LEVEL) {
                throw Reading.problem(call, "abs of a price has no meaning");
            }
            return keptValue(words, () -> new Derived.Call(words, (a, b) -> Math.abs(a), of, of, of.unit()));
        }
        Value[] pair = pair(call, given.getFirst(), given.getLast());
        boolean least = function.equals("min");
        return keptValue(words, () -> new Derived.Call(words, least ? Math::min : Math::max, pair[0], pair[1],
                pair[0].unit()));
    }

    /** The column behind a name that can be said here. */
    OutputColumn column(ParserRuleContext place, RuleParser.NameContext name) {
        return place instanceof RuleParser.FormingContext forming
                ? forming(forming, Reading.words(forming)).column()
                : name(name).column();
    }

    private Value name(RuleParser.NameContext context) {
        String text = context.getText();
        String series = scope.isSignal() ? seriesOf(text) : "";
        if (series.isEmpty()) {
            return keptValue(text, () -> new Values.Named(text, column(context, scope, text), scope.ticks()));
        }
        OtherSeries other = program.other(series).orElseThrow();
        return keptValue(text, () -> new Values.Seen(text, other,
                column(context, other.scope(), within(series, text)), false));
    }

    private Value forming(RuleParser.FormingContext context, String words) {
        String text = context.name().getText();
        String series = scope.isSignal() ? seriesOf(text) : "";
        if (series.isEmpty()) {
            throw Reading.problem(context, "forming looks at the unfinished bar of another series, such as"
                    + " forming trend.close: a rule is evaluated when its own bar has closed");
        }
        return keptValue(words, () -> {
            OtherSeries watched = program.watched(series);
            Value seen = new Values.Seen(words, watched,
                    column(context.name(), watched.scope(), within(series, text)), true);
            scope.add(watched);
            return seen;
        });
    }

    /** The further series that a name belongs to: {@code trend.close}, or a study that sits on it; empty for the signal's. */
    private String seriesOf(String text) {
        String first = text.split("\\.")[0];
        if (program.blueprint().series().stream().anyMatch(s -> s.name().equals(first))) {
            return first;
        }
        return program.blueprint().studies().stream().filter(s -> s.name().equals(first)).findFirst()
                .flatMap(s -> s.on()).orElse("");
    }

    private static String within(String series, String text) {
        return text.startsWith(series + ".") ? text.substring(series.length() + 1) : text;
    }

    private OutputColumn column(ParserRuleContext place, Scope where, String text) {
        Optional<OutputColumn> column;
        try {
            column = where.column(text);
        } catch (StudyProblem e) {
            throw Reading.problem(place, e.getMessage());
        }
        return column.orElseThrow(() -> {
            String outputs = where.names().stream().filter(n -> n.startsWith(text + ".")).limit(12)
                    .collect(java.util.stream.Collectors.joining(", "));
            if (!outputs.isEmpty()) {
                return Reading.problem(place, text + " has several values, say which: " + outputs);
            }
            return Reading.problem(place, where.isSignal() || where != scope
                    ? scope.unknown(text)
                    : where.unknown(text));
        });
    }

    static int bars(org.antlr.v4.runtime.tree.TerminalNode number) {
        String bars = number.getText();
        if (!bars.matches("[1-9][0-9]{0,6}") || Integer.parseInt(bars) > MOST_BARS) {
            throw Reading.problem(number.getSymbol(), "expected a whole number of bars from 1 on, found " + bars);
        }
        return Integer.parseInt(bars);
    }
}
