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
        // the sign bit of an absent part is set; no branch, since truths of bars cannot be foretold by the processor
        return truth ^ 1 | truth >> 31;
    }

    /** False if a part is false, else absent if a part is absent. */
    public static int and(int a, int b) {
        int both = a & b;
        return both | (a | b) >> 31 & -both;
    }

    /** True if a part is true, else absent if a part is absent. */
    public static int or(int a, int b) {
        return not(and(not(a), not(b)));
    }
}
