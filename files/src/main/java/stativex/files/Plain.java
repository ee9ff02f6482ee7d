package stativex.files;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;

/** Plain files only: a folder, a pipe or a device is refused before a byte is asked of it, since that might never come. */
public final class Plain {
    private Plain() {}

    /** @throws BadInput when it is something else than a plain file */
    public static InputStream open(Path file) throws IOException {
        check(file);
        return Files.newInputStream(file);
    }

    /**
     * Its length in bytes.
     *
     * @throws BadInput when it is something else than a plain file
     */
    public static long check(Path file) throws IOException {
        BasicFileAttributes what = Files.readAttributes(file, BasicFileAttributes.class);
        if (!what.isRegularFile()) {
            throw new BadInput(file + ": expected a file, found " + word(what));
        }
        return what.size();
    }

    /**
     * A place to write a file to: there is none yet, or a plain one that will be replaced.
     *
     * @throws BadInput when something else stands there
     */
    static void checkPlace(Path file) throws IOException {
        if (file.getFileName() == null) {
            throw new BadInput(file + ": expected the name of a file, found a folder");
        }
        if (Files.exists(file)) {
            check(file);
        }
    }

    private static String word(BasicFileAttributes what) {
        return what.isDirectory() ? "a folder" : "a pipe or device";
    }
}
