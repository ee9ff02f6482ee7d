package stativex.rule;

import java.util.List;
import org.antlr.v4.runtime.Token;
import stativex.rule.grammar.RuleLexer;

/** Gives a study, a series or something drawn another name wherever a rule speaks of it. */
public final class Renaming {
    private Renaming() {}

    /** The text with the study or series {@code from} called {@code to}; outputs and comments stay. */
    public static String name(String text, String from, String to) {
        List<Token> tokens = Reading.tokens(text);
        StringBuilder made = new StringBuilder(text);
        for (int i = tokens.size() - 1; i >= 0; i--) {
            Token token = tokens.get(i);
            boolean part = i > 0 && tokens.get(i - 1).getText().equals(".");
            if (token.getType() != Token.EOF && token.getText().equals(from) && !part && isName(tokens, i)) {
                made.replace(token.getStartIndex(), token.getStopIndex() + 1, to);
            }
        }
        return made.toString();
    }

    /** A word of the language that is also a name counts as one only where a name can stand: before a dot. */
    private static boolean isName(List<Token> tokens, int at) {
        return tokens.get(at).getType() == RuleLexer.NAME
                || at + 1 < tokens.size() && tokens.get(at + 1).getText().equals(".");
    }

    /** The text with what is drawn as {@code from} called {@code to}. */
    public static String drawn(String text, String from, String to) {
        List<Token> tokens = Reading.tokens(text);
        StringBuilder made = new StringBuilder(text);
        for (int i = tokens.size() - 1; i > 0; i--) {
            Token token = tokens.get(i);
            if (token.getType() == RuleLexer.STRING && token.getText().equals("\"" + from + "\"")) {
                made.replace(token.getStartIndex() + 1, token.getStopIndex(), to);
            }
        }
        return made.toString();
    }
}
