package stativex.market;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * Collects prints in order, a block at a time: what it holds on the heap does not grow with the tape. Full blocks are kept
 * for {@link #build()}, or handed on at once if somebody takes them. Not safe for several threads.
 */
public final class TapeBuilder {
    private final List<TapeBlock> blocks = new ArrayList<>();
    private final Consumer<TapeBlock> taker;
    private int capacity;
    private long[] times;
    private long[] prices;
    private int[] sizes;
    private long[] bids;
    private long[] asks;
    private long[] bidSizes;
    private long[] askSizes;
    /** Index of the forming block's first print, and how many it holds. */
    private int first;
    private int filled;
    private final PrintCheck check = new PrintCheck();

    /** @param expected a guess at the number of prints; more may be added */
    public TapeBuilder(int expected) {
        this(expected, null);
    }

    /** @param taker gets each block as soon as it is full, and the last one at {@link #finish()}; none is kept */
    public TapeBuilder(Consumer<TapeBlock> taker) {
        this(TapeBlock.FULL, taker);
    }

    private TapeBuilder(int expected, Consumer<TapeBlock> taker) {
        this.taker = taker == null ? blocks::add : taker;
        room(Math.clamp(expected, 16, TapeBlock.FULL));
    }

    private void room(int prints) {
        capacity = prints;
        times = copy(times);
        prices = copy(prices);
        sizes = sizes == null ? new int[prints] : java.util.Arrays.copyOf(sizes, prints);
        bids = copy(bids);
        asks = copy(asks);
        bidSizes = copy(bidSizes);
        askSizes = copy(askSizes);
    }

    private long[] copy(long[] column) {
        return column == null ? new long[capacity] : java.util.Arrays.copyOf(column, capacity);
    }

    /** Prints so far. */
    public int count() {
        return first + filled;
    }

    /** Time of the last print; {@link Long#MIN_VALUE} before the first. */
    public long lastTime() {
        return check.lastTime();
    }

    /** Adds a print whose aggressor is worked out from quote and tick test. */
    public TapeBuilder add(long nanos, long ticks, long contracts, long bid, long ask) {
        return add(nanos, ticks, contracts, bid, ask, Optional.empty());
    }

    /** Adds a print without quote sizes. */
    public TapeBuilder add(long nanos, long ticks, long contracts, long bid, long ask, Optional<Aggressor> given) {
        return add(nanos, ticks, contracts, bid, ask, Tape.NONE, Tape.NONE, given);
    }

    /**
     * Adds a print.
     *
     * @param bid best bid just before it in ticks, or {@link Tape#NONE}; likewise {@code ask}
     * @param bidSize contracts at the best bid, or {@link Tape#NONE}; likewise {@code askSize}
     * @param given the aggressor the source states; empty works it out
     * @throws IllegalArgumentException when time goes back, the size is below 1, or a value is out of range; nothing is
     *         added then
     */
    public TapeBuilder add(long nanos, long ticks, long contracts, long bid, long ask, long bidSize, long askSize,
            Optional<Aggressor> given) {
        if (filled == TapeBlock.FULL) {
            hand();
        } else if (filled == capacity) {
            room(Math.min(TapeBlock.FULL, capacity * 2));
        }
        int code = check.take(nanos, ticks, contracts, bid, ask, filled == 0 ? ticks : prices[0], given);
        times[filled] = nanos;
        prices[filled] = ticks;
        sizes[filled] = code;
        bids[filled] = bid;
        asks[filled] = ask;
        bidSizes[filled] = bidSize;
        askSizes[filled] = askSize;
        filled++;
        return this;
    }

    private void hand() {
        taker.accept(TapeBlock.pack(first, filled, times, prices, sizes, bids, asks, bidSizes, askSizes));
        first = Math.addExact(first, filled);
        filled = 0;
    }

    /** Hands the last block on. */
    public void finish() {
        if (filled > 0) {
            hand();
        }
    }

    /** The tape of everything added. */
    public Tape build() {
        finish();
        return Tape.of(blocks);
    }
}
