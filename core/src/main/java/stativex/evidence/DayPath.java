package stativex.evidence;

import java.time.LocalDate;
import java.util.Arrays;

/**
 * A trading day's equity, reduced to what every line needs: new highs, the new lows after each of them, and the balance while flat.
 * Exact: whichever line is drawn, the first point at which it is reached is found. Results count from the day's first instant, which is
 * flat. Money in ten-thousandths.
 */
public final class DayPath {
    /** Above the number of every point. */
    static final int NEVER = Integer.MAX_VALUE;

    final LocalDate date;
    /** New highs, the day's first instant being the first, with the number of the point. */
    final int[] highAt;
    final long[] highs;
    final long[] highClosing;
    final long[] highTimes;
    /** Lows as lines look at them: the plain result, then what guards look at. */
    final View[] views;
    /** Points after a fill at which nothing is held. */
    final int[] flatAt;
    final long[] flats;
    final long[] flatTimes;
    final long result;
    final boolean traded;

    /**
     * What lines look at: the result, or the result less the costs of closing and so many ticks, where something is open. Of the points
     * between one new high and the next those that are lower than all before them since that high.
     */
    static final class View {
        /** Where the points after each high begin. */
        final int[] from;
        final int[] at;
        final long[] keys;
        final long[] results;
        final long[] closing;
        final long[] times;
        /** The lowest after each high until the next one. */
        final long[] least;
        final long lowest;

        View(int[] from, Numbers at, Numbers keys, Numbers results, Numbers closing, Numbers times) {
            this.from = from;
            this.at = at.ints();
            this.keys = keys.all();
            this.results = results.all();
            this.closing = closing.all();
            this.times = times.all();
            this.least = new long[from.length - 1];
            long low = Long.MAX_VALUE;
            for (int k = 0; k < least.length; k++) {
                least[k] = from[k + 1] > from[k] ? this.keys[from[k + 1] - 1] : Long.MAX_VALUE;
                low = Math.min(low, least[k]);
            }
            this.lowest = low;
        }

        /** Of the points after a high the first at or below a line; −1: none. */
        int first(int high, long line) {
            if (least[high] > line) {
                return -1;
            }
            int low = from[high];
            int up = from[high + 1] - 1;
            while (low < up) {
                int middle = (low + up) >>> 1;
                if (keys[middle] <= line) {
                    up = middle;
                } else {
                    low = middle + 1;
                }
            }
            return low;
        }
    }

    private DayPath(Maker made) {
        date = made.date;
        highAt = made.highAt.ints();
        highs = made.highs.all();
        highClosing = made.highClosing.all();
        highTimes = made.highTimes.all();
        flatAt = made.flatAt.ints();
        flats = made.flats.all();
        flatTimes = made.flatTimes.all();
        result = made.result;
        traded = made.traded;
        views = Arrays.stream(made.views).map(view -> view.view(highs.length)).toArray(View[]::new);
    }

    /** The trading date. */
    public LocalDate date() {
        return date;
    }

    /** What the day brought. */
    public long result() {
        return result;
    }

    /** Whether anything was filled. */
    public boolean traded() {
        return traded;
    }

    /** The highest result of the day, its first instant included. */
    public long highest() {
        return highs[highs.length - 1];
    }

    /** The lowest, likewise. */
    public long lowest() {
        return Math.min(0, views[0].lowest);
    }

    /** The first high that is at or above a line; −1: none. */
    int firstHigh(long line) {
        if (highs[highs.length - 1] < line) {
            return -1;
        }
        int at = Arrays.binarySearch(highs, line);
        return at >= 0 ? at : -at - 1;
    }

    /** Makes a path of points that are told in their order. */
    static final class Maker {
        private final LocalDate date;
        private final Numbers highAt = new Numbers();
        private final Numbers highs = new Numbers();
        private final Numbers highClosing = new Numbers();
        private final Numbers highTimes = new Numbers();
        private final Numbers flatAt = new Numbers();
        private final Numbers flats = new Numbers();
        private final Numbers flatTimes = new Numbers();
        private final Lows[] views;
        private int points;
        private long result;
        private boolean traded;

        /** @param ticks of every guard that is looked at */
        Maker(LocalDate date, int[] ticks) {
            this.date = date;
            views = new Lows[ticks.length + 1];
            views[0] = new Lows(-1);
            for (int i = 0; i < ticks.length; i++) {
                views[i + 1] = new Lows(ticks[i]);
            }
            high(-1, 0, 0, Long.MIN_VALUE);
        }

        private void high(int at, long value, long closing, long time) {
            highAt.add(at);
            highs.add(value);
            highClosing.add(closing);
            highTimes.add(time);
            for (Lows view : views) {
                view.begins();
            }
        }

        void point(long time, long value, long closing, long perTick, boolean filled) {
            int at = points++;
            if (value > highs.last()) {
                high(at, value, closing, time);
            }
            for (Lows view : views) {
                view.point(at, time, value, closing, perTick);
            }
            if (perTick == 0) {
                flatAt.add(at);
                flats.add(value);
                flatTimes.add(time);
            }
            traded |= filled;
            result = value;
        }

        DayPath made() {
            return new DayPath(this);
        }
    }

    private static final class Lows {
        private final int ticks;
        private final Numbers from = new Numbers();
        private final Numbers at = new Numbers();
        private final Numbers keys = new Numbers();
        private final Numbers results = new Numbers();
        private final Numbers closings = new Numbers();
        private final Numbers times = new Numbers();

        /** @param ticks of a guard; −1: the plain result */
        Lows(int ticks) {
            this.ticks = ticks;
        }

        void begins() {
            from.add(keys.count());
        }

        void point(int number, long time, long value, long closing, long perTick) {
            if (ticks >= 0 && perTick == 0) {
                return;
            }
            long key = ticks < 0 ? value : value - closing - ticks * perTick;
            if (keys.count() == from.last() || key < keys.last()) {
                at.add(number);
                keys.add(key);
                results.add(value);
                closings.add(closing);
                times.add(time);
            }
        }

        View view(int highs) {
            int[] starts = Arrays.copyOf(from.ints(), highs + 1);
            starts[highs] = keys.count();
            return new View(starts, at, keys, results, closings, times);
        }
    }

    /** Numbers that are added one by one. */
    private static final class Numbers {
        private long[] numbers = new long[8];
        private int count;

        void add(long number) {
            if (count == numbers.length) {
                numbers = Arrays.copyOf(numbers, 2 * count);
            }
            numbers[count++] = number;
        }

        long last() {
            return numbers[count - 1];
        }

        int count() {
            return count;
        }

        long[] all() {
            return Arrays.copyOf(numbers, count);
        }

        int[] ints() {
            return Arrays.stream(numbers, 0, count).mapToInt(Math::toIntExact).toArray();
        }
    }
}
