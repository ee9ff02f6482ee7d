package stativex.desk.look;

import atlantafx.base.theme.PrimerLight;
import javafx.application.Application;
import javafx.scene.Scene;

/** Fonts and style sheets. */
public final class Look {
    private Look() {}

    /** Loads fonts and the base of the controls' style; call once before the first scene. */
    public static void load() {
        Fonts.load();
        Application.setUserAgentStylesheet(new PrimerLight().getUserAgentStylesheet());
    }

    /** Puts the paper theme on a scene. */
    public static void apply(Scene scene) {
        scene.getStylesheets().add(Look.class.getResource("paper.css").toExternalForm());
        scene.setFill(Palette.FAINT);
    }
}
