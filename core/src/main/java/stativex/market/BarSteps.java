package stativex.market;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Bars walked tick by tick, as bar mode does: each from its open to the extreme nearer the open, to the other one, to its close. Every
 * step is a print of a tape of its own, without a quote, of the size of its bar's volume. Where both extremes lie equally far from the
 * open the tape has both ways behind one another, and a {@link Walk} takes one of them. The bar that was forming at the tape's end is
 * walked as far as it had come. Source: SEMANTICS, "Bar mode".
 */
public final class BarSteps {
    /** Steps are prints in memory: more of them are a mistake in the contract's tick or in the tape. */
    private static final long MOST = 50_000_000;

    private final BarSeries series;
    private final Tape tape;
    private final int bars;
    private final int[] first;
    private final int[] last;
    /** Of bars with two ways their numbers, where the way by the high begins, and the step that both end with. */
    private final int[] tied;
    private final int[] byHigh;
    private final int[] meeting;

    /**
     * @param series bars of a whole tape, no bricks
     * @throws IllegalArgumentException when these are bricks, or would make more than 50 000 000 steps
     */
    public BarSteps(BarSeries series) {
        if (series.isRenko()) {
            throw new IllegalArgumentException(
                    "bar mode does not walk renko bricks: expected bars of prices that were traded");
        }
        this.series = series;
        this.bars = series.count() + (series.forming().isPresent() ? 1 : 0);
        this.first = new int[bars];
        this.last = new int[bars];
        int ties = 0;
        long steps = 0;
        for (int bar = 0; bar < bars; bar++) {
            ties += tie(bar) ? 1 : 0;
            steps += length(bar);
        }
        if (steps > MOST) {
            throw new IllegalArgumentException("bar mode would walk these bars in " + steps
                    + " steps of a tick: expected at most " + MOST + "; tick mode walks the prints");
        }
        this.tied = new int[ties];
        this.byHigh = new int[ties];
        this.meeting = new int[ties];
        this.tape = lay((int) steps);
    }

    private Tape lay(int steps) {
        TapeBuilder laid = new TapeBuilder(steps);
        int tie = 0;
        for (int bar = 0; bar < bars; bar++) {
            long opens = Math.max(opens(bar), laid.lastTime());
            long ends = Math.max(ends(bar), opens);
            int size = (int) Math.min(volume(bar), TapeBlock.SIZE_MASK);
            first[bar] = laid.count();
            laid.add(opens, open(bar), size, Tape.NONE, Tape.NONE);
            if (tie(bar)) {
                way(laid, ends, bar, low(bar), high(bar), true);
                tied[tie] = bar;
                byHigh[tie] = laid.count();
                way(laid, ends, bar, high(bar), low(bar), true);
                meeting[tie++] = laid.count();
                laid.add(ends, close(bar), size, Tape.NONE, Tape.NONE);
            } else {
                boolean lowFirst = open(bar) - low(bar) < high(bar) - open(bar);
                way(laid, ends, bar, lowFirst ? low(bar) : high(bar), lowFirst ? high(bar) : low(bar), false);
            }
            last[bar] = laid.count() - 1;
        }
        return laid.build();
    }

    /** @param open whether the last step, at the close, is left to be shared with the other way */
    private void way(TapeBuilder laid, long time, int bar, long nearer, long other, boolean open) {
        int size = (int) Math.min(volume(bar), TapeBlock.SIZE_MASK);
        long left = Math.abs(open(bar) - nearer) + Math.abs(other - nearer) + Math.abs(close(bar) - other)
                - (open ? 1 : 0);
        long price = open(bar);
        for (long goal : new long[]{nearer, other, close(bar)}) {
            while (price != goal && left > 0) {
                price += Long.signum(goal - price);
                laid.add(time, price, size, Tape.NONE, Tape.NONE);
                left--;
            }
        }
    }

    private boolean tie(int bar) {
        return high(bar) - open(bar) == open(bar) - low(bar) && high(bar) > low(bar);
    }

    private long length(int bar) {
        long down = open(bar) - low(bar);
        long up = high(bar) - open(bar);
        long range = high(bar) - low(bar);
        long lowFirst = 1 + down + range + high(bar) - close(bar);
        long highFirst = 1 + up + range + close(bar) - low(bar);
        return tie(bar) ? lowFirst + highFirst - 2 : down < up ? lowFirst : highFirst;
    }

    // ------------------------------------------------------------------ bars, the one that formed at the end included

    private boolean forms(int bar) {
        return bar == series.count();
    }

    private BarSeries.Forming forming() {
        return series.forming().orElseThrow();
    }

    private long open(int bar) {
        return forms(bar) ? forming().open() : series.open(bar);
    }

    private long high(int bar) {
        return forms(bar) ? forming().high() : series.high(bar);
    }

    private long low(int bar) {
        return forms(bar) ? forming().low() : series.low(bar);
    }

    private long close(int bar) {
        return forms(bar) ? forming().close() : series.close(bar);
    }

    private long volume(int bar) {
        return forms(bar) ? forming().volume() : series.volume(bar);
    }

    private int firstPrint(int bar) {
        return forms(bar) ? forming().first() : series.first(bar);
    }

    private int lastPrint(int bar) {
        return forms(bar) ? forming().last() : series.last(bar);
    }

    /** Its start, or the open of the session that has its first print where the start lies in none. */
    private long opens(int bar) {
        long print = series.tape().time(firstPrint(bar));
        long start = forms(bar) ? forming().start() : series.start(bar);
        return inSession(start) ? start : series.session(print).orElseThrow().open();
    }

    /** The last instant of a bar that the clock closes, or of the session that has its last print; else that print's time. */
    private long ends(int bar) {
        long print = series.tape().time(lastPrint(bar));
        if (forms(bar) || series.closedAt(bar) == Tape.NONE || series.end(bar) <= print) {
            return print;
        }
        long end = series.end(bar) - 1;
        return inSession(end) ? end : series.session(print).orElseThrow().close() - 1;
    }

    private boolean inSession(long time) {
        return series.session(time).filter(session -> session.contains(time)).isPresent();
    }

    // ------------------------------------------------------------------ what a run asks

    /** The steps, as a tape. */
    public Tape tape() {
        return tape;
    }

    /** The bars that are walked. */
    public BarSeries series() {
        return series;
    }

    /** The moments at which the clock closes bars, nanoseconds: none of them has a step at or after its close. */
    public long[] closings() {
        return IntStream.range(0, series.count()).mapToLong(series::closedAt).filter(at -> at != Tape.NONE).toArray();
    }

    /** The first step of a bar, its open; the one that was forming follows the closed ones. */
    public int first(int bar) {
        return first[bar];
    }

    /** The last step of a bar, its close. */
    public int last(int bar) {
        return last[bar];
    }

    /** The bar that a step belongs to. */
    public int bar(int step) {
        int found = Arrays.binarySearch(first, step);
        return found >= 0 ? found : -found - 2;
    }

    /** Time of the first print of a step's bar, nanoseconds. */
    public long begins(int step) {
        return series.tape().time(firstPrint(bar(step)));
    }

    /** The last print of a step's bar, on the tape that the bars were made of. */
    public int lastPrintOf(int step) {
        return lastPrint(bar(step));
    }

    /** Whether the bar of a step comes to a price after it, from above, or from below; with two ways, on the way of that step. */
    public boolean comesTo(int step, long price, boolean falling) {
        int bar = bar(step);
        int tie = Arrays.binarySearch(tied, bar);
        int end = last[bar] + 1;
        if (tie >= 0 && step > first[bar] && step < byHigh[tie]) {
            if (reached(meeting[tie], price, falling)) {
                return true;
            }
            end = byHigh[tie];
        }
        for (int next = step + 1; next < end; next++) {
            if (reached(next, price, falling)) {
                return true;
            }
        }
        return false;
    }

    private boolean reached(int step, long price, boolean falling) {
        return falling ? tape.price(step) <= price : tape.price(step) >= price;
    }

    /** Begins at the first step. */
    public Walk walk() {
        return new Walk();
    }

    /** Which steps come one after the other. */
    public final class Walk {
        private int tie;
        private boolean byLow;

        private Walk() {}

        /** The step before which to ask {@link #next} again. */
        public int bound() {
            return tie == tied.length ? Integer.MAX_VALUE : byLow ? byHigh[tie] : first[tied[tie]] + 1;
        }

        /**
         * The step to go on with.
         *
         * @param step in order of the tape, the ones before it have been worked
         * @param net position after it; the extreme against it comes first, of two that lie equally far
         */
        public int next(int step, long net) {
            if (step < bound()) {
                return step;
            }
            if (byLow) {
                byLow = false;
                return meeting[tie++];
            }
            if (net < 0) {
                return byHigh[tie++];
            }
            byLow = true;
            return step;
        }

        /** Bars so far whose extremes lay equally far from the open. */
        public int ties() {
            return tie + (byLow ? 1 : 0);
        }
    }
}
