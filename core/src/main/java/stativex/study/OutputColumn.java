package stativex.study;

import stativex.market.DoubleColumn;

/**
 * One output of a study or one figure of the bars: a value for each bar of a series, in ticks where it means a price; NaN
 * stands for absent.
 */
public final class OutputColumn {
    private final Shape shape;
    private final DoubleColumn values = new DoubleColumn();

    /**
     * @param anchored starts afresh with each session, so that values on both sides of a session's open are unrelated
     * @param counterpart name of the output that takes its place when the market is mirrored; its own if none
     */
    public record Shape(String name, Unit unit, boolean anchored, Mirror mirror, String counterpart) {
        public Shape(String name, Unit unit, Mirror mirror) {
            this(name, unit, false, mirror, name);
        }
    }

    public OutputColumn(Shape shape) {
        this.shape = shape;
    }

    /** Name of the output within its study; empty for the main one. */
    public String name() {
        return shape.name();
    }

    public Unit unit() {
        return shape.unit();
    }

    /** Whether it starts afresh with each session. */
    public boolean anchored() {
        return shape.anchored();
    }

    public Mirror mirror() {
        return shape.mirror();
    }

    public String counterpart() {
        return shape.counterpart();
    }

    /** The values with room for {@code rows} of them, to be written by the study that fills this column. */
    public double[] room(int rows) {
        return values.room(rows);
    }

    /** The values computed so far, and room behind them. */
    public double[] values() {
        return values.room(0);
    }

    /** The value at a bar that was computed; NaN when absent. */
    public double at(int bar) {
        return values.get(bar);
    }

    /** An immutable view of the first {@code rows} values, safe to hand to another thread. */
    public DoubleColumn.Prefix view(int rows) {
        return new DoubleColumn.Prefix(values.room(rows), rows);
    }
}
