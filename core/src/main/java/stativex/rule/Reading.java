package stativex.rule;

import java.util.ArrayList;
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

/** Reads the words of a rule into its form; what is no rule is said with its place and what was expected there. */
final class Reading {
    /** A rule has at most so many characters, words and signs, and brackets, minus signs or nots inside one another. */
    static final int CHARACTERS = 10_000;
    static final int WORDS = 2_000;
    static final int DEPTH = 50;

    private Reading() {}

    /** @throws RuleProblem when a text is longer or deeper than rules may be */
    private static void checkSize(String text) {
        if (text.length() > CHARACTERS) {
            throw new RuleProblem(1, 1, 0, text.length(), "expected at most " + CHARACTERS
                    + " characters, found " + text.length() + ": name parts of it and use the names");
        }
        List<Token> tokens = tokens(text);
        if (tokens.size() - 1 > WORDS) {
            throw problem(tokens.get(WORDS), "expected at most " + WORDS + " words and signs, found "
                    + (tokens.size() - 1) + ": name parts of it and use the names");
        }
        int brackets = 0;
        int prefixes = 0;
        for (Token token : tokens) {
            switch (token.getType()) {
                case RuleLexer.NOT -> prefixes++;
                default -> {
                    prefixes = token.getText().equals("-") ? prefixes + 1 : 0;
                    brackets += token.getText().equals("(") ? 1 : token.getText().equals(")") ? -1 : 0;
                }
            }
            if (brackets + prefixes > DEPTH) {
                throw problem(token, "expected at most " + DEPTH
                        + " brackets inside one another: name parts of it and use the names");
            }
        }
    }

    static RuleParser.ConditionContext condition(String text) {
        try {
            return parser(text).condition();
        } catch (RuleProblem e) {
            throw FirstForms.offered(text, e);
        }
    }

    static RuleParser.LevelContext value(String text) {
        return parser(text).level();
    }

    /** How far a condition reads: to its end, or to where it is wrong first. */
    static int readable(String text) {
        try {
            parser(text).condition();
            return Integer.MAX_VALUE;
        } catch (RuleProblem e) {
            return e.from();
        }
    }

    /** Whether a text is a condition and no value. */
    static boolean isCondition(String text) {
        try {
            value(text);
            return false;
        } catch (RuleProblem e) {
            try {
                condition(text);
                return true;
            } catch (RuleProblem neither) {
                return false;
            }
        }
    }

    /** The words of a text, comments left out. */
    static List<Token> tokens(String text) {
        RuleLexer lexer = new RuleLexer(CharStreams.fromString(text));
        lexer.removeErrorListeners();
        CommonTokenStream stream = new CommonTokenStream(lexer);
        stream.fill();
        return stream.getTokens();
    }

    private static RuleParser parser(String text) {
        checkSize(text);
        RuleLexer lexer = new RuleLexer(CharStreams.fromString(text));
        RuleParser parser = new RuleParser(new CommonTokenStream(lexer));
        BaseErrorListener listener = new BaseErrorListener() {
            @Override
            public void syntaxError(Recognizer<?, ?> recognizer, Object symbol, int line, int column, String message,
                    RecognitionException e) {
                boolean end = symbol instanceof Token token && token.getType() == Token.EOF;
                String found = symbol instanceof Token token
                        ? end ? "the end of the rule" : "\"" + token.getText() + "\""
                        : message.replaceFirst(".*'(.*)'.*", "\"$1\"");
                String expected = switch (recognizer) {
                    // inside a form that could still become two things the parser's own list is that of its beginning
                    case RuleParser ignored when e instanceof NoViableAltException form
                            && form.getStartToken() != form.getOffendingToken() ->
                        "a relation such as > or \"rises through\"" + (open(form) ? ", or a closing bracket" : "");
                    case RuleParser p -> expected(p);
                    default -> "a word, number or sign of the language";
                };
                int from = symbol instanceof Token token
                        ? Math.min(token.getStartIndex(), text.length())
                        : offset(text, line, column);
                int to = symbol instanceof Token token && !end ? token.getStopIndex() + 1 : from + 1;
                throw new RuleProblem(line, column + 1, from, to, "expected " + expected + ", found " + found);
            }
        };
        lexer.removeErrorListeners();
        lexer.addErrorListener(listener);
        parser.removeErrorListeners();
        parser.addErrorListener(listener);
        return parser;
    }

    private static int offset(String text, int line, int column) {
        int at = 0;
        for (int i = 1; i < line; i++) {
            at = text.indexOf('\n', at) + 1;
        }
        return at + column;
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
        if (tokens.contains(RuleParser.RISES)) {
            return "a relation such as > or \"rises through\"";
        }
        if (tokens.contains(RuleParser.AND) && tokens.size() > 2) {
            return "\"and\", \"or\", a timing such as \"on any of the last 4 bars\", or "
                    + (tokens.contains(Token.EOF) ? "the end" : "a closing bracket");
        }
        List<String> words = new ArrayList<>();
        for (int type : tokens.toList()) {
            words.add(switch (type) {
                case Token.EOF -> "the end";
                case RuleParser.NUMBER -> "a number";
                case RuleParser.TIMEOFDAY -> "a time such as 09:45";
                case RuleParser.STRING -> "a name in quotes";
                case RuleParser.WEEKDAY -> "a weekday";
                default -> parser.getVocabulary().getDisplayName(type).replace("'", "\"");
            });
        }
        return words.size() == 1 ? words.getFirst() : "one of " + String.join(", ", words);
    }

    /** Whether a text says nothing but comments. */
    static boolean isEmpty(String text) {
        return tokens(text).getFirst().getType() == Token.EOF;
    }

    /** Where the last token {@code word} before a place begins. */
    static int wordBefore(String text, int place, String word) {
        return tokens(text).stream().filter(t -> t.getText().equals(word) && t.getStartIndex() < place)
                .mapToInt(Token::getStartIndex).max().orElse(place);
    }

    /** The words of a form as they were written, spaces made single, comments left out. */
    static String words(ParserRuleContext context) {
        return source(context).replaceAll("#[^\n]*", "").replaceAll("\\s+", " ").strip();
    }

    static String source(ParserRuleContext context) {
        return context.getStart().getInputStream().getText(
                Interval.of(context.getStart().getStartIndex(), context.getStop().getStopIndex()));
    }

    static RuleProblem problem(ParserRuleContext place, String message) {
        Token start = place.getStart();
        Token stop = place.getStop() == null || place.getStop().getStopIndex() < start.getStartIndex()
                ? start
                : place.getStop();
        return new RuleProblem(start.getLine(), start.getCharPositionInLine() + 1, start.getStartIndex(),
                stop.getStopIndex() + 1, message);
    }

    static RuleProblem problem(Token token, String message) {
        return new RuleProblem(token.getLine(), token.getCharPositionInLine() + 1, token.getStartIndex(),
                token.getStopIndex() + 1, message);
    }
}
