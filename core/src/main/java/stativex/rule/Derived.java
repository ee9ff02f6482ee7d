package stativex.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.IntStream;
import stativex.study.Unit;
import stativex.study.Windows;

/** Values made of others: arithmetic, functions, an earlier bar's, one that is held. */
final class Derived {
    private Derived() {}

    /** Whose ticks two values count that were found to go together. */
    private static Ticks both(Value left, Value right) {
        return left.ticks().with(right.ticks()).orElseThrow();
    }

    /** The value some bars before; absent before the first bar. */
    static final class Earlier extends Value {
        private final Value value;
        private final int bars;

        Earlier(String text, Value value, int bars) {
            super(text, value.unit());
            this.value = value;
            this.bars = bars;
        }

        @Override
        Ticks counted() {
            return value.counted();
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            double[] x = value.values();
            for (int bar = from; bar < to; bar++) {
                y[bar] = bar < bars ? Double.NaN : x[bar - bars];
            }
        }

        @Override
        String absence(int bar) {
            return !Double.isNaN(at(bar))
                    ? ""
                    : bar < bars ? "there is no bar " + bars + " bars before" : value.absence(bar - bars);
        }
    }

    /** Arithmetic; division by zero is absent, and so is what is too large to be a number. */
    static final class Arithmetic extends Value {
        private final char operator;
        private final Value left;
        private final Value right;

        Arithmetic(String text, char operator, Value left, Value right, Unit unit) {
            super(text, unit);
            this.operator = operator;
            this.left = left;
            this.right = right;
        }

        @Override
        Ticks counted() {
            return both(left, right);
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            double[] a = left.operand();
            double[] b = right.operand();
            int i = left.step();
            int j = right.step();
            switch (operator) {
                case '+' -> {
                    for (int bar = from; bar < to; bar++) {
                        y[bar] = a[bar * i] + b[bar * j];
                    }
                }
                case '-' -> {
                    for (int bar = from; bar < to; bar++) {
                        y[bar] = a[bar * i] - b[bar * j];
                    }
                }
                case '*' -> {
                    for (int bar = from; bar < to; bar++) {
                        y[bar] = finite(a[bar * i] * b[bar * j]);
                    }
                }
                default -> {
                    for (int bar = from; bar < to; bar++) {
                        y[bar] = b[bar * j] == 0 ? Double.NaN : finite(a[bar * i] / b[bar * j]);
                    }
                }
            }
        }

        private static double finite(double value) {
            return Double.isInfinite(value) ? Double.NaN : value;
        }

        @Override
        List<Explanation.Term> terms(int bar) {
            List<Explanation.Term> terms = new ArrayList<>(left.terms(bar));
            terms.addAll(right.terms(bar));
            return terms;
        }

        @Override
        String absence(int bar) {
            if (!Double.isNaN(at(bar))) {
                return "";
            }
            String a = left.absence(bar);
            String b = right.absence(bar);
            return !a.isEmpty() ? a : !b.isEmpty() ? b : "division by zero in " + text();
        }
    }

    /** A figure of the last values, this one included. */
    enum Figure {
        HIGHEST(Windows::highest), LOWEST(Windows::lowest), SUM(Windows::sums), AVERAGE(Windows::means), MEDIAN(
                Windows::medians), RANK(Windows::ranks), PERCENT_RANK(Windows::percentRanks);

        private final Work work;

        Figure(Work work) {
            this.work = work;
        }

        /** Works rows of a column. */
        private interface Work {
            void of(double[] x, int from, int to, int length, double[] out);
        }

        /** Whether it says how a value stands among others, and so is a plain number. */
        boolean isRank() {
            return this == RANK || this == PERCENT_RANK;
        }
    }

    /** A {@link Figure} of the last N values; absent with fewer, or when one of them is absent. */
    static final class Window extends Value {
        private final Figure figure;
        private final Value value;
        private final int bars;

        Window(String text, Figure figure, Value value, int bars) {
            super(text, figure.isRank() ? Unit.NUMBER : value.unit());
            this.figure = figure;
            this.value = value;
            this.bars = bars;
        }

        @Override
        Ticks counted() {
            return value.counted();
        }

        @Override
        public void take(int from, int to) {
            figure.work.of(value.values(), from, to, bars, column().room(to));
        }

        @Override
        String absence(int bar) {
            if (!Double.isNaN(at(bar))) {
                return "";
            }
            return bar + 1 < bars
                    ? "there are fewer than " + bars + " bars"
                    : IntStream.rangeClosed(bar - bars + 1, bar).mapToObj(value::absence).filter(why -> !why.isEmpty())
                            .findFirst().orElse(text() + " is absent");
        }
    }

    /** abs, min, max. */
    static final class Call extends Value {
        private final DoubleBinaryOperator function;
        private final Value left;
        private final Value right;

        Call(String text, DoubleBinaryOperator function, Value left, Value right, Unit unit) {
            super(text, unit);
            this.function = function;
            this.left = left;
            this.right = right;
        }

        @Override
        Ticks counted() {
            return both(left, right);
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            for (int bar = from; bar < to; bar++) {
                y[bar] = function.applyAsDouble(left.values()[bar], right.values()[bar]);
            }
        }

        @Override
        List<Explanation.Term> terms(int bar) {
            List<Explanation.Term> terms = new ArrayList<>(left.terms(bar));
            if (left != right) {
                terms.addAll(right.terms(bar));
            }
            return terms;
        }

        @Override
        String absence(int bar) {
            String a = left.absence(bar);
            return a.isEmpty() ? right.absence(bar) : a;
        }
    }

    /** The value at the last bar at which a condition became true: was true and was not so one bar before. */
    static final class Held extends Value {
        private final Value value;
        private final Condition when;

        Held(String text, Value value, Condition when) {
            super(text, value.unit());
            this.value = value;
            this.when = when;
        }

        @Override
        Ticks counted() {
            return value.counted();
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            double[] x = value.values();
            byte[] t = when.truths();
            for (int bar = from; bar < to; bar++) {
                boolean becomes = t[bar] == Truth.TRUE && (bar == 0 || t[bar - 1] != Truth.TRUE);
                y[bar] = becomes ? x[bar] : bar == 0 ? Double.NaN : y[bar - 1];
            }
        }

        @Override
        String absence(int bar) {
            return Double.isNaN(at(bar)) ? when.text() + " has not become true yet" : "";
        }
    }
}
