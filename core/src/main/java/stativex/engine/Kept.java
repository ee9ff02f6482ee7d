package stativex.engine;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.List;

/**
 * A list that is only ever added to. What it held at a moment can be looked at from another thread for ever after, without a copy:
 * places once written are never written again.
 *
 * @param <T> immutable
 */
final class Kept<T> {
    private Object[] values = new Object[16];
    private int count;

    void add(T value) {
        if (count == values.length) {
            values = Arrays.copyOf(values, 2 * count);
        }
        values[count++] = value;
    }

    int count() {
        return count;
    }

    @SuppressWarnings("unchecked") // only add() writes, and it takes nothing else
    T get(int place) {
        return (T) values[place];
    }

    /** What is held now; it does not grow. */
    List<T> view() {
        return new View<>(values, count);
    }

    private static final class View<T> extends AbstractList<T> {
        private final Object[] values;
        private final int count;

        View(Object[] values, int count) {
            this.values = values;
            this.count = count;
        }

        @Override
        @SuppressWarnings("unchecked") // of a list that held nothing else
        public T get(int place) {
            if (place < 0 || place >= count) {
                throw new IndexOutOfBoundsException(place + " of " + count);
            }
            return (T) values[place];
        }

        @Override
        public int size() {
            return count;
        }
    }
}
