package stativex.desk.look;

import java.util.List;
import javafx.scene.text.Font;

/** The shipped fonts: B612 for words and figures, B612 Mono for rule text (SIL Open Font License, beside the files). */
public final class Fonts {
    private static final List<String> FILES = List.of("B612-Regular.otf", "B612-Bold.otf", "B612-Italic.otf",
            "B612Mono-Regular.ttf", "B612Mono-Bold.ttf");

    private Fonts() {}

    /** Loads them; call before the first scene. */
    public static void load() {
        for (String file : FILES) {
            try (var in = Fonts.class.getResourceAsStream("fonts/" + file)) {
                if (in == null || Font.loadFont(in, 12) == null) {
                    throw new IllegalStateException("font " + file + " cannot be loaded");
                }
            } catch (java.io.IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        }
    }

    public static Font words(double size) {
        return Font.font("B612 Regular", size);
    }

    public static Font bold(double size) {
        return Font.font("B612 Bold", size);
    }

    /** The same as for words: its digits have one width. */
    public static Font figures(double size) {
        return Font.font("B612 Regular", size);
    }
}
