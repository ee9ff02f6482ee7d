package stativex.rule;

import stativex.study.OutputColumn;

/** Where a count begins: a period's open, or the last bar at which a condition was true. */
sealed interface Anchor {
    /** Neither; the count runs on. */
    int RUNS = 0;
    /** The bar is the first that counts. */
    int BEGINS = 1;
    /** The bar is the one from which counting begins; it does not count itself. */
    int RESETS = 2;

    int at(int bar);

    /** A period's open: its first bar counts. */
    record Open(OutputColumn starts) implements Anchor {
        @Override
        public int at(int bar) {
            double[] s = starts.values();
            return bar == 0 || s[bar] != s[bar - 1] ? BEGINS : RUNS;
        }
    }

    /** A condition: bars after the last one at which it was true count. */
    record Event(Condition when) implements Anchor {
        @Override
        public int at(int bar) {
            return when.truths()[bar] == Truth.TRUE ? RESETS : RUNS;
        }
    }
}
