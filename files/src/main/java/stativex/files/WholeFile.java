package stativex.files;

import java.io.BufferedOutputStream;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.UUID;

/** Writes a file in one piece or not at all: to a neighbour first, then moved into its place. */
public final class WholeFile {
    /** Writes text. */
    public interface Content {
        void to(Writer out) throws IOException;
    }

    /** Stays open until the channel below it is forced and closed: whoever writes to it may close it before. */
    private static final class Kept extends BufferedWriter {
        Kept(Writer below) {
            super(below, 1 << 16);
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }

    /** Writes bytes. */
    public interface Bytes {
        void to(OutputStream out) throws IOException;
    }

    /** The same of bytes. */
    private static final class KeptBytes extends BufferedOutputStream {
        KeptBytes(OutputStream below) {
            super(below, 1 << 16);
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }

    private WholeFile() {}

    /** Likewise. @throws BadInput when the place cannot be written, or something else than a file stands there */
    public static void writeBytes(Path file, Bytes content) {
        put(file, content, false);
    }

    /** @throws BadInput when the place cannot be written, or something else than a file stands there */
    public static void write(Path file, Content content, Charset charset) {
        write(file, content, charset, false);
    }

    /** The same for the person's data, which nobody else may read. */
    public static void writeOwn(Path file, Content content) {
        write(file, content, StandardCharsets.UTF_8, true);
    }

    /**
     * Where a file is to be written: what a link points to is replaced, not the link.
     *
     * @throws BadInput when something else than a file stands there
     */
    public static Path place(Path file) {
        Path place = file.toAbsolutePath();
        try {
            Plain.checkPlace(place);
            return Files.exists(place) ? place.toRealPath() : place;
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
        }
    }

    private static void write(Path file, Content content, Charset charset, boolean own) {
        put(file, bytes -> {
            Writer out = new Kept(new OutputStreamWriter(bytes, charset.newEncoder()));
            content.to(out);
            out.flush();
        }, own);
    }

    private static void put(Path file, Bytes content, boolean own) {
        try {
            Path place = place(file);
            if (own) {
                DataFolder.create(place.getParent());
            } else {
                Files.createDirectories(place.getParent());
            }
            Path neighbour = place.resolveSibling("." + UUID.randomUUID() + ".part");
            try {
                try (FileChannel channel = own
                        ? DataFolder.newFile(neighbour)
                        : FileChannel.open(neighbour,
                                StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                        OutputStream out = new KeptBytes(Channels.newOutputStream(channel))) {
                    content.to(out);
                    out.flush();
                    channel.force(true);
                }
                Files.move(neighbour, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            } finally {
                Files.deleteIfExists(neighbour);
            }
        } catch (IOException | UncheckedIOException e) {
            throw new BadInput(file + ": cannot be written: " + Causes.of(e), e);
        }
    }
}
