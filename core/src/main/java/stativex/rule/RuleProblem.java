package stativex.rule;

/** What is wrong with a rule, and where. */
public final class RuleProblem extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int line;
    private final int column;

    RuleProblem(int line, int column, String message) {
        super(message);
        this.line = line;
        this.column = column;
    }

    /** Line in the rule's text, the first being 1. */
    public int line() {
        return line;
    }

    /** Column in that line, the first being 1. */
    public int column() {
        return column;
    }

    /** {@code line 1, column 7: unknown name …}. */
    @Override
    public String getMessage() {
        return "line " + line + ", column " + column + ": " + super.getMessage();
    }
}
