package stativex.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.antlr.v4.runtime.ParserRuleContext;
import stativex.rule.grammar.RuleParser;

/**
 * A rule as rows, one for each condition that must hold: a value, a relation, a value, a timing. The text is the truth; a
 * row knows the words it stands for, and changing a row changes only those, so comments and the rest stay. What a row
 * cannot express is one row of text, never lost.
 */
public final class RuleRows {
    /** The relations a row offers. */
    public static final List<String> RELATIONS = List.of("is above", "is below", "is at least", "is at most", "=",
            "is not", "is between",
            "rises through", "falls through", "is rising", "is falling", "is flat", "holds");

    /** The timings a row offers, besides none; N is a number of bars. */
    public static final List<String> TIMINGS = List.of("on any of the last", "on each of the last",
            "for the first time since session open");

    /**
     * A row in parts.
     *
     * @param right empty where the relation has no second value; after a slope {@code 10 bars}
     * @param timing one of {@link #TIMINGS}, with its bars: {@code on any of the last 4 bars}; empty for none
     */
    public record Parts(String left, String relation, String right, String timing) {
        /** As it is written. */
        public String text() {
            String base = switch (relation) {
                case "holds" -> left;
                case "is rising", "is falling", "is flat" ->
                    left + " " + relation + (right.isEmpty() ? "" : " over " + right);
                default -> left + " " + sign(relation) + " " + right;
            };
            return timing.isEmpty() ? base : base + " " + timing;
        }
    }

    /**
     * @param from where its words begin in the rule's text, from 0; {@code to} is behind them
     * @param parts empty: it is a row of text
     */
    public record Row(int from, int to, String text, Optional<Parts> parts) {}

    private final String text;
    private final List<Row> rows;

    private RuleRows(String text, List<Row> rows) {
        this.text = text;
        this.rows = List.copyOf(rows);
    }

    /** @throws RuleProblem when the text is no rule */
    public static RuleRows of(String text) {
        List<Row> rows = new ArrayList<>();
        if (!Reading.isEmpty(text)) {
            RuleParser.DisjunctionContext whole = Reading.condition(text).disjunction();
            if (whole.conjunction().size() > 1) {
                rows.add(row(whole, Optional.empty()));
            } else {
                whole.conjunction(0).negation().forEach(part -> rows.add(row(part, parts(part))));
            }
        }
        return new RuleRows(text, rows);
    }

    public List<Row> rows() {
        return rows;
    }

    private static Row row(ParserRuleContext context, Optional<Parts> parts) {
        return new Row(context.getStart().getStartIndex(), context.getStop().getStopIndex() + 1,
                Reading.words(context), parts);
    }

    private static Optional<Parts> parts(RuleParser.NegationContext context) {
        if (!(context instanceof RuleParser.PlainContext plain) || plain.timed().timing().size() > 1) {
            return Optional.empty();
        }
        String timing = plain.timed().timing().isEmpty() ? "" : Reading.words(plain.timed().timing(0));
        boolean known = timing.isEmpty() || TIMINGS.stream().anyMatch(timing::startsWith);
        if (!known) {
            return Optional.empty();
        }
        return switch (plain.timed().relation()) {
            case RuleParser.ComparisonContext c -> Optional.of(new Parts(Reading.words(c.sum(0)),
                    words(Reading.words(c.comparator())), Reading.words(c.sum(1)), timing));
            case RuleParser.CrossContext c -> Optional.of(new Parts(Reading.words(c.sum(0)),
                    Reading.words(c.crossing()), Reading.words(c.sum(1)), timing));
            case RuleParser.SlopeContext s -> Optional.of(new Parts(Reading.words(s.sum()),
                    "is " + s.trend().getText(),
                    s.NUMBER() == null ? "" : s.NUMBER().getText() + " " + s.bars().getText(), timing));
            case RuleParser.WithinContext w -> Optional.of(new Parts(Reading.words(w.sum(0)), "is between",
                    Reading.words(w.sum(1)) + " and " + Reading.words(w.sum(2)), timing));
            case RuleParser.MarkedContext m -> Optional.of(new Parts(Reading.words(m), "holds", "", timing));
            case RuleParser.FlaggedContext f -> Optional.of(new Parts(Reading.words(f.sum()), "holds", "", timing));
            default -> Optional.empty();
        };
    }

    private static String words(String sign) {
        return switch (sign) {
            case ">" -> "is above";
            case "<" -> "is below";
            case ">=" -> "is at least";
            case "<=" -> "is at most";
            case "!=" -> "is not";
            default -> sign;
        };
    }

    private static String sign(String words) {
        return switch (words) {
            case "is above" -> ">";
            case "is below" -> "<";
            case "is at least" -> ">=";
            case "is at most" -> "<=";
            case "is not" -> "!=";
            default -> words;
        };
    }

    /** The rule's text with other words for one row. */
    public String with(int row, String words) {
        return new StringBuilder(text).replace(rows.get(row).from(), rows.get(row).to(), words).toString();
    }

    /** The rule's text with one condition more. */
    public String adding(String words) {
        if (rows.isEmpty()) {
            return text.isBlank() ? words : text.stripTrailing() + "\n" + words;
        }
        boolean or = rows.size() == 1 && Reading.condition(text).disjunction().conjunction().size() > 1;
        String before = or ? with(0, "(" + text.substring(rows.getFirst().from(), rows.getFirst().to()) + ")") : text;
        int end = or ? rows.getLast().to() + 2 : rows.getLast().to();
        return before.substring(0, end) + "\nand " + words + before.substring(end);
    }

    /** The rule's text without one row and its {@code and}. */
    public String without(int row) {
        if (rows.size() == 1) {
            return new StringBuilder(text).delete(rows.getFirst().from(), rows.getFirst().to()).toString().strip();
        }
        // the "and" before it, or for the first row the one behind it
        int from = row == 0 ? rows.getFirst().from() : Reading.wordBefore(text, rows.get(row).from(), "and");
        int to = row == 0 ? rows.get(1).from() : rows.get(row).to();
        String kept = text.substring(0, from);
        return row == 0 ? kept + text.substring(to) : kept.stripTrailing() + text.substring(to);
    }
}
