package stativex.study;

/**
 * Something computed for each closed bar of a series, in columns: a pure function of the rows before and of what was
 * computed for the same rows already. One call may take one bar or a whole history; the operations are the same in the
 * same order, so live and whole-history values are equal bit for bit. Whatever has to be remembered from bar to bar is
 * in columns too, or kept as {@link Recursive} does; a row may therefore be computed again and again while its bar forms.
 */
public interface Step {
    /** Computes the rows {@code from} to {@code to}, the last one not included; rows before {@code from} stand. */
    void take(int from, int to);

    /** Many rows will come: makes room for so many in all, so that columns need not grow again and again. */
    default void reserve(int rows) {}
}
