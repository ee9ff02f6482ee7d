package stativex.rule;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.antlr.v4.runtime.ParserRuleContext;
import stativex.rule.grammar.RuleParser;
import stativex.study.MarkColumn;
import stativex.study.Mirror;
import stativex.study.OutputColumn;
import stativex.study.Unit;

/**
 * Makes the rule of one side from the other's: what holds in a market holds mirrored where every price p is −p and buyers
 * are sellers. Only conditions are rewritten; comments, line breaks and order stay. What nobody can mirror, such as a fixed
 * price, stays as it is and is said.
 */
public final class Mirroring {
    /**
     * @param text the other side's rule
     * @param left conditions that stayed as they were, each with the reason
     */
    public record Result(String text, List<String> left) {}

    /** A value as it is in the mirrored market: {@code whole + sign · text}. */
    private record Seen(String text, int sign, double whole, Unit unit, boolean number) {}

    /** A condition in place of another. */
    private record Change(int from, int to, String text) {}

    private static final class Unmirrored extends RuntimeException {
        private static final long serialVersionUID = 1;

        Unmirrored(String what) {
            super(what, null, false, false);
        }
    }

    private final Compiler compiler;
    private final List<Change> changes = new ArrayList<>();
    private final List<String> left = new ArrayList<>();

    private Mirroring(Compiler compiler) {
        this.compiler = compiler;
    }

    static Result condition(Compiler compiler, String text) {
        Mirroring mirroring = new Mirroring(compiler);
        mirroring.disjunction(Reading.condition(text).disjunction());
        return new Result(mirroring.changed(text, 0), List.copyOf(mirroring.left));
    }

    /** A price of an order. */
    static Result level(Compiler compiler, String text) {
        Mirroring mirroring = new Mirroring(compiler);
        RuleParser.SumContext sum = Reading.value(text).sum();
        try {
            Seen seen = mirroring.sum(sum);
            if (seen.number()) {
                throw new Unmirrored("a fixed price");
            }
            return new Result(seen.text(), List.of());
        } catch (Unmirrored e) {
            return new Result(text, List.of(Reading.words(sum) + ": " + e.getMessage()));
        }
    }

    private String changed(String text, int from) {
        StringBuilder made = new StringBuilder(text);
        changes.stream().sorted(Comparator.comparingInt(Change::from).reversed())
                .forEach(c -> made.replace(c.from() - from, c.to() - from, c.text()));
        return made.toString();
    }

    // ------------------------------------------------------------------ conditions

    private void disjunction(RuleParser.DisjunctionContext context) {
        context.conjunction().forEach(c -> c.negation().forEach(this::negation));
    }

    private void negation(RuleParser.NegationContext context) {
        switch (context) {
            case RuleParser.NotContext not -> negation(not.negation());
            case RuleParser.PlainContext plain -> {
                relation(plain.timed().relation());
                for (RuleParser.TimingContext timing : plain.timed().timing()) {
                    if (timing instanceof RuleParser.FirstTimeContext first && first.anchor().group() != null) {
                        disjunction(first.anchor().group().disjunction());
                    }
                }
            }
            default -> throw new IllegalStateException("unknown form " + context.getText());
        }
    }

    private void relation(RuleParser.RelationContext context) {
        if (context instanceof RuleParser.GroupedContext group) {
            disjunction(group.group().disjunction());
            return;
        }
        try {
            String text = switch (context) {
                case RuleParser.ComparisonContext c -> compared(c.sum(0), Reading.words(c.comparator()), c.sum(1));
                case RuleParser.CrossContext c -> compared(c.sum(0), Reading.words(c.crossing()), c.sum(1));
                case RuleParser.SlopeContext s -> slope(s);
                case RuleParser.WithinContext w -> within(w);
                case RuleParser.HoursContext h -> Reading.source(h);
                case RuleParser.ClockBetweenContext h -> Reading.source(h);
                case RuleParser.ClockSideContext h -> Reading.source(h);
                case RuleParser.OnDayContext d -> Reading.source(d);
                case RuleParser.MarkedContext m -> marked(m);
                case RuleParser.FlaggedContext f -> sum(f.sum()).text();
                default -> throw new IllegalStateException("unknown form " + context.getText());
            };
            changes.add(new Change(context.getStart().getStartIndex(), context.getStop().getStopIndex() + 1, text));
        } catch (Unmirrored e) {
            left.add(Reading.words(context) + ": " + e.getMessage());
        }
    }

    private String marked(RuleParser.MarkedContext m) {
        if (m.name() == null) {
            throw new Unmirrored("what is drawn has no other side");
        }
        Marked.Named named = compiler.named(m);
        String name = named.text();
        if (name.contains(".") || named.marks().getFirst().shape().counterpart().isEmpty()) {
            MarkColumn mark = named.marks().getFirst();
            name = mark.shape().counterpart()
                    .map(other -> named.text().substring(0, named.text().length() - mark.name().length()) + other)
                    .orElseThrow(() -> new Unmirrored(named.text() + " has no other side"));
        }
        StringBuilder text = new StringBuilder(m.MARK().getText()).append(' ').append(name);
        for (RuleParser.QualityContext quality : m.quality()) {
            text.append(' ').append(quality.UP() != null
                    ? "pointing down"
                    : quality.DOWN() != null ? "pointing up" : Reading.words(quality));
        }
        int stands = m.STANDS().getSymbol().getStartIndex() - m.getStart().getStartIndex();
        return text.append(' ').append(Reading.source(m).substring(stands)).toString();
    }

    private String slope(RuleParser.SlopeContext s) {
        Seen seen = sum(s.sum());
        String words = Reading.source(s).substring(s.sum().getStop().getStopIndex() + 1 - s.getStart().getStartIndex());
        if (seen.sign() < 0) {
            words = words.contains("rising") ? words.replace("rising", "falling") : words.replace("falling", "rising");
        }
        return seen.text() + words;
    }

    /** Between mirrored bounds, which change places where the value changes its sign. */
    private String within(RuleParser.WithinContext w) {
        Seen x = sum(w.sum(0));
        Seen low = sum(w.sum(1));
        Seen high = sum(w.sum(2));
        if (x.unit() == Unit.LEVEL && (low.number() || high.number()) || x.number()) {
            throw new Unmirrored("a fixed price");
        }
        if (x.sign() > 0 && low.sign() > 0 && high.sign() > 0) {
            return x.text() + " is between " + low.text() + " and " + high.text();
        }
        if (x.sign() > 0) {
            throw new Unmirrored("what lies between those");
        }
        return x.text() + " is between " + bound(x, high) + " and " + bound(x, low);
    }

    private static String bound(Seen value, Seen of) {
        return of.sign() < 0 && of.whole() == value.whole() ? of.text() : rest(value.whole() - of.whole(), of);
    }

    private String compared(RuleParser.SumContext a, String relation, RuleParser.SumContext b) {
        Seen x = sum(a);
        Seen y = sum(b);
        if (x.number() && y.unit() == Unit.LEVEL || y.number() && x.unit() == Unit.LEVEL) {
            throw new Unmirrored("a fixed price");
        }
        if (x.sign() > 0 && y.sign() > 0) {
            return x.text() + " " + relation + " " + y.text();
        }
        if (x.sign() < 0 && y.sign() < 0 && x.whole() == y.whole()) {
            return x.text() + " " + flipped(relation) + " " + y.text();
        }
        return x.sign() < 0
                ? x.text() + " " + flipped(relation) + " " + rest(x.whole() - y.whole(), y)
                : rest(y.whole() - x.whole(), x) + " " + flipped(relation) + " " + y.text();
    }

    /** {@code whole − value} as text. */
    private static String rest(double whole, Seen value) {
        if (value.number()) {
            String[] words = value.text().split(" ", 2);
            BigDecimal number = BigDecimal.valueOf(whole).subtract(new BigDecimal(words[0]));
            return plain(number) + (words.length > 1 ? " " + words[1] : "");
        }
        String text = value.text().matches("[a-zA-Z_0-9.]+") ? value.text() : "(" + value.text() + ")";
        return (whole == 0 ? "-" : plain(BigDecimal.valueOf(whole)) + " - ") + text;
    }

    private static String plain(BigDecimal number) {
        return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
    }

    private static String flipped(String relation) {
        return switch (relation) {
            case ">" -> "<";
            case "<" -> ">";
            case ">=" -> "<=";
            case "<=" -> ">=";
            case "is above" -> "is below";
            case "is below" -> "is above";
            case "is at least" -> "is at most";
            case "is at most" -> "is at least";
            case "rises through" -> "falls through";
            case "falls through" -> "rises through";
            default -> relation;
        };
    }

    // ------------------------------------------------------------------ values

    private Seen sum(RuleParser.SumContext context) {
        Seen value = product(context.product(0));
        for (int i = 1; i < context.product().size(); i++) {
            boolean minus = context.getChild(2 * i - 1).getText().equals("-");
            Seen right = product(context.product(i));
            boolean turned = value.sign() != right.sign();
            Unit unit = value.unit() == Unit.LEVEL && right.unit() == Unit.LEVEL
                    ? Unit.DISTANCE
                    : value.unit() == Unit.LEVEL || right.unit() == Unit.LEVEL ? Unit.LEVEL : value.unit();
            value = new Seen(value.text() + (minus != turned ? " - " : " + ") + right.text(), value.sign(),
                    value.whole() + (minus ? -right.whole() : right.whole()), unit, false);
        }
        return value;
    }

    private Seen product(RuleParser.ProductContext context) {
        Seen value = unary(context.unary(0));
        for (int i = 1; i < context.unary().size(); i++) {
            Seen right = unary(context.unary(i));
            if (value.whole() != 0 || right.whole() != 0) {
                throw new Unmirrored("what " + Reading.words(context) + " is mirrored");
            }
            String operator = context.getChild(2 * i - 1).getText();
            Unit unit = value.unit() == Unit.NUMBER && operator.equals("*") ? right.unit() : value.unit();
            value = new Seen(value.text() + " " + operator + " " + right.text(), value.sign() * right.sign(), 0, unit,
                    false);
        }
        return value;
    }

    private Seen unary(RuleParser.UnaryContext context) {
        if (context instanceof RuleParser.MinusContext minus) {
            Seen inner = unary(minus.unary());
            return new Seen("-" + inner.text(), inner.sign(), -inner.whole(), inner.unit(), inner.number());
        }
        return term(((RuleParser.PositiveContext) context).term());
    }

    private Seen term(RuleParser.TermContext context) {
        Seen value = atom(context.atom());
        for (RuleParser.SuffixContext suffix : context.suffix()) {
            String words = suffix instanceof RuleParser.HeldContext held
                    ? "when (" + inner(held.group().disjunction()) + ") first became true"
                    : Reading.words(suffix);
            value = new Seen(value.text() + " " + words, value.sign(), value.whole(), value.unit(), false);
        }
        return value;
    }

    /** The mirrored text of a condition inside a value. */
    private String inner(RuleParser.DisjunctionContext context) {
        Mirroring inside = new Mirroring(compiler);
        inside.disjunction(context);
        if (!inside.left.isEmpty()) {
            throw new Unmirrored(inside.left.getFirst());
        }
        return inside.changed(Reading.source(context), context.getStart().getStartIndex());
    }

    private Seen atom(RuleParser.AtomContext context) {
        return switch (context) {
            case RuleParser.NumberContext n -> new Seen(Reading.words(n), 1, 0,
                    n.TICK() != null || n.TICKS() != null ? Unit.DISTANCE : Unit.NUMBER,
                    true);
            case RuleParser.NamedContext named -> name(named, named.name(), "");
            case RuleParser.FormingContext forming -> name(forming, forming.name(), "forming ");
            case RuleParser.BracketsContext brackets -> {
                Seen inner = sum(brackets.sum());
                yield new Seen("(" + inner.text() + ")", inner.sign(), inner.whole(), inner.unit(), false);
            }
            case RuleParser.CallContext call -> call(call);
            case RuleParser.WindowContext window -> window(window);
            case RuleParser.SinceContext since -> new Seen(since.anchor().group() == null
                    ? Reading.words(since)
                    : "bars since (" + inner(since.anchor().group().disjunction()) + ")", 1, 0, Unit.NUMBER, false);
            case RuleParser.TimesSinceContext times -> new Seen("times (" + inner(times.group().disjunction())
                    + ") since " + (times.anchor().group() == null
                            ? Reading.words(times.anchor())
                            : "(" + inner(times.anchor().group().disjunction()) + ")"),
                    1, 0, Unit.NUMBER, false);
            case RuleParser.TimesLastContext times -> new Seen("times (" + inner(times.group().disjunction())
                    + ") in the last " + times.NUMBER().getText() + " bars", 1, 0, Unit.NUMBER, false);
            case RuleParser.SinceEntryContext entry -> new Seen(Reading.words(entry), 1, 0, Unit.NUMBER, false);
            case RuleParser.OwnContext own -> new Seen(Reading.words(own), 1, 0, Unit.NUMBER, false);
            case RuleParser.PositionContext position ->
                new Seen(Reading.words(position), 1, 0, Unit.DISTANCE, false);
            case RuleParser.DrawnContext drawn -> throw new Unmirrored("what is drawn has no other side");
            default -> throw new IllegalStateException("unknown form " + context.getText());
        };
    }

    private Seen name(ParserRuleContext whole, RuleParser.NameContext name, String before) {
        OutputColumn column = compiler.column(whole, name);
        String text = name.getText();
        if (!column.counterpart().equals(column.name())) {
            text = text.substring(0, text.length() - column.name().length()) + column.counterpart();
        }
        return switch (column.mirror()) {
            case Mirror.Same ignored -> new Seen(before + text, 1, 0, column.unit(), false);
            case Mirror.Negative ignored -> new Seen(before + text, -1, 0, column.unit(), false);
            case Mirror.Rest rest -> new Seen(before + text, -1, rest.whole(), column.unit(), false);
            case Mirror.Unknown ignored -> throw new Unmirrored(name.getText() + " has no other side");
        };
    }

    private Seen window(RuleParser.WindowContext window) {
        String figure = Reading.words(window.figure());
        Seen of = term(window.term());
        if (of.sign() < 0 && figure.endsWith("rank") || figure.equals("sum") && of.whole() != 0) {
            throw new Unmirrored("the " + figure + " of what changes its sign");
        }
        String other = of.sign() > 0
                ? figure
                : figure.equals("highest") ? "lowest" : figure.equals("lowest") ? "highest" : figure;
        return new Seen(other + " " + window.NUMBER().getText() + " of " + of.text(), of.sign(), of.whole(),
                figure.endsWith("rank") ? Unit.NUMBER : of.unit(), false);
    }

    private Seen call(RuleParser.CallContext call) {
        String function = call.NAME().getText();
        Seen a = sum(call.sum(0));
        if (function.equals("abs")) {
            if (a.whole() != 0) {
                throw new Unmirrored("what " + Reading.words(call) + " is mirrored");
            }
            return new Seen("abs(" + a.text() + ")", 1, 0, a.unit(), false);
        }
        Seen b = sum(call.sum(1));
        if (a.sign() != b.sign() || a.whole() != b.whole() || a.number() != b.number() && a.sign() < 0) {
            throw new Unmirrored("what " + Reading.words(call) + " is mirrored");
        }
        String other = a.sign() > 0 ? function : function.equals("min") ? "max" : "min";
        return new Seen(other + "(" + a.text() + ", " + b.text() + ")", a.sign(), a.whole(), a.unit(), false);
    }
}
