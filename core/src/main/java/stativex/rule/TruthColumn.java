package stativex.rule;

import java.util.Arrays;

/** {@link Truth} for each bar of a series. */
public final class TruthColumn {
    private byte[] values = new byte[64];

    TruthColumn() {}

    /** The values with room for {@code rows} of them. */
    byte[] room(int rows) {
        if (rows > values.length) {
            values = Arrays.copyOf(values, Math.max(rows, values.length * 2));
        }
        return values;
    }

    byte[] values() {
        return values;
    }

    /** {@link Truth} at a bar that was evaluated. */
    public int at(int bar) {
        return values[bar];
    }

    /** An immutable view of the first {@code rows} bars: values once there never change. */
    public View view(int rows) {
        return new View(room(rows), rows);
    }

    /** See {@link TruthColumn#view}. */
    public record View(byte[] values, int count) {
        /** The first bar from {@code from} on that holds {@code truth}; {@link #count()} if there is none. */
        public int next(int truth, int from) {
            int bar = from;
            while (bar < count && values[bar] != truth) {
                bar++;
            }
            return Math.min(bar, count);
        }

        public int get(int bar) {
            if (bar >= count) {
                throw new IndexOutOfBoundsException(bar);
            }
            return values[bar];
        }
    }
}
