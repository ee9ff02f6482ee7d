package stativex.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Scene;
import javafx.scene.image.WritableImage;
import javax.imageio.ImageIO;
import stativex.engine.Command;
import stativex.engine.Mode;

/** A picture of the real window, with the first strategy engaged from where the demo's story begins. */
final class Picture {
    private Picture() {}

    /** Runs the replay to the time asked for, shows it, writes the picture. */
    static CompletableFuture<Void> take(Scene scene, DeskWindow window, Workspace workspace, Options options) {
        return CompletableFuture.runAsync(() -> {
            try {
                workspace.toBeginning();
                workspace.replay().await();
                workspace.replay().command(new Command.SetMode(0, Mode.ENGAGED));
                workspace.replay().jumpTo(options.at(workspace.inputs().contract()).orElse(workspace.begin()));
                workspace.replay().await();
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }).thenCompose(ready -> shown(scene, window, options.picture().orElseThrow()));
    }

    private static CompletableFuture<Void> shown(Scene scene, DeskWindow window, Path file) {
        CompletableFuture<Void> written = new CompletableFuture<>();
        Platform.runLater(() -> {
            try {
                window.refresh();
                write(scene, file);
                written.complete(null);
            } catch (IOException | RuntimeException e) {
                written.completeExceptionally(e);
            }
        });
        return written;
    }

    /** Writes what a scene shows as a PNG file. */
    static void write(Scene scene, Path file) throws IOException {
        scene.getRoot().applyCss();
        scene.getRoot().layout();
        WritableImage image = scene.snapshot(null);
        Path place = file.toAbsolutePath();
        Files.createDirectories(place.getParent());
        if (!ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", place.toFile())) {
            throw new IOException("no writer for PNG");
        }
    }
}
