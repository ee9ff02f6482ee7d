package stativex.files.tape;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.zip.CRC32C;
import stativex.files.BadInput;
import stativex.market.Tape;
import stativex.market.TapeBlock;
import stativex.market.TapeTime;

/**
 * A tape on disk, one file, never changed once it is whole: a head with a text that says where the tape comes from and one that says
 * how it was taken in; blocks of prints, each with a head of its own (bounds, widths, CRC-32C of its columns); an index of the block
 * heads with both texts once more; a trailer. All little-endian. Opening reads head and index only, and refuses a file of which either
 * is not what was written; a block's columns are mapped, and checked when first touched. Whatever one end of the file has lost the
 * other still tells, so that the tape can be made again.
 */
final class TapeFile {
    /** Of the layout. */
    static final int VERSION = 2;
    /** Its head has no text that says how the tape was taken in, its end not where it comes from. */
    private static final int OLDER = 1;
    private static final long MAGIC = magic("STVXTAPE");
    private static final long END = magic("STVXTEND");
    private static final int BLOCK_MAGIC = (int) magic("BLCK\0\0\0\0");
    private static final int HEAD = 32;
    private static final int BLOCK_HEAD = 64;
    private static final int TRAILER = 56;
    /** Room in the head for the text that is known only when everything has been read. */
    static final int ROOM = 1 << 16;

    private TapeFile() {}

    private static long magic(String text) {
        return ByteBuffer.wrap(text.getBytes(StandardCharsets.US_ASCII)).order(ByteOrder.LITTLE_ENDIAN).getLong();
    }

    private static ByteBuffer buffer(int size) {
        return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
    }

    private static int crc(ByteBuffer bytes) {
        CRC32C sum = new CRC32C();
        sum.update(bytes);
        return (int) sum.getValue();
    }

    private static int padded(int length) {
        return Math.ceilDiv(length, 8) * 8;
    }

    /** A block's head. */
    private record BlockHead(int first, int count, int largest, long firstTime, long lastTime, long base,
            TapeBlock.Widths widths, int sum) {
        static BlockHead of(TapeBlock block) {
            return new BlockHead(block.first(), block.count(), block.largest(), block.firstTime(), block.lastTime(),
                    block.base(), block.widths(), crc(block.bytes().asByteBuffer()));
        }

        void put(ByteBuffer to) {
            int at = to.position();
            to.putInt(BLOCK_MAGIC).putInt(count).putInt(first).putInt(largest).putLong(firstTime).putLong(lastTime)
                    .putLong(base);
            to.put((byte) widths.bid()).put((byte) widths.ask()).put((byte) widths.bidSize())
                    .put((byte) widths.askSize());
            to.putInt(sum).putLong(0);
            to.putInt(crc(to.duplicate().position(at).limit(to.position()))).putInt(0);
        }

        /** Empty when what stands there is no block's head. */
        static Optional<BlockHead> get(ByteBuffer from) {
            int at = from.position();
            ByteBuffer b = from.duplicate().order(ByteOrder.LITTLE_ENDIAN);
            if (b.remaining() < BLOCK_HEAD || b.getInt(at) != BLOCK_MAGIC
                    || b.getInt(at + 56) != crc(from.duplicate().limit(at + 56))) {
                return Optional.empty();
            }
            b.position(at + 4);
            int count = b.getInt();
            return Optional.of(new BlockHead(b.getInt(), count, b.getInt(), b.getLong(), b.getLong(), b.getLong(),
                    new TapeBlock.Widths(b.get(), b.get(), b.get(), b.get()), b.getInt()));
        }
    }

    /** Writes a tape file. Not safe for several threads. */
    static final class Writer implements AutoCloseable {
        private final FileChannel channel;
        private final String origin;
        private final List<BlockHead> heads = new ArrayList<>();
        private final List<Long> places = new ArrayList<>();
        private long at;

        Writer(FileChannel channel, String origin) throws IOException {
            this.channel = channel;
            this.origin = origin;
            write(head(""));
        }

        private ByteBuffer head(String closing) {
            byte[] text = origin.getBytes(StandardCharsets.UTF_8);
            byte[] end = closing.getBytes(StandardCharsets.UTF_8);
            ByteBuffer head = buffer(HEAD + padded(text.length) + ROOM);
            head.putLong(MAGIC).putInt(VERSION).putInt(text.length).putInt(crc(ByteBuffer.wrap(text)));
            head.putInt(end.length).putInt(crc(ByteBuffer.wrap(end)));
            head.putInt(crc(head.duplicate().flip()));
            head.position(HEAD).put(text).position(HEAD + padded(text.length)).put(end).position(head.capacity());
            return head.flip();
        }

        void block(TapeBlock block) throws IOException {
            BlockHead entry = BlockHead.of(block);
            heads.add(entry);
            places.add(at);
            ByteBuffer head = buffer(BLOCK_HEAD);
            entry.put(head);
            write(head.flip());
            write(block.bytes().asByteBuffer());
        }

        /**
         * Ends the file and forces it to disk.
         *
         * @param brief the same for the head, at most {@link #ROOM} bytes
         */
        void end(String closing, String brief) throws IOException {
            byte[] text = closing.getBytes(StandardCharsets.UTF_8);
            byte[] from = origin.getBytes(StandardCharsets.UTF_8);
            ByteBuffer index = buffer((BLOCK_HEAD + 8) * heads.size() + padded(text.length) + padded(from.length));
            for (int i = 0; i < heads.size(); i++) {
                heads.get(i).put(index);
                index.putLong(places.get(i));
            }
            int texts = index.position();
            index.put(text).position(texts + padded(text.length)).put(from).position(index.capacity());
            index.flip();
            ByteBuffer trailer = buffer(TRAILER);
            trailer.putLong(at).putInt(heads.size()).putInt(text.length).putInt(crc(index.duplicate()));
            write(index);
            trailer.putInt(from.length).putLong(at + TRAILER).putLong(0);
            trailer.putInt(crc(trailer.duplicate().flip())).position(TRAILER - 8);
            // the magic comes last: it makes the trailer one
            trailer.putLong(END);
            write(trailer.flip());
            ByteBuffer head = head(brief);
            for (long place = 0; head.hasRemaining();) {
                place += channel.write(head, place);
            }
            channel.force(true);
        }

        private void write(ByteBuffer bytes) throws IOException {
            at += bytes.remaining();
            while (bytes.hasRemaining()) {
                channel.write(bytes);
            }
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }

    /**
     * A tape file that was opened.
     *
     * @param origin the text that says where it comes from
     * @param closing the text that says how it was taken in
     * @param bytes its length
     */
    record Opened(String origin, String closing, List<Tape.Outline> outlines,
            java.util.function.IntFunction<TapeBlock> source, long lastTime, long bytes) {
        Tape tape(Set<Tape.SessionName> incomplete) {
            return new Tape(outlines, source, incomplete);
        }
    }

    /** Both texts of a file as far as they can still be read, each from the end of the file that has it whole. */
    record Texts(Optional<String> origin, Optional<String> closing) {}

    /** The head of a file. {@code blocks} is where they begin. */
    private record Head(String origin, Optional<String> closing, long blocks) {}

    private static Head head(Path file, FileChannel channel) throws IOException {
        ByteBuffer head = read(channel, 0, HEAD);
        if (head.remaining() < HEAD || head.getLong() != MAGIC) {
            throw new Damaged(file, "is no tape, or its head is damaged");
        }
        int version = head.getInt();
        if (version != VERSION && version != OLDER) {
            throw new Damaged(file, "is a tape of version " + version + ", expected " + VERSION
                    + ": import it again, or use the Stativex that wrote it");
        }
        boolean older = version == OLDER;
        if (!older && head.getInt(28) != crc(head.duplicate().position(0).limit(28))) {
            throw new Damaged(file, "its head does not match its checksum");
        }
        int length = head.getInt();
        Optional<String> origin = text(channel, HEAD, length, head.getInt());
        if (origin.isEmpty()) {
            throw new Damaged(file, "its head does not match its checksum");
        }
        long behind = HEAD + padded(length);
        if (older) {
            return new Head(origin.get(), Optional.empty(), behind);
        }
        Optional<String> closing = text(channel, behind, head.getInt(), head.getInt());
        if (closing.isEmpty()) {
            throw new Damaged(file, "its head does not match its checksum");
        }
        return new Head(origin.get(), closing, behind + ROOM);
    }

    /** A text of the file; empty when it is not what was written. */
    private static Optional<String> text(FileChannel channel, long at, int length, int sum) throws IOException {
        if (length < 0 || at + length > channel.size()) {
            return Optional.empty();
        }
        ByteBuffer text = read(channel, at, length);
        return text.remaining() == length && crc(text.duplicate()) == sum
                ? Optional.of(StandardCharsets.UTF_8.decode(text).toString())
                : Optional.empty();
    }

    /** What can still be read of a damaged file's texts. */
    static Texts texts(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            Optional<Index> index = index(channel);
            try {
                Head head = head(file, channel);
                return new Texts(Optional.of(head.origin()), index.map(Index::closing).or(head::closing));
            } catch (Damaged e) {
                return new Texts(index.flatMap(Index::origin), index.map(Index::closing));
            }
        }
    }

    /**
     * Writes the blocks of a file whose head or end is damaged to a new one.
     *
     * @param prints that the file had
     * @return whether every one of them is there as it was written; else nothing of use has been written
     */
    static boolean copyBlocks(Path file, int prints, Writer to) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            List<BlockHead> heads = new ArrayList<>();
            List<Long> places = new ArrayList<>();
            try {
                walk(channel, head(file, channel).blocks(), heads, places);
            } catch (Damaged e) {
                index(channel).ifPresent(index -> {
                    heads.addAll(index.heads());
                    places.addAll(index.places());
                });
            }
            if (heads.stream().mapToLong(BlockHead::count).sum() != prints) {
                return false;
            }
            MemorySegment mapped = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size(), Arena.ofAuto());
            for (int i = 0; i < heads.size(); i++) {
                to.block(fetch(file, mapped, heads.get(i), places.get(i)));
            }
            return true;
        } catch (Damaged e) {
            return false;
        }
    }

    private static ByteBuffer read(FileChannel channel, long at, int length) throws IOException {
        ByteBuffer bytes = buffer(length);
        while (bytes.hasRemaining()) {
            if (channel.read(bytes, at + bytes.position()) < 0) {
                break;
            }
        }
        return bytes.flip();
    }

    /** @throws Damaged when head or end are not what was written, or it is no tape */
    static Opened open(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            Head head = head(file, channel);
            Index index = index(channel)
                    .orElseThrow(() -> new Damaged(file, "its end is damaged or cut short: prints may be missing"));
            if (index.heads().isEmpty()) {
                throw new Damaged(file, "holds no prints");
            }
            long size = channel.size();
            MemorySegment mapped = channel.map(FileChannel.MapMode.READ_ONLY, 0, size, Arena.ofAuto());
            List<BlockHead> heads = index.heads();
            List<Tape.Outline> outlines = heads.stream()
                    .map(h -> new Tape.Outline(h.first(), h.count(), h.firstTime())).toList();
            return new Opened(head.origin(), index.closing(), outlines,
                    i -> fetch(file, mapped, heads.get(i), index.places().get(i)), heads.getLast().lastTime(), size);
        }
    }

    private static TapeBlock fetch(Path file, MemorySegment mapped, BlockHead head, long place) {
        long length = head.widths().bytes(head.count());
        MemorySegment bytes = mapped.asSlice(place + BLOCK_HEAD, length);
        if (crc(bytes.asByteBuffer()) != head.sum()) {
            throw new Damaged(file, "prints " + head.first() + " to " + (head.first() + head.count() - 1) + " ("
                    + TapeTime.instant(head.firstTime()) + " to " + TapeTime.instant(head.lastTime())
                    + ") do not match their checksum");
        }
        return new TapeBlock(head.first(), head.count(), head.base(), head.largest(), head.widths(), bytes);
    }

    /** The end of a file. @param origin empty in files of the older version */
    private record Index(List<BlockHead> heads, List<Long> places, String closing, Optional<String> origin) {}

    /** Empty when the end is not what was written. */
    private static Optional<Index> index(FileChannel channel) throws IOException {
        long size = channel.size();
        if (size < HEAD + TRAILER) {
            return Optional.empty();
        }
        ByteBuffer trailer = read(channel, size - TRAILER, TRAILER);
        if (trailer.getLong(TRAILER - 8) != END || trailer.getLong(24) != size
                || trailer.getInt(40) != crc(trailer.duplicate().limit(40))) {
            return Optional.empty();
        }
        long at = trailer.getLong(0);
        int blocks = trailer.getInt(8);
        int text = trailer.getInt(12);
        int from = trailer.getInt(20);
        int length = (BLOCK_HEAD + 8) * blocks + padded(text) + padded(from);
        if (at + length + TRAILER != size) {
            return Optional.empty();
        }
        ByteBuffer index = read(channel, at, length);
        if (index.remaining() != length || crc(index.duplicate()) != trailer.getInt(16)) {
            return Optional.empty();
        }
        List<BlockHead> heads = new ArrayList<>();
        List<Long> places = new ArrayList<>();
        for (int i = 0; i < blocks; i++) {
            index.position((BLOCK_HEAD + 8) * i);
            heads.add(BlockHead.get(index).orElseThrow());
            places.add(index.getLong((BLOCK_HEAD + 8) * i + BLOCK_HEAD));
        }
        int texts = (BLOCK_HEAD + 8) * blocks;
        String closing = StandardCharsets.UTF_8.decode(index.slice(texts, text)).toString();
        return Optional.of(new Index(heads, places, closing, from == 0
                ? Optional.empty()
                : Optional.of(StandardCharsets.UTF_8.decode(index.slice(texts + padded(text), from)).toString())));
    }

    /** Finds the blocks by going from head to head as far as they are whole. */
    private static void walk(FileChannel channel, long from, List<BlockHead> heads, List<Long> places)
            throws IOException {
        long size = channel.size();
        long at = from;
        int first = 0;
        while (at + BLOCK_HEAD <= size) {
            Optional<BlockHead> head = BlockHead.get(read(channel, at, BLOCK_HEAD));
            if (head.isEmpty() || head.get().first() != first) {
                return;
            }
            long end = at + BLOCK_HEAD + head.get().widths().bytes(head.get().count());
            if (end > size) {
                return;
            }
            heads.add(head.get());
            places.add(at);
            first += head.get().count();
            at = end;
        }
    }
}
