package stativex.rule;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.NoViableAltException;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.TokenStream;
import org.antlr.v4.runtime.misc.Interval;
import stativex.rule.grammar.RuleLexer;
import stativex.rule.grammar.RuleParser;
import stativex.study.Output;
import stativex.study.StudySet;
import stativex.study.Unit;

/**
 * Reads the rule language against the names of a {@link StudySet}. A bare number beside a price is a price in the
 * contract's decimals; a distance carries its unit ({@code 4 ticks}); values of unlike units cannot be compared.
 */
public final class Rules {
    private final StudySet names;
    private final BigDecimal tickSize;

    /** @param tickSize turns prices written in rules into ticks */
    public Rules(StudySet names, BigDecimal tickSize) {
        this.names = names;
        this.tickSize = tickSize;
    }

    /** @throws RuleProblem with the place and what was expected there */
    public Condition condition(String text) {
        return disjunction(parser(text).condition().disjunction());
    }

    /**
     * A price for an order, such as {@code close - 4 ticks}.
     *
     * @throws RuleProblem with the place and what was expected there
     */
    public Value level(String text) {
        RuleParser.SumContext sum = parser(text).level().sum();
        Value value = literalAs(sum(sum), Unit.LEVEL, sum);
        if (value.unit() != Unit.LEVEL) {
            throw problem(sum, "expected a price, found " + value.unit().words());
        }
        return value;
    }

    private RuleParser parser(String text) {
        RuleLexer lexer = new RuleLexer(CharStreams.fromString(text));
        RuleParser parser = new RuleParser(new CommonTokenStream(lexer));
        BaseErrorListener listener = new BaseErrorListener() {
            @Override
            public void syntaxError(Recognizer<?, ?> recognizer, Object symbol, int line, int column, String message,
                    RecognitionException e) {
                String found = symbol instanceof Token token
                        ? token.getType() == Token.EOF ? "the end of the rule" : "\"" + token.getText() + "\""
                        : message.replaceFirst(".*'(.*)'.*", "\"$1\"");
                String expected = switch (recognizer) {
                    // inside a form that could still become two things the parser's own list is that of its beginning
                    case RuleParser ignored when e instanceof NoViableAltException form
                            && form.getStartToken() != form.getOffendingToken() ->
                        "a relation such as > or \"rises through\"" + (open(form) ? ", or a closing bracket" : "");
                    case RuleParser p -> expected(p);
                    default -> "a word, number or sign of the language";
                };
                throw new RuleProblem(line, column + 1, "expected " + expected + ", found " + found);
            }
        };
        lexer.removeErrorListeners();
        lexer.addErrorListener(listener);
        parser.removeErrorListeners();
        parser.addErrorListener(listener);
        return parser;
    }

    /** Whether a bracket is open where the form broke off. */
    private static boolean open(NoViableAltException form) {
        int depth = 0;
        for (int i = 0; i < form.getOffendingToken().getTokenIndex(); i++) {
            String text = form.getInputStream() instanceof TokenStream tokens ? tokens.get(i).getText() : "";
            depth += text.equals("(") ? 1 : text.equals(")") ? -1 : 0;
        }
        return depth > 0;
    }

    private static String expected(RuleParser parser) {
        var tokens = parser.getExpectedTokens();
        if (tokens.contains(RuleParser.NAME)) {
            return "a value (a name or a number)";
        }
        List<String> words = new ArrayList<>();
        for (int type : tokens.toList()) {
            words.add(type == Token.EOF ? "the end" : parser.getVocabulary().getDisplayName(type).replace("'", ""));
        }
        return words.size() == 1 ? words.getFirst() : "one of " + String.join(" ", words);
    }

    private Condition disjunction(RuleParser.DisjunctionContext context) {
        List<Condition> parts = new ArrayList<>();
        context.conjunction().forEach(part -> parts.add(conjunction(part)));
        return parts.size() == 1 ? parts.getFirst() : new Condition.Any(List.copyOf(parts), words(context));
    }

    private Condition conjunction(RuleParser.ConjunctionContext context) {
        List<Condition> parts = new ArrayList<>();
        context.negation().forEach(part -> parts.add(negation(part)));
        return parts.size() == 1 ? parts.getFirst() : new Condition.All(List.copyOf(parts), words(context));
    }

    private Condition negation(RuleParser.NegationContext context) {
        return switch (context) {
            case RuleParser.NotContext not -> new Condition.Not(negation(not.negation()), words(not));
            case RuleParser.PlainContext plain -> relation(plain.relation());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Condition relation(RuleParser.RelationContext context) {
        return switch (context) {
            case RuleParser.ComparisonContext c -> {
                Value[] pair = pair(c, c.sum(0), c.sum(1));
                yield new Condition.Comparison(pair[0], Condition.Relation.of(c.comparator().getText()), pair[1],
                        words(c));
            }
            case RuleParser.CrossContext c -> {
                Value[] pair = pair(c, c.sum(0), c.sum(1));
                yield new Condition.Cross(pair[0], c.crossing().RISES() != null, pair[1], words(c));
            }
            case RuleParser.GroupContext group -> disjunction(group.disjunction());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Value[] pair(ParserRuleContext place, RuleParser.SumContext a, RuleParser.SumContext b) {
        Value left = sum(a);
        Value right = sum(b);
        left = literalAs(left, right.unit(), a);
        right = literalAs(right, left.unit(), b);
        if (left.unit() != right.unit()) {
            throw problem(place, words(a) + " is " + left.unit().words() + " and " + words(b) + " is "
                    + right.unit().words() + ": they cannot be compared");
        }
        return new Value[]{left, right};
    }

    /** A bare number takes the unit of what stands beside it. */
    private Value literalAs(Value value, Unit unit, ParserRuleContext place) {
        if (!(value instanceof Value.Literal literal) || literal.unit() != Unit.NUMBER || unit == Unit.NUMBER) {
            return value;
        }
        if (unit == Unit.DISTANCE) {
            throw problem(place, "a distance needs its unit: write \"" + words(place) + " ticks\"");
        }
        return new Value.Literal(
                BigDecimal.valueOf(literal.value()).divide(tickSize, MathContext.DECIMAL64).doubleValue(), Unit.LEVEL);
    }

    private Value sum(RuleParser.SumContext context) {
        Value value = product(context.product(0));
        for (int i = 1; i < context.product().size(); i++) {
            char operator = context.getChild(2 * i - 1).getText().charAt(0);
            value = add(context, operator, value, product(context.product(i)), context.product(i));
        }
        return value;
    }

    private Value add(ParserRuleContext place, char operator, Value left, Value right, ParserRuleContext rightPlace) {
        Unit a = left.unit();
        Unit b = right.unit();
        if (a == b && a != Unit.LEVEL) {
            return new Value.Arithmetic(operator, left, right, a);
        }
        if (a == Unit.LEVEL && b == Unit.LEVEL && operator == '-') {
            return new Value.Arithmetic(operator, left, right, Unit.DISTANCE);
        }
        if (a == Unit.LEVEL && b == Unit.DISTANCE || a == Unit.DISTANCE && b == Unit.LEVEL && operator == '+') {
            return new Value.Arithmetic(operator, left, right, Unit.LEVEL);
        }
        if (right instanceof Value.Literal && b == Unit.NUMBER) {
            throw problem(rightPlace, "a distance needs its unit: write \"" + words(rightPlace) + " ticks\"");
        }
        throw problem(place, a.words() + " " + operator + " " + b.words() + " has no meaning");
    }

    private Value product(RuleParser.ProductContext context) {
        Value value = unary(context.unary(0));
        for (int i = 1; i < context.unary().size(); i++) {
            char operator = context.getChild(2 * i - 1).getText().charAt(0);
            Value right = unary(context.unary(i));
            Unit a = value.unit();
            Unit b = right.unit();
            Unit unit;
            if (b == Unit.NUMBER && a != Unit.LEVEL) {
                unit = a;
            } else if (operator == '*' && a == Unit.NUMBER && b == Unit.DISTANCE) {
                unit = Unit.DISTANCE;
            } else if (operator == '/' && a == Unit.DISTANCE && b == Unit.DISTANCE) {
                unit = Unit.NUMBER;
            } else {
                throw problem(context, a.words() + " " + operator + " " + b.words() + " has no meaning");
            }
            value = new Value.Arithmetic(operator, value, right, unit);
        }
        return value;
    }

    private Value unary(RuleParser.UnaryContext context) {
        return switch (context) {
            case RuleParser.MinusContext minus -> {
                Value inner = unary(minus.unary());
                yield inner instanceof Value.Literal literal
                        ? new Value.Literal(-literal.value(), literal.unit())
                        : new Value.Arithmetic('-', new Value.Literal(0, inner.unit()), inner, inner.unit());
            }
            case RuleParser.PositiveContext positive -> term(positive.term());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Value term(RuleParser.TermContext context) {
        Value value = atom(context.atom());
        if (context.NUMBER() == null) {
            return value;
        }
        String bars = context.NUMBER().getText();
        if (!bars.matches("[1-9][0-9]{0,5}")) {
            throw problem(context.NUMBER().getSymbol(), "expected a whole number of bars from 1 on, found " + bars);
        }
        if (value instanceof Value.Literal) {
            throw problem(context, "a number is the same at every bar: \"bars before\" needs a name before it");
        }
        return new Value.Earlier(value, Integer.parseInt(bars));
    }

    private Value atom(RuleParser.AtomContext context) {
        return switch (context) {
            case RuleParser.NumberContext number -> new Value.Literal(Double.parseDouble(number.NUMBER().getText()),
                    number.TICK() != null || number.TICKS() != null ? Unit.DISTANCE : Unit.NUMBER);
            case RuleParser.NameContext name -> new Value.Named(named(name));
            case RuleParser.BracketsContext brackets -> sum(brackets.sum());
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Output named(RuleParser.NameContext context) {
        String name = context.getText();
        return names.output(name).orElseThrow(() -> {
            String near = names.names().stream().min(Comparator.comparingInt(n -> distance(n, name))).orElse("");
            String hint = distance(near, name) <= Math.max(2, name.length() / 3)
                    ? "; did you mean \"" + near + "\"?"
                    : "";
            return problem(context, "expected one of " + String.join(", ", names.names()) + "; found \"" + name + "\""
                    + hint);
        });
    }

    /** Edit distance (Levenshtein): insertions, deletions and replacements. */
    private static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            row[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int replace = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.min(replace, 1 + Math.min(row[j], row[j - 1]));
            }
        }
        return row[b.length()];
    }

    private static String words(ParserRuleContext context) {
        Interval range = Interval.of(context.getStart().getStartIndex(), context.getStop().getStopIndex());
        return context.getStart().getInputStream().getText(range).replaceAll("#[^\n]*", "").replaceAll("\\s+", " ")
                .strip();
    }

    private static RuleProblem problem(ParserRuleContext place, String message) {
        return problem(place.getStart(), message);
    }

    private static RuleProblem problem(Token token, String message) {
        return new RuleProblem(token.getLine(), token.getCharPositionInLine() + 1, message);
    }
}
