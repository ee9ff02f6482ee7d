package stativex.market;

import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * Up to 65 536 prints of a tape in narrow columns, one after another in one piece of memory, each beginning at a multiple
 * of 8 bytes: times (8 bytes), prices as distances from a base (4), sizes with the aggressor in the two highest bits (4),
 * then bid, ask, bid size and ask size, each 0 (never there), 2 or 4 bytes wide. Quotes are distances from the print's own
 * price. Little-endian. Immutable but for one that forms at the end of a tape that grows: prints are added behind what is there. Safe to
 * read from any thread that has learned of a print after it was added.
 */
public final class TapeBlock {
    /** Prints of a full block. */
    public static final int FULL = 1 << 16;
    /** Bytes a print takes at most. */
    public static final int WIDEST = 32;
    private static final ValueLayout.OfLong LONG = ValueLayout.JAVA_LONG.withOrder(ByteOrder.LITTLE_ENDIAN);
    private static final ValueLayout.OfInt INT = ValueLayout.JAVA_INT.withOrder(ByteOrder.LITTLE_ENDIAN);
    private static final ValueLayout.OfShort SHORT = ValueLayout.JAVA_SHORT.withOrder(ByteOrder.LITTLE_ENDIAN);
    /** Further than any price: so that distances fit. */
    private static final long FAR_UP = 1L << 61;
    private static final long FAR_DOWN = -FAR_UP;
    static final int SIZE_BITS = 30;
    static final int SIZE_MASK = (1 << SIZE_BITS) - 1;

    /** Widths in bytes, each 0, 2 or 4. */
    public record Widths(int bid, int ask, int bidSize, int askSize) {
        public Widths {
            for (int width : new int[]{bid, ask, bidSize, askSize}) {
                if (width != 0 && width != 2 && width != 4) {
                    throw new IllegalArgumentException("expected a column width of 0, 2 or 4 bytes, found " + width);
                }
            }
        }

        /** Bytes of a block of {@code count} prints. */
        public long bytes(int count) {
            return place(count, 8) + 2 * place(count, 4) + place(count, bid) + place(count, ask)
                    + place(count, bidSize) + place(count, askSize);
        }
    }

    private final int first;
    private int count;
    private long base;
    private int largest;
    private final Widths widths;
    private final MemorySegment bytes;
    private final MemorySegment time;
    private final MemorySegment price;
    private final MemorySegment size;
    private final MemorySegment bid;
    private final MemorySegment ask;
    private final MemorySegment bidSize;
    private final MemorySegment askSize;

    /**
     * @param first index of its first print on the tape
     * @param base what the price column counts from, ticks
     * @param largest the largest size in it
     * @param bytes exactly {@link Widths#bytes} of them
     */
    public TapeBlock(int first, int count, long base, int largest, Widths widths, MemorySegment bytes) {
        if (bytes.byteSize() != widths.bytes(count)) {
            throw new IllegalArgumentException("expected a block of " + widths.bytes(count) + " bytes, found "
                    + bytes.byteSize());
        }
        this.first = first;
        this.count = count;
        this.base = base;
        this.largest = largest;
        this.widths = widths;
        this.bytes = bytes;
        long at = 0;
        time = bytes.asSlice(at, 8L * count);
        at += place(count, 8);
        price = bytes.asSlice(at, 4L * count);
        at += place(count, 4);
        size = bytes.asSlice(at, 4L * count);
        at += place(count, 4);
        bid = bytes.asSlice(at, (long) widths.bid * count);
        at += place(count, widths.bid);
        ask = bytes.asSlice(at, (long) widths.ask * count);
        at += place(count, widths.ask);
        bidSize = bytes.asSlice(at, (long) widths.bidSize * count);
        at += place(count, widths.bidSize);
        askSize = bytes.asSlice(at, (long) widths.askSize * count);
    }

    /** An empty block with room for {@link #FULL} prints, each as wide as can be. */
    static TapeBlock forming(int first) {
        Widths widest = new Widths(4, 4, 4, 4);
        TapeBlock block = new TapeBlock(first, FULL, 0, 0, widest, Arena.ofAuto().allocate(widest.bytes(FULL), 8));
        block.count = 0;
        return block;
    }

    /** Price that the others are counted from; that of the first print, {@code other} before it. */
    long base(long other) {
        return count == 0 ? other : base;
    }

    /** Adds a print behind the others of a forming block. @param code size with the aggressor above it */
    void add(long nanos, long ticks, int code, long bidPrice, long askPrice, long bidContracts, long askContracts) {
        if (count == 0) {
            base = ticks;
        }
        time.setAtIndex(LONG, count, nanos);
        price.setAtIndex(INT, count, (int) (ticks - base));
        size.setAtIndex(INT, count, code);
        bid.setAtIndex(INT, count, narrow(bidPrice, ticks));
        ask.setAtIndex(INT, count, narrow(askPrice, ticks));
        bidSize.setAtIndex(INT, count, narrow(bidContracts, 0));
        askSize.setAtIndex(INT, count, narrow(askContracts, 0));
        largest = Math.max(largest, code & SIZE_MASK);
        count++;
    }

    private static int narrow(long value, long from) {
        return value == Tape.NONE ? Integer.MIN_VALUE : (int) (value - from);
    }

    private static long place(int count, int width) {
        return Math.ceilDiv((long) width * count, 8L) * 8;
    }

    /** Packs columns; quotes and quote sizes are {@link Tape#NONE} where there are none. */
    static TapeBlock pack(int first, int count, long[] times, long[] prices, int[] sizes, long[] bids, long[] asks,
            long[] bidSizes, long[] askSizes) {
        Widths widths = new Widths(distanceWidth(bids, prices, count), distanceWidth(asks, prices, count),
                sizeWidth(bidSizes, count), sizeWidth(askSizes, count));
        MemorySegment bytes = Arena.ofAuto().allocate(Math.max(8, widths.bytes(count)), 8)
                .asSlice(0, widths.bytes(count));
        long base = count == 0 ? 0 : prices[0];
        int largest = 0;
        for (int i = 0; i < count; i++) {
            largest = Math.max(largest, sizes[i] & SIZE_MASK);
        }
        TapeBlock block = new TapeBlock(first, count, base, largest, widths, bytes);
        MemorySegment.copy(times, 0, block.time, LONG, 0, count);
        MemorySegment.copy(sizes, 0, block.size, INT, 0, count);
        long[] distances = new long[count];
        for (int i = 0; i < count; i++) {
            distances[i] = prices[i] - base;
        }
        put(distances, 4, block.price);
        put(distances(bids, prices, distances), widths.bid, block.bid);
        put(distances(asks, prices, distances), widths.ask, block.ask);
        put(Arrays.copyOf(bidSizes, count), widths.bidSize, block.bidSize);
        put(Arrays.copyOf(askSizes, count), widths.askSize, block.askSize);
        return block;
    }

    /** Fills {@code room}; loops over arrays and one copy, which is much faster than setting a column value by value. */
    private static long[] distances(long[] quotes, long[] prices, long[] room) {
        for (int i = 0; i < room.length; i++) {
            room[i] = quotes[i] == Tape.NONE ? Tape.NONE : quotes[i] - prices[i];
        }
        return room;
    }

    private static void put(long[] values, int width, MemorySegment column) {
        if (width == 2) {
            short[] narrow = new short[values.length];
            for (int i = 0; i < values.length; i++) {
                narrow[i] = values[i] == Tape.NONE ? Short.MIN_VALUE : (short) values[i];
            }
            MemorySegment.copy(narrow, 0, column, SHORT, 0, values.length);
        } else if (width == 4) {
            int[] narrow = new int[values.length];
            for (int i = 0; i < values.length; i++) {
                narrow[i] = values[i] == Tape.NONE ? Integer.MIN_VALUE : (int) values[i];
            }
            MemorySegment.copy(narrow, 0, column, INT, 0, values.length);
        }
    }

    private static int distanceWidth(long[] quotes, long[] prices, int count) {
        int width = 0;
        for (int i = 0; i < count; i++) {
            if (quotes[i] != Tape.NONE) {
                long distance = quotes[i] - prices[i];
                width = Math.max(width, distance > Short.MIN_VALUE && distance <= Short.MAX_VALUE ? 2 : 4);
            }
        }
        return width;
    }

    private static int sizeWidth(long[] sizes, int count) {
        int width = 0;
        for (int i = 0; i < count; i++) {
            if (sizes[i] != Tape.NONE) {
                width = Math.max(width, sizes[i] <= Short.MAX_VALUE ? 2 : 4);
            }
        }
        return width;
    }

    private static long get(MemorySegment column, int width, int place) {
        if (width == 2) {
            short value = column.getAtIndex(SHORT, place);
            return value == Short.MIN_VALUE ? Tape.NONE : value;
        }
        if (width == 4) {
            int value = column.getAtIndex(INT, place);
            return value == Integer.MIN_VALUE ? Tape.NONE : value;
        }
        return Tape.NONE;
    }

    /** The same prints at another place of a tape, or some of them, their prices moved by {@code shift} ticks. */
    TapeBlock part(int newFirst, int from, int to, long shift) {
        if (from == 0 && to == count) {
            return new TapeBlock(newFirst, count, Math.addExact(base, shift), largest, widths, bytes);
        }
        MemorySegment fresh = Arena.ofAuto().allocate(Math.max(8, widths.bytes(to - from)), 8)
                .asSlice(0, widths.bytes(to - from));
        TapeBlock part = new TapeBlock(newFirst, to - from, Math.addExact(base, shift), largest, widths, fresh);
        copy(time, part.time, 8, from, to);
        copy(price, part.price, 4, from, to);
        copy(size, part.size, 4, from, to);
        copy(bid, part.bid, widths.bid, from, to);
        copy(ask, part.ask, widths.ask, from, to);
        copy(bidSize, part.bidSize, widths.bidSize, from, to);
        copy(askSize, part.askSize, widths.askSize, from, to);
        return part;
    }

    private static void copy(MemorySegment column, MemorySegment to, int width, int from, int end) {
        to.copyFrom(column.asSlice((long) width * from, (long) width * (end - from)));
    }

    public int first() {
        return first;
    }

    public int count() {
        return count;
    }

    /** Time of its first print, nanoseconds. */
    public long firstTime() {
        return time(first);
    }

    /** Time of its last print, nanoseconds. */
    public long lastTime() {
        return time(first + count - 1);
    }

    /** What the price column counts from, ticks. */
    public long base() {
        return base;
    }

    /** The largest size of a print in it, contracts. */
    public int largest() {
        return largest;
    }

    public Widths widths() {
        return widths;
    }

    /** The columns as they lie in memory. */
    public MemorySegment bytes() {
        return bytes;
    }

    long time(int print) {
        return time.getAtIndex(LONG, print - first);
    }

    long price(int print) {
        return base + price.getAtIndex(INT, print - first);
    }

    /** Size and aggressor in one number. */
    int sizeCode(int print) {
        return size.getAtIndex(INT, print - first);
    }

    private long quote(MemorySegment column, int width, int print) {
        long distance = get(column, width, print - first);
        return distance == Tape.NONE ? Tape.NONE : price(print) + distance;
    }

    long bid(int print) {
        return quote(bid, widths.bid, print);
    }

    long ask(int print) {
        return quote(ask, widths.ask, print);
    }

    long bidSize(int print) {
        return get(bidSize, widths.bidSize, print - first);
    }

    long askSize(int print) {
        return get(askSize, widths.askSize, print - first);
    }

    /** The first print of this block whose time is not before {@code nanos}; the one after its last if there is none. */
    int firstAt(long nanos) {
        return halved(nanos, 0, count);
    }

    /** The same from {@code from} on, by steps that grow and then are halved; there is one. */
    int firstAt(long nanos, int from) {
        int low = from - first;
        int step = 16;
        int high = low;
        while (high < count && time.getAtIndex(LONG, high) < nanos) {
            low = high + 1;
            high += step;
            step *= 2;
        }
        return halved(nanos, low, Math.min(high, count - 1));
    }

    /** The first print between two places of this block whose time is not before {@code nanos}; the upper one if none is. */
    private int halved(long nanos, int from, int to) {
        int low = from;
        int high = to;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (time.getAtIndex(LONG, middle) < nanos) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return first + low;
    }

    /**
     * Adds the prints {@code from} to {@code to}, the last one not included, to a bar's extremes and volumes. Simple loops
     * over local columns with a long index, which the compiler turns into vector code (with an int index it does not, and they
     * take ten times as long); no branch asks who the aggressor was.
     */
    void gather(int from, int to, Bar bar) {
        MemorySegment prices = price;
        int highest = Integer.MIN_VALUE;
        int lowest = Integer.MAX_VALUE;
        long end = to - first;
        for (long i = from - first; i < end; i++) {
            int away = prices.getAtIndex(INT, i);
            highest = Math.max(highest, away);
            lowest = Math.min(lowest, away);
        }
        bar.high = Math.max(bar.high, base + highest);
        bar.low = Math.min(bar.low, base + lowest);
        // sums of so many prints fit an int, which adds in vectors
        int most = Math.max(1, Integer.MAX_VALUE / Math.max(1, largest));
        for (long at = from - first; at < end; at += most) {
            sums(at, Math.min(at + most, end), bar);
        }
    }

    private void sums(long from, long to, Bar bar) {
        MemorySegment codes = size;
        int contracts = 0;
        int bought = 0;
        int sold = 0;
        for (long i = from; i < to; i++) {
            int code = codes.getAtIndex(INT, i);
            int size = code & SIZE_MASK;
            contracts += size;
            bought += size & -(code >>> SIZE_BITS & 1);
            sold += size & code >> 31;
        }
        bar.volume = Math.addExact(bar.volume, contracts);
        bar.bought += bought;
        bar.sold += sold;
    }

    /** Contracts of the prints {@code from} to {@code to}, the last one not included. */
    long contracts(int from, int to) {
        MemorySegment codes = size;
        long end = to - first;
        long sum = 0;
        for (long i = from - first; i < end; i++) {
            sum += codes.getAtIndex(INT, i) & SIZE_MASK;
        }
        return sum;
    }

    /** Highest and lowest price of the same prints. */
    void extremes(int from, int to, Extremes found) {
        MemorySegment prices = price;
        int highest = Integer.MIN_VALUE;
        int lowest = Integer.MAX_VALUE;
        long end = to - first;
        for (long i = from - first; i < end; i++) {
            int away = prices.getAtIndex(INT, i);
            highest = Math.max(highest, away);
            lowest = Math.min(lowest, away);
        }
        found.take(base + highest, base + lowest);
    }

    /** Takes the same prints into a swing; local variables, so that nothing is written in the loop. */
    void swing(int from, int to, Swing s) {
        MemorySegment prices = price;
        long sign = s.rises ? 1 : -1;
        long top = s.top;
        boolean reached = s.reached;
        boolean below = s.below;
        long lowestBefore = s.lowestBefore;
        long deepest = s.deepest;
        long end = to - first;
        long peak = -1;
        for (long i = from - first; i < end; i++) {
            long value = sign * (base + prices.getAtIndex(INT, i));
            if (value >= top) {
                if (below) {
                    long since = peak < 0 ? s.peakTime : time.getAtIndex(LONG, peak);
                    if (time.getAtIndex(LONG, i) - since > s.longest) {
                        s.longest = time.getAtIndex(LONG, i) - since;
                        s.longestFrom = since;
                    }
                    below = false;
                }
                reached = true;
                top = value;
                peak = i;
            } else {
                below = true;
                if (reached) {
                    deepest = Math.max(deepest, top - value);
                } else {
                    lowestBefore = Math.min(lowestBefore, value);
                }
            }
        }
        s.top = top;
        s.reached = reached;
        s.below = below;
        s.lowestBefore = lowestBefore;
        s.deepest = deepest;
        s.peakTime = peak < 0 ? s.peakTime : time.getAtIndex(LONG, peak);
    }

    /** Adds the same prints to sums of sizes, distances and squares, in whole numbers. */
    void weigh(int from, int to, WeightedSums sums) {
        MemorySegment prices = price;
        MemorySegment codes = size;
        long shift = base - sums.anchor();
        long end = to - first;
        long contracts = 0;
        long distances = 0;
        long squares = 0;
        long furthest = 0;
        for (long i = from - first; i < end; i++) {
            long away = prices.getAtIndex(INT, i) + shift;
            long many = codes.getAtIndex(INT, i) & SIZE_MASK;
            contracts += many;
            distances += away * many;
            squares += away * away * many;
            furthest = Math.max(furthest, Math.abs(away));
        }
        // no partial sum can have left a long when the furthest print at every size would not have
        boolean fits = furthest < 1 << 30
                && (contracts == 0 || furthest * furthest <= Long.MAX_VALUE / contracts);
        if (fits) {
            sums.add(contracts, distances, squares);
        } else {
            for (int print = from; print < to; print++) {
                sums.add(price(print), sizeCode(print) & SIZE_MASK);
            }
        }
    }

    /** The first of the prints {@code from} to {@code to} with which their sizes add up to {@code sum} or more, else {@code to}. */
    int fills(int from, int to, long sum) {
        MemorySegment codes = size;
        long end = to - first;
        long left = sum;
        for (long i = from - first; i < end; i++) {
            left -= codes.getAtIndex(INT, i) & SIZE_MASK;
            if (left <= 0) {
                return first + (int) i;
            }
        }
        return to;
    }

    /** The first of the prints {@code from} to {@code to} at or beyond one of two prices, else {@code to}. */
    int reaches(int from, int to, long down, long up) {
        MemorySegment prices = price;
        long end = to - first;
        // two comparisons in one: what lies between the levels is, from the lower one on, below their distance
        long above = Math.max(down, FAR_DOWN) + 1 - base;
        long room = Math.min(up, FAR_UP) - Math.max(down, FAR_DOWN) - 1;
        for (long i = from - first; i < end; i++) {
            if (Long.compareUnsigned(prices.getAtIndex(INT, i) - above, room) >= 0) {
                return first + (int) i;
            }
        }
        return to;
    }

    /**
     * The first of the prints {@code from} to {@code to} whose price would stretch a bar from {@code low} to {@code high}
     * over more than {@code range} ticks, else {@code to}.
     */
    int stretches(int from, int to, long low, long high, long range) {
        MemorySegment prices = price;
        long end = to - first;
        long lowest = low - base;
        long highest = high - base;
        for (long i = from - first; i < end; i++) {
            int away = prices.getAtIndex(INT, i);
            if (away > highest || away < lowest) {
                highest = Math.max(highest, away);
                lowest = Math.min(lowest, away);
                if (highest - lowest > range) {
                    return first + (int) i;
                }
            }
        }
        return to;
    }
}
