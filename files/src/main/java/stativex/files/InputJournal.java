package stativex.files;

import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32C;

/**
 * An append-only file of JSON entries, each on a line of its own behind its length in bytes and its CRC-32C (RFC 3720) in eight
 * hexadecimal digits. An entry is forced to disk before {@link Writer#append} returns, so that a killed process loses none; what was
 * torn at the end is left out when it is read, and damage anywhere else is said with its line. Lines of journals of version 1, which
 * are JSON alone, are read as they are.
 */
final class InputJournal {
    /** Bytes. */
    private static final long LONGEST = 500_000_000;

    private InputJournal() {}

    private static String sum(byte[] entry) {
        CRC32C sum = new CRC32C();
        sum.update(entry);
        return String.format("%08x", sum.getValue());
    }

    /** Not safe for several threads. */
    static final class Writer implements AutoCloseable {
        private final Path file;
        private final FileChannel channel;
        /** Behind the last whole entry. */
        private long end;

        /** Begins a new file, its folder with it. @throws BadInput when that cannot be done, or the file holds something */
        Writer(Path file) {
            this.file = file;
            try {
                DataFolder.create(file.toAbsolutePath().getParent());
                channel = Files.exists(file)
                        ? FileChannel.open(file, StandardOpenOption.WRITE)
                        : DataFolder.newFile(file);
                if (channel.size() > 0) {
                    channel.close();
                    throw new BadInput(file + ": there is a session in it already");
                }
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
            }
        }

        private Writer(Path file, FileChannel channel) {
            this.file = file;
            this.channel = channel;
            try {
                this.end = channel.position();
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
            }
        }

        /** Goes on with a file behind its last whole line; what was torn off behind it goes. @throws BadInput likewise */
        static Writer onto(Path file) {
            if (!Files.exists(file)) {
                return new Writer(file);
            }
            try {
                byte[] text = Files.readAllBytes(file);
                int end = text.length;
                while (end > 0 && text[end - 1] != '\n') {
                    end--;
                }
                FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE);
                channel.truncate(end).position(end);
                return new Writer(file, channel);
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
            }
        }

        /** Writes an entry and forces it to disk. @throws BadInput when that cannot be done */
        void append(Object entry) {
            write(entry);
            force();
        }

        /** Forces to disk what was written. @throws BadInput when that cannot be done */
        void force() {
            try {
                channel.force(false);
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
            }
        }

        /**
         * Writes an entry: a killed process loses none, a power cut those that were not forced. What is written after one that could not
         * be takes its place.
         *
         * @throws BadInput likewise
         */
        void write(Object entry) {
            writeAll(List.of(entry));
        }

        /** Several at once: all of them, or none counts. @throws BadInput likewise */
        void writeAll(List<Object> entries) {
            ByteArrayOutputStream lines = new ByteArrayOutputStream();
            for (Object entry : entries) {
                byte[] json = Json.line(entry).getBytes(StandardCharsets.UTF_8);
                lines.writeBytes((json.length + " " + sum(json) + " ").getBytes(StandardCharsets.US_ASCII));
                lines.writeBytes(json);
                lines.write('\n');
            }
            try {
                channel.position(end);
                InputJournal.writeAll(channel::write, ByteBuffer.wrap(lines.toByteArray()));
                end += lines.size();
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
            }
        }

        @Override
        public void close() {
            try {
                channel.close();
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be closed: " + Causes.of(e), e);
            }
        }
    }

    /** Takes some of a buffer, maybe not all of it. */
    interface Sink {
        int write(ByteBuffer buffer) throws IOException;
    }

    /** A channel may take a part of what it is given: goes on until everything is written. */
    static void writeAll(Sink sink, ByteBuffer buffer) throws IOException {
        while (buffer.hasRemaining()) {
            sink.write(buffer);
        }
    }

    /** The entries of a journal, as JSON texts. @throws BadInput naming the line that is damaged */
    static List<String> read(Path file) {
        String text = Json.Text.read(file, LONGEST);
        List<String> lines = new ArrayList<>(text.lines().toList());
        boolean torn = !text.isEmpty() && !text.endsWith("\n");
        if (torn) {
            lines.removeLast();
        }
        List<String> entries = new ArrayList<>(lines.size());
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i);
            entries.add(line.startsWith("{") ? line : entry(line, file + ", line " + (i + 1)));
        }
        return entries;
    }

    /** The first entry of a journal alone. @throws BadInput when there is none, or it is damaged */
    static String first(Path file) {
        try (BufferedReader lines = Files.newBufferedReader(file)) {
            String line = lines.readLine();
            if (line == null) {
                throw new BadInput(file + ", line 1: expected a first line, found an empty file");
            }
            return entry(line, file + ", line 1");
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
    }

    private static String entry(String line, String place) {
        String[] parts = line.split(" ", 3);
        if (parts.length < 3 || !parts[0].matches("[0-9]{1,9}") || !parts[1].matches("[0-9a-f]{8}")) {
            throw new BadInput(place + ": expected an entry behind its length and checksum, found "
                    + line.substring(0, Math.min(40, line.length())));
        }
        byte[] json = parts[2].getBytes(StandardCharsets.UTF_8);
        if (json.length != Integer.parseInt(parts[0]) || !sum(json).equals(parts[1])) {
            throw new BadInput(place + ": expected " + parts[0] + " bytes with checksum " + parts[1] + ", found "
                    + json.length + " with " + sum(json) + ": the line is damaged");
        }
        return parts[2];
    }
}
