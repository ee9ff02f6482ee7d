package stativex.rule;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.study.OutputColumn;

/** Conditions made of others: not, all of them, one of them, lately, for the first time, confirmed. */
final class Combined {
    private Combined() {}

    static final class Not extends Condition {
        private final Condition inner;

        Not(String text, Condition inner) {
            super(text);
            this.inner = inner;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            byte[] t = inner.truths();
            for (int bar = from; bar < to; bar++) {
                truth[bar] = (byte) Truth.not(t[bar]);
            }
        }

        @Override
        Optional<Boolean> constant() {
            return inner.constant().map(held -> !held);
        }

        @Override
        public Explanation explain(int bar) {
            Explanation of = inner.explain(bar);
            return new Explanation(text(), at(bar), of.terms(), Optional.empty(), OptionalInt.empty(), of.note(),
                    inner.parts().size() > 1 || of.terms().isEmpty() ? List.of(of) : List.of());
        }
    }

    /** All of some conditions must hold, or one of them. */
    static final class Joined extends Condition {
        private final List<Condition> of;
        private final boolean all;

        Joined(String text, List<Condition> of, boolean all) {
            super(text);
            this.of = of;
            this.all = all;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            System.arraycopy(of.getFirst().truths(), from, truth, from, to - from);
            for (int i = 1; i < of.size(); i++) {
                byte[] t = of.get(i).truths();
                for (int bar = from; bar < to; bar++) {
                    truth[bar] = (byte) (all ? Truth.and(truth[bar], t[bar]) : Truth.or(truth[bar], t[bar]));
                }
            }
        }

        @Override
        Optional<Boolean> constant() {
            List<Optional<Boolean>> known = of.stream().map(Condition::constant).toList();
            // one that never holds decides an "and", one that always does an "or"
            return known.contains(Optional.of(!all))
                    ? Optional.of(!all)
                    : known.stream().allMatch(Optional.of(all)::equals) ? Optional.of(all) : Optional.empty();
        }

        @Override
        public List<Condition> parts() {
            return all ? of : super.parts();
        }

        @Override
        public Explanation explain(int bar) {
            return Explanation.of(text(), at(bar), of.stream().map(part -> part.explain(bar)).toList());
        }
    }

    /**
     * True on any, or on each, of the last N bars, this one included; bars before the first are absent.
     */
    static final class Lately extends Condition {
        private final Condition of;
        private final boolean each;
        private final int bars;

        Lately(String text, Condition of, boolean each, int bars) {
            super(text);
            this.of = of;
            this.each = each;
            this.bars = bars;
        }

        @Override
        Optional<Boolean> constant() {
            return of.constant();
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            byte[] t = of.truths();
            for (int bar = from; bar < to; bar++) {
                int found = bar + 1 < bars ? Truth.ABSENT : each ? Truth.TRUE : Truth.FALSE;
                for (int i = Math.max(0, bar - bars + 1); i <= bar; i++) {
                    found = each ? Truth.and(found, t[i]) : Truth.or(found, t[i]);
                }
                truth[bar] = (byte) found;
            }
        }

        /** Tells of the bar that decided: at which it held or, if it did not, came nearest; for each: failed. */
        @Override
        public Explanation explain(int bar) {
            int decides = bar;
            double nearest = Double.MAX_VALUE;
            for (int i = bar; i > Math.max(-1, bar - bars); i--) {
                if (of.at(i) == (each ? Truth.FALSE : Truth.TRUE)) {
                    decides = i;
                    break;
                }
                double missed = of.explain(i).missed().map(Explanation.Amount::value).orElse(Double.MAX_VALUE);
                if (!each && missed < nearest) {
                    nearest = missed;
                    decides = i;
                }
            }
            Explanation there = of.explain(decides).as(text(), at(bar)).at(decides);
            return at(bar) == Truth.ABSENT && bar + 1 < bars
                    ? there.noting("there are fewer than " + bars + " bars")
                    : there;
        }
    }

    /** The same some bars before; absent before the first bar. */
    static final class Shifted extends Condition {
        private final Condition of;
        private final int bars;

        Shifted(String text, Condition of, int bars) {
            super(text);
            this.of = of;
            this.bars = bars;
        }

        @Override
        Optional<Boolean> constant() {
            return of.constant();
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            byte[] t = of.truths();
            for (int bar = from; bar < to; bar++) {
                truth[bar] = bar < bars ? (byte) Truth.ABSENT : t[bar - bars];
            }
        }

        @Override
        public Explanation explain(int bar) {
            return bar < bars
                    ? Explanation.of(text(), at(bar), List.of()).noting("there is no bar " + bars + " bars before")
                    : of.explain(bar - bars).as(text(), at(bar)).at(bar - bars);
        }
    }

    /** True now, and on no earlier bar since the anchor. Bars on which it was absent are not times it was true. */
    static final class FirstTime extends Condition {
        private final Condition of;
        private final Anchor since;
        /** By row: 1 if it was true since the anchor, this bar included; 0 if not; NaN before the anchor. */
        private final OutputColumn been = new OutputColumn(new OutputColumn.Shape("been", stativex.study.Unit.FLAG,
                stativex.study.Mirror.UNKNOWN));

        FirstTime(String text, Condition of, Anchor since) {
            super(text);
            this.of = of;
            this.since = since;
        }

        @Override
        Optional<Boolean> constant() {
            return of.constant().filter(held -> !held);
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            double[] y = been.room(to);
            byte[] t = of.truths();
            for (int bar = from; bar < to; bar++) {
                double before = bar == 0 ? Double.NaN : y[bar - 1];
                int anchor = since.at(bar);
                if (anchor == Anchor.BEGINS) {
                    before = 0;
                }
                truth[bar] = (byte) (t[bar] != Truth.TRUE
                        ? t[bar]
                        : Double.isNaN(before) ? Truth.ABSENT : before == 0 ? Truth.TRUE : Truth.FALSE);
                y[bar] = anchor == Anchor.RESETS ? 0 : t[bar] == Truth.TRUE && !Double.isNaN(before) ? 1 : before;
            }
        }

        @Override
        public Explanation explain(int bar) {
            Explanation now = of.explain(bar).as(text(), at(bar));
            return of.at(bar) != Truth.TRUE || at(bar) == Truth.TRUE
                    ? now
                    : now.noting(at(bar) == Truth.FALSE
                            ? "it was true before"
                            : "what it counts from has not been yet");
        }
    }

    /**
     * Confirmation: the condition was true at a bar, and this is the first of the next K bars that trades beyond that
     * bar's close.
     */
    static final class Confirmed extends Condition {
        private final Condition of;
        private final boolean up;
        private final int within;
        private final OutputColumn close;
        private final OutputColumn extreme;

        Confirmed(String text, Condition of, boolean up, int within, OutputColumn close, OutputColumn extreme) {
            super(text);
            this.of = of;
            this.up = up;
            this.within = within;
            this.close = close;
            this.extreme = extreme;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            for (int bar = from; bar < to; bar++) {
                truth[bar] = (byte) judge(bar);
            }
        }

        private int judge(int bar) {
            int found = bar < within ? Truth.ABSENT : Truth.FALSE;
            for (int at = Math.max(0, bar - within); at < bar; at++) {
                boolean first = beyond(bar, at);
                for (int i = at + 1; i < bar && first; i++) {
                    first = !beyond(i, at);
                }
                found = Truth.or(found, Truth.and(of.truths()[at], Truth.of(first)));
            }
            return found;
        }

        private boolean beyond(int bar, int at) {
            return up
                    ? extreme.values()[bar] > close.values()[at]
                    : extreme.values()[bar] < close.values()[at];
        }

        @Override
        public Explanation explain(int bar) {
            return Explanation.of(text(), at(bar), List.of()).noting(switch (at(bar)) {
                case Truth.TRUE -> "trades beyond the close of the signal's bar";
                case Truth.FALSE -> "no bar of the last " + within + " had the signal and is passed only now";
                default -> "one of the last " + within + " bars is absent";
            });
        }
    }
}
