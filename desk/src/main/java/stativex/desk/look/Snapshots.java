package stativex.desk.look;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.image.WritableImage;
import javax.imageio.ImageIO;

/** Writes pictures. */
public final class Snapshots {
    private Snapshots() {}

    /** Writes an image as a PNG file. */
    public static void write(WritableImage image, Path file) throws IOException {
        Path place = file.toAbsolutePath();
        Files.createDirectories(place.getParent());
        if (!ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", place.toFile())) {
            throw new IOException("no writer for PNG");
        }
    }
}
