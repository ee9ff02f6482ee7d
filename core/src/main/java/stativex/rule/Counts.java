package stativex.rule;

import stativex.study.OutputColumn;
import stativex.study.Unit;

/** Values that count bars: since something was true, since a period began, how often. */
final class Counts {
    private Counts() {}

    /** Bars since a condition was last true, 0 at such a bar. */
    static final class Since extends Value {
        private final Condition when;

        Since(String text, Condition when) {
            super(text, Unit.NUMBER);
            this.when = when;
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            byte[] t = when.truths();
            for (int bar = from; bar < to; bar++) {
                y[bar] = t[bar] == Truth.TRUE ? 0 : bar == 0 ? Double.NaN : y[bar - 1] + 1;
            }
        }

        @Override
        String absence(int bar) {
            return Double.isNaN(at(bar)) ? when.text() + " has not been true yet" : "";
        }
    }

    /** Bars since a period's first one, 0 at that. */
    static final class SinceOpen extends Value {
        private final OutputColumn starts;

        SinceOpen(String text, OutputColumn starts) {
            super(text, Unit.NUMBER);
            this.starts = starts;
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            double[] s = starts.values();
            for (int bar = from; bar < to; bar++) {
                y[bar] = bar == 0 || s[bar] != s[bar - 1] ? 0 : y[bar - 1] + 1;
            }
        }
    }

    /** On how many bars a condition was true since an anchor; absent bars do not count. */
    static final class Times extends Value {
        private final Condition of;
        private final Anchor since;

        Times(String text, Condition of, Anchor since) {
            super(text, Unit.NUMBER);
            this.of = of;
            this.since = since;
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            byte[] t = of.truths();
            for (int bar = from; bar < to; bar++) {
                int one = t[bar] == Truth.TRUE ? 1 : 0;
                y[bar] = switch (since.at(bar)) {
                    case Anchor.BEGINS -> one;
                    case Anchor.RESETS -> 0;
                    default -> bar == 0 ? Double.NaN : y[bar - 1] + one;
                };
            }
        }

        @Override
        String absence(int bar) {
            return Double.isNaN(at(bar)) ? "what " + text() + " counts from has not been yet" : "";
        }
    }

    /** On how many of the last bars a condition was true; absent while there are fewer bars. */
    static final class TimesLast extends Value {
        private final Condition of;
        private final int bars;

        TimesLast(String text, Condition of, int bars) {
            super(text, Unit.NUMBER);
            this.of = of;
            this.bars = bars;
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            byte[] t = of.truths();
            for (int bar = from; bar < to; bar++) {
                double times = bar + 1 < bars ? Double.NaN : 0;
                for (int i = Math.max(0, bar - bars + 1); i <= bar; i++) {
                    times += t[i] == Truth.TRUE ? 1 : 0;
                }
                y[bar] = times;
            }
        }

        @Override
        String absence(int bar) {
            return Double.isNaN(at(bar)) ? "there are fewer than " + bars + " bars" : "";
        }
    }
}
