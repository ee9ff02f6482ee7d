package stativex.desk.draw;

import javafx.scene.paint.Color;
import javafx.scene.text.Font;

/** What charts are drawn with, so that one drawing can go to a screen or to a file. Coordinates in pixels, y down. */
public interface Pen {
    void fill(Color color, double x, double y, double width, double height);

    /** A one-pixel frame inside the rectangle. */
    void frame(Color color, double x, double y, double width, double height);

    /** @param dashes lengths of strokes and gaps; none for a solid line */
    void line(Color color, double width, double x1, double y1, double x2, double y2, double... dashes);

    /** @param count how many of the points count */
    void path(Color color, double width, double[] xs, double[] ys, int count, double... dashes);

    void disc(Color fill, Color edge, double x, double y, double radius);

    void polygon(Color fill, Color edge, double[] xs, double[] ys);

    /** Text with its left end at x and its baseline at y. */
    void text(String text, Font font, Color color, double x, double y);

    double width(String text, Font font);

    /** Draws only inside the rectangle until {@link #unclip()}. */
    void clip(double x, double y, double width, double height);

    void unclip();

    /** Diagonal hatching over a rectangle. */
    default void hatch(Color color, double x, double y, double width, double height) {
        clip(x, y, width, height);
        for (double at = x - height; at < x + width; at += 5) {
            line(color, 1, at, y + height, at + height, y);
        }
        unclip();
    }

    default void centred(String text, Font font, Color color, double x, double y) {
        text(text, font, color, x - width(text, font) / 2, y);
    }

    default void rightAligned(String text, Font font, Color color, double x, double y) {
        text(text, font, color, x - width(text, font), y);
    }
}
