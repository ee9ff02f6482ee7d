package stativex.rule;

import java.util.List;
import stativex.study.Frame;
import stativex.study.OutputColumn;
import stativex.study.Unit;

/** The values that rules begin with: numbers, what bars and studies say, what was drawn, what a position does. */
final class Values {
    private Values() {}

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
            if (Double.isNaN(at(bar)) && text().equals(Program.Fact.LAST_RESULT_IN_R.words())) {
                return text() + ": no trade has ended yet, or the last one had no stop";
            }
            return !Double.isNaN(at(bar))
                    ? ""
                    : text() + (text().endsWith("exit") || text().equals("last result")
                            ? ": no trade has ended yet"
                            : ": there is no position");
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
                    : text() + (!series.absence(bar).isEmpty()
                            ? ": " + series.absence(bar)
                            : forming
                                    ? " has no forming bar at this moment"
                                    : series.closed(bar) == 0
                                            ? " has no closed bar yet"
                                            : " is warming up or has no value on its bar");
        }
    }
}
