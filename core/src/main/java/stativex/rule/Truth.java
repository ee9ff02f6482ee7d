package stativex.rule;

/**
 * Three-valued logic (Kleene's strong logic) as small whole numbers, so that evaluation allocates nothing: absent means
 * that a value was missing. A rule fires only on {@link #TRUE}.
 */
public final class Truth {
    public static final int FALSE = 0;
    public static final int TRUE = 1;
    public static final int ABSENT = -1;

    private Truth() {}

    public static int of(boolean value) {
        return value ? TRUE : FALSE;
    }

    public static int not(int truth) {
        return truth == ABSENT ? ABSENT : 1 - truth;
    }

    /** False if a part is false, else absent if a part is absent. */
    public static int and(int a, int b) {
        if (a == FALSE || b == FALSE) {
            return FALSE;
        }
        return a == ABSENT || b == ABSENT ? ABSENT : TRUE;
    }

    /** True if a part is true, else absent if a part is absent. */
    public static int or(int a, int b) {
        return not(and(not(a), not(b)));
    }
}
