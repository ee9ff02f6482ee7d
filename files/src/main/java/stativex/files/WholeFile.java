package stativex.files;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** Writes a file in one piece or not at all: to a neighbour first, then moved into its place. */
public final class WholeFile {
    /** Writes text. */
    public interface Content {
        void to(Writer out) throws IOException;
    }

    private WholeFile() {}

    /** @throws BadInput when the place cannot be written */
    public static void write(Path file, Content content, Charset charset) {
        Path place = file.toAbsolutePath();
        try {
            Files.createDirectories(place.getParent());
            Path neighbour = place
                    .resolveSibling("." + place.getFileName() + "." + ProcessHandle.current().pid() + ".part");
            try {
                try (BufferedWriter out = Files.newBufferedWriter(neighbour, charset)) {
                    content.to(out);
                }
                Files.move(neighbour, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            } finally {
                Files.deleteIfExists(neighbour);
            }
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be written: " + e, e);
        }
    }
}
