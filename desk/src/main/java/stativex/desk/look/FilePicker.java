package stativex.desk.look;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** Asks the person for a file. An interface, because the system's own dialog does not exist off screen. */
public interface FilePicker {
    /** A file that is there; empty when the person thinks better of it. */
    Optional<Path> open(String title, String... endings);

    /** A place for a file, likewise. */
    Optional<Path> save(String title, String suggested, String... endings);

    /** The system's own dialogs. */
    static FilePicker system() {
        return new FilePicker() {
            @Override
            public Optional<Path> open(String title, String... endings) {
                return Optional.ofNullable(chooser(title, endings).showOpenDialog(window())).map(File::toPath);
            }

            @Override
            public Optional<Path> save(String title, String suggested, String... endings) {
                FileChooser chooser = chooser(title, endings);
                chooser.setInitialFileName(suggested);
                return Optional.ofNullable(chooser.showSaveDialog(window())).map(File::toPath);
            }
        };
    }

    private static FileChooser chooser(String title, String... endings) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(title);
        List<String> patterns = Stream.of(endings).map(ending -> "*." + ending).toList();
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(String.join(", ", patterns), patterns));
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("all files", "*.*"));
        return chooser;
    }

    private static Window window() {
        return Window.getWindows().stream().filter(Window::isFocused).findFirst().orElse(null);
    }
}
