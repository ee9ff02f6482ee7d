package stativex.market;

import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Optional;
import java.util.zip.CRC32C;

/**
 * The prints of one contract month, in columns. One tick is one trade print; equal times keep file order and time never
 * goes back. Immutable and safe to read from any thread. Reading a value allocates nothing.
 */
public final class Tape {
    /** Stands for an absent bid, ask or price. */
    public static final long NONE = Long.MIN_VALUE;
    private static final int NO_QUOTE = Integer.MIN_VALUE;

    private final int count;
    private final long base;
    private final MemorySegment time;
    private final MemorySegment price;
    private final MemorySegment size;
    private final MemorySegment bid;
    private final MemorySegment ask;
    private final MemorySegment aggressor;

    private Tape(Builder b) {
        count = b.count;
        base = b.base;
        time = b.time.asSlice(0, 8L * count).asReadOnly();
        price = b.price.asSlice(0, 4L * count).asReadOnly();
        size = b.size.asSlice(0, 4L * count).asReadOnly();
        bid = b.bid.asSlice(0, 4L * count).asReadOnly();
        ask = b.ask.asSlice(0, 4L * count).asReadOnly();
        aggressor = b.aggressor.asSlice(0, count).asReadOnly();
    }

    /** Number of prints. */
    public int count() {
        return count;
    }

    /** Nanoseconds since 1970 UTC. */
    public long time(int print) {
        return time.getAtIndex(ValueLayout.JAVA_LONG, print);
    }

    /** Ticks. */
    public long price(int print) {
        return base + price.getAtIndex(ValueLayout.JAVA_INT, print);
    }

    /** Contracts, at least 1. */
    public int size(int print) {
        return size.getAtIndex(ValueLayout.JAVA_INT, print);
    }

    /** Best bid just before the print in ticks, or {@link #NONE}. */
    public long bid(int print) {
        return quote(bid, print);
    }

    /** Best ask just before the print in ticks, or {@link #NONE}. */
    public long ask(int print) {
        return quote(ask, print);
    }

    private long quote(MemorySegment column, int print) {
        int value = column.getAtIndex(ValueLayout.JAVA_INT, print);
        return value == NO_QUOTE ? NONE : base + value;
    }

    public Aggressor aggressor(int print) {
        return switch (aggressor.get(ValueLayout.JAVA_BYTE, print)) {
            case 1 -> Aggressor.BUYER;
            case 2 -> Aggressor.SELLER;
            default -> Aggressor.UNKNOWN;
        };
    }

    /** Bit 0 for a buyer, bit 1 for a seller, neither for unknown. */
    int aggressorCode(int print) {
        return aggressor.get(ValueLayout.JAVA_BYTE, print);
    }

    /** Adds the prints {@code from} to {@code to}, the last one not included, to a bar's extremes and volumes. */
    void gather(int from, int to, Bar bar) {
        // two loops over local columns: the first one the compiler turns into vector code
        MemorySegment prices = price;
        int highest = Integer.MIN_VALUE;
        int lowest = Integer.MAX_VALUE;
        for (int print = from; print < to; print++) {
            int away = prices.getAtIndex(ValueLayout.JAVA_INT, print);
            highest = Math.max(highest, away);
            lowest = Math.min(lowest, away);
        }
        MemorySegment sizes = size;
        MemorySegment codes = aggressor;
        long contracts = 0;
        long buys = 0;
        long sells = 0;
        for (int print = from; print < to; print++) {
            long contract = sizes.getAtIndex(ValueLayout.JAVA_INT, print);
            // without a branch: who crossed the spread is as good as a coin, and a wrong guess costs more than the rest
            int who = codes.get(ValueLayout.JAVA_BYTE, print);
            contracts += contract;
            buys += contract & -(who & 1);
            sells += contract & -(who >> 1);
        }
        bar.high = Math.max(bar.high, base + highest);
        bar.low = Math.min(bar.low, base + lowest);
        bar.volume = Math.addExact(bar.volume, contracts);
        bar.bought += buys;
        bar.sold += sells;
    }

    /** The first print whose time is not before {@code nanos}; {@link #count()} when there is none. */
    public int firstAt(long nanos) {
        int low = 0;
        int high = count;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (time(middle) < nanos) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** CRC-32C (RFC 3720) over all columns in little-endian order: tells whether two tapes are the same. */
    public long checksum() {
        CRC32C sum = new CRC32C();
        sum.update(Long.toString(base).getBytes(java.nio.charset.StandardCharsets.US_ASCII));
        for (MemorySegment column : new MemorySegment[]{time, price, size, bid, ask, aggressor}) {
            sum.update(column.asByteBuffer());
        }
        return sum.getValue();
    }

    /** Collects prints in order. Not safe for several threads. */
    public static final class Builder {
        private int count;
        private long base;
        private long lastTime = Long.MIN_VALUE;
        private long lastPrice = NONE;
        private long lastDifferent = NONE;
        private int capacity;
        private MemorySegment time;
        private MemorySegment price;
        private MemorySegment size;
        private MemorySegment bid;
        private MemorySegment ask;
        private MemorySegment aggressor;

        /** @param expected a guess at the number of prints; more may be added */
        public Builder(int expected) {
            capacity = Math.max(16, expected);
            Arena arena = Arena.ofAuto();
            time = arena.allocate(8L * capacity, 8);
            price = arena.allocate(4L * capacity, 8);
            size = arena.allocate(4L * capacity, 8);
            bid = arena.allocate(4L * capacity, 8);
            ask = arena.allocate(4L * capacity, 8);
            aggressor = arena.allocate(capacity, 8);
        }

        public int count() {
            return count;
        }

        /** Adds a print whose aggressor is worked out from quote and tick test. */
        public Builder add(long nanos, long ticks, long contracts, long bidTicks, long askTicks) {
            return add(nanos, ticks, contracts, bidTicks, askTicks, Optional.empty());
        }

        /**
         * Adds a print.
         *
         * @param bidTicks best bid just before it, or {@link Tape#NONE}
         * @param askTicks best ask just before it, or {@link Tape#NONE}
         * @param given the aggressor the source states; empty works it out
         * @throws IllegalArgumentException when time goes back, the size is below 1, or a value is out of range
         */
        public Builder add(long nanos, long ticks, long contracts, long bidTicks, long askTicks,
                Optional<Aggressor> given) {
            if (nanos < lastTime) {
                throw new IllegalArgumentException("expected a time not before the print above it ("
                        + TapeTime.instant(lastTime) + "), found " + TapeTime.instant(nanos));
            }
            if (contracts < 1 || contracts > Integer.MAX_VALUE) {
                throw new IllegalArgumentException("expected a size of 1 or more contracts, found " + contracts);
            }
            if (count == capacity) {
                grow();
            }
            if (count == 0) {
                base = ticks;
            }
            if (lastPrice != NONE && ticks != lastPrice) {
                lastDifferent = lastPrice;
            }
            Aggressor who = given
                    .orElseGet(() -> Aggressor.workOut(ticks, bidTicks, askTicks, lastDifferent));
            time.setAtIndex(ValueLayout.JAVA_LONG, count, nanos);
            price.setAtIndex(ValueLayout.JAVA_INT, count, offset(ticks));
            size.setAtIndex(ValueLayout.JAVA_INT, count, (int) contracts);
            bid.setAtIndex(ValueLayout.JAVA_INT, count, bidTicks == NONE ? NO_QUOTE : offset(bidTicks));
            ask.setAtIndex(ValueLayout.JAVA_INT, count, askTicks == NONE ? NO_QUOTE : offset(askTicks));
            aggressor.set(ValueLayout.JAVA_BYTE, count, (byte) who.ordinal());
            lastTime = nanos;
            lastPrice = ticks;
            count++;
            return this;
        }

        private int offset(long ticks) {
            long offset = Math.subtractExact(ticks, base);
            if (offset <= Integer.MIN_VALUE || offset > Integer.MAX_VALUE) {
                throw new IllegalArgumentException(
                        "expected a price within two thousand million ticks of the first one, found " + ticks
                                + " ticks");
            }
            return (int) offset;
        }

        private void grow() {
            capacity = Math.multiplyExact(capacity, 2);
            Arena arena = Arena.ofAuto();
            time = arena.allocate(8L * capacity, 8).copyFrom(time);
            price = arena.allocate(4L * capacity, 8).copyFrom(price);
            size = arena.allocate(4L * capacity, 8).copyFrom(size);
            bid = arena.allocate(4L * capacity, 8).copyFrom(bid);
            ask = arena.allocate(4L * capacity, 8).copyFrom(ask);
            aggressor = arena.allocate(capacity, 8).copyFrom(aggressor);
        }

        public Tape build() {
            return new Tape(this);
        }
    }
}
