package stativex.market;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import java.util.zip.CRC32C;

/**
 * The prints of one contract month, or of several joined ones, in blocks of narrow columns. One tick is one trade print;
 * equal times keep file order and time never goes back. Immutable but for one that grows ({@link GrowingTape}), and safe to read from any
 * thread. Reading a value allocates nothing. A tape from a file fetches and checks each block when it is first touched.
 */
public final class Tape {
    /** Stands for an absent bid, ask, quote size or price. */
    public static final long NONE = Long.MIN_VALUE;
    private static final int SHIFT = Integer.numberOfTrailingZeros(TapeBlock.FULL);

    /**
     * What is known of a block before it is fetched.
     *
     * @param first index of its first print
     * @param firstTime time of its first print, nanoseconds
     */
    public record Outline(int first, int count, long firstTime) {}

    private int count;
    private final List<Outline> outlines;
    /** Index behind each block's last print. */
    private final int[] ends;
    /** Time of each block's first print. */
    private final long[] firstTimes;
    /** For each stretch of 65 536 prints the block that holds its first one. */
    private final int[] guesses;
    private final TapeBlock[] blocks;
    private final IntFunction<TapeBlock> source;
    /** Only that of a tape that grows ever becomes another. */
    private volatile Set<SessionName> incomplete;
    private long checksum;
    /** Prints that {@link #checksum} is of; −1 before it was asked for. */
    private int summed = -1;
    /** Blocks that hold prints. */
    private int used;

    /** A session of a trading date. */
    public record SessionName(java.time.LocalDate date, String name) implements Comparable<SessionName> {
        @Override
        public int compareTo(SessionName other) {
            int byDate = date.compareTo(other.date);
            return byDate != 0 ? byDate : name.compareTo(other.name);
        }

        /** Such as {@code 2026-09-24/Day}. */
        public String text() {
            return date + "/" + name;
        }
    }

    /**
     * @param outlines blocks in order without a gap
     * @param source fetches a block by its place in the list; it may throw when the block is damaged
     * @param incomplete sessions that lack prints
     */
    public Tape(List<Outline> outlines, IntFunction<TapeBlock> source, Set<SessionName> incomplete) {
        this.outlines = List.copyOf(outlines);
        this.source = source;
        this.incomplete = Set.copyOf(incomplete);
        this.blocks = new TapeBlock[outlines.size()];
        this.ends = new int[outlines.size()];
        this.firstTimes = outlines.stream().mapToLong(Outline::firstTime).toArray();
        int end = 0;
        for (int i = 0; i < ends.length; i++) {
            if (outlines.get(i).first() != end || outlines.get(i).count() < 1) {
                throw new IllegalArgumentException("blocks of a tape must follow one another without a gap");
            }
            end = Math.addExact(end, outlines.get(i).count());
            ends[i] = end;
        }
        this.count = end;
        this.used = ends.length;
        this.guesses = guesses(ends);
    }

    /**
     * A tape that begins as another one and grows behind it.
     *
     * @param further blocks that there is room for
     */
    Tape(Tape before, int further) {
        this.outlines = before.outlines;
        this.incomplete = before.incomplete;
        this.used = before.used;
        this.count = before.count;
        this.blocks = Arrays.copyOf(before.blocks, used + further);
        this.source = before::block;
        this.firstTimes = Arrays.copyOf(before.firstTimes, used + further);
        this.ends = Arrays.copyOf(before.ends, used + further);
        for (int i = used; i < ends.length; i++) {
            firstTimes[i] = Long.MAX_VALUE;
            ends[i] = Math.addExact(i == 0 ? 0 : ends[i - 1], TapeBlock.FULL);
        }
        this.guesses = guesses(ends);
    }

    /** The block that forms behind the others gets its first print. */
    void begin(TapeBlock block, long nanos) {
        blocks[used] = block;
        firstTimes[used] = nanos;
        used++;
    }

    /** Whether there is no room for another block. */
    boolean isFull() {
        return used == blocks.length;
    }

    /** Prints of a session were missed. */
    void lacks(SessionName session) {
        Set<SessionName> more = new TreeSet<>(incomplete);
        more.add(session);
        incomplete = Set.copyOf(more);
    }

    /** A print was added to the block that forms. */
    void grown() {
        count++;
    }

    private List<Outline> outlines() {
        return IntStream.range(0, used).mapToObj(this::outline).toList();
    }

    private Outline outline(int index) {
        if (index < outlines.size()) {
            return outlines.get(index);
        }
        TapeBlock grown = blocks[index];
        return new Outline(grown.first(), grown.count(), grown.time(grown.first()));
    }

    private static int[] guesses(int[] ends) {
        int last = ends.length == 0 ? 0 : ends[ends.length - 1];
        int[] guesses = new int[(last >>> SHIFT) + 1];
        int block = 0;
        for (int i = 0; i < guesses.length; i++) {
            while (block < ends.length - 1 && ends[block] <= i << SHIFT) {
                block++;
            }
            guesses[i] = block;
        }
        return guesses;
    }

    /** A tape of blocks that are in memory. */
    static Tape of(List<TapeBlock> blocks) {
        List<TapeBlock> kept = List.copyOf(blocks);
        return new Tape(kept.stream().map(b -> new Outline(b.first(), b.count(), b.time(b.first()))).toList(),
                kept::get, Set.of());
    }

    /** The same prints, with sessions named that lack some. */
    public Tape withIncomplete(Set<SessionName> sessions) {
        return new Tape(outlines(), this::block, sessions);
    }

    /** A stretch of another tape, its prices moved by {@code shift} ticks. */
    public record Part(Tape tape, int from, int to, long shift) {}

    /** Parts of tapes one after another. No print is copied except in blocks that are cut. */
    public static Tape joined(List<Part> parts) {
        List<Outline> outlines = new ArrayList<>();
        List<java.util.function.Supplier<TapeBlock>> sources = new ArrayList<>();
        Set<SessionName> incomplete = new TreeSet<>();
        int first = 0;
        for (Part part : parts) {
            incomplete.addAll(part.tape().incomplete);
            for (int block = 0; block < part.tape().used; block++) {
                Outline whole = part.tape().outline(block);
                int from = Math.max(part.from(), whole.first());
                int to = Math.min(part.to(), whole.first() + whole.count());
                if (from < to) {
                    int place = first;
                    int from0 = from - whole.first();
                    int to0 = to - whole.first();
                    int index = block;
                    outlines.add(
                            new Outline(place, to - from, from0 == 0 ? whole.firstTime() : part.tape().time(from)));
                    sources.add(() -> part.tape().block(index).part(place, from0, to0, part.shift()));
                    first = Math.addExact(first, to - from);
                }
            }
        }
        return new Tape(outlines, index -> sources.get(index).get(), incomplete);
    }

    private TapeBlock of(int print) {
        int index = guesses[print >>> SHIFT];
        while (print >= ends[index]) {
            index++;
        }
        TapeBlock block = blocks[index];
        return block != null ? block : block(index);
    }

    private TapeBlock block(int index) {
        TapeBlock block = blocks[index];
        if (block == null) {
            // two threads may fetch it at once; both get the same prints
            block = source.apply(index);
            blocks[index] = block;
        }
        return block;
    }

    /** Number of prints. */
    public int count() {
        return count;
    }

    /** Sessions that lack prints, by the one who recorded or imported the tape. */
    public Set<SessionName> incomplete() {
        return incomplete;
    }

    /** Whether the tape says that a session lacks prints. */
    public boolean incomplete(Session session) {
        return !incomplete.isEmpty() && incomplete.contains(new SessionName(session.tradingDate(), session.name()));
    }

    /** Number of blocks. */
    public int blocks() {
        return used;
    }

    /** Fetches a block, so that it is checked, and returns it. */
    public TapeBlock fetch(int index) {
        return block(index);
    }

    /** Nanoseconds since 1970 UTC. */
    public long time(int print) {
        return of(print).time(print);
    }

    /** Ticks. */
    public long price(int print) {
        return of(print).price(print);
    }

    /** Contracts, at least 1. */
    public int size(int print) {
        return of(print).sizeCode(print) & TapeBlock.SIZE_MASK;
    }

    /** Best bid just before the print in ticks, or {@link #NONE}. */
    public long bid(int print) {
        return of(print).bid(print);
    }

    /** Best ask just before the print in ticks, or {@link #NONE}. */
    public long ask(int print) {
        return of(print).ask(print);
    }

    /** Contracts at the best bid just before the print, or {@link #NONE}. */
    public long bidSize(int print) {
        return of(print).bidSize(print);
    }

    /** Contracts at the best ask just before the print, or {@link #NONE}. */
    public long askSize(int print) {
        return of(print).askSize(print);
    }

    public Aggressor aggressor(int print) {
        return switch (aggressorCode(print)) {
            case 1 -> Aggressor.BUYER;
            case 2 -> Aggressor.SELLER;
            default -> Aggressor.UNKNOWN;
        };
    }

    /** Bit 0 for a buyer, bit 1 for a seller, neither for unknown. */
    public int aggressorCode(int print) {
        return of(print).sizeCode(print) >>> TapeBlock.SIZE_BITS;
    }

    /** The block that holds a print, for loops over many. */
    TapeBlock holding(int print) {
        return of(print);
    }

    /** Adds the prints {@code from} to {@code to}, the last one not included, to a bar's extremes and volumes. */
    void gather(int from, int to, Bar bar) {
        int print = from;
        while (print < to) {
            TapeBlock block = of(print);
            int end = Math.min(to, block.first() + block.count());
            block.gather(print, end, bar);
            print = end;
        }
    }

    /** Contracts of the prints {@code from} to {@code to}, the last one not included. */
    long contracts(int from, int to) {
        long sum = 0;
        int print = from;
        while (print < to) {
            TapeBlock block = of(print);
            int end = Math.min(to, block.first() + block.count());
            sum += block.contracts(print, end);
            print = end;
        }
        return sum;
    }

    /** Highest and lowest price of the prints {@code from} to {@code to}, the last one not included; in place of what was there. */
    public void extremes(int from, int to, Extremes found) {
        found.clear();
        int print = from;
        while (print < to) {
            TapeBlock block = of(print);
            int end = Math.min(to, block.first() + block.count());
            block.extremes(print, end, found);
            print = end;
        }
    }

    /** Takes the same prints into a swing. */
    public void swing(int from, int to, Swing swing) {
        int print = from;
        while (print < to) {
            TapeBlock block = of(print);
            int end = Math.min(to, block.first() + block.count());
            block.swing(print, end, swing);
            print = end;
        }
    }

    /** The first of the prints {@code from} to {@code to} at or beyond one of two prices, else {@code to}. */
    public int reaches(int from, int to, long down, long up) {
        int print = from;
        while (print < to) {
            TapeBlock block = of(print);
            int end = Math.min(to, block.first() + block.count());
            int found = block.reaches(print, end, down, up);
            if (found < end) {
                return found;
            }
            print = end;
        }
        return to;
    }

    /** Adds the prints {@code from} to {@code to}, the last one not included, to sums. */
    public void weigh(int from, int to, WeightedSums sums) {
        int print = from;
        while (print < to) {
            TapeBlock block = of(print);
            int end = Math.min(to, block.first() + block.count());
            block.weigh(print, end, sums);
            print = end;
        }
    }

    /** The first print whose time is not before {@code nanos}; {@link #count()} when there is none. */
    public int firstAt(long nanos) {
        // the last block that begins before that time; in earlier ones nothing can be as late
        int low = 0;
        int high = ends.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (firstTimes[middle] < nanos) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low == 0 ? 0 : block(low - 1).firstAt(nanos);
    }

    /** The same from {@code from} on, faster where it lies near: prints before it are not looked at. */
    public int firstAt(long nanos, int from) {
        if (from >= count) {
            return count;
        }
        TapeBlock block = of(from);
        int end = block.first() + block.count();
        return block.time(end - 1) >= nanos ? block.firstAt(nanos, from) : Math.max(end, firstAt(nanos));
    }

    /**
     * CRC-32C (RFC 3720) over all values of each print, eight little-endian bytes each: tells whether two tapes are the
     * same, however they are kept.
     */
    public synchronized long checksum() {
        if (summed != count) {
            CRC32C sum = new CRC32C();
            ByteBuffer row = ByteBuffer.allocate(1024 * 64).order(ByteOrder.LITTLE_ENDIAN);
            for (int print = 0; print < count; print++) {
                TapeBlock b = of(print);
                row.putLong(b.time(print)).putLong(b.price(print)).putLong(b.sizeCode(print)).putLong(b.bid(print))
                        .putLong(b.ask(print)).putLong(b.bidSize(print)).putLong(b.askSize(print)).putLong(0);
                if (!row.hasRemaining() || print == count - 1) {
                    sum.update(row.flip());
                    row.clear();
                }
            }
            checksum = sum.getValue();
            summed = count;
        }
        return checksum;
    }
}
