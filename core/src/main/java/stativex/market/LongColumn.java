package stativex.market;

import java.util.Arrays;

/**
 * An append-only column of whole numbers. {@link #prefix()} is an immutable view of what is there now, without a copy:
 * values once added never change, so a view handed safely to another thread stays true while this column grows.
 */
public final class LongColumn {
    private long[] values = new long[64];
    private int count;

    /** Makes an empty column. */
    public LongColumn() {}

    /** The first {@code count} values at the time the view was taken. */
    public record Prefix(long[] values, int count) {
        public long get(int index) {
            if (index >= count) {
                throw new IndexOutOfBoundsException(index);
            }
            return values[index];
        }
    }

    public void add(long value) {
        if (count == values.length) {
            values = Arrays.copyOf(values, count * 2);
        }
        values[count++] = value;
    }

    public long get(int index) {
        return values[index];
    }

    public int count() {
        return count;
    }

    public Prefix prefix() {
        return new Prefix(values, count);
    }

    /** The first {@code rows} values; there are as many. */
    public Prefix prefix(int rows) {
        if (rows > count) {
            throw new IndexOutOfBoundsException(rows + " of " + count);
        }
        return new Prefix(values, rows);
    }
}
