package stativex.files;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Room on the disk that is kept for the journals of a folder: 64 MB in a file {@code reserve}, given up when nothing else can be written,
 * so that exits are still written down. Source: SEMANTICS, "Live".
 */
public final class DiskReserve {
    /** Bytes. */
    static final long SIZE = 64L << 20;
    /** Bytes of room below which somebody should be told. */
    private static final long LITTLE = 4 * SIZE;
    private static final int CHUNK = 1 << 20;

    private final Path file;

    private DiskReserve(Path file) {
        this.file = file;
    }

    /** The one of a folder, made if it is not there. Without room for it there is none: {@link #isLittle} says so. */
    public static DiskReserve of(Path folder) {
        DiskReserve reserve = new DiskReserve(folder.resolve("reserve"));
        reserve.take();
        return reserve;
    }

    private void take() {
        try {
            if (Files.exists(file) && Files.size(file) == SIZE) {
                return;
            }
            DataFolder.create(file.toAbsolutePath().getParent());
            Files.deleteIfExists(file);
            try (FileChannel channel = DataFolder.newFile(file)) {
                ByteBuffer zeros = ByteBuffer.allocate(CHUNK);
                for (long at = 0; at < SIZE; at += CHUNK) {
                    InputJournal.writeAll(channel::write, zeros.clear());
                }
                channel.force(false);
            }
        } catch (IOException e) {
            free();
        }
    }

    /** Gives it up. Returns whether there was any. */
    public boolean free() {
        try {
            return Files.deleteIfExists(file);
        } catch (IOException e) {
            return false;
        }
    }

    /** Whether there is little room beside it, or it is gone. */
    public boolean isLittle() {
        try {
            return !Files.exists(file)
                    || Files.getFileStore(file.toAbsolutePath().getParent()).getUsableSpace() < LITTLE;
        } catch (IOException e) {
            return true;
        }
    }
}
