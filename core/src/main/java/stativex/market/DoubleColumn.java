package stativex.market;

import java.util.Arrays;

/**
 * An append-only column of IEEE doubles; an absent value is NaN. {@link #prefix()} is an immutable view of what is there now, without a copy:
 * values once added never change, so a view handed safely to another thread stays true while this column grows.
 */
public final class DoubleColumn {
    private double[] values = new double[64];
    private int count;

    /** Makes an empty column. */
    public DoubleColumn() {}

    /** The first {@code count} values at the time the view was taken. */
    public record Prefix(double[] values, int count) {
        public double get(int index) {
            if (index >= count) {
                throw new IndexOutOfBoundsException(index);
            }
            return values[index];
        }
    }

    /**
     * The values themselves with room for {@code rows} of them, to be written by the one who fills this column. Values
     * before {@link #count()} are never changed.
     */
    public double[] room(int rows) {
        if (rows > values.length) {
            values = Arrays.copyOf(values, Math.max(rows, values.length * 2));
        }
        return values;
    }

    /** The first {@code rows} values stand. */
    public void filled(int rows) {
        count = rows;
    }

    public void add(double value) {
        if (count == values.length) {
            values = Arrays.copyOf(values, count * 2);
        }
        values[count++] = value;
    }

    public double get(int index) {
        return values[index];
    }

    public int count() {
        return count;
    }

    public Prefix prefix() {
        return new Prefix(values, count);
    }
}
