package stativex.rule;

/** What is wrong with a rule, and where. */
public final class RuleProblem extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int line;
    private final int column;
    private final int from;
    private final int to;

    RuleProblem(int line, int column, int from, int to, String message) {
        super(message);
        this.line = line;
        this.column = column;
        this.from = from;
        this.to = to;
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
