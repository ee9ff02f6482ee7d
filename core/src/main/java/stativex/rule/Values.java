package stativex.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleBinaryOperator;
import stativex.study.Frame;
import stativex.study.OutputColumn;
import stativex.study.Unit;

/** The kinds of values that rules are made of. */
final class Values {
    private Values() {}

    /** Whose ticks two values count that were found to go together. */
    private static Ticks both(Value left, Value right) {
        return left.ticks().with(right.ticks()).orElseThrow();
    }

    /** A number; the same at every bar. Its column is filled only if somebody reads it as one. */
    static final class Literal extends Value {
        private final double number;
        private final double[] alone;
        private boolean wide;
        private int rows;
        private int filled;

        Literal(String text, double number, Unit unit) {
            super(text, unit);
            this.number = number;
            this.alone = new double[]{number};
        }

        double number() {
            return number;
        }

        @Override
        Ticks counted() {
            return Ticks.ANY;
        }

        @Override
        public void take(int from, int to) {
            rows = Math.max(rows, to);
            if (wide) {
                values();
            }
        }

        @Override
        public void reserve(int all) {
            // nobody may ever read it as a column
        }

        @Override
        public OutputColumn column() {
            wide = true;
            return super.column();
        }

        @Override
        double[] values() {
            double[] y = super.column().room(rows);
            if (filled < rows) {
                java.util.Arrays.fill(y, filled, rows, number);
                filled = rows;
            }
            return y;
        }

        @Override
        public double at(int bar) {
            return number;
        }

        @Override
        double[] operand() {
            return alone;
        }

        @Override
        int step() {
            return 0;
        }

        @Override
        List<Explanation.Term> terms(int bar) {
            return List.of();
        }
    }

    /** A bar figure or an output of a study, computed elsewhere. */
    static final class Named extends Value {
        private final Ticks ticks;

        Named(String text, OutputColumn column, Ticks ticks) {
            super(text, column);
            this.ticks = ticks;
        }

        @Override
        Ticks counted() {
            return ticks;
        }

        @Override
        public void take(int from, int to) {
            // its study has done it
        }

        @Override
        String absence(int bar) {
            if (!Double.isNaN(at(bar))) {
                return "";
            }
            for (int i = bar - 1; i >= 0; i--) {
                if (!Double.isNaN(at(i))) {
                    return text() + " has no value at this bar";
                }
            }
            return text() + " is warming up";
        }
    }

    /** What a position is doing, told by the engine for the row it is about to evaluate; absent while nobody tells. */
    static final class PositionFact extends Value {
        private int toldRow = -1;
        private double told;

        PositionFact(String text, Unit unit) {
            super(text, unit);
        }

        void tell(int row, double value) {
            toldRow = row;
            told = value;
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            for (int row = from; row < to; row++) {
                y[row] = row == toldRow ? told : Double.NaN;
            }
        }

        @Override
        String absence(int bar) {
            return Double.isNaN(at(bar)) ? text() + ": there is no position" : "";
        }
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

    /** A level, slope or marker that somebody drew. */
    static final class Drawn extends Value {
        private final stativex.market.Drawing drawing;
        private final Frame frame;

        Drawn(String text, stativex.market.Drawing drawing, Frame frame) {
            super(text, Unit.LEVEL);
            this.drawing = drawing;
            this.frame = frame;
        }

        @Override
        public void take(int from, int to) {
            double[] y = column().room(to);
            for (int bar = from; bar < to; bar++) {
                y[bar] = drawing.at(frame.moment(bar));
            }
        }

        @Override
        String absence(int bar) {
            return Double.isNaN(at(bar)) ? text() + " begins later" : "";
        }
    }

    /** A column of another series as it stood when each bar of this one was evaluated. */
    static final class Seen extends Value {
        private final OtherSeries series;
        private final OutputColumn column;
        private final boolean forming;

        Seen(String text, OtherSeries series, OutputColumn column, boolean forming) {
            super(text, new OutputColumn(new OutputColumn.Shape(column.name(), column.unit(), column.anchored(),
                    column.mirror(), column.counterpart())));
            this.series = series;
            this.column = column;
            this.forming = forming;
            if (forming) {
                series.watch(column, column());
            }
        }

        @Override
        Ticks counted() {
            return series.scope().ticks();
        }

        @Override
        public void take(int from, int to) {
            if (forming) {
                return;
            }
            double[] y = column().room(to);
            for (int bar = from; bar < to; bar++) {
                int closed = series.closed(bar);
                y[bar] = closed == 0 ? Double.NaN : column.values()[closed - 1];
            }
        }

        @Override
        String absence(int bar) {
            return !Double.isNaN(at(bar))
                    ? ""
                    : text() + (series.stale(bar)
                            ? ": its tape has no print of a whole session, or has ended"
                            : forming
                                    ? " has no forming bar at this moment"
                                    : series.closed(bar) == 0
                                            ? " has no closed bar yet"
                                            : " is warming up or has no value on its bar");
        }
    }
}
