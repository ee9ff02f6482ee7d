package stativex.rule;

import java.util.Optional;
/** What is wrong with a rule, and where. */
public final class RuleProblem extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int line;
    private final int column;
    private final int from;
    private final int to;
    /** The whole text in the right form, if one is known. */
    private final transient Optional<String> offer;

    RuleProblem(int line, int column, int from, int to, String message) {
        this(line, column, from, to, message, Optional.empty());
    }

    private RuleProblem(int line, int column, int from, int to, String message, Optional<String> offer) {
        super(message);
        this.offer = offer;
        this.line = line;
        this.column = column;
        this.from = from;
        this.to = to;
    }

    /** The same with advice. */
    RuleProblem with(String advice, Optional<String> better) {
        return new RuleProblem(line, column, from, to, what() + "; " + advice, better);
    }

    /** The whole text in the right form, if what is wrong is a form that people write first. */
    public Optional<String> offer() {
        return offer;
    }

    /** Line in the rule's text, the first being 1. */
    public int line() {
        return line;
    }

    /** Column in that line, the first being 1. */
    public int column() {
        return column;
    }

    /** Where the wrong words begin in the text, from 0; {@link #to()} is behind them. */
    public int from() {
        return from;
    }

    public int to() {
        return to;
    }

    /** What is wrong, without the place. */
    public String what() {
        return super.getMessage();
    }

    /** {@code line 1, column 7: unknown name …}. */
    @Override
    public String getMessage() {
        return "line " + line + ", column " + column + ": " + super.getMessage();
    }
}
