package stativex.study;

/**
 * A study that is one recursion along the rows, remembering a handful of figures instead of columns. The last row may be
 * computed again while its bar forms: what was remembered before it is kept. Any other row is reached by running from
 * the first one, so that a row's value never depends on how it was come to.
 */
abstract class Recursive extends Study {
    private final double[] beginning;
    private final double[] now;
    private final double[] before;
    private int next;

    /** @param beginning what is remembered before the first row */
    Recursive(double... beginning) {
        this.beginning = beginning;
        this.now = beginning.clone();
        this.before = beginning.clone();
    }

    @Override
    final void compute(int from, int to) {
        if (from == to) {
            return;
        }
        if (from != next) {
            boolean again = from == next - 1;
            System.arraycopy(again ? before : beginning, 0, now, 0, now.length);
            if (!again) {
                run(now, 0, from);
            }
        }
        run(now, from, to - 1);
        System.arraycopy(now, 0, before, 0, now.length);
        run(now, to - 1, to);
        next = to;
    }

    /** Computes rows, {@code figures} as remembered before the first of them; leaves them as after the last one. */
    abstract void run(double[] figures, int from, int to);
}
