package stativex.desk.look;

import javafx.scene.paint.Color;

/** The colours of the paper theme. Four hues carry meaning: automation, long, short, warn, trip; all else is ink. */
public final class Palette {
    public static final Color CHART = Color.web("#FBFAF6");
    public static final Color PANEL = Color.web("#F6F4EE");
    public static final Color RULE = Color.web("#D2CCBE");
    public static final Color FAINT = Color.web("#E9E6DD");
    public static final Color SOFT = Color.web("#DEDACE");
    public static final Color INK = Color.web("#1F2529");
    public static final Color MUTED = Color.web("#5F6361");
    public static final Color SLATE = Color.web("#56616B");
    public static final Color LANE = Color.web("#98A3A3");
    public static final Color AUTOMATION = Color.web("#6B3FA0");
    public static final Color LONG = Color.web("#2468A8");
    public static final Color SHORT = Color.web("#B85C00");
    public static final Color SHORT_TEXT = Color.web("#9E4F00");
    public static final Color WARN = Color.web("#D99A00");
    public static final Color WARN_TEXT = Color.web("#845D00");
    public static final Color TRIP = Color.web("#BE2D2A");

    /** Muted tones for studies, none of them near the hues that carry meaning. */
    public static final Color TEAL = Color.web("#3B6A6C");
    public static final Color MOSS = Color.web("#4A6B4D");
    public static final Color OLIVE = Color.web("#64663A");
    public static final Color MAUVE = Color.web("#7A5A6B");

    private Palette() {}

    /**
     * The tone of a study's ink.
     *
     * @param plain of one that is drawn with plain ink
     */
    public static Color ink(String word, Color plain) {
        return switch (word) {
            case "teal" -> TEAL;
            case "moss" -> MOSS;
            case "olive" -> OLIVE;
            case "mauve" -> MAUVE;
            default -> plain;
        };
    }
}
