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
 * A tape on disk, one file, written from front to back and never changed after: a head with a text that says where the tape
 * comes from; blocks of prints, each with a head of its own (bounds, widths, CRC-32C of its columns); an index of the block
 * heads and a closing text; a trailer. All little-endian. Without a valid trailer the index is made again from the block
 * heads. Opening reads head and index only; a block's columns are mapped, and checked when first touched.
 */
final class TapeFile {
    /** Of the layout. */
    static final int VERSION = 1;
    private static final long MAGIC = magic("STVXTAPE");
    private static final long END = magic("STVXTEND");
    private static final int BLOCK_MAGIC = (int) magic("BLCK\0\0\0\0");
    private static final int HEAD = 32;
    private static final int BLOCK_HEAD = 64;
    private static final int TRAILER = 56;

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
        private final List<BlockHead> heads = new ArrayList<>();
        private final List<Long> places = new ArrayList<>();
        private long at;

        Writer(FileChannel channel, String origin) throws IOException {
            this.channel = channel;
            byte[] text = origin.getBytes(StandardCharsets.UTF_8);
            ByteBuffer head = buffer(HEAD + padded(text.length));
            head.putLong(MAGIC).putInt(VERSION).putInt(text.length);
            head.putInt(crc(ByteBuffer.wrap(text)));
            head.position(HEAD).put(text).position(head.capacity());
            write(head.flip());
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

        /** Ends the file and forces it to disk. */
        void end(String closing) throws IOException {
            byte[] text = closing.getBytes(StandardCharsets.UTF_8);
            ByteBuffer index = buffer((BLOCK_HEAD + 8) * heads.size() + padded(text.length));
            for (int i = 0; i < heads.size(); i++) {
                heads.get(i).put(index);
                index.putLong(places.get(i));
            }
            index.put(text).position(index.capacity());
            index.flip();
            ByteBuffer trailer = buffer(TRAILER);
            trailer.putLong(at).putInt(heads.size()).putInt(text.length).putInt(crc(index.duplicate()));
            write(index);
            trailer.putInt(0).putLong(at + TRAILER).putLong(0);
            trailer.putInt(crc(trailer.duplicate().flip())).position(TRAILER - 8);
            // the magic comes last: it makes the trailer one
            trailer.putLong(END);
            write(trailer.flip());
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
     * @param origin the text at its head
     * @param closing the text at its end; empty when the end was damaged and the index made anew
     * @param bytes its length
     */
    record Opened(String origin, Optional<String> closing, List<Tape.Outline> outlines,
            java.util.function.IntFunction<TapeBlock> source, long lastTime, long bytes) {
        Tape tape(Set<Tape.SessionName> incomplete) {
            return new Tape(outlines, source, incomplete);
        }
    }

    /** Reads the text at the head only. */
    static String origin(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file)) {
            return origin(file, channel);
        }
    }

    private static String origin(Path file, FileChannel channel) throws IOException {
        ByteBuffer head = read(channel, 0, HEAD);
        if (head.remaining() < HEAD || head.getLong() != MAGIC) {
            throw new BadInput(file + ": is no tape");
        }
        int version = head.getInt();
        if (version != VERSION) {
            throw new BadInput(file + ": is a tape of version " + version + ", expected " + VERSION
                    + ": import it again, or use the Stativex that wrote it");
        }
        int length = head.getInt();
        int sum = head.getInt();
        ByteBuffer text = length < 0 || length > channel.size() ? buffer(0) : read(channel, HEAD, length);
        if (crc(text.duplicate()) != sum) {
            throw new Damaged(file + ": its head does not match its checksum: import the tape again");
        }
        return StandardCharsets.UTF_8.decode(text).toString();
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

    /** @throws BadInput when it is no tape, or its head is damaged */
    static Opened open(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            String origin = origin(file, channel);
            long size = channel.size();
            List<BlockHead> heads = new ArrayList<>();
            List<Long> places = new ArrayList<>();
            Optional<String> closing = index(channel, size, heads, places);
            if (closing.isEmpty()) {
                heads.clear();
                places.clear();
                walk(channel, HEAD + padded(origin.getBytes(StandardCharsets.UTF_8).length), size, heads, places);
            }
            if (heads.isEmpty()) {
                throw new Damaged(file + ": holds no prints that can be read: import the tape again");
            }
            MemorySegment mapped = channel.map(FileChannel.MapMode.READ_ONLY, 0, size, Arena.ofAuto());
            List<Tape.Outline> outlines = heads.stream()
                    .map(h -> new Tape.Outline(h.first(), h.count(), h.firstTime())).toList();
            return new Opened(origin, closing, outlines, i -> fetch(file, mapped, heads.get(i), places.get(i)),
                    heads.getLast().lastTime(), size);
        }
    }

    private static TapeBlock fetch(Path file, MemorySegment mapped, BlockHead head, long place) {
        long length = head.widths().bytes(head.count());
        MemorySegment bytes = mapped.asSlice(place + BLOCK_HEAD, length);
        if (crc(bytes.asByteBuffer()) != head.sum()) {
            throw new Damaged(file + ": prints " + head.first() + " to " + (head.first() + head.count() - 1) + " ("
                    + TapeTime.instant(head.firstTime()) + " to " + TapeTime.instant(head.lastTime())
                    + ") do not match their checksum");
        }
        return new TapeBlock(head.first(), head.count(), head.base(), head.largest(), head.widths(), bytes);
    }

    private static Optional<String> index(FileChannel channel, long size, List<BlockHead> heads, List<Long> places)
            throws IOException {
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
        int length = (BLOCK_HEAD + 8) * blocks + padded(text);
        if (at + length + TRAILER != size) {
            return Optional.empty();
        }
        ByteBuffer index = read(channel, at, length);
        if (index.remaining() != length || crc(index.duplicate()) != trailer.getInt(16)) {
            return Optional.empty();
        }
        for (int i = 0; i < blocks; i++) {
            index.position((BLOCK_HEAD + 8) * i);
            heads.add(BlockHead.get(index).orElseThrow());
            places.add(index.getLong((BLOCK_HEAD + 8) * i + BLOCK_HEAD));
        }
        index.position((BLOCK_HEAD + 8) * blocks).limit((BLOCK_HEAD + 8) * blocks + text);
        return Optional.of(StandardCharsets.UTF_8.decode(index).toString());
    }

    /** Finds the blocks by going from head to head as far as they are whole. */
    private static void walk(FileChannel channel, long from, long size, List<BlockHead> heads, List<Long> places)
            throws IOException {
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
